import { setView, useView } from '../document/view';

/** Begins to paint a step's mask on its form, which is shown by it meanwhile. */
export function startPainting(growth: string, step: string, param: string, mask: string): void {
  setView({
    tool: 'paint',
    placing: { growth, step, param },
    playing: false,
    shade: { growth, of: 'vertices', name: mask, part: null, range: [0, 1] },
  });
}

/** Puts the brush away. */
export function stopPainting(): void {
  if (useView.getState().tool === 'paint') setView({ tool: 'look', placing: null, shade: null });
}
