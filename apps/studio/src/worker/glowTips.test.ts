import { FAR, NEAR } from '@uvrex/core';
import { tipsOf } from './glowTips';

/** Three paths of two points along X, at heights 0, 1 and 2. */
const paths = (fronts: number[], closed = [0, 0, 0]) => ({
  positions: Float32Array.of(0, 0, 0, 1, 0, 0, 0, 1, 0, 1, 1, 0, 0, 2, 0, 1, 2, 0),
  offsets: Uint32Array.of(0, 2, 4, 6),
  closed: Uint8Array.from(closed),
  fronts: Uint8Array.from(fronts),
});

test('what grows shines at its growing ends, as strongly as the skin does anywhere', () => {
  const tips = tipsOf(paths([FAR, NEAR, 0]), Float32Array.of(0.25, 0.75, 0.5))!;
  expect([...tips.positions]).toEqual([1, 0, 0, 0, 1, 0]);
  expect([...tips.strengths]).toEqual([0.75, 0.75]);
  expect(tipsOf(paths([FAR | NEAR, 0, 0]), Float32Array.of(1))!.positions).toHaveLength(6);
});

test('closed paths, single points, ends that stand, and dark skins have none', () => {
  const bright = Float32Array.of(1);
  expect(tipsOf(paths([FAR, 0, 0], [1, 0, 0]), bright)).toBeNull();
  expect(tipsOf({ ...paths([FAR, FAR, FAR]), offsets: Uint32Array.of(0, 1, 2, 3) }, bright)).toBeNull();
  expect(tipsOf(paths([0, 0, 0]), bright)).toBeNull();
  expect(tipsOf(paths([FAR, 0, 0]), Float32Array.of(0.005))).toBeNull();
  expect(tipsOf(paths([FAR, 0, 0]), null)).toBeNull();
  expect(tipsOf(null, bright)).toBeNull();
});
