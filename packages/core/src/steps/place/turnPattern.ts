import { Problem } from '../../problem';
import { numbersIn } from './items';

/** Turns of copies, one after another. */
export interface TurnPattern {
  /** How many copies it takes until it begins again, 1 for angles that go on. */
  length: number;
  /** Turn of the k-th copy, radians. */
  at: (k: number) => number;
  /** What it comes to over `count` copies, past whole turns, radians −π..π: 0 where it repeats within them. */
  over: (count: number) => number;
  /** The same with an angle that goes on fitted by as little as it takes for `count` copies to close in a ring. */
  closing: (count: number) => TurnPattern;
}

const radians = (degrees: number): number => (degrees * Math.PI) / 180;

/** Reads a list of turns that repeats, or with “+” an angle more each time. Degrees. @throws Problem */
export function turnPattern(text: string): TurnPattern {
  const bare = text.trim();
  const values = numbersIn(bare.replace(/^\+/, ''));
  if (values.length === 0 || !values.every(Number.isFinite)) {
    throw new Problem(`“${text}” is no list of turns.`, 'Write degrees with commas between, as in 0, 90; or +137.508.');
  }
  if (bare.startsWith('+')) return turnsBy(values[0]);
  const list: TurnPattern = {
    length: values.length,
    at: (k) => radians(values[modulo(k, values.length)]),
    over: () => 0,
    closing: () => list,
  };
  return list;
}

/** An angle more each time, degrees. Whole turns are taken off in degrees, where they are exact. */
const turnsBy = (angle: number): TurnPattern => ({
  length: 1,
  at: (k) => radians((k * angle) % 360),
  over: (count) => radians(modulo(count * angle + 180, 360) - 180),
  closing: (count) => turnsBy((360 * Math.round((count * angle) / 360)) / count),
});

/** The remainder that is never below 0. */
export const modulo = (a: number, n: number): number => (a >= 0 && a < n ? a : ((a % n) + n) % n);
