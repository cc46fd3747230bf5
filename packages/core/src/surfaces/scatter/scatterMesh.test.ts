import Delaunator from 'delaunator';
import { areaAndVolume, type Mesh } from '../../geometry/mesh';
import { nearestPlace } from '../../geometry/search/nearest';
import { readPlaces, type SurfacePlaces } from '../../geometry/topology/surfacePlaces';
import { at, distance, type Vec3 } from '../../geometry/vec';
import { onCorners, onEdges, onFaces } from './meshPlaces';
import { BlueNoise, scatteredAtRandom } from './scatterMesh';
import { ball, box, sheet, torus } from '../make/solids';

const yieldNow = async (): Promise<void> => undefined;
const placesOf = (mesh: Mesh, places: SurfacePlaces): Vec3[] => {
  const { positions } = readPlaces(mesh, places);
  return Array.from(places.faces, (_, k) => at(positions, k));
};
const leastDistance = (places: readonly Vec3[]): number => {
  let least = Infinity;
  for (let i = 0; i < places.length; i++)
    for (let j = 0; j < i; j++) least = Math.min(least, distance(places[i], places[j]));
  return least;
};
/** The largest distance that n places can keep in a square metre: hexagons. */
const widest = (n: number, area = 1): number => Math.sqrt((2 * area) / (Math.sqrt(3) * n));

describe('places at random', () => {
  // Pearson's test: 24 degrees of freedom pass 51.2 once in a thousand (Abramowitz, Stegun, Handbook of Mathematical Functions,
  // table 26.8).
  test('are even by area: a chi-squared test over the bands of a sphere, which have equal areas at equal heights', async () => {
    const mesh = ball(1, 96);
    const heights = placesOf(mesh, await scatteredAtRandom(mesh, 20000, 3, null, yieldNow)).map(([, y]) => y);
    const bands = new Float64Array(25);
    for (const y of heights) bands[Math.min(24, Math.floor(((y + 1) / 2) * 25))]++;
    const expected = 20000 / 25;
    expect(bands.reduce((sum, count) => sum + (count - expected) ** 2 / expected, 0)).toBeLessThan(51.2);
  });

  test('follow a density: as many as it says on each side', async () => {
    const mesh = sheet(1, 1, 20);
    const xOf = (face: number, w: readonly number[]): number =>
      [0, 1, 2].reduce((sum, c) => sum + w[c] * mesh.positions[3 * mesh.indices[3 * face + c]], 0);
    const thin = (face: number, ...w: number[]): number => (xOf(face, w) > 0 ? 0.25 : 1);
    const places = placesOf(mesh, await scatteredAtRandom(mesh, 10000, 5, thin, yieldNow));
    const share = places.filter(([x]) => x > 0).length / places.length;
    // A fifth, with a standard deviation of 0.004.
    expect(Math.abs(share - 0.2)).toBeLessThan(0.016);
  });

  test('belong to their numbers: more of them move none', async () => {
    const mesh = torus(1, 0.4, 24);
    const [few, many] = [
      await scatteredAtRandom(mesh, 50, 1, null, yieldNow),
      await scatteredAtRandom(mesh, 500, 1, null, yieldNow),
    ];
    expect(many.faces.subarray(0, 50)).toEqual(few.faces);
    expect(many.weights.subarray(0, 150)).toEqual(few.weights);
  });
});

// Lagae, Dutré, A comparison of methods for generating Poisson disk distributions, Computer Graphics Forum 27, 2008: the relative
// radius of good sets lies between 0.65 and 0.85, their spectrum has next to nothing at low frequencies.
describe('blue noise', () => {
  const flat = sheet(1, 1, 12);

  test.each([0.15, 0.08, 0.05])('apart by %f m: none is nearer, and no room is left for another', async (spacing) => {
    // Small faces and large ones are filled in different ways.
    for (const mesh of [flat, ball(0.5, 32), sheet(1, 1, 1), box(0.9, 0.4, 0.6)]) {
      const places = placesOf(mesh, await new BlueNoise(mesh, 7, null).apart(spacing, yieldNow));
      expect(leastDistance(places)).toBeGreaterThanOrEqual(spacing * (1 - 1e-6));
      const probes = placesOf(mesh, await scatteredAtRandom(mesh, 1500, 11, null, yieldNow));
      for (const probe of probes) {
        const nearest = places.reduce((least, place) => Math.min(least, distance(place, probe)), Infinity);
        expect(nearest).toBeLessThan(spacing * (1 + 1 / 32));
      }
      const { area } = areaAndVolume(mesh);
      expect(spacing / widest(places.length, area)).toBeGreaterThan(0.65);
    }
  });

  // No room is left in a plane where no circle through three places that holds no other is larger than a disc, and has its middle
  // there (the circles of Delaunay's triangles; by delaunator).
  test.each([
    ['small', flat],
    ['large', sheet(1, 1, 1)],
    [
      'slanting',
      { ...sheet(1, 1, 1), positions: Float32Array.of(-0.5, -0.5, 0, 0.7, -0.5, 0, -0.9, 0.5, 0, 0.5, 0.5, 0) },
    ],
  ])('on %s faces leaves no room by the circles between the places either', async (_, mesh) => {
    const spacing = 0.02;
    for (const seed of [1, 2]) {
      const found = await new BlueNoise(mesh, seed, null).apart(spacing, yieldNow);
      expect(found.weights.every((weight) => weight >= 0)).toBe(true);
      const places = placesOf(mesh, found);
      const { triangles } = Delaunator.from(places.map(([x, y]) => [x, y]));
      let widest = 0;
      for (let t = 0; t < triangles.length; t += 3) {
        const [a, b, c] = [0, 1, 2].map((k) => places[triangles[t + k]]);
        const [bx, by, cx, cy] = [b[0] - a[0], b[1] - a[1], c[0] - a[0], c[1] - a[1]];
        const twice = 2 * (bx * cy - by * cx);
        const x = (cy * (bx * bx + by * by) - by * (cx * cx + cy * cy)) / twice;
        const y = (bx * (cx * cx + cy * cy) - cx * (bx * bx + by * by)) / twice;
        if (nearestPlace(mesh, [a[0] + x, a[1] + y, 0])!.distance < 1e-9) widest = Math.max(widest, Math.hypot(x, y));
      }
      expect(widest).toBeGreaterThan(0.9 * spacing);
      expect(widest).toBeLessThan(spacing * (1 + 1 / 32));
    }
  });

  test.each([
    ['small', flat],
    ['large', sheet(1, 1, 1)],
  ])('on %s faces has next to nothing at low frequencies, and as much as chance at high ones', async (_, mesh) => {
    let [low, high] = [0, 0];
    for (const seed of [2, 3, 4]) {
      const places = placesOf(mesh, await new BlueNoise(mesh, seed, null).apart(0.025, yieldNow));
      const n = places.length;
      /** Mean power of waves of whole numbers across the square, of about so many in all. */
      const power = (waves: number): number => {
        let [sum, count] = [0, 0];
        for (let p = 0; p <= waves; p++) {
          const q = Math.round(Math.sqrt(waves * waves - p * p));
          let [re, im] = [0, 0];
          for (const [x, y] of places) {
            re += Math.cos(2 * Math.PI * (p * x + q * y));
            im += Math.sin(2 * Math.PI * (p * x + q * y));
          }
          sum += (re * re + im * im) / n;
          count++;
        }
        return sum / count;
      };
      // Neighbours stand 40 to a side; chance alone gives 1 everywhere.
      low += [4, 6, 8, 10, 12, 14].map(power).reduce((sum, one) => sum + one, 0) / 18;
      high += power(90) / 3;
    }
    expect(low).toBeLessThan(0.2);
    expect(high).toBeGreaterThan(0.6);
    expect(high).toBeLessThan(1.6);
  });

  test('every first part is well spread, and more of them move none', async () => {
    for (const mesh of [flat, ball(0.5, 48)]) {
      const all = await new BlueNoise(mesh, 4, null).first(900, yieldNow);
      const places = placesOf(mesh, all);
      const { area } = areaAndVolume(mesh);
      for (const n of [25, 90, 400, 900])
        expect(leastDistance(places.slice(0, n)) / widest(n, area)).toBeGreaterThan(0.5);
      const noise = new BlueNoise(mesh, 4, null);
      const [few, more] = [await noise.first(333, yieldNow), await noise.first(334, yieldNow)];
      expect(few.faces).toEqual(all.faces.subarray(0, 333));
      expect(more.weights).toEqual(all.weights.subarray(0, 3 * 334));
    }
  });

  test('leaves out what has no density, and stands further apart where it is thin', async () => {
    const thin = (face: number, ...w: number[]): number => {
      const x = [0, 1, 2].reduce((sum, c) => sum + w[c] * flat.positions[3 * flat.indices[3 * face + c]], 0);
      return x < -0.25 ? 0 : x < 0 ? 0.25 : 1;
    };
    for (const places of [
      placesOf(flat, await new BlueNoise(flat, 3, thin).apart(0.03, yieldNow)),
      placesOf(flat, await new BlueNoise(flat, 3, thin).first(500, yieldNow)),
    ]) {
      expect(places.filter(([x]) => x < -0.25)).toHaveLength(0);
      const [sparse, dense] = [places.filter(([x]) => x < 0).length, places.filter(([x]) => x >= 0).length];
      // A quarter of the density on half the room: an eighth; borders reach in.
      expect(sparse / dense).toBeGreaterThan(0.08);
      expect(sparse / dense).toBeLessThan(0.2);
    }
  });

  test('comes to an end where there is next to no density, with what there is room for', async () => {
    const sliver = (face: number, ...w: number[]): number =>
      face === 5 && w[0] > 0.99 ? 1 : face === 9 && w[1] > 0.45 && w[1] < 0.55 ? 0.001 : 0;
    const started = await new BlueNoise(flat, 3, sliver).first(400, yieldNow);
    expect(started.faces.length).toBeLessThanOrEqual(400);
    for (const face of (await scatteredAtRandom(flat, 50, 3, sliver, yieldNow)).faces) expect([5, 9]).toContain(face);
    expect((await new BlueNoise(flat, 3, () => 0).first(400, yieldNow)).faces).toHaveLength(0);
    expect((await new BlueNoise(flat, 3, () => 0).apart(0.1, yieldNow)).faces).toHaveLength(0);
  });

  test('ends at once when it is no longer wanted', async () => {
    const stop = async (): Promise<void> => {
      throw new Error('no longer');
    };
    await expect(new BlueNoise(flat, 1, null).first(50000, stop)).rejects.toThrow('no longer');
    await expect(new BlueNoise(flat, 1, null).apart(0.005, stop)).rejects.toThrow('no longer');
  });
});

describe('places at what a mesh is made of', () => {
  test('a cube has 8 corners, 6 faces and 12 edges, whatever triangles it is made of', async () => {
    const cube = box(1, 1, 1);
    expect(
      placesOf(cube, await onCorners(cube)).every(([x, y, z]) => [x, y, z].every((c) => Math.abs(c) === 0.5)),
    ).toBe(true);
    expect((await onCorners(cube)).faces).toHaveLength(8);
    const middles = placesOf(cube, await onFaces(cube));
    expect(middles.map((place) => place.filter((c) => Math.abs(c) < 1e-6).length)).toEqual(Array(6).fill(2));
    expect((await onEdges(cube, 2)).faces).toHaveLength(12);
    const quarters = placesOf(cube, await onEdges(cube, 0.25));
    expect(quarters).toHaveLength(48);
    expect(leastDistance(quarters)).toBeCloseTo(0.125 * Math.SQRT2, 6);
  });
});
