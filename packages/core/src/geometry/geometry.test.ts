import { newStep } from '../scene/make';
import { formOf, sceneOf } from '../testing';
import { NO_NAMED } from './attributes';
import { arraysOf, boundsOf, bytesOf, countsOf, emptyForm, type Form, kindsOf } from './form';
import { flaws } from './invariants';
import { areaAndVolume, type Mesh, meshWith } from './mesh';
import { topologyCounts } from './topology/topology';
import { joinPaths } from './joinPaths';
import { NO_PARENT, type Paths, pathsFrom } from './paths';
import { pathTreeOf } from './tree';

/** A mesh of bare triangles; normals and texture coordinates play no part in what is tested. */
const meshOf = (positions: number[], indices: number[]): Mesh =>
  meshWith({
    positions: Float32Array.from(positions),
    normals: new Float32Array(positions.length),
    uvs: new Float32Array((2 * positions.length) / 3),
    indices: Uint32Array.from(indices),
  });

const CORNERS = Array.from({ length: 8 }, (_, i) => [i & 1, (i >> 1) & 1, i >> 2]).flat();
/** The unit cube's twelve triangles, anticlockwise from outside. */
const CUBE = [
  0, 2, 3, 0, 3, 1, 4, 5, 7, 4, 7, 6, 0, 1, 5, 0, 5, 4, 2, 6, 7, 2, 7, 3, 0, 4, 6, 0, 6, 2, 1, 3, 7, 1, 7, 5,
];

// Euler's polyhedron formula on solids whose counts every handbook has.
describe('topology', () => {
  test('a cube of triangles: 8 vertices, 18 edges, 12 faces, Euler characteristic 2', () => {
    expect(topologyCounts(meshOf(CORNERS, CUBE))).toEqual({
      vertices: 8,
      edges: 18,
      faces: 12,
      openEdges: 0,
      flippedEdges: 0,
      euler: 2,
    });
  });

  test('counts doubled vertices once, and faces without area not at all', () => {
    const seam = [...CORNERS, ...CORNERS.slice(0, 3)];
    const doubled = [8, 2, 3, ...CUBE.slice(3), 0, 0, 1];
    expect(topologyCounts(meshOf(seam, doubled))).toMatchObject({ vertices: 8, faces: 12, euler: 2, openEdges: 0 });
  });

  test('a missing face leaves three open edges, a flipped one three that run the same way', () => {
    expect(topologyCounts(meshOf(CORNERS, CUBE.slice(3)))).toMatchObject({ openEdges: 3, euler: 1 });
    expect(topologyCounts(meshOf(CORNERS, [0, 3, 2, ...CUBE.slice(3)]))).toMatchObject({ flippedEdges: 3 });
  });

  test('a cube has area 6 and volume 1, and inside out volume −1', () => {
    const { area, volume } = areaAndVolume(meshOf(CORNERS, CUBE));
    expect([area, volume].map((v) => Number(v.toFixed(12)))).toEqual([6, 1]);
    expect(areaAndVolume(meshOf(CORNERS, [...CUBE].reverse())).volume).toBeCloseTo(-1, 12);
  });
});

describe('the invariant checker', () => {
  const sound = (): Promise<Form> =>
    formOf(
      sceneOf([
        newStep('helix', { points: 30 }),
        newStep('grow', { to: 0.7 }),
        newStep('tube', { sides: 5 }),
        newStep('finish'),
      ]),
    );

  test('finds nothing in what the steps make', async () => {
    expect(flaws(await sound())).toEqual([]);
  });

  test.each<[string, (form: Form) => void, RegExp]>([
    ['a number that is none', (form) => (form.paths!.positions[4] = NaN), /paths: positions\[4\] is NaN/],
    ['a rest coordinate that falls', (form) => (form.paths!.u[5] = 0), /rest coordinates fall at point 5/],
    ['offsets past the points', (form) => (form.paths!.offsets[1] = 99), /offsets do not run/],
    ['a normal that is not a unit', (form) => form.paths!.normals!.fill(0.1), /normals number 0 has length/],
    ['a normal along the path', (form) => form.paths!.normals!.set(form.paths!.tangents!), /not square to the path/],
    ['a parent that is not there', (form) => (form.paths!.parent = Uint32Array.of(3)), /parent that is not there/],
    ['a path that is its own parent', (form) => (form.paths!.parent = Uint32Array.of(0)), /circle of parents/],
    [
      'a number of an attribute of a name that is none',
      (form) =>
        (form.paths!.named = {
          heat: { domain: 'point', width: 1, blend: 'mix', missing: 0, values: new Float32Array(60).fill(NaN) },
        }),
      /heat\[0\] is NaN/,
    ],
    ['arrays of different lengths', (form) => (form.mesh!.uvs = new Float32Array(2)), /mesh: uvs has 2 entries/],
    // Before those that damage indices, which results share.
    [
      'a mesh that was mirrored and left inside out',
      ({ mesh }) => {
        for (let i = 0; i < mesh!.positions.length; i += 3) {
          mesh!.positions[i] *= -1;
          mesh!.normals[i] *= -1;
        }
      },
      /of its area faces away from its normals/,
    ],
    ['an index past the vertices', (form) => (form.mesh!.indices[0] = 1e6), /past the last/],
    ['half a triangle', (form) => (form.mesh!.indices = form.mesh!.indices.slice(0, 4)), /whole number of triangles/],
    ['glow of infinite strength', (form) => (form.mesh!.glow![0] = Infinity), /glow\[0\]/],
  ])('finds %s', async (_, damage, reason) => {
    const form = await sound();
    damage(form);
    expect(flaws(form).join('\n')).toMatch(reason);
  });

  test('looks at points and copies too', () => {
    const placed = {
      positions: Float32Array.of(0, 0, 0, 1, 1, 1),
      turns: Float32Array.of(0, 0, 0, 1, 0, 0, 0, 1),
      ids: Uint32Array.of(4, 4),
    };
    const form: Form = {
      ...emptyForm(),
      points: {
        ...placed,
        size: Float32Array.of(1, 1),
        dice: Uint32Array.of(4, 4),
        share: Float32Array.of(0, 1),
        life: null,
        age: null,
        named: NO_NAMED,
      },
    };
    expect(flaws(form)).toEqual(['points: two entries share an id']);
    const copies = {
      ...placed,
      ids: Uint32Array.of(1, 2),
      items: [{ key: 'a', mesh: meshOf(CORNERS, CUBE), surface: null }],
      item: Uint32Array.of(0, 1),
      sizes: new Float32Array(6).fill(1),
      rows: new Uint32Array(2),
      tints: null,
      named: NO_NAMED,
    };
    expect(flaws({ ...emptyForm(), copies })).toEqual(['copies: a copy names an item that is not there']);
  });
});

describe('forms', () => {
  test('shared arrays count once, and only what is new counts against the budget', async () => {
    const form = await formOf(sceneOf([newStep('line', { points: 10 })]));
    const next: Form = { ...form, paths: { ...form.paths!, positions: new Float32Array(30) } };
    expect(bytesOf(next, form)).toBe(120);
    expect(bytesOf(form, form)).toBe(0);
    expect(arraysOf(form).length).toBeGreaterThan(8);
  });

  test('counts, kinds and bounds say what is there', async () => {
    const form = await formOf(
      sceneOf([
        newStep('line', { points: 10, toX: 3 }),
        newStep('tube', { sides: 4, swell: 0, start: 'open', end: 'open' }),
      ]),
    );
    expect(kindsOf(form)).toEqual(['paths', 'mesh']);
    expect(countsOf(form)).toEqual({ points: 10, faces: 9 * 4 * 2, copies: 0 });
    expect(boundsOf({ ...form, mesh: null })).toEqual({ min: [0, 0, 0], max: [3, 2, 0] });
    expect(boundsOf(emptyForm())).toBeNull();
  });

  test('joined paths keep their points, and get ids of their own', () => {
    const a = pathsFrom([{ positions: [0, 0, 0, 1, 0, 0], id: 5 }]);
    const b = pathsFrom([{ positions: [0, 1, 0, 0, 2, 0, 0, 3, 0], closed: true, size: [1, 2, 3] }]);
    const both = joinPaths(a, b);
    expect([...both.offsets]).toEqual([0, 2, 5]);
    expect([...both.ids]).toEqual([5, 6]);
    expect(both.parent).toBeNull();
    expect([...both.size]).toEqual([1, 1, 1, 2, 3]);
    expect(flaws({ ...emptyForm(), paths: both })).toEqual([]);
  });

  test('parents go by ids, and stay the same paths when trees are joined', () => {
    const stem = { positions: [0, 0, 0, 0, 1, 0] };
    const twig = { positions: [0, 1, 0, 1, 1, 0] };
    const tree = (): Paths => ({
      ...pathsFrom([
        { ...twig, id: 9 },
        { ...stem, id: 4 },
      ]),
      parent: Uint32Array.of(4, NO_PARENT),
      attach: Float32Array.of(1, 0),
    });
    const both = joinPaths(joinPaths(pathsFrom([{ ...stem, id: 30 }]), tree()), tree());
    const { parents, depths, order } = pathTreeOf(both);
    expect([...parents]).toEqual([-1, 2, -1, 4, -1]);
    expect([...depths]).toEqual([0, 1, 0, 1, 0]);
    const rank = [...order];
    expect(rank.indexOf(2)).toBeLessThan(rank.indexOf(1));
    expect(rank.indexOf(4)).toBeLessThan(rank.indexOf(3));
    expect(flaws({ ...emptyForm(), paths: both })).toEqual([]);
  });
});
