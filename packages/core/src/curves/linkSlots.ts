import { add, cross, dot, scale, sub, unit, type Vec3 } from '../geometry/vec';

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
function linkDistance(
  a: LinkPlace,
  b: LinkPlace,
  { bow: swung, half: long }: LinkShape,
  { bow, half }: LinkShape,
): number {
  const centre = add(a.position, scale(a.along, long));
  const other = sub(b.position, scale(b.along, half));
  const square = cross(b.along, b.across);
  const at = (angle: number): number => {
    const [c, s] = [swung * Math.cos(angle), swung * Math.sin(angle)];
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
const LOOSE = 0.0008;

/** A link of some size. */
export interface LinkSize {
  shape: LinkShape;
  /** Inner length, metres. */
  pitch: number;
}

/** Links along a path of any course, hung in each other; of one size or of several. */
export interface Links {
  /** The k-th link where its middle is at an arc length: a size may go with the place. */
  link: (k: number, s: number) => LinkSize;
  /** By how much each is laid further from the one before than where they touch. */
  gap: number;
  /** After how many links their kinds, and their turns or what each is turned more than the one before, are the same again. */
  period: number;
  /** The path where the k-th link has its middle: its direction there, and the link's way across as it is turned. */
  on: (k: number, s: number) => LinkPlace;
}

/** Where links have been laid, and half the arc length that they span there, by their numbers. */
export type Reaches = Map<number, { s: number; reach: number }>;

/** Lets other work in; throws when this is no longer wanted. */
export type MaybeYield = () => void | Promise<void>;

/** Links laid between two yields: some milliseconds. */
const CHUNK = 128;

/** Bounds on the arc length that a link spans, against its inner length: it spans 1.25 in a bend of half of that. */
const LEAST_SPAN = 0.7;
const MOST_SPAN = 1.25;

/** What a link's span may be off by, against its inner length. */
const NEAR = 1e-8;

/** How often the size of the next link is looked up where it goes with its place. */
const SIZINGS = 4;

/** Tangents of the path are followed beyond its ends by this, against the inner length. */
const STEP = 1e-4;

/**
 * Lays rigid links as a chain of hinges. Where two of them hang in each other, each swings about the middle of the other's end wire;
 * the middles of both wires lie one thickness apart on the common perpendicular of the wires, half of it on either side of the
 * joint, which is on the path. So a link spans the path from joint to joint, and touches its neighbours without cutting them in
 * any bend that leaves room for it. Where a link is, is a function of its own place on the path alone: growth moves none.
 */
export class LinkTrain {
  /** See `#overlap`: by the turns that neighbours have. */
  readonly #straight = new Map<number, number | null>();
  /** What the last link spanned, against its inner length: the next one most often spans as much. */
  #share = 1;

  /** @param reaches what links that have been laid span to either side, by their numbers; gathered here */
  constructor(
    private readonly links: Links,
    private readonly yieldNow: MaybeYield = () => {},
    private readonly reaches: Reaches = new Map(),
  ) {}

  /** Arc length of the neighbour of link k, which lies at s: the next one, or the one before. */
  beside(k: number, s: number, way: 1 | -1): number {
    const { gap, link } = this.links;
    const own = link(k, s);
    const next = k + way;
    if (this.#overlap(way > 0 ? k : k - 1) === null)
      return s + way * ((own.pitch + link(next, s + way * own.pitch).pitch) / 2 + gap);
    const joint = s + way * this.#reach(k, s);
    // Where sizes go with the place the next one's is known when its place is.
    let there = joint + (way * own.pitch) / 2;
    for (let round = 0; round < SIZINGS; round++) {
      const size = link(next, there);
      // The end at the joint that is known stays while the other is looked for.
      const held = way > 0 ? this.#wireBehind(next, joint, size) : this.#wireAhead(next, joint, size);
      const span = (apart: number): number =>
        apartOf(
          held,
          way > 0 ? this.#wireAhead(next, joint + apart, size) : this.#wireBehind(next, joint - apart, size),
        );
      const before = there;
      const apart = this.#solved(span, size);
      there = joint + (way * apart) / 2;
      this.reaches.set(next, { s: there, reach: apart / 2 });
      if (Math.abs(there - before) < 1e-9 * size.pitch || link(next, there).pitch === size.pitch) break;
    }
    return there;
  }

  /** How link k lies when its middle is at an arc length: from joint to joint; null where it hangs in none. */
  pose(k: number, s: number): LinkPlace | null {
    if (this.#overlap(k) === null || this.#overlap(k - 1) === null) return null;
    const half = this.#reach(k, s);
    const size = this.links.link(k, s);
    const [near, far] = [this.#wireBehind(k, s - half, size), this.#wireAhead(k, s + half, size)];
    const along = unit(sub(far, near));
    const { across } = this.links.on(k, s);
    return { position: scale(add(near, far), 0.5), along, across: square(across, along) };
  }

  /**
   * Arc lengths of `count` links, the first of which is number k and lies at s; the others follow one way.
   * @param loose by how much nearer each is to its neighbour than where they touch
   */
  async laid(k: number, s: number, count: number, way: 1 | -1 = 1, loose = 0): Promise<Float64Array> {
    const at = new Float64Array(count);
    for (let i = 0; i < count; i++) {
      if (i % CHUNK === CHUNK - 1) await this.yieldNow();
      at[i] = i === 0 ? s : this.beside(k + way * (i - 1), at[i - 1], way) - way * loose;
    }
    return at;
  }

  /**
   * The same, as evenly loose as it takes for the last one to lie at an arc length; below 0 where they do not reach it.
   * What is left over by rounding is shared by all.
   */
  async laidTo(k: number, s: number, count: number, last: number): Promise<{ at: Float64Array; loose: number }> {
    let loose = 0;
    let at = await this.laid(k, s, count);
    for (let round = 0; round < 6 && count > 1; round++) {
      const over = at[count - 1] - last;
      if (Math.abs(over) < 1e-7 * this.links.link(k, s).pitch) break;
      loose += over / (count - 1);
      at = await this.laid(k, s, count, 1, loose);
    }
    const over = at[count - 1] - last;
    for (let i = 1; i < count; i++) at[i] -= (over * i) / (count - 1);
    return { at, loose };
  }

  /** Half the arc length that link k spans when its middle is at s. */
  #reach(k: number, s: number): number {
    const laid = this.reaches.get(k);
    if (laid?.s === s) return laid.reach;
    const size = this.links.link(k, s);
    return this.#solved((apart) => this.#span(k, s - apart / 2, s + apart / 2, size), size) / 2;
  }

  /** From the middle of one end wire of a link to that of the other, when its joints are at two arc lengths. */
  #span(k: number, from: number, to: number, size: LinkSize): number {
    return apartOf(this.#wireAhead(k, to, size), this.#wireBehind(k, from, size));
  }

  /**
   * The arc length from joint to joint at which a link spans what it is long, by secants, or else by regula falsi. Where the path turns back on itself
   * within a link none does: it takes the most or the least that it may.
   */
  #solved(span: (apart: number) => number, { pitch, shape }: LinkSize): number {
    const over = (apart: number): number => span(apart) - pitch - shape.wire;
    const found = (apart: number): number => {
      this.#share = apart / pitch;
      return apart;
    };
    // A step by the slope of a straight, on which it spans a metre more for each metre, and one by secants, most often do.
    let x = this.#share * pitch;
    let here = over(x);
    let [before, atBefore] = [x, here];
    for (let round = 0; round < 4; round++) {
      if (Math.abs(here) < NEAR * pitch) return found(x);
      const slope = round === 0 ? 1 : (here - atBefore) / (x - before);
      const next = x - here / slope;
      if (!(slope > 0.2 && next > LEAST_SPAN * pitch && next < MOST_SPAN * pitch)) break;
      [before, atBefore, x] = [x, here, next];
      here = over(x);
    }
    let [low, high] = [LEAST_SPAN * pitch, MOST_SPAN * pitch];
    let [atLow, atHigh] = [over(low), over(high)];
    if (atHigh <= 0) return found(high);
    if (atLow >= 0) return found(low);
    let side = 0;
    for (let round = 0; round < 60; round++) {
      x = (low * atHigh - high * atLow) / (atHigh - atLow);
      here = over(x);
      if (Math.abs(here) < NEAR * pitch || high - low < 1e-12 * pitch) return found(x);
      if (here < 0) {
        [low, atLow] = [x, here];
        if (side === 1) atHigh /= 2;
        side = 1;
      } else {
        [high, atHigh] = [x, here];
        if (side === -1) atLow /= 2;
        side = -1;
      }
    }
    return found(low);
  }

  /** The middle of the wire with which link k hangs in the next one, when their joint is at an arc length. */
  #wireAhead(k: number, joint: number, { shape }: LinkSize): Vec3 {
    const { position, normal, overlap } = this.#joint(k, joint);
    return add(position, scale(normal, (shape.wire + overlap) / 2));
  }

  /** The middle of the wire with which link k hangs in the one before. */
  #wireBehind(k: number, joint: number, { shape }: LinkSize): Vec3 {
    const { position, normal, overlap } = this.#joint(k - 1, joint);
    return sub(position, scale(normal, (shape.wire + overlap) / 2));
  }

  /**
   * The joint of link k and the next one: its place on the path, the common perpendicular of both wires, and by how much they are
   * nearer to each other than their thickness and the gap say. By the directions that links have which begin there, so that it is the same for both.
   */
  #joint(k: number, s: number): { position: Vec3; normal: Vec3; overlap: number } {
    const { link, on, gap } = this.links;
    const here = on(k, s);
    const [own, next] = [link(k, s).pitch, link(k + 1, s).pitch];
    const chord = (way: 1 | -1, pitch: number): Vec3 => {
      const place = (arc: number): Vec3 => sub(on(k, s + way * arc).position, here.position);
      const first = place(pitch);
      const length = Math.sqrt(dot(first, first));
      // Beyond an end of the path it goes on straight.
      if (length < STEP * pitch) return here.along;
      const bent = length > 0.5 * pitch && Math.abs(length - pitch) > STEP * pitch;
      return scale(unit(bent ? place((pitch * pitch) / length) : first, here.along), way);
    };
    const [before, after] = [chord(-1, own), chord(1, next)];
    const one = square(on(k, s - own / 2).across, before);
    const two = square(on(k + 1, s + next / 2).across, after);
    const crossed = cross(one, two);
    const size = Math.sqrt(dot(crossed, crossed));
    const toward = dot(crossed, here.along) < 0 ? -1 : 1;
    const normal = size > 1e-3 ? scale(crossed, toward / size) : here.along;
    return { position: here.position, normal, overlap: (this.#overlap(k) ?? 0) * (own + next) - gap };
  }

  /**
   * By how much link k and the next one are nearer on a straight than their pitches say, against the sum of these: how loose they
   * hang, and what a slanting wire takes away. Null where they do not hang in each other.
   */
  #overlap(k: number): number | null {
    const { period, link, on } = this.links;
    const turn = ((k % period) + period) % period;
    let found = this.#straight.get(turn);
    if (found === undefined) {
      const [own, next] = [link(turn, 0), link(turn + 1, 0)];
      const pitch = (own.pitch + next.pitch) / 2;
      // Only how two neighbours are turned against each other counts there.
      const [one, two] = [turn, turn + 1].map((number) => on(number, 0).across);
      const lying = (across: Vec3, y: number): LinkPlace => ({ position: [0, y, 0], along: [0, 1, 0], across });
      const [u, v] = [on(turn, 0).along, unit(one)];
      const w = cross(v, u);
      const [a, b] = [lying([1, 0, 0], 0), [dot(two, v), 0, dot(two, w)] as const];
      const room = (y: number): number => roomOf(a, lying([...b], y), own.shape, next.shape);
      const hangs = room(LEAST * pitch) >= 0 && room(MOST * pitch) <= 0;
      found = hangs ? (pitch - taut(room, pitch, 1e-9 * pitch)) / (2 * pitch) : null;
      this.#straight.set(turn, found);
    }
    return found;
  }
}

const apartOf = (a: Vec3, b: Vec3): number => Math.sqrt((a[0] - b[0]) ** 2 + (a[1] - b[1]) ** 2 + (a[2] - b[2]) ** 2);

/** A vector without its part along a unit vector, of length 1. */
const square = (v: Vec3, along: Vec3): Vec3 => unit(sub(v, scale(along, dot(v, along))), v);

const roomOf = (one: LinkPlace, next: LinkPlace, own: LinkShape, other: LinkShape): number =>
  linkDistance(one, next, own, other) - ((own.wire + other.wire) / 2) * (1 + LOOSE);

/** Bounds on how near and far links hang on a straight, against their inner length. */
const LEAST = 0.94;
const MOST = 1.03;

/**
 * How far apart two links on a straight are pulled taut: where pulling on would press the wires together. Regula falsi, in the Illinois
 * manner (Dowell, Jarratt, BIT 11, 1971).
 * @param room between the wires, or below 0 by how much they would cut, at a distance along the path
 * @param straight where it is on a straight
 * @param near what it may be off by
 */
function taut(room: (apart: number) => number, straight: number, near: number): number {
  let [low, high] = [straight, straight];
  let [atLow, atHigh] = [room(straight), 0];
  if (Math.abs(atLow) < near) return straight;
  if (atLow > 0) {
    high = MOST * straight;
    atHigh = room(high);
    if (atHigh >= 0) return high;
  } else {
    atHigh = atLow;
    low = LEAST * straight;
    atLow = room(low);
    if (atLow <= 0) return low;
  }
  let side = 0;
  for (let round = 0; round < 40 && high - low > near; round++) {
    const x = (low * atHigh - high * atLow) / (atHigh - atLow);
    const here = room(x);
    if (Math.abs(here) < near) return x;
    if (here > 0) {
      [low, atLow] = [x, here];
      if (side === 1) atHigh /= 2;
      side = 1;
    } else {
      [high, atHigh] = [x, here];
      if (side === -1) atLow /= 2;
      side = -1;
    }
  }
  return low;
}
