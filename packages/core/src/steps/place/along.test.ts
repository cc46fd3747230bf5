import { copiesOfSeats, joinCopies, wholeMesh } from '../../geometry/copies';
import { emptyForm, boundsOf, countsOf, type Copies, type Form } from '../../geometry/form';
import { areaAndVolume } from '../../geometry/mesh';
import { SeatList } from '../../geometry/seats';
import { about, turnedBy } from '../../geometry/turns';
import { add, at, cross, distance, dot, sub, unit, type Vec3 } from '../../geometry/vec';
import { newStep } from '../../scene/make';
import { newGuide } from '../../scene/owners';
import type { ParamValue } from '../../scene/schema';
import { box } from '../../surfaces/make/solids';
import { sceneOf, testEvaluator } from '../../testing';
import { turnOf, item, link, placed, line } from '../../../test/placing';

describe('chains', () => {
  test('links stand an inner length apart, crosswise in turn, their long axis along the path', async () => {
    const { copies } = await placed([line(2)], { turns: '0, 90' });
    expect(copies!.ids).toHaveLength(10);
    for (let k = 1; k < 10; k++) {
      expect(distance(at(copies!.positions, k - 1), at(copies!.positions, k))).toBeCloseTo(0.2, 4);
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
    // But for a hair by which they hang loose.
    expect(distance(bend(0, forward), bend(1, -forward as 1 | -1))).toBeCloseTo(0.05, 4);
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

describe('standing on the path', () => {
  test.each(['middle', 'origin'])('by its %s, each copy lies on it, the way it goes', async (stands) => {
    const rod = [newStep('line', { toY: 0.3, points: 5 }), newStep('tube', { radius: 0.02, swell: 0 })];
    const path = newStep('helix', { points: 2000, turns: 2, height: 1.5 });
    const { paths, copies } = await placed([path], { stands, by: 'count', count: 40, size: 1.7 }, rod);
    const n = paths!.positions.length / 3;
    for (let k = 0; k < copies!.ids.length; k++) {
      expect(new Set(copies!.sizes.subarray(3 * k, 3 * k + 3))).toEqual(new Set([Math.fround(1.7)]));
      const turn = turnOf(copies!, k);
      const up = stands === 'middle' ? 0.15 * copies!.sizes[3 * k] : 0;
      const lies = add(at(copies!.positions, k), turnedBy(turn, [0, up, 0]));
      const gaps = Array.from({ length: n }, (_, i) => distance(at(paths!.positions, i), lies));
      const near = gaps.indexOf(Math.min(...gaps));
      expect(gaps[near]).toBeLessThan(2e-3);
      const [before, after] = [Math.max(0, near - 1), Math.min(n - 1, near + 1)];
      const along = unit(sub(at(paths!.positions, after), at(paths!.positions, before)));
      expect(dot(turnedBy(turn, [0, 1, 0]), along)).toBeGreaterThan(0.999);
    }
  });
});

test('copies of whorls on several paths have numbers of their own, and keep them when a path gets longer', async () => {
  const strands = newStep('strands', { count: 3 });
  const numbers = async (length: number): Promise<number[]> => {
    const { copies } = await placed([line(length), strands], { whorl: 3, by: 'distance', distance: 0.2 });
    return [...copies!.ids];
  };
  const [short, long] = [await numbers(1), await numbers(1.6)];
  expect(new Set(short).size).toBe(short.length);
  expect(new Set(long).size).toBe(long.length);
  expect(long.length).toBeGreaterThan(short.length);
  expect(short.every((id) => long.includes(id))).toBe(true);
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
        ...{ growth: 0, id, dice: id, number: id, row: 0, position: [x, 0, 0], turn: about([0, 0, 1], 0.4), size },
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
    // Odds are shares of their sum, however small that is.
    const small = await run({ mix: 'odds', odds: '0.3 0.1' });
    expect(small.form!.copies!.item).toEqual(form!.copies!.item);
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
    scene.guides.push(newGuide('g', 'Lamp', 'point', { positionX: 0.4, positionY: 3, positionZ: 1 }));
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

test('chance turns each copy of a whorl by its own, and by no more than it may', async () => {
  const turned = async (varyTurn: number) => {
    const { copies } = await placed([line(1)], { by: 'count', count: 4, whorl: 3, facing: 'path', varyTurn });
    const side = (k: number): Vec3 => turnedBy(turnOf(copies!, k), [1, 0, 0]);
    return Array.from({ length: 12 }, (_, k) => side(k));
  };
  const [still, varied] = [await turned(0), await turned(40)];
  const by = still.map((way, k) => (Math.acos(Math.min(1, dot(way, varied[k]))) * 180) / Math.PI);
  expect(Math.max(...by)).toBeLessThanOrEqual(40.001);
  expect(new Set(by.map((angle) => angle.toFixed(2))).size).toBe(12);
});

// Fitting it to a ring is for copies that go round: what stands has the angle that is asked for.
test('an angle that goes on is kept on a closed path on which nothing moves', async () => {
  const sides = async (turns: string): Promise<Vec3[]> => {
    const ring = newStep('arc', { radius: 0.7, points: 120 });
    const { paths, copies } = await placed([ring], { by: 'count', count: 7, facing: 'path', turns });
    expect(paths!.closed[0]).toBe(1);
    return Array.from(copies!.ids, (_, k) => turnedBy(turnOf(copies!, k), [1, 0, 0]));
  };
  const [plain, turned] = [await sides('0'), await sides('+50')];
  const by = plain.map(
    (way, k) => (Math.atan2(Math.hypot(...cross(way, turned[k])), dot(way, turned[k])) * 180) / Math.PI,
  );
  [0, 50, 100, 150, 160, 110, 60].forEach((angle, k) => expect(by[k]).toBeCloseTo(angle, 2));
});

test.each([
  ['X', {}, [1, 0, 0]],
  ['Z', { which: 'box', width: 0.1, height: 0.1, depth: 0.6 }, [0, 0, 1]],
] as const)(
  'upright copies whose longest axis is %s stand straight, and head where the path leads',
  async (_, of, axis) => {
    const rising = newStep('line', { fromX: 0, fromY: 0, fromZ: 0, toX: 1, toY: 2, toZ: -0.5, points: 20 });
    const what = [newStep('solid', 'which' in of ? of : link().params)];
    const { copies } = await placed([rising], { by: 'count', count: 5, facing: 'upright' }, what);
    for (let k = 0; k < 5; k++) {
      expect(turnedBy(turnOf(copies!, k), [0, 1, 0])[1]).toBeCloseTo(1, 6);
      expect(dot(turnedBy(turnOf(copies!, k), [...axis]), unit([1, 0, -0.5]))).toBeCloseTo(1, 6);
    }
  },
);

test('lean differs from copy to copy, by no more than is said, and turns nothing else', async () => {
  const up = async (varyLean: number): Promise<number[]> => {
    const { copies } = await placed([line(3)], { by: 'count', count: 200, lean: 20, varyLean }, [
      newStep('solid', { which: 'box', width: 0.01, height: 0.05, depth: 0.01 }),
    ]);
    return Array.from(copies!.ids, (_, k) => {
      const [x] = turnedBy(turnOf(copies!, k), [0, 1, 0]);
      return (Math.acos(Math.min(1, x)) * 180) / Math.PI;
    });
  };
  for (const angle of await up(0)) expect(angle).toBeCloseTo(20, 3);
  const varied = await up(15);
  expect(Math.min(...varied)).toBeGreaterThanOrEqual(5 - 1e-3);
  expect(Math.max(...varied)).toBeLessThanOrEqual(35 + 1e-3);
  expect(Math.max(...varied) - Math.min(...varied)).toBeGreaterThan(25);
});
