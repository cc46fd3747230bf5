import { nearestPlace } from '../../geometry/search/nearest';
import { type Mesh, meshWith } from '../../geometry/mesh';
import { topologyOf } from '../../geometry/topology/topology';
import { at, distance, type Vec3 } from '../../geometry/vec';
import { cylinder, platonic, sheet } from '../make/solids';
import { distancesAlong } from './wavefront';

const from = (mesh: Mesh, points: Vec3[]) => {
  const places = points.map((point) => nearestPlace(mesh, point)!);
  return {
    places: {
      faces: Uint32Array.from(places, ({ face }) => face),
      weights: Float32Array.from(places.flatMap(({ weights }) => weights)),
    },
  };
};
const placesOf = (mesh: Mesh): Vec3[] =>
  Array.from(topologyOf(mesh).weld.first, (vertex) => at(mesh.positions, vertex));

/** A sphere of radius 1 by halving the edges of an icosahedron. */
function sphere(times: number): Mesh {
  let { positions, indices }: { positions: number[]; indices: number[] } = {
    positions: [...platonic('icosahedron', 1).positions],
    indices: [...platonic('icosahedron', 1).indices],
  };
  for (let t = 0; t < times; t++) {
    const made: number[] = [];
    for (let f = 0; f < indices.length; f += 3) {
      const [a, b, c] = [0, 1, 2].map((k) => at(positions, indices[f + k]));
      const half = (p: Vec3, q: Vec3): number[] => {
        const sum = p.map((x, i) => x + q[i]);
        return sum.map((x) => Math.fround(x / Math.hypot(...sum)));
      };
      const [d, e, g] = [half(a, b), half(b, c), half(c, a)];
      made.push(...a, ...d, ...g, ...d, ...b, ...e, ...g, ...e, ...c, ...d, ...e, ...g);
    }
    positions = made;
    indices = made.map((_, i) => i).slice(0, made.length / 3);
  }
  const flat = Float32Array.from(positions);
  return meshWith({
    positions: flat,
    normals: flat,
    uvs: new Float32Array((2 * flat.length) / 3),
    indices: Uint32Array.from(indices),
  });
}

describe('distances along a surface', () => {
  // Euclid: straight lines in a plane, from any place in it, over regular, skewed and obtuse triangles.
  test.each([
    ['squares halved', (x: number): number => x],
    ['obtuse ones', (x: number, y: number): number => x + 2.5 * y],
  ])('are straight in a plane: %s', async (_, skew) => {
    const flat = sheet(2, 2, 24);
    const positions = flat.positions.map((value, i) => (i % 3 === 0 ? skew(value, flat.positions[i + 1]) : value));
    const mesh = { ...flat, positions };
    const [start] = from(mesh, [[skew(0.31, 0.9), 0.9, 0]]).places.faces;
    expect(start).toBeGreaterThan(0);
    const found = await distancesAlong(mesh, from(mesh, [[skew(0.31, 0.9), 0.9, 0]]));
    placesOf(mesh).forEach((place, i) => expect(found[i]).toBeCloseTo(distance(place, [skew(0.31, 0.9), 0.9, 0]), 6));
  });

  // Unrolled: a prism of 64 sides is a plane once it is cut open, and so is a cone.
  test('are straight on a cylinder and on a cone, unrolled', async () => {
    const sides = 64;
    const tall = cylinder(1, 1, 2, sides);
    const start: Vec3 = [1, 1, 0];
    const found = await distancesAlong(tall, from(tall, [start]));
    const corner = 2 * Math.sin(Math.PI / sides);
    placesOf(tall).forEach(([x, y, z], i) => {
      if (Math.hypot(x, z) < 0.99) return;
      const steps = Math.abs(Math.atan2(z, x)) / ((2 * Math.PI) / sides);
      const around = steps * corner;
      // Ways over the flat ends are shorter than those far round, and are none of the roll's.
      if (around > 0.7) return;
      expect(Math.abs(found[i] - Math.hypot(around, y - 1))).toBeLessThan(2e-3);
    });
  });

  // Great circles. The order is that of the method: errors halve with the edges.
  test('on a sphere come near to great circles as edges get shorter, by the first power', async () => {
    const errors: number[] = [];
    for (const times of [3, 4, 5]) {
      const mesh = sphere(times);
      const start = nearestPlace(mesh, [0.3, 0.5, 0.81])!.position;
      const found = await distancesAlong(mesh, from(mesh, [start]));
      let sum = 0;
      const places = placesOf(mesh);
      places.forEach((place, i) => {
        const exact = Math.acos(
          Math.min(1, Math.max(-1, place.reduce((dot, x, c) => dot + x * start[c], 0) / Math.hypot(...start))),
        );
        expect(Math.abs(found[i] - exact)).toBeLessThan(0.06);
        sum += Math.abs(found[i] - exact);
      });
      errors.push(sum / places.length);
    }
    expect(errors[1]).toBeLessThan(6e-3);
    for (const k of [1, 2]) {
      const order = Math.log2(errors[k - 1] / errors[k]);
      expect(order).toBeGreaterThan(0.9);
    }
  });

  test('are those to the nearest of several, and of what has been reached before', async () => {
    const mesh = sheet(2, 2, 20);
    const starts: Vec3[] = [
      [-0.5, 0.4, 0],
      [0.7, 1.6, 0],
    ];
    const found = await distancesAlong(mesh, { ...from(mesh, starts), reached: [[0, 0.25]] });
    const places = placesOf(mesh);
    places.forEach((place, i) => {
      const each = [...starts.map((start) => distance(start, place)), 0.25 + distance(places[0], place)];
      const exact = Math.min(...each);
      // Where two fronts meet within a triangle its corners know of one each.
      expect(found[i]).toBeGreaterThan(exact - 1e-6);
      expect(found[i]).toBeLessThan(exact + 0.03);
    });
  });

  test('from a whole line are those of a straight front', async () => {
    const mesh = sheet(2, 2, 30);
    const places = placesOf(mesh);
    const reached = places.flatMap(([, y], i) => (y < 1e-6 ? [[i, 0] as const] : []));
    const found = await distancesAlong(mesh, { ...from(mesh, []), reached });
    places.forEach(([, y], i) => expect(found[i]).toBeCloseTo(y, 6));
  });

  test('go no straighter than the surface lets them: up one side of a fold and down the other', async () => {
    // A sheet folded to a tent: from foot to foot the way is twice the slope.
    const flat = sheet(2, 1, 40);
    const positions = flat.positions.slice();
    for (let i = 0; i < positions.length; i += 3) positions[i + 2] = 1 - Math.abs(positions[i]);
    const mesh = { ...flat, positions };
    const found = await distancesAlong(mesh, from(mesh, [[-1, 0.5, 0]]));
    const foot = placesOf(mesh).findIndex(([x, y]) => x > 0.999 && Math.abs(y - 0.5) < 1e-4);
    expect(found[foot]).toBeCloseTo(2 * Math.SQRT2, 3);
  });

  test('slower where it is said, not at all where it stops, over gaps only where they are leapt', async () => {
    const mesh = sheet(2, 2, 40);
    const places = placesOf(mesh);
    const start: Vec3 = [-1, 1, 0];
    const even = await distancesAlong(mesh, from(mesh, [start]), { slowness: places.map(() => 2) });
    places.forEach((place, i) => expect(even[i]).toBeCloseTo(2 * distance(place, start), 5));
    // A wall with a gate at the top: the way leads round it.
    const wall = places.map(([x, y]) => (Math.abs(x) < 0.03 && y < 1.8 ? Infinity : 1));
    const round = await distancesAlong(mesh, from(mesh, [start]), { slowness: wall });
    const behind = places.findIndex(([x, y]) => x > 0.999 && Math.abs(y - 1) < 1e-4);
    const gate = 2 * Math.hypot(1, 0.8);
    expect(round[behind]).toBeGreaterThan(gate - 0.01);
    expect(round[behind]).toBeLessThan(gate + 0.12);
    expect(round[places.findIndex(([x, y]) => Math.abs(x) < 0.03 && y < 1)]).toBe(Infinity);

    const apart = meshWith({
      ...mesh,
      positions: Float32Array.from([...mesh.positions, ...mesh.positions.map((x, i) => (i % 3 === 2 ? 0.1 : x))]),
      normals: Float32Array.from([...mesh.normals, ...mesh.normals]),
      uvs: Float32Array.from([...mesh.uvs, ...mesh.uvs]),
      indices: Uint32Array.from([...mesh.indices, ...mesh.indices.map((i) => i + mesh.positions.length / 3)]),
    });
    const far = placesOf(apart).findIndex(([x, , z]) => x > 0.999 && z > 0.09);
    expect((await distancesAlong(apart, from(apart, [start]), { gap: 0.09 }))[far]).toBe(Infinity);
    const leapt = (await distancesAlong(apart, from(apart, [start]), { gap: 0.11 }))[far];
    expect(leapt).toBeCloseTo(0.1 + distance(start, [...placesOf(apart)[far].slice(0, 2), 0] as unknown as Vec3), 3);
  });
});
