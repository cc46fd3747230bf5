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
function linkDistance(a: LinkPlace, b: LinkPlace, { bow, half }: LinkShape): number {
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

/** Links of one kind along a path of any course, hung in each other. */
export interface Links {
  shape: LinkShape;
  /** Inner length of a link, metres. */
  pitch: number;
  /** By how much each is laid further from the one before than where they touch. */
  gap: number;
  /** After how many links their turns, or what each is turned more than the one before, are the same again. */
  period: number;
  /** How the k-th link lies where its middle is at an arc length. */
  on: (k: number, s: number) => LinkPlace;
}

/** Lets other work in; throws when this is no longer wanted. */
export type Breathe = () => void | Promise<void>;

/** Links laid between two breaths: some milliseconds. */
const CHUNK = 128;

/**
 * Lays links by contact: each as far from its neighbour as their wires let it, round bends as on straights, so that rigid
 * links touch and never cut.
 */
export class LinkTrain {
  /** How far apart neighbours touch on a straight, by the turns they have; null where they do not hang in each other. */
  readonly #straight = new Map<number, number | null>();

  constructor(
    private readonly links: Links,
    private readonly breathe: Breathe = () => {},
  ) {}

  /** Arc length of the neighbour of link k, which lies at s: the next one, or the one before. */
  beside(k: number, s: number, way: 1 | -1): number {
    const { shape, pitch, gap, on } = this.links;
    const here = on(k, s);
    const straight = this.#onStraight(way > 0 ? k : k - 1);
    if (straight === null) return s + way * (pitch + gap);
    const room = (apart: number): number => {
      const there = on(k + way, s + way * apart);
      return way > 0 ? roomOf(here, there, shape) : roomOf(there, here, shape);
    };
    return s + way * (taut(room, straight, 1e-7 * pitch) + gap);
  }

  /**
   * Arc lengths of `count` links, the first of which is number k and lies at s; the others follow one way.
   * @param loose by how much nearer each is to its neighbour than where they touch
   */
  async laid(k: number, s: number, count: number, way: 1 | -1 = 1, loose = 0): Promise<Float64Array> {
    const at = new Float64Array(count);
    for (let i = 0; i < count; i++) {
      if (i % CHUNK === CHUNK - 1) await this.breathe();
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
      if (Math.abs(over) < 1e-7 * this.links.pitch) break;
      loose += over / (count - 1);
      at = await this.laid(k, s, count, 1, loose);
    }
    const over = at[count - 1] - last;
    for (let i = 1; i < count; i++) at[i] -= (over * i) / (count - 1);
    return { at, loose };
  }

  #onStraight(k: number): number | null {
    const { shape, pitch, period, on } = this.links;
    const turn = ((k % period) + period) % period;
    let apart = this.#straight.get(turn);
    if (apart === undefined) {
      // Only how two neighbours are turned against each other counts there.
      const [one, two] = [k, k + 1].map((number) => on(number, 0).across);
      const lying = (across: Vec3, y: number): LinkPlace => ({ position: [0, y, 0], along: [0, 1, 0], across });
      const [u, v] = [on(k, 0).along, unit(one)];
      const w = cross(v, u);
      const [a, b] = [lying([1, 0, 0], 0), [dot(two, v), 0, dot(two, w)] as const];
      const room = (y: number): number => roomOf(a, lying([...b], y), shape);
      apart = room(LEAST * pitch) < 0 || room(MOST * pitch) > 0 ? null : taut(room, pitch, 1e-9 * pitch);
      this.#straight.set(turn, apart);
    }
    return apart;
  }
}

const roomOf = (one: LinkPlace, next: LinkPlace, shape: LinkShape): number =>
  linkDistance(one, next, shape) - shape.wire * (1 + LOOSE);

/** Bounds on how near and far links hang, against where they do on a straight: tighter bends leave them no room anyway. */
const LEAST = 0.94;
const MOST = 1.03;

/**
 * How far apart two links are pulled taut: where pulling on would press the wires together. Regula falsi, in the Illinois
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
