import { newGrowth, newStep } from '../scene/make';
import { formOf, sceneOf, testEvaluator } from '../testing';
import { wholeMesh } from './copies';
import { emptyForm } from './form';
import { measuresOf, roomOf } from './measures';

/** A stem with leaves: copies that stand turned. */
async function leaves() {
  const scene = sceneOf([newStep('line'), newStep('along', { growth: 'leaf', by: 'count', count: 9, lean: 40 })]);
  const leaf = newGrowth('Leaf', 1, [newStep('solid', { solid: 'box', radius: 0.1 })]);
  scene.growths.push({ ...leaf, id: 'leaf', visible: false });
  const [{ form }] = (await testEvaluator().evaluate(scene, scene.range[1])).growths;
  return form!;
}

test('the room of copies is that of all their vertices, and their measures lie round it', async () => {
  const form = await leaves();
  const { min, max } = roomOf(form)!;
  const measures = measuresOf(form)!;
  const { positions } = wholeMesh(form)!;
  for (let c = 0; c < 3; c++) {
    const along = Array.from(positions).filter((_, i) => i % 3 === c);
    expect(min[c]).toBe(Math.min(...along));
    expect(max[c]).toBe(Math.max(...along));
    expect(measures.min[c]).toBeLessThanOrEqual(min[c] + 1e-6);
    expect(measures.max[c]).toBeGreaterThanOrEqual(max[c] - 1e-6);
  }
});

test('the pitch of an item is told with its measures; paths alone have none, and nothing has no room', async () => {
  const paths = await formOf(sceneOf([newStep('line')]));
  expect(measuresOf(paths)).toBeNull();
  expect(roomOf(paths)).toBeNull();
  expect(measuresOf(emptyForm())).toBeNull();
  const link = { ...(await formOf(sceneOf([newStep('line'), newStep('tube')]))), pitch: 0.25 };
  expect(measuresOf(link)!.pitch).toBe(0.25);
});

test('a surface without a corner takes a place and no room', async () => {
  const { mesh } = await formOf(sceneOf([newStep('line'), newStep('tube')]));
  const none = { ...emptyForm(), mesh: { ...mesh!, positions: new Float32Array(0), indices: new Uint32Array(0) } };
  expect(roomOf(none)).toEqual({ min: [0, 0, 0], max: [0, 0, 0] });
});
