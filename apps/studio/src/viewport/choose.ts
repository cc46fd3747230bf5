import { growthIn, useDocument } from '@/state/document/document';
import { chosenIn, seeAll, setView, useView } from '@/state/document/view';
import { skinUnder, useProjection } from '../state/director/projection';

/** How long what was chosen is outlined, milliseconds. */
const OUTLINED = 1200;

/** Pixels that a pointer may move in a click. */
const STILL = 4;

/**
 * Lets growths be chosen in the picture: a click selects the one under the pointer, with Ctrl or Shift one more, a double click
 * brings it into the picture. What is locked is left alone.
 * A drag looks round, as ever.
 * @returns what stops it
 */
export function startChoosing(canvas: HTMLCanvasElement): () => void {
  let down: { x: number; y: number } | null = null;
  const under = (event: MouseEvent): string | null => {
    const box = canvas.getBoundingClientRect();
    return skinUnder(event.clientX - box.left, event.clientY - box.top, useProjection.getState())?.growth ?? null;
  };
  const free = (): boolean => useView.getState().tool === 'look';
  const onDown = (event: PointerEvent): void => void (down = { x: event.clientX, y: event.clientY });
  const onClick = (event: MouseEvent): void => {
    if (!down || !free() || Math.hypot(event.clientX - down.x, event.clientY - down.y) > STILL) return;
    const growth = under(event);
    if (!growth || growthIn(useDocument.getState().scene, growth)?.locked) return;
    const more = event.ctrlKey || event.metaKey || event.shiftKey;
    const chosen = more ? [...new Set([...chosenIn(useView.getState()), growth])] : [];
    const at = performance.now();
    setView({ growth, chosen, keys: [], pointed: { growth, at } });
    setTimeout(() => setView(({ pointed }) => (pointed?.at === at ? { pointed: null } : {})), OUTLINED);
  };
  const onDouble = (event: MouseEvent): void => {
    const growth = free() ? under(event) : null;
    if (growth) seeAll(growth);
  };
  canvas.addEventListener('pointerdown', onDown);
  canvas.addEventListener('click', onClick);
  canvas.addEventListener('dblclick', onDouble);
  return () => {
    canvas.removeEventListener('pointerdown', onDown);
    canvas.removeEventListener('click', onClick);
    canvas.removeEventListener('dblclick', onDouble);
  };
}
