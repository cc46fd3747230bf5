import { kindsGiven } from '../../scene/growthKinds';
import { at } from '../../geometry/vec';
import { newStep } from '../../scene/make';
import type { Anchor } from '../../geometry/vec';
import { form } from '../../../test/paths';

const ANCHORS: Anchor[] = [
  [0, 0, 0],
  [0.3, 1.1, -0.2, 2],
  [-0.4, 2, 0.5],
];
const drawn = (dots: boolean) => newStep('drawn', { anchors: ANCHORS, dots, points: 7 });

test('a drawn path gives a point exactly at each anchor, with its size', async () => {
  const { points, paths } = await form([drawn(true)]);
  ANCHORS.forEach(([x, y, z], k) =>
    expect(at(points!.positions, k)).toEqual([x, y, z].map((value) => Math.fround(value))),
  );
  expect([...points!.size]).toEqual([1, 2, 1]);
  expect([...points!.share]).toEqual([0, 0.5, 1]);
  expect(paths!.s).toHaveLength(7);
  expect((await form([drawn(false)])).points).toBeNull();
});

test('only then other growths and later steps are offered its points', () => {
  expect([...kindsGiven([drawn(true)])]).toEqual(['paths', 'points']);
  expect([...kindsGiven([drawn(false)])]).toEqual(['paths']);
});
