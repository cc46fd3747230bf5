import type { Points } from '../../geometry/form';
import { flaws } from '../../geometry/invariants';
import { turnedBy } from '../../geometry/turns';
import { at, distance, dot, norm, type Vec3 } from '../../geometry/vec';
import type { Evaluator } from '../../evaluate/evaluator';
import { newStep } from '../../scene/make';
import type { ParamValue, Step } from '../../scene/schema';
import { sceneOf, testEvaluator } from '../../testing';
import { form, grows, line } from '../../../test/paths';
import { item } from '../../../test/placing';

const points = async (steps: Step[], frame = 1): Promise<Points> => {
  const made = await form(steps, frame);
  expect(flaws(made)).toEqual([]);
  return made.points!;
};
const scatter = (params: Record<string, ParamValue> = {}): Step => newStep('scatter', params);
const ball = (): Step => newStep('solid', { which: 'ball', radius: 1, sides: 48, atY: 1 });
const upOf = (of: Points, k: number): Vec3 =>
  turnedBy(Array.from(of.turns.subarray(4 * k, 4 * k + 4)) as unknown as [number, number, number, number], [0, 1, 0]);
/** Every point of `before` that is still there stands in `now` where it stood. */
function expectKept(before: Points, now: Points, most = 1e-6): void {
  const places = new Map(Array.from(now.ids, (id, k) => [id, k]));
  before.ids.forEach((id, k) =>
    expect(distance(at(before.positions, k), at(now.positions, places.get(id)!))).toBeLessThan(most),
  );
}

describe('points scattered on a skin', () => {
  test('lie on it and stand off it, upright, or anywhere between', async () => {
    for (const upright of [0, 0.5, 1]) {
      const made = await points([ball(), scatter({ count: 300, upright })]);
      expect(made.ids).toHaveLength(300);
      for (let k = 0; k < 300; k++) {
        const [x, y, z] = at(made.positions, k);
        expect(Math.abs(norm(x, y - 1, z) - 1)).toBeLessThan(5e-3);
        const off = dot(upOf(made, k), [x, y - 1, z]);
        if (upright === 0) expect(off).toBeGreaterThan(0.99);
        if (upright === 1) expect(upOf(made, k)[1]).toBeCloseTo(1, 5);
        // Half way between two directions is as near to one as to the other.
        if (upright === 0.5 && y > 0.2) expect(upOf(made, k)[1]).toBeCloseTo(off, 1);
      }
    }
  });

  test('sunk in or raised, they stand off by just that', async () => {
    const [on, sunk] = [await points([ball(), scatter()]), await points([ball(), scatter({ sink: 0.1 })])];
    on.ids.forEach((_, k) => expect(distance(at(on.positions, k), at(sunk.positions, k))).toBeCloseTo(0.1, 5));
    sunk.ids.forEach((_, k) => {
      const [x, y, z] = at(sunk.positions, k);
      expect(norm(x, y - 1, z)).toBeCloseTo(0.9, 2);
    });
  });

  // On a ball both are known: a place's height is that of its y, and its slope is the angle of the way from the middle.
  test.each([
    ['height', (y: number) => y / 2],
    ['slope', (y: number) => Math.acos(Math.min(1, Math.max(-1, y - 1))) / Math.PI],
  ] as const)('are as dense as is drawn, by %s', async (denser, share) => {
    const density = [
      { at: 0, value: 0, shape: 'step' as const },
      { at: 0.3, value: 1, shape: 'step' as const },
      { at: 0.6, value: 0 },
    ];
    const made = await points([ball(), scatter({ count: 200, spread: 'random', denser, density })]);
    expect(made.ids.length).toBeGreaterThan(150);
    for (let k = 0; k < made.ids.length; k++) {
      const at01 = share(at(made.positions, k)[1]);
      expect(at01).toBeGreaterThan(0.27);
      expect(at01).toBeLessThan(0.63);
    }
  });

  test('know how far along the skin they are', async () => {
    const stem = [newStep('line', { toY: 2, points: 21 }), newStep('tube', { radius: 0.05, swell: 0, end: 'flat' })];
    const made = await points([...stem, scatter({ count: 100 })]);
    for (let k = 0; k < 100; k++) expect(made.share[k]).toBeCloseTo(at(made.positions, k)[1] / 2, 1);
  });

  test.each(['even', 'random'])('a count that is animated moves none that stand: %s', async (spread) => {
    const some = (count: number): Promise<Points> => points([ball(), scatter({ count, spread })]);
    const [few, more] = [await some(40.25), await some(700)];
    expect(few.ids).toHaveLength(41);
    expectKept(few, more);
    // The newest is coming up: by the smooth step of a quarter.
    expect([few.size[39], few.size[40]]).toEqual([1, expect.closeTo(0.15625, 5)]);
  });

  test('keep to their limits of height and slope', async () => {
    const limits = { lowest: 0.2, highest: 0.7, flattest: 50, steepest: 100 };
    for (const by of ['count', 'spacing', 'vertices', 'faces']) {
      const made = await points([ball(), scatter({ by, spacing: 0.15, count: 150, ...limits })]);
      expect(made.ids.length).toBeGreaterThan(20);
      made.ids.forEach((_, k) => {
        const y = at(made.positions, k)[1];
        expect(y).toBeGreaterThan(0.399);
        expect(y).toBeLessThan(1.401);
        // On a sphere the slope goes by the height.
        const slope = (Math.acos(Math.min(1, y - 1)) * 180) / Math.PI;
        expect(slope).toBeGreaterThan(49);
        expect(slope).toBeLessThan(101);
      });
    }
  });
});

test('within limits of the slope there are as many as are asked for', async () => {
  for (const slopes of [{ steepest: 60 }, { flattest: 120 }] as Record<string, ParamValue>[])
    expect((await points([ball(), scatter({ count: 150, ...slopes })])).ids).toHaveLength(150);
});

describe('scattered points ride on their skin', () => {
  const bends: ParamValue = {
    keys: [
      { frame: 1, value: 0, ease: 'linear' },
      { frame: 144, value: 140, ease: 'linear' },
    ],
    ...{ before: 'hold', after: 'hold' },
  };

  // Bending is what the Bend step does to loose points: those scattered before it are taken along by it one by one.
  test('on a form that bends they are where the bend itself takes them', async () => {
    const sheet = newStep('solid', { which: 'sheet', width: 0.5, height: 2, pieces: 40 });
    // Laid out on the form as it stands at the last frame, where it is flat.
    const unbends: ParamValue = {
      keys: [
        { frame: 1, value: 140, ease: 'linear' },
        { frame: 144, value: 0, ease: 'linear' },
      ],
      ...{ before: 'hold', after: 'hold' },
    };
    const bend = newStep('bend', { angle: unbends });
    for (const frame of [1, 50, 144]) {
      const [after, before] = [
        await points([sheet, bend, scatter({ by: 'faces' })], frame),
        await points([sheet, scatter({ by: 'faces' }), bend], frame),
      ];
      expect(after.ids).toEqual(before.ids);
      // Facets lie below the bend by the square of their size.
      expectKept(before, after, 1e-3);
    }
  });

  test('their ways turn with it', async () => {
    const turns = newStep('transform', { turnZ: bends });
    const [now, last] = [
      await points([ball(), turns, scatter({ count: 50 })], 60),
      await points([ball(), turns, scatter({ count: 50 })], 144),
    ];
    const angle = ((140 - (140 * 59) / 143) * Math.PI) / 180;
    const back: [number, number, number, number] = [0, 0, -Math.sin(angle / 2), Math.cos(angle / 2)];
    for (let k = 0; k < 50; k++)
      for (const axis of [
        [1, 0, 0],
        [0, 1, 0],
      ] as Vec3[]) {
        const way = (of: Points): Vec3 =>
          turnedBy(Array.from(of.turns.subarray(4 * k, 4 * k + 4)) as unknown as typeof back, axis);
        expect(distance(turnedBy(back, way(last)), way(now))).toBeLessThan(1e-4);
      }
  });

  test('on a skin that grows they stand still, and come as it comes', async () => {
    const tube = newStep('tube', { radius: 0.2, swell: 0, sides: 12, along: [{ at: 0, value: 1 }] });
    const steps = [line(3, 61), newStep('grow', { to: grows(0, 1) }), tube, scatter({ count: 400 })];
    const [half, whole] = [await points(steps, 51), await points(steps, 120)];
    expect(whole.ids).toHaveLength(400);
    // By chance alone 200 are to be expected, evenly spread within a few.
    expect(Math.abs(half.ids.length - 200)).toBeLessThan(25);
    expectKept(half, whole, 1e-4);
    for (let k = 0; k < half.ids.length; k++) expect(half.positions[3 * k + 1]).toBeLessThan(1.51);
    // Every other one is still to come.
    whole.ids.forEach((id, k) => {
      if (!half.ids.includes(id)) expect(whole.positions[3 * k + 1]).toBeGreaterThan(1.45);
    });
  });

  test('on a skin that is another one at each frame they are laid out anew, on what is there of it', async () => {
    const skin = [newStep('tube', { radius: 0.2, sides: 6 }), newStep('subdivide', { levels: 1 })];
    const made = await points([line(3, 31), newStep('grow', { to: grows(0, 1) }), ...skin, scatter({ count: 90 })], 51);
    expect(made.ids).toHaveLength(90);
    for (let k = 0; k < 90; k++) expect(made.positions[3 * k + 1]).toBeLessThan(1.8);
    // Before anything has grown there is nothing to stand on.
    const none = await form([line(3, 31), newStep('grow', { to: grows(0, 1) }), ...skin, scatter({ count: 90 })], 1);
    expect(none.points?.ids.length ?? 0).toBe(0);
  });

  test('they know since when the front has passed', async () => {
    const tube = newStep('tube', { radius: 0.1, swell: 0, sides: 8 });
    // Skins know it where something asks.
    const byAge = newStep('finish', { by: 'age' });
    const made = await points([line(2.5, 101), newStep('grow', { to: grows(0, 1) }), tube, scatter(), byAge], 76);
    // It goes by 0.025 m a frame, 24 frames a second.
    made.ids.forEach((_, k) => expect(made.age![k]).toBeCloseTo((75 - made.positions[3 * k + 1] / 0.025) / 24, 1));
  });
});

test.each(['count', 'spacing'])(
  'by %s: where only colours change they stay, where what they go by changes they do not',
  async (by) => {
    const lived = testEvaluator();
    const density = [
      { at: 0, value: 0 },
      { at: 1, value: 1 },
    ];
    const painted = (y: number): Step =>
      newStep('mask', {
        strokes: [{ does: 'paint', radius: 1, strength: 1, soft: 0.5, frame: 1, points: [0, y, 0, 1] }],
      });
    const all = (y: number, roughness: number): Step[] => [
      ball(),
      painted(y),
      newStep('finish', { roughness }),
      scatter({ by, count: 60, spacing: 0.2, denser: 'attribute', attribute: 'mask', density }),
    ];
    const scene = sceneOf(all(2, 0.5));
    const at = async (evaluator: Evaluator, steps: Step[]): Promise<number[]> => {
      const growth = {
        ...scene.growths[0],
        steps: steps.map((step, k) => ({ ...step, id: scene.growths[0].steps[k].id })),
      };
      const [{ form: made }] = (await evaluator.evaluate({ ...scene, growths: [growth] }, 1)).growths;
      return Array.from(made!.points!.positions);
    };
    const first = await at(lived, all(2, 0.5));
    expect(first.length).toBeGreaterThan(30);
    expect(await at(lived, all(2, 0.9))).toEqual(first);
    const below = await at(lived, all(0, 0.9));
    expect(below).not.toEqual(first);
    expect(below).toEqual(await at(testEvaluator(), all(0, 0.9)));
    expect(Math.max(...below.filter((_, i) => i % 3 === 1))).toBeLessThan(1.01);
  },
);

test('copies stand on scattered points, each shape of item once, and none is added or lost', async () => {
  const scene = sceneOf([ball(), scatter({ count: 120 }), newStep('on-points', { growth: 'item' })]);
  scene.growths.push(item([newStep('solid', { which: 'cone', radius: 0.03, height: 0.1 })]));
  const [{ form: made, notices }] = (await testEvaluator().evaluate(scene, 1)).growths;
  expect(notices).toEqual([]);
  expect(made!.copies!.ids).toHaveLength(120);
  expect(made!.mesh).not.toBeNull();
});

test('what would take too many is told before it is begun', async () => {
  const told = async (start: Step, by: string, spacing: number): Promise<string> => {
    const [{ notices }] = (await testEvaluator().evaluate(sceneOf([start, scatter({ by, spacing })]), 1)).growths;
    return notices[0].what;
  };
  for (const by of ['spacing', 'edges']) expect(await told(ball(), by, 0.0001)).toMatch(/points/);
  // A cube of one metre has twelve edges of that and a diagonal on each of its faces, of which there are twelve.
  const cube = newStep('solid', { which: 'box', width: 1, height: 1, depth: 1 });
  const most = Math.ceil((12 + 6 * Math.SQRT2) / 1e-6) + 12;
  expect(await told(cube, 'edges', 1e-6)).toContain(most.toLocaleString('en-GB').slice(0, 6));
});
