import { newGrowth, newStep } from '../../scene/make';
import { sceneOf, testEvaluator } from '../../testing';
import { withShipped } from '../../../test/paths';
import { meshWith } from '../../geometry/mesh';
import { opennessOf } from './openness';
import { box, sheet } from '../make/solids';

withShipped();

test('borders are counted as rings, edges of more than two faces one by one; closed solids say nothing', () => {
  expect(opennessOf(box(1, 1, 1))).toBeNull();
  expect(opennessOf(sheet(1, 1, 4))).toBe('The form has 1 open border.');
  // A box without its first two faces, and one without two opposite ones.
  const whole = box(1, 1, 1);
  expect(opennessOf({ ...whole, indices: whole.indices.slice(6) })).toBe('The form has 1 open border.');
  // Three sheets that meet along one edge, as pages of a book.
  const page = (x: number, z: number): number[] => [0, 0, 0, 0, 1, 0, x, 1, z, x, 0, z];
  const positions = Float32Array.from([...page(1, 0), ...page(-1, 0.5), ...page(-1, -0.5)]);
  const indices = Uint32Array.from([0, 4, 8].flatMap((k) => [k, k + 1, k + 2, k, k + 2, k + 3]));
  const book = meshWith({ positions, normals: positions, uvs: new Float32Array(24), indices });
  expect(opennessOf(book)).toBe('The form has 1 open border and 1 edge where three faces or more meet.');
});

test('a step tells of what it made, again from what is kept, and the growth has its form', async () => {
  const scene = sceneOf([newStep('form', { file: 'shipped:figurehead' }), newStep('finish')]);
  scene.growths.push({ ...newGrowth('Open', 1, [newStep('solid', { which: 'sheet' })]), id: 'open' });
  const evaluator = testEvaluator();
  const first = await evaluator.evaluate(scene, 1);
  const then = await evaluator.evaluate(scene, 2);
  // The form that comes with Uvrex is closed.
  for (const { growths } of [first, then]) expect(growths[0].notices).toEqual([]);
});
