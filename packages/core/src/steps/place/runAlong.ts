import { mapped } from '../../geometry/filled';
import { arcLengths, fraction, locate, totalLength } from '../../curves/arclength';
import { chordSlots, type Hang, slotsAlong, type Slots } from '../../curves/slots';
import { hash, random } from '../../fields/random';
import { Carrier, pickColumns } from '../../geometry/carrier';
import type { Domain, Named } from '../../geometry/attributes';
import { type FramedPaths, NO_POINT, pathCount, PATHS, restLengthOf } from '../../geometry/paths';
import { profileTable, readTable } from '../../geometry/profile';
import { SeatList, type Seats } from '../../geometry/seats';
import { about, after, axesInto, between, fromAxes, NO_TURN, type Turn, turnedBy } from '../../geometry/turns';
import { add, scale, sub, unit, type Vec3 } from '../../geometry/vec';
import { Problem } from '../../problem';
import { easeAt } from '../../time/easing';
import type { StepContext } from '../declare';
import type { AlongParams } from './along';
import { courseOf, hanging, type LinkSizes } from './hanging';
import { ITEMS, type Items, type ItemShape } from './items';
import { type Endless, endlessMotion, leastCommon, type Placing, type Spots, spotsOf } from './spots';
import { modulo, type TurnPattern, turnPattern } from './turnPattern';
import { smoothstep } from '../../fields/smoothstep';

/** What placing has to know of an item: its forward axis, its length along it, and where its middle lies on it. */
interface Fit {
  axis: number;
  length: number;
  /** How it hangs in its neighbours. */
  hang: Hang;
  /** Its way across once its forward axis is Y: the wider one. */
  across: Vec3;
  middle: number;
  /** The middle of its box. */
  centre: Vec3;
  aligned: Turn;
}

/** All that stays the same for every place of every path. */
interface Laying {
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
interface Stands {
  path: number[];
  from: number[];
  to: number[];
  way: number[];
}

/** Lays copies along every path, and says which of them are there and where, as growth has it. */
export async function seatsAlong(
  paths: FramedPaths,
  p: AlongParams,
  items: Items,
  context: StepContext,
): Promise<Seats> {
  const hangs = p.hang && p.by === 'item' && p.facing === 'path';
  // What hangs in each other is turned across in turn by itself.
  const turns = turnPattern(hangs && p.turns.trim() === '0' ? '0, 90' : p.turns);
  const fits: Fit[] = [];
  for (const [i, shape] of items.shapes.entries()) {
    const plain = fitOf(shape, p.forward);
    const hole = hangs && shape.pitch === null ? (await context.holes(ITEMS[i]))[plain.axis] : shape.pitch;
    fits.push(hole === shape.pitch ? plain : fitOf({ ...shape, pitch: hole }, p.forward));
    if (hangs && hole === null)
      context.tell(
        'An item has no hole through its middle along its forward axis, so that it hangs in nothing.',
        'Choose another axis in Forward, or an item with a hole.',
      );
  }
  const pattern = leastCommon(turns.length, items.length);
  const [goal] = p.facing === 'guide' && p.toward !== null ? await context.places('toward') : [null];
  const motion = p.reveal === 'endless' ? endlessMotion(p.births, pattern, context) : null;
  const lean = about([1, 0, 0], (-p.lean * Math.PI) / 180);
  const laying: Laying = {
    ...{ p, items, fits, turns, goal, motion, seed: context.seed, count: pathCount(paths) },
    tails: fits.map(({ aligned }) => after(lean, p.facing === 'upright' ? NO_TURN : aligned)),
    sizes: profileTable(p.profile, 257),
    stands: Object.keys(paths.named).length > 0 ? { path: [], from: [], to: [], way: [] } : null,
  };
  const layOut = slotLayer(laying, pattern, context);
  const seats = new SeatList(items.shapes.map(({ id }) => id));
  for (let path = 0; path < laying.count; path++) {
    await context.breathe();
    if (paths.offsets[path + 1] - paths.offsets[path] < 2) continue;
    const line = lineOf(paths, path);
    const slots = await layOut(line);
    context.claim('copies', seats.count + slots.at.length * p.whorl, 'Count, or raise the spacing');
    const spots = await spotsOf({ p, slots, ...line, motion });
    seats.room(spots.count * p.whorl);
    // How a link hangs is looked for place by place.
    const chunk = slots.hanging ? CHUNK / 32 : CHUNK;
    for (let first = 0; first < spots.count; first += chunk) {
      if (first > 0) await context.breathe();
      seat(laying, line, slots, spots, [first, Math.min(spots.count, first + chunk)], seats);
    }
  }
  const made = seats.done();
  return laying.stands ? { ...made, named: inherited(paths, laying.stands) } : made;
}

/** What seats take over from the points between which they stand, and from their path. */
function inherited(paths: FramedPaths, { path, from, to, way }: Stands): Named {
  const rows = new Carrier(PATHS, paths, 'point', path.length);
  for (let k = 0; k < path.length; k++) rows.mix(from[k], to[k], way[k], k);
  const own = { ...rows.result().named, ...onlyOf('path', pickColumns(PATHS, paths, 'path', path).named) };
  return Object.fromEntries(Object.entries(own).map(([name, values]) => [name, { ...values, domain: 'copy' }]));
}

const onlyOf = (domain: Domain, named: Named): Named =>
  Object.fromEntries(Object.entries(named).filter(([, attribute]) => attribute.domain === domain));

/** By how much of their length links may be apart before that is told. */
const TORN = 1e-4;

const millimetres = (metres: number): string => `${(1000 * metres).toPrecision(2)} mm`;

/** Places between two breaths: some milliseconds. */
const CHUNK = 16384;

/** A path as it lies now, and how much of it is there. */
interface Line {
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

function lineOf(paths: FramedPaths, path: number): Line {
  const [a, b] = [paths.offsets[path], paths.offsets[path + 1]];
  const closed = paths.closed[path] === 1;
  const arcs = arcLengths(paths.positions, a, b, closed);
  return {
    ...{ paths, path, a, b, closed, arcs },
    loop: paths.loop[path] === 1,
    id: paths.ids[path],
    whole: paths.whole[path],
    from: paths.cutFrom[path],
    visible: totalLength(arcs),
  };
}

/** How places are laid out along a path. @throws Problem where they would take no room */
function slotLayer(
  { p, items, fits, sizes, seed, turns }: Laying,
  pattern: number,
  context: StepContext,
): (line: Line) => Promise<Placing['slots']> {
  const longest = Math.max(...fits.map(({ length }) => length));
  const pitch = p.by === 'distance' ? p.distance : longest * p.size + p.gap;
  if (!(pitch > 0)) throw new Problem('The spacing comes to nothing.', 'Raise Gap, Size or Distance.');
  const now = p.laid === 'now' || (p.laid === 'auto' && context.steady);
  // Sizes that go with the growth would move the places: those are laid out for the size itself.
  const shaped = p.follows === 'whole' && p.profile.some(({ value }) => value !== p.profile[0].value);
  const even = !shaped && fits.length === 1;
  // Links of one kind hang in each other; where several kinds follow each other, by the thinnest.
  const [thinnest] = [...fits].sort((a, b) => a.hang.wire - b.hang.wire);
  const hang = { ...thinnest.hang, wire: thinnest.hang.wire * p.size, room: thinnest.hang.room * p.size };
  const links = fits.every((fit) => fit.hang.wire > 0);
  const hung = p.by === 'item' && links && p.facing === 'path' && p.laid !== 'rest';
  const rule = {
    pitch: p.by === 'item' && even && p.follows === 'whole' ? pitch - (1 - sizes[0]) * longest * p.size : pitch,
    count: p.by === 'count' ? p.count : null,
    start: p.start,
    end: p.end,
    rest: p.rest,
    pattern,
    hung,
  };
  return async (line) => {
    const { paths, path, id, loop, whole } = line;
    if (p.by === 'points') return atPoints(line);
    const rest = now ? whole : restLength(paths, path, whole);
    // An item's own length and size decide how much room it takes; where all are the same, so is the room.
    const each = (k: number, share: number): number => {
      const size = p.size * (shaped ? readTable(sizes, share) : 1);
      return (fits[items.at(k, hash(seed, id, k))].length * size + p.gap) / pitch;
    };
    const slots = slotsAlong(rest, loop, { ...rule, each: p.by === 'item' && !even ? each : undefined });
    if (hung) {
      // Kinds that are dealt out by chance do not come round.
      const kinds = !even && items.length === 1 && fits.length > 1 ? slots.at.length + 1 : items.length;
      const sizesOf = (k: number, s: number): LinkSizes => {
        const {
          length,
          hang: own,
          across,
        } = fits[even ? 0 : items.at(k < 0 ? modulo(k, kinds) : k, hash(seed, id, k))];
        const size = p.size * (shaped && whole > 0 ? readTable(sizes, Math.min(1, Math.max(0, s / whole))) : sizes[0]);
        return { wire: own.wire * size, wide: own.wide * size, length: length * size, across };
      };
      const name = JSON.stringify([
        fits.map(({ length, hang: own, across }) => [length, own, across]),
        even ? 0 : [p.mix, p.pattern, p.odds, seed, id],
        shaped ? [p.profile, whole] : sizes[0],
        p.size,
      ]);
      const links = { sizes: sizesOf, name, pattern: kinds, gap: p.gap };
      const course = courseOf(paths, path);
      const hung = await hanging(course, slots.at, links, turns, rule, !now, () => context.breathe());
      if (hung.loose < -TORN * longest * p.size)
        context.tell(
          `The path is too long for its links: they are torn apart by ${millimetres(-hung.loose)} at each joint.`,
          'Lay them out by the length now, or on a path that keeps its length.',
        );
      return hung;
    }
    // Laid out at rest, places go along with what bends or stretches the path.
    if (rest !== whole) for (let k = 0; k < slots.at.length; k++) slots.at[k] = (slots.at[k] * whole) / rest;
    if (p.by === 'item' && now && p.rest === 'leave' && !loop) {
      const course = courseOf(paths, path);
      if (course.known[1] >= course.length) slots.at = chordSlots(slots.at, course.on, course.length, hang);
    }
    return slots;
  };
}

/** The places of the whole path's own points that are there; ends that growth has cut are none. */
function atPoints({ paths, a, b, from, whole, loop, arcs }: Line): Slots & { numbers: Uint32Array } {
  const given = paths.number;
  const own = Array.from({ length: b - a }, (_, k) => k).filter((k) => given?.[a + k] !== NO_POINT);
  const place = (k: number): number => (loop && arcs[k] + from >= whole ? arcs[k] + from - whole : arcs[k] + from);
  return {
    at: mapped(Float64Array, own, place),
    numbers: mapped(Uint32Array, own, (k) => given?.[a + k] ?? k),
    size: 1,
  };
}

const way = new Float64Array(4);

/** Puts down the seats of some places of a path. */
function seat(
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
    const { axis, middle, centre } = fits[which];
    const off = standing === 'centre' || pose ? centre : scale(axisOf(axis), middle);
    const offCentre = standing !== 'origin' || pose ? off[0] !== 0 || off[1] !== 0 || off[2] !== 0 : false;
    const grown =
      age === null || settle === 0 || reveal !== 'appear' ? 1 : Math.max(0, easeAt(ease, Math.min(1, passed / settle)));
    const fade = motion && !loop && fading > 0 ? smoothstep(share / fading) * smoothstep((1 - share) / fading) : 1;
    const small = vary > 0 ? 1 - vary * random(number, 0, 1) : 1;
    const size =
      base * factor * readTable(sizes, follows === 'grown' && visible > 0 ? s / visible : share) * small * grown * fade;
    if (plain) axesInto(way, nx, ny, nz, tx, ty, tz);
    else if (!goal) way.set(headingTurn([tx, ty, tz], [nx, ny, nz], axis));
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
        const shift = scale(turnedBy([r0, r1, r2, r3], off), -size);
        px += shift[0];
        py += shift[1];
        pz += shift[2];
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

/**
 * Length that the whole path had when it was made, by any point of it. Rounded to what single precision can tell, so
 * that it comes out the same from every point, and the number of places with it.
 */
const restLength = (paths: FramedPaths, path: number, whole: number): number =>
  Number((restLengthOf(paths, path) ?? whole).toPrecision(5));

function fitOf({ min, max, pitch }: ItemShape, forward: string): Fit {
  const sizes = sub(max, min);
  const axis = forward === 'auto' ? sizes.indexOf(Math.max(...sizes)) : 'xyz'.indexOf(forward);
  const aligned = alignment(axis);
  // A link reaches into the next by its wire at both ends.
  const wire = pitch === null ? 0 : Math.max(0, (sizes[axis] - pitch) / 2);
  const wide = Math.max(...sizes.filter((_, c) => c !== axis));
  const hang = { wire, wide, room: Math.max(1e-6, wide - 3 * wire) };
  return {
    axis,
    length: pitch ?? sizes[axis],
    hang,
    across: turnedBy(
      aligned,
      axisOf(sizes.reduce((best, size, c) => (c !== axis && (best === axis || size > sizes[best]) ? c : best), axis)),
    ),
    middle: (min[axis] + max[axis]) / 2,
    centre: scale(add(min, max), 0.5),
    aligned,
  };
}

const axisOf = (axis: number): Vec3 => [axis === 0 ? 1 : 0, axis === 1 ? 1 : 0, axis === 2 ? 1 : 0];

/** The turn that brings an item's forward axis to Y. */
function alignment(axis: number): Turn {
  if (axis === 0) return about([0, 0, 1], Math.PI / 2);
  return axis === 2 ? about([1, 0, 0], -Math.PI / 2) : NO_TURN;
}

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
