import { type OnScreen } from '@/state/results';
import { automatic, shareAtOnce } from './pace';

test('a graphics card draws finely at rest and with shadows while things move, whatever there is', () => {
  expect(automatic(false, true, {}, 5e6)).toBe('fine');
  expect(automatic(false, false, { fine: { faces: 10, took: 9000 } }, 5e6)).toBe('standard');
});

test('the processor draws drafts while things move, and at rest what it is up to', () => {
  expect(automatic(true, false, {}, 10)).toBe('draft');
  expect(automatic(true, true, {}, 10_000)).toBe('fine');
  expect(automatic(true, true, {}, 300_000)).toBe('standard');
  expect(automatic(true, true, {}, 1_200_000)).toBe('draft');
});

test('what was slow is not drawn so again, unless there is much less to draw', () => {
  const costs = { fine: { faces: 100_000, took: 4000 } };
  expect(automatic(true, true, costs, 100_000)).toBe('standard');
  expect(automatic(true, true, costs, 20_000)).toBe('fine');
  expect(automatic(true, true, { ...costs, standard: { faces: 100_000, took: 4000 } }, 100_000)).toBe('draft');
});

test('few copies are drawn at once, of many a share that keeps the work the same', () => {
  const growths = (copies: number) =>
    [
      {
        shown: { copies: [{ item: 'cube', ids: new Uint32Array(copies) }] },
        items: new Map([['cube', { mesh: { positions: new Float32Array(72), indices: new Uint32Array(36) } }]]),
      },
    ] as unknown as OnScreen[];
  expect(shareAtOnce(growths(100))).toBe(1);
  expect(shareAtOnce([])).toBe(1);
  const [some, more] = [shareAtOnce(growths(50_000)), shareAtOnce(growths(100_000))];
  expect(some).toBeLessThan(0.1);
  expect(more * 100_000).toBeCloseTo(some * 50_000, 6);
});
