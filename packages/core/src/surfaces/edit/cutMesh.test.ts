import fc from 'fast-check';
import { areaAndVolume, faceCount, type Mesh, meshWith, vertexCount } from '../../geometry/mesh';
import { at, cross, distance, sub } from '../../geometry/vec';
import { topologyCounts } from '../../geometry/topology/topology';
import { pathCount } from '../../geometry/paths';
import { arcLengths } from '../../curves/arclength';
import { meanCurvatures } from './curvature';
import { contoursOf } from './contourLines';
import { cellWire } from '../make/cellEdges';
import { cutMesh } from './cutMesh';
import { followedNormals } from './updateNormals';
import { Refining } from './refineMesh';
import { ball, box, cylinder, torus } from '../make/solids';

const heights = ({ positions }: Mesh, level = 0): Float64Array =>
  Float64Array.from({ length: positions.length / 3 }, (_, i) => positions[3 * i + 1] - level);
const against = (field: Float64Array): Float64Array => field.map((value) => -value);

describe('a mesh that is cut', () => {
  test('leaves two parts that are the whole together, whatever the line', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.constantFrom(ball(1, 24), box(1, 2, 0.5), torus(1, 0.3, 20)),
        fc.tuple(...[0, 1, 2].map(() => fc.double({ min: -1, max: 1, noNaN: true }))),
        fc.double({ min: -0.6, max: 0.6, noNaN: true }),
        async (mesh, way, level) => {
          const { positions } = mesh;
          const field = Float64Array.from({ length: vertexCount(mesh) }, (_, i) =>
            way.reduce((sum, w, c) => sum + w * positions[3 * i + c], -level),
          );
          const parts = [await cutMesh(mesh, field), await cutMesh(mesh, against(field))];
          const areas = parts.map((part) => areaAndVolume(part).area);
          expect(areas[0] + areas[1]).toBeCloseTo(areaAndVolume(mesh).area, 4);
        },
      ),
      { numRuns: 60 },
    );
  });

  test('closed, both parts are solids, and their volumes are the whole', async () => {
    const mesh = ball(1, 64);
    const [upper, lower] = [
      await cutMesh(mesh, heights(mesh, 0.5), true),
      await cutMesh(mesh, against(heights(mesh, 0.5)), true),
    ];
    for (const part of [upper, lower])
      expect(topologyCounts(part)).toMatchObject({ openEdges: 0, flippedEdges: 0, euler: 2 });
    const [up, low, whole] = [upper, lower, mesh].map((part) => areaAndVolume(part).volume);
    expect(up + low).toBeCloseTo(whole, 5);
    // The cap of a sphere: π h² (3 r − h) / 3 (Archimedes).
    expect(up).toBeCloseTo((Math.PI * 0.25 * 2.5) / 3, 2);
  });

  /** Area of the covers: of faces that look straight down at a level. */
  const coverArea = async (mesh: Mesh, level: number): Promise<number> => {
    const cut = await cutMesh(mesh, heights(mesh, level), true);
    expect(topologyCounts(cut).flippedEdges).toBe(0);
    let sum = 0;
    for (let f = 0; f < cut.indices.length; f += 3) {
      const [a, b, c] = [0, 1, 2].map((k) => at(cut.positions, cut.indices[f + k]));
      if (![a, b, c].every((place) => Math.abs(place[1] - level) < 1e-4)) continue;
      const [, y] = cross(sub(b, a), sub(c, a));
      sum -= y / 2;
    }
    return sum;
  };
  const inwards = (mesh: Mesh): Mesh => ({
    ...mesh,
    indices: mesh.indices.map((_, i, all) => all[i - (i % 3) + 2 - (i % 3)]),
  });
  const two = (a: Mesh, b: Mesh): Mesh =>
    meshWith({
      positions: Float32Array.from([...a.positions, ...b.positions]),
      normals: Float32Array.from([...a.normals, ...b.normals]),
      uvs: Float32Array.from([...a.uvs, ...b.uvs]),
      indices: Uint32Array.from([...a.indices, ...b.indices.map((i) => i + a.positions.length / 3)]),
    });

  test('a cut that goes exactly through vertices is closed as those beside it are', async () => {
    const mesh = ball(0.5, 64);
    for (const level of [-1e-4, 0, 1e-4]) expect(await coverArea(mesh, level)).toBeCloseTo(Math.PI / 4, 2);
    for (const level of new Set(mesh.positions.filter((y, i) => i % 3 === 1 && Math.abs(y) < 0.45)))
      expect(await coverArea(mesh, level)).toBeCloseTo(Math.PI * (0.25 - level * level), 1);
  });

  // Areas in closed form: an annulus is π (R² − r²), a torus cut across its axis 4 π R r.
  test('rims within rims are holes: a wall, a ring, a ball in the hole of another', async () => {
    const wall = two(ball(0.5, 96), inwards(ball(0.4, 96)));
    for (const level of [0, 0.13]) expect(await coverArea(wall, level)).toBeCloseTo(Math.PI * (0.25 - 0.16), 2);
    expect(await coverArea(torus(0.5, 0.2, 96), 0.001)).toBeCloseTo(4 * Math.PI * 0.5 * 0.2, 2);
    const nested = two(wall, ball(0.2, 96));
    expect(await coverArea(nested, 0.001)).toBeCloseTo(Math.PI * (0.25 - 0.16 + 0.04), 2);
  });

  test('has its new corners on the line, with everything in between', async () => {
    const mesh = ball(1, 24);
    const named = {
      mark: {
        domain: 'vertex',
        width: 1,
        blend: 'mix',
        missing: 0,
        values: Float32Array.from(heights(mesh), (y) => 3 * y + 1),
      },
    } as const;
    const cut = await cutMesh({ ...mesh, named }, heights(mesh, 0.2));
    let lowest = Infinity;
    for (let i = 0; i < vertexCount(cut); i++) {
      lowest = Math.min(lowest, cut.positions[3 * i + 1]);
      expect(cut.named.mark.values[i]).toBeCloseTo(3 * cut.positions[3 * i + 1] + 1, 4);
    }
    expect(lowest).toBeCloseTo(0.2, 5);
  });

  test('of which nothing or all is left is that', async () => {
    const mesh = box(1, 1, 1);
    expect(vertexCount(await cutMesh(mesh, heights(mesh, 9), true))).toBe(0);
    expect((await cutMesh(mesh, heights(mesh, -9))).indices).toEqual(mesh.indices);
  });
});

test('halving edges leaves no gap, and the surface as it was', async () => {
  const mesh = ball(1, 24);
  const kept = mesh.indices.slice();
  const high = (a: number, b: number): boolean => mesh.positions[3 * a + 1] + mesh.positions[3 * b + 1] > 0.3;
  const refining = new Refining(mesh);
  const parts = (await refining.halve(high))!;
  const halved = { ...refining.mesh, indices: refining.mesh.indices.slice() };
  expect(vertexCount(halved)).toBeGreaterThan(vertexCount(mesh) + 100);
  expect(topologyCounts(halved)).toMatchObject({ openEdges: 0, flippedEdges: 0, euler: 2 });
  const [before, after] = [areaAndVolume(mesh), areaAndVolume(halved)];
  expect(after.area).toBeCloseTo(before.area, 5);
  expect(after.volume).toBeCloseTo(before.volume, 5);
  expect(await refining.halve(() => false)).toBeNull();
  // What is left whole keeps its number, and only parts can be halved further.
  const changed = new Set(parts);
  for (let f = 0; f < faceCount(mesh); f++)
    if (!changed.has(f))
      expect(halved.indices.subarray(3 * f, 3 * f + 3)).toEqual(mesh.indices.subarray(3 * f, 3 * f + 3));
  expect(changed.size).toBe(parts.length);
  expect(faceCount(halved) - Math.min(...parts.filter((f) => f >= faceCount(mesh)))).toBe(
    faceCount(halved) - faceCount(mesh),
  );
  const longer = (a: number, b: number): boolean => distance(at(halved.positions, a), at(halved.positions, b)) > 0.09;
  const upper = (a: number, b: number): boolean => a >= vertexCount(mesh) && b >= vertexCount(mesh) && longer(a, b);
  const anew = new Refining(halved);
  await anew.halve(upper, undefined, parts);
  await refining.halve(upper, undefined, parts);
  // Round after round in arrays that grow, or begun anew: the same.
  expect(refining.mesh.indices).toEqual(anew.mesh.indices);
  expect(refining.mesh.positions).toEqual(anew.mesh.positions);
  expect(refining.mesh.normals).toEqual(anew.mesh.normals);
  expect(topologyCounts(refining.mesh)).toMatchObject({ openEdges: 0, flippedEdges: 0, euler: 2 });
  expect(areaAndVolume(refining.mesh).volume).toBeCloseTo(before.volume, 5);
  // What it was given stays as it was.
  expect(mesh.indices).toEqual(kept);
});

// On a sphere lines of height are circles of radius √(1 − y²).
test('contours of the height of a sphere are circles, closed and as long as those', async () => {
  const mesh = ball(1, 128);
  const levels = [-0.8, -0.3, 0.01, 0.55];
  const lines = await contoursOf(mesh, heights(mesh), levels);
  expect(pathCount(lines)).toBe(4);
  levels.forEach((y, p) => {
    expect(lines.closed[p]).toBe(1);
    const length = arcLengths(lines.positions, lines.offsets[p], lines.offsets[p + 1], true).at(-1)!;
    expect(Math.abs(length / (2 * Math.PI * Math.sqrt(1 - y * y)) - 1)).toBeLessThan(2e-3);
  });
  // Both rings that a level plane cuts a lying ring in.
  const ring = torus(1, 0.3, 64);
  expect(pathCount(await contoursOf(ring, heights(ring), [0.1]))).toBe(2);
});

// Do Carmo, Differential Geometry of Curves and Surfaces, 1976, section 3.3: 1/r, 1/(2r), and on a torus the mean of 1/r and
// cos v / (R + r cos v).
test('mean curvature of a sphere, a cylinder and a torus', async () => {
  const round = ball(0.5, 96);
  const found = await meanCurvatures(round);
  const middle = Array.from(found.keys()).filter((i) => Math.abs(round.positions[3 * i + 1]) < 0.4);
  for (const i of middle) expect(Math.abs(found[i] / 2 - 1)).toBeLessThan(0.01);

  const ring = torus(1, 0.25, 160);
  const turns = await meanCurvatures(ring);
  for (let i = 0; i < turns.length; i += 7) {
    const [x, y, z] = ring.positions.subarray(3 * i, 3 * i + 3);
    const away = [Math.hypot(x, z), Math.hypot(x, y), Math.hypot(y, z)].map((r) => r - 1);
    // Whichever axis it lies about: the one for which all of it is within its own radius.
    const lies = [y, z, x].findIndex((h, k) => Math.abs(Math.hypot(h, away[k]) - 0.25) < 2e-3);
    const cos = away[lies] / 0.25;
    const exact = (1 / 0.25 + cos / (1 + 0.25 * cos)) / 2;
    expect(Math.abs(turns[i] - exact)).toBeLessThan(0.06);
  }

  const tall = cylinder(0.5, 0.5, 3, 64);
  const refining = new Refining(tall);
  await refining.halve(() => true);
  await refining.halve(() => true);
  const sides = refining.mesh;
  const bent = await meanCurvatures(sides);
  for (let i = 0; i < bent.length; i++) {
    const [x, y, z] = sides.positions.subarray(3 * i, 3 * i + 3);
    // Off the edges of both ends, and at the corners of the sides, where all its bending is.
    if (Math.hypot(x, z) < 0.4999 || y < 0.8 || y > 2.2) continue;
    expect(bent[i]).toBeGreaterThan(-1e-3);
  }
});

test('normals that follow: soft stays soft, hard stays hard', async () => {
  // A sphere that swells keeps its normals; a box that is stretched keeps its edges.
  const round = ball(1, 32);
  const swollen = await followedNormals(
    round,
    round.positions.map((x) => 1.5 * x),
  );
  for (let i = 0; i < swollen.length; i++) expect(Math.abs(swollen[i] - round.normals[i])).toBeLessThan(0.03);
  const cube = box(1, 1, 1);
  const sheared = await followedNormals(
    cube,
    cube.positions.map((x, i) => (i % 3 === 0 ? x + cube.positions[i + 1] : x)),
  );
  for (let i = 0; i < vertexCount(cube); i++) {
    const [x, y, z] = cube.normals.subarray(3 * i, 3 * i + 3);
    const length = Math.hypot(x, y - x);
    const exact = Math.abs(z) > 0.5 ? [0, 0, z] : [x / length, (y - x) / length, 0];
    exact.forEach((value, c) => expect(sheared[3 * i + c]).toBeCloseTo(value, 5));
  }
});

describe('a form filled with cells', () => {
  // Eight corners, twelve edges; a block of n³ cubes has 3 n (n + 1)² edges, on its outside all but those of its inner grid.
  test('a box that is just so many cells has their edges, each once', async () => {
    const mesh = box(1, 1, 1);
    const lengthOf = async (which: 'corners' | 'outer' | 'all'): Promise<number> => {
      const wire = await cellWire(mesh, 0.25, which);
      let sum = 0;
      for (let p = 0; p < pathCount(wire); p++)
        sum += arcLengths(wire.positions, wire.offsets[p], wire.offsets[p + 1], wire.closed[p] === 1).at(-1)!;
      return sum / 0.25;
    };
    expect(await lengthOf('all')).toBeCloseTo(3 * 4 * 25, 4);
    expect(await lengthOf('outer')).toBeCloseTo(3 * 4 * (25 - 9), 4);
    expect(await lengthOf('corners')).toBeCloseTo(12 * 4, 4);
  });

  test('fills the inside, and its points know what the skin does there', async () => {
    const mesh = ball(1, 48);
    const named = {
      up: { domain: 'vertex', width: 1, blend: 'mix', missing: 0, values: Float32Array.from(heights(mesh)) },
    } as const;
    const wire = await cellWire({ ...mesh, named }, 0.2, 'all');
    let inner = 0;
    for (let i = 0; i < wire.s.length; i++) {
      const [x, y, z] = wire.positions.subarray(3 * i, 3 * i + 3);
      const away = Math.hypot(x, y, z);
      expect(away).toBeLessThan(1 + 0.2 * Math.sqrt(3));
      if (away < 0.5) inner++;
      // Where the sphere is nearest lies the same way from its middle.
      if (away > 0.3) expect(Math.abs(wire.named.up.values[i] - y / away)).toBeLessThan(0.05);
    }
    expect(inner).toBeGreaterThan(50);
  });
});
