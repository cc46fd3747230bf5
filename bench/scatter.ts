import PoissonDiskSampling from 'poisson-disk-sampling';
import { Mesh, TorusGeometry, Vector3 } from 'three';
import { MeshSurfaceSampler } from 'three/examples/jsm/math/MeshSurfaceSampler.js';
import { readPlaces } from '../packages/core/src/geometry/topology/surfacePlaces';
import { BlueNoise, scatteredAtRandom } from '../packages/core/src/surfaces/scatter/scatterMesh';
import { SpacedFilling } from '../packages/core/src/surfaces/scatter/fillVolume';
import { boxVolume } from '../packages/core/src/surfaces/scatter/volumes';
import { sheet, torus } from '../packages/core/src/surfaces/make/solids';
import { exponent, median, type Row } from './harness';

const MANY = 100_000;
const VOLUME_SPACING = 0.05;
const yieldNow = (): Promise<void> => Promise.resolve();

/** Places on surfaces beside three's sampler, and blue noise in a square beside a library for that. */
export async function benchScatter(): Promise<Row[]> {
  const mesh = torus(1, 0.4, 96);
  const sampler = new MeshSurfaceSampler(new Mesh(new TorusGeometry(1, 0.4, 48, 96))).build();
  const place = new Vector3();
  const normal = new Vector3();
  const theirs = (): Float32Array => {
    const out = new Float32Array(6 * MANY);
    for (let k = 0; k < MANY; k++) {
      sampler.sample(place, normal);
      place.toArray(out, 6 * k);
      normal.toArray(out, 6 * k + 3);
    }
    return out;
  };
  const square = sheet(1, 1, 1);
  const spacing = 0.01;
  const box = boxVolume([0, 0, 0], [1, 1, 1]);
  return [
    {
      what: 'places on a torus, at random, beside three MeshSurfaceSampler',
      ours: await median(() => scatteredAtRandom(mesh, MANY, 1, null, yieldNow), 5),
      theirs: await median(theirs, 5),
      amount: MANY,
      unit: 'places',
    },
    {
      what: 'the same with all that vertices know there',
      ours: await median(async () => readPlaces(mesh, await scatteredAtRandom(mesh, MANY, 1, null, yieldNow)), 5),
      theirs: await median(theirs, 5),
      amount: MANY,
      unit: 'places',
    },
    {
      what: 'blue noise in a square, no room left, beside poisson-disk-sampling',
      ours: await median(() => new BlueNoise(square, 1, null).apart(spacing, yieldNow), 3),
      theirs: await median(() => new PoissonDiskSampling({ shape: [1, 1], minDistance: spacing, tries: 30 }).fill(), 3),
      amount: 7100,
      unit: 'places',
    },
    {
      what: 'places in a box, no room left, beside poisson-disk-sampling',
      ours: await median(() => new SpacedFilling(box, 1, null, VOLUME_SPACING).fill(0, yieldNow), 3),
      theirs: await median(
        () => new PoissonDiskSampling({ shape: [1, 1, 1], minDistance: VOLUME_SPACING, tries: 30 }).fill(),
        3,
      ),
      amount: 5700,
      unit: 'places',
    },
    {
      what: 'blue noise on a torus, well spread in every first part',
      ours: await median(() => new BlueNoise(mesh, 1, null).first(20_000, yieldNow), 3),
      theirs: null,
      amount: 20_000,
      unit: 'places',
    },
  ];
}

/** What scattering costs grow with. */
export async function scatterExponents(): Promise<(readonly [string, number])[]> {
  const mesh = torus(1, 0.4, 96);
  const amounts = [2000, 8000, 32_000];
  return [
    [
      'places at random',
      await exponent(amounts, (n) => median(() => scatteredAtRandom(mesh, n, 1, null, yieldNow), 5)),
    ],
    [
      'blue noise by count',
      await exponent(amounts, (n) => median(() => new BlueNoise(mesh, 1, null).first(n, yieldNow), 3)),
    ],
    [
      'blue noise by distance, places',
      await exponent(amounts, (n) => median(() => new BlueNoise(mesh, 1, null).apart(Math.sqrt(11 / n), yieldNow), 3)),
    ],
  ];
}
