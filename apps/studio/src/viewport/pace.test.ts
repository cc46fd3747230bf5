import type { OnScreen } from '@/state/director/results';
import { automatic, sharingOf } from './pace';

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
  expect(sharingOf(growths(100)).share).toBe(1);
  expect(sharingOf([]).share).toBe(1);
  const [some, more] = [sharingOf(growths(50_000)), sharingOf(growths(100_000))];
  expect(some.share).toBeLessThan(0.1);
  expect(more.share * 100_000).toBeCloseTo(some.share * 50_000, 6);
  // Stand-ins for all of them are no more work, and are not remade whenever a copy more or less is there.
  expect(sharingOf(growths(1000)).light * 1000).toBeLessThanOrEqual(some.share * 50_000 * 36);
  expect(sharingOf(growths(1000)).light).toBe(sharingOf(growths(1010)).light);
});
