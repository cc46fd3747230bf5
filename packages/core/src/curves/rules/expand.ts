import { hash, random } from '../../fields/random';
import { Problem } from '../../problem';
import type { Made, Rule, Sought, System } from './parse';

/** A string of symbols, n of them, each with its parameters and its own age. */
export interface Symbols {
  letters: string[];
  /** Parameters of each. */
  values: (readonly number[])[];
  /** n, generation in which each came to be; 0 for those of the axiom. */
  births: number[];
  /** n, how much of its length it has at birth: what takes the place of a line begins as long as that was. */
  begins: number[];
  /** n, what chance hangs on: the same however many generations follow. */
  ids: number[];
}

export interface Expansion {
  /** Generations. */
  generations: number;
  seed: number;
  /** Symbols that there may be. */
  most: number;
  /** How long a line is that says nothing of it, by the generation in which it came to be. */
  length: (birth: number) => number;
  /** Generations over which a symbol grows up. */
  growing: number;
}

/** Symbols between two yields. */
const CHUNK = 4096;

/** Whether a symbol draws a line, or moves as one. */
export const isLine = (letter: string): boolean => letter === 'F' || letter === 'f';

/** A system worked so many generations on from its axiom. @throws Problem where there would be too many symbols */
export async function rewrite(
  system: System,
  { generations, seed, most, length, growing }: Expansion,
  yieldNow: () => Promise<void> = () => Promise.resolve(),
): Promise<Symbols> {
  let now: Symbols = { letters: [], values: [], births: [], begins: [], ids: [] };
  const contextual = [...system.rules.values()].flat().some((rule) => rule.before !== null || rule.after !== null);
  put(now, system.axiom, {}, 0, hash(seed, 1), 0, length);
  for (let k = 1; k <= generations; k++) {
    const next: Symbols = { letters: [], values: [], births: [], begins: [], ids: [] };
    const contexts = contextual ? contextsOf(now.letters, system.ignored) : null;
    for (let i = 0; i < now.letters.length; i++) {
      if (i % CHUNK === 0) await yieldNow();
      const found = ruleFor(system, now, contexts, i, k, seed);
      if (!found) {
        keep(next, now, i);
        continue;
      }
      const { rule, names } = found;
      put(next, rule.makes, names, k, now.ids[i], drawnBy(now, i, k, growing, length), length);
      if (next.letters.length > most)
        throw new Problem(
          `Generation ${k} of ${generations} has more than ${most.toLocaleString('en-GB')} symbols.`,
          'Lower Generations, or let fewer symbols be rewritten.',
        );
    }
    now = next;
  }
  return now;
}

function keep(to: Symbols, from: Symbols, i: number): void {
  to.letters.push(from.letters[i]);
  to.values.push(from.values[i]);
  to.births.push(from.births[i]);
  to.begins.push(from.begins[i]);
  to.ids.push(from.ids[i]);
}

/** How long the line is that a symbol has drawn when it is rewritten in generation k. */
function drawnBy(now: Symbols, i: number, k: number, growing: number, length: (birth: number) => number): number {
  if (!isLine(now.letters[i])) return 0;
  const grown = now.births[i] === 0 ? 1 : Math.min(1, (k - now.births[i]) / growing);
  return (now.values[i][0] ?? length(now.births[i])) * (now.begins[i] + (1 - now.begins[i]) * grown);
}

/**
 * Puts down what a symbol becomes.
 * @param drawn how long what it takes the place of was: its lines outside of brackets begin together as long
 */
function put(
  to: Symbols,
  makes: readonly Made[],
  names: Record<string, number>,
  birth: number,
  parent: number,
  drawn: number,
  length: (birth: number) => number,
): void {
  const first = to.letters.length;
  let depth = 0;
  let whole = 0;
  const main: number[] = [];
  makes.forEach(({ letter, args }, j) => {
    const values = args.map((arg) => arg.value(names));
    if (letter === '[') depth++;
    else if (letter === ']') depth--;
    else if (depth === 0 && isLine(letter)) {
      main.push(first + j);
      whole += values[0] ?? length(birth);
    }
    to.letters.push(letter);
    to.values.push(values);
    to.births.push(birth);
    to.begins.push(birth === 0 ? 1 : 0);
    to.ids.push(hash(parent, j + 1));
  });
  if (birth > 0 && whole > 0) for (const i of main) to.begins[i] = drawn / whole;
}

function ruleFor(
  { rules }: System,
  now: Symbols,
  contexts: Contexts | null,
  i: number,
  k: number,
  seed: number,
): { rule: Rule; names: Record<string, number> } | null {
  const own = rules.get(now.letters[i]);
  if (!own) return null;
  const fitting: { rule: Rule; names: Record<string, number> }[] = [];
  for (const rule of own) {
    const names: Record<string, number> = {};
    if (!bound(rule.of, now, i, names)) continue;
    if (rule.before && !bound(rule.before, now, contexts!.before[i], names)) continue;
    if (rule.after && !bound(rule.after, now, contexts!.after[i], names)) continue;
    if (rule.condition && !(rule.condition.value(names) > 0)) continue;
    // One that always holds is taken where it stands first.
    if (rule.odds === null) return fitting.length > 0 ? drawn(fitting, now.ids[i], k, seed) : { rule, names };
    fitting.push({ rule, names });
  }
  return fitting.length > 0 ? drawn(fitting, now.ids[i], k, seed) : null;
}

function drawn<T extends { rule: Rule }>(fitting: readonly T[], id: number, k: number, seed: number): T {
  const sum = fitting.reduce((all, { rule }) => all + rule.odds!, 0);
  let left = sum * random(seed, id, k);
  for (const one of fitting) if ((left -= one.rule.odds!) < 0) return one;
  return fitting[fitting.length - 1];
}

/** Gives a symbol's parameters their names; whether it is the one that is sought. */
function bound({ letter, names }: Sought, now: Symbols, i: number, into: Record<string, number>): boolean {
  if (i < 0 || now.letters[i] !== letter || now.values[i].length !== names.length) return false;
  names.forEach((name, c) => (into[name] = now.values[i][c]));
  return true;
}

/** The symbols beside each along its branch; −1 where there is none. */
export interface Contexts {
  before: Int32Array;
  after: Int32Array;
}

/**
 * What stands before and after each symbol, over the branches that leave in between: the one before the first of a branch
 * is what the branch leaves from (Prusinkiewicz, Lindenmayer, The algorithmic beauty of plants, 1990, section 1.8).
 * @param ignored letters that do not count
 */
export function contextsOf(letters: readonly string[], ignored: ReadonlySet<string>): Contexts {
  const n = letters.length;
  const [before, after] = [new Int32Array(n), new Int32Array(n)];
  const left: number[] = [];
  let last = -1;
  for (let i = 0; i < n; i++) {
    before[i] = last;
    if (letters[i] === '[') left.push(last);
    else if (letters[i] === ']') last = left.pop() ?? -1;
    else if (!ignored.has(letters[i])) last = i;
  }
  const right: number[] = [];
  let next = -1;
  for (let i = n - 1; i >= 0; i--) {
    after[i] = next;
    if (letters[i] === ']') {
      right.push(next);
      next = -1;
    } else if (letters[i] === '[') next = right.pop() ?? -1;
    else if (!ignored.has(letters[i])) next = i;
  }
  return { before, after };
}
