import { areaAndVolume, faceCount, type Mesh } from '../../geometry/mesh';
import { topologyCounts } from '../../geometry/topology/topology';
import { EdgeTable, weld } from '../../geometry/topology/weld';
import { emptyForm } from '../../geometry/form';
import { flaws } from '../../geometry/invariants';
import { at, distance, dot, type Vec3 } from '../../geometry/vec';
import { blade } from '../make/bladeMesh';
import { plateOf } from '../sweep/extrudePlate';
import { box, cylinder, platonic, torus } from '../make/solids';
import { subdivideMesh } from './subdivideMesh';
import { thickenMesh } from './thickenMesh';
import { angleBetween, withSoftNormals } from './smoothNormals';

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
  let once: Mesh;
  beforeAll(async () => void (once = await subdivideMesh(cube, 1, Math.PI)));

  test('a cube comes to 26 vertices and 24 faces', () => {
    expect(topologyCounts(once)).toMatchObject({ vertices: 26, openEdges: 0, flippedEdges: 0, euler: 2 });
    expect(faceCount(once)).toBe(48);
  });

  test('face, edge and corner points lie where the rule puts them', () => {
    expect(has(once, [1, 0, 0])).toBe(true);
    // The mean of two ends (1, ±1, 1) and two face points: (1 + 1 + 1 + 0) / 4.
    expect(has(once, [0.75, 0, 0.75])).toBe(true);
    // (Q + 2R + (n − 3)S) / n with Q = 1/3, R = 2/3 each way, n = 3.
    expect(has(once, [5 / 9, 5 / 9, 5 / 9])).toBe(true);
  });

  test('creases are kept: a cube whose edges stay sharp stays a cube', async () => {
    const kept = await subdivideMesh(cube, 2, Math.PI / 4);
    expect(areaAndVolume(kept).volume).toBeCloseTo(8, 6);
    expect(has(kept, [1, 1, 1])).toBe(true);
    const round = await subdivideMesh(cube, 3, Math.PI);
    expect(areaAndVolume(round).volume).toBeLessThan(5);
  });

  test('whatever it is given, it stays closed and keeps its kind', async () => {
    for (const mesh of [
      platonic('tetrahedron', 1),
      platonic('dodecahedron', 1),
      torus(1, 0.3, 12),
      cylinder(1, 1, 2, 8),
    ]) {
      const result = await subdivideMesh(mesh, 2, Math.PI);
      expect(topologyCounts(result)).toMatchObject({
        openEdges: 0,
        flippedEdges: 0,
        euler: topologyCounts(mesh).euler,
      });
      expect(flaws({ ...emptyForm(), mesh: result })).toEqual([]);
    }
  });

  test('the edge of an open sheet stays straight', async () => {
    const result = await subdivideMesh(sheet(2), 1, Math.PI);
    expect(Math.max(...places(result).map(([x]) => x))).toBeCloseTo(0.5, 6);
    expect(areaAndVolume(result).area).toBeGreaterThan(0.9);
  });
});

describe('thickening', () => {
  // A closed surface of characteristic χ becomes two of them, 2χ; a disc (χ = 1) becomes a ball (2), a ring (0) a torus (0).
  test('an open sheet closes: twice its characteristic, and its volume is area times thickness', async () => {
    const open = sheet(4);
    expect(topologyCounts(open)).toMatchObject({ euler: 1 });
    const solid = await thickenMesh(open, 0.02, 0);
    expect(topologyCounts(solid)).toMatchObject({ openEdges: 0, flippedEdges: 0, euler: 2 });
    expect(areaAndVolume(solid).volume).toBeCloseTo(0.02, 5);
    expect(flaws({ ...emptyForm(), mesh: solid })).toEqual([]);
  });

  test('a box becomes a shell of even walls', async () => {
    const shell = await thickenMesh(box(1, 1, 1), 0.1, -1);
    expect(topologyCounts(shell)).toMatchObject({ openEdges: 0, flippedEdges: 0, euler: 4 });
    expect(areaAndVolume(shell).volume).toBeCloseTo(1 - 0.8 ** 3, 5);
  });

  test('the walls of all Platonic solids are as thick as is said, the sharp tetrahedron’s too', async () => {
    for (const which of ['tetrahedron', 'cube', 'octahedron', 'dodecahedron', 'icosahedron'] as const) {
      const mesh = platonic(which, 1);
      const { area, volume } = areaAndVolume(mesh);
      // What is left inside is the same solid, smaller in the ratio of the inradii; the inradius of a solid about a sphere is
      // three times its volume over its area.
      const inradius = (3 * volume) / area;
      for (const thick of [0.1 * inradius, 0.5 * inradius]) {
        const shell = await thickenMesh(mesh, thick, -1);
        const left = volume * ((inradius - thick) / inradius) ** 3;
        expect(areaAndVolume(shell).volume / (volume - left)).toBeCloseTo(1, 4);
      }
    }
  });

  test('both faces stay soft and hard where the sheet is, however sharply it bends, and its seams stay', async () => {
    // A square folded by a right angle along its middle, as one soft surface: the fold has one normal.
    const flat = sheet(2);
    const positions = flat.positions.map((x, i) => (i % 3 === 2 ? Math.abs(flat.positions[i - 2]) : x));
    const folded = await withSoftNormals({ ...flat, positions }, Math.PI);
    const n = folded.positions.length / 3;
    const solid = await thickenMesh(folded, 0.02, 0);
    expect(solid.uvs.subarray(0, 2 * n)).toEqual(folded.uvs);
    const onFold = (mesh: Mesh, from: number, to: number): number[] =>
      Array.from({ length: to - from }, (_, k) => from + k).filter((i) => Math.abs(mesh.positions[3 * i]) < 1e-6);
    const [outer, inner] = [onFold(solid, 0, n), onFold(solid, n, 2 * n)];
    expect(outer.length).toBe(onFold(folded, 0, n).length);
    for (const [own, side] of [
      [outer, 1],
      [inner, -1],
    ] as const)
      for (const i of own) {
        // Halfway between both halves, which lean by 45° to either side.
        expect(solid.normals[3 * i]).toBeCloseTo(0, 5);
        expect(Math.abs(solid.normals[3 * i + 2])).toBeCloseTo(1, 5);
        expect(Math.sign(solid.normals[3 * i + 2])).toBe(side * Math.sign(solid.normals[3 * outer[0] + 2]));
      }
    // With hard edges there it has two, and keeps them.
    const hard = await thickenMesh(await withSoftNormals({ ...flat, positions }, 0.5), 0.02, 0);
    const leaning = [...Array(hard.positions.length / 3).keys()].filter(
      (i) => Math.abs(hard.positions[3 * i]) < 1e-6 && Math.abs(hard.normals[3 * i + 1]) < 0.1,
    );
    expect(leaning.length).toBeGreaterThan(0);
    for (const i of leaning) expect(Math.abs(hard.normals[3 * i])).toBeCloseTo(Math.SQRT1_2, 2);
  });

  test('rims stand square to both faces and have corners where the border has; they know what the sheet knows there', async () => {
    const flat = sheet(4);
    const n = flat.positions.length / 3;
    const solid = await thickenMesh(flat, 0.02, 0);
    const rims = Array.from({ length: solid.positions.length / 3 - 2 * n }, (_, k) => 2 * n + k);
    expect(rims.length).toBeGreaterThan(0);
    for (const i of rims) {
      const [x, y, z] = at(solid.normals, i);
      expect(z).toBeCloseTo(0, 6);
      // Along one of the four sides, not across a corner.
      expect(Math.max(Math.abs(x), Math.abs(y))).toBeCloseTo(1, 5);
      // The texture is that of the vertex of the sheet which it came from.
      const own = Array.from({ length: n }, (_, k) => k).find(
        (k) =>
          Math.hypot(
            flat.positions[3 * k] - solid.positions[3 * i],
            flat.positions[3 * k + 1] - solid.positions[3 * i + 1],
          ) < 1e-5,
      )!;
      expect([...solid.uvs.subarray(2 * i, 2 * i + 2)]).toEqual([...flat.uvs.subarray(2 * own, 2 * own + 2)]);
    }
  });

  test('a ring of no ends keeps characteristic 0', async () => {
    expect(topologyCounts(await thickenMesh(torus(1, 0.3, 16), 0.05, 1))).toMatchObject({ openEdges: 0, euler: 0 });
  });
});

describe('soft edges', () => {
  test('below the limit all faces of a corner share a normal, above each keeps its own', async () => {
    const soft = await withSoftNormals(box(1, 1, 1), Math.PI);
    for (let i = 0; i < soft.positions.length / 3; i++) {
      const [x, y, z] = at(soft.positions, i);
      expect(dot(at(soft.normals, i), [x, y, z]) / Math.hypot(x, y, z)).toBeCloseTo(1, 3);
    }
    const hard = await withSoftNormals(box(1, 1, 1), Math.PI / 4);
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
  expect(topologyCounts(mesh)).toMatchObject({ openEdges: 0, flippedEdges: 0, euler: 0 });
  expect(areaAndVolume(mesh).volume).toBeCloseTo((4 - 1) * 0.2, 6);
  expect(flaws({ ...emptyForm(), mesh })).toEqual([]);
});

describe('long work', () => {
  test('yields often, and ends at once when it is no longer wanted', async () => {
    const mesh = torus(1, 0.3, 64);
    let yields = 0;
    const yieldNow = (): Promise<void> => {
      if (++yields > 6) throw new Error('no longer wanted');
      return Promise.resolve();
    };
    await expect(subdivideMesh(mesh, 3, Math.PI, yieldNow)).rejects.toThrow('no longer wanted');
    expect(yields).toBe(7);
  });
});

describe('welds and edges', () => {
  const mesh = (flat: number[]): Pick<Mesh, 'positions'> => ({ positions: Float32Array.from(flat) });

  test('places are one bit for bit, −0 and 0 among them; the next float is another place', () => {
    const { of, first } = weld(mesh([0, 1, 2, -0, 1, 2, 0, 1, 2.0000002, 0, 1, 2]));
    expect([...of]).toEqual([0, 0, 1, 0]);
    expect([...first]).toEqual([0, 2]);
  });

  test('as many places as a set of texts finds, for many places at random', () => {
    const flat = Array.from({ length: 30_000 }, (_, i) => Math.fround(Math.floor(((i * 7919) % 1013) / 31) / 7));
    const texts = new Set(Array.from({ length: 10_000 }, (_, i) => flat.slice(3 * i, 3 * i + 3).join()));
    expect(weld(mesh(flat)).first).toHaveLength(texts.size);
  });

  test('edges have one number either way', () => {
    const table = new EdgeTable(4);
    expect([table.idOf(5, 2), table.idOf(2, 5), table.idOf(2, 6), table.idOf(5, 2)]).toEqual([0, 0, 1, 0]);
    expect([table.count, ...table.ends.subarray(0, 4)]).toEqual([2, 2, 5, 2, 6]);
  });
});
