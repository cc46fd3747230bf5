import { newGrowth, newStep } from '../scene/make';
import type { ParamValue, Scene } from '../scene/schema';
import type { Track } from '../time/track';
import { sceneOf, testEvaluator } from '../testing';
import type { Points } from './form';
import { GOLDEN_ANGLE } from './goldenAngle';
import { areaOf, floretAt } from './phyllotaxis';
import { at, distance } from './vec';

const points = async (
  params: Record<string, ParamValue>,
  frame = 1,
  loop: [number, number] = [1, 96],
): Promise<Points> => {
  const scene = sceneOf([newStep('phyllotaxis', params)]);
  scene.range = loop;
  const [{ form, notices }] = (await testEvaluator().evaluate(scene, frame)).growths;
  expect(notices).toEqual([]);
  return form!.points!;
};
const angleOf = (of: Points, k: number): number =>
  (Math.atan2(-of.positions[3 * k + 2], of.positions[3 * k]) * 180) / Math.PI;
const turned = (degrees: number): number => ((degrees % 360) + 360) % 360;

// Livio, The Golden Ratio (2002): the golden angle is 360° (1 − 1/φ), about 137.5°.
test('the golden angle is 360° (1 − 1/φ), to double precision', () => {
  const phi = (1 + Math.sqrt(5)) / 2;
  expect(GOLDEN_ANGLE).toBeCloseTo(360 * (1 - 1 / phi), 12);
  expect(GOLDEN_ANGLE.toFixed(5)).toBe('137.50776');
});

test('300 florets at 137.5° turn through 41,250°', async () => {
  const head = await points({ count: 301, angle: 137.5, born: 'rim' });
  expect(turned(angleOf(head, 300) - angleOf(head, 0))).toBeCloseTo(turned(41250), 2);
});

// Vogel, A better way to construct the sunflower head, Mathematical Biosciences 44 (1979): r = c √n, θ = n · 137.5°, and
// the spirals that the eye follows number neighbouring Fibonacci numbers.
describe("Vogel's disc", () => {
  test('radii go with the square root of the number', async () => {
    const head = await points({ count: 500, born: 'rim', room: 'held', radius: 1 });
    for (const k of [1, 4, 100, 499])
      expect(Math.hypot(head.positions[3 * k], head.positions[3 * k + 2])).toBeCloseTo(Math.sqrt((k + 0.5) / 500), 5);
  });

  test('the nearest neighbours of outer florets differ by neighbouring Fibonacci numbers', async () => {
    const head = await points({ count: 1000, born: 'rim' });
    const fibonacci = [1, 2, 3, 5, 8, 13, 21, 34, 55, 89, 144];
    for (const k of [120, 300, 500, 700, 850]) {
      const apart = Array.from({ length: 1000 }, (_, j) => j)
        .filter((j) => j !== k)
        .sort(
          (a, b) =>
            distance(at(head.positions, a), at(head.positions, k)) -
            distance(at(head.positions, b), at(head.positions, k)),
        )
        .slice(0, 4)
        .map((j) => Math.abs(j - k));
      for (const difference of apart) expect(fibonacci).toContain(difference);
      const ranks = [...new Set(apart)].map((n) => fibonacci.indexOf(n)).sort((a, b) => a - b);
      expect(ranks.at(-1)! - ranks[0]).toBeLessThanOrEqual(2);
    }
  });

  test('neighbours are about the spacing apart, whatever the count', async () => {
    for (const count of [80, 900]) {
      const head = await points({ count, spacing: 0.1, born: 'rim' });
      const nearest = Array.from({ length: count }, (_, k) => {
        let best = Infinity;
        for (let j = 0; j < count; j++)
          if (j !== k) best = Math.min(best, distance(at(head.positions, j), at(head.positions, k)));
        return best;
      });
      const mean = nearest.reduce((sum, d) => sum + d, 0) / count;
      expect(mean / 0.1).toBeGreaterThan(0.8);
      expect(mean / 0.1).toBeLessThan(1.1);
    }
  });
});

// Areas of solids of revolution: Bronshtein and Semendyayev, Handbook of Mathematics, section 3.3.
test('areas of the surfaces', () => {
  expect(areaOf({ which: 'disc', radius: 2, height: 1 })).toBeCloseTo(4 * Math.PI, 12);
  expect(areaOf({ which: 'cone', radius: 3, height: 4 })).toBeCloseTo(15 * Math.PI, 12);
  expect(areaOf({ which: 'cylinder', radius: 1, height: 2 })).toBeCloseTo(4 * Math.PI, 12);
  expect(areaOf({ which: 'dome', radius: 1, height: 1 })).toBeCloseTo(2 * Math.PI, 12);
  for (const height of [0.999, 1.001]) expect(areaOf({ which: 'dome', radius: 1, height })).toBeCloseTo(2 * Math.PI, 2);
});

test('florets sit on their surface, and equal shares are equal areas', () => {
  for (let i = 0; i <= 10; i++) {
    const [x, y, z] = floretAt({ which: 'dome', radius: 1, height: 1 }, i / 10, i).position;
    expect(Math.hypot(x, y, z)).toBeCloseTo(1, 12);
    expect(y).toBeCloseTo(1 - i / 10, 12);
    const [cx, cy, cz] = floretAt({ which: 'cone', radius: 2, height: 3 }, i / 10, i).position;
    expect(Math.hypot(cx, cz) / 2 + cy / 3).toBeCloseTo(1, 12);
    // A frustum down to radius r has the share (r / R)² of the cone's area.
    expect((Math.hypot(cx, cz) / 2) ** 2).toBeCloseTo(i / 10, 12);
  }
});

// A zone of a surface of revolution has the area 2π ∫ r ds (Bronshtein and Semendyayev, section 8.2.2.3): summed up in thin rings.
test.each([0.05, 0.5, 0.98, 1, 1.02, 2, 8])(
  'on a dome %f times as high as wide, equal shares are equal areas',
  (height) => {
    const shape = { which: 'dome', radius: 1, height } as const;
    const steps = 4000;
    let [area, before] = [0, floretAt(shape, 0, 0).position];
    const areas: number[] = [];
    for (let i = 1; i <= steps; i++) {
      const now = floretAt(shape, i / steps, 0).position;
      area += Math.PI * (before[0] + now[0]) * Math.hypot(now[0] - before[0], now[1] - before[1]);
      before = now;
      if (i % (steps / 10) === 0) areas.push(area);
    }
    areas.forEach((part, k) => expect(part / area).toBeCloseTo((k + 1) / 10, 3));
    expect(area / areaOf(shape)).toBeCloseTo(1, 3);
  },
);

describe('counts that change', () => {
  test('born at the centre, each keeps its angle and moves outwards without jumps', async () => {
    let before = await points({ count: 50 });
    for (let count = 50.25; count <= 60; count += 0.25) {
      const now = await points({ count });
      expect(now.ids.length).toBe(Math.ceil(count));
      for (let k = 1; k < before.ids.length - 2; k++) {
        expect(turned(angleOf(now, k) - angleOf(before, k) + 180)).toBeCloseTo(180, 2);
        const [r, q] = [before, now].map((of) => Math.hypot(of.positions[3 * k], of.positions[3 * k + 2]));
        expect(q).toBeGreaterThan(r);
        expect(q - r).toBeLessThan(0.03);
      }
      before = now;
    }
  });

  test('at the rim, adding one changes no other', async () => {
    const [few, more] = [await points({ count: 200, born: 'rim' }), await points({ count: 201, born: 'rim' })];
    expect(more.positions.subarray(0, 594)).toEqual(few.positions.subarray(0, 594));
  });

  test('a new one comes up from nothing', async () => {
    const head = await points({ count: 100.5, swell: 5 });
    expect(head.size[100]).toBeGreaterThan(0);
    expect(head.size[100]).toBeLessThan(0.1);
    expect(head.size[90]).toBe(1);
  });
});

describe('endless births', () => {
  const params = { born: 'endless', count: 60, births: 21, swell: 8, fade: 8 };

  test('the frame past the end is the first, for any count of births', async () => {
    for (const births of [7, 21, 34]) {
      const [first, past] = [await points({ ...params, births }), await points({ ...params, births }, 97)];
      expect(past.ids.length).toBe(first.ids.length);
      for (const key of ['positions', 'turns', 'size', 'life'] as const)
        first[key]!.forEach((x, i) => expect(past[key]![i]).toBeCloseTo(x, 5));
    }
  });

  test('a count that is animated as well is told, with the number that mends it; one that stands still is not', async () => {
    const count: Track = {
      keys: [
        { frame: 1, value: 0, ease: 'linear' },
        { frame: 96, value: 80, ease: 'linear' },
      ],
      before: 'hold',
      after: 'hold',
    };
    const told = async (more: Record<string, ParamValue>) =>
      (await testEvaluator().evaluate(sceneOf([newStep('phyllotaxis', { ...params, ...more })]), 30)).growths[0]
        .notices;
    expect(await told({})).toEqual([]);
    expect(await told({ count, born: 'rim' })).toEqual([]);
    const [notice] = await told({ count });
    expect(notice).toMatchObject({ level: 'note', fix: { set: { count: 80 } } });
    expect(await told({ ...notice.fix!.set })).toEqual([]);
  });

  test('none appears, vanishes or moves with a jump', async () => {
    let before = await points(params);
    for (let frame = 1.5; frame <= 40; frame += 0.5) {
      const now = await points(params, frame);
      const here = new Map(Array.from(now.ids, (id, k) => [id, k]));
      before.ids.forEach((id, k) => {
        const n = here.get(id);
        if (n === undefined) expect(before.size[k]).toBeLessThan(0.05);
        else if (before.size[k] > 0.05)
          expect(distance(at(before.positions, k), at(now.positions, n))).toBeLessThan(0.05);
      });
      before = now;
    }
  });

  test('over its life a copy plays its item through the range', async () => {
    const radius: Track = {
      keys: [1, 97].map((frame) => ({ frame, value: frame / 100, ease: 'linear' })),
      before: 'hold',
      after: 'hold',
    };
    const scene: Scene = sceneOf([
      newStep('phyllotaxis', params),
      newStep('on-points', { growth: 'item' }),
      newStep('offset', { by: 'life' }),
    ]);
    scene.range = [1, 96];
    scene.growths.push({
      ...newGrowth('Item', 1, [newStep('solid', { radius, sides: 6 })]),
      id: 'item',
      visible: false,
    });
    const copies = (await testEvaluator().evaluate(scene, 30)).growths[0].form!.copies!;
    const head = await points(params, 30);
    Array.from(copies.ids).forEach((id, k) => {
      const life = head.life![Array.from(head.ids).indexOf(id)];
      const tall = Math.max(...copies.items[copies.item[k]].mesh.positions.filter((_, i) => i % 3 === 1));
      expect(Math.abs(tall - (1 + 96 * life) / 100)).toBeLessThan(0.006);
    });
  });
});

describe('sizes by place', () => {
  const ramp = [
    { at: 0, value: 0.3, shape: 'straight' },
    { at: 1, value: 1.5 },
  ] as never;
  /** Distance to the nearest neighbour over the size of each, apart from those at the rim and the middle. */
  const fit = (head: Points): number[] =>
    [...head.ids]
      .map((_, k) => {
        let least = Infinity;
        for (let j = 0; j < head.ids.length; j++)
          if (j !== k) least = Math.min(least, distance(at(head.positions, k), at(head.positions, j)));
        return { share: head.share[k], fit: least / head.size[k] };
      })
      .filter(({ share }) => share > 0.03 && share < 0.95)
      .map(({ fit: own }) => own);

  test.each(['rim', 'centre'])(
    'born at the %s: neighbours stay in touch from the smallest to the largest',
    async (born) => {
      const head = await points({ count: 600, born, swell: 0, spacing: 0.05, ramp });
      const own = fit(head);
      // About the spacing for each of size 1, as in an even head, whose nearest neighbours lie within a quarter of it.
      const even = fit(await points({ count: 600, born, swell: 0, spacing: 0.05 }));
      expect(Math.min(...own)).toBeGreaterThan(0.75 * Math.min(...even));
      expect(Math.max(...own)).toBeLessThan(1.35 * Math.max(...even));
      // Where they are not spaced by it, the smallest stand five times as far apart for their size as the largest.
      const apart = fit(await points({ count: 600, born, swell: 0, spacing: 0.05, ramp, touch: false }));
      expect(Math.max(...apart) / Math.min(...apart)).toBeGreaterThan(3);
    },
  );

  test('sizes are as drawn, from the middle to the rim; one size is as it was', async () => {
    const head = await points({ count: 200, born: 'rim', swell: 0, ramp });
    head.share.forEach((share, k) => expect(head.size[k]).toBeCloseTo(0.3 + 1.2 * share, 2));
    const [plain, one] = [
      await points({ count: 50 }),
      await points({ count: 50, ramp: [{ at: 0, value: 1 }] as never }),
    ];
    expect([...one.positions]).toEqual([...plain.positions]);
  });
});
