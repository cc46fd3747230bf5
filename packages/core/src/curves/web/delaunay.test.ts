import Delaunator from 'delaunator';
import { random } from '../../fields/random';
import { byAxis, cross, distance, dot, scale, sub, unit, type Vec3 } from '../../geometry/vec';
import { delaunayPairs, tetrahedraOf } from './delaunay';
import { gabrielLinks } from './links';

const still = (): Promise<void> => Promise.resolve();
const cloud = (n: number, seed: number): Vec3[] =>
  Array.from({ length: n }, (_, k) => [random(seed, k, 0), random(seed, k, 1), random(seed, k, 2)]);
const lattice = (n: number): Vec3[] =>
  Array.from({ length: n ** 3 }, (_, k) => [k % n, Math.floor(k / n) % n, Math.floor(k / n ** 2)]);
/** Points of a sphere: all of them have the same sphere round them. */
const onSphere = (n: number): Vec3[] =>
  Array.from({ length: n }, (_, k) => {
    const y = 1 - (2 * k + 1) / n;
    const r = Math.sqrt(1 - y * y);
    return [r * Math.cos(2.4 * k), y, r * Math.sin(2.4 * k)];
  });

const four = (tets: Uint32Array, t: number, nodes: readonly Vec3[]): Vec3[] =>
  [0, 1, 2, 3].map((k) => nodes[tets[4 * t + k]]);
const volume = ([a, b, c, d]: Vec3[]): number => Math.abs(dot(sub(b, a), cross(sub(c, a), sub(d, a)))) / 6;

/** Middle of the sphere through four places, by Cramer's rule. */
function centre([a, b, c, d]: Vec3[]): Vec3 {
  const [u, v, w] = [sub(b, a), sub(c, a), sub(d, a)];
  const [vw, wu, uv] = [cross(v, w), cross(w, u), cross(u, v)];
  const twice = 2 * dot(u, vw);
  return byAxis((k) => a[k] + (dot(u, u) * vw[k] + dot(v, v) * wu[k] + dot(w, w) * uv[k]) / twice);
}

// What Delaunay's triangulation is defined by: B. Delaunay, Sur la sphère vide, 1934.
test.each([
  ['places of chance', cloud(200, 1), null],
  ['a lattice, in which eight places are on each sphere', lattice(5), 64],
  ['a sphere', onSphere(120), null],
] as const)('%s: no sphere holds a place, and the tetrahedra fill the hull', async (_, nodes, hull) => {
  const tets = await tetrahedraOf(nodes, still);
  let filled = 0;
  let nearest = Infinity;
  for (let t = 0; 4 * t < tets.length; t++) {
    const own = four(tets, t, nodes);
    expect(volume(own)).toBeGreaterThan(0);
    filled += volume(own);
    const middle = centre(own);
    const radius = distance(middle, own[0]);
    // Slivers have spheres whose middle is known to few figures.
    if (volume(own) < 1e-7) continue;
    nearest = Math.min(nearest, ...nodes.map((node) => distance(middle, node) / radius));
  }
  expect(nearest).toBeGreaterThan(1 - 1e-7);
  const whole = hull ?? volumeByFaces(nodes, tets);
  expect(filled).toBeCloseTo(whole, 9);
});

/** Volume within the faces that only one tetrahedron has, by the divergence theorem; each place lies on or within every one of them. */
function volumeByFaces(nodes: readonly Vec3[], tets: Uint32Array): number {
  const faces = new Map<string, number[]>();
  for (let t = 0; 4 * t < tets.length; t++)
    for (let k = 0; k < 4; k++) {
      const face = [0, 1, 2, 3].filter((i) => i !== k).map((i) => tets[4 * t + i]);
      const key = [...face].sort((a, b) => a - b).join();
      if (faces.has(key)) faces.delete(key);
      else faces.set(key, [...face, tets[4 * t + k]]);
    }
  let [sum, out] = [0, -Infinity];
  for (const [a, b, c, inner] of faces.values()) {
    const [p, q, r] = [a, b, c].map((k) => nodes[k]);
    let normal = cross(sub(q, p), sub(r, p));
    if (dot(normal, sub(nodes[inner], p)) > 0) normal = scale(normal, -1);
    out = Math.max(out, ...nodes.map((node) => dot(normal, sub(node, p))));
    sum += dot(p, normal) / 6;
  }
  expect(out).toBeLessThan(1e-9);
  return sum;
}

test('in a plane they are the edges that delaunator finds, in a line each with the next, and twins hang together', async () => {
  const flat = cloud(60, 4).map(([x, y]): Vec3 => [x, 2 * x - y + 1, y]);
  const { triangles } = Delaunator.from(
    // Lengths in the plane, from its own axes.
    flat.map((p) => [dot(p, [1 / Math.sqrt(5), 2 / Math.sqrt(5), 0]), dot(p, unit([2, -1, 5]))]),
  );
  const told = new Set((await delaunayPairs(flat, still)).map((pair) => [...pair].sort((a, b) => a - b).join()));
  const expected = new Set<string>();
  for (let i = 0; i < triangles.length; i++) {
    const next = triangles[i - (i % 3) + ((i + 1) % 3)];
    expected.add([triangles[i], next].sort((a, b) => a - b).join());
  }
  expect(told).toEqual(expected);
  const row = [3, 1, 2, 0].map((x): Vec3 => [x, 2 * x, -x]);
  const links = (await delaunayPairs(row, still)).map(([i, k]) => [row[i][0], row[k][0]].sort().join());
  expect(links.sort()).toEqual(['0,1', '1,2', '2,3']);
  const twins = await delaunayPairs(
    [
      [0, 0, 0],
      [1, 0, 0],
      [0, 0, 0],
    ],
    still,
  );
  expect(twins).toEqual([
    [0, 2],
    [0, 1],
  ]);
  expect(await delaunayPairs([[0, 0, 0]], still)).toEqual([]);
});

// Gabriel's graph is part of Delaunay's (Matula and Sokal, Properties of Gabriel graphs, 1980).
test('it holds every link that has none between', async () => {
  const nodes = cloud(150, 9);
  const told = new Set((await delaunayPairs(nodes, still)).map(([a, b]) => (a < b ? `${a},${b}` : `${b},${a}`)));
  for (const pair of await gabrielLinks(nodes, Infinity, still)) expect(told.has(String(pair))).toBe(true);
});
