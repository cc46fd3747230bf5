import fc from 'fast-check';
import { slotsAlong } from '../../curves/slots';
import { copiesOfSeats, joinCopies, wholeMesh } from '../../geometry/copies';
import { SeatList } from '../../geometry/seats';
import { boundsOf, countsOf, emptyForm, type Copies, type Form } from '../../geometry/form';
import { flaws } from '../../geometry/invariants';
import { areaAndVolume } from '../../geometry/mesh';
import { about, after, fromAxes, turnedBy, type Turn } from '../../geometry/turns';
import { at, cross, distance, dot, unit, type Vec3 } from '../../geometry/vec';
import { newGrowth, newStep } from '../../scene/make';
import { type ParamValue, type Scene, type Step } from '../../scene/schema';
import { box } from '../../surfaces/solids';
import { sceneOf, testEvaluator } from '../../testing';

const turnOf = (copies: Copies, k: number): Turn => [0, 1, 2, 3].map((c) => copies.turns[4 * k + c]) as unknown as Turn;

describe('turns', () => {
  test('from axes, and one after another, turn points as the axes say', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 6, maxLength: 6 }), (n) => {
        const x = unit([n[0], n[1], n[2] + 0.01]);
        const side = cross(x, unit([n[3], n[4] + 0.3, n[5]]));
        if (Math.hypot(...side) < 0.05) return;
        const y = unit(side);
        const turn = fromAxes(x, y);
        expect(distance(turnedBy(turn, [1, 0, 0]), x)).toBeLessThan(1e-9);
        expect(distance(turnedBy(turn, [0, 1, 0]), y)).toBeLessThan(1e-9);
        expect(distance(turnedBy(turn, [0, 0, 1]), cross(x, y))).toBeLessThan(1e-9);
        const both = after(turn, about([0, 1, 0], 0.7));
        const point: Vec3 = [0.3, -0.2, 0.9];
        expect(distance(turnedBy(both, point), turnedBy(turn, turnedBy(about([0, 1, 0], 0.7), point)))).toBeLessThan(
          1e-9,
        );
      }),
    );
  });
});

describe('slots', () => {
  const rule = { pitch: 0.3, count: null, start: 0, end: 0, rest: 'leave' as const, pattern: 1 };

  test('a remainder is left, spread, or taken up by the size', () => {
    const left = slotsAlong(1, false, rule);
    expect(left.at).toHaveLength(3);
    expect(left.at[0]).toBeCloseTo(0.15, 12);
    expect(left.at[2] + 0.15).toBeCloseTo(0.9, 12);
    const spread = slotsAlong(1, false, { ...rule, rest: 'spread' });
    expect([spread.at[0], spread.at[2], spread.size]).toEqual([expect.closeTo(1 / 6, 9), expect.closeTo(5 / 6, 9), 1]);
    expect(slotsAlong(1, false, { ...rule, rest: 'fit' }).size).toBeCloseTo(1 / 0.9, 12);
  });

  test('margins, counts, and whole patterns on closed paths', () => {
    const margins = slotsAlong(2, false, { ...rule, start: 0.4, end: 0.7 });
    expect(margins.at).toHaveLength(3);
    expect(margins.at[0]).toBeCloseTo(0.55, 12);
    expect(slotsAlong(2, false, { ...rule, count: 5 }).at).toHaveLength(5);
    for (const length of [1.9, 2, 2.3, 5])
      expect(slotsAlong(length, true, { ...rule, pattern: 2 }).at.length % 2).toBe(0);
    expect(slotsAlong(0.1, false, rule).at).toHaveLength(0);
    expect(slotsAlong(0.1, true, { ...rule, pattern: 4 }).at).toHaveLength(4);
  });

  test('a length of whole places gives them all, in spite of rounding', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 400 }), fc.double({ min: 0.001, max: 3, noNaN: true }), (n, pitch) => {
        expect(slotsAlong(n * pitch, false, { ...rule, pitch }).at).toHaveLength(n);
      }),
    );
  });
});

const item = (steps: Step[]) => ({ ...newGrowth('Item', 1, steps), id: 'item', visible: false });
const link = () => newStep('solid', { which: 'link', wire: 0.05, innerLength: 0.2, innerWidth: 0.075, sides: 12 });

async function placed(
  path: Step[],
  params: Record<string, ParamValue>,
  what: Step[] = [link()],
  frame = 1,
): Promise<Form> {
  const scene: Scene = sceneOf([...path, newStep('along', { growth: 'item', settle: 0, ...params })]);
  scene.growths.push(item(what));
  const { growths } = await testEvaluator().evaluate(scene, frame);
  expect(growths[0].notices).toEqual([]);
  expect(flaws(growths[0].form!)).toEqual([]);
  return growths[0].form!;
}
const line = (length: number) => newStep('line', { fromX: 0, fromY: 0, toX: length, toY: 0, points: 60 });
const grows: ParamValue = {
  keys: [
    { frame: 1, value: 0, ease: 'linear' },
    { frame: 101, value: 1, ease: 'linear' },
  ],
  before: 'hold',
  after: 'hold',
};

describe('chains', () => {
  test('links stand an inner length apart, crosswise in turn, their long axis along the path', async () => {
    const { copies } = await placed([line(2)], { turns: '0, 90' });
    expect(copies!.ids).toHaveLength(10);
    for (let k = 1; k < 10; k++) {
      expect(distance(at(copies!.positions, k - 1), at(copies!.positions, k))).toBeCloseTo(0.2, 5);
      const [a, b] = [turnedBy(turnOf(copies!, k - 1), [0, 0, 1]), turnedBy(turnOf(copies!, k), [0, 0, 1])];
      expect(Math.abs(dot(a, b))).toBeLessThan(1e-5);
      expect(Math.abs(turnedBy(turnOf(copies!, k), [0, 1, 0])[0])).toBeCloseTo(1, 5);
    }
  });

  // A link of wire d hangs in the next when their wires touch inside the bend: centres an inner length apart, the wires'
  // middles in the bend are d apart, which is just what two round wires of diameter d need.
  test('neighbours touch without cutting: wires are one diameter apart where they meet', async () => {
    const { copies } = await placed([line(1)], { turns: '0, 90' });
    const bend = (k: number, way: 1 | -1): Vec3 => {
      const [x, y, z] = turnedBy(turnOf(copies!, k), [0, way * (0.2 / 2 + 0.05 / 2), 0]);
      const [px, py, pz] = at(copies!.positions, k);
      return [px + x, py + y, pz + z];
    };
    const forward = turnedBy(turnOf(copies!, 0), [0, 1, 0])[0] > 0 ? 1 : -1;
    expect(distance(bend(0, forward), bend(1, -forward as 1 | -1))).toBeCloseTo(0.05, 5);
  });

  test('a closed path takes whole pairs, so that the last link crosses the first', async () => {
    const { copies } = await placed([newStep('arc', { radius: 0.7, points: 200 })], { turns: '0 90' });
    expect(copies!.ids.length % 2).toBe(0);
    const gaps = Array.from(copies!.ids, (_, k) =>
      distance(at(copies!.positions, k), at(copies!.positions, (k + 1) % copies!.ids.length)),
    );
    expect(Math.max(...gaps) / Math.min(...gaps)).toBeLessThan(1.01);
  });
});

describe('growing with copies', () => {
  const at2 = (frame: number, params: Record<string, ParamValue>) =>
    placed([line(3), newStep('grow', { to: grows })], { turns: '0, 90', ...params }, [link()], frame);

  test('uncovered places never move, and each link keeps its own turn', async () => {
    const late = (await at2(101, {})).copies!;
    for (const frame of [20, 47.5, 80]) {
      const early = (await at2(frame, {})).copies!;
      expect(early.ids.length).toBeGreaterThan(0);
      early.ids.forEach((id, k) => {
        const l = late.ids.indexOf(id);
        expect(distance(at(early.positions, k), at(late.positions, l))).toBeLessThan(1e-4);
        expect(Math.abs(turnOf(early, k).reduce((sum, x, c) => sum + x * turnOf(late, l)[c], 0))).toBeCloseTo(1, 4);
      });
    }
  });

  test('fed through, no link jumps or flips: between frames it moves with the front, on the same turn', async () => {
    let before: Copies | null = null;
    for (let frame = 4; frame <= 101; frame += 1) {
      const now = (await at2(frame, { reveal: 'feed' })).copies!;
      for (let k = 0; before && k < before.ids.length; k++) {
        const n = now.ids.indexOf(before.ids[k]);
        expect(n).toBeGreaterThanOrEqual(0);
        // The front moves 3 m in 100 frames.
        expect(distance(at(before.positions, k), at(now.positions, n))).toBeLessThan(0.0301);
        expect(Math.abs(turnOf(before, k).reduce((sum, x, c) => sum + x * turnOf(now, n)[c], 0))).toBeCloseTo(1, 4);
      }
      before = now;
    }
    expect(before!.ids).toHaveLength(15);
  });

  test('a copy comes up to its size in the time that is said', async () => {
    const scene = sceneOf([
      line(3),
      newStep('grow', { to: grows }),
      newStep('along', { growth: 'item', settle: 1, ease: 'linear', by: 'count', count: 3 }),
    ]);
    scene.growths.push(item([link()]));
    const sizes = async (frame: number) =>
      Array.from((await testEvaluator().evaluate(scene, frame)).growths[0].form!.copies?.sizes ?? []).filter(
        (_, i) => i % 3 === 0,
      );
    // The middle one stands at half the length, passed at frame 51; 24 frames are a second.
    expect((await sizes(63))[1]).toBeCloseTo(0.5, 2);
    expect((await sizes(75))[1]).toBeCloseTo(1, 2);
    expect((await sizes(51.2))[1]).toBeLessThan(0.02);
  });

  test('adding a copy at the end changes no other', async () => {
    const few = (await placed([line(2)], { by: 'distance', distance: 0.2, rest: 'leave', vary: 0.5, varyTurn: 40 }))
      .copies!;
    const more = (await placed([line(2.2)], { by: 'distance', distance: 0.2, rest: 'leave', vary: 0.5, varyTurn: 40 }))
      .copies!;
    expect(more.ids.length).toBe(few.ids.length + 1);
    few.ids.forEach((id, k) => {
      expect(more.ids[k]).toBe(id);
      expect(more.sizes[3 * k]).toBeCloseTo(few.sizes[3 * k], 5);
      expect(distance(at(few.positions, k), at(more.positions, k))).toBeLessThan(1e-4);
    });
  });
});

describe('turn patterns', () => {
  test('an angle more each time turns on without drifting', async () => {
    const { copies } = await placed([line(20)], { turns: '+137.508', by: 'count', count: 300 });
    const side = (k: number) => turnedBy(turnOf(copies!, k), [1, 0, 0]);
    const [a, b] = [side(0), side(299)];
    // 299 times 137.508° is 41,114.892°, which is 74.892° past whole turns.
    expect((Math.acos(dot(a, b)) * 180) / Math.PI).toBeCloseTo(74.892, 1);
  });

  test('what is no list of turns is refused', async () => {
    const scene = sceneOf([line(1), newStep('along', { growth: 'item', turns: '0, ninety' })]);
    scene.growths.push(item([link()]));
    const { growths } = await testEvaluator().evaluate(scene, 1);
    expect(growths[0].notices[0].what).toMatch(/no list of turns/);
  });
});

describe('copies', () => {
  const mesh = box(1, 2, 3);
  type Put = { id: number; x: number; size: number };
  const put = (id: number, x: number, size = 1): Put => ({ id, x, size });
  const copiesOf = (form: Form, key: string, puts: Put[]): Copies => {
    const seats = new SeatList(['item']);
    for (const { id, x, size } of puts)
      seats.add({
        ...{ growth: 0, id, number: id, row: 0, position: [x, 0, 0], turn: about([0, 0, 1], 0.4), size },
        ...{ share: 0, age: Infinity, life: null, variant: 0 },
      });
    return copiesOfSeats(seats.done(), new Uint32Array(puts.length), [{ form, key }]);
  };

  test('made real they enclose what they stand for, and their bounds hold them', () => {
    const copies = copiesOf({ ...emptyForm(), mesh }, 'k', [put(0, 0), put(1, 5, 0.5)]);
    const form: Form = { ...emptyForm(), copies };
    const whole = wholeMesh(form)!;
    expect(areaAndVolume(whole).volume).toBeCloseTo(6 * (1 + 0.125), 4);
    expect(countsOf(form)).toMatchObject({ faces: 24, copies: 2 });
    const bounds = boundsOf(form)!;
    for (let i = 0; i < whole.positions.length; i++) {
      expect(whole.positions[i]).toBeGreaterThanOrEqual(bounds.min[i % 3] - 1e-5);
      expect(whole.positions[i]).toBeLessThanOrEqual(bounds.max[i % 3] + 1e-5);
    }
  });

  test('copies of copies are copies of the innermost item, each with a number of its own', () => {
    const inner = copiesOf({ ...emptyForm(), mesh }, 'k', [put(0, 1), put(1, 2)]);
    const outer = copiesOf({ ...emptyForm(), copies: inner }, 'o', [put(0, 0, 2), put(1, 10)]);
    expect(outer.items).toHaveLength(1);
    expect(new Set(outer.ids).size).toBe(4);
    const direct = wholeMesh({ mesh: wholeMesh({ mesh: null, copies: inner }), copies: null })!;
    const twice = copiesOf({ ...emptyForm(), mesh: direct }, 'd', [put(0, 0, 2), put(1, 10)]);
    expect(areaAndVolume(wholeMesh({ mesh: null, copies: outer })!).volume).toBeCloseTo(
      areaAndVolume(wholeMesh({ mesh: null, copies: twice })!).volume,
      3,
    );
    const a = wholeMesh({ mesh: null, copies: outer })!.positions;
    const b = wholeMesh({ mesh: null, copies: twice })!.positions;
    a.forEach((x, i) => expect(x).toBeCloseTo(b[i], 4));
    expect(joinCopies(outer, inner)!.ids.length).toBe(6);
    expect(new Set(joinCopies(outer, inner)!.ids).size).toBe(6);
  });
});

describe('endless trains', () => {
  const endless = async (params: Record<string, ParamValue>, frame: number): Promise<Copies> => {
    const scene = sceneOf([line(3), newStep('along', { growth: 'item', reveal: 'endless', settle: 0, ...params })]);
    scene.range = [1, 48];
    scene.growths.push(item([link()]));
    const { growths } = await testEvaluator().evaluate(scene, frame);
    expect(flaws(growths[0].form!)).toEqual([]);
    return growths[0].form!.copies!;
  };

  test.each([
    ['a list of turns', { turns: '0, 90', births: 4 }],
    ['an angle more each time', { turns: '+137.508', births: 5 }],
    ['chance', { vary: 0.5, varyTurn: 30, births: 7 }],
    ['backwards', { turns: '0 90', births: -6 }],
  ])('close with the range, with %s', async (_, params) => {
    const [first, past] = [await endless(params, 1), await endless(params, 49)];
    expect(past.ids.length).toBe(first.ids.length);
    for (const key of ['positions', 'sizes'] as const)
      first[key].forEach((x, i) => expect(past[key][i]).toBeCloseTo(x, 5));
    first.ids.forEach((_id, k) =>
      expect(Math.abs(turnOf(first, k).reduce((sum, x, c) => sum + x * turnOf(past, k)[c], 0))).toBeCloseTo(1, 5),
    );
  });

  test('on an open path each comes up from nothing and goes to nothing: none appears or vanishes with a size', async () => {
    let before: Copies | null = null;
    for (let frame = 1; frame < 48; frame++) {
      const now = await endless({ births: 12 }, frame);
      const sizeOf = (of: Copies, id: number): number => (of.ids.includes(id) ? of.sizes[3 * of.ids.indexOf(id)] : 0);
      for (const id of new Set([...(before?.ids ?? []), ...now.ids]))
        if (before) expect(Math.abs(sizeOf(now, id) - sizeOf(before, id))).toBeLessThan(0.22);
      before = now;
    }
    expect(Math.max(...before!.sizes)).toBe(1);
  });

  test('each goes at an even pace with a turn of its own', async () => {
    let before = await endless({ turns: '0, 90', births: 4 }, 1);
    for (let frame = 2; frame < 48; frame++) {
      const now = await endless({ turns: '0, 90', births: 4 }, frame);
      before.ids.forEach((id, k) => {
        const n = now.ids.indexOf(id);
        if (n < 0) return;
        expect(distance(at(before.positions, k), at(now.positions, n))).toBeCloseTo((4 * 0.2) / 48, 5);
        expect(Math.abs(turnOf(before, k).reduce((sum, x, c) => sum + x * turnOf(now, n)[c], 0))).toBeCloseTo(1, 4);
      });
      before = now;
    }
  });
});

describe('pulled in', () => {
  const pulled = (fed: number, enters: string) => placed([line(3)], { reveal: 'pull', fed, enters, turns: '0, 90' });

  test('from both ends the halves meet where they belong', async () => {
    const whole = (await placed([line(3)], { turns: '0, 90' })).copies!;
    const met = (await pulled(1, 'both')).copies!;
    expect(met.positions).toEqual(whole.positions);
    const half = (await pulled(0.5, 'both')).copies!;
    const xs = Array.from(half.ids, (_, k) => half.positions[3 * k]);
    // Three quarters of a metre are still out at each side, and the middle is free.
    expect(xs.some((x) => x < 0.7)).toBe(true);
    expect(xs.some((x) => x > 2.3)).toBe(true);
    expect(xs.every((x) => x < 0.76 || x > 2.24)).toBe(true);
    half.ids.forEach((id, k) => {
      const w = whole.ids.indexOf(id);
      expect(Math.abs(half.positions[3 * k] - whole.positions[3 * w])).toBeCloseTo(0.75, 4);
    });
  });

  test('from one end, in the order of the train', async () => {
    const some = (await pulled(0.4, 'end')).copies!;
    expect(Math.min(...Array.from(some.ids, (_, k) => some.positions[3 * k]))).toBeGreaterThan(1.8 - 1e-4);
    expect((await pulled(0, 'base')).copies!.ids.length).toBe(0);
  });
});

describe('what is placed', () => {
  test('sizes along the path decide the spacing: neighbours of a row of shrinking boxes touch', async () => {
    const profile = [
      { at: 0, value: 1, shape: 'straight' as const },
      { at: 1, value: 0.3, shape: 'straight' as const },
    ];
    const cube = newStep('solid', { which: 'box', width: 0.2, height: 0.2, depth: 0.2 });
    const { copies } = await placed([line(5)], { profile, rest: 'leave' }, [cube]);
    expect(copies!.ids.length).toBeGreaterThan(30);
    for (let k = 1; k < copies!.ids.length; k++) {
      const apart = copies!.positions[3 * k] - copies!.positions[3 * (k - 1)];
      const half = 0.1 * (copies!.sizes[3 * k] + copies!.sizes[3 * (k - 1)]);
      expect(apart / half).toBeCloseTo(1, 2);
    }
  });

  test('items in a pattern take their own lengths', async () => {
    const scene = sceneOf([
      line(3),
      newStep('along', { growth: 'item', second: 'other', pattern: '1 2 2', rest: 'leave', settle: 0 }),
    ]);
    const cube = (width: number) => newStep('solid', { which: 'box', width, height: 0.1, depth: 0.1 });
    scene.growths.push(item([cube(0.5)]), { ...item([cube(0.25)]), id: 'other' });
    const { growths } = await testEvaluator().evaluate(scene, 1);
    const { copies } = growths[0].form!;
    expect(Array.from(copies!.item)).toEqual([0, 1, 1, 0, 1, 1, 0, 1, 1]);
    const xs = [0.25, 0.625, 0.875, 1.25, 1.625, 1.875, 2.25, 2.625, 2.875];
    xs.forEach((x, k) => expect(copies!.positions[3 * k]).toBeCloseTo(x, 5));
  });

  test('by odds, about as often as they say; what is no pattern is refused', async () => {
    const run = async (params: Record<string, ParamValue>) => {
      const scene = sceneOf([
        line(3),
        newStep('along', { growth: 'item', second: 'other', by: 'count', count: 2000, settle: 0, ...params }),
      ]);
      scene.growths.push(item([link()]), { ...item([newStep('solid')]), id: 'other' });
      return (await testEvaluator().evaluate(scene, 1)).growths[0];
    };
    const { form } = await run({ mix: 'odds', odds: '3 1' });
    const first = form!.copies!.item.filter((i) => i === 0).length;
    // Four standard deviations of 2,000 draws at three in four.
    expect(Math.abs(first - 1500)).toBeLessThan(4 * Math.sqrt(2000 * 0.75 * 0.25));
    expect((await run({ pattern: '1 3' })).notices[0].what).toMatch(/no pattern of 2 items/);
    expect((await run({ mix: 'odds', odds: '0 0' })).notices[0].what).toMatch(/no odds/);
  });

  test('whorls stand evenly round the path', async () => {
    const { copies } = await placed([line(1)], { by: 'count', count: 2, whorl: 5, facing: 'path' });
    expect(copies!.ids).toHaveLength(10);
    const side = (k: number) => turnedBy(turnOf(copies!, k), [1, 0, 0]);
    for (let k = 0; k < 4; k++) expect(dot(side(k), side(k + 1))).toBeCloseTo(Math.cos((2 * Math.PI) / 5), 4);
  });

  test('copies point at a guide', async () => {
    const scene = sceneOf([
      line(2),
      newStep('along', { growth: 'item', facing: 'guide', toward: 'guide:g', by: 'count', count: 6, settle: 0 }),
    ]);
    scene.guides.push({
      id: 'g',
      name: 'Lamp',
      kind: 'point',
      position: [0.4, 3, 1],
      rotation: [0, 0, 0],
      size: [1, 1, 1],
    });
    scene.growths.push(item([link()]));
    const { copies } = (await testEvaluator().evaluate(scene, 1)).growths[0].form!;
    // A link's forward axis is X, its longest: it comes to lie along the line to the guide.
    for (let k = 0; k < 6; k++) {
      const [x, y, z] = at(copies!.positions, k);
      const goal = unit([0.4 - x, 3 - y, 1 - z]);
      const longest = [0, 1, 2].map((axis) =>
        turnedBy(turnOf(copies!, k), [axis === 0 ? 1 : 0, axis === 1 ? 1 : 0, axis === 2 ? 1 : 0]),
      );
      expect(Math.max(...longest.map((way) => Math.abs(dot(way, goal))))).toBeGreaterThan(0.999);
    }
  });

  test('swaying in noise neither adds nor drops a copy', async () => {
    const counts = new Set<number>();
    for (let frame = 1; frame < 40; frame += 3) {
      const scene = sceneOf([
        line(2.99),
        newStep('noise', { amount: 0.3, evolve: 2 }),
        newStep('along', { growth: 'item' }),
      ]);
      scene.growths.push(item([link()]));
      counts.add((await testEvaluator().evaluate(scene, frame)).growths[0].form!.copies!.ids.length);
    }
    expect(counts.size).toBe(1);
  });
});

describe('the path under the copies', () => {
  test('eaten from its start and growing at its end, it shows the places between, each where it was', async () => {
    const whole = (await placed([line(3)], { turns: '0, 90' })).copies!;
    const part = (await placed([line(3), newStep('grow', { from: 0.31, to: 0.77 })], { turns: '0, 90' })).copies!;
    const inside = Array.from(whole.ids).filter(
      (_, k) => whole.positions[3 * k] > 0.93 && whole.positions[3 * k] < 2.31,
    );
    expect(Array.from(part.ids)).toEqual(inside);
    part.ids.forEach((id, k) => {
      const w = whole.ids.indexOf(id);
      expect(distance(at(part.positions, k), at(whole.positions, w))).toBeLessThan(1e-4);
      expect(Math.abs(turnOf(part, k).reduce((sum, x, c) => sum + x * turnOf(whole, w)[c], 0))).toBeCloseTo(1, 4);
    });
  });

  test('left to itself it is exact on a path that keeps its course while it grows, and at rest on one that moves', async () => {
    const arc = newStep('arc', { radius: 0.8, sweep: 200, points: 120 });
    const grow = newStep('grow', { to: grows });
    const same = async (path: Step[], laid: string, frame: number): Promise<void> => {
      const [own, said] = [await placed(path, {}, undefined, frame), await placed(path, { laid }, undefined, frame)];
      expect(own.copies!.positions).toEqual(said.copies!.positions);
    };
    await same([arc, grow], 'now', 60);
    await same([arc, newStep('noise', { amount: 0.1, evolve: 1 }), grow], 'rest', 60);
    await same([{ ...arc, params: { ...arc.params, radius: { formula: '0.8 + frame / 1000' } } }], 'rest', 60);
    const [now, rest] = [await placed([arc], { laid: 'now' }), await placed([arc], { laid: 'rest' })];
    expect(now.copies!.positions).not.toEqual(rest.copies!.positions);
  });

  test('laid round bends by straight distances, places stay where they are as the path grows and is eaten', async () => {
    const bend = newStep('arc', { radius: 0.8, sweep: 200, points: 120 });
    const exact = { turns: '0, 90', laid: 'now', rest: 'leave' };
    const whole = (await placed([bend], exact)).copies!;
    for (let k = 1; k < whole.ids.length; k++)
      expect(distance(at(whole.positions, k - 1), at(whole.positions, k))).toBeLessThan(0.2);
    const cube = newStep('solid', { which: 'box', width: 0.2, height: 0.05, depth: 0.05 });
    const blocks = (await placed([bend], { ...exact, turns: '0' }, [cube])).copies!;
    for (let k = 1; k < blocks.ids.length; k++)
      expect(distance(at(blocks.positions, k - 1), at(blocks.positions, k))).toBeCloseTo(0.2, 5);
    const part = (await placed([bend, newStep('grow', { from: 0.27, to: 0.8 })], exact)).copies!;
    expect(part.ids.length).toBeGreaterThan(4);
    part.ids.forEach((id, k) => {
      const w = whole.ids.indexOf(id);
      expect(distance(at(part.positions, k), at(whole.positions, w))).toBeLessThan(1e-3);
    });
  });

  test('blended into another shape it carries them along: none is added, dropped, or jumps', async () => {
    const amount: ParamValue = {
      keys: [
        { frame: 1, value: 0, ease: 'linear' },
        { frame: 51, value: 1, ease: 'linear' },
      ],
      before: 'hold',
      after: 'hold',
    };
    const scene = sceneOf([
      line(3),
      newStep('blend', { growth: 'goal', amount }),
      newStep('along', { growth: 'item', settle: 0, turns: '0, 90' }),
    ]);
    scene.growths.push(
      {
        ...newGrowth('Goal', 2, [newStep('arc', { radius: 1, sweep: 200, points: 60 })]),
        id: 'goal',
        visible: false,
      },
      item([link()]),
    );
    const blended = async (frame: number): Promise<Copies> => {
      const { growths } = await testEvaluator().evaluate(scene, frame);
      expect(growths[0].notices).toEqual([]);
      return growths[0].form!.copies!;
    };
    let before = await blended(1);
    for (let frame = 2; frame <= 51; frame++) {
      const now = await blended(frame);
      expect(now.ids).toEqual(before.ids);
      now.ids.forEach((_, k) => expect(distance(at(now.positions, k), at(before.positions, k))).toBeLessThan(0.1));
      before = now;
    }
  });
});

test('over random paths and growing windows no copy jumps or flips', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.record({
        turns: fc.double({ min: 0.3, max: 3, noNaN: true }),
        height: fc.double({ min: 0.2, max: 2, noNaN: true }),
        push: fc.double({ min: 0, max: 0.3, noNaN: true }),
        laid: fc.constantFrom('rest', 'now'),
        reveal: fc.constantFrom('appear', 'feed'),
        from: fc.double({ min: 0, max: 0.4, noNaN: true }),
        to: fc.double({ min: 0.5, max: 0.95, noNaN: true }),
      }),
      async ({ turns, height, push, laid, reveal, from, to }) => {
        const ramp = (a: number, b: number): ParamValue => ({
          keys: [
            { frame: 1, value: a, ease: 'linear' },
            { frame: 41, value: b, ease: 'linear' },
          ],
          before: 'hold',
          after: 'hold',
        });
        const at = (frame: number): Promise<Form> =>
          placed(
            [
              newStep('helix', { turns, height, points: 300 }),
              newStep('noise', { amount: push, size: 1, evolve: 0 }),
              newStep('grow', { from: ramp(0, from), to: ramp(0.05, to) }),
            ],
            { turns: '0, 90', laid, reveal, rest: 'leave' },
            [link()],
            frame,
          );
        const whole = (
          await placed(
            [newStep('helix', { turns, height, points: 300 }), newStep('noise', { amount: push, size: 1, evolve: 0 })],
            {},
          )
        ).paths!.whole[0];
        // The front and what eats the path go at even paces; a copy goes no faster than both.
        const most = (whole * (to - 0.05 + from)) / 40 + 1e-3;
        let before: Copies | null = null;
        for (let frame = 2; frame <= 41; frame += 3) {
          const [a, b] = [(await at(frame)).copies!, (await at(frame + 1)).copies!];
          for (let k = 0; k < a.ids.length; k++) {
            const n = b.ids.indexOf(a.ids[k]);
            if (n < 0) continue;
            expect(
              distance(
                [a.positions[3 * k], a.positions[3 * k + 1], a.positions[3 * k + 2]],
                [b.positions[3 * n], b.positions[3 * n + 1], b.positions[3 * n + 2]],
              ),
            ).toBeLessThan(most);
            const flip = turnOf(a, k).reduce((sum, x, c) => sum + x * turnOf(b, n)[c], 0);
            expect(Math.abs(flip)).toBeGreaterThan(0.9);
          }
          before = b;
        }
        expect(before).not.toBeNull();
      },
    ),
    { numRuns: 12 },
  );
});
