import { nearestPlace } from '../../geometry/search/nearest';
import { wholeMesh } from '../../geometry/copies';
import { at, distance } from '../../geometry/vec';
import { newGrowth, newStep } from '../../scene/make';
import type { ParamValue, Scene, Step } from '../../scene/schema';
import { formOf, sceneOf } from '../../testing';
import { form, grows, paths } from '../../../test/paths';

const beside = (id: string, steps: Step[]) => (scene: Scene) =>
  void scene.growths.push({ ...newGrowth(id, 1, steps), id });
const ruffle = (params: Record<string, ParamValue> = {}, frame = 1, change?: (scene: Scene) => void) =>
  paths([newStep('ruffle', { factor: 5, ...params })], frame, change);
const places = (of: { positions: Float32Array }) =>
  Array.from({ length: of.positions.length / 3 }, (_, i) => at(of.positions, i));

test('it lies about its middle, in its plane, and within its circle', async () => {
  for (const lies of ['upright', 'ground']) {
    const made = await ruffle({ lies, atX: 1, atY: 2, atZ: 3, within: 'round', most: 0.4, factor: 8 });
    for (const place of places(made)) {
      expect(place[lies === 'ground' ? 1 : 2]).toBeCloseTo(lies === 'ground' ? 2 : 3, 6);
      expect(distance(place, [1, 2, 3])).toBeLessThan(0.4 + 1e-6);
    }
    expect(made.closed[0]).toBe(1);
  }
});

test('on a skin every point lies on it, and in a form none lies outside', async () => {
  const ball = newStep('solid', { which: 'ball', radius: 0.5, sides: 32, atY: 0.9 });
  const skin = wholeMesh(await formOf(sceneOf([ball])))!;
  const onSkin = await ruffle({ where: 'skin', skin: 'ball', radius: 0.4, factor: 4 }, 1, beside('ball', [ball]));
  for (const place of places(onSkin)) expect(nearestPlace(skin, place)!.distance).toBeLessThan(1e-5);
  const small = newStep('solid', { which: 'ball', radius: 0.3, sides: 32, atY: 0.9 });
  const far = async (how: string): Promise<number> => {
    const made = await ruffle({ where: 'space', within: how, form: 'ball', factor: 8 }, 1, beside('ball', [small]));
    return Math.max(...places(made).map((place) => distance(place, [0, 0.9, 0])));
  };
  expect(await far('nothing')).toBeGreaterThan(0.4);
  // The form is known by a grid of distances, a twelfth of its radius apart.
  expect(await far('form')).toBeLessThan(0.3 + 0.01);
  const within = await ruffle({ where: 'space', within: 'form', form: 'ball', factor: 8 }, 1, beside('ball', [small]));
  // It has filled more than a plane.
  const depths = places(within).map(([, , z]) => z);
  expect(Math.max(...depths) - Math.min(...depths)).toBeGreaterThan(0.2);
});

test('it begins with the paths of another growth, and its time is what Grown says', async () => {
  const params = { begin: 'growth', growth: 'arc', where: 'space', grown: grows(0, 1) };
  const arc = beside('arc', [newStep('arc', { radius: 0.5, sweep: 180 })]);
  const [young, old] = [await ruffle(params, 1, arc), await ruffle(params, 101, arc)];
  expect(young.whole[0]).toBeCloseTo(Math.PI / 2, 1);
  expect(old.whole[0] / young.whole[0]).toBeGreaterThan(4);
  expect(old.named.born.values.reduce((most, x) => Math.max(most, x), 0)).toBeLessThanOrEqual(1);
});

test('a frill stands on its base, is coloured by its rim, and has the same faces at every frame', async () => {
  const frill = (frame: number) =>
    form(
      [newStep('frill', { grown: grows(0, 1), piece: 0.06 }), newStep('finish', { by: 'attribute', attribute: 'rim' })],
      frame,
    );
  const [young, old] = [(await frill(12)).mesh!, (await frill(101)).mesh!];
  expect(young.indices).toEqual(old.indices);
  const rim = old.named.rim.values;
  rim.forEach((share, i) => {
    if (share === 0) expect(Math.hypot(old.positions[3 * i], old.positions[3 * i + 2])).toBeCloseTo(0.25, 2);
  });
  const high = (of: typeof old): number =>
    of.positions.reduce((most, y, i) => (i % 3 === 1 ? Math.max(most, y) : most), 0);
  expect(high(young)).toBeLessThan(0.3 * high(old));
});
