// Ours beside general-purpose libraries, in one run: compare the ratios, not the times.
import { resample as thingResample } from '@thi.ng/geom-resample';
import { CatmullRomCurve3, TubeGeometry, Vector3 } from 'three';
import {
  at,
  helixPoints,
  noise3,
  pathNormals,
  pathsFrom,
  resample,
  sweepTubes,
  tangents,
  withFrames,
} from '@uvrex/core';
import { median, print, type Row } from './harness';

const RINGS = 200;
const SIDES = 12;
const anchors = helixPoints({ below: 1, above: 0.4, height: 2, turns: 3, start: 0 }, 12);
const curve = new CatmullRomCurve3(
  Array.from({ length: 12 }, (_, i) => new Vector3(...at(anchors, i))),
  false,
  'centripetal',
);

const rows: Row[] = [];

// A tube of 200 × 12 from a path of points; three samples its curve and frames it in the same call, as ours frames its path.
const spine = pathsFrom([{ positions: curve.getSpacedPoints(RINGS).flatMap(({ x, y, z }) => [x, y, z]) }]);
const shape = {
  radius: 0.1,
  along: () => 1,
  follows: 'whole',
  swell: 0,
  sides: SIDES,
  start: 'open',
  end: 'open',
} as const;
rows.push({
  what: `tube ${RINGS} × ${SIDES}, frames included, beside three TubeGeometry`,
  ours: await median(() => sweepTubes(spine, shape)),
  theirs: await median(() => new TubeGeometry(curve, RINGS, 0.1, SIDES)),
  amount: (RINGS + 1) * (SIDES + 1),
  unit: 'vertices',
});
const framed = withFrames(spine);
const many = pathsFrom(Array.from({ length: 64 }, () => ({ positions: spine.positions })));
rows.push({
  what: `64 such tubes`,
  ours: await median(() => sweepTubes(many, shape)),
  theirs: await median(() => Array.from({ length: 64 }, () => new TubeGeometry(curve, RINGS, 0.1, SIDES)), 5),
  amount: 64 * (RINGS + 1) * (SIDES + 1),
  unit: 'vertices',
});
rows.push({
  what: 'tube with frames at hand',
  ours: await median(() => sweepTubes(framed, shape)),
  theirs: null,
  amount: (RINGS + 1) * (SIDES + 1),
  unit: 'vertices',
});

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

print(rows);
