import { smoothstep } from '../../fields/smoothstep';
import { dot, type Vec3 } from '../../geometry/vec';
import { type Limb, type Place, placeOn } from './limbs';

/** How a limb comes out of the skin of another. */
export interface Sprout {
  limb: Limb;
  /** First of the carrier's columns that it takes the place of. */
  column: number;
  /** Which side of the carrier it is on, radians from the carrier's normal, and how far its hole reaches to each side. */
  angle: number;
  half: number;
  /** Radius where it has come out, metres, and of its foot on the carrier's skin. */
  radius: number;
  foot: number;
  /** The sine of the angle at which it leaves, no less than what still makes a hole of a sensible length. */
  steep: number;
  /** Distance along the limb from the carrier's middle to its skin, and on to where the limb stands free, metres. */
  depth: number;
  free: number;
  /** How far it has come out, 0 while all of it is still within the carrier, to 1. */
  out: number;
}

/** Limbs that come out of a limb at one place, in rows of their own. */
export interface Whorl {
  /** Where they hold on, metres along the limb. */
  arc: number;
  sprouts: Sprout[];
  /** Between which arc lengths its rows lie. */
  low: number;
  high: number;
}

/** Limbs that leave in directions nearer to one another than a hole's share of the columns, a little more, take rows of their own. */
const APART = Math.PI / 2 + 0.05;
/** Limbs that lie along another, or against it, count as leaving it no more slowly than so. */
const STEEP = 0.45;
/** How much wider than its foot a hole is. */
const ROOM = 1.3;

/** The angle about a place's path of a direction, radians from its normal. */
export const angleAt = ({ normal, side }: Place, way: Vec3): number => Math.atan2(dot(way, side), dot(way, normal));

const turn = (angle: number): number => angle - 2 * Math.PI * Math.floor(angle / (2 * Math.PI));

/**
 * Which limbs come out of a limb, in which rows and columns: told by where they hold on and which way they leave, never by thickness,
 * so that a skin keeps its numbering while it thickens.
 * @param sides columns, a multiple of four
 */
export function whorlsOf(limb: Limb, sides: number): Whorl[] {
  const whorls: Whorl[] = [];
  const same = 1e-5 * limb.length;
  for (const sprouting of limb.limbs) {
    const { arc, way, across } = sprouting.root!;
    const steep = Math.max(across, STEEP);
    const angle = angleAt(placeOn(limb, arc), way);
    const sprout = { limb: sprouting, column: 0, angle, half: 0, radius: 0, foot: 0, steep, depth: 0, free: 0, out: 0 };
    // They come in order: only the last can be at the same place.
    let fits: Whorl | null = null;
    for (let k = whorls.length - 1; k >= 0 && arc - whorls[k].arc <= same; k--)
      if (whorls[k].sprouts.every((other) => turn(angle - other.angle + APART) >= 2 * APART)) fits = whorls[k];
    if (fits) fits.sprouts.push(sprout);
    else whorls.push({ arc, sprouts: [sprout], low: 0, high: 0 });
  }
  const width = sides / 4;
  for (const { sprouts } of whorls) {
    sprouts.sort((a, b) => a.angle - b.angle);
    for (const sprout of sprouts) sprout.column = Math.round((sprout.angle * sides) / (2 * Math.PI) - width / 2);
  }
  return whorls;
}

/**
 * Lays the whorls along their limb as its thickness and that of what comes out of it want: around where each comes through the
 * skin, in their order, and none over another.
 * @param from where the limb's own rows begin, metres along it
 * @param collar how far feet reach out beyond their limbs, as a share of these
 * @param at what the limb is like at an arc length
 */
export function layWhorls(
  whorls: readonly Whorl[],
  limb: Limb,
  from: number,
  collar: number,
  at: (s: number) => Place,
): void {
  if (whorls.length === 0) return;
  const middles: number[] = [];
  const halves: number[] = [];
  for (const { arc, sprouts } of whorls) {
    const { radius } = at(arc);
    let [middle, half] = [0, 0.02 * radius + 1e-9];
    for (const sprout of sprouts) {
      const { steep } = sprout;
      const { along } = sprout.limb.root!;
      const slant = Math.min(2, Math.max(-2, along / steep));
      sprout.depth = radius / steep;
      const thick = placeOn(sprout.limb, Math.min(sprout.limb.length, sprout.depth)).radius;
      sprout.out = smoothstep((sprout.limb.length - sprout.depth) / (0.5 * radius + thick + 1e-9));
      sprout.radius = sprout.out * thick;
      sprout.foot = sprout.radius * (1 + collar);
      sprout.free = Math.min(
        0.8 * sprout.limb.length,
        sprout.depth + sprout.radius * (Math.abs(slant) + Math.max(0.2, collar)),
      );
      middle += (arc + radius * slant) / sprouts.length;
      half = Math.max(half, (ROOM * sprout.foot) / steep);
    }
    middles.push(middle);
    halves.push(half);
  }
  spread(middles, halves, from, limb.length);
  whorls.forEach((whorl, k) => {
    const before = k > 0 ? (middles[k - 1] + middles[k]) / 2 : from;
    const after = k + 1 < whorls.length ? (middles[k] + middles[k + 1]) / 2 : limb.length;
    whorl.low = Math.max(middles[k] - halves[k], middles[k] - 0.95 * (middles[k] - before));
    whorl.high = Math.min(middles[k] + halves[k], middles[k] + 0.95 * (after - middles[k]));
    widths(whorl, at((whorl.low + whorl.high) / 2));
  });
}

/** Moves what is too close apart, within the limb and in its order. */
function spread(middles: number[], halves: readonly number[], from: number, length: number): void {
  const last = middles.length - 1;
  const room = (k: number): number => 0.6 * (halves[k] + halves[k + 1]);
  middles[0] = Math.max(middles[0], from + 0.5 * halves[0]);
  for (let k = 1; k <= last; k++) middles[k] = Math.max(middles[k], middles[k - 1] + room(k - 1));
  middles[last] = Math.min(middles[last], length - 0.5 * halves[last]);
  for (let k = last - 1; k >= 0; k--) middles[k] = Math.min(middles[k], middles[k + 1] - room(k));
  // More than there is room for: all of it closer.
  const low = from + 0.02 * (length - from);
  const high = Math.max(low, Math.min(middles[last], length - 0.02 * (length - from)));
  if (middles[0] >= low && middles[last] <= high) return;
  const [first, run] = [middles[0], middles[last] - middles[0]];
  const wanted = high - Math.max(low, Math.min(first, high));
  middles.forEach((middle, k) => {
    middles[k] = run > 0 ? high - wanted + (wanted * (middle - first)) / run : Math.min(high, Math.max(low, middle));
  });
}

/** How far the holes of a whorl reach to each side: with their feet, but not into one another. */
function widths({ sprouts }: Whorl, place: Place): void {
  const DEGREE = Math.PI / 180;
  for (const sprout of sprouts) sprout.angle = angleAt(place, sprout.limb.root!.way);
  for (const [k, sprout] of sprouts.entries())
    if (k > 0) {
      const gap = turn(sprout.angle - sprouts[k - 1].angle);
      sprout.angle = sprouts[k - 1].angle + Math.max(gap, APART / 2);
    }
  sprouts.forEach((sprout, k) => {
    const next = k + 1 < sprouts.length ? sprouts[k + 1].angle : sprouts[0].angle + 2 * Math.PI;
    const before = k > 0 ? sprouts[k - 1].angle : sprouts[sprouts.length - 1].angle - 2 * Math.PI;
    const gap = Math.min(next - sprout.angle, sprout.angle - before);
    const wanted = ROOM * reachAround(sprout.foot, place.radius);
    sprout.half = Math.min(Math.max(wanted, 35 * DEGREE), 80 * DEGREE, 0.48 * gap);
  });
}

/** How far round a limb something reaches that is so wide, radians. */
export const reachAround = (foot: number, radius: number): number =>
  Math.asin(radius > 0 ? Math.min(0.95, foot / radius) : 0.95);

/** The angles of the columns in the rows of a whorl: spread over its holes, and evenly between them. */
export function warpedAngles({ sprouts }: Whorl, sides: number): Float64Array {
  const width = sides / 4;
  const angles = new Float64Array(sides);
  const knots: [column: number, angle: number][] = [];
  for (const { column, angle, half } of sprouts) knots.push([column, angle - half], [column + width, angle + half]);
  knots.push([knots[0][0] + sides, knots[0][1] + 2 * Math.PI]);
  for (let k = 0; k + 1 < knots.length; k++) {
    const [[a, from], [b, to]] = [knots[k], knots[k + 1]];
    for (let column = a; column < b; column++)
      angles[((column % sides) + sides) % sides] = from + ((to - from) * (column - a)) / (b - a);
  }
  return angles;
}
