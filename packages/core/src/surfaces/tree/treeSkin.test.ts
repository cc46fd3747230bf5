import fc from 'fast-check';
import { emptyForm } from '../../geometry/form';
import { flaws } from '../../geometry/invariants';
import { areaAndVolume, type Mesh } from '../../geometry/mesh';
import { NO_PARENT, type Paths, pathsFrom } from '../../geometry/paths';
import { topologyCounts } from '../../geometry/topology/topology';
import { add, scale, unit, type Vec3 } from '../../geometry/vec';
import { withFrames } from '../../curves/pathFrames';
import { cornerNormals } from './cornerNormals';
import { limbsOf } from './limbs';
import type { TubeShape } from '../sweep/rings';
import { sharedIndices } from '../sweep/sharedIndices';
import { surfaceOf } from '../../../test/surfaces';
import { treeSkin } from './treeSkin';
import { whorlsOf } from './whorls';

const shape = (more: Partial<TubeShape> = {}): TubeShape => ({
  radius: 0.1,
  along: () => 1,
  follows: 'whole',
  swell: 0,
  sides: 12,
  start: 'round',
  end: 'round',
  ...more,
});

interface Branch {
  /** Place of its parent in the list, with where it holds on. */
  on?: [parent: number, at: number];
  /** Where the first one begins. */
  from?: Vec3;
  way: Vec3;
  length: number;
  points?: number;
  size?: number;
}

/** Straight branches, each on the one it names. */
function tree(branches: readonly Branch[]): Paths {
  const bases: Vec3[] = [];
  const sources = branches.map(({ on, from, way, length, points = 9, size = 1 }, k) => {
    const direction = unit(way);
    const parent = on && branches[on[0]];
    bases[k] = parent ? add(bases[on[0]], scale(unit(parent.way), on[1] * parent.length)) : (from ?? [0, 0, 0]);
    const positions = Array.from({ length: points }, (_, i) =>
      add(bases[k], scale(direction, (length * i) / (points - 1))),
    ).flat();
    return { positions, size: new Float64Array(points).fill(size) };
  });
  return {
    ...pathsFrom(sources),
    parent: Uint32Array.from(branches, ({ on }) => (on ? on[0] : NO_PARENT)),
    attach: Float32Array.from(branches, ({ on }) => on?.[1] ?? 0),
  };
}

const stem: Branch = { way: [0, 1, 0], length: 2, points: 21 };
const closed = (mesh: Mesh, trees = 1) => {
  expect(flaws({ ...emptyForm(), mesh })).toEqual([]);
  expect(topologyCounts(mesh)).toMatchObject({ openEdges: 0, flippedEdges: 0, euler: 2 * trees });
};

test('a stem and a branch are one closed surface: Euler characteristic 2, facing outwards', async () => {
  const mesh = await treeSkin(tree([stem, { on: [0, 0.5], way: [1, 0.5, 0], length: 1 }]), shape(), 0.5);
  closed(mesh);
  expect(areaAndVolume(mesh).volume).toBeGreaterThan(0);
});

/** Any trees: each branch on one before it. */
const trees = fc
  .array(
    fc.record({
      on: fc.double({ min: 0, max: 0.999, noNaN: true }),
      at: fc.oneof(fc.double({ min: 0, max: 1, noNaN: true }), fc.constantFrom(0, 0.25, 0.5, 1)),
      way: fc.tuple(...[0, 1, 2].map(() => fc.double({ min: -1, max: 1, noNaN: true }))),
      length: fc.double({ min: 0.001, max: 1.5, noNaN: true }),
      points: fc.integer({ min: 2, max: 12 }),
      size: fc.double({ min: 0, max: 3, noNaN: true }),
    }),
    { minLength: 0, maxLength: 14 },
  )
  .map((list) =>
    tree([
      stem,
      ...list.map(({ on, at, way: [x, y, z], ...rest }, k): Branch => ({
        on: [Math.floor(on * (k + 1)), at],
        way: Math.hypot(x, y, z) > 0.1 ? [x, y, z] : [0, 0, 1],
        ...rest,
      })),
    ]),
  );

test('whatever branches from whatever, at whatever thickness: one closed surface by its numbers alone', async () => {
  await fc.assert(
    fc.asyncProperty(
      trees,
      fc.integer({ min: 3, max: 20 }),
      fc.double({ min: 0, max: 2, noNaN: true }),
      async (paths, sides, collar) => {
        const mesh = await treeSkin(paths, shape({ sides }), collar);
        expect(flaws({ ...emptyForm(), mesh })).toEqual([]);
        expect(surfaceOf(mesh)).toEqual({ open: 0, flipped: 0, euler: 2 });
        expect(new Set(mesh.indices).size).toBe(mesh.positions.length / 3);
      },
    ),
    { numRuns: 80 },
  );
});

describe('thickness', () => {
  const branches: Branch[] = [
    stem,
    { on: [0, 0.3], way: [1, 0.4, 0], length: 1 },
    { on: [0, 0.3], way: [-1, 0.6, 0.2], length: 0.8, size: 0.6 },
    { on: [0, 0.6], way: [0.2, 0.5, 1], length: 0.9, size: 0.4 },
    { on: [1, 0.5], way: [0.3, 1, 0.4], length: 0.5, size: 0.3 },
    { on: [0, 1], way: [0.3, 1, 0], length: 0.7, size: 0.8 },
    { on: [0, 1], way: [-1, 1, 0.4], length: 0.6, size: 0.5 },
  ];

  test('changes no numbering: the very same array of faces at any', async () => {
    const paths = tree(branches);
    const { indices } = await treeSkin(paths, shape(), 0.5);
    for (const radius of [0, 0.01, 0.15, 0.4]) {
      const other = await treeSkin(paths, shape({ radius }), 0.9);
      expect(other.indices).toBe(indices);
      expect(flaws({ ...emptyForm(), mesh: other })).toEqual([]);
    }
  });

  test('of a stem alone is that of a cylinder: its polygon times its length', async () => {
    const mesh = await treeSkin(tree([stem]), shape({ start: 'flat', end: 'flat' }), 0.5);
    closed(mesh);
    // Area of a regular polygon of n corners within a circle: n r² sin(2π/n) / 2 (Bronshtein and Semendyayev).
    expect(areaAndVolume(mesh).volume).toBeCloseTo(2 * 6 * 0.01 * Math.sin(Math.PI / 6), 5);
  });

  test('of a branch is added to the stem from its skin on, and its collar besides', async () => {
    const on: [number, number] = [0, 0.5];
    const volume = async (list: Branch[], collar: number) =>
      areaAndVolume(await treeSkin(tree(list), shape({ sides: 48, end: 'flat' }), collar)).volume;
    const alone = await volume([stem], 0);
    const thin: Branch = { on, way: [1, 0, 0], length: 1, size: 0.1, points: 41 };
    const added = (await volume([stem, thin], 0)) - alone;
    const free = 24 * 0.01 ** 2 * Math.sin(Math.PI / 24) * 0.9;
    expect(added / free).toBeGreaterThan(0.94);
    expect(added / free).toBeLessThan(1.05);
    // The fillet all round: what is left of a square of the collar's width outside its circle, once round (Pappus).
    const width = 0.5 * 0.01;
    const fillet = (1 - Math.PI / 4) * width ** 2 * 2 * Math.PI * (0.01 + width * 0.22);
    const more = (await volume([stem, thin], 0.5)) - alone - added;
    expect(more / fillet).toBeGreaterThan(0.85);
    expect(more / fillet).toBeLessThan(1.15);
  });
});

test('a branch comes out of the skin without a jump, from nothing', async () => {
  let before = NaN;
  let least = Infinity;
  for (let length = 0.001; length < 0.4; length += 0.004) {
    const paths = tree([stem, { on: [0, 0.5], way: [1, 0.3, 0], length, size: 0.5 }]);
    const { volume } = areaAndVolume(await treeSkin(paths, shape(), 0.5));
    least = Math.min(least, volume);
    // A piece of the branch so long, with its collar.
    if (length > 0.002) expect(Math.abs(volume - before)).toBeLessThan(4 * 0.004 * Math.PI * 0.05 ** 2 + 1e-6);
    before = volume;
  }
  const { volume } = areaAndVolume(await treeSkin(tree([stem]), shape(), 0.5));
  expect(least / volume).toBeGreaterThan(0.985);
});

test('everything lies near its path: no vertex further off than its thickness and a collar', async () => {
  await fc.assert(
    fc.asyncProperty(trees, async (paths) => {
      const mesh = await treeSkin(paths, shape(), 0.5);
      const { positions: p } = paths;
      let furthest = 0;
      for (let v = 0; v < mesh.positions.length; v += 3) {
        let nearest = Infinity;
        for (let k = 0; k + 1 < paths.s.length; k++) {
          const [a, b] = [3 * k, 3 * (k + 1)];
          const way = [0, 1, 2].map((c) => p[b + c] - p[a + c]);
          const from = [0, 1, 2].map((c) => mesh.positions[v + c] - p[a + c]);
          const along = way[0] * from[0] + way[1] * from[1] + way[2] * from[2];
          const t = Math.min(1, Math.max(0, along / (way[0] ** 2 + way[1] ** 2 + way[2] ** 2 || 1)));
          nearest = Math.min(nearest, Math.hypot(...[0, 1, 2].map((c) => from[c] - t * way[c])));
        }
        furthest = Math.max(furthest, nearest);
      }
      expect(furthest).toBeLessThan(0.1 * 3 * 1.5 + 0.05);
    }),
    { numRuns: 20 },
  );
});

test('what points know goes over to the skin; parts tell whose each vertex is', async () => {
  const paths = tree([stem, { on: [0, 0.5], way: [1, 0.2, 0], length: 1 }]);
  const named = {
    height: {
      domain: 'point',
      width: 1,
      blend: 'mix',
      missing: 0,
      values: paths.positions.filter((_, i) => i % 3 === 1),
    },
    order: { domain: 'path', width: 1, blend: 'nearest', missing: 0, values: Float32Array.of(7, 9) },
  } as const;
  const mesh = await treeSkin({ ...paths, named }, shape({ radius: 0.001 }), 0);
  expect([...mesh.named.order.values]).toEqual([7, 9]);
  expect([...mesh.parts!].filter((_, k) => k % 2 === 1)).toEqual([0, 1]);
  for (let v = 0; v < mesh.positions.length / 3; v++)
    expect(Math.abs(mesh.named.height.values[v] - mesh.positions[3 * v + 1])).toBeLessThan(0.004);
});

/** Distance of a vertex from the stem's axis, metres. */
const fromAxis = ({ positions }: Mesh, v: number): number => Math.hypot(positions[3 * v], positions[3 * v + 2]);

test('what has not come through yet lies flat in the skin, and all that it carries with it', async () => {
  const paths = tree([
    stem,
    { on: [0, 0.5], way: [1, 0.3, 0], length: 0.06, size: 0.5 },
    { on: [1, 0.5], way: [0, 1, 0.4], length: 0.05, size: 0.3 },
  ]);
  const mesh = await treeSkin(paths, shape(), 0.5);
  for (let v = mesh.parts![2]; v < mesh.positions.length / 3; v++) {
    expect(fromAxis(mesh, v)).toBeGreaterThan(0.096);
    expect(fromAxis(mesh, v)).toBeLessThan(0.101);
  }
});

test('where several begin at a tip, the one that goes straightest on is the same tube', async () => {
  const fork = (ways: Vec3[]) => tree([stem, ...ways.map((way): Branch => ({ on: [0, 1], way, length: 1 }))]);
  const order = async (paths: Paths) => [...(await treeSkin(paths, shape(), 0.5)).parts!].filter((_, k) => k % 2 === 1);
  const [aside, ahead]: Vec3[] = [
    [1, 0.5, 0],
    [-0.2, 1, 0],
  ];
  expect(await order(fork([aside, ahead]))).toEqual([0, 2, 1]);
  expect(await order(fork([ahead, aside]))).toEqual([0, 1, 2]);
});

test('a tapering stem is as thick between its points as its taper says, whatever rows joints put there', async () => {
  const paths = tree([stem, { on: [0, 0.52], way: [1, 0, 0], length: 1, size: 0.1 }]);
  for (let i = 0; i < stem.points!; i++) paths.size[i] = 1 - 0.04 * i;
  const mesh = await treeSkin(paths, shape({ start: 'open', end: 'open' }), 0);
  for (let v = 0; v < mesh.parts![2]; v++)
    expect(fromAxis(mesh, v)).toBeCloseTo(0.1 * (1 - 0.4 * mesh.positions[3 * v + 1]), 5);
});

test('what comes out at one place stands abreast where there is room, else in rows of its own', async () => {
  const around = async (count: number) => {
    const ways = Array.from({ length: count }, (_, k) => 0.3 + (2 * Math.PI * k) / count);
    const abreast = ways.map((a): Branch => ({ on: [0, 0.5], way: [Math.cos(a), 0, Math.sin(a)], length: 1 }));
    return whorlsOf((await limbsOf(withFrames(tree([stem, ...abreast])), shape()))[0], 12);
  };
  expect((await around(4)).map(({ sprouts }) => sprouts.length)).toEqual([2, 2]);
  const [{ sprouts }, ...more] = await around(3);
  expect([sprouts.length, more.length]).toEqual([3, 0]);
  const columns = sprouts.map(({ column }) => column);
  for (const [k, column] of columns.entries())
    expect((columns[(k + 1) % 3] + 12 - column) % 12).toBeGreaterThanOrEqual(3);
});

// Max (1999): on a sphere the weighted normals are the radii, whatever its faces are like.
test('normals of corners on a sphere are exactly its radii', async () => {
  const points = [
    [1, 0, 0],
    [0.1, 0.9, 0.3],
    [-0.4, -0.2, 0.9],
    [-0.5, 0.1, -0.8],
    [0.2, -0.95, 0.1],
  ].map(([x, y, z]) => unit([x, y, z]));
  // Two tetrahedra on either side of a face: convex or not, all corners lie on the sphere.
  const indices = Uint32Array.from([0, 1, 2, 0, 3, 1, 1, 3, 2, 0, 2, 4, 2, 3, 4, 3, 0, 4]);
  const normals = await cornerNormals(Float32Array.from(points.flat()), indices, new Float32Array(15));
  points.forEach((point, k) => point.forEach((x, c) => expect(normals[3 * k + c]).toBeCloseTo(x, 5)));
});

test('indices that differ where no sample looks are not taken for the same', () => {
  const one = new Uint32Array(100_000).fill(3);
  const other = one.slice();
  other[5] = 4;
  expect(sharedIndices(one)).toBe(one);
  expect(sharedIndices(other)).toBe(other);
  expect(sharedIndices(other.slice())).toBe(other);
});
