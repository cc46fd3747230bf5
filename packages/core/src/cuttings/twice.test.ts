import { wholeMesh } from '../geometry/copies';
import type { Copies, Form } from '../geometry/form';
import { at, distance, type Vec3 } from '../geometry/vec';
import { newGrowth, newScene, newStep } from '../scene/make';
import type { Scene, Step } from '../scene/schema';
import { stepOf } from '../steps/index';
import { testEvaluator } from '../testing';
import { grows, withShipped } from '../../test/paths';
import { CUTTINGS, plantIn } from './index';

withShipped();

function host(steps: Step[]): Scene {
  const scene: Scene = { ...newScene('Bed'), range: [1, 101] };
  scene.growths.push({ ...newGrowth('Host', 0, steps), id: 'host' });
  return scene;
}
const rock = (): Scene => host([newStep('rock'), newStep('finish', { glow: 0 })]);
const stem = (): Scene =>
  host([newStep('line'), newStep('grow', { to: grows(0, 1) }), newStep('tube'), newStep('finish')]);

function plant(scene: Scene, ...ids: string[]): Scene {
  for (const id of ids) {
    const cutting = CUTTINGS.find((one) => one.id === id)!;
    const on = scene.growths.find((growth) => growth.id === 'host') ?? null;
    plantIn(scene, cutting.on ? 'host' : null, cutting.plant({ scene, host: cutting.on ? on : null, size: 2 }));
  }
  return scene;
}

async function formAt(scene: Scene, frame: number): Promise<Form> {
  const { growths } = await testEvaluator().evaluate(scene, frame);
  const found = growths.find(({ id }) => id === 'host')!;
  expect(found.notices.filter(({ level }) => level !== 'note')).toEqual([]);
  return found.form!;
}

/** Copies of the item of a name. */
function copiesOf(copies: Copies, k: number): { position: Vec3; size: number }[] {
  return [...copies.item.keys()]
    .filter((i) => copies.item[i] === k)
    .map((i) => ({ position: at(copies.positions, i), size: copies.sizes[3 * i] }));
}

test('two cuttings that scatter both scatter, one after the other, in either order', async () => {
  for (const ids of [
    ['barnacles', 'weeds'],
    ['weeds', 'barnacles'],
  ]) {
    const alone = await Promise.all(ids.map((id) => formAt(plant(rock(), id), 101)));
    const both = await formAt(plant(rock(), ...ids), 101);
    expect(both.copies!.ids.length).toBe(alone[0].copies!.ids.length + alone[1].copies!.ids.length);
    expect(both.mesh!.positions.length).toBe(alone[0].mesh!.positions.length);
  }
});

test('a second cutting leaves the copies of the first where they are', async () => {
  // The same scene: chance hangs on the ids of its steps.
  const scene = plant(stem(), 'leaves');
  const alone = await formAt(scene, 60);
  const both = await formAt(plant(structuredClone(scene), 'falling-planks'), 60);
  const leaves = copiesOf(alone.copies!, 0);
  expect(leaves.length).toBeGreaterThan(10);
  const still = copiesOf(both.copies!, 0);
  leaves.forEach(({ position, size }, i) => {
    expect(distance(position, still[i].position)).toBeLessThan(1e-6);
    expect(still[i].size).toBeCloseTo(size, 6);
  });
  expect(both.copies!.ids.length).toBeGreaterThan(alone.copies!.ids.length);
});

test('what swells a skin comes before what stands on it, and goes by the front that is there', async () => {
  const scene = plant(rock(), 'barnacles', 'swelling');
  const kinds = scene.growths[0].steps.map(({ kind }) => kind);
  expect(kinds.filter((kind) => kind === 'front')).toHaveLength(1);
  expect(kinds.indexOf('displace')).toBeLessThan(kinds.indexOf('scatter'));
  expect(kinds.indexOf('displace')).toBeGreaterThan(kinds.indexOf('front'));
  const { mesh, copies } = await formAt(scene, 101);
  const radius = (flat: Float32Array): number[] =>
    Array.from({ length: flat.length / 3 }, (_, i) => Math.hypot(...at(flat, i)));
  const skin = radius(mesh!.positions);
  const feet = radius(copies!.positions);
  expect(Math.max(...feet)).toBeGreaterThan(Math.max(...skin) - 0.1);
});

test.each(['solid', 'rock', 'blade'])('a %s added to a growth with a skin is in it beside that', async (kind) => {
  const alone = wholeMesh(await formAt(host([newStep(kind)]), 101))!;
  const plain = wholeMesh(await formAt(stem(), 101))!;
  const scene = stem();
  scene.growths[0].steps.splice(1, 0, newStep(kind));
  const both = wholeMesh(await formAt(scene, 101))!;
  expect(both.indices.length).toBe(alone.indices.length + plain.indices.length);
});

test('a second skin on a path is there beside the first', async () => {
  const one = wholeMesh(await formAt(stem(), 101))!;
  for (const kind of ['ribbon', 'sweep', 'wire']) {
    const scene = stem();
    scene.growths[0].steps.splice(3, 0, newStep(kind));
    expect(wholeMesh(await formAt(scene, 101))!.indices.length).toBeGreaterThan(one.indices.length);
  }
});

/** Ids of the growths that a step copies. */
const itemsOf = ({ kind, params }: Step): string[] =>
  Object.entries(stepOf(kind)!.params).flatMap(([name, spec]) =>
    spec.type === 'growth' && spec.item && typeof params[name] === 'string' ? [params[name]] : [],
  );

test.each(CUTTINGS.map(({ id }) => id))(
  '%s copies light items: some hundred faces each, more where they are few',
  async (id) => {
    const cutting = CUTTINGS.find((one) => one.id === id)!;
    const scene =
      cutting.on === 'mesh'
        ? rock()
        : cutting.on === null
          ? { ...newScene('Bed'), range: [1, 101] as [number, number] }
          : stem();
    const on = cutting.on ? scene.growths[0] : null;
    const { growths } = cutting.plant({ scene, host: on, size: 2 });
    const whole = { ...scene, growths: [...scene.growths] };
    plantIn(whole, on?.id ?? null, { steps: [], growths });
    const { growths: all } = await testEvaluator().evaluate(whole, 101);
    const copies = all.reduce((sum, { form: made }) => sum + (made?.copies?.ids.length ?? 0), 0);
    const most = copies > 100 ? 400 : 1000;
    const copied = new Set(growths.flatMap(({ steps }) => steps.flatMap(itemsOf)));
    for (const item of growths.filter((one) => !one.visible && copied.has(one.id))) {
      const alone: Scene = {
        ...scene,
        growths: [
          ...growths.map((one) => ({ ...one, visible: one === item })),
          ...scene.growths.map((one) => ({ ...one, visible: false })),
        ],
      };
      const { growths: made } = await testEvaluator().evaluate(alone, 101);
      const mesh = made.find((one) => one.id === item.id)!.form!;
      const faces = (mesh.mesh?.indices.length ?? 0) / 3;
      expect([item.name, faces]).toEqual([item.name, Math.min(faces, most)]);
    }
  },
);

test('what stands in the place of the tube switches it off, and what stands on it does not', () => {
  const tubes = (id: string): boolean[] =>
    plant(stem(), id).growths[0].steps.flatMap(({ kind, on }) => (kind === 'tube' ? [on] : []));
  for (const id of ['chain', 'falling-planks', 'vertebrae']) expect([id, tubes(id)]).toEqual([id, [false]]);
  for (const id of ['leaves', 'buds', 'rings']) expect([id, tubes(id)]).toEqual([id, [true]]);
});

test('the burning line burns to its end, with its ember where it burns', async () => {
  const scene = plant({ ...newScene('Bed'), range: [1, 101] }, 'burning-line');
  const at50 = (await testEvaluator().evaluate(scene, 51)).growths[0];
  expect(at50.notices).toEqual([]);
  const end = (await testEvaluator().evaluate(scene, 101)).growths[0].form!;
  expect(wholeMesh(end)?.indices.length ?? 0).toBe(0);
});

test('a wire and a form that appears go by one front: the wire runs ahead of the form, and is gone in the end', async () => {
  for (const ids of [
    ['wire-cells', 'appear'],
    ['appear', 'wire-cells'],
  ]) {
    const scene = plant(rock(), ...ids);
    expect(scene.growths.flatMap(({ steps }) => steps.filter(({ kind }) => kind === 'front'))).toHaveLength(1);
    const whole = (await formAt(plant(rock()), 1)).mesh!.indices.length;
    const at = async (frame: number) => {
      const { growths } = await testEvaluator().evaluate(scene, frame);
      for (const { notices } of growths) expect(notices.filter(({ level }) => level !== 'note')).toEqual([]);
      const shown = growths.filter(({ id }) => scene.growths.find((one) => one.id === id)!.visible);
      const meshOf = (kind: string) =>
        shown.find(({ id }) => scene.growths.find((one) => one.id === id)!.steps[0].kind === kind)?.form?.mesh;
      expect(shown).toHaveLength(2);
      const highest = (mesh: ReturnType<typeof meshOf>): number =>
        mesh ? mesh.positions.reduce((top, y, i) => (i % 3 === 1 ? Math.max(top, y) : top), -Infinity) : -Infinity;
      const [wire, solid] = [meshOf('cells'), meshOf('skin-of')];
      return { wire, solid, ahead: highest(wire) - highest(solid) };
    };
    // The front rises from the lowest place.
    const middle = await at(40);
    expect(middle.wire!.indices.length).toBeGreaterThan(0);
    expect(middle.solid!.indices.length).toBeGreaterThan(0);
    expect(middle.ahead).toBeGreaterThan(0.05);
    const end = await at(101);
    expect(end.wire?.indices.length ?? 0).toBe(0);
    expect(end.solid!.indices.length).toBeGreaterThanOrEqual(whole);
  }
});

test('a second wire joins the front that is there; what appears already is not made to appear again', async () => {
  const scene = plant(rock(), 'wire-cells', 'appear', 'wire-cells');
  expect(scene.growths.flatMap(({ steps }) => steps.filter(({ kind }) => kind === 'front'))).toHaveLength(1);
  const { growths } = await testEvaluator().evaluate(scene, 101);
  const wires = scene.growths.filter(({ steps }) => steps[0].kind === 'cells').map(({ id }) => id);
  expect(wires).toHaveLength(2);
  for (const { id, notices, form } of growths) {
    expect(notices.filter(({ level }) => level !== 'note')).toEqual([]);
    if (wires.includes(id)) expect(form?.mesh?.indices.length ?? 0).toBe(0);
  }
  const before = structuredClone(scene);
  expect(() => plant(scene, 'appear')).toThrow('appears behind its front already');
  expect(scene).toEqual(before);
});

test('what stands on a form comes and stays with it where a wire runs ahead', async () => {
  const scene = plant(rock(), 'barnacles', 'wire-cells', 'appear');
  const solid = scene.growths.find(({ steps }) => steps[0].kind === 'skin-of')!;
  const at = async (frame: number) =>
    (await testEvaluator().evaluate(scene, frame)).growths.find(({ id }) => id === solid.id)!;
  const [first, last] = [await at(1), await at(101)];
  for (const { notices } of [first, last]) expect(notices.filter(({ level }) => level !== 'note')).toEqual([]);
  const whole = await formAt(plant(rock(), 'barnacles'), 101);
  expect(first.form?.mesh?.indices.length ?? 0).toBe(0);
  expect(last.form!.mesh!.indices.length).toBeGreaterThanOrEqual(wholeMesh(whole)!.indices.length * 0.99);
});
