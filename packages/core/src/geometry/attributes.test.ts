import { type Attribute, columnNamed, NO_NAMED } from './attributes';
import { Carrier, pickColumns } from './carrier';
import { joinColumns } from './joinColumns';
import { POINTS, type Points } from './form';
import { PATHS, pathsFrom } from './paths';
import { about, turnAt, turnedBy } from './turns';

const named = (values: number[], more: Partial<Attribute> = {}): Attribute => ({
  domain: 'point',
  width: 1,
  blend: 'mix',
  missing: 0,
  values: Float32Array.from(values),
  ...more,
});

/** Three loose points turned 0, 90 and 180 degrees about Y. */
const points = (more: Partial<Points> = {}): Points => ({
  positions: Float32Array.of(0, 0, 0, 2, 0, 0, 4, 8, 0),
  turns: Float32Array.from([0, Math.PI / 2, Math.PI].flatMap((angle) => [...about([0, 1, 0], angle)])),
  size: Float32Array.of(1, 2, 4),
  ids: Uint32Array.of(7, 3, 5),
  dice: Uint32Array.of(7, 3, 5),
  share: Float32Array.of(0, 0.5, 1),
  life: null,
  age: null,
  named: {
    mass: named([1, 2, 4], { blend: 'sum' }),
    kind: named([10, 20, 30], { blend: 'nearest' }),
    wind: named([1, 0, 0, 0, 1, 0, 0, 0, 1], { width: 3, blend: 'rotate' }),
  },
  ...more,
});

describe('carrying attributes over', () => {
  test('means of all elements at once are those of one after the other, however each goes', () => {
    const from = points();
    const sources = Uint32Array.of(0, 1, 2, 2, 0, 1, 1, 1, 0);
    // Of the last, two directions cancel each other.
    const weights = Float32Array.of(0.2, 0.3, 0.5, 0.6, 0.1, 0.3, 0, 1, 0);
    from.named.wind.values.set([0, 1, 0], 3);
    const [each, one] = [new Carrier(POINTS, from, 'point', 3), new Carrier(POINTS, from, 'point', 3)];
    each.weighEach(sources, weights, 3, 0, 2);
    each.weighEach(sources, weights, 3, 2);
    for (let k = 0; k < 3; k++) one.weigh(sources.subarray(3 * k, 3 * k + 3), weights.subarray(3 * k, 3 * k + 3), k);
    expect(each.result()).toEqual(one.result());
    const against = points({
      named: { wind: named([1, 0, 0, -1, 0, 0, 0, 0, 1], { width: 3, blend: 'rotate' }) },
    });
    const rows = new Carrier(POINTS, against, 'point', 1);
    rows.weighEach(Uint32Array.of(1, 0), Float32Array.of(0.5, 0.5), 2);
    expect([...rows.result().named.wind.values]).toEqual([-1, 0, 0]);
  });

  test('a run and a choice of elements keep every number as it is', () => {
    const rows = new Carrier(POINTS, points(), 'point', 3);
    rows.run(1, 3, 0);
    rows.pick([0], 2);
    const made = rows.result();
    expect([...made.ids!]).toEqual([3, 5, 7]);
    expect([...made.positions!]).toEqual([2, 0, 0, 4, 8, 0, 0, 0, 0]);
    expect([...made.named.kind.values]).toEqual([20, 30, 10]);
    expect([...made.named.wind.values]).toEqual([0, 1, 0, 0, 0, 1, 1, 0, 0]);
    expect(pickColumns(POINTS, points(), 'point', [2, 2]).size).toEqual(Float32Array.of(4, 4));
  });

  test('between two elements each goes as it says: evenly, to the nearer one, or turning', () => {
    const rows = new Carrier(POINTS, points(), 'point', 1);
    rows.mix(0, 1, 0.25, 0);
    const { positions, size, ids, turns, named: all } = rows.result();
    expect([...positions!]).toEqual([0.5, 0, 0]);
    expect(size![0]).toBe(1.25);
    expect(ids![0]).toBe(7);
    expect(all.kind.values[0]).toBe(10);
    expect(all.mass.values[0]).toBe(1.25);
    // Normalised linear interpolation lies in the plane of both, with length 1.
    const [x, y, z] = all.wind.values;
    expect(Math.hypot(x, y, z)).toBeCloseTo(1, 6);
    expect(y / x).toBeCloseTo(1 / 3, 6);
    expect(Math.hypot(...turns!)).toBeCloseTo(1, 6);
  });

  test('many pairs at once come to what each by itself does, to the bit', () => {
    const ends = [0, 1, 2, 1, 1, 0, 2, 2];
    const shares = [0.25, 0.7, 1 / 3, 0.5];
    const [all, each] = [new Carrier(POINTS, points(), 'point', 5), new Carrier(POINTS, points(), 'point', 5)];
    all.mixPairs(ends, 4, (pair) => shares[pair], 1);
    shares.forEach((t, e) => each.mix(ends[2 * e], ends[2 * e + 1], t, 1 + e));
    expect(all.result()).toEqual(each.result());
  });

  test('elements that come later, halfway between those put before, are what they would be in arrays of their own', () => {
    const from = points();
    const growing = new Carrier(POINTS, from, 'point', 3);
    growing.run(0, 3, 0);
    let fixed: Points = from;
    // Each round makes as many as there are, up to far beyond what there was room for.
    for (let round = 0; round < 5; round++) {
      const n = fixed.size.length;
      const ends = Uint32Array.from({ length: 2 * n }, (_, k) => (k % 2 === 0 ? k >> 1 : n - 1 - (k >> 1)));
      growing.grow(2 * n);
      growing.halfway(ends, n, n);
      const rows = new Carrier(POINTS, fixed, 'point', 2 * n);
      rows.run(0, n, 0);
      rows.mixPairs(ends, n, () => 0.5, n);
      fixed = { ...fixed, ...rows.result() };
      expect(growing.count).toBe(2 * n);
      expect(growing.result()).toEqual(rows.result());
    }
    expect([...from.size]).toEqual([1, 2, 4]);
  });

  test('small arrays lie in one piece of memory and do not run into each other; large ones stand apart', () => {
    const arrays = ({ positions, size, ids, named: { kind, wind } }: Points): (Float32Array | Uint32Array)[] => [
      positions,
      size,
      ids,
      kind.values,
      wind.values,
    ];
    const small = { ...points(), ...pickColumns(POINTS, points(), 'point', [0, 1, 2]) };
    expect(small).toEqual(points());
    expect(new Set(arrays(small).map(({ buffer }) => buffer)).size).toBe(1);
    const many = { ...points(), ...pickColumns(POINTS, points(), 'point', new Uint32Array(2000)) };
    expect(new Set(arrays(many).map(({ buffer }) => buffer)).size).toBe(arrays(many).length);
  });

  test('halfway between two turns lies half the angle, whichever sign they are held with', () => {
    for (const sign of [1, -1]) {
      const turns = points().turns.map((value, i) => (i >= 4 && i < 8 ? sign * value : value));
      const rows = new Carrier(POINTS, points({ turns }), 'point', 1);
      rows.mix(0, 1, 0.5, 0);
      const [x, y, z] = turnedBy(turnAt(rows.result().turns!, 0), [1, 0, 0]);
      // A quarter turn about Y takes X to −Z; half of it lies between.
      expect([x, y, z].map((c) => Number(c.toFixed(6)))).toEqual([0.707107, 0, -0.707107]);
    }
  });

  test('a weighted mean at the corners of a face is each corner, and in the middle their mean', () => {
    const rows = new Carrier(POINTS, points(), 'point', 2);
    rows.weigh([0, 1, 2], [0, 0, 1], 0);
    rows.weigh([0, 1, 2], [1 / 3, 1 / 3, 1 / 3], 1);
    const made = rows.result();
    expect([...made.positions!.subarray(0, 3)]).toEqual([4, 8, 0]);
    expect(made.positions![3]).toBeCloseTo(2, 6);
    expect(made.named.kind.values[0]).toBe(30);
    for (const c of made.named.wind.values.subarray(3)) expect(c).toBeCloseTo(Math.sqrt(1 / 3), 6);
  });

  test('what becomes one adds up what adds up, and is the mean of the rest', () => {
    const rows = new Carrier(POINTS, points(), 'point', 1);
    rows.merge([0, 2], 0);
    const made = rows.result();
    expect(made.named.mass.values[0]).toBe(5);
    expect([...made.positions!]).toEqual([2, 4, 0]);
    expect(made.size![0]).toBe(2.5);
    expect(made.ids![0]).toBe(7);
  });

  test('what is left behind is null, and attributes of other domains stay', () => {
    const paths = {
      ...pathsFrom([{ positions: [0, 0, 0, 1, 0, 0, 2, 0, 0] }]),
      tangents: new Float32Array(9),
      named: { heat: named([1, 2, 3]), tone: named([0.5], { domain: 'path' }) },
    };
    const made = pickColumns(PATHS, paths, 'point', [2], ['tangents']);
    expect(made.tangents).toBeNull();
    expect([...made.named.heat.values]).toEqual([3]);
    expect(made.named.tone).toBe(paths.named.tone);
    expect(columnNamed(PATHS, paths, 'heat')?.values).toBe(paths.named.heat.values);
    expect(columnNamed(PATHS, paths, 'toString')).toBeNull();
  });
});

describe('joining', () => {
  test('numbers of the second follow on, and what only one has the other has at its missing value', () => {
    const a = points({ life: Float32Array.of(0.1, 0.2, 0.3) });
    const b = points({ named: { heat: named([6, 7, 8], { missing: -1 }) } });
    const both = joinColumns(POINTS, 'point', [
      { of: a, count: 3 },
      { of: b, count: 3 },
    ]);
    expect([...both.ids!]).toEqual([7, 3, 5, 15, 11, 13]);
    expect(both.life).toEqual(Float32Array.of(0.1, 0.2, 0.3, 1, 1, 1));
    expect([...both.named.heat.values]).toEqual([-1, -1, -1, 6, 7, 8]);
    expect([...both.named.mass.values]).toEqual([1, 2, 4, 0, 0, 0]);
    expect(both.age).toBeNull();
  });

  test('two attributes of one name and different widths do not run into each other', () => {
    const both = joinColumns(POINTS, 'point', [
      { of: points({ named: { heat: named([1, 2, 3]) } }), count: 3 },
      { of: points({ named: { heat: named([1, 2, 3, 4, 5, 6], { width: 2 }) } }), count: 3 },
    ]);
    expect([...both.named.heat.values]).toEqual([1, 2, 3, 0, 0, 0]);
  });

  test('nothing joined is nothing', () => {
    const none = joinColumns(POINTS, 'point', [{ of: points({ named: NO_NAMED }), count: 0 }]);
    expect(none.positions!.length).toBe(0);
  });
});
