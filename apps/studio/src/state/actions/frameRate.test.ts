import { newGrowth, newScene, newStep } from '@uvrex/core';
import { changeFrameRate } from './frameRate';
import { openScene, travel, useDocument } from '../document/document';
import { setView, useView } from '../document/view';

const said: { text: string; action?: { run: () => void } }[] = [];
jest.mock('../toasts', () => ({ say: (toast: (typeof said)[number]) => said.push(toast), sayProblem: () => {} }));

test('keys keep their frames, one click gives them their seconds back; both are undone one by one', async () => {
  const scene = newScene('Rates');
  scene.fps = 24;
  scene.range = [1, 48];
  const to = {
    keys: [{ frame: 13, value: 1, ease: 'linear' as const }],
    before: 'hold' as const,
    after: 'hold' as const,
  };
  scene.growths = [newGrowth('Frond', 0, [newStep('line'), newStep('grow', { to })])];
  openScene('rates', scene);
  setView({ frame: 25 });
  const now = () => useDocument.getState().scene;
  const key = () => (now().growths[0].steps[1].params.to as typeof to).keys[0].frame;
  changeFrameRate(30, true);
  changeFrameRate(48);
  expect([now().fps, key(), now().range[1]]).toEqual([48, 13, 48]);
  expect(said).toHaveLength(1);
  said[0].action!.run();
  await new Promise((done) => setTimeout(done, 50));
  expect([now().fps, key(), now().range[1]]).toEqual([48, 25, 96]);
  // The second second, as before.
  expect(useView.getState().frame).toBe(49);
  travel('undo');
  expect([now().fps, key(), now().range[1]]).toEqual([48, 13, 48]);
  travel('undo');
  expect([now().fps, key()]).toEqual([24, 13]);
});

test('what is refused, and what comes back to where it was, says nothing', () => {
  const scene = newScene('Rates');
  scene.fps = 24;
  openScene('rates', scene);
  said.length = 0;
  changeFrameRate(40, true);
  changeFrameRate(24);
  useDocument.setState({ readOnly: true });
  changeFrameRate(60);
  useDocument.setState({ readOnly: false });
  expect(said).toEqual([]);
  expect(useDocument.getState().scene.fps).toBe(24);
});
