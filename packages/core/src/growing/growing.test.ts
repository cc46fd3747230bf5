import fc from 'fast-check';
import { random } from '../fields/random';
import { at, distance, type Vec3 } from '../geometry/vec';
import { type Frilling, frilling } from './frill';
import { KeepApart } from './keepApart';
import { History } from './simulationHistory';
import { Neighbours } from '../geometry/search/spatialHash';
import { type Ruffling, ruffling } from './ruffle';

const yieldNow = (): Promise<void> => Promise.resolve();
const ring = (radius: number, points: number): Vec3[] =>
  Array.from({ length: points }, (_, k) => {
    const angle = (-2 * Math.PI * k) / points;
    return [radius * Math.cos(angle), 0, radius * Math.sin(angle)];
  });
const line = (change: Partial<Ruffling> = {}): Ruffling => ({
  lines: [{ positions: ring(0.2, 48), closed: true }],
  factor: 6,
  steps: 60,
  spacing: 0.026,
  apart: 0.08,
  stiffness: 0.5,
  uneven: 0.5,
  seed: 4,
  held: true,
  keep: (positions, i) => void (positions[3 * i + 1] = 0),
  ...change,
});
const lengthOf = (positions: Float64Array, first: number, end: number, closed: boolean): number => {
  let sum = 0;
  for (let i = first; i < (closed ? end : end - 1); i++)
    sum += distance(at(positions, i), at(positions, i + 1 < end ? i + 1 : first));
  return sum;
};

test('pairs within a distance are those that asking all of each other finds', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 120 }),
      fc.integer(),
      fc.double({ min: 0.02, max: 0.6 }),
      (n, seed, reach) => {
        const positions = Float64Array.from({ length: 3 * n }, (_, i) => 2 * random(seed, i) - 1);
        const neighbours = new Neighbours(reach);
        neighbours.put(positions, n);
        const count = neighbours.pairs(positions, n);
        const found = Array.from({ length: count }, (_, k) => `${neighbours.later[k]} ${neighbours.earlier[k]}`);
        const all: string[] = [];
        for (let i = 0; i < n; i++)
          for (let j = 0; j < i; j++) if (distance(at(positions, i), at(positions, j)) < reach) all.push(`${i} ${j}`);
        expect(found.sort()).toEqual(all.sort());
      },
    ),
    { numRuns: 60 },
  );
});

test('a state is the same whether come to step by step or at once, and however few are kept', async () => {
  const steadily = new History(ruffling(line()));
  for (const step of [3, 17, 18, 40]) await steadily.at(step, yieldNow);
  const once = await new History(ruffling(line())).at(40, yieldNow);
  const back = await steadily.at(17, yieldNow);
  const poor = new History(ruffling(line()), 60_000);
  await poor.at(40, yieldNow);
  expect((await steadily.at(40, yieldNow)).positions).toEqual(once.positions);
  expect((await poor.at(17, yieldNow)).positions).toEqual(back.positions);
  expect(poor.bytes).toBeLessThan(60_000);
});

test('a ruffled line gets longer by as much in each step, and comes to as long as it is asked to', async () => {
  const history = new History(ruffling(line()));
  const begun = 2 * Math.PI * 0.2;
  // At first it is too short to bend: it gives way, and catches up.
  for (const [step, least] of [
    [15, 0.12],
    [30, 0.05],
    [45, 0.05],
    [60, 0.03],
  ]) {
    const { positions, offsets } = await history.at(step, yieldNow);
    const expected = begun * (1 + (5 * step) / 60);
    expect(Math.abs(lengthOf(positions, 0, offsets[1], true) / expected - 1)).toBeLessThan(least);
  }
});

test('parts that come to lie beside each other keep apart, no edge is long, and all stays in its plane', async () => {
  const { positions, offsets } = await new History(ruffling(line())).at(60, yieldNow);
  const n = offsets[1];
  const arcs = [0];
  for (let i = 1; i < n; i++) arcs.push(arcs[i - 1] + distance(at(positions, i), at(positions, i - 1)));
  const whole = lengthOf(positions, 0, n, true);
  let nearest = Infinity;
  for (let i = 0; i < n; i++) {
    expect(positions[3 * i + 1]).toBe(0);
    expect(distance(at(positions, i), at(positions, (i + 1) % n))).toBeLessThan(2 * 0.026);
    for (let j = 0; j < i; j++) {
      const along = Math.min(arcs[i] - arcs[j], whole - arcs[i] + arcs[j]);
      if (along > 3 * 0.08) nearest = Math.min(nearest, distance(at(positions, i), at(positions, j)));
    }
  }
  expect(nearest).toBeGreaterThan(0.7 * 0.08);
});

test('the ends of an open line stay, and between two steps nothing jumps', async () => {
  const lines = [{ positions: [[-0.5, 0, 0] as const, [0.5, 0, 0] as const], closed: false }];
  const history = new History(ruffling(line({ lines })));
  const first = await history.at(0, yieldNow);
  let state = first;
  for (let step = 1; step <= 30; step++) {
    const next = await history.at(step, yieldNow);
    // Where a step begins is where the one before ended, with new points on the edges that they divide.
    const old = new Set(Array.from({ length: state.born.length }, (_, i) => at(state.positions, i).join()));
    const there = Array.from({ length: next.born.length }, (_, i) => at(next.before, i).join());
    expect(there.filter((place, i) => next.born[i] < step && !old.has(place))).toEqual([]);
    for (const [i, k] of [
      [0, 0],
      [next.born.length - 1, first.born.length - 1],
    ])
      expect(distance(at(next.positions, i), at(first.positions, k))).toBeLessThan(1e-12);
    state = next;
  }
});

const frill = (change: Partial<Frilling> = {}): Frilling => ({
  base: ring(0.25, 80),
  closed: true,
  rows: 12,
  height: 0.4,
  ruffle: 3.5,
  rim: 2,
  open: 0.6,
  upright: 0.5,
  fold: 0.14,
  apart: 0.03,
  steps: 40,
  seed: 2,
  ...change,
});

test('where its rim is as long as a cone is wide there, a frill is that cone', async () => {
  const open = 0.7;
  const [below, above] = [0.25, 0.25 + 0.4 * Math.sin(open)];
  const given = frill({ open, ruffle: above / below, rim: 1, upright: 1 });
  const { positions } = await new History(frilling(given)).at(40, yieldNow);
  const rim = positions.slice(3 * 80 * 11);
  const radii = Array.from({ length: 80 }, (_, i) => Math.hypot(rim[3 * i], rim[3 * i + 2]));
  const heights = Array.from({ length: 80 }, (_, i) => rim[3 * i + 1]);
  const mean = (of: number[]): number => of.reduce((sum, x) => sum + x, 0) / of.length;
  expect(Math.abs(mean(radii) - above)).toBeLessThan(0.015);
  expect(Math.abs(mean(heights) - 0.4 * Math.cos(open))).toBeLessThan(0.035);
  for (const radius of radii) expect(Math.abs(radius - above)).toBeLessThan(0.05);
  // Mensuration of the frustum: π (r + R) times the slant height.
  let area = 0;
  for (let j = 0; j < 11; j++)
    for (let i = 0; i < 80; i++) {
      const corner = (di: number, dj: number): Vec3 => at(positions, (j + dj) * 80 + ((i + di) % 80));
      const [a, b, c, d] = [corner(0, 0), corner(1, 0), corner(1, 1), corner(0, 1)];
      for (const [p, q, r] of [
        [a, b, c],
        [a, c, d],
      ]) {
        const [u, v] = [q.map((value, k) => value - p[k]), r.map((value, k) => value - p[k])];
        area += Math.hypot(u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]) / 2;
      }
    }
  expect(Math.abs(area / (Math.PI * (below + above) * 0.4) - 1)).toBeLessThan(0.06);
});

test('its rows come to the lengths they are asked for, its base stays, and its folds are no narrower than asked', async () => {
  const given = frill();
  const { positions } = await new History(frilling(given)).at(40, yieldNow);
  expect([...positions.subarray(0, 240)]).toEqual(given.base.flat().map((x) => x + 0));
  const base = lengthOf(positions, 0, 80, true);
  for (const row of [6, 9, 11]) {
    const stretch = 1 + 2.5 * (row / 11) ** 2;
    expect(Math.abs(lengthOf(positions, 80 * row, 80 * row + 80, true) / (base * stretch) - 1)).toBeLessThan(0.1);
  }
  // A sheet as wide as that cannot lie flat: its rim rises and falls.
  const heights = Array.from({ length: 80 }, (_, i) => positions[3 * (880 + i) + 1]);
  const turns = heights.filter((h, i) => (h - heights[(i + 79) % 80]) * (heights[(i + 1) % 80] - h) < 0).length;
  expect(turns).toBeGreaterThan(6);
  expect(turns / 2).toBeLessThan((base * 3.5) / 0.14);
});

test('points are kept apart from all that come near, also when they have moved far since pairs were listed', () => {
  const apart = 0.1;
  const n = 200;
  const keepApart = new KeepApart(apart);
  const positions = Float64Array.from({ length: 3 * n }, (_, i) => random(4, i));
  const near = (i: number, j: number): boolean => i - j === 1;
  keepApart.begin(positions, n, near);
  for (let round = 0; round < 12; round++) {
    // Moves of all sizes: a few need a new list, most do not.
    const far = [0.001, 0.004, 0.3][round % 3];
    for (let i = 0; i < 3 * n; i++) positions[i] += far * (random(5 + round, i) - 0.5);
    const moves = keepApart.moves(positions, n).slice(0, 3 * n);
    const expected = new Float64Array(3 * n);
    const pushes = new Uint32Array(n);
    for (let i = 0; i < n; i++)
      for (let j = 0; j < i; j++) {
        const way = [0, 1, 2].map((c) => positions[3 * i + c] - positions[3 * j + c]);
        const gap = Math.hypot(...way);
        if (near(i, j) || gap >= apart) continue;
        for (let c = 0; c < 3; c++) {
          expected[3 * i + c] += (0.5 * (apart - gap) * way[c]) / gap;
          expected[3 * j + c] -= (0.5 * (apart - gap) * way[c]) / gap;
        }
        pushes[i]++;
        pushes[j]++;
      }
    expected.forEach((move, k) => {
      const most = pushes[Math.floor(k / 3)];
      expect(moves[k]).toBeCloseTo((0.5 * move * Math.min(most, 2)) / Math.max(1, most), 12);
    });
  }
  expect(keepApart.lists).toBeLessThan(10);
});
