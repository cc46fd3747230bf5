import { areaAndVolume, type Mesh } from '../../geometry/mesh';
import { newGrowth, newStep } from '../../scene/make';
import type { ParamValue, Scene, Step } from '../../scene/schema';
import { form, paths } from '../../../test/paths';
import { sceneOf, testEvaluator } from '../../testing';

/** Balls of one, two and three times the radius: of 1, 8 and 27 times the volume. */
const withBalls = (scene: Scene): void => {
  for (const [k, id] of ['a', 'b', 'c'].entries()) {
    const ball = newStep('solid', { which: 'ball', radius: 0.01 * (k + 1), atY: 0, sides: 12 });
    scene.growths.push({ ...newGrowth(id, 1, [ball]), id, visible: false });
  }
};
const volumeOf = async (steps: Step[]): Promise<number> =>
  areaAndVolume((await form(steps, 1, withBalls)).mesh as Mesh).volume;

test('what rides at tips goes by their generation: each its own, the last for all beyond', async () => {
  const burst = newStep('burst', { count: 3, varyCount: 0, children: 2, generations: 4 });
  const made = await paths([burst]);
  const known = made.named.generation.values;
  const tips = Array.from(made.ids, (_, p) => known[made.offsets[p + 1] - 1]);
  const first = Math.min(...tips);
  const of = (generation: number): number => tips.filter((own) => own === first + generation).length;
  expect([of(0), of(1), of(2), of(3)].every((count) => count > 0)).toBe(true);
  const ride = (params: Record<string, ParamValue>): Step[] => [
    burst,
    newStep('tips', { growth: 'a', second: 'b', third: 'c', mix: 'attribute', ...params }),
  ];
  const one = await volumeOf([newStep('line'), newStep('tips', { growth: 'a' })]);
  expect((await volumeOf(ride({ mixFrom: first }))) / one).toBeCloseTo(of(0) + 8 * of(1) + 27 * (of(2) + of(3)), 1);
  // From the next on: the first two generations have the first.
  expect((await volumeOf(ride({ mixFrom: first + 1 }))) / one).toBeCloseTo(of(0) + of(1) + 8 * of(2) + 27 * of(3), 1);
  expect((await volumeOf([newStep('line', {}), newStep('tips', { growth: 'b', second: 'a' })])) / one).toBeCloseTo(
    8,
    1,
  );
  const turns = [0, 1, 2].map((k) => [...made.ids].filter((id) => id % 3 === k).length);
  expect((await volumeOf(ride({ mix: 'turn' }))) / one).toBeCloseTo(turns[0] + 8 * turns[1] + 27 * turns[2], 1);
  expect((await volumeOf(ride({ second: null }))) / one).toBeCloseTo(tips.length, 1);
});

test('what rides at tips is as large as it is asked for, and with thickness as the path is there', async () => {
  const path = newStep('line', { points: 20 });
  const one = await volumeOf([path, newStep('tips', { growth: 'a', size: 1 })]);
  const times = async (params: Record<string, ParamValue>): Promise<number> =>
    Math.cbrt((await volumeOf([path, thin, newStep('tips', { growth: 'a', ...params })])) / one);
  const thin = newStep('carry', { tip: 0.5 });
  const tip = (await paths([path, thin])).size.at(-1)!;
  expect(tip).toBeLessThan(0.9);
  expect(await times({ size: 3, thickness: false })).toBeCloseTo(3, 4);
  expect(await times({ size: 3, thickness: true })).toBeCloseTo(3 * tip, 4);
});

const placedBy = async (mixBy: string) => {
  const scene = sceneOf([
    newStep('solid', { which: 'box' }),
    newStep('measure', { what: 'height', name: 'level' }),
    newStep('scatter', { count: 60 }),
    newStep('on-points', { growth: 'a', second: 'b', mix: 'attribute', mixBy, mixFrom: 0 }),
  ]);
  withBalls(scene);
  return (await testEvaluator().evaluate(scene, 1)).growths[0];
};

test('copies on points go by what the points know; what no step has written is told', async () => {
  const { form: made, notices } = await placedBy('level');
  expect(notices).toEqual([]);
  const copies = made!.copies!;
  const levels = copies.named.level.values;
  const small = copies.items.map(({ mesh }) => Math.max(...mesh.positions) < 0.015);
  // Nearer to 0 than to 1: the first, which is the smaller.
  expect([...copies.item].map((k) => small[k])).toEqual([...levels].map((level) => level < 0.5));
  expect(new Set(copies.item).size).toBe(2);
  expect((await placedBy('depth')).notices[0].what).toContain('depth');
});
