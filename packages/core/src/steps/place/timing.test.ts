import fc from 'fast-check';
import { FINENESS, momentsOf, SeatList } from '../../geometry/seats';
import { at, distance } from '../../geometry/vec';
import { newGrowth, newStep } from '../../scene/make';
import { type Guide, newGuide } from '../../scene/owners';
import type { Formula, Params, ParamValue, Scene, Step } from '../../scene/schema';
import type { Track } from '../../time/track';
import { sceneOf, testEvaluator } from '../../testing';

const FPS = 24;
const COARSE = FINENESS.at(-1)!.steps;
const keys = (...list: [number, number][]): Track => ({
  keys: list.map(([frame, value]) => ({ frame, value, ease: 'linear' })),
  before: 'hold',
  after: 'hold',
});
const cycle = (...list: [number, number][]): Track => ({ ...keys(...list), before: 'repeat', after: 'repeat' });
const line = (length = 10, points = 101) => newStep('line', { fromX: 0, fromY: 0, toX: length, toY: 0, points });
const ball = (radius: ParamValue) => newStep('solid', { which: 'ball', radius, sides: 6 });

/** A scene in which balls of a changing radius stand along a line; frames 1 to 96. */
function balls(steps: Step[], radius: ParamValue): Scene {
  const scene = sceneOf(steps);
  scene.range = [1, 96];
  scene.growths.push({ ...newGrowth('Item', 1, [ball(radius)]), id: 'item', visible: false });
  return scene;
}
const copiesAt = async (scene: Scene, frame: number, evaluator = testEvaluator()) => {
  const [{ form, notices }] = (await evaluator.evaluate(scene, frame)).growths;
  expect(notices).toEqual([]);
  return form!.copies!;
};
/** Radius that each copy's item has: the height of its mesh's top. */
const radii = async (scene: Scene, frame: number): Promise<number[]> => {
  const copies = await copiesAt(scene, frame);
  return Array.from(copies.item, (i) => Math.max(...copies.items[i].mesh.positions.filter((_, c) => c % 3 === 1)));
};
const along = (more: Record<string, ParamValue> = {}) =>
  newStep('along', { growth: 'item', by: 'count', count: 10, settle: 0, ...more });

describe('time offsets', () => {
  const rising = keys([1, 0.01], [97, 0.97]);
  /** Radius at a frame by the keys above. */
  const radiusAt = (frame: number): number => Math.min(0.97, Math.max(0.01, frame / 100));

  test('by number, each copy shows its item so many frames earlier', async () => {
    const scene = balls([line(), along(), newStep('offset', { by: 'number', time: 0.25 })], rising);
    const shown = await radii(scene, 60);
    shown.forEach((radius, k) => expect(radius).toBeCloseTo(radiusAt(60 - 6 * k), 5));
  });

  test('along the path and by distance, as their figures say', async () => {
    const byPlace = await radii(balls([line(), along(), newStep('offset', { by: 'along', time: 2 })], rising), 90);
    byPlace.forEach((radius, k) => expect(radius).toBeCloseTo(radiusAt(90 - Math.round(48 * ((k + 0.5) / 10))), 5));
    const byDistance = await radii(
      balls([line(), along(), newStep('offset', { by: 'distance', time: 0.1 })], rising),
      90,
    );
    byDistance.forEach((radius, k) =>
      expect(radius).toBeCloseTo(radiusAt(90 - Math.round(8 * 2.4 * (k + 0.5)) / 8), 5),
    );
  });

  test('by chance it is whole frames, within what is said, and not all the same', async () => {
    const scene = balls([line(), along({ count: 200 }), newStep('offset', { by: 'random', time: 1 })], rising);
    const frames = (await radii(scene, 80)).map((radius) => 80 - radius * 100);
    for (const late of frames) expect(Math.abs(late - Math.round(late))).toBeLessThan(1e-3);
    expect(Math.min(...frames)).toBeCloseTo(0, 3);
    expect(Math.max(...frames)).toBeCloseTo(FPS, 3);
    expect(new Set(frames.map(Math.round)).size).toBeGreaterThan(20);
  });

  test('from the front on, a copy plays its item from the first frame', async () => {
    const grow = newStep('grow', { to: keys([1, 0], [51, 1]) });
    const scene = balls([line(), grow, along(), newStep('offset', { by: 'front', time: 0 })], rising);
    // The front passes the middle of the k-th place, at (k + 0.5) / 10 of the way, so many frames after the first.
    const shown = await radii(scene, 60);
    shown.forEach((radius, k) => expect(Math.abs(radius - radiusAt(60 - 50 * ((k + 0.5) / 10)))).toBeLessThan(0.0051));
  });

  test('a cycle of P frames costs P evaluations of its item, whatever the number of copies', async () => {
    const stages: string[] = [];
    const scene = balls(
      [line(), along({ count: 500 }), newStep('offset', { by: 'number', time: 5 / FPS })],
      cycle([1, 0.1], [13, 0.4], [25, 0.1]),
    );
    const evaluator = testEvaluator({}, (growth) => void stages.push(growth.id));
    for (let frame = 1; frame <= 24; frame++) await copiesAt(scene, frame, evaluator);
    // The radius rises and falls by the same way: 13 different ones. Once more for the item's size at the last frame.
    expect(stages.filter((id) => id === 'item').length).toBeLessThanOrEqual(25);
  });

  test('repeated, an item without keys past its end begins again', async () => {
    const scene = balls([line(), along(), newStep('offset', { by: 'number', time: 0.25, repeat: 1 })], rising);
    for (const frame of [1, 20, 49, 60, 143]) {
      const shown = await radii(scene, frame);
      shown.forEach((radius, k) => {
        const since = (((frame - 1 - 6 * k) % 24) + 24) % 24;
        expect(radius).toBeCloseTo(radiusAt(1 + since), 5);
      });
    }
  });

  test('with cycles, the frame past the end is the first one, at any offset', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.double({ min: -3, max: 3, noNaN: true }),
        fc.constantFrom('number', 'along', 'random'),
        async (time, by) => {
          const scene = balls(
            [line(), along(), newStep('offset', { by, time })],
            cycle([1, 0.1], [20, 0.4], [33, 0.1]),
          );
          expect(await radii(scene, 97)).toEqual(await radii(scene, 1));
        },
      ),
      { numRuns: 12 },
    );
  });
});

describe('moments', () => {
  test('seats that show the same share one moment; a drive has so many steps', () => {
    const list = new SeatList(['a']);
    for (let k = 0; k < 1000; k++)
      list.add({
        ...{ growth: 0, id: k, dice: k, number: k, row: 0, position: [0, 0, 0], turn: [0, 0, 0, 1], size: 1 },
        ...{ share: 0, age: 0, life: null, variant: 0 },
      });
    const seats = list.done();
    seats.drive = Float32Array.from(seats.ids, (_, k) => k / 999);
    seats.late = Float32Array.from(seats.ids, (_, k) => k);
    const { list: moments, group } = momentsOf(seats, () => 4);
    expect(moments.length).toBeLessThanOrEqual(4 * (COARSE + 1));
    group.forEach((moment, k) => {
      expect(Math.abs(moments[moment].drives[0] - k / 999)).toBeLessThanOrEqual(0.5 / COARSE + 1e-6);
      expect(moments[moment].late % 4).toBe(k % 4);
    });
  });
});

describe('between whole frames', () => {
  // A life of twelve births, six of them in a range of 96 frames: each copy plays its item at half its pace.
  const endless = (): Scene => {
    const train = along({ count: 12, reveal: 'endless', births: 6, fade: 0 });
    return balls([line(), train, newStep('offset', { by: 'life' })], keys([1, 0.01], [97, 0.97]));
  };

  test('what plays its life moves at every part of a frame, evenly, and closes', async () => {
    const evaluator = testEvaluator();
    const shown = async (frame: number): Promise<number[]> => {
      const { items, item } = await copiesAt(endless(), frame, evaluator);
      const all = Array.from(item, (i) => Math.max(...items[i].mesh.positions.filter((_, c) => c % 3 === 1)));
      return all.sort((a, b) => a - b);
    };
    const from = await shown(43);
    for (const later of [0.25, 0.5, 0.75, 1, 1.25]) {
      const now = await shown(43 + later);
      // Its radius grows by a hundredth a frame of its own, of which it has 96 in twelve births; moments lie an eighth apart.
      now.forEach((radius, k) => expect(Math.abs(radius - from[k] - later / 200)).toBeLessThan(0.01 / 8 + 1e-6));
    }
    expect(
      new Set(await Promise.all([43, 43.5, 44].map(async (frame) => (await shown(frame))[3].toFixed(4)))).size,
    ).toBe(3);
    expect(await shown(97)).toEqual(await shown(1));
  });

  test('what is driven slowly by few moves at every frame', async () => {
    const ramp = keys([1, 0], [200, 1]);
    const fall = newStep('falloff', { shape: 'ball', radius: 99, drives: 'drive', amount: ramp });
    const seen = new Set<number>();
    for (let frame = 20; frame < 40; frame++)
      seen.add((await radii(balls([line(), along(), fall], { formula: 'drive + 0.1' }), frame))[0]);
    expect(seen.size).toBe(20);
  });

  test('many share what they show: no frame takes more moments than the coarsest steps', async () => {
    const falls = newStep('falloff', { shape: 'along', reach: 0.5, softShare: 1, drives: 'drive', amount: 1 });
    const copies = await copiesAt(balls([line(), along({ count: 500 }), falls], { formula: 'drive + 0.1' }), 1);
    expect(copies.items.length).toBeLessThanOrEqual(COARSE + 1);
  });
});

describe('variants and what drives items', () => {
  const driven: Formula = { formula: 'drive + 0.1' };

  test('variants of an item differ, and each keeps to its copy', async () => {
    const scene = balls([line(), along({ count: 40, variants: 3 })], 0.2);
    scene.growths[1].steps = [
      newStep('line', { points: 20 }),
      newStep('noise', { amount: 0.5, evolve: 0 }),
      newStep('tube', { sides: 3 }),
    ];
    const copies = await copiesAt(scene, 1);
    expect(copies.items).toHaveLength(3);
    expect(new Set(copies.items.map(({ mesh }) => mesh.positions.join())).size).toBe(3);
    const later = await copiesAt(scene, 50);
    expect(later.item).toEqual(copies.item);
  });

  test('a falloff along the path drives a formula of the item', async () => {
    const scene = balls(
      [
        line(),
        along({ count: 11 }),
        newStep('falloff', { shape: 'along', reach: 0.5, softShare: 1, ease: 'linear', drives: 'drive', amount: 1 }),
      ],
      driven,
    );
    const shown = await radii(scene, 1);
    shown.forEach((radius, k) =>
      expect(Math.abs(radius - 0.1 - (1 - (k + 0.5) / 11))).toBeLessThanOrEqual(0.5 / FINENESS[0].steps + 1e-6),
    );
  });

  test('several falloffs drive several things of an item, each with a timing of its own', async () => {
    const front = (params: Params): Step =>
      newStep('falloff', { shape: 'along', softShare: 1, ease: 'linear', drives: 'drive', ...params });
    const scene = balls(
      [
        line(),
        along({ count: 11 }),
        front({ reach: 0.5 }),
        front({ reach: 0.2, slot: 'drive2' }),
        front({ reach: 0.9, slot: 'drive3', amount: 0.5 }),
      ],
      { formula: '0.1 + drive + 10 * drive2 + 100 * drive3' },
    );
    const exact = (k: number, reach: number): number => Math.min(1, Math.max(0, 0.5 + reach - (k + 0.5) / 11));
    (await radii(scene, 1)).forEach((radius, k) =>
      expect(Math.abs(radius - (0.1 + exact(k, 0.5) + 10 * exact(k, 0.2) + 50 * exact(k, 0.9)))).toBeLessThan(
        (0.5 * 111) / FINENESS[0].steps + 1e-4,
      ),
    );
  });

  test('copies that are driven alike in all share what they show; those that differ in one do not', async () => {
    const all = (slot: string, amount: number): Step =>
      newStep('falloff', { shape: 'ball', radius: 99, ease: 'linear', drives: 'drive', slot, amount });
    const shown = async (...steps: Step[]): Promise<number> =>
      (await copiesAt(balls([line(), along({ count: 20 }), ...steps], { formula: 'drive3 + 0.1' }), 1)).items.length;
    expect(await shown(all('drive', 0.3), all('drive3', 0.7))).toBe(1);
    const half = newStep('falloff', { shape: 'ball', atY: 0, radius: 4, soft: 0, drives: 'drive', slot: 'drive3' });
    expect(await shown(all('drive', 0.3), half)).toBe(2);
  });
});

describe('falloffs', () => {
  const withFalloff = (params: Record<string, ParamValue>, ...more: Step[]) =>
    copiesAt(balls([line(), along({ count: 10 }), newStep('falloff', { ease: 'linear', ...params }), ...more], 0.1), 1);

  test('a plane weighs what lies behind it, softly over its border', async () => {
    // A quarter turn about Z makes its upper side look along −X: it weighs what lies at greater x.
    const copies = await withFalloff({ shape: 'plane', atX: 5, atY: 0, turnZ: 90, soft: 2, drives: 'size', factor: 3 });
    for (let k = 0; k < 10; k++) {
      const weight = Math.min(1, Math.max(0, 0.5 + (k + 0.5 - 5) / 2));
      expect(copies.sizes[3 * k]).toBeCloseTo(1 + 2 * weight, 5);
    }
  });

  test('a ball and a box weigh what they hold', async () => {
    const inBall = await withFalloff({ shape: 'ball', atX: 5, atY: 0, radius: 2, soft: 0, drives: 'size', factor: 2 });
    const inBox = await withFalloff({
      ...{ shape: 'box', atX: 5, atY: 0, sizeX: 4, sizeY: 1, sizeZ: 1, soft: 0, drives: 'size', factor: 2 },
    });
    for (let k = 0; k < 10; k++) {
      const inside = Math.abs(k + 0.5 - 5) < 2;
      expect(inBall.sizes[3 * k]).toBeCloseTo(inside ? 2 : 1, 5);
      expect(inBox.sizes[3 * k]).toBeCloseTo(inside ? 2 : 1, 5);
    }
  });

  test('a guide of the scene weighs as the same shape of the step does, and again after it has moved', async () => {
    const evaluator = testEvaluator();
    const sizes = async (
      params: Record<string, ParamValue>,
      which?: Guide['kind'],
      guide: Params = {},
    ): Promise<number[]> => {
      const step = newStep('falloff', { ease: 'linear', drives: 'size', factor: 0, soft: 1.4, ...params });
      const scene = balls([line(), along({ count: 10 }), step], 0.1);
      const at = { positionX: 3, positionY: 0.1, sizeX: 4, sizeY: 3, sizeZ: 2, radius: 2 };
      if (which) scene.guides.push(newGuide('mark', 'Mark', which, { ...at, ...guide }));
      return Array.from((await copiesAt(scene, 1, evaluator)).sizes);
    };
    const place = { atX: 3, atY: 0.1, atZ: 0 };
    const by = { shape: 'guide', guide: 'guide:mark', radius: 2 };
    const ball = await sizes({ shape: 'ball', ...place, radius: 2 });
    expect(new Set(ball).size).toBeGreaterThan(2);
    expect(await sizes(by, 'point')).toEqual(ball);
    expect(await sizes(by, 'ball')).toEqual(ball);
    expect(await sizes(by, 'box')).toEqual(await sizes({ shape: 'box', ...place, sizeX: 4, sizeY: 3, sizeZ: 2 }));
    expect(await sizes(by, 'plane', { turnZ: 90 })).toEqual(
      await sizes({ shape: 'plane', ...place, turnX: 0, turnY: 0, turnZ: 90 }),
    );
    expect(await sizes(by, 'ball', { positionX: 7 })).toEqual(
      await sizes({ shape: 'ball', ...place, atX: 7, radius: 2 }),
    );
  });

  test('growing tips carry a ball along, and what no guide stands for is told', async () => {
    const scene = balls(
      [
        line(),
        along({ count: 10 }),
        newStep('falloff', { shape: 'guide', guide: 'tip:walker', radius: 0.5, soft: 0, drives: 'size', factor: 3 }),
      ],
      0.1,
    );
    const to = keys([1, 0.0], [91, 0.9]);
    scene.growths.push({
      ...newGrowth('Walker', 2, [line(), newStep('grow', { to })]),
      id: 'walker',
      visible: false,
    });
    for (const frame of [21, 36, 66]) {
      const { positions, sizes } = await copiesAt(scene, frame);
      const tip = (frame - 1) / 10;
      for (let k = 0; k < 10; k++)
        expect(sizes[3 * k]).toBeCloseTo(Math.abs(positions[3 * k] - tip) <= 0.5 + 1e-6 ? 3 : 1, 5);
    }
    scene.growths[0].steps[2].params.guide = 'guide:gone';
    const [{ notices }] = (await testEvaluator().evaluate(scene, 1)).growths;
    expect(notices.map(({ what }) => what).join()).toMatch(/not in this scene/);
  });

  test('weights are put together as is said, and the other way round', async () => {
    const left = { shape: 'plane', atX: 4, atY: 0, turnZ: -90, soft: 0, drives: 'nothing' };
    const right = { shape: 'plane', atX: 2, atY: 0, turnZ: 90, soft: 0, drives: 'size', factor: 5, ease: 'linear' };
    const both = await withFalloff(left, newStep('falloff', { ...right, combine: 'times' }));
    const any = await withFalloff(left, newStep('falloff', { ...right, combine: 'plus' }));
    const not = await withFalloff({ ...right, invert: true });
    for (let k = 0; k < 10; k++) {
      const x = k + 0.5;
      expect([k, both.sizes[3 * k]]).toEqual([k, x > 2 && x < 4 ? 5 : 1]);
      expect([k, any.sizes[3 * k]]).toEqual([k, 5]);
      expect([k, not.sizes[3 * k]]).toEqual([k, x < 2 ? 5 : 1]);
    }
  });

  test('pieces fall into their places and stop there exactly', async () => {
    const grow = newStep('grow', { to: keys([1, 0], [25, 1]) });
    const fall = newStep('falloff', {
      shape: 'front',
      over: 1,
      invert: true,
      ease: 'cubic-out',
      drives: 'move',
      moveY: 3,
    });
    const scene = balls([line(), grow, along(), fall], 0.1);
    const early = await copiesAt(scene, 14);
    // What has just been uncovered stands almost as high as it comes from.
    expect(Math.max(...early.positions.filter((_, i) => i % 3 === 1))).toBeGreaterThan(2);
    const still = await copiesAt(balls([line(), along()], 0.1), 60);
    expect((await copiesAt(scene, 60)).positions).toEqual(still.positions);
    let before = early;
    for (let frame = 15; frame <= 60; frame++) {
      const now = await copiesAt(scene, frame);
      // Never faster than the steepest of the easing, three times the mean, over its 24 frames.
      before.ids.forEach((id, k) => {
        const n = now.ids.indexOf(id);
        expect(distance(at(before.positions, k), at(now.positions, n))).toBeLessThan((3 * 3) / FPS + 1e-3);
      });
      before = now;
    }
  });

  test('two of them act one after the other, each with its delay', async () => {
    const grow = newStep('grow', { to: keys([1, 0], [2, 1]) });
    const size = newStep('falloff', { shape: 'front', over: 1, ease: 'linear', invert: true, factor: 0 });
    const unroll = newStep('falloff', { shape: 'front', delay: 1, over: 1, ease: 'linear', drives: 'drive' });
    const scene = balls([line(), grow, along({ count: 1 }), size, unroll], { formula: '0.1 + drive' });
    const state = async (frame: number) => {
      const copies = await copiesAt(scene, frame);
      return [copies.sizes[0], (await radii(scene, frame))[0] - 0.1];
    };
    // The front passes the only place at frame 1.5.
    const half = await state(13.5);
    expect(half[0]).toBeCloseTo(0.5, 2);
    expect(half[1]).toBeCloseTo(0, 2);
    const late = await state(37.5);
    expect(late[0]).toBeCloseTo(1, 5);
    expect(Math.abs(late[1] - 0.5)).toBeLessThan(0.02);
  });

  test('noise weighs everything between nothing and all, and closes with the range', async () => {
    const scene = balls(
      [line(), along({ count: 50 }), newStep('falloff', { shape: 'noise', evolve: 1, grain: 0.7 })],
      0.1,
    );
    const first = await copiesAt(scene, 1);
    expect(new Set(first.sizes).size).toBeGreaterThan(20);
    expect((await copiesAt(scene, 97)).sizes).toEqual(first.sizes);
  });

  test('tints multiply', async () => {
    const copies = await withFalloff({ shape: 'along', reach: 2, drives: 'color', color: '#ff0000' });
    expect(Array.from(copies.tints!.subarray(0, 3))).toEqual([1, 0, 0]);
  });
});

describe('on trees', () => {
  /** Distance from the root of every copy, and how much of four seconds of its life it has had. */
  const lives = async (frame: number, ...more: Step[]): Promise<readonly (readonly [number, number])[]> => {
    const tree = { generations: 3, varyCount: 0, varyLength: 0, count: 3, children: 2 };
    const scene = sceneOf([
      newStep('burst', tree),
      newStep('measure', { what: 'root', scale: 'measured', name: 'way' }),
      newStep('grow', { to: keys([1, 0], [101, 1]), branches: 'even' }),
      ...more,
      newStep('falloff', { drives: 'attribute', shape: 'front', over: 4, ease: 'linear', name: 'life' }),
    ]);
    scene.growths.push({ ...newGrowth('Bud', 1, [ball(0.02)]), id: 'item', visible: false });
    const [{ form }] = (await testEvaluator().evaluate(scene, frame)).growths;
    const { way, life } = form!.copies!.named;
    return Array.from(way.values, (d, k) => [d, life.values[k]] as const);
  };

  // Even pace: a front that has gone all of W metres in 100 frames was at d after 100 d / W of them.
  test('buds along the branches are as old as it is since the front came to them, through all joints', async () => {
    const at = (count: number) => newStep('along', { growth: 'item', by: 'count', count, settle: 0 });
    const furthest = Math.max(
      ...(await lives(101, newStep('along', { growth: 'item', by: 'points' }))).map(([d]) => d),
    );
    const all = await lives(101, at(6));
    expect(all.length).toBeGreaterThan(60);
    for (const [way, life] of all) expect(life).toBeCloseTo(Math.min(1, ((1 - way / furthest) * 100) / FPS / 4), 2);
    // Half way through none is there that the front has yet to come to.
    const young = await lives(51, at(6));
    expect(Math.max(...young.map(([way]) => way))).toBeLessThanOrEqual(furthest / 2 + 1e-4);
    expect(new Set(young.map(([, life]) => life.toFixed(3))).size).toBeGreaterThan(8);
  });
});
