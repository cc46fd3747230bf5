import { arcLengths, totalLength } from '../../curves/arclength';
import { sampled, type Sample } from '../../curves/sampling';
import { withFrames } from '../../curves/pathFrames';
import { chordSlots, type Hang, slotsAlong } from '../../curves/slots';
import { hash, random } from '../../fields/random';
import { type FramedPaths, pathCount } from '../../geometry/paths';
import { profileTable, readTable } from '../../geometry/profile';
import { SeatList, type Seats } from '../../geometry/seats';
import { about, after, between, fromAxes, NO_TURN, type Turn, turnedBy } from '../../geometry/turns';
import { add, scale, sub, unit, type Vec3 } from '../../geometry/vec';
import { Problem } from '../../problem';
import { easeAt, type EaseName } from '../../time/easing';
import { type StepContext } from '../declare';
import { type AlongParams } from './along';
import { type Items, type ItemShape } from './items';
import { modulo, turnPattern } from './turnPattern';

/** What placing has to know of an item: its forward axis, its length along it, and where its middle lies on it. */
interface Fit {
  axis: number;
  length: number;
  /** How it hangs in its neighbours. */
  hang: Hang;
  middle: number;
  aligned: Turn;
}

/** Lays copies along every path, and says which of them are there and where, as growth has it. */
export async function seatsAlong(
  paths: FramedPaths,
  p: AlongParams,
  items: Items,
  context: StepContext,
): Promise<Seats> {
  const turns = turnPattern(p.turns);
  const laid = p.laid !== 'auto' ? p.laid : context.steady ? 'now' : 'rest';
  const fits = items.shapes.map((shape) => fitOf(shape, p.forward));
  const longest = Math.max(...fits.map(({ length }) => length));
  const pitch = p.by === 'distance' ? p.distance : longest * p.size + p.gap;
  if (!(pitch > 0)) throw new Problem('The spacing comes to nothing.', 'Raise Gap, Size or Distance.');
  const table = profileTable(p.profile, 257);
  const pattern = leastCommon(turns.length, items.length);
  // Sizes that go with the growth would move the places: those are laid out for the size itself.
  const shaped = p.follows === 'whole' && p.profile.some(({ value }) => value !== p.profile[0].value);
  const even = !shaped && fits.length === 1;
  const lean = about([1, 0, 0], (-p.lean * Math.PI) / 180);
  const [goal] = p.facing === 'guide' && p.toward !== null ? await context.places('toward') : [null];
  // Links of one kind hang in each other; where several kinds follow each other, by the thinnest.
  const [thinnest] = [...fits].sort((a, b) => a.hang.wire - b.hang.wire);
  const hang = { wire: thinnest.hang.wire * p.size, room: thinnest.hang.room * p.size };
  const motion = p.reveal === 'endless' ? endlessMotion(p.births, pattern, context) : null;
  const spin = motion ? turns.over(motion.births) * motion.done : 0;
  const seats = new SeatList(items.shapes.map(({ id }) => id));

  const count = pathCount(paths);
  const { seed } = context;
  for (let path = 0; path < count; path++) {
    await context.breathe();
    const [a, b] = [paths.offsets[path], paths.offsets[path + 1]];
    if (b - a < 2) continue;
    const closed = paths.closed[path] === 1;
    const whole = paths.whole[path];
    const rest = laid === 'rest' ? restLength(paths, b - 1, whole) : whole;
    const arcs = arcLengths(paths.positions, a, b, closed);
    const from = paths.cutFrom[path];
    const visible = totalLength(arcs);
    const numberOf = (k: number): number => hash(seed, paths.ids[path], k);
    // An item's own length and size decide how much room it takes; where all are the same, so is the room.
    const each = (k: number, share: number): number => {
      const size = p.size * (shaped ? readTable(table, share) : 1);
      return (fits[items.at(k, numberOf(k))].length * size + p.gap) / pitch;
    };
    const slots =
      p.by === 'points'
        ? { at: Float64Array.from({ length: b - a }, (_, k) => arcs[k] + from), size: 1 }
        : slotsAlong(rest, closed, {
            pitch:
              p.by === 'item' && even && p.follows === 'whole'
                ? pitch - (1 - readTable(table, 0)) * longest * p.size
                : pitch,
            count: p.by === 'count' ? p.count : null,
            start: p.start,
            end: p.end,
            rest: p.rest as 'leave' | 'spread' | 'fit',
            pattern,
            each: p.by === 'item' && !even ? each : undefined,
          });
    // Laid out at rest, places go along with what bends or stretches the path.
    if (p.by !== 'points') slots.at.forEach((s, k) => (slots.at[k] = (s * whole) / rest));
    if (p.by === 'item' && laid === 'now' && p.rest === 'leave' && !closed)
      slots.at = alongChords(paths, path, slots.at, hang) ?? slots.at;
    const n = slots.at.length;
    context.claim('copies', seats.count + n * p.whorl, 'Count, or raise the spacing');
    const placing = { p, slots, n, whole, from, visible, closed, motion };
    // Endless trains have one more at work: the one that comes in while another goes.
    for (let k = motion ? -1 : 0; k < n; k++) {
      const place = placeOf(placing, k);
      if (!place || place.s < 0 || place.s > visible) continue;
      const here = sampled(paths, a, b, arcs, place.s);
      const share = whole > 0 ? Math.min(1, Math.max(0, place.rest / whole)) : 0;
      const number = numberOf(place.dice);
      const which = items.at(place.number, number);
      const fit = fits[which];
      const grown =
        here.age === null || p.settle === 0 || p.reveal !== 'appear'
          ? 1
          : Math.max(0, easeAt(p.ease as EaseName, Math.min(1, here.age / p.settle)));
      const fade = motion && !closed && p.fade > 0 ? rise(share / p.fade) * rise((1 - share) / p.fade) : 1;
      const size =
        p.size *
        slots.size *
        readTable(table, p.follows === 'grown' && visible > 0 ? place.s / visible : share) *
        (1 - p.vary * random(number, 0, 1)) *
        grown *
        fade;
      const upright = p.facing === 'upright';
      const frame = upright ? headingTurn(here, fit.axis) : fromAxes(here.normal, here.tangent);
      const aligned = upright ? NO_TURN : fit.aligned;
      for (let around = 0; around < p.whorl; around++) {
        const dice = p.whorl > 1 ? hash(number, around, 9) : number;
        const angle =
          turns.at(place.number) +
          spin +
          (2 * Math.PI * around) / p.whorl +
          (p.varyTurn * Math.PI * (2 * random(dice, 0, 2) - 1)) / 180;
        const placed = p.varyPlace > 0 ? add(here.position, scale(anywhere(dice), p.varyPlace)) : here.position;
        const way = goal ? fromAxes(...facing(unit(sub(goal, placed)))) : frame;
        const turn = after(way, after(about([0, 1, 0], angle), after(lean, aligned)));
        // The item's middle comes to stand on the path.
        const shift = p.stands === 'origin' ? NOWHERE : scale(turnedBy(turn, axisOf(fit.axis)), -fit.middle * size);
        seats.add({
          growth: which,
          // Row by row, so that a longer path gives the others no new numbers.
          id: ((modulo(place.number, place.ids) * p.whorl + around) * count + path) >>> 0,
          number: place.number,
          // Whorls have several neighbours, and are no row.
          row: p.whorl > 1 ? 0 : 2 * path + (closed && p.reveal !== 'feed' ? 2 : 1),
          position: add(placed, shift),
          turn,
          size,
          share,
          age: here.age ?? Infinity,
          life: motion ? share : null,
          variant: items.variant(dice),
        });
      }
    }
  }
  return seats.done();
}

/**
 * Length that the whole path had when it was made, by any point of it. Rounded to what single precision can tell, so
 * that it comes out the same from every point, and the number of places with it.
 */
const restLength = (paths: FramedPaths, i: number, whole: number): number =>
  paths.u[i] > 1e-3 ? Number((paths.s[i] / paths.u[i]).toPrecision(5)) : whole;

/** Places by straight distances on the whole path; null where its course is no longer known. */
function alongChords(paths: FramedPaths, path: number, at: Float64Array, hang: Hang): Float64Array | null {
  const source = paths.uncut === undefined ? paths : paths.uncut;
  if (!source) return null;
  const [a, b] = [source.offsets[path], source.offsets[path + 1]];
  const framed = withFrames(source);
  const arcs = arcLengths(source.positions, a, b, false);
  return chordSlots(at, (s) => sampled(framed, a, b, arcs, s), totalLength(arcs), hang);
}

/** From nothing to all, softly at both ends. */
const rise = (t: number): number => (t >= 1 ? 1 : t <= 0 ? 0 : t * t * (3 - 2 * t));

interface Placing {
  p: AlongParams;
  slots: { at: Float64Array; size: number };
  n: number;
  whole: number;
  from: number;
  visible: number;
  closed: boolean;
  motion: Endless | null;
}

interface Place {
  /** Arc length on what is there of the path, and on the whole path. */
  s: number;
  rest: number;
  /** Its number in the row, which its turn, its item and its id hang on; ids begin again after so many. */
  number: number;
  ids: number;
  /** What its chance hangs on. */
  dice: number;
}

/** Where the k-th place is now; null where it is not there. */
function placeOf({ p, slots, n, whole, from, visible, closed, motion }: Placing, k: number): Place | null {
  const fixed = (s: number, rest: number): Place => ({ s, rest, number: k, ids: n, dice: k });
  const here = slots.at[k];
  switch (p.reveal) {
    case 'appear':
      return fixed(here - from, here);
    case 'feed':
      // The train's head is at the front: all places lie back by what is still to come.
      return fixed(here + visible - whole, here);
    case 'pull': {
      const out = (1 - p.fed) * (p.enters === 'both' ? whole / 2 : whole);
      const back = p.enters === 'base' || (p.enters === 'both' && here < whole / 2);
      const s = back ? here - out : here + out;
      return fixed(s - from, s);
    }
    default: {
      if (closed && k < 0) return null;
      const { moved, whole: passed, births } = motion!;
      // From its place to the next at an even pace; the one before the first comes in from beyond the base.
      const last = n > 1 ? slots.at[n - 1] - slots.at[n - 2] : whole;
      const first = k < 0 ? slots.at[0] - (n > 1 ? slots.at[1] - slots.at[0] : whole) : here;
      const next = k + 1 < n ? slots.at[k + 1] : closed ? whole + slots.at[0] : here + last;
      const s = first + (next - first) * moved;
      const rest = closed ? modulo(s, whole) : s;
      const number = closed ? modulo(k - passed, n) : k - passed;
      const period = births === 0 ? n + 1 : closed ? greatestCommon(n, Math.abs(births)) : Math.abs(births);
      const ids = closed ? n : period * Math.ceil((n + 2) / period);
      return { s: rest - from, rest, number, ids, dice: modulo(number, period) };
    }
  }
}

interface Endless {
  /** Births over the range, a whole number of patterns. */
  births: number;
  /** Births that have been, and how much of the next one. */
  whole: number;
  moved: number;
  /** Share of the range. */
  done: number;
}

/** How far an endless train has come. */
function endlessMotion(births: number, pattern: number, { frame, range: [first, last] }: StepContext): Endless {
  const patterns = births === 0 ? 0 : Math.sign(births) * Math.max(1, Math.round(Math.abs(births) / pattern));
  const done = (frame - first) / (last - first + 1);
  const passed = patterns * pattern * done;
  const settled = Math.floor(passed + 1e-9);
  return { births: patterns * pattern, whole: settled, moved: Math.max(0, passed - settled), done };
}

function fitOf({ min, max, form }: ItemShape, forward: string): Fit {
  const sizes = sub(max, min);
  const axis = forward === 'auto' ? sizes.indexOf(Math.max(...sizes)) : 'xyz'.indexOf(forward);
  // A link reaches into the next by its wire at both ends.
  const wire = form.pitch === null ? 0 : Math.max(0, (sizes[axis] - form.pitch) / 2);
  const wide = Math.max(...sizes.filter((_, c) => c !== axis));
  const hang = { wire, room: Math.max(1e-6, wide - 3 * wire) };
  return {
    axis,
    length: form.pitch ?? sizes[axis],
    hang,
    middle: (min[axis] + max[axis]) / 2,
    aligned: alignment(axis),
  };
}

const NOWHERE: Vec3 = [0, 0, 0];
const axisOf = (axis: number): Vec3 => [axis === 0 ? 1 : 0, axis === 1 ? 1 : 0, axis === 2 ? 1 : 0];

/** The turn that brings an item's forward axis to Y. */
function alignment(axis: number): Turn {
  if (axis === 0) return about([0, 0, 1], Math.PI / 2);
  return axis === 2 ? about([1, 0, 0], -Math.PI / 2) : NO_TURN;
}

/** The turn that keeps Y up and brings a forward axis that is level to the path's heading; what stands turns its X there. */
function headingTurn({ tangent, normal }: Sample, axis: number): Turn {
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

const greatestCommon = (a: number, b: number): number => (b === 0 ? a : greatestCommon(b, a % b));
const leastCommon = (a: number, b: number): number => (a * b) / greatestCommon(a, b);
