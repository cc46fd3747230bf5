import { visibleLength } from '../curves/pathFrames';
import { newGrowth, newStep } from '../scene/make';
import type { ParamValue } from '../scene/schema';
import { form, grows } from '../../test/paths';
import { arrivalsBy, branchDepths, pipeSizes, rootDistances, strahlerOrders } from './branches';
import { NO_PARENT, type Paths } from './paths';

const tree = async (rules: string, generations: number, more: Record<string, ParamValue> = {}): Promise<Paths> =>
  (await form([newStep('rules', { axiom: 'A', rules, generations, line: 0.5, shorter: 0.8, angle: 30, ...more })]))
    .paths!;

/** What leaves a path, by where. */
function joints(paths: Paths): { parent: number; child: number; s: number }[] {
  const places = new Map([...paths.ids].map((id, p) => [id, p]));
  return [...paths.ids.keys()].flatMap((child) => {
    if (paths.parent![child] === NO_PARENT) return [];
    const parent = places.get(paths.parent![child])!;
    return [{ parent, child, s: paths.attach![child] * paths.whole[parent] }];
  });
}

test.each([2, 2.5, 3])(
  'pipe model: at every joint the stem is what leaves and what goes on, at exponent %s',
  async (exponent) => {
    const paths = await tree('A -> F[+A]F[-A]\\FA', 5);
    const sizes = pipeSizes(paths, { exponent, tip: 0.2, over: 0, flare: 0 });
    const power = (i: number): number => (sizes[i] / 0.2) ** exponent;
    let checked = 0;
    for (let p = 0; p < paths.ids.length; p++) {
      const leaving = joints(paths).filter(({ parent }) => parent === p);
      for (let i = paths.offsets[p]; i + 1 < paths.offsets[p + 1]; i++) {
        // All that leaves between this point and the next, this one among it.
        const here = leaving.filter(({ s }) => s >= paths.s[i] - 1e-6 && s < paths.s[i + 1] - 1e-6);
        const sum = here.reduce((all, { child }) => all + power(paths.offsets[child]), power(i + 1));
        expect(power(i)).toBeCloseTo(sum, 3);
        checked += here.length;
      }
    }
    expect(checked).toBe(joints(paths).length);
    // The root carries all tips.
    expect(power(0)).toBeCloseTo(paths.ids.length, 3);
  },
);

test('in time: a stem thickens smoothly while what it carries comes up, and never thins', async () => {
  const steps = [
    newStep('rules', { axiom: 'A', rules: 'A -> F[+A]F[-A]\\FA', generations: 4, line: 0.5, shorter: 0.8 }),
    newStep('respace', { by: 'spacing', spacing: 0.04 }),
    newStep('grow', { to: grows(0, 1) }),
    newStep('carry', { tip: 0.1, exponent: 2, over: 0.3, flare: 0.1 }),
  ];
  let before = 0;
  let most = 0;
  for (let frame = 2; frame <= 101; frame++) {
    const { paths } = await form(steps, frame);
    const thickness = paths!.size[0];
    expect(thickness).toBeGreaterThanOrEqual(before - 1e-6);
    most = Math.max(most, thickness - before);
    before = thickness;
  }
  expect(before).toBeGreaterThan(0.5);
  expect(most).toBeLessThan(0.1 * before);
});

test("Strahler's order of a full binary tree is its height, and Horton's ratio of bifurcation is two", async () => {
  const height = 6;
  const paths = await tree('A -> F[+A][-A]', height);
  const orders = strahlerOrders(paths);
  expect(orders[0]).toBe(height);
  // Each line is a stream of its own: they halve in number from order to order (Horton 1945).
  const count = new Map<number, number>();
  for (let p = 0; p < paths.ids.length; p++) {
    const order = orders[paths.offsets[p]];
    count.set(order, (count.get(order) ?? 0) + 1);
  }
  for (let order = 1; order < height; order++) expect(count.get(order)! / count.get(order + 1)!).toBe(2);
});

test('orders where a lower branch joins a higher one, and where three meet (Strahler 1952, by hand)', async () => {
  // A stem with one twig after another stays of order two; three twigs at one joint make two.
  expect(strahlerOrders(await tree('A -> F[+F]F[-F]F[+F]F', 1))[0]).toBe(2);
  expect(strahlerOrders(await tree('A -> F[+F][-F]F', 1))[0]).toBe(2);
  // Two branches of order two and the tip of the stem: three.
  expect(strahlerOrders(await tree('A -> F[+F[+F]F][-F[+F]F]F', 1))[0]).toBe(3);
});

test('depths count joints, distances go along the branches', async () => {
  const paths = await tree('A -> F(1)[+F(2)[+F(3)]F(1)]F(4)', 1);
  const [depths, distances] = [branchDepths(paths), rootDistances(paths)];
  const tips = [...paths.ids.keys()].map((p) => paths.offsets[p + 1] - 1);
  const told = tips.map((i) => [depths[i], Math.round(1000 * distances[i]) / 1000]).sort((a, b) => a[0] - b[0]);
  expect(told).toEqual([
    [0, 5],
    [1, 4],
    [2, 6],
  ]);
});

describe('fronts that run through branches', () => {
  const lengths = (paths: Paths): number[] => [...paths.ids.keys()].map((p) => visibleLength(paths, p));
  const grown = (branches: string, frame: number, more: Record<string, ParamValue> = {}): Promise<Paths> =>
    form(
      [newStep('colonise', { count: 200 }), newStep('grow', { from: 0, to: grows(0, 1), branches, ...more })],
      frame,
    ).then(({ paths }) => paths!);

  test.each(['even', 'together', 'generations'] as const)(
    '%s: no branch sets out before its parent is there, and all is through at the end',
    async (running) => {
      const whole = (await form([newStep('colonise', { count: 200 })])).paths!;
      const arrival = arrivalsBy(whole, running)!;
      for (const { parent, child, s } of joints(whole)) {
        let i = whole.offsets[parent];
        while (i + 1 < whole.offsets[parent + 1] && whole.s[i + 1] <= s + 1e-4) i++;
        expect(arrival[whole.offsets[child]]).toBeGreaterThan(arrival[i] - 1e-4);
      }
      for (let p = 0; p < whole.ids.length; p++)
        for (let i = whole.offsets[p] + 1; i < whole.offsets[p + 1]; i++)
          expect(arrival[i]).toBeGreaterThanOrEqual(arrival[i - 1]);
      expect(Math.max(...arrival)).toBeCloseTo(1, 5);
    },
  );

  test('tips together: every tip is reached at the last moment, and not before', async () => {
    const whole = (await form([newStep('colonise', { count: 200 })])).paths!;
    const arrival = arrivalsBy(whole, 'together')!;
    for (let p = 0; p < whole.ids.length; p++) expect(arrival[whole.offsets[p + 1] - 1]).toBeCloseTo(1, 5);
    const late = await grown('together', 100);
    lengths(late).forEach((length, p) => expect(length).toBeLessThan(whole.whole[p]));
  });

  test('by generation: one is whole before the next begins', async () => {
    const whole = (await form([newStep('colonise', { count: 200 })])).paths!;
    const depths = [...whole.ids.keys()].map((p) => branchDepths(whole)[whole.offsets[p]]);
    const generations = 1 + Math.max(...depths);
    for (let k = 1; k < generations; k++) {
      // Frames are a hundredth of the growing apart.
      const there = lengths(await grown('generations', 1 + (100 * (k + 0.5)) / generations));
      there.forEach((length, p) => {
        if (depths[p] < k) expect(length).toBeCloseTo(whole.whole[p], 4);
        else if (depths[p] === k) expect(length).toBeCloseTo(whole.whole[p] / 2, 1);
        else expect(length).toBe(0);
      });
    }
  });

  test('a tree is eaten from its roots, from its tips, and a window runs through it', async () => {
    const whole = (await form([newStep('colonise', { count: 200 })])).paths!;
    const cut = async (params: Record<string, ParamValue>): Promise<Paths> =>
      (await form([newStep('colonise', { count: 200 }), newStep('grow', { branches: 'even', ...params })])).paths!;
    const span = ({ arrival }: Paths): [number, number] => [Math.min(...arrival!), Math.max(...arrival!)];
    for (const [params, from, to] of [
      [{ from: 0.4, to: 1 }, 0.4, 1],
      [{ from: 0, to: 0.7, begins: 'tip' }, 0.3, 1],
      [{ from: 0, to: 0.2, travel: 0.5 }, 0.5, 0.7],
    ] as const) {
      const left = await cut(params);
      const [first, last] = span(left);
      expect(first).toBeCloseTo(from, 3);
      expect(last).toBeCloseTo(to, 3);
      // All that arrives within the window is there.
      const within = [...arrivalsBy(whole, 'even')!].filter((at) => at > from + 1e-4 && at < to - 1e-4).length;
      expect(left.s.length).toBeGreaterThanOrEqual(within);
    }
  });

  test('roots set out one after another, each with all that grows from it', async () => {
    const steps = [
      newStep('burst', { begins: 'points', growth: 'row', count: 1, children: 2, generations: 2 }),
      newStep('grow', { from: 0, to: grows(0, 1), stagger: 10 }),
    ];
    const paths = (
      await form(steps, 12, (scene) =>
        scene.growths.push({ ...newGrowth('Row', 1, [newStep('line', { points: 3 })]), id: 'row' }),
      )
    ).paths!;
    const parents = [...paths.ids].map((_, p) => paths.parent![p]);
    const begun = lengths(paths).map((length) => length > 0);
    // After eleven frames the second root is on its way, and the third has yet to set out; no branch is there before its root.
    expect(begun.filter((there, p) => there && parents[p] === NO_PARENT)).toHaveLength(2);
    const at = new Map([...paths.ids].map((id, p) => [id, p]));
    begun.forEach((there, p) => there && parents[p] !== NO_PARENT && expect(begun[at.get(parents[p])!]).toBe(true));
  });
});
