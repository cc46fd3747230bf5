import { fraction, locate } from '../../curves/arclength';
import { hash, random } from '../../fields/random';
import { smoothstep } from '../../fields/smoothstep';
import type { FramedPaths } from '../../geometry/paths';
import { readTable } from '../../geometry/profile';
import type { SeatList } from '../../geometry/seats';
import { about, after, axesInto, between, fromAxes, type Turn, turnedBy } from '../../geometry/turns';
import { scale, sub, unit, type Vec3 } from '../../geometry/vec';
import { easeAt } from '../../time/easing';
import type { AlongParams } from './along';
import { axisOf, type Fit } from './itemFit';
import type { Items } from './items';
import type { Endless, Placing, Spots } from './spots';
import { modulo, type TurnPattern } from './turnPattern';

/** All that stays the same for every place of every path. */
export interface Laying {
  p: AlongParams;
  items: Items;
  fits: Fit[];
  /** Turn of an item before it is brought to its place: its forward axis to Y, then its lean. */
  tails: Turn[];
  turns: TurnPattern;
  /** Factor on the size along the path. */
  sizes: Float64Array;
  goal: Vec3 | null;
  motion: Endless | null;
  seed: number;
  /** Paths that there are. */
  count: number;
  /** Between which points each seat stands; null where the points know nothing that it would take over. */
  stands: Stands | null;
}

/** For each seat its path, the points before and after it, and how far it is from one to the other. */
export interface Stands {
  path: number[];
  from: number[];
  to: number[];
  way: number[];
}

/** A path as it lies now, and how much of it is there. */
export interface Line {
  paths: FramedPaths;
  path: number;
  id: number;
  /** First point, and past the last. */
  a: number;
  b: number;
  closed: boolean;
  /** Whether the whole path is closed. */
  loop: boolean;
  /** Length of the whole path, metres; where on it what is there begins, and how long that is. */
  whole: number;
  from: number;
  visible: number;
  /** Arc lengths of the points of what is there. */
  arcs: Float64Array;
}

const way = new Float64Array(4);

/** Puts down the seats of some places of a path. */
export function seat(
  { p, items, fits, tails, turns, sizes, goal, motion, seed, count, stands }: Laying,
  { paths, path, id, a, b, closed, loop, whole, visible, arcs, from }: Line,
  { size: factor, hanging: hung }: Placing['slots'],
  spots: Spots,
  [begin, end]: readonly [number, number],
  list: SeatList,
): void {
  const seats = list.room((end - begin) * p.whorl);
  let write = list.count;
  const { positions, tangents, normals, age } = paths;
  // Read once: an object of so many parameters is looked up by name each time.
  const {
    whorl,
    settle,
    reveal,
    ease,
    fade: fading,
    vary,
    size: base,
    follows,
    varyTurn,
    varyLean,
    varyPlace,
    stands: standing,
  } = p;
  const plain = p.facing !== 'upright' && goal === null;
  const last = arcs.length - 2;
  // Whorls have several neighbours, and are no row.
  const row = whorl > 1 ? 0 : 2 * path + (closed && reveal !== 'feed' ? 2 : 1);
  const dealt = motion && loop ? turns.closing(spots.ids) : turns;
  const spin = (motion ? dealt.over(motion.births) * motion.done : 0) + (p.roll * Math.PI) / 180;
  if (motion) seats.life ??= new Float32Array(seats.ids.length);
  const { growth, ids, dice: chance, number: numbers, row: rowsOf, share: shares, age: ages, variant } = seats;
  const { positions: places, turns: ways, sizes: all } = seats;
  const { s: spotAt, rest: spotRest, number: spotNumber, dice: spotDice, ids: within } = spots;
  const offs = fits.map(({ axis, middle, centre }) => standsOff(standing, axis, middle, centre));
  let k = 0;
  for (let spot = begin; spot < end; spot++) {
    const s = spotAt[spot];
    // Places mostly follow each other along the path; where they do not, they are looked for.
    if (s < arcs[k]) k = locate(arcs, s);
    else while (k < last && arcs[k + 1] <= s) k++;
    const t = fraction(arcs, k, s);
    const i = a + k;
    const j = i + 1 < b ? i + 1 : a;
    const p0 = 3 * i;
    const q0 = 3 * j;
    let tx = tangents[p0] + (tangents[q0] - tangents[p0]) * t;
    let ty = tangents[p0 + 1] + (tangents[q0 + 1] - tangents[p0 + 1]) * t;
    let tz = tangents[p0 + 2] + (tangents[q0 + 2] - tangents[p0 + 2]) * t;
    const along = Math.sqrt(tx * tx + ty * ty + tz * tz);
    if (along > 1e-20) {
      tx /= along;
      ty /= along;
      tz /= along;
    } else {
      tx = tangents[p0];
      ty = tangents[p0 + 1];
      tz = tangents[p0 + 2];
    }
    // Square to the path again between points.
    let nx = normals[p0] + (normals[q0] - normals[p0]) * t;
    let ny = normals[p0 + 1] + (normals[q0 + 1] - normals[p0 + 1]) * t;
    let nz = normals[p0 + 2] + (normals[q0 + 2] - normals[p0 + 2]) * t;
    const slant = nx * tx + ny * ty + nz * tz;
    nx -= slant * tx;
    ny -= slant * ty;
    nz -= slant * tz;
    const across = Math.sqrt(nx * nx + ny * ny + nz * nz);
    if (across > 1e-20) {
      nx /= across;
      ny /= across;
      nz /= across;
    } else {
      nx = normals[p0];
      ny = normals[p0 + 1];
      nz = normals[p0 + 2];
    }
    let x = positions[p0] + (positions[q0] - positions[p0]) * t;
    let y = positions[p0 + 1] + (positions[q0 + 1] - positions[p0 + 1]) * t;
    let z = positions[p0 + 2] + (positions[q0 + 2] - positions[p0 + 2]) * t;
    const pose = hung?.pose(spotNumber[spot], s + from, spin);
    if (pose) {
      [x, y, z] = pose.position;
      [tx, ty, tz] = pose.along;
      [nx, ny, nz] = hung!.normal(pose, dealt.at(spotNumber[spot]) + spin, spotNumber[spot], s + from);
    }
    const passed = age ? age[i] + (age[j] - age[i]) * t : Infinity;

    const rest = spotRest[spot];
    const share = whole > 0 ? Math.min(1, Math.max(0, rest / whole)) : 0;
    const number = hash(seed, id, spotDice[spot]);
    const order = spotNumber[spot];
    const which = items.at(order, number);
    const upright = tails[which];
    const off = pose ? fits[which].centre : offs[which];
    const [off0, off1, off2] = off;
    const offCentre = off0 !== 0 || off1 !== 0 || off2 !== 0;
    const grown =
      age === null || settle === 0 || reveal !== 'appear' ? 1 : Math.max(0, easeAt(ease, Math.min(1, passed / settle)));
    const fade = motion && !loop && fading > 0 ? smoothstep(share / fading) * smoothstep((1 - share) / fading) : 1;
    const small = vary > 0 ? 1 - vary * random(number, 0, 1) : 1;
    const size =
      base * factor * readTable(sizes, follows === 'grown' && visible > 0 ? s / visible : share) * small * grown * fade;
    if (plain) axesInto(way, nx, ny, nz, tx, ty, tz);
    else if (!goal) way.set(headingTurn([tx, ty, tz], [nx, ny, nz], fits[which].axis));
    for (let around = 0; around < whorl; around++, write++) {
      const dice = whorl > 1 ? hash(number, around, 9) : number;
      const tilt = varyLean > 0 ? (varyLean * Math.PI * (2 * random(dice, 0, 3) - 1)) / 180 : 0;
      const tail = tilt === 0 ? upright : after(about([1, 0, 0], -tilt), upright);
      const angle =
        dealt.at(order) +
        spin +
        (2 * Math.PI * around) / whorl +
        (varyTurn > 0 ? (varyTurn * Math.PI * (2 * random(dice, 0, 2) - 1)) / 180 : 0);
      let px = x;
      let py = y;
      let pz = z;
      if (varyPlace > 0) {
        const moved = anywhere(dice);
        px += moved[0] * varyPlace;
        py += moved[1] * varyPlace;
        pz += moved[2] * varyPlace;
      }
      if (goal) way.set(fromAxes(...facing(unit(sub(goal, [px, py, pz])))));
      // Turned about Y, then brought to its way; what it was turned before comes first of all.
      const sy = Math.sin(angle / 2);
      const cy = Math.cos(angle / 2);
      const u0 = cy * tail[0] + sy * tail[2];
      const u1 = cy * tail[1] + sy * tail[3];
      const u2 = cy * tail[2] - sy * tail[0];
      const u3 = cy * tail[3] - sy * tail[1];
      const w0 = way[0];
      const w1 = way[1];
      const w2 = way[2];
      const w3 = way[3];
      const r0 = w3 * u0 + w0 * u3 + w1 * u2 - w2 * u1;
      const r1 = w3 * u1 - w0 * u2 + w1 * u3 + w2 * u0;
      const r2 = w3 * u2 + w0 * u1 - w1 * u0 + w2 * u3;
      const r3 = w3 * u3 - w0 * u0 - w1 * u1 - w2 * u2;
      if (offCentre) {
        // The item's middle comes to stand on the path.
        const t0 = 2 * (r1 * off2 - r2 * off1);
        const t1 = 2 * (r2 * off0 - r0 * off2);
        const t2 = 2 * (r0 * off1 - r1 * off0);
        px -= size * (off0 + r3 * t0 + r1 * t2 - r2 * t1);
        py -= size * (off1 + r3 * t1 + r2 * t0 - r0 * t2);
        pz -= size * (off2 + r3 * t2 + r0 * t1 - r1 * t0);
      }
      growth[write] = which;
      // Row by row, so that a longer path gives the others no new numbers.
      ids[write] = (modulo(order, within) * whorl + around) * count + path;
      chance[write] = motion ? (modulo(spotDice[spot], within) * whorl + around) * count + path : ids[write];
      numbers[write] = motion ? spotDice[spot] : order;
      rowsOf[write] = row;
      places[3 * write] = px;
      places[3 * write + 1] = py;
      places[3 * write + 2] = pz;
      ways[4 * write] = r0;
      ways[4 * write + 1] = r1;
      ways[4 * write + 2] = r2;
      ways[4 * write + 3] = r3;
      all[3 * write] = size;
      all[3 * write + 1] = size;
      all[3 * write + 2] = size;
      shares[write] = share;
      ages[write] = passed;
      if (motion) seats.life![write] = share;
      variant[write] = items.variant(dice);
      if (stands) {
        stands.path.push(path);
        stands.from.push(i);
        stands.to.push(j);
        stands.way.push(t);
      }
    }
  }
  list.took(write - list.count);
}

/** What of an item comes to stand on the path, from its origin. */
const standsOff = (standing: AlongParams['stands'], axis: number, middle: number, centre: Vec3): Vec3 =>
  standing === 'origin' ? [0, 0, 0] : standing === 'centre' ? centre : scale(axisOf(axis), middle);

/** The turn that keeps Y up and brings a forward axis that is level to the path's heading; what stands turns its X there. */
function headingTurn(tangent: Vec3, normal: Vec3, axis: number): Turn {
  const heading = unit([tangent[0], 0, tangent[2]], unit([normal[0], 0, normal[2]], [1, 0, 0]));
  return fromAxes(axis === 2 ? [heading[2], 0, -heading[0]] : heading, [0, 1, 0]);
}

/** X and Y axes with Y along a direction. */
function facing(y: Vec3): [Vec3, Vec3] {
  const turn = between([0, 1, 0], y);
  return [turnedBy(turn, [1, 0, 0]), y];
}

/** A place in the unit ball, evenly. */
function anywhere(number: number): Vec3 {
  const z = 2 * random(number, 0, 6) - 1;
  const turn = 2 * Math.PI * random(number, 0, 7);
  const r = Math.cbrt(random(number, 0, 8));
  const flat = Math.sqrt(1 - z * z);
  return [r * flat * Math.cos(turn), r * z, r * flat * Math.sin(turn)];
}
