import { CatmullRomCurve3, TubeGeometry, Vector3 } from 'three';
import { at, helixPoints, pathsFrom, sweepTubes, withFrames } from '@uvrex/core';
import { median, type Row } from './harness';

const RINGS = 200;
const SIDES = 12;
const MANY = 64;
const VERTICES = (RINGS + 1) * (SIDES + 1);

/** A plain tube, open at both ends. */
export const TUBE = {
  radius: 0.1,
  along: () => 1,
  follows: 'whole',
  swell: 0,
  sides: SIDES,
  start: 'open',
  end: 'open',
} as const;

const anchors = helixPoints({ below: 1, above: 0.4, height: 2, turns: 3, start: 0 }, 12);
const curve = new CatmullRomCurve3(
  Array.from({ length: 12 }, (_, i) => new Vector3(...at(anchors, i))),
  false,
  'centripetal',
);

/**
 * Sweeps of a circle beside three's TubeGeometry. Three samples its curve and frames it in the same call, as ours frames its paths;
 * the last row says what this machine can do at all.
 */
export async function benchTubes(): Promise<Row[]> {
  const spine = pathsFrom([{ positions: curve.getSpacedPoints(RINGS).flatMap(({ x, y, z }) => [x, y, z]) }]);
  const many = pathsFrom(Array.from({ length: MANY }, () => ({ positions: spine.positions })));
  const framed = withFrames({ ...many });
  const one = await median(() => new TubeGeometry(curve, RINGS, TUBE.radius, SIDES));
  const all = await median(() => Array.from({ length: MANY }, () => new TubeGeometry(curve, RINGS, 0.1, SIDES)), 15);
  const row = (what: string, ours: number, theirs: number, tubes: number): Row => ({
    what,
    ours,
    theirs,
    amount: tubes * VERTICES,
    unit: 'vertices',
  });
  // Paths keep their frames: others of the same points have none yet.
  return [
    row(
      `tube ${RINGS} × ${SIDES}, frames included, beside three TubeGeometry`,
      await median(() => sweepTubes({ ...spine }, TUBE)),
      one,
      1,
    ),
    row(`${MANY} such tubes`, await median(() => sweepTubes({ ...many }, TUBE)), all, MANY),
    row('the same, frames at hand', await median(() => sweepTubes(framed, TUBE)), all, MANY),
    row('a bare loop that writes the same arrays', await median(() => bareTubes(framed)), all, MANY),
  ];
}

const around = Float64Array.from({ length: SIDES + 1 }, (_, j) => (2 * Math.PI * j) / SIDES);
const cos = around.map(Math.cos);
const sin = around.map(Math.sin);

/** Places, normals, texture, share and distance behind the tip, and nothing that a tube may need besides. */
function bareTubes({ positions, tangents, normals }: ReturnType<typeof withFrames>): Float32Array[] {
  const vertices = MANY * VERTICES;
  const buffer = new ArrayBuffer(40 * vertices);
  const places = new Float32Array(buffer, 0, 3 * vertices);
  const out = new Float32Array(buffer, 12 * vertices, 3 * vertices);
  const uvs = new Float32Array(buffer, 24 * vertices, 2 * vertices);
  const u = new Float32Array(buffer, 32 * vertices, vertices);
  const tip = new Float32Array(buffer, 36 * vertices, vertices);
  for (let i = 0, v = 0; i < MANY * (RINGS + 1); i++) {
    const q = 3 * i;
    const nx = normals[q];
    const ny = normals[q + 1];
    const nz = normals[q + 2];
    const bx = tangents[q + 1] * nz - tangents[q + 2] * ny;
    const by = tangents[q + 2] * nx - tangents[q] * nz;
    const bz = tangents[q] * ny - tangents[q + 1] * nx;
    for (let j = 0; j <= SIDES; j++, v++) {
      const w = 3 * v;
      out[w] = nx * cos[j] + bx * sin[j];
      out[w + 1] = ny * cos[j] + by * sin[j];
      out[w + 2] = nz * cos[j] + bz * sin[j];
      places[w] = positions[q] + TUBE.radius * out[w];
      places[w + 1] = positions[q + 1] + TUBE.radius * out[w + 1];
      places[w + 2] = positions[q + 2] + TUBE.radius * out[w + 2];
      uvs[2 * v] = j / SIDES;
      uvs[2 * v + 1] = i;
      u[v] = i;
      tip[v] = i;
    }
  }
  return [places, out, uvs, u, tip];
}
