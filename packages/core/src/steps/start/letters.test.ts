import { boundsOf } from '../../geometry/form';
import { flaws } from '../../geometry/invariants';
import { areaAndVolume } from '../../geometry/mesh';
import { topologyCounts } from '../../geometry/topology/topology';
import { newStep } from '../../scene/make';
import { formOf, sceneOf, testEvaluator } from '../../testing';
import { withShipped } from '../../../test/paths';

withShipped();

test('solid letters are closed, with a hole through each of R, e and e, and stand on the ground about the middle', async () => {
  const form = await formOf(sceneOf([newStep('solid', { which: 'letters', text: 'Reef', height: 0.4, depth: 0.1 })]));
  expect(flaws(form)).toEqual([]);
  // Euler characteristic: 2 for a ball, 2 less for each hole through it; R, e and e have one each, f none.
  expect(topologyCounts(form.mesh!)).toMatchObject({ openEdges: 0, flippedEdges: 0, euler: 2 });
  const { min, max } = boundsOf(form)!;
  expect(min[1]).toBeCloseTo(0, 6);
  expect(min[0]).toBeCloseTo(-max[0], 6);
  expect([min[2], max[2]]).toEqual([expect.closeTo(-0.05, 6), expect.closeTo(0.05, 6)]);
});

test('they hold what the outlines hold, as a plate of the same depth', async () => {
  const solid = await formOf(
    sceneOf([newStep('solid', { which: 'letters', text: 'Bay\n8', height: 0.7, depth: 0.2 })]),
  );
  const plate = await formOf(
    sceneOf([newStep('text', { text: 'Bay\n8', size: 0.7 }), newStep('plate', { depth: 0.2 })]),
  );
  expect(areaAndVolume(solid.mesh!).volume).toBeCloseTo(areaAndVolume(plate.mesh!).volume, 5);
  expect(areaAndVolume(solid.mesh!).volume).toBeGreaterThan(0.01);
});

test('without a letter it says so', async () => {
  const scene = sceneOf([newStep('solid', { which: 'letters', text: '  ' })]);
  const [{ notices }] = (await testEvaluator().evaluate(scene, 1)).growths;
  expect(notices.map(({ what }) => what)).toEqual(['There is no letter with an outline.']);
});
