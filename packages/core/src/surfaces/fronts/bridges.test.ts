import { type Mesh, meshWith } from '../../geometry/mesh';
import { nearestOnFace } from '../../geometry/search/triangles';
import { topologyOf } from '../../geometry/topology/topology';
import { at, distance, type Vec3 } from '../../geometry/vec';
import { type Bridges, bridgesOf } from './bridges';
import { ball, box } from '../make/solids';
import { distancesAlong } from './wavefront';

const yieldNow = () => Promise.resolve();
type Piece = Pick<Mesh, 'positions' | 'indices'>;

/** A level sheet of so many squares each way, with or without a hole in its middle. */
function sheet(x: number, y: number, z: number, { n = 4, cell = 0.1, hole = 0 } = {}): Piece {
  const positions: number[] = [];
  const indices: number[] = [];
  for (let i = 0; i <= n; i++) for (let j = 0; j <= n; j++) positions.push(x + cell * i, y, z + cell * j);
  const inHole = (i: number): boolean => Math.abs(i + 0.5 - n / 2) < hole / 2;
  for (let i = 0; i < n; i++)
    for (let j = 0; j < n; j++) {
      if (inHole(i) && inHole(j)) continue;
      const a = (n + 1) * i + j;
      indices.push(a, a + 1, a + n + 1, a + 1, a + n + 2, a + n + 1);
    }
  return { positions: Float32Array.from(positions), indices: Uint32Array.from(indices) };
}

function together(...parts: Piece[]): Mesh {
  const positions = parts.flatMap((part) => [...part.positions]);
  let first = 0;
  const indices = parts.flatMap((part) => {
    const own = Array.from(part.indices, (i) => i + first);
    first += part.positions.length / 3;
    return own;
  });
  return meshWith({
    positions: Float32Array.from(positions),
    normals: new Float32Array(positions.length),
    uvs: new Float32Array((2 * positions.length) / 3),
    indices: Uint32Array.from(indices),
  });
}

async function bridges(mesh: Mesh, gap: number): Promise<Bridges & { p: Float64Array }> {
  const topology = topologyOf(mesh);
  const p = new Float64Array(3 * topology.weld.first.length);
  topology.weld.first.forEach((vertex, i) => p.set(at(mesh.positions, vertex), 3 * i));
  return { ...(await bridgesOf(mesh, topology, p, gap, yieldNow)), p };
}

const moved = ({ positions, indices }: Piece, [x, y, z]: Vec3): Piece => ({
  positions: positions.map((value, i) => value + [x, y, z][i % 3]),
  indices,
});

/** Distances from the vertex nearest to a point, by vertex. */
async function from(mesh: Mesh, start: Vec3, gap: number): Promise<(place: Vec3) => number> {
  const { weld } = topologyOf(mesh);
  const places = [...weld.first].map((vertex) => at(mesh.positions, vertex));
  const nearest = (place: Vec3): number =>
    places.reduce((best, one, i) => (distance(one, place) < distance(places[best], place) ? i : best), 0);
  const none = { faces: new Uint32Array(0), weights: new Float32Array(0) } as never;
  const found = await distancesAlong(mesh, { places: none, reached: [[nearest(start), 0]] }, { gap }, yieldNow);
  return (place) => found[nearest(place)];
}

describe('ways over gaps', () => {
  const apart = together(sheet(0, 0, 0), sheet(0.03, 0.25, 0.01), sheet(5, 0, 0));

  test.each([0.05, 0.26, 0.4, 3, 100])(
    'lead from every place to the nearest point of every part, at most %d m',
    async (gap) => {
      const { places, corners, lengths, p } = await bridges(apart, gap);
      const wanted: string[] = [];
      for (let i = 0; i < p.length / 3; i++)
        for (let part = 0; part < 3; part++) {
          if (Math.floor(i / 25) === part) continue;
          // By every face: the longer way round that needs no tree.
          let best = Infinity;
          for (let f = 32 * part; f < 32 * part + 32; f++)
            best = Math.min(
              best,
              distance(at(p, i), nearestOnFace(apart.positions, apart.indices, f, ...at(p, i)) as unknown as Vec3),
            );
          if (best <= gap) wanted.push(`${i} to ${part}: ${best.toFixed(5)}`);
        }
      // From where a long edge comes nearer than its ends it is further, along the edge.
      const shortest = new Map<string, number>();
      places.forEach((place, way) => {
        const pair = `${place} to ${Math.floor(corners[3 * way] / 25)}`;
        shortest.set(pair, Math.min(shortest.get(pair) ?? Infinity, lengths[way]));
      });
      const found = [...shortest].filter(([, l]) => l <= gap).map(([pair, l]) => `${pair}: ${l.toFixed(5)}`);
      expect(found.sort()).toEqual(wanted.sort());
    },
  );

  test('there are none inside a closed part of its own, however far they may lead', async () => {
    const { indices, positions } = ball(1, 24);
    expect((await bridges(together({ indices, positions }), 1000)).places).toHaveLength(0);
  });

  test('a place from which nothing leads over leaves nothing to the next one', async () => {
    // A closed part that all others are far from, behind one that is near to others.
    const mesh = together(sheet(0, 0, 0), sheet(0, 0.05, 0), moved(ball(0.2, 12), [9, 0, 0]));
    const { places, p } = await bridges(mesh, 0.1);
    expect([...places].filter((place) => p[3 * place] > 5)).toEqual([]);
    expect(places.length).toBe(50);
  });

  test('a ball close over the middle of a large face is reached there, from corners far away, and the way back too', async () => {
    const block = box(2, 1, 2);
    const { min, max } = {
      min: Math.min(...block.positions.filter((_, i) => i % 3 === 1)),
      max: Math.max(...block.positions.filter((_, i) => i % 3 === 1)),
    };
    expect(max - min).toBeCloseTo(1, 5);
    const mesh = together(block, moved(ball(0.2, 24), [0, max + 0.21, 0]));
    const at = await from(mesh, [-1, max, -1], 0.05);
    // From a corner of the top straight to its middle, 10 mm up, and round the ball.
    expect(at([0, max + 0.01, 0]) / (Math.SQRT2 + 0.01)).toBeCloseTo(1, 1);
    const back = await from(mesh, [0, max + 0.41, 0], 0.05);
    expect(back([-1, max, -1])).toBeLessThan(0.2 * Math.PI + 0.01 + Math.SQRT2 + 0.02);
    // It leaps where the ball is 50 mm above the block: an arc of 143°, then 0.12 m less to go.
    expect(back([-1, max, -1])).toBeGreaterThan(0.2 * 2.498 + 0.05 + Math.SQRT2 - 0.12 - 0.01);
    expect((await from(mesh, [-1, max, -1], 0.005))([0, max + 0.01, 0])).toBe(Infinity);
  });

  test('two sheets of one face pair each, 20 mm apart and beside each other, are joined', async () => {
    const mesh = together(sheet(0, 0, 0, { n: 1, cell: 1 }), sheet(0.5, 0.02, 0.5, { n: 1, cell: 1 }));
    const at = await from(mesh, [0, 0, 0], 0.05);
    expect(at([0.5, 0.02, 0.5])).toBeCloseTo(Math.SQRT1_2 + 0.02, 5);
    expect(at([1.5, 0.02, 1.5])).toBeLessThan(Math.SQRT1_2 + 0.02 + 2);
  });

  test('a hole in a fine sheet is crossed straight, not along its rim', async () => {
    const fine = together(sheet(0, 0, 0, { n: 40, cell: 0.025, hole: 16 }));
    const round = await from(fine, [0.25, 0, 0.5], 0);
    const leapt = await from(fine, [0.25, 0, 0.5], 0.45);
    // The hole is 0.4 m wide, from 0.3 to 0.7.
    expect(leapt([0.75, 0, 0.5])).toBeCloseTo(0.5, 2);
    expect(round([0.75, 0, 0.5])).toBeGreaterThan(0.6);
    expect((await from(fine, [0.25, 0, 0.5], 0.35))([0.75, 0, 0.5])).toBeCloseTo(round([0.75, 0, 0.5]), 6);
  });
});

describe('bars that cross far from all their corners', () => {
  /** A bar of twelve faces, 2 m long and 0.1 m thick, about the origin: along X or Z. */
  const bar = (axis: 'x' | 'z'): Piece => {
    const [x, z] = axis === 'x' ? [1, 0.05] : [0.05, 1];
    const corners = [-1, 1].flatMap((i) => [-1, 1].flatMap((j) => [-1, 1].map((k) => [i * x, j * 0.05, k * z])));
    const quads = [
      [0, 1, 3, 2],
      [4, 6, 7, 5],
      [0, 4, 5, 1],
      [2, 3, 7, 6],
      [0, 2, 6, 4],
      [1, 5, 7, 3],
    ];
    return {
      positions: Float32Array.from(corners.flat()),
      indices: Uint32Array.from(quads.flatMap(([a, b, c, d]) => [a, b, c, a, c, d])),
    };
  };
  const crossed = (apart: number, along = 0): Mesh => together(bar('x'), moved(bar('z'), [along, 0.1 + apart, 0]));

  test.each([0, 0.3, -0.55])('a front goes from one to the other, %d m from the middle', async (along) => {
    const apart = 0.02;
    const distanceTo = await from(crossed(apart, along), [-1, 0.05, 0.05], 0.03);
    // Along the upper edge to the crossing bar, over the gap, and along that one's edge to its end.
    const straight = 1 + along - 0.05 + apart + 0.95;
    const found = distanceTo([along - 0.05, 0.05 + apart, 1]);
    expect(found).toBeGreaterThan(straight - 1e-6);
    // At most about once round the bars' sides more.
    expect(found).toBeLessThan(straight + 0.2);
  });

  test('not where the gap is wider than asked', async () => {
    const distanceTo = await from(crossed(0.02), [-1, 0.05, 0.05], 0.019);
    expect(distanceTo([-0.05, 0.07, 1])).toBe(Infinity);
  });

  test('it takes as long the other way', async () => {
    const [a, b]: Vec3[] = [
      [-1, 0.05, 0.05],
      [-0.05, 0.07, 1],
    ];
    const there = (await from(crossed(0.02), a, 0.03))(b);
    const back = (await from(crossed(0.02), b, 0.03))(a);
    expect(Math.abs(there - back)).toBeLessThan(0.1);
  });
});
