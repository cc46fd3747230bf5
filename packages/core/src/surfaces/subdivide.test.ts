import { areaAndVolume, faceCount, type Mesh, topology, weld } from '../geometry/mesh';
import { emptyForm } from '../geometry/form';
import { flaws } from '../geometry/invariants';
import { at, distance, dot, type Vec3 } from '../geometry/vec';
import { blade } from './blade';
import { plateOf } from './plate';
import { box, cylinder, platonic, torus } from './solids';
import { subdivided, thickened } from './subdivide';
import { angleBetween, withSoftNormals } from './softNormals';

const places = (mesh: Mesh): Vec3[] => Array.from(weld(mesh).first, (i) => at(mesh.positions, i));
const has = (mesh: Mesh, place: Vec3): boolean => places(mesh).some((p) => distance(p, place) < 1e-6);
/** An open sheet of so many squares, one metre wide, in the plane of X and Y. */
function sheet(n: number): Mesh {
  const base = blade({
    length: 1,
    width: 1,
    outline: () => 1,
    stalk: 0,
    fold: 0,
    cup: 0,
    droop: 0,
    thick: 0,
    rows: n,
    columns: n,
  });
  const front = (n + 1) * (2 * n + 1);
  return {
    ...base,
    indices: base.indices.filter(
      (_, i) =>
        base.indices[3 * Math.floor(i / 3)] < front &&
        base.indices[3 * Math.floor(i / 3) + 1] < front &&
        base.indices[3 * Math.floor(i / 3) + 2] < front,
    ),
  };
}

// Catmull and Clark, Recursively generated B-spline surfaces on arbitrary topological meshes, 1978: of a cube.
describe('Catmull-Clark', () => {
  const cube = box(2, 2, 2);
  const once = subdivided(cube, 1, Math.PI);

  test('a cube comes to 26 vertices and 24 faces', () => {
    expect(topology(once)).toMatchObject({ vertices: 26, openEdges: 0, flippedEdges: 0, euler: 2 });
    expect(faceCount(once)).toBe(48);
  });

  test('face, edge and corner points lie where the rule puts them', () => {
    expect(has(once, [1, 0, 0])).toBe(true);
    // The mean of two ends (1, ±1, 1) and two face points: (1 + 1 + 1 + 0) / 4.
    expect(has(once, [0.75, 0, 0.75])).toBe(true);
    // (Q + 2R + (n − 3)S) / n with Q = 1/3, R = 2/3 each way, n = 3.
    expect(has(once, [5 / 9, 5 / 9, 5 / 9])).toBe(true);
  });

  test('creases are kept: a cube whose edges stay sharp stays a cube', () => {
    const kept = subdivided(cube, 2, Math.PI / 4);
    expect(areaAndVolume(kept).volume).toBeCloseTo(8, 6);
    expect(has(kept, [1, 1, 1])).toBe(true);
    const round = subdivided(cube, 3, Math.PI);
    expect(areaAndVolume(round).volume).toBeLessThan(5);
  });

  test('whatever it is given, it stays closed and keeps its kind', () => {
    for (const mesh of [
      platonic('tetrahedron', 1),
      platonic('dodecahedron', 1),
      torus(1, 0.3, 12),
      cylinder(1, 1, 2, 8),
    ]) {
      const result = subdivided(mesh, 2, Math.PI);
      expect(topology(result)).toMatchObject({ openEdges: 0, flippedEdges: 0, euler: topology(mesh).euler });
      expect(flaws({ ...emptyForm(), mesh: result })).toEqual([]);
    }
  });

  test('the edge of an open sheet stays straight', () => {
    const result = subdivided(sheet(2), 1, Math.PI);
    expect(Math.max(...places(result).map(([x]) => x))).toBeCloseTo(0.5, 6);
    expect(areaAndVolume(result).area).toBeGreaterThan(0.9);
  });
});

describe('thickening', () => {
  // A closed surface of characteristic χ becomes two of them, 2χ; a disc (χ = 1) becomes a ball (2), a ring (0) a torus (0).
  test('an open sheet closes: twice its characteristic, and its volume is area times thickness', () => {
    const open = sheet(4);
    expect(topology(open)).toMatchObject({ euler: 1 });
    const solid = thickened(open, 0.02, 0);
    expect(topology(solid)).toMatchObject({ openEdges: 0, flippedEdges: 0, euler: 2 });
    expect(areaAndVolume(solid).volume).toBeCloseTo(0.02, 5);
    expect(flaws({ ...emptyForm(), mesh: solid })).toEqual([]);
  });

  test('a box becomes a shell of even walls', () => {
    const shell = thickened(box(1, 1, 1), 0.1, -1);
    expect(topology(shell)).toMatchObject({ openEdges: 0, flippedEdges: 0, euler: 4 });
    expect(areaAndVolume(shell).volume).toBeCloseTo(1 - 0.8 ** 3, 5);
  });

  test('a ring of no ends keeps characteristic 0', () => {
    expect(topology(thickened(torus(1, 0.3, 16), 0.05, 1))).toMatchObject({ openEdges: 0, euler: 0 });
  });
});

describe('soft edges', () => {
  test('below the limit all faces of a corner share a normal, above each keeps its own', () => {
    const soft = withSoftNormals(box(1, 1, 1), Math.PI);
    for (let i = 0; i < soft.positions.length / 3; i++) {
      const [x, y, z] = at(soft.positions, i);
      expect(dot(at(soft.normals, i), [x, y, z]) / Math.hypot(x, y, z)).toBeCloseTo(1, 3);
    }
    const hard = withSoftNormals(box(1, 1, 1), Math.PI / 4);
    expect(hard.positions.length / 3).toBe(24);
  });

  test('angles between vectors', () => {
    expect(angleBetween([1, 0, 0], [0, 2, 0])).toBeCloseTo(Math.PI / 2, 12);
    expect(angleBetween([1, 0, 0], [-1, 0, 0])).toBeCloseTo(Math.PI, 12);
  });
});

test('a plate with a hole is closed, goes once through, and has the volume of its area', () => {
  const square = (r: number): number[] => [-r, -r, r, -r, r, r, -r, r];
  const hole = [-0.5, -0.5, -0.5, 0.5, 0.5, 0.5, 0.5, -0.5];
  const mesh = plateOf([{ outer: square(1), holes: [hole] }], 0.2, true, {
    origin: [3, 0, 0],
    x: [1, 0, 0],
    y: [0, 1, 0],
  });
  expect(topology(mesh)).toMatchObject({ openEdges: 0, flippedEdges: 0, euler: 0 });
  expect(areaAndVolume(mesh).volume).toBeCloseTo((4 - 1) * 0.2, 6);
  expect(flaws({ ...emptyForm(), mesh })).toEqual([]);
});
