import { type Attributed, columnsOf, emptyColumns, floats, integers, maybeFloats, NO_NAMED } from './attributes';
import type { Numbers } from './batch';
import { DRIVES, type Drives, UNDRIVEN } from './drives';
import { joinColumns } from './joinColumns';
import { pickColumns } from './carrier';
import type { Turn } from './turns';
import type { Vec3 } from './vec';

/** What places for copies know, k of them. */
export const SEATS = {
  /** k, which of the growths. */
  growth: integers('copy'),
  /** 3k, metres. */
  positions: floats('copy', 3),
  /** 4k unit quaternions xyzw. */
  turns: floats('copy', 4, { blend: 'rotate' }),
  /** 3k, size along the item's own axes. */
  sizes: floats('copy', 3, { missing: 1 }),
  /** k, stable number of each seat. */
  ids: integers('copy', { numbers: true }),
  /** k, what its chance hangs on: the same for what stands in the same place when a train without end begins anew. */
  dice: integers('copy'),
  /** k, place in its row, counted from 0. */
  number: integers('copy'),
  /** k, the row it is in: 0 for none, odd ones are open, even ones closed. */
  row: integers('copy'),
  /** k, where on the whole path, or in the whole arrangement, 0..1. */
  share: floats('copy'),
  /** k, seconds since the growing front uncovered it; Infinity where there is no growth. */
  age: floats('copy', 1, { missing: Infinity }),
  /** k, how much of its life it has had, 0..1; null where seats do not come and go. */
  life: maybeFloats('copy', 1, { missing: 1 }),
  /** k, frames by which it lags; null where none does. */
  late: maybeFloats('copy'),
  /** k, which variant: 0 is the growth as it is. */
  variant: integers('copy'),
  /** k, 0..1, for formulas of the item; null where nothing drives them. Three, so that each can have a timing of its own. */
  drive: maybeFloats('copy'),
  drive2: maybeFloats('copy'),
  drive3: maybeFloats('copy'),
  /** 3k, linear RGB that its colours are multiplied by. */
  tints: maybeFloats('copy', 3, { missing: 1 }),
  /** k, which placement laid it, counted from 0: effects may be meant for the last one only. */
  batch: integers('copy'),
  /** k, weight of the falloff before, 0..1; null where there has been none. */
  weight: maybeFloats('copy', 1, { missing: 1 }),
};

/**
 * Places for copies that are still to be made. What each shows is its growth some frames ago, in one of its variants,
 * driven by a value: all that can be changed by later steps, and is made into copies after the last.
 */
export interface Seats extends Attributed<typeof SEATS> {
  /** Ids of the growths that are copied. */
  growths: string[];
}

/**
 * How finely copies are made: parts of a frame that their moments lie apart, and steps of what drives them. As fine as stays
 * within so many moments, so that few copies move smoothly at any pace, and many share what they show.
 */
export const FINENESS = [
  { parts: 8, steps: 512, most: 48 },
  { parts: 2, steps: 128, most: 96 },
  { parts: 1, steps: 64, most: Infinity },
] as const;

/** What a seat is when it is put down. */
export interface Seat {
  growth: number;
  id: number;
  dice: number;
  number: number;
  row: number;
  position: Vec3;
  turn: Turn;
  size: number;
  share: number;
  age: number;
  life: number | null;
  variant: number;
}

/** Takes seats, in arrays that grow. */
export class SeatList {
  #count = 0;
  #seats: Seats;

  constructor(private readonly growths: string[]) {
    this.#seats = seatsFor(growths, 0);
  }

  get count(): number {
    return this.#count;
  }

  /** Arrays with room for at least `more` seats after those that are there, which are written from number `count` on. */
  room(more: number): Seats {
    const have = this.#seats.ids.length;
    const need = this.#count + more;
    if (need > have) this.#seats = this.#sized(have === 0 ? need : Math.max(need, 2 * have));
    return this.#seats;
  }

  /** So many seats have been written. */
  took(more: number): void {
    this.#count += more;
  }

  add({ growth, id, dice, number, row, position, turn, size, share, age, life, variant }: Seat): void {
    const k = this.#count;
    const seats = this.#seats.ids.length > k ? this.#seats : this.room(Math.max(64, k));
    this.#count++;
    seats.growth[k] = growth;
    seats.ids[k] = id;
    seats.dice[k] = dice;
    seats.number[k] = number;
    seats.row[k] = row;
    // Number by number: setting arrays into arrays costs more than all the rest.
    for (let c = 0; c < 3; c++) {
      seats.positions[3 * k + c] = position[c];
      seats.sizes[3 * k + c] = size;
    }
    for (let c = 0; c < 4; c++) seats.turns[4 * k + c] = turn[c];
    seats.share[k] = share;
    seats.age[k] = age;
    if (life !== null) (seats.life ??= new Float32Array(seats.ids.length))[k] = life;
    seats.variant[k] = variant;
  }

  /** The seats, in arrays of just their number. */
  done(): Seats {
    return this.#seats.ids.length === this.#count ? this.#seats : this.#sized(this.#count);
  }

  /** What has been put down so far, in arrays for `count` seats. */
  #sized(count: number): Seats {
    const held = { of: this.#seats, count: this.#count };
    if (count <= this.#count) return { ...this.#seats, ...joinColumns(SEATS, 'copy', [held]) };
    const room = { of: seatsFor(this.growths, count - this.#count), count: count - this.#count };
    return this.#count === 0 ? room.of : { ...this.#seats, ...joinColumns(SEATS, 'copy', [held, room]) };
  }
}

/** Seats for so many copies of growths, all at the origin. */
const seatsFor = (growths: string[], count: number): Seats => ({
  ...emptyColumns(SEATS, 'copy', count),
  growths,
  named: NO_NAMED,
});

/** Only some of the seats, by their places in rising order. */
export const keptSeats = (seats: Seats, kept: readonly number[]): Seats => ({
  ...seats,
  ...pickColumns(SEATS, seats, 'copy', kept),
});

/** All of `a`, then all of `b`; ids of `b` follow those of `a`. */
export function joinSeats(a: Seats | null, b: Seats): Seats {
  if (!a) return b;
  const [n, m] = [a.ids.length, b.ids.length];
  const both: Seats = {
    ...a,
    ...joinColumns(SEATS, 'copy', [
      { of: a, count: n },
      { of: b, count: m },
    ]),
    growths: [...a.growths, ...b.growths],
  };
  const nextRow = 2 * Math.ceil(a.row.reduce((top, row) => Math.max(top, row), 0) / 2);
  const nextBatch = 1 + a.batch.reduce((top, batch) => Math.max(top, batch), -1);
  for (let k = n; k < n + m; k++) {
    both.batch[k] += nextBatch;
    both.growth[k] += a.growths.length;
    if (both.row[k] !== 0) both.row[k] += nextRow;
  }
  return both;
}

/**
 * Changed seats, but for those of earlier placements than the last, which stay as they were.
 * @param before the same seats before the change
 */
export function changedInLast(before: Seats, after: Seats): Seats {
  const last = before.batch.reduce((top, batch) => Math.max(top, batch), 0);
  const n = before.ids.length;
  if (before.batch.every((batch) => batch === last)) return after;
  const kept = (old: Numbers | null, changed: Numbers | null, width: number, missing: number): Numbers | null => {
    if (old === changed || !changed) return changed;
    const values = changed.slice();
    for (let k = 0; k < n; k++)
      if (before.batch[k] !== last)
        for (let c = width * k; c < width * (k + 1); c++) values[c] = old ? old[c] : missing;
    return values;
  };
  const columns: Record<string, Numbers | null> = {};
  for (const { name, type, values, builtIn } of columnsOf(SEATS, after, 'copy'))
    if (builtIn) columns[name] = kept(before[name as keyof typeof SEATS], values, type.width, type.missing);
  const named = Object.entries(after.named).map(([name, attribute]) => {
    const { width, missing } = attribute;
    const values = kept(before.named[name]?.values ?? null, attribute.values, width, missing) as Float32Array;
    return [name, { ...attribute, values }] as const;
  });
  return { ...after, ...(columns as Partial<Seats>), named: Object.fromEntries(named) };
}

/** A growth at a moment that some seats show. */
export interface SeatMoment {
  growth: string;
  /** Frames by which it lags. */
  late: number;
  variant: number;
  drives: Drives;
}

/** Moments, and which of them each seat shows. */
export interface SeatMoments {
  list: SeatMoment[];
  group: Uint32Array;
}

/**
 * Which moments of which growths the seats show, and which of them each seat shows. Seats that show nearly the same share a
 * moment: a lateness in whole frames with a period of P frames takes P moments, whatever the number of seats.
 * @param periodOf after how many frames a growth is the same again, 0 where that is not known
 */
export function momentsOf(seats: Seats, periodOf: (growth: string) => number = () => 0): SeatMoments {
  const own = seats.growths.map(periodOf);
  for (const { parts, steps, most } of FINENESS) {
    const found = sharedMoments(seats, own, parts, steps, most);
    if (found) return found;
  }
  throw new Error('The coarsest moments have no bound.');
}

/** The same at one fineness; null where there are more than so many. */
function sharedMoments(
  seats: Seats,
  periods: readonly number[],
  parts: number,
  steps: number,
  most: number,
): SeatMoments | null {
  const list: SeatMoment[] = [];
  const n = seats.ids.length;
  const group = new Uint32Array(n);
  const { late: lates } = seats;
  const driven = DRIVES.map((name) => seats[name]);
  const none = driven.every((values) => values === null);
  const stepsOf = (k: number): number[] => driven.map((values) => (values ? Math.round(values[k] * steps) : 0));
  // Moments by growth, variant and drives, then by lateness.
  const kinds = new Map<number, Map<number, number>>();
  // Neighbours mostly show the same: then nothing is looked up.
  let [lastKind, lastLate, number] = [-1, 0, 0];
  for (let k = 0; k < n; k++) {
    const growth = seats.growth[k];
    let late = lates ? Math.round(lates[k] * parts) : 0;
    const period = parts * periods[growth];
    if (period > 0 && late !== 0) late = ((late % period) + period) % period;
    const own = none ? null : stepsOf(k);
    let kind = growth * 65536 + seats.variant[k];
    if (own) for (const step of own) kind = kind * (steps + 1) + step;
    if (kind !== lastKind || late !== lastLate) {
      let moments = kinds.get(kind);
      if (!moments) kinds.set(kind, (moments = new Map()));
      const found = moments.get(late);
      number = found ?? list.length;
      if (found === undefined) {
        if (number === most) return null;
        moments.set(late, number);
        list.push({
          growth: seats.growths[growth],
          late: late / parts,
          variant: seats.variant[k],
          drives: own ? (own.map((step) => step / steps) as unknown as Drives) : UNDRIVEN,
        });
      }
      [lastKind, lastLate] = [kind, late];
    }
    group[k] = number;
  }
  return { list, group };
}
