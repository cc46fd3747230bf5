import { areaAndVolume, type Mesh } from '../../geometry/mesh';
import { weld } from '../../geometry/topology/weld';
import { at, distance, norm, type Vec3 } from '../../geometry/vec';
import { ball, box, cylinder } from '../make/solids';
import { subdivideMesh } from './subdivideMesh';
import { thickenMesh } from './thickenMesh';

/** The vertex nearest to a place. */
function nearest(mesh: Mesh, place: Vec3): Vec3 {
  let best: Vec3 = [Infinity, 0, 0];
  for (const i of weld(mesh).first) {
    const here = at(mesh.positions, i);
    if (distance(here, place) < distance(best, place)) best = here;
  }
  return best;
}

/** A net of squares over whole x and z, as high as is said there. */
function net(width: number, depth: number, height: (x: number, z: number) => number): Mesh {
  const [positions, indices]: number[][] = [[], []];
  for (let z = 0; z <= depth; z++) for (let x = 0; x <= width; x++) positions.push(x, height(x, z), z);
  const index = (x: number, z: number): number => z * (width + 1) + x;
  for (let z = 0; z < depth; z++)
    for (let x = 0; x < width; x++) {
      const [a, b, c, d] = [index(x, z), index(x, z + 1), index(x + 1, z + 1), index(x + 1, z)];
      indices.push(a, b, c, a, c, d);
    }
  const n = positions.length / 3;
  return {
    ...box(1, 1, 1),
    positions: Float32Array.from(positions),
    normals: Float32Array.from({ length: 3 * n }, (_, i) => Number(i % 3 === 1)),
    uvs: new Float32Array(2 * n),
    indices: Uint32Array.from(indices),
  };
}

describe('where subdividing leads to', () => {
  // (n² v + 4 Σ e + Σ f) / (n (n + 5)) for a vertex of valence n, its neighbours e and the far corners f of its squares: Halstead,
  // Kass, DeRose, Efficient, fair interpolation using Catmull-Clark surfaces, SIGGRAPH 1993, section 3.
  test('a corner of a cube comes to half its height, inner vertices of a net to the means of their mask', async () => {
    const round = await subdivideMesh(box(2, 2, 2), 5, Math.PI);
    // (9 (1,1,1) + 4 (1,1,1) − (1,1,1)) / 24; five levels are within (1/2)^10 or so of the limit.
    expect(distance(nearest(round, [0.5, 0.5, 0.5]), [0.5, 0.5, 0.5])).toBeLessThan(4e-3);

    // A ridge of height 1 in a flat net, n = 4: (16 + 4 · 2) / 36 on it, (4 + 2) / 36 beside it.
    const ridge = await subdivideMesh(
      net(6, 6, (x) => Number(x === 3)),
      4,
      Math.PI,
    );
    for (const [x, height] of [
      [3, 2 / 3],
      [2, 1 / 6],
      [4, 1 / 6],
      [1, 0],
    ])
      expect(distance(nearest(ridge, [x, height, 3]), [x, height, 3])).toBeLessThan(3e-3);
  });

  // Boundaries and creases become cubic B-splines of their own vertices, (a + 4b + c) / 6 at each, whatever lies beside them:
  // DeRose, Kass, Truong, Subdivision surfaces in character animation, SIGGRAPH 1998, section 3.
  test.each([
    ['the border of a sheet', 0, Math.PI],
    ['a ridge that stays sharp', 3, 1],
  ])('%s is the cubic B-spline of its own vertices', async (_, z, crease) => {
    const own = [0, 0.4, -0.2, 0.5, 0.1, 0.3, 0];
    // Beside the border the sheet does as it likes; the ridge stands on a steep roof.
    const height = (x: number, at: number): number =>
      z === 0 ? (at === 0 ? own[x] : Math.sin(7 * x + 3 * at)) : own[x] - 2 * Math.abs(at - z);
    const result = await subdivideMesh(net(6, 6, height), 4, crease);
    for (let x = 1; x < 6; x++) {
      const limit = (own[x - 1] + 4 * own[x] + own[x + 1]) / 6;
      expect(distance(nearest(result, [x, limit, z]), [x, limit, z])).toBeLessThan(5e-3);
    }
  });
});

// Parallel surfaces: do Carmo, Differential Geometry of Curves and Surfaces, 1976, section 3-5, exercise 11; those of a sphere
// and of a cylinder are such again.
describe('curved sheets made thick', () => {
  const radii = (mesh: Mesh, axis: boolean): number[] => [
    ...new Set(
      Array.from(weld(mesh).first, (i) => {
        const [x, y, z] = at(mesh.positions, i);
        return Number(norm(x, axis ? 0 : y, z).toFixed(3));
      }),
    ),
  ];

  test.each([
    [-1, [0.9, 1]],
    [0, [0.95, 1.05]],
    [1, [1, 1.1]],
  ] as const)('a sphere, side %d, becomes two, each as far from it as is said', async (side, [inner, outer]) => {
    let before = Infinity;
    for (const sides of [16, 32, 64]) {
      const shell = await thickenMesh(ball(1, sides), 0.1, side);
      for (const r of radii(shell, false)) {
        const off = Math.min(Math.abs(r - inner), Math.abs(r - outer));
        // Facets keep the distance: corners go further, by how much facets lean both ways.
        expect(off).toBeLessThan(0.1 * (1 / Math.cos(Math.PI / sides) ** 2 - 1) + 1e-3);
      }
      const whole = ((4 * Math.PI) / 3) * (outer ** 3 - inner ** 3);
      const error = Math.abs(areaAndVolume(shell).volume / whole - 1);
      // Of second order in the size of the facets: half of it leaves a quarter.
      expect(error).toBeLessThan(before / 3.4);
      before = error;
    }
  });

  test('the wall of a cylinder stands off evenly, caps and all', async () => {
    const shell = await thickenMesh(cylinder(1, 1, 2, 64), 0.1, -1);
    const facet = Math.cos(Math.PI / 64);
    const volume = 0.5 * 64 * Math.sin((2 * Math.PI) / 64) * (2 - 1.8 * (1 - 0.1 / facet) ** 2);
    expect(areaAndVolume(shell).volume / volume).toBeCloseTo(1, 4);
    for (const r of radii(shell, true).filter((radius) => radius > 0.1))
      expect(Math.min(Math.abs(r - 0.9), Math.abs(r - 1))).toBeLessThan(2e-3);
  });
});
