import type { FramedPaths } from '../../geometry/paths';
import type { SweepProfile } from './sweepProfile';
import type { Rings } from './rings';

/** One ring of a sweep: its centre, both directions across it, the way ahead, and how thick it is. */
export interface RingShape {
  x: number;
  y: number;
  z: number;
  /** Unit vectors: along the path's normal, square to it, and along the path. */
  nx: number;
  ny: number;
  nz: number;
  bx: number;
  by: number;
  bz: number;
  tx: number;
  ty: number;
  tz: number;
  /** Half the thickness along the normal and across it, metres. */
  radius: number;
  across: number;
  /** Normal of the surface = direction around · out + way ahead · ahead. */
  out: number;
  ahead: number;
  /** Change of the way ahead per metre, of the size 1 / radius of the bend. */
  bend: [number, number, number];
}

/** A ring without extent. */
export const emptyRing = (): RingShape => ({
  x: 0,
  y: 0,
  z: 0,
  nx: 0,
  ny: 0,
  nz: 0,
  bx: 0,
  by: 0,
  bz: 0,
  tx: 0,
  ty: 0,
  tz: 0,
  radius: 0,
  across: 0,
  out: 1,
  ahead: 0,
  bend: [0, 0, 0],
});

/** Whether a profile's places are its normals, as a circle's are. */
export const isRound = ({ x, y, nx, ny }: SweepProfile): boolean => nx === x && ny === y;

/**
 * Positions and normals of a ring's vertices, for any profile.
 * @param first the ring's first vertex
 * @param tight whether the bend holds the profile in
 */
export function writeRing(
  positions: Float32Array,
  normals: Float32Array,
  first: number,
  ring: RingShape,
  tight: boolean,
  profile: SweepProfile,
): void {
  const { x: px, y: py, nx: mx, ny: my } = profile;
  const columns = px.length;
  const { x, y, z, nx, ny, nz, bx, by, bz, radius, across, out, ahead } = ring;
  const [ax, ay, az] = [ahead * ring.tx, ahead * ring.ty, ahead * ring.tz];
  // How much a ring's normals lean ahead is told for what grows straight outwards, as a circle does. A place that lies off
  // its own normal grows less in its direction; one that faces the middle, as in a hollow, shrinks.
  const leans = !isRound(profile) && ahead !== 0 && (radius === 0 || out !== 0);
  const flatwise = across !== radius;
  const [cx, cy, cz] = ring.bend;
  const kn = cx * nx + cy * ny + cz * nz;
  const kb = cx * bx + cy * by + cz * bz;
  for (let j = 0, w = 3 * first; j < columns; j++, w += 3) {
    let along = radius * px[j];
    let aside = across * py[j];
    if (tight) {
      const inward = along * kn + aside * kb;
      if (inward > EASY_BEND) {
        const less = (inward - heldIn(inward)) / (kn * kn + kb * kb);
        along -= less * kn;
        aside -= less * kb;
      }
    }
    positions[w] = x + nx * along + bx * aside;
    positions[w + 1] = y + ny * along + by * aside;
    positions[w + 2] = z + nz * along + bz * aside;
    let beside = out;
    let lean = 1;
    if (leans) {
      lean = flatwise ? px[j] * mx[j] : px[j] * mx[j] + py[j] * my[j];
      const forward = lean * ahead;
      const length = Math.sqrt(out * out + forward * forward);
      // At the very tip, what lies in a plane with it looks straight aside.
      beside = length > 1e-9 ? out / length : 1;
      lean = length > 1e-9 ? lean / length : 0;
    }
    const ox = beside * mx[j];
    const oy = beside * my[j];
    normals[w] = lean * ax + nx * ox + bx * oy;
    normals[w + 1] = lean * ay + ny * ox + by * oy;
    normals[w + 2] = lean * az + nz * ox + bz * oy;
  }
}

/** Share of the bend's radius up to which a profile stays as it is. */
export const EASY_BEND = 0.7;

/**
 * How far towards the centre of a bend a place may lie, as a share of the bend's radius: as it is up to `EASY_BEND`,
 * then ever less, and never to the centre itself, where neighbouring rings would cut through each other.
 */
const heldIn = (inward: number): number =>
  EASY_BEND + (0.96 - EASY_BEND) * (1 - Math.exp((EASY_BEND - inward) / (0.96 - EASY_BEND)));

/**
 * Whether a path bends so much at a point that what reaches so far from it has to be held in.
 * @param bend is told the bend then: change of the tangent per metre, of the size 1 / radius
 */
export function isTight(
  rings: Rings,
  k: number,
  ring: number,
  { tangents, offsets, closed: ways }: FramedPaths,
  reach: number,
  bend: [number, number, number],
): boolean {
  const p = rings.path[k];
  const first = offsets[p];
  const last = offsets[p + 1] - 1;
  const closed = ways[p] === 1;
  const { along } = rings;
  const base = rings.alongFrom[k] - first;
  // The direction at an open end is its segment's, which has turned half as far as the path: bends are told without it.
  const [low, high] = closed || last - first < 3 ? [first, last] : [first + 1, last - 1];
  const point = Math.min(high, Math.max(low, ring));
  const before = point > low ? point - 1 : closed ? last : point;
  const after = point < high ? point + 1 : closed ? first : point;
  const total = along[rings.alongFrom[k + 1] - 1];
  const from = point > first ? along[base + before] : closed ? along[base + before] - total : 0;
  const to = point < last ? along[base + after] : closed ? total : along[base + point];
  const run = to - from;
  if (!(run > 0)) return false;
  const [a, b] = [3 * before, 3 * after];
  const x = tangents[b] - tangents[a];
  const y = tangents[b + 1] - tangents[a + 1];
  const z = tangents[b + 2] - tangents[a + 2];
  const limit = EASY_BEND * run;
  if ((x * x + y * y + z * z) * reach * reach <= limit * limit) return false;
  bend[0] = x / run;
  bend[1] = y / run;
  bend[2] = z / run;
  return true;
}
