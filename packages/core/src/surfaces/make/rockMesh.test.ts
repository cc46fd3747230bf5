import { emptyForm } from '../../geometry/form';
import { flaws } from '../../geometry/invariants';
import { areaAndVolume, type Mesh } from '../../geometry/mesh';
import { topologyCounts } from '../../geometry/topology/topology';
import { nearestPlace } from '../../geometry/search/nearest';
import { at, cross, dot, partWay, sub, unit, type Vec3 } from '../../geometry/vec';
import { hash } from '../../fields/random';
import { rock, type Rock } from './rockMesh';

const PLAIN: Rock = {
  width: 1.6,
  height: 1,
  depth: 1.3,
  pieces: 24,
  sides: 14,
  edges: 0.6,
  lumps: 0.12,
  rough: 0.05,
  grain: 0.3,
  base: 0.2,
  seed: 7,
};
const made = (own: Partial<Rock>): Promise<Mesh> => rock({ ...PLAIN, ...own }, () => Promise.resolve());

/** The box of a mesh: least and greatest of each axis. */
const box = ({ positions }: Mesh): number[] =>
  [0, 1, 2].flatMap((c) => {
    const own = [...positions].filter((_, i) => i % 3 === c);
    return [Math.min(...own), Math.max(...own)];
  });

/** Which way a face looks, as long as twice its area. */
function normalAt({ positions, indices }: Mesh, face: number): Vec3 {
  const [a, b, c] = [0, 1, 2].map((k) => at(positions, indices[3 * face + k]));
  return cross(sub(b, a), sub(c, a));
}

describe('rock', () => {
  test.each([{}, { base: 0 }, { base: 0.45 }, { lumps: 1, rough: 1 }, { sides: 0 }, { edges: 1 }, { pieces: 2 }])(
    'is closed, in one piece, turned outwards and fills its box: %p',
    async (own) => {
      const mesh = await made(own);
      expect(flaws({ ...emptyForm(), mesh })).toEqual([]);
      expect(topologyCounts(mesh)).toMatchObject({
        openEdges: 0,
        flippedEdges: 0,
        euler: 2,
        vertices: mesh.positions.length / 3,
      });
      const volume = areaAndVolume(mesh).volume;
      expect(volume).toBeGreaterThan(0.05 * 1.6 * 1.3);
      expect(volume).toBeLessThan(1.6 * 1.3);
      [-0.8, 0.8, 0, 1, -0.65, 0.65].forEach((edge, i) => expect(box(mesh)[i]).toBeCloseTo(edge, 6));
    },
  );

  test('without sides and relief it is the ellipsoid of its box, approached with the square of the pieces', async () => {
    // Volume of an ellipsoid: π/6 of its box.
    const errors = await Promise.all(
      [12, 24].map(async (pieces) => {
        const mesh = await made({ sides: 0, lumps: 0, rough: 0, base: 0, pieces });
        return 1 - areaAndVolume(mesh).volume / ((Math.PI / 6) * 1.6 * 1.3);
      }),
    );
    expect(errors[1]).toBeGreaterThan(0);
    expect(errors[0] / errors[1]).toBeCloseTo(4, 0);
  });

  test.each([0, 0.5, 1])('without relief it is convex, whatever its edges: %p', async (edges) => {
    const mesh = await made({ lumps: 0, rough: 0, edges, pieces: 48 });
    const n = mesh.positions.length / 3;
    // A body is convex where it holds the middle of any two of its places.
    let out = -Infinity;
    for (let k = 0; k < 4000; k++) {
      const [a, b] = [0, 1].map((c) => at(mesh.positions, hash(1, k, c) % n));
      const middle = partWay(a, b, 0.5);
      const near = nearestPlace(mesh, middle)!;
      out = Math.max(out, dot(sub(middle, near.position), unit(normalAt(mesh, near.face))));
    }
    // Rounded to the chords of a mesh of this fineness.
    expect(out).toBeLessThan(0.004);
  });

  test('sharp edges leave flat sides: more of the faces look the same way as some other', async () => {
    const alike = async (edges: number): Promise<number> => {
      const mesh = await made({ lumps: 0, rough: 0, edges, base: 0, pieces: 16 });
      const normals = Array.from({ length: mesh.indices.length / 3 }, (_, f) => unit(normalAt(mesh, f)));
      const near = normals.map((p) => normals.filter((q) => dot(p, q) > 0.9995).length);
      return near.filter((count) => count > 8).length / normals.length;
    };
    expect(await alike(1)).toBeGreaterThan(2 * (await alike(0)) + 0.3);
  });

  test('more pieces show the same boulder more finely; another seed is another one', async () => {
    const volume = async (own: Partial<Rock>): Promise<number> => areaAndVolume(await made(own)).volume;
    const [coarse, fine, other] = [
      await volume({ pieces: 24 }),
      await volume({ pieces: 96 }),
      await volume({ seed: 8 }),
    ];
    expect(Math.abs(fine / coarse - 1)).toBeLessThan(0.03);
    expect(Math.abs(other / coarse - 1)).toBeGreaterThan(0.002);
  });
});
