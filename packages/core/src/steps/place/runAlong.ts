import { arcLengths, totalLength } from '../../curves/arclength';
import { chordSlots, slotsAlong, type Slots } from '../../curves/slots';
import { hash } from '../../fields/random';
import type { Domain, Named } from '../../geometry/attributes';
import { Carrier, pickColumns } from '../../geometry/carrier';
import { mapped } from '../../geometry/filled';
import { type FramedPaths, NO_POINT, pathCount, PATHS, restLengthOf } from '../../geometry/paths';
import { profileTable, readTable } from '../../geometry/profile';
import { SeatList, type Seats } from '../../geometry/seats';
import { about, after, NO_TURN } from '../../geometry/turns';
import { Problem } from '../../problem';
import type { StepContext } from '../declare';
import type { AlongParams } from './along';
import { type Laying, type Line, seat, type Stands } from './alongSeats';
import { courseOf, hanging, type LinkSizes } from './hanging';
import { type Fit, fitOf } from './itemFit';
import { ITEMS, type Items } from './items';
import { endlessMotion, leastCommon, type Placing, spotsOf } from './spots';
import { modulo, turnPattern } from './turnPattern';

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
    await context.yieldNow();
    if (paths.offsets[path + 1] - paths.offsets[path] < 2) continue;
    const line = lineOf(paths, path);
    const slots = await layOut(line);
    context.claim('copies', seats.count + slots.at.length * p.whorl, 'Count, or raise the spacing');
    const spots = await spotsOf({ p, slots, ...line, motion });
    seats.room(spots.count * p.whorl);
    // How a link hangs is looked for place by place.
    const chunk = slots.hanging ? CHUNK / 32 : CHUNK;
    for (let first = 0; first < spots.count; first += chunk) {
      if (first > 0) await context.yieldNow();
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

/** Places between two yields: some milliseconds. */
const CHUNK = 16384;

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
      const hung = await hanging(course, slots.at, links, turns, rule, !now, () => context.yieldNow());
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

/**
 * Length that the whole path had when it was made, by any point of it. Rounded to what single precision can tell, so
 * that it comes out the same from every point, and the number of places with it.
 */
const restLength = (paths: FramedPaths, path: number, whole: number): number =>
  Number((restLengthOf(paths, path) ?? whole).toPrecision(5));
