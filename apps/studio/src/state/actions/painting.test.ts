import { startPainting, stopPainting } from './painting';
import { setView, useView } from '../document/view';

test('the brush is put away with what it showed; where there is none, nothing changes', () => {
  startPainting('growth', 'step', 'strokes', 'mask');
  expect(useView.getState()).toMatchObject({
    tool: 'paint',
    placing: { growth: 'growth', step: 'step', param: 'strokes' },
    shade: { growth: 'growth', of: 'vertices', name: 'mask', range: [0, 1] },
  });
  stopPainting();
  expect(useView.getState()).toMatchObject({ tool: 'look', placing: null, shade: null });
  const shade = { growth: 'other', of: 'faces', name: 'area', part: null, range: null } as const;
  setView({ tool: 'measure', shade });
  stopPainting();
  expect(useView.getState()).toMatchObject({ tool: 'measure', shade });
});
