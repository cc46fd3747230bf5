import { type Turn } from './turns';
import { type Vec3 } from './vec';

/**
 * Places for copies that are still to be made, k of them. What each shows is its growth some frames ago, in one of its
 * variants, driven by a value: all that can be changed by later steps, and is made into copies after the last.
 */
export interface Seats {
  /** Ids of the growths that are copied. */
  growths: string[];
  /** k, which of the growths. */
  growth: Uint32Array;
  /** 3k, metres. */
  positions: Float32Array;
  /** 4k unit quaternions xyzw. */
  turns: Float32Array;
  /** 3k, size along the item's own axes. */
  sizes: Float32Array;
  /** k, stable number of each seat. */
  ids: Uint32Array;
  /** k, place in its row, counted from 0. */
  number: Uint32Array;
  /** k, the row it is in: 0 for none, odd ones are open, even ones closed. */
  row: Uint32Array;
  /** k, where on the whole path, or in the whole arrangement, 0..1. */
  share: Float32Array;
  /** k, seconds since the growing front uncovered it; Infinity where there is no growth. */
  age: Float32Array;
  /** k, how much of its life it has had, 0..1; null where seats do not come and go. */
  life: Float32Array | null;
  /** k, frames by which it lags. */
  late: Float32Array;
  /** k, frames after which it shows the same again, 0 for never. */
  period: Float32Array;
  /** k, which variant: 0 is the growth as it is. */
  variant: Uint32Array;
  /** k, 0..1, for formulas of the item. */
  drive: Float32Array;
  /** 3k, linear RGB that its colours are multiplied by. */
  tints: Float32Array | null;
  /** k, weight of the falloff before, 0..1; null where there has been none. */
  weight: Float32Array | null;
}

/** Steps of `drive` that copies are made at: enough to look continuous, few enough to be shared. */
export const DRIVE_STEPS = 64;

const WIDTHS = { positions: 3, turns: 4, sizes: 3 } as const;
const FLOATS = ['positions', 'turns', 'sizes', 'share', 'age', 'late', 'period', 'drive'] as const;
const INTEGERS = ['growth', 'ids', 'number', 'row', 'variant'] as const;

/** What a seat is when it is put down. */
export interface Seat {
  growth: number;
  id: number;
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

/** Takes seats one by one, in arrays that grow. */
export class SeatList {
  #room = 0;
  #count = 0;
  #seats: Seats;

  constructor(growths: string[]) {
    this.#seats = emptySeats(growths);
  }

  get count(): number {
    return this.#count;
  }

  add({ growth, id, number, row, position, turn, size, share, age, life, variant }: Seat): void {
    if (this.#count === this.#room) this.#grow();
    const k = this.#count++;
    const seats = this.#seats;
    seats.growth[k] = growth;
    seats.ids[k] = id;
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
    if (life !== null) (seats.life ??= new Float32Array(this.#room))[k] = life;
    seats.variant[k] = variant;
  }

  /** The seats, in arrays of just their number. */
  done(): Seats {
    return resized(this.#seats, this.#count);
  }

  #grow(): void {
    this.#room = Math.max(64, 2 * this.#room);
    this.#seats = resized(this.#seats, this.#room);
  }
}

function emptySeats(growths: string[]): Seats {
  const floats = Object.fromEntries(FLOATS.map((key) => [key, new Float32Array(0)]));
  const integers = Object.fromEntries(INTEGERS.map((key) => [key, new Uint32Array(0)]));
  return { growths, ...floats, ...integers, life: null, tints: null, weight: null } as unknown as Seats;
}

/** The same seats with room for `count`: cut short, or with nothing in the rest. */
function resized(seats: Seats, count: number): Seats {
  const fit = <T extends Float32Array | Uint32Array>(array: T, width = 1): T => {
    const next = new (array.constructor as new (n: number) => T)(width * count);
    next.set(array.length > next.length ? array.subarray(0, next.length) : array);
    return next;
  };
  const result = { ...seats, life: seats.life && fit(seats.life), tints: null, weight: null };
  for (const key of FLOATS) result[key] = fit(seats[key], WIDTHS[key as keyof typeof WIDTHS] ?? 1);
  for (const key of INTEGERS) result[key] = fit(seats[key]);
  return result;
}

/** Only some of the seats, by their places in rising order. */
export function keptSeats(seats: Seats, kept: readonly number[]): Seats {
  const pick = <T extends Float32Array | Uint32Array>(array: T, width = 1): T => {
    const next = new (array.constructor as new (n: number) => T)(width * kept.length);
    kept.forEach((k, i) => next.set(array.subarray(width * k, width * (k + 1)), width * i));
    return next;
  };
  const result = {
    ...seats,
    life: seats.life && pick(seats.life),
    tints: seats.tints && pick(seats.tints, 3),
    weight: seats.weight && pick(seats.weight),
  };
  for (const key of FLOATS) result[key] = pick(seats[key], WIDTHS[key as keyof typeof WIDTHS] ?? 1);
  for (const key of INTEGERS) result[key] = pick(seats[key]);
  return result;
}

/** All of `a`, then all of `b`; ids of `b` follow those of `a`. */
export function joinSeats(a: Seats | null, b: Seats): Seats {
  if (!a) return b;
  const [n, m] = [a.ids.length, b.ids.length];
  const joined = resized(a, n + m);
  for (const key of FLOATS) joined[key].set(b[key], n * (WIDTHS[key as keyof typeof WIDTHS] ?? 1));
  for (const key of INTEGERS) joined[key].set(b[key], n);
  const nextId = a.ids.reduce((top, id) => Math.max(top, id + 1), 0);
  b.ids.forEach((id, k) => (joined.ids[n + k] = id + nextId));
  b.growth.forEach((growth, k) => (joined.growth[n + k] = growth + a.growths.length));
  const nextRow = 2 * Math.ceil(a.row.reduce((top, row) => Math.max(top, row), 0) / 2);
  b.row.forEach((row, k) => (joined.row[n + k] = row === 0 ? 0 : row + nextRow));
  joined.growths = [...a.growths, ...b.growths];
  const both = (key: 'life' | 'tints' | 'weight', width: number, without: number): void => {
    if (!a[key] && !b[key]) return;
    const array = new Float32Array(width * (n + m)).fill(without);
    if (a[key]) array.set(a[key]);
    if (b[key]) array.set(b[key], width * n);
    joined[key] = array;
  };
  both('life', 1, 1);
  both('tints', 3, 1);
  both('weight', 1, 1);
  return joined;
}

/** A growth at a moment that some seats show. */
export interface SeatMoment {
  growth: string;
  /** Whole frames by which it lags. */
  late: number;
  variant: number;
  drive: number;
}

/**
 * Which moments of which growths the seats show, and which of them each seat shows. Moments lie whole frames
 * apart, so that seats share them: a period of P frames takes P moments, whatever the number of seats.
 * @param periodOf after how many frames a growth is the same again, 0 where that is not known
 */
export function momentsOf(
  seats: Seats,
  periodOf: (growth: string) => number = () => 0,
): { list: SeatMoment[]; group: Uint32Array } {
  const list: SeatMoment[] = [];
  const group = new Uint32Array(seats.ids.length);
  const own = seats.growths.map(periodOf);
  // Moments by growth, variant and drive, then by lateness.
  const kinds = new Map<number, Map<number, number>>();
  for (let k = 0; k < group.length; k++) {
    const growth = seats.growth[k];
    let late = Math.round(seats.late[k]);
    const period = Math.round(seats.period[k]) || own[growth];
    if (period > 0 && late !== 0) late = ((late % period) + period) % period;
    const step = Math.round(seats.drive[k] * DRIVE_STEPS);
    const kind = (growth * 65536 + seats.variant[k]) * (DRIVE_STEPS + 1) + step;
    let moments = kinds.get(kind);
    if (!moments) kinds.set(kind, (moments = new Map()));
    let number = moments.get(late);
    if (number === undefined) {
      moments.set(late, (number = list.length));
      const drive = step / DRIVE_STEPS;
      list.push({ growth: seats.growths[growth], late, variant: seats.variant[k], drive });
    }
    group[k] = number;
  }
  return { list, group };
}
