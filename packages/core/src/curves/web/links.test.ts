import Delaunator from 'delaunator';
import { random } from '../../fields/random';
import { distance, partWay, type Vec3 } from '../../geometry/vec';
import {
  gabrielLinks,
  hubDistances,
  hubLinks,
  type Links,
  linksWithin,
  nearestLinks,
  shortestTree,
  uniqueLinks,
} from './links';

const still = (): Promise<void> => Promise.resolve();
const cloud = (n: number, seed: number, flat = false): Vec3[] =>
  Array.from({ length: n }, (_, k) => [random(seed, k, 0), random(seed, k, 1), flat ? 0 : random(seed, k, 2)]);
const lengthOf = (nodes: readonly Vec3[], links: Links): number =>
  links.reduce((sum, [a, b]) => sum + distance(nodes[a], nodes[b]), 0);
const pairs = (n: number): [number, number][] =>
  Array.from({ length: n }, (_, a) =>
    Array.from({ length: n - a - 1 }, (__, k): [number, number] => [a, a + 1 + k]),
  ).flat();

test('the nearest, and all within a distance, are what trying each against each finds', async () => {
  const nodes = cloud(120, 3);
  const told = new Set((await nearestLinks(nodes, 4, Infinity, still)).map(String));
  const tried = new Set<string>();
  nodes.forEach((node, i) => {
    const order = [...nodes.keys()]
      .filter((k) => k !== i)
      .sort((a, b) => distance(node, nodes[a]) - distance(node, nodes[b]));
    for (const k of order.slice(0, 4)) tried.add(String(i < k ? [i, k] : [k, i]));
  });
  expect(told).toEqual(tried);
  const within = await linksWithin(nodes, 0.25, still);
  expect(within.length).toBe(pairs(120).filter(([a, b]) => distance(nodes[a], nodes[b]) <= 0.25).length);
});

test('the shortest tree joins all, and is as long as one found by another algorithm (Kruskal 1956)', async () => {
  for (const seed of [1, 2, 3]) {
    const nodes = cloud(150, seed);
    const links = await shortestTree(nodes, still);
    expect(links.length).toBe(149);
    const head = [...nodes.keys()];
    const headOf = (k: number): number => (head[k] === k ? k : headOf(head[k]));
    let sum = 0;
    for (const [a, b] of pairs(150).sort(
      (p, q) => distance(nodes[p[0]], nodes[p[1]]) - distance(nodes[q[0]], nodes[q[1]]),
    )) {
      if (headOf(a) === headOf(b)) continue;
      head[headOf(a)] = headOf(b);
      sum += distance(nodes[a], nodes[b]);
    }
    expect(lengthOf(nodes, links)).toBeCloseTo(sum, 9);
  }
});

test('with none between: every ball is empty and every link left out has one that is not; in the plane they are edges of Delaunay', async () => {
  const nodes = cloud(80, 5);
  const told = new Set((await gabrielLinks(nodes, Infinity, still)).map(String));
  for (const [a, b] of pairs(80)) {
    const middle = partWay(nodes[a], nodes[b], 0.5);
    const empty = nodes.every(
      (node, k) => k === a || k === b || distance(node, middle) >= distance(nodes[a], nodes[b]) / 2 - 1e-12,
    );
    expect(told.has(String([a, b]))).toBe(empty);
  }
  // Gabriel's graph is part of Delaunay's, and holds the shortest tree (Matula and Sokal 1980). Delaunay by delaunator.
  const flat = cloud(200, 9, true);
  const { triangles, halfedges } = Delaunator.from(flat.map(([x, y]) => [x, y]));
  const edges = new Set<string>();
  triangles.forEach((a, e) => {
    if (halfedges[e] > e) return;
    const b = triangles[e % 3 === 2 ? e - 2 : e + 1];
    edges.add(String(a < b ? [a, b] : [b, a]));
  });
  const found = (await gabrielLinks(flat, Infinity, still)).map(String);
  expect(found.length).toBeGreaterThan(200);
  for (const link of found) expect(edges.has(link)).toBe(true);
  const own = new Set(found);
  for (const link of await shortestTree(flat, still)) expect(own.has(String(link))).toBe(true);
});

test('with none between, a regular grid has its sides alone: ties are left out evenly', async () => {
  // The ball over a square's diagonal has the other two corners on its border, exactly in numbers and nearly in single precision.
  for (const pitch of [1, 0.07]) {
    const grid = Array.from({ length: 64 }, (_, k): Vec3 => [
      Math.fround(pitch * (k % 4)),
      Math.fround(pitch * (Math.floor(k / 4) % 4)),
      Math.fround(pitch * Math.floor(k / 16)),
    ]);
    const links = await gabrielLinks(grid, Infinity, still);
    expect(links).toHaveLength(3 * 4 * 4 * 3);
    for (const [a, b] of links) expect(distance(grid[a], grid[b])).toBeCloseTo(pitch, 5);
  }
});

test('the nearest of what stands in a line, in a heap and in two far heaps', async () => {
  const line = Array.from({ length: 300 }, (_, k): Vec3 => [k, 0, 0]);
  const told = (await nearestLinks(line, 2, Infinity, still)).map(String);
  // Each has its two neighbours; the ends have their second as well.
  expect(new Set(told)).toEqual(new Set(['0,2', '297,299', ...line.slice(1).map((_, k) => `${k},${k + 1}`)]));
  const heap = Array.from({ length: 40 }, (): Vec3 => [1, 2, 3]);
  // All are equally far: the first ones are taken.
  expect(new Set((await nearestLinks(heap, 1, Infinity, still)).map(String))).toEqual(
    new Set(Array.from({ length: 39 }, (_, k) => `0,${k + 1}`)),
  );
  const far = [...cloud(50, 3), ...cloud(50, 4).map(([x, y, z]): Vec3 => [x + 1000, y, z])];
  for (const [a, b] of await nearestLinks(far, 5, Infinity, still)) expect(a < 50).toBe(b < 50);
});

test('distances from the hub go along the links, by another algorithm too (Floyd and Warshall 1962)', () => {
  const nodes = cloud(40, 11);
  const links = pairs(40).filter((_, k) => k % 9 === 0);
  const table = nodes.map((_, a) => nodes.map((__, b) => (a === b ? 0 : Infinity)));
  for (const [a, b] of links) table[a][b] = table[b][a] = distance(nodes[a], nodes[b]);
  for (let k = 0; k < 40; k++)
    for (let a = 0; a < 40; a++)
      for (let b = 0; b < 40; b++) table[a][b] = Math.min(table[a][b], table[a][k] + table[k][b]);
  const told = hubDistances(nodes, links, 4);
  table[4].forEach((d, k) => {
    if (d < Infinity) expect(told[k]).toBeCloseTo(d, 9);
  });
  // What hangs on nothing begins when the front would be there straight.
  const apart = hubDistances(
    [
      [0, 0, 0],
      [1, 0, 0],
      [4, 0, 0],
      [6, 0, 0],
    ],
    [
      [0, 1],
      [2, 3],
    ],
    0,
  );
  expect([...apart]).toEqual([0, 1, 4, 6]);
  expect(hubLinks(nodes, 4)).toHaveLength(39);
});

test('each pair is told once, the smaller number first, by the first and then by the second', () => {
  const pairs = [
    [4, 0],
    [2, 1],
    [0, 3],
    [1, 2],
    [0, 1],
    [3, 0],
  ] as const;
  expect(uniqueLinks(pairs)).toEqual([
    [0, 1],
    [0, 3],
    [0, 4],
    [1, 2],
  ]);
});
