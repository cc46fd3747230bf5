import { newStep } from '../../scene/make';
import type { Step } from '../../scene/schema';
import { form, withShipped } from '../../../test/paths';
import { reduceMesh } from '../../forms/reduce';
import { cutMesh } from '../../surfaces/edit/cutMesh';
import { Refining } from '../../surfaces/edit/refineMesh';
import { box, ball } from '../../surfaces/make/solids';
import { subdivideMesh } from '../../surfaces/edit/subdivideMesh';
import { thickenMesh } from '../../surfaces/edit/thickenMesh';
import { withSoftNormals } from '../../surfaces/edit/smoothNormals';
import type { Attribute } from '../attributes';
import { faceMiddles, faceSpan } from './faceAttributes';
import { flaws } from '../invariants';
import { withRiders } from '../joinMeshes';
import { areaAndVolume, faceCount, type Mesh } from '../mesh';
import { vertexValues } from '../meshAttributes';
import { nearestPlace } from '../search/nearest';
import { readPlaces } from './surfacePlaces';
import { at } from '../vec';

withShipped();

const onFaces = (values: Float32Array, more: Partial<Attribute> = {}): Attribute => ({
  domain: 'face',
  width: 1,
  blend: 'nearest',
  missing: -1,
  values,
  ...more,
});
/** A mesh whose faces know their numbers. */
const numbered = (mesh: Mesh): Mesh => ({
  ...mesh,
  named: { number: onFaces(Float32Array.from({ length: faceCount(mesh) }, (_, f) => f)) },
});
const solid = numbered(box(2, 1, 1));
const sound = (mesh: Mesh): void =>
  expect(flaws({ paths: null, points: null, seats: null, copies: null, mesh } as never)).toEqual([]);
/** How many faces of a mesh say that they are of a face on which they do not lie. */
const strays = (made: Mesh, of: Mesh): number => {
  sound(made);
  const middles = faceMiddles(made);
  let count = 0;
  made.named.number.values.forEach((number, f) => {
    const own = nearestPlace({ ...of, indices: of.indices.slice(3 * number, 3 * number + 3) }, at(middles, f))!;
    if (own.distance > nearestPlace(of, at(middles, f))!.distance + 1e-6) count++;
  });
  return count;
};

describe('what faces know goes with them', () => {
  test('where their edges are halved and where they are cut', async () => {
    const refining = new Refining(solid);
    for (let round = 0; round < 2; round++) await refining.halve((a, b) => (a + b) % 3 > 0);
    const finer = refining.mesh;
    expect(faceCount(finer)).toBeGreaterThan(faceCount(solid));
    expect(strays(finer, solid)).toBe(0);
    const field = Float32Array.from({ length: solid.positions.length / 3 }, (_, i) => 0.3 - solid.positions[3 * i]);
    const cut = await cutMesh(solid, field);
    expect(strays(cut, solid)).toBe(0);
    expect(new Set(cut.named.number.values).size).toBeLessThan(faceCount(solid));
  });

  test('the cover of a cut is new and knows nothing', async () => {
    const field = Float32Array.from({ length: solid.positions.length / 3 }, (_, i) => 0.3 - solid.positions[3 * i]);
    const [open, closed] = [await cutMesh(solid, field), await cutMesh(solid, field, true)];
    sound(closed);
    const values = closed.named.number.values;
    expect(values.subarray(0, faceCount(open))).toEqual(open.named.number.values);
    expect(values.length).toBeGreaterThan(faceCount(open));
    expect([...values.subarray(faceCount(open))].every((value) => value === -1)).toBe(true);
  });

  test('where they are divided, with creases kept, and made thick', async () => {
    // Two triangles that are halves of a square become one, and go by either.
    const half = { ...solid, named: { number: onFaces(solid.named.number.values.map((f) => f >> 1)) } };
    const [once, twice] = [await subdivideMesh(half, 1, 0.5), await subdivideMesh(half, 2, 0.5)];
    for (const [made, each] of [
      [once, 8],
      [twice, 32],
    ] as const) {
      sound(made);
      const counts = new Map<number, number>();
      for (const number of made.named.number.values) counts.set(number, (counts.get(number) ?? 0) + 1);
      expect([...counts.values()].every((count) => count === each)).toBe(true);
      const whole = { ...made, named: { number: onFaces(made.named.number.values.map((pair) => 2 * pair)) } };
      const other = { ...made, named: { number: onFaces(made.named.number.values.map((pair) => 2 * pair + 1)) } };
      const away = (of: Mesh): number[] =>
        [...of.named.number.values].map(
          (number, f) =>
            nearestPlace(
              { ...solid, indices: solid.indices.slice(3 * number, 3 * number + 3) },
              at(faceMiddles(of), f),
            )!.distance,
        );
      const [one, two] = [away(whole), away(other)];
      expect(one.every((distance, f) => Math.min(distance, two[f]) < 1e-6)).toBe(true);
    }
    const thick = await thickenMesh(solid, 1e-4, 0);
    // Both sides of every face, and no rim on what is closed.
    expect([...thick.named.number.values]).toEqual([...solid.named.number.values].flatMap((f) => [f, f]));
    expect(strays(await withSoftNormals(solid, 0.5), solid)).toBe(0);
  });

  test('where a face without area stands before them', async () => {
    const before = numbered({ ...solid, indices: Uint32Array.of(0, 0, 1, ...solid.indices) });
    const thick = await thickenMesh(before, 1e-4, 0);
    expect([...thick.named.number.values]).toEqual([...solid.named.number.values].flatMap((f) => [f + 1, f + 1]));
    // Divided, two triangles are one square and go by either of them.
    const pairs = before.named.number.values.map((f) => (f + 1) >> 1);
    const divided = await subdivideMesh({ ...before, named: { number: onFaces(pairs) } }, 1, 0.5);
    const alone = await subdivideMesh({ ...solid, named: { number: onFaces(pairs.subarray(1)) } }, 1, 0.5);
    expect(divided.named.number.values).toEqual(alone.named.number.values);
  });

  test('where there are fewer of them, each is that of the nearest', async () => {
    const many = ball(1, 48);
    const halves = (of: Mesh): Float32Array => {
      const middles = faceMiddles(of);
      return Float32Array.from({ length: faceCount(of) }, (_, f) => (middles[3 * f] > 0 ? 1 : 0));
    };
    const few = await reduceMesh({ ...many, named: { side: onFaces(halves(many)) } }, 0.02);
    sound(few);
    expect(faceCount(few)).toBeLessThan(faceCount(many) / 2);
    const own = halves(few);
    const middles = faceMiddles(few);
    few.named.side.values.forEach((side, f) => {
      if (Math.abs(middles[3 * f]) > 0.1) expect(side).toBe(own[f]);
    });
  });

  test('where meshes are put together; those that know nothing have nothing', async () => {
    const rider = { ...box(0.1, 0.1, 0.1), named: {} };
    const both = await withRiders(solid, rider, [{ origin: [0, 1, 0], x: [1, 0, 0], y: [0, 1, 0], size: 1 }]);
    sound(both);
    const { values } = both.named.number;
    expect(values.subarray(0, faceCount(solid))).toEqual(solid.named.number.values);
    expect([...values.subarray(faceCount(solid))]).toEqual(Array(faceCount(rider)).fill(-1));
  });

  test('at places and at vertices', () => {
    const places = { faces: Uint32Array.of(5, 2), weights: Float32Array.of(1, 0, 0, 0.2, 0.3, 0.5) };
    expect([...readPlaces(solid, places).named.number.values]).toEqual([5, 2]);
    // Two triangles along an edge, one three times the other: the mean by area.
    const pair: Mesh = {
      ...solid,
      positions: Float32Array.of(0, 0, 0, 1, 0, 0, 0, 1, 0, 0, -3, 0),
      normals: new Float32Array(12),
      uvs: new Float32Array(8),
      indices: Uint32Array.of(0, 1, 2, 0, 3, 1),
      named: {
        heat: onFaces(Float32Array.of(8, 4), { blend: 'mix' }),
        kind: onFaces(Float32Array.of(8, 4)),
      },
    };
    expect(Array.from(vertexValues(pair, 'heat')!)).toEqual([5, 5, 8, 4]);
    // Of whole numbers, that of the largest face there, whichever comes first.
    expect(Array.from(vertexValues(pair, 'kind')!)).toEqual([4, 4, 8, 4]);
    expect(Array.from(vertexValues({ ...pair, indices: Uint32Array.of(0, 3, 1, 0, 1, 2) }, 'kind')!)).toEqual([
      8, 8, 4, 8,
    ]);
  });
});

describe('measured on faces', () => {
  const skin = newStep('solid', { solid: 'ball', radius: 1, pieces: 24 });
  const measured = (what: string, more: Record<string, unknown> = {}): Step =>
    newStep('measure', { what, scale: 'measured', at: 'faces', name: 'kept', ...more } as never);

  test('areas come to that of the whole, on faces as at corners; slopes are those of the faces', async () => {
    const { mesh } = await form([skin, measured('area')]);
    const sum = (of: Float32Array): number => of.reduce((total, value) => total + value, 0);
    const { area } = areaAndVolume(mesh!);
    expect(mesh!.named.kept.values).toHaveLength(faceCount(mesh!));
    expect(sum(mesh!.named.kept.values)).toBeCloseTo(area, 4);
    const corners = (await form([skin, measured('area', { at: 'corners' })])).mesh!;
    expect(corners.named.kept.values).toHaveLength(corners.positions.length / 3);
    expect(sum(corners.named.kept.values)).toBeCloseTo(area, 4);
    const { mesh: steep } = await form([skin, measured('slope')]);
    steep!.named.kept.values.forEach((slope, f) => {
      const [x, y, z] = faceSpan(steep!, f);
      expect(slope).toBeCloseTo((Math.acos(y / Math.hypot(x, y, z)) * 180) / Math.PI, 2);
    });
  });

  test('points scattered on a skin take what their faces know', async () => {
    const made = await form([skin, measured('number'), newStep('scatter', { count: 200, size: 0 })]);
    const { mesh } = await form([skin]);
    const numbers = made.points!.named.kept.values;
    expect(new Set(numbers).size).toBeGreaterThan(50);
    numbers.forEach((number, k) => {
      const own = { ...mesh!, indices: mesh!.indices.slice(3 * number, 3 * number + 3) };
      expect(nearestPlace(own, at(made.points!.positions, k))!.distance).toBeLessThan(1e-5);
    });
  });

  test('colours by them are one on each face', async () => {
    const { mesh } = await form([
      skin,
      measured('number', { scale: 'share' }),
      newStep('finish', { by: 'attribute', attribute: 'kept' }),
    ]);
    const seen = new Set<string>();
    for (let f = 0; f < faceCount(mesh!); f++) {
      const [a, b, c] = [0, 1, 2].map((k) => String(at(mesh!.colors!, mesh!.indices[3 * f + k])));
      expect([b, c]).toEqual([a, a]);
      seen.add(a);
    }
    expect(seen.size).toBeGreaterThan(100);
  });
});
