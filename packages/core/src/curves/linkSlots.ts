import { add, cross, scale, sub, type Vec3 } from '../geometry/vec';

/** A chain link as the middle of its wire: two half circles and the straights between them, metres. */
export interface LinkShape {
  /** Thickness of the wire. */
  wire: number;
  /** Radius of the half circles, and from the link's middle to theirs. */
  bow: number;
  half: number;
}

/** How a link lies: its middle, and unit vectors along it and across it, both in its plane. */
export interface LinkPlace {
  position: Vec3;
  along: Vec3;
  across: Vec3;
}

/** Places on a half circle that are tried before the nearest is narrowed down. */
const TRIED = 16;
const GOLDEN = (Math.sqrt(5) - 1) / 2;

/**
 * How far the wires' middles of two links are apart where the far bow of one hangs in the near half of the other, metres. The
 * distance from a place to a link is in closed form, as it is one to a circle or to a straight; along the bow the nearest
 * place is found by golden sections.
 */
export function linkDistance(a: LinkPlace, b: LinkPlace, { bow, half }: LinkShape): number {
  const centre = add(a.position, scale(a.along, half));
  const other = sub(b.position, scale(b.along, half));
  const square = cross(b.along, b.across);
  const at = (angle: number): number => {
    const [c, s] = [bow * Math.cos(angle), bow * Math.sin(angle)];
    const x = centre[0] + c * a.across[0] + s * a.along[0] - other[0];
    const y = centre[1] + c * a.across[1] + s * a.along[1] - other[1];
    const z = centre[2] + c * a.across[2] + s * a.along[2] - other[2];
    const u = x * b.across[0] + y * b.across[1] + z * b.across[2];
    const v = -(x * b.along[0] + y * b.along[1] + z * b.along[2]);
    const w = x * square[0] + y * square[1] + z * square[2];
    const off = (v > 0 ? Math.sqrt(u * u + v * v) : Math.abs(u)) - bow;
    return off * off + w * w;
  };
  let [best, least] = [0, Infinity];
  for (let k = 0; k <= TRIED; k++) {
    const d = at((Math.PI * k) / TRIED);
    if (d < least) [best, least] = [k, d];
  }
  let [low, high] = [(Math.PI * (best - 1)) / TRIED, (Math.PI * (best + 1)) / TRIED];
  let [p, q] = [high - GOLDEN * (high - low), low + GOLDEN * (high - low)];
  let [atP, atQ] = [at(p), at(q)];
  for (let round = 0; round < 16; round++) {
    if (atP < atQ) {
      [high, q, atQ] = [q, p, atP];
      atP = at((p = high - GOLDEN * (high - low)));
    } else {
      [low, p, atP] = [p, q, atQ];
      atQ = at((q = low + GOLDEN * (high - low)));
    }
  }
  return Math.sqrt(Math.min(least, atP, atQ));
}

/** By how much of its wire a link may hang loose: what nobody sees, and what keeps it from cutting by rounding. */
const LOOSE = 0.0005;

/**
 * Links hung in each other along a path of any course, laid by contact: each as far from the one before as their wires let
 * it, round bends as on straights.
 * @param at arc lengths as they were laid, which the first one keeps; the others keep what they were laid apart beyond a pitch
 * @param on how the k-th link lies where its middle is at an arc length
 * @param length of the path: what would lie beyond is left out
 * @param pitch inner length of a link
 */
export function linkSlots(
  at: Float64Array,
  on: (k: number, s: number) => LinkPlace,
  length: number,
  shape: LinkShape,
  pitch: number,
): Float64Array {
  const hung: number[] = [];
  const wanted = shape.wire * (1 + LOOSE);
  for (let k = 0; k < at.length; k++) {
    if (k === 0) {
      hung.push(at[0]);
      continue;
    }
    const before = hung[k - 1];
    const last = on(k - 1, before);
    const room = (s: number): number => linkDistance(last, on(k, s), shape) - wanted;
    const s = taut(room, before, pitch) + (at[k] - at[k - 1] - pitch);
    if (s > length) break;
    hung.push(s);
  }
  return Float64Array.from(hung);
}

/** Where a link is pulled taut: the furthest place, about a pitch on, from which pulling on would press the wires together. */
function taut(room: (s: number) => number, before: number, pitch: number): number {
  let high = before + 1.06 * pitch;
  let atHigh = room(high);
  if (atHigh >= 0) return before + pitch;
  let low = before + 0.99 * pitch;
  let atLow = room(low);
  for (; atLow < 0 && low > before + 0.5 * pitch; atLow = room(low)) {
    [high, atHigh] = [low, atLow];
    low -= 0.03 * pitch;
  }
  if (atLow < 0) return before + pitch;
  // Regula falsi, in the Illinois manner (Dowell, Jarratt, BIT 11, 1971).
  let side = 0;
  for (let round = 0; round < 30 && high - low > 1e-7 * pitch; round++) {
    const s = (low * atHigh - high * atLow) / (atHigh - atLow);
    const here = room(s);
    if (here >= 0) {
      low = s;
      atLow = here;
      if (side === 1) atHigh /= 2;
      side = 1;
    } else {
      high = s;
      atHigh = here;
      if (side === -1) atLow /= 2;
      side = -1;
    }
    // Far less than links hang loose by.
    if (Math.abs(here) < 1e-7 * pitch) return s;
  }
  return low;
}
