import { emptyForm } from '../../geometry/form';
import { featureEdges } from '../../geometry/topology/featureEdges';
import { flaws } from '../../geometry/invariants';
import { areaAndVolume, type Mesh } from '../../geometry/mesh';
import { topologyCounts } from '../../geometry/topology/topology';
import { at, distance, dot, unit } from '../../geometry/vec';
import { ball, box, crystal, cylinder, type Platonic, platonic, torus } from './solids';

const sound = (mesh: Mesh) => {
  expect(flaws({ ...emptyForm(), mesh })).toEqual([]);
  expect(topologyCounts(mesh)).toMatchObject({ openEdges: 0, flippedEdges: 0 });
  return { ...topologyCounts(mesh), ...areaAndVolume(mesh) };
};

describe('Platonic solids', () => {
  // Corners, edges, faces, dihedral angle and volume for edge 1 (Coxeter, Regular Polytopes, table I; from memory).
  test.each([
    ['tetrahedron', 4, 6, 4, 70.5288, Math.SQRT2 / 12],
    ['cube', 8, 12, 6, 90, 1],
    ['octahedron', 6, 12, 8, 109.4712, Math.SQRT2 / 3],
    ['dodecahedron', 20, 30, 12, 116.5651, (15 + 7 * Math.sqrt(5)) / 4],
    ['icosahedron', 12, 30, 20, 138.1897, (5 * (3 + Math.sqrt(5))) / 12],
  ] as const)(
    '%s: %d corners, %d edges, %d faces, all edges alike, its dihedral angle and volume',
    async (which, v, e, f, dihedral, unitVolume) => {
      const mesh = platonic(which as Platonic, 1);
      const { euler, volume, vertices } = sound(mesh);
      expect([euler, vertices]).toEqual([2, v]);
      const { places, ends } = await featureEdges(mesh, 0.1);
      expect(ends).toHaveLength(2 * e);
      const lengths = Array.from({ length: e }, (_, k) =>
        distance(at(places, ends[2 * k]), at(places, ends[2 * k + 1])),
      );
      for (const length of lengths) expect(length).toBeCloseTo(lengths[0], 5);
      expect(volume / lengths[0] ** 3).toBeCloseTo(unitVolume, 4);
      const normals = new Set(
        Array.from({ length: mesh.normals.length / 3 }, (_, i) =>
          at(mesh.normals, i)
            .map((x) => x.toFixed(4))
            .join(),
        ),
      );
      expect(normals.size).toBe(f);
      // Of two faces at an edge, the normals are 180° less the dihedral angle apart: the least angle between normals.
      const all = [...normals].map((text) => unit(at(text.split(',').map(Number), 0)));
      const nearest = Math.max(...all.slice(1).map((normal) => dot(normal, all[0])));
      expect(180 - (Math.acos(nearest) * 180) / Math.PI).toBeCloseTo(dihedral, 1);
    },
  );
});

describe('round solids', () => {
  // Volumes of geometry, approached with the square of the number of sides.
  test.each([
    ['ball', (n: number) => ball(0.5, n), (4 / 3) * Math.PI * 0.125, 2],
    ['cylinder', (n: number) => cylinder(0.5, 0.5, 2, n), Math.PI * 0.25 * 2, 2],
    ['cone', (n: number) => cylinder(0.5, 0, 2, n), (Math.PI * 0.25 * 2) / 3, 2],
    ['ring', (n: number) => torus(1, 0.25, n), 2 * Math.PI ** 2 * 0.0625, 0],
  ] as const)('%s is closed and comes to its volume', (_, make, volume, euler) => {
    const coarse = sound(make(48));
    const fine = sound(make(96));
    expect(fine.euler).toBe(euler);
    expect(fine.volume / volume).toBeCloseTo(1, 2);
    expect((volume - coarse.volume) / (volume - fine.volume)).toBeCloseTo(4, 0);
  });

  test('box and crystal are as large as is said', () => {
    expect(sound(box(1, 2, 3)).volume).toBeCloseTo(6, 5);
    const { volume, euler } = sound(crystal(0.5, 2, 0.25, 6));
    const hexagon = 6 * 0.5 * 0.25 * Math.sin(Math.PI / 3);
    expect(volume).toBeCloseTo(hexagon * (1.5 + 0.5 / 3), 5);
    expect(euler).toBe(2);
  });

  test('a ball’s normals are its radii, at its poles too; a cone’s tip keeps its slant', () => {
    const round = ball(1, 24);
    for (let i = 0; i < round.normals.length; i++) expect(round.normals[i]).toBeCloseTo(round.positions[i], 5);
    const cone = cylinder(1, 0, 1, 24);
    for (let i = 0; i < cone.normals.length; i += 3)
      if (cone.positions[i + 1] === 1) expect(cone.normals[i + 1]).toBeCloseTo(Math.SQRT1_2, 5);
  });

  test('colours run upwards', () => {
    const { u, positions } = ball(1, 16);
    for (let i = 0; i < u!.length; i++) expect(u![i]).toBeCloseTo((positions[3 * i + 1] + 1) / 2, 5);
  });
});
