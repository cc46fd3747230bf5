import { type Mesh, meshWith } from '../geometry/mesh';
import { topologyOf } from '../geometry/topology';
import { at, distance } from '../geometry/vec';
import { bridgesOf } from './bridges';
import { ball } from './solids';

const breathe = () => Promise.resolve();

/** A level sheet of so many squares each way, a tenth of a metre each, with or without a hole. */
function sheet(x: number, y: number, z: number, hole = false, n = 4): Pick<Mesh, 'positions' | 'indices'> {
  const positions: number[] = [];
  const indices: number[] = [];
  for (let i = 0; i <= n; i++) for (let j = 0; j <= n; j++) positions.push(x + 0.1 * i, y, z + 0.1 * j);
  for (let i = 0; i < n; i++)
    for (let j = 0; j < n; j++) {
      if (hole && i === 1 && j === 1) continue;
      const a = (n + 1) * i + j;
      indices.push(a, a + 1, a + n + 1, a + 1, a + n + 2, a + n + 1);
    }
  return { positions: Float32Array.from(positions), indices: Uint32Array.from(indices) };
}

function together(...parts: Pick<Mesh, 'positions' | 'indices'>[]): Mesh {
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

/** Ways found by looking at every pair of places: the longer way round that needs no cells. */
function byEveryPair(mesh: Mesh, partOf: (place: number) => number, gap: number): string[] {
  const { weld, edges, neighbours } = topologyOf(mesh);
  const n = weld.first.length;
  const place = (i: number) => at(mesh.positions, weld.first[i]);
  const open = new Set<number>();
  for (let e = 0; e < edges.count; e++)
    if (edges.there[e] + edges.back[e] === 1) for (const end of [0, 1]) open.add(edges.ends[2 * e + end]);
  const ways = new Set<string>();
  for (let i = 0; i < n; i++) {
    const beside = neighbours.others.subarray(neighbours.starts[i], neighbours.starts[i + 1]);
    const best = new Map<number, number>();
    for (let j = 0; j < n; j++) {
      const away = distance(place(i), place(j));
      const own = partOf(i) === partOf(j);
      if (i === j || away > gap || (own && (!open.has(i) || !open.has(j) || beside.includes(j)))) continue;
      best.set(partOf(j), Math.min(best.get(partOf(j)) ?? Infinity, away));
    }
    for (const [part, away] of best) ways.add(`${i} to ${part}: ${away.toFixed(5)}`);
  }
  return [...ways].sort();
}

/** The same of what was found: the shortest way from each place to each part. */
async function found(mesh: Mesh, partOf: (place: number) => number, gap: number): Promise<string[]> {
  const topology = topologyOf(mesh);
  const p = Float64Array.from(topology.weld.first).fill(0);
  const places = new Float64Array(3 * p.length);
  topology.weld.first.forEach((vertex, i) => places.set(at(mesh.positions, vertex), 3 * i));
  const { starts, ends, lengths } = await bridgesOf(topology, places, gap, breathe);
  const ways = new Set<string>();
  for (let i = 0; i < p.length; i++) {
    const best = new Map<number, number>();
    for (let way = starts[i]; way < starts[i + 1]; way++) {
      const part = partOf(ends[way]);
      best.set(part, Math.min(best.get(part) ?? Infinity, lengths[way]));
    }
    for (const [part, away] of best) ways.add(`${i} to ${part}: ${away.toFixed(5)}`);
  }
  return [...ways].sort();
}

describe('ways over gaps', () => {
  const apart = together(sheet(0, 0, 0), sheet(0.03, 0.25, 0.01, true), sheet(5, 0, 0));
  const partOf = (place: number): number => Math.floor(place / 25);

  test.each([0.05, 0.26, 0.4, 3, 100])('are the shortest from every place to every part, at most %d m', async (gap) => {
    expect(await found(apart, partOf, gap)).toEqual(byEveryPair(apart, partOf, gap));
  });

  test('to a part that lies much further away than places lie from one another', async () => {
    const far = together(sheet(0, 0, 0, false, 24), sheet(30, 0, 0));
    const part = (place: number): number => (place < 625 ? 0 : 1);
    expect(await found(far, part, 100)).toEqual(byEveryPair(far, part, 100));
  });

  test('there are none inside a closed part of its own, however far they may lead', async () => {
    const { indices, positions } = ball(1, 24);
    const mesh = together({ indices, positions });
    expect(await found(mesh, () => 0, 1000)).toEqual([]);
  });
});
