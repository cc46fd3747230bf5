import fc from 'fast-check';
import { emptyForm } from '../geometry/form';
import { flaws } from '../geometry/invariants';
import { areaAndVolume, type Mesh } from '../geometry/mesh';
import { NO_PARENT, type Paths, pathsFrom } from '../geometry/paths';
import { topologyCounts } from '../geometry/topology';
import { add, scale, unit, type Vec3 } from '../geometry/vec';
import { type TubeShape } from './rings';
import { treeSkin } from './treeSkin';

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
      },
    ),
    { numRuns: 150 },
  );
});

/**
 * Edges without a neighbour or with one that runs the same way, and the Euler characteristic, by numbers alone: places that fall
 * together do not count as one.
 */
function surfaceOf({ indices }: Mesh): { open: number; flipped: number; euler: number } {
  const edges = new Set<string>();
  let flipped = 0;
  for (let i = 0; i < indices.length; i += 3)
    for (let k = 0; k < 3; k++) {
      const way = `${indices[i + k]} ${indices[i + ((k + 1) % 3)]}`;
      if (edges.has(way)) flipped++;
      edges.add(way);
    }
  let open = 0;
  for (const way of edges) if (!edges.has(way.split(' ').reverse().join(' '))) open++;
  return { open, flipped, euler: new Set(indices).size - edges.size / 2 + indices.length / 3 };
}
