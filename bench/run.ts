// Ours beside general-purpose libraries, in one run: compare the ratios, not the times.
import { resample as thingResample } from '@thi.ng/geom-resample';
import FFT from 'fft.js';
import { CatmullRomCurve3, Vector3 } from 'three';
import {
  at,
  cutPaths,
  helixPoints,
  noise3,
  RealFft,
  pathNormals,
  pathsFrom,
  resample,
  sweepTubes,
  tangents,
  withFrames,
} from '@uvrex/core';
import { benchBranching, branchingExponents } from './branching';
import { benchCopies } from './copies';
import { exponent, median, print, printExponents, type Row } from './harness';
import { benchLathe } from './lathe';
import { benchScatter, scatterExponents } from './scatter';
import { benchSurfaces, surfaceExponents } from './surfaces';
import { benchTubes, TUBE } from './tubes';

const rows: Row[] = [];

rows.push(...(await benchTubes()));
rows.push(...(await benchLathe()));

const n = 5000;
const long = helixPoints({ below: 1, above: 0.4, height: 4, turns: 20, start: 0 }, n);
const longCurve = new CatmullRomCurve3(
  Array.from({ length: 40 }, (_, i) => new Vector3(...at(long, i * 128))),
  false,
  'centripetal',
);
const along = new Float64Array(3 * n);
const normals = new Float64Array(3 * n);
rows.push({
  what: `twist-free frames, ${n} points, beside three computeFrenetFrames`,
  ours: await median(() => {
    tangents(long, 0, n, false, along);
    pathNormals(long, 0, n, false, normals, along);
  }),
  theirs: await median(() => longCurve.computeFrenetFrames(n - 1, false), 5),
  amount: n,
  unit: 'points',
});

const vectors = Array.from({ length: n }, (_, i) => [...at(long, i)]);
rows.push({
  what: `respacing ${n} → ${n}, beside @thi.ng/geom-resample`,
  ours: await median(() => resample(long, n, false)),
  theirs: await median(() => thingResample(vectors, { num: n - 1 }, false)),
  amount: n,
  unit: 'points',
});

const push = new Float64Array(3);
rows.push({
  what: 'noise, three channels in four dimensions',
  ours: await median(() => {
    for (let i = 0; i < n; i++)
      noise3(
        long[3 * i],
        long[3 * i + 1],
        long[3 * i + 2],
        0.3,
        { detail: 1, roughness: 0.5, seed: 1, period: 0 },
        push,
      );
  }),
  theirs: null,
  amount: n,
  unit: 'points',
});

const samples = Float64Array.from({ length: 4096 }, (_, i) => Math.sin(i * 0.37) + Math.sin(i ** 1.1));
const bins = [new Float64Array(2049), new Float64Array(2049)] as const;
const fft = new RealFft(4096);
const other = new FFT(4096);
const spectrum = other.createComplexArray();
rows.push({
  what: 'Fourier transform of 4096 real samples: fft.js with our unpacking, beside fft.js alone',
  ours: await median(() => fft.transform(samples, ...bins)),
  theirs: await median(() => other.realTransform(spectrum, samples)),
  amount: 4096,
  unit: 'samples',
});

const copies = await benchCopies();
print([...rows, ...copies.rows, ...(await benchScatter()), ...(await benchSurfaces()), ...(await benchBranching())]);

// How cost grows when one thing is doubled: 1 is in proportion.
const winding = (points: number, paths: number) =>
  pathsFrom(
    Array.from({ length: paths }, () => ({
      positions: helixPoints({ below: 1, above: 0.4, height: 2, turns: 3, start: 0 }, points),
    })),
  );
const sweep = (points: number, paths: number, sides: number): Promise<number> => {
  const spines = withFrames(winding(points, paths));
  return median(() => sweepTubes(spines, { ...TUBE, sides }), 9);
};
const framing = (points: number, paths: number): Promise<number> => {
  const bare = winding(points, paths);
  return median(() => withFrames({ ...bare }), 9);
};
const cutting = (points: number, paths: number): Promise<number> => {
  const spines = withFrames(winding(points, paths));
  return median(() => cutPaths(spines, () => [0.1, 0.77]), 9);
};
printExponents([
  ['sweeping, points of a path', await exponent([250, 500, 1000, 2000], (n) => sweep(n, 8, 12))],
  ['sweeping, paths', await exponent([8, 16, 32, 64], (n) => sweep(200, n, 12))],
  ['sweeping, sides', await exponent([6, 12, 24, 48], (n) => sweep(500, 8, n))],
  ['frames, points of a path', await exponent([1000, 2000, 4000, 8000], (n) => framing(n, 8))],
  ['frames, paths', await exponent([16, 32, 64, 128], (n) => framing(500, n))],
  ['cutting, points of a path', await exponent([1000, 2000, 4000, 8000], (n) => cutting(n, 8))],
  ...copies.exponents,
  ...(await scatterExponents()),
  ...(await surfaceExponents()),
  ...(await branchingExponents()),
  ['cutting, paths', await exponent([16, 32, 64, 128], (n) => cutting(500, n))],
]);
