import { arcLengths, totalLength } from '../../curves/arclength';
import {
  type MaybeYield,
  type LinkPlace,
  type LinkShape,
  type LinkSize,
  LinkTrain,
  type Reaches,
} from '../../curves/linkSlots';
import { withFrames } from '../../curves/pathFrames';
import { type Sample, sampleCurve } from '../../curves/sampling';
import type { SlotRule, Slots } from '../../curves/slots';
import type { FramedPaths, Paths } from '../../geometry/paths';
import { about, turnedBy } from '../../geometry/turns';
import { add, cross, scale, sub, type Vec3 } from '../../geometry/vec';
import { leastCommon } from './spots';
import { modulo, type TurnPattern } from './turnPattern';

/** The course of a path: of the whole, or where that is not known, of what is there of it. */
export interface Course {
  source: Paths;
  path: number;
  /** The path at an arc length on the whole. */
  on: (s: number) => Sample;
  /** Length of the whole path, and from where to where its course is known, metres. */
  length: number;
  known: readonly [number, number];
  closed: boolean;
}

export function courseOf(paths: FramedPaths, path: number): Course {
  const source = paths.uncut ?? paths;
  const [a, b] = [source.offsets[path], source.offsets[path + 1]];
  const closed = source.closed[path] === 1;
  const framed = withFrames(source);
  const arcs = arcLengths(source.positions, a, b, closed);
  const there = totalLength(arcs);
  // Moved since it was cut: of what is not there nobody knows how it lies.
  if (paths.uncut === null) {
    const from = paths.cutFrom[path];
    const on = (s: number): Sample => sampleCurve(framed, a, b, arcs, s - from);
    return { source, path, on, length: paths.whole[path], known: [from, from + there], closed: false };
  }
  const on = closed
    ? (s: number): Sample => sampleCurve(framed, a, b, arcs, modulo(s, there))
    : (s: number): Sample => sampleCurve(framed, a, b, arcs, s);
  return { source, path, on, length: there, known: [0, there], closed };
}

/** What links are like where they hang in each other, metres. */
export interface LinkSizes {
  wire: number;
  /** Outer width. */
  wide: number;
  /** Inner length. */
  length: number;
  /** The way across the item once its forward axis is Y. */
  across: Vec3;
}

/** The links of a path. */
export interface Hung {
  /** The k-th one where its middle is at an arc length of the whole path. */
  sizes: (k: number, s: number) => LinkSizes;
  /** What their sizes hang on, in words: the same words mean the same sizes. */
  name: string;
  /** After how many their kinds are the same again. */
  pattern: number;
  gap: number;
}

/** How links that hang in each other are laid again from any one of them, as loose as they are where they rest. */
export interface Hanging {
  /** Places of links from number k at arc length s on, one way. */
  from: (k: number, s: number, count: number, way: 1 | -1) => Promise<Float64Array>;
  /** Places of all links of a ring from number k at arc length s on. */
  round: (k: number, s: number) => Promise<Float64Array>;
  /** After how many links their turns are the same again. */
  period: number;
  /** How a link lies at an arc length of the whole path; null where it hangs in none. @param spin by what all of them are turned besides, radians */
  pose: (k: number, s: number, spin: number) => LinkPlace | null;
  /** The frame of a path along a link, whose turn brings the item's way across to that of the link. @param angle radians */
  normal: (pose: LinkPlace, angle: number, k: number, s: number) => Vec3;
}

/** Where links hang, how loose, and what each of them spans. */
type HungSlots = Slots & { loose: number; reaches?: Reaches };

/** Where links hang on whole paths: the same at every moment at which more or less of a path is there. */
const hung = new WeakMap<Paths, Map<string, HungSlots>>();

/**
 * Hangs links in each other along a path.
 * @param laid places as they would be laid end to end on a straight
 * @param lasts whether there are as many of them whatever moves the path: then they hang loose where it becomes too short
 */
export async function hanging(
  course: Course,
  laid: Float64Array,
  { sizes, name, pattern: kinds, gap }: Hung,
  turns: TurnPattern,
  rule: SlotRule,
  lasts: boolean,
  yieldNow: MaybeYield,
): Promise<Slots & { hanging: Hanging; loose: number }> {
  const period = leastCommon(turns.length, kinds);
  const { closed, length } = course;
  /** Links of a size. @param ring how many there are until it is the first one again, 0 for never */
  const train = (size: number, ring = 0, spin = 0, reaches?: Reaches): LinkTrain => {
    const on = (k: number, s: number): LinkPlace =>
      placeOf(onwards(course, s), turns.at(ring > 0 ? modulo(k, ring) : k) + spin, sizes(k, s).across);
    const link = (k: number, s: number): LinkSize => {
      const own = sizes(ring > 0 ? modulo(k, ring) : k, s);
      return { shape: shapeOf(own, size), pitch: own.length * size };
    };
    return new LinkTrain({ link, gap, period, on }, yieldNow, reaches);
  };
  const find = async (): Promise<HungSlots> => {
    const given = { at: laid, size: 1, loose: 0 };
    if (laid.length === 0) return given;
    const { start, end, rest } = rule;
    if (course.known[1] - course.known[0] < length) return rest === 'leave' ? { ...given, at: await asFar() } : given;
    if (closed) return rest === 'fit' ? fitted(0, length) : evenly(0, length);
    if (rest === 'leave') return left();
    const room = length - start - end;
    return rest === 'fit' ? fitted(start, room) : evenly(start, room);

    /** Each touching the next as far as the course is known, and laid end to end beyond. */
    async function asFar(): Promise<Float64Array> {
      if (course.known[0] > 0) return laid;
      const at = laid.slice();
      const links = train(1);
      for (let k = 1; k < at.length; k++)
        at[k] = at[k - 1] < course.known[1] ? links.beside(k - 1, at[k - 1], 1) : at[k - 1] + laid[k] - laid[k - 1];
      return at;
    }

    /** As many as there is room for, each touching the next. */
    async function left(): Promise<HungSlots> {
      const reaches: Reaches = new Map();
      const at = await train(1, 0, 0, reaches).laid(0, laid[0], laid.length);
      const beyond = at.findIndex((s) => s > length - end);
      if (beyond < 0) return { ...given, at, reaches };
      if (!lasts) return { ...given, at: at.slice(0, beyond), reaches };
      return { ...given, ...(await train(1).laidTo(0, laid[0], laid.length, length - end)) };
    }

    /** Evenly loose over all the room, a round or whole patterns more where they would not reach. */
    async function evenly(from: number, room: number): Promise<HungSlots> {
      const step = closed ? rule.pattern : 1;
      let n = laid.length;
      for (let round = 0; !lasts && round < 4; round++) {
        const spaces = closed ? n + 1 : n;
        const [first, apart] = ends(from, room, n);
        const reach = (await train(1, closed ? n : 0).laid(0, first, spaces))[spaces - 1] - first;
        if (reach >= apart || !(reach > 0)) break;
        n = Math.max(n + step, step * Math.ceil((n * apart) / reach / step));
      }
      const [first, apart] = ends(from, room, n);
      const found = await train(1, closed ? n : 0).laidTo(0, first, closed ? n + 1 : n, first + apart);
      return { at: found.at.slice(0, n), size: 1, loose: found.loose };
    }

    /** Of the size at which they reach just all the way. */
    async function fitted(from: number, room: number): Promise<HungSlots> {
      const n = laid.length;
      const [first, apart] = ends(from, room, n);
      const spaces = closed ? n + 1 : n;
      let size = room / (n * (sizes(0, first).length + gap));
      if (spaces > 1)
        for (let round = 0; round < 8; round++) {
          const at = await train(size, closed ? n : 0).laid(0, first, spaces);
          const wanted = apart / (at[spaces - 1] - first);
          size *= wanted;
          if (Math.abs(wanted - 1) < 1e-8) break;
        }
      const found = await train(size, closed ? n : 0).laidTo(0, first, spaces, first + apart);
      return { at: found.at.slice(0, n), size, loose: found.loose };
    }

    /** Where the first of n lies, and how far from it the last one; on a ring the first again. */
    function ends(from: number, room: number, n: number): [first: number, apart: number] {
      return closed ? [from, room] : [from + room / n / 2, room - room / n];
    }
  };

  const angles = Array.from({ length: Math.min(laid.length, 2 + turns.length) }, (_, k) => turns.at(k));
  const { start, end, rest, pattern } = rule;
  const measures = [name, gap, start, end, pattern];
  const key = [course.path, laid.length, laid[0], rest, lasts, ...measures, ...angles].join();
  const here = hung.get(course.source) ?? new Map<string, HungSlots>();
  hung.set(course.source, here);
  const found = here.get(key) ?? (await find());
  // Sizes that are animated would fill it.
  if (here.size >= 64) here.clear();
  here.set(key, found);
  const { at, size, loose } = found;
  const ring = closed ? at.length : 0;
  const trains = new Map<number, LinkTrain>();
  const trainOf = (spin: number): LinkTrain => {
    let own = trains.get(spin);
    // What was laid is as it was laid; turned on, each is looked for anew.
    if (!own) trains.set(spin, (own = train(size, ring, spin, spin === 0 ? found.reaches : undefined)));
    return own;
  };
  return {
    at,
    size,
    loose,
    hanging: {
      period,
      pose: (k, s, spin) => trainOf(spin).pose(k, s),
      normal: ({ along, across }, angle, k, s) => {
        const [x, , z] = turnedBy(about([0, 1, 0], angle), sizes(k, s).across);
        return sub(scale(across, x), scale(cross(across, along), z));
      },
      from: (k, s, count, way) => train(size).laid(k, s, count, way, loose),
      round: async (k, s) => (await train(size, at.length).laidTo(k, s, at.length + 1, s + length)).at,
    },
  };
}

/** A course at any arc length: beyond its ends it goes on straight, as the last link reaches past them. */
function onwards({ on, known: [first, last], closed }: Course, s: number): Sample {
  const sample = on(s);
  if (closed || (s >= first && s <= last)) return sample;
  return { ...sample, position: add(sample.position, scale(sample.tangent, s < first ? s - first : s - last)) };
}

const shapeOf = (sizes: LinkSizes, size: number): LinkShape => {
  const wire = sizes.wire * size;
  const bow = (sizes.wide * size - wire) / 2;
  return { wire, bow, half: Math.max(0, (sizes.length * size + wire) / 2 - bow) };
};

/** How a link lies that is turned about its path. @param angle radians */
function placeOf({ position, tangent, normal }: Sample, angle: number, across: Vec3): LinkPlace {
  const [x, , z] = turnedBy(about([0, 1, 0], angle), across);
  const side = cross(normal, tangent);
  return { position, along: tangent, across: add(scale(normal, x), scale(side, z)) };
}
