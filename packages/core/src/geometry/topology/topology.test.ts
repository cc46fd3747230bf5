import { createHash } from 'node:crypto';
import { torus } from '../../surfaces/make/solids';
import { followedNormals } from '../../surfaces/edit/updateNormals';
import { withSoftNormals } from '../../surfaces/edit/smoothNormals';
import { subdivideMesh } from '../../surfaces/edit/subdivideMesh';
import { thickenMesh } from '../../surfaces/edit/thickenMesh';
import { newStep } from '../../scene/make';
import { formOf, sceneOf } from '../../testing';
import { meshWith } from '../mesh';
import { cornerWeights, readPlaces } from './surfacePlaces';
import { topologyCounts, topologyInTime, topologyOf } from './topology';
import { weld } from './weld';
import { at } from '../vec';

const skin = async () =>
  (
    await formOf(
      sceneOf([newStep('helix', { points: 30 }), newStep('grow', { to: 0.7 }), newStep('tube', { sides: 7 })]),
    )
  ).mesh!;

describe('topology', () => {
  test('of a triangulated torus: every place has six neighbours, each of which has it too', () => {
    // A closed surface of Euler characteristic 0 in which all triangles meet alike has 3 edges a vertex.
    const { neighbours, weld, edges } = topologyOf(torus(1, 0.3, 16));
    expect(edges.count).toBe(3 * weld.first.length);
    for (let i = 0; i < weld.first.length; i++) {
      const own = neighbours.others.subarray(neighbours.starts[i], neighbours.starts[i + 1]);
      expect(new Set(own).size).toBe(6);
      for (const j of own)
        expect([...neighbours.others.subarray(neighbours.starts[j], neighbours.starts[j + 1])]).toContain(i);
    }
  });

  test('is made once for its arrays, and anew where either of them is another', async () => {
    const mesh = await skin();
    const first = topologyOf(mesh);
    expect(topologyOf({ positions: mesh.positions, indices: mesh.indices })).toBe(first);
    expect(first.edges).toBe(first.edges);
    // All vertices at one place: the same faces, but nothing of them is left.
    const moved = { ...mesh, positions: new Float32Array(mesh.positions.length) };
    expect(topologyOf(moved)).not.toBe(first);
    expect(topologyCounts(moved)).toMatchObject({ faces: 0, edges: 0 });
    expect(topologyOf(mesh)).toBe(first);
  });

  test('stays while a mesh moves, and is another where other vertices come to lie together', async () => {
    const mesh = await skin();
    const first = topologyOf(mesh);
    const moved = mesh.positions.map((x, i) => x + Math.sin(3 * mesh.positions[3 * Math.floor(i / 3) + 1]));
    expect(topologyOf({ ...mesh, positions: moved })).toBe(first);
    const [a, b, c] = mesh.indices;
    const pinched = moved.slice();
    pinched.copyWithin(3 * a, 3 * b, 3 * b + 3);
    const other = topologyOf({ ...mesh, positions: pinched });
    expect(other.weld.of[a]).toBe(other.weld.of[b]);
    expect(other.weld.of[a]).not.toBe(other.weld.of[c]);
    // The face between them is left out, and the others are told by their own numbers.
    expect([...other.faces]).not.toContain(0);
    const k = other.faces.length - 1;
    expect([...other.corners.subarray(3 * k)]).toEqual(
      [0, 1, 2].map((q) => other.weld.of[mesh.indices[3 * other.faces[k] + q]]),
    );
    expect(topologyOf({ ...mesh, positions: moved.slice() }).counts).toEqual(first.counts);
  });

  test('corners at a place are all those of the faces that lie there, each once', async () => {
    const mesh = await skin();
    const topology = topologyOf(mesh);
    const { starts, corners } = await topology.findFans(() => Promise.resolve());
    expect(Uint32Array.from(corners).sort()).toEqual(Uint32Array.from(mesh.indices, (_, c) => c));
    const { of, first } = topology.weld;
    const astray = Array.from(first, (_, place) =>
      corners.subarray(starts[place], starts[place + 1]).filter((c) => of[mesh.indices[c]] !== place),
    ).flatMap((some) => [...some]);
    expect(astray).toEqual([]);
  });

  test('faces at an edge are those that have both its ends', async () => {
    const { edges, corners } = topologyOf(await subdivideMesh(torus(1, 0.3, 8), 1, Math.PI));
    for (let e = 0; e < edges.count; e++)
      for (const face of [edges.left[e], edges.right[e]]) {
        const own = corners.subarray(3 * face, 3 * face + 3);
        expect(own).toContain(edges.ends[2 * e]);
        expect(own).toContain(edges.ends[2 * e + 1]);
      }
  });
});

describe('places on a surface', () => {
  test('read what the vertices have, by the weights of the corners', async () => {
    const mesh = await skin();
    const n = mesh.positions.length / 3;
    const heat = Float32Array.from({ length: n }, (_, i) => mesh.positions[3 * i]);
    const warm = {
      ...mesh,
      named: {
        heat: { domain: 'vertex' as const, width: 1 as const, blend: 'mix' as const, missing: 0, values: heat },
      },
    };
    const places = { faces: Uint32Array.of(4, 9), weights: Float32Array.of(0.2, 0.3, 0.5, 1, 0, 0) };
    const read = readPlaces(warm, places);
    const corners = [0, 1, 2].map((k) => at(mesh.positions, mesh.indices[12 + k]));
    for (let c = 0; c < 3; c++)
      expect(read.positions[c]).toBeCloseTo(0.2 * corners[0][c] + 0.3 * corners[1][c] + 0.5 * corners[2][c], 5);
    // Heat is the first coordinate, so it stays that.
    expect(read.named.heat.values[0]).toBeCloseTo(read.positions[0], 5);
    expect(Math.hypot(...read.normals.subarray(0, 3))).toBeCloseTo(1, 5);
    expect(at(read.positions, 1)).toEqual(at(mesh.positions, mesh.indices[27]));
    expect(read.u![1]).toBe(mesh.u![mesh.indices[27]]);
  });

  test('weights of a point lead back to it, and to the foot of one beside the plane', () => {
    const mesh = meshWith({
      positions: Float32Array.of(0, 0, 0, 4, 0, 0, 0, 2, 0, 1, 1, 1),
      normals: new Float32Array(12),
      uvs: new Float32Array(8),
      indices: Uint32Array.of(0, 1, 2, 0, 0, 3),
    });
    expect(cornerWeights(mesh, 0, [1, 1, 0])).toEqual([0.25, 0.25, 0.5]);
    expect(cornerWeights(mesh, 0, [1, 1, 5])).toEqual([0.25, 0.25, 0.5]);
    expect(cornerWeights(mesh, 1, [1, 1, 1])).toEqual([1, 0, 0]);
  });
});

describe('a large mesh', () => {
  const large = torus(1, 0.3, 600);
  /** The same mesh in arrays of its own, of which nothing is known yet. */
  const fresh = () => ({ ...large, indices: large.indices.slice(), positions: large.positions.slice() });
  /** What is in it, its arrays by their bytes: millions of numbers are compared one by one otherwise. */
  const bytesOf = (of: object): unknown[] =>
    Object.entries(of).map(([name, value]) => [
      name,
      ArrayBuffer.isView(value)
        ? createHash('sha256')
            .update(new Uint8Array(value.buffer, value.byteOffset, value.byteLength))
            .digest('hex')
        : value,
    ]);
  /** Counts yields, and breaks off at one of them. */
  const lungs = (last = Infinity) => {
    const yields = { count: 0 };
    return {
      yields,
      yieldNow: async () => {
        if (++yields.count > last) throw new Error('no longer wanted');
      },
    };
  };

  test('is taken apart with yields in between, and comes to the same', async () => {
    const { yields, yieldNow } = lungs();
    const mesh = fresh();
    const topology = await topologyInTime(mesh, yieldNow);
    const edges = await topology.findEdges(yieldNow);
    // A yield every 24,576 vertices, and as many corners.
    expect(yields.count).toBeGreaterThan((large.positions.length / 3 + large.indices.length) / 24_577);
    expect(bytesOf(topology.weld)).toEqual(bytesOf(weld(large)));
    expect(bytesOf(edges)).toEqual(bytesOf(topologyOf(fresh()).edges));
    expect(topologyOf(mesh)).toBe(topology);
  });

  test('that is given up in the middle leaves nothing half made behind', async () => {
    const mesh = fresh();
    await expect(topologyInTime(mesh, lungs(2).yieldNow)).rejects.toThrow('no longer wanted');
    expect(topologyOf(mesh).counts).toEqual(topologyOf(large).counts);
    const again = fresh();
    const topology = await topologyInTime(again, lungs().yieldNow);
    await expect(topology.findEdges(lungs(2).yieldNow)).rejects.toThrow('no longer wanted');
    expect(topology.counts).toEqual(topologyOf(large).counts);
  });

  // Between two yields lie no more than some ten thousand faces, whatever is done with them.
  test.each([
    ['subdivided', (yieldNow: () => Promise<void>) => subdivideMesh(fresh(), 1, Math.PI, yieldNow), 12],
    ['made thick', (yieldNow: () => Promise<void>) => thickenMesh(fresh(), 0.01, 0, yieldNow), 6],
    ['given soft edges', (yieldNow: () => Promise<void>) => withSoftNormals(fresh(), 1, yieldNow), 3],
    ['followed by normals', (yieldNow: () => Promise<void>) => followedNormals(fresh(), large.positions, yieldNow), 2],
  ])('is %s with yields throughout', async (_, work, times) => {
    const { yields, yieldNow } = lungs();
    await work(yieldNow);
    expect(yields.count).toBeGreaterThan((times * large.indices.length) / 3 / 8192);
  });
});
