import { nearestPlace } from '../../geometry/search/nearest';
import { type Mesh, meshWith } from '../../geometry/mesh';
import { keepTopology, topologyOf } from '../../geometry/topology/topology';
import { at, byAxis, distance, type Vec3 } from '../../geometry/vec';
import { shortestWay } from './shortestWay';
import { box, cylinder, sheet } from '../make/solids';
import { distancesAlong } from './wavefront';

const lengthOf = (way: ArrayLike<number>): number => {
  let sum = 0;
  for (let i = 1; 3 * i < way.length; i++) sum += distance(at(way, i - 1), at(way, i));
  return sum;
};
const way = async (mesh: Mesh, a: Vec3, b: Vec3): Promise<number[]> => {
  const [from, to] = [nearestPlace(mesh, a)!, nearestPlace(mesh, b)!];
  return (await shortestWay(mesh, from, to))!;
};
const moved = (mesh: Mesh, move: (place: Vec3) => Vec3): Mesh => {
  const positions = mesh.positions.slice();
  for (let i = 0; 3 * i < positions.length; i++) positions.set(move(at(positions, i)), 3 * i);
  return meshWith({ ...mesh, positions });
};

test.each([
  ['squares halved', 0],
  ['obtuse ones', 2.5],
])('in a plane it is the straight line (Euclid), over triangles that are %s', async (_, skew) => {
  const mesh = moved(sheet(2, 2, 24), ([x, y, z]) => [x + skew * y, y, z]);
  const [a, b]: Vec3[] = [
    [-0.81 + skew * 0.13, 0.13, 0],
    [0.7 + skew * 1.87, 1.87, 0],
  ];
  const found = await way(mesh, a, b);
  expect(lengthOf(found)).toBeCloseTo(distance(a, b), 6);
  for (let i = 0; 3 * i < found.length; i++) {
    const [x, y] = at(found, i);
    const off = ((b[0] - a[0]) * (y - a[1]) - (b[1] - a[1]) * (x - a[0])) / distance(a, b);
    expect(Math.abs(off)).toBeLessThan(1e-6);
  }
});

test('on a cube it goes over the edges as in the net of the cube', async () => {
  // Opposite corners of a unit cube are √5 apart: unfold two faces (the spider and the fly: Dudeney, 1903, in its simplest case).
  const cube = box(1, 1, 1);
  const lift = Math.min(...cube.positions.filter((_, i) => i % 3 === 1));
  const found = await way(cube, [-0.5, lift, -0.5], [0.5, lift + 1, 0.5]);
  expect(lengthOf(found)).toBeCloseTo(Math.sqrt(5), 6);
  // The spider and the fly: a room of 30 by 12 by 12, one foot from ceiling and floor in the middle of its end walls: 40 feet.
  const room = box(30, 12, 12);
  const low = Math.min(...room.positions.filter((_, i) => i % 3 === 1));
  const [spider, fly]: Vec3[] = [
    [-15, low + 11, 0],
    [15, low + 1, 0],
  ];
  const along = lengthOf(await way(room, spider, fly));
  expect(along).toBeLessThanOrEqual(42 + 1e-6);
  expect(along).toBeGreaterThanOrEqual(40 - 1e-6);
});

test('a mesh in another size has ways of another length, though it hangs together in the same way', async () => {
  const small = sheet(2, 2, 12);
  const [a, b]: Vec3[] = [
    [-0.8, 0.2, 0],
    [0.7, 1.7, 0],
  ];
  const first = lengthOf(await way(small, a, b));
  const positions = small.positions.map((x) => 3 * x);
  keepTopology(small, positions);
  const large = { ...small, positions };
  expect(topologyOf(large)).toBe(topologyOf(small));
  const [c, d] = [a, b].map((place): Vec3 => byAxis((k) => 3 * place[k]));
  expect(lengthOf(await way(large, c, d))).toBeCloseTo(3 * first, 4);
});

test('on a cylinder it is the helix of the unrolled wall', async () => {
  const mesh = cylinder(1, 1, 4, 96);
  const base = Math.min(...mesh.positions.filter((_, i) => i % 3 === 1));
  const on = (turn: number, height: number): Vec3 => [Math.cos(turn), base + height, Math.sin(turn)];
  const found = await way(mesh, on(0.3, 0.5), on(2.5, 3.1));
  // Of a prism of 96 sides: its chords are shorter than the arc by the square of half a side's angle over six.
  const arc = 2.2 * (Math.sin(Math.PI / 96) / (Math.PI / 96));
  expect(lengthOf(found)).toBeCloseTo(Math.hypot(arc, 2.6), 3);
});

test('on a ball it is the great circle, and no longer than the wave that runs over the same faces', async () => {
  const ball = ballOf(24);
  const [a, b]: Vec3[] = [
    [1, 0, 0],
    [-0.48, 0.6, 0.64],
  ];
  const found = await way(ball, a, b);
  const angle = Math.acos(a[0] * b[0] + a[1] * b[1] + a[2] * b[2]);
  expect(Math.abs(lengthOf(found) / angle - 1)).toBeLessThan(0.002);
  const from = nearestPlace(ball, a)!;
  const places = { faces: Uint32Array.of(from.face), weights: Float32Array.from(from.weights) };
  const waves = await distancesAlong(ball, { places });
  const { weld } = topologyOf(ball);
  let checked = 0;
  for (let i = 0; i < weld.first.length; i += 301) {
    const there = at(ball.positions, weld.first[i]);
    const length = lengthOf(await way(ball, a, there));
    expect(length).toBeLessThan(waves[i] * 1.006 + 1e-6);
    expect(length).toBeGreaterThan(distance(from.position, there) - 1e-6);
    checked++;
  }
  expect(checked).toBeGreaterThan(10);
});

test('it goes round a hole and between two parts there is none', async () => {
  const flat = sheet(2, 2, 20);
  // A slot from one side to past the middle.
  const inSlot = ([x, y]: Vec3): boolean => Math.abs(y - 1) < 0.06 && x < 0.4;
  const indices: number[] = [];
  for (let f = 0; f < flat.indices.length; f += 3) {
    const corners = [...flat.indices.subarray(f, f + 3)];
    const middle = byAxis((c) => corners.reduce((sum, k) => sum + flat.positions[3 * k + c] / 3, 0));
    if (!inSlot(middle)) indices.push(...corners);
  }
  const slotted = meshWith({ ...flat, indices: Uint32Array.from(indices) });
  const found = await way(slotted, [-0.5, 0.5, 0], [-0.5, 1.5, 0]);
  // Straight to the end of the slot, round it, and straight back.
  const [one, other]: Vec3[] = [
    [0.4, 0.9, 0],
    [0.4, 1.1, 0],
  ];
  const expected = distance([-0.5, 0.5, 0], one) + distance(one, other) + distance(other, [-0.5, 1.5, 0]);
  expect(lengthOf(found)).toBeCloseTo(expected, 1);
  const apart = meshWith({
    positions: Float32Array.from([...flat.positions, ...flat.positions.map((x, i) => (i % 3 === 2 ? x + 1 : x))]),
    normals: Float32Array.from([...flat.normals, ...flat.normals]),
    uvs: new Float32Array((4 * flat.positions.length) / 3),
    indices: Uint32Array.from([...flat.indices, ...flat.indices.map((i) => i + flat.positions.length / 3)]),
  });
  const [from, to] = [nearestPlace(apart, [0, 1, 0])!, nearestPlace(apart, [0, 1, 1])!];
  expect(await shortestWay(apart, from, to)).toBeNull();
});

/** A ball of six times n by n squares, by the cube. */
function ballOf(n: number): Mesh {
  const positions: number[] = [];
  const indices: number[] = [];
  for (let side = 0; side < 6; side++) {
    const axis = side % 3;
    const sign = side < 3 ? 1 : -1;
    const first = positions.length / 3;
    for (let i = 0; i <= n; i++)
      for (let j = 0; j <= n; j++) {
        const p = [0, 0, 0];
        p[axis] = sign;
        p[(axis + 1) % 3] = (2 * i) / n - 1;
        p[(axis + 2) % 3] = sign * ((2 * j) / n - 1);
        const length = Math.hypot(...p);
        positions.push(...p.map((x) => x / length));
      }
    for (let i = 0; i < n; i++)
      for (let j = 0; j < n; j++) {
        const a = first + i * (n + 1) + j;
        indices.push(a, a + n + 1, a + n + 2, a, a + n + 2, a + 1);
      }
  }
  const flat = Float32Array.from(positions, (x) => Math.fround(Math.round(x * 1e6) / 1e6));
  return meshWith({
    positions: flat,
    normals: flat,
    uvs: new Float32Array((2 * flat.length) / 3),
    indices: Uint32Array.from(indices),
  });
}
