import { readRules } from '../packages/core/src/curves/rules/parse';
import { rewrite } from '../packages/core/src/curves/rules/expand';
import { drawn } from '../packages/core/src/curves/rules/turtle';
import { CatmullRomCurve3, TubeGeometry, Vector3 } from 'three';
import { pipeSizes } from '../packages/core/src/geometry/branches';
import { NO_PARENT, type Paths, pathsFrom, pointCount } from '../packages/core/src/geometry/paths';
import { at, type Vec3 } from '../packages/core/src/geometry/vec';
import { gabrielLinks, nearestLinks, shortestTree } from '../packages/core/src/curves/web/links';
import { treeSkin } from '../packages/core/src/surfaces/tree/treeSkin';
import { coloniseSpace } from '../packages/core/src/curves/colonise';
import { random } from '../packages/core/src/fields/random';
import { History } from '../packages/core/src/growing/simulationHistory';
import { Neighbours } from '../packages/core/src/geometry/search/spatialHash';
import { ruffling } from '../packages/core/src/growing/ruffle';
import { exponent, median, type Row } from './harness';

const system = readRules('A(1)', 'A(x) -> F(x)[+A(x * 0.7)]F(x)[-A(x * 0.7)]/A(x * 0.8)');
const length = (): number => 1;
const grow = (generations: number): ReturnType<typeof rewrite> =>
  rewrite(system, { generations, seed: 1, most: 1_000_000, length, growing: 1 });
const draw = (symbols: Awaited<ReturnType<typeof grow>>, age: number): ReturnType<typeof drawn> =>
  drawn(symbols, {
    age,
    growing: 1,
    length,
    angle: 0.5,
    vary: 0,
    thinner: 0.7,
    rising: 0.2,
    marks: new Set(),
    seed: 1,
  });

const idle = (): Promise<void> => Promise.resolve();
const cloud = (n: number): Float32Array => Float32Array.from({ length: 3 * n }, (_, i) => 2 * random(5, i) - 1);
const NODES = [1500, 3000, 6000] as const;
const nodes = (n: number): Vec3[] => {
  const all = cloud(n);
  return Array.from({ length: n }, (_, k) => at(all, k));
};
/** As dense whatever there is of them. */
const colonise = (n: number): ReturnType<typeof coloniseSpace> => {
  const size = (n / 20_000) ** (1 / 3);
  return coloniseSpace({
    attractors: cloud(n).map((x) => size * x),
    roots: [[0, -size, 0]],
    reach: 0.25,
    reached: 0.06,
    step: 0.03,
    bias: [0, 1, 0],
    leaning: 0,
    most: 400_000,
  });
};
/** A ring that gets ten times as long, about a tenth of a spacing a step. */
const ruffle = (points: number): Promise<unknown> => {
  const ring = Array.from({ length: points / 10 }, (_, k) => {
    const angle = (20 * Math.PI * k) / points;
    const radius = (0.03 * points) / 20 / Math.PI;
    return [radius * Math.cos(angle), 0, radius * Math.sin(angle)] as const;
  });
  return new History(
    ruffling({
      lines: [{ positions: ring, closed: true }],
      factor: 10,
      steps: 60,
      spacing: 0.03,
      apart: 0.08,
      stiffness: 0.5,
      uneven: 0.5,
      seed: 1,
      held: true,
      keep: (positions, i) => void (positions[3 * i + 1] = 0),
    }),
  ).at(60, idle);
};
/** Pairs of points nearer than a distance at which each has about ten. */
const pairs = (n: number): number => {
  const neighbours = new Neighbours((18 / n) ** (1 / 3));
  const places = Float64Array.from(cloud(n));
  neighbours.put(places, n);
  return neighbours.pairs(places, n);
};

const POINTS = 60;
/** Branches of 60 points, each carrying three shorter ones. */
function tree(branches: number): Paths {
  const lines: { positions: number[]; length: number }[] = [];
  const [parent, attach] = [new Uint32Array(branches), new Float32Array(branches)];
  for (let k = 0; k < branches; k++) {
    const on = k > 0 ? lines[Math.floor((k - 1) / 3)] : null;
    const joint = Math.round((0.3 + 0.2 * ((k - 1) % 3)) * (POINTS - 1));
    const base = on ? at(on.positions, joint) : [0, 0, 0];
    const way = on ? [Math.cos(2.4 * k), 0.6, Math.sin(2.4 * k)] : [0, 1, 0];
    const length = on ? 0.7 * on.length : 2;
    const wavy = (i: number, c: number): number => 0.02 * (Math.sin(0.3 * i + c + k) - Math.sin(c + k));
    lines.push({
      length,
      positions: Array.from({ length: 3 * POINTS }, (_, i) => {
        const [point, c] = [Math.floor(i / 3), i % 3];
        return base[c] + (way[c] * length * point) / POINTS + wavy(point, c);
      }),
    });
    parent[k] = on ? Math.floor((k - 1) / 3) : NO_PARENT;
    attach[k] = on ? joint / (POINTS - 1) : 0;
  }
  return { ...pathsFrom(lines), parent, attach };
}
const TUBE = {
  radius: 0.01,
  along: () => 1,
  follows: 'whole',
  swell: 0,
  sides: 12,
  start: 'round',
  end: 'round',
} as const;
const curvesOf = ({ positions, offsets }: Paths): CatmullRomCurve3[] =>
  Array.from(
    { length: offsets.length - 1 },
    (_, p) =>
      new CatmullRomCurve3(Array.from({ length: POINTS }, (_, i) => new Vector3(...at(positions, offsets[p] + i)))),
  );

/** Branching rules worked and drawn, and what their branches carry. */
export async function benchBranching(): Promise<Row[]> {
  const symbols = await grow(8);
  const paths = draw(symbols, 8).paths!;
  const branched = tree(1000);
  const curves = curvesOf(branched);
  return [
    {
      what: 'branching rules worked through 8 generations',
      ours: await median(() => grow(8), 5),
      theirs: null,
      amount: symbols.letters.length,
      unit: 'symbols',
    },
    {
      what: 'the same drawn, as at every frame',
      ours: await median(() => draw(symbols, 7.5), 7),
      theirs: null,
      amount: symbols.letters.length,
      unit: 'symbols',
    },
    {
      what: 'what its branches carry',
      ours: await median(() => pipeSizes(paths, { exponent: 2.4, tip: 0.2, over: 0.2, flare: 0.1 }), 7),
      theirs: null,
      amount: pointCount(paths),
      unit: 'points',
    },
    {
      what: '1,000 branches of 60 points in one closed skin, beside three TubeGeometry one by one',
      ours: await median(() => treeSkin(branched, TUBE, 0.5), 5),
      theirs: await median(
        () => curves.map((curve) => new TubeGeometry(curve, POINTS - 1, TUBE.radius, TUBE.sides)),
        5,
      ),
      amount: pointCount(branched),
      unit: 'points',
    },
    {
      what: 'space colonised, 20,000 places',
      ours: await median(() => colonise(20_000), 3),
      theirs: null,
      amount: 20_000,
      unit: 'places',
    },
    {
      what: 'a ruffled line that comes to 3,000 points',
      ours: await median(() => ruffle(3000), 3),
      theirs: null,
      amount: 3000,
      unit: 'points',
    },
  ];
}

/** What the cost of branching grows with: each generation has three times the symbols of the one before. */
export const branchingExponents = async (): Promise<(readonly [string, number])[]> => [
  [
    'branching rules, symbols',
    await exponent([3 ** 5, 3 ** 6, 3 ** 7, 3 ** 8], (n) =>
      median(() => grow(Math.round(Math.log(n) / Math.log(3))), 3),
    ),
  ],
  ['space colonised, places', await exponent([2500, 5000, 10_000, 20_000], (n) => median(() => colonise(n), 3))],
  [
    'skins of trees, branches',
    await exponent([250, 500, 1000, 2000], (n) => {
      const paths = tree(n);
      return median(() => treeSkin(paths, TUBE, 0.5), 3);
    }),
  ],
  ['webs by nearness, nodes', await exponent(NODES, (n) => median(() => nearestLinks(nodes(n), 4, Infinity, idle), 3))],
  ['webs by the shortest tree, nodes', await exponent(NODES, (n) => median(() => shortestTree(nodes(n), idle), 3))],
  [
    'webs with none between, nodes',
    await exponent(NODES, (n) => median(() => gabrielLinks(nodes(n), Infinity, idle), 3)),
  ],
  ['pairs within a distance, points', await exponent([5000, 10_000, 20_000, 40_000], (n) => median(() => pairs(n), 3))],
];
