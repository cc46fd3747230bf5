import type { Copies } from '../../geometry/form';
import { at, distance } from '../../geometry/vec';
import { newStep } from '../../scene/make';
import type { ParamValue, Step } from '../../scene/schema';
import { sceneOf, testEvaluator } from '../../testing';
import { circle, paths } from '../../../test/paths';
import { grows, item, link, placed, turnOf } from '../../../test/placing';

const ring = (): Step => newStep('arc', { radius: 0.7, points: 160 });
const angleOf = ([x, y]: readonly [number, number, number]): number => (Math.atan2(y, x) * 180) / Math.PI;
const noisy = (): Step => newStep('noise', { amount: 0.15, size: 0.6, evolve: 0.5 });

/** Every copy of `before` that is still there stands in `now` where it stood, turned as it was. */
function expectKept(before: Copies, now: Copies, most = 1e-3): number {
  let kept = 0;
  before.ids.forEach((id, k) => {
    const n = now.ids.indexOf(id);
    if (n < 0) return;
    kept++;
    expect(distance(at(before.positions, k), at(now.positions, n))).toBeLessThan(most);
    expect(Math.abs(turnOf(before, k).reduce((sum, x, c) => sum + x * turnOf(now, n)[c], 0))).toBeGreaterThan(0.999);
  });
  return kept;
}

describe('on a ring that grows', () => {
  test('what comes full circle moves nothing and adds no more than one: places are those of the whole ring throughout', async () => {
    const grown = (frame: number) =>
      placed([ring(), newStep('grow', { to: grows })], { turns: '0, 90' }, [link()], frame);
    const [nearly, whole] = [(await grown(100.9)).copies!, (await grown(101)).copies!];
    expect(expectKept(nearly, whole)).toBe(nearly.ids.length);
    expect(whole.ids.length - nearly.ids.length).toBeLessThanOrEqual(1);
  });

  test('a window over the seam uncovers as many places as anywhere else', async () => {
    const counts: number[] = [];
    for (let travel = 0; travel < 1; travel += 0.05) {
      const { copies } = await placed([ring(), newStep('grow', { to: 0.5, travel })], { by: 'count', count: 40 });
      counts.push(copies!.ids.length);
    }
    expect(Math.max(...counts) - Math.min(...counts)).toBeLessThanOrEqual(1);
    expect(Math.min(...counts)).toBeGreaterThanOrEqual(20);
  });

  test('a window over the seam of a ring that moves has as many places as anywhere, each where it was laid', async () => {
    const counts: number[] = [];
    for (let travel = 0; travel < 1; travel += 0.05) {
      const { copies } = await placed([circle(), noisy(), newStep('grow', { to: 0.34, travel })], {
        by: 'distance',
        distance: 0.1,
        laid: 'rest',
      });
      counts.push(copies!.ids.length);
    }
    // Places at rest are even, the window is a share of the ring as it lies: it holds a few more where that is stretched.
    expect(Math.max(...counts) - Math.min(...counts)).toBeLessThanOrEqual(4);
  });

  test('over the seam rest lengths go on from the length at rest, whatever has moved the ring', async () => {
    const made = await paths([circle(200), noisy(), newStep('grow', { to: 0.5, travel: 0.75 })]);
    const last = made.s.length - 1;
    const ratio = made.s[last] / made.u[last];
    for (let i = 0; i <= last; i++) if (made.u[i] > 0.1) expect(made.s[i] / made.u[i]).toBeCloseTo(ratio, 3);
    // A polygon of 200 corners in a circle of radius 1.
    expect(ratio).toBeCloseTo(400 * Math.sin(Math.PI / 200), 3);
  });
});

test("at a path's points what is eaten takes its copy along, and the others keep their place, number and turn", async () => {
  const eaten = (from: number) =>
    placed([newStep('helix', { points: 60 }), newStep('grow', { from, to: 0.9 })], {
      by: 'points',
      turns: '0, 40, 90',
      vary: 0.5,
    });
  let before = (await eaten(0)).copies!;
  expect(before.ids).toHaveLength(Math.floor(0.9 * 59) + 1);
  for (let from = 0.013; from < 0.7; from += 0.013) {
    const now = (await eaten(from)).copies!;
    expect(now.ids.length).toBeLessThanOrEqual(before.ids.length);
    expect(expectKept(before, now)).toBe(now.ids.length);
    before = now;
  }
});

test('the place at the very end of a path ages from the moment that the front arrives', async () => {
  const at2 = async (frame: number): Promise<number[]> => {
    const steps = [
      newStep('line', { points: 11 }),
      newStep('grow', { to: grows }),
      newStep('along', { growth: 'item' }),
    ];
    const scene = sceneOf([...steps, newStep('falloff', { shape: 'front' })]);
    scene.growths.push(item([link()]));
    return [...(await testEvaluator().evaluate(scene, frame)).growths[0].form!.paths!.age!];
  };
  // Grown by frame 101; 24 frames a second.
  expect((await at2(101)).at(-1)).toBeCloseTo(0, 5);
  expect((await at2(125)).at(-1)).toBeCloseTo(1, 4);
  expect((await at2(125)).at(0)).toBeCloseTo(124 / 24, 1);
});

describe('trains without end close with every variation on', () => {
  const varied: Record<string, ParamValue> = {
    ...{ reveal: 'endless', vary: 0.6, varyTurn: 90, varyPlace: 0.05, by: 'count', variants: 3 },
  };
  /** Places, turns and sizes, each with what it shows, whatever order they are in. */
  const sorted = ({ copies }: { copies: Copies | null }): string[] =>
    Array.from(copies!.ids, (_, k) =>
      [
        ...at(copies!.positions, k),
        ...turnOf(copies!, k).map((x, __, turn) => x * Math.sign(turn.find((c) => Math.abs(c) > 1e-3)!)),
        ...at(copies!.sizes, k),
        copies!.items[copies!.item[k]].key,
      ]
        .map((x) => (typeof x === 'number' ? (Math.round(x * 1e3) / 1e3 + 0).toFixed(3) : x))
        .join(' '),
    ).sort();

  test.each([
    ['an open path', newStep('line', { points: 40 }), { count: 17, births: 6, turns: '+137.508' }],
    ['a ring', circle(), { count: 44, births: 6, turns: '+137.508' }],
  ] as const)('on %s', async (_, path, more) => {
    const [first, after] = [
      await placed([path], { ...varied, ...more }),
      await placed([path], { ...varied, ...more }, [link()], 145),
    ];
    expect(sorted(after)).toEqual(sorted(first));
  });

  const yields: ParamValue = {
    keys: [0.05, 0.2, 0.05].map((value, k) => ({ frame: 1 + 72 * k, value, ease: 'linear' })),
    ...{ before: 'repeat', after: 'repeat' },
  };
  test('on a head', async () => {
    const head = (frame: number) => {
      const scene = sceneOf([
        newStep('phyllotaxis', { born: 'endless', births: 21, count: 60 }),
        newStep('transform', {
          moveY: { base: 0.1, vary: { by: 'random', amount: 0.1, waves: 1, shape: [] } } as ParamValue,
        }),
        newStep('on-points', { growth: 'item', turns: '+30', vary: 0.5, varyTurn: 120, varyLean: 40, variants: 3 }),
        newStep('offset', { by: 'random', time: 2, repeat: 3 }),
      ]);
      scene.growths.push(item([newStep('line', { points: 5 }), newStep('tube', { sides: 3, radius: yields })]));
      return testEvaluator()
        .evaluate(scene, frame)
        .then(({ growths }) => growths[0].form!);
    };
    const [first, after] = [sorted(await head(1)), sorted(await head(145))];
    expect(after).toEqual(first);
    // Else the test would show nothing.
    expect(sorted(await head(40))).not.toEqual(first);
  });
});

test('fronts stand where they will set out until they do, and where they have come to after that', async () => {
  const track = (...keys: [number, number][]): ParamValue => ({
    keys: keys.map(([frame, value]) => ({ frame, value, ease: 'linear' })),
    ...{ before: 'hold', after: 'hold' },
  });
  const fronts = async (params: Record<string, ParamValue>, frame: number): Promise<number> =>
    (await paths([newStep('line', { points: 11 }), newStep('grow', params)], frame)).fronts[0];
  const [FAR, NEAR] = [1, 2];
  // Eaten from frame 20 on, by what has stood at the near end before.
  const burns = { from: track([20, 0], [60, 1]) };
  expect(await fronts(burns, 5)).toBe(NEAR);
  expect(await fronts(burns, 30)).toBe(NEAR);
  expect(await fronts({ ...burns, begins: 'tip' }, 5)).toBe(FAR);
  // Grown by frame 20: what came with the front stays at the far end until the other one sets out.
  const both = { to: track([1, 0], [20, 1]), from: track([40, 0], [60, 1]) };
  expect(await fronts(both, 10)).toBe(FAR);
  expect(await fronts(both, 30)).toBe(FAR);
  expect(await fronts(both, 50)).toBe(NEAR);
  // Nothing that sets out at all.
  expect(await fronts({}, 30)).toBe(FAR);
});

test('blended after growing, a share of the path becomes that share of the other', async () => {
  const blended = async (steps: Step[]) => {
    const scene = sceneOf([newStep('line', { toY: 2, points: 41 }), ...steps]);
    scene.growths.push(item([newStep('line', { fromY: 0, toX: 4, toY: 0, points: 11 })]));
    return (await testEvaluator().evaluate(scene, 1)).growths[0].form!.paths!;
  };
  const grow = newStep('grow', { from: 0.25, to: 0.5 });
  const blend = newStep('blend', { growth: 'item', amount: 1 });
  const after = await blended([grow, blend]);
  const last = after.s.length - 1;
  // From x = 0 to 4: a quarter of the way, and half of it.
  expect(at(after.positions, 0)[0]).toBeCloseTo(1, 5);
  expect(at(after.positions, last)[0]).toBeCloseTo(2, 5);
  expect(angleOf(at(after.positions, last))).toBeCloseTo(0, 5);
  // The same as the other way round.
  const before = await blended([
    newStep('blend', { growth: 'item', amount: 1 }),
    newStep('grow', { from: 0.25, to: 0.5 }),
  ]);
  expect(at(before.positions, before.s.length - 1)[0]).toBeCloseTo(2, 5);
});
