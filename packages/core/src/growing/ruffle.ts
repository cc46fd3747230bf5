import { filled } from '../geometry/filled';
import { random } from '../fields/random';
import type { Vec3 } from '../geometry/vec';
import type { Course } from './simulationHistory';
import { KeepApart } from './keepApart';

const { ceil, hypot, max, min, round, sqrt } = Math;

/** What lines ruffle by. */
export interface Ruffling {
  /** The lines at first, metres; closed ones do not repeat their first point. */
  lines: readonly { positions: readonly Vec3[]; closed: boolean }[];
  /** How many times their first length they come to. */
  factor: number;
  /** In how many steps: as much is added in each. */
  steps: number;
  /** From point to point, about, metres. */
  spacing: number;
  /** Parts of a line that are not next to each other keep this far apart, metres. */
  apart: number;
  /** How straight they hold themselves, 0..1. */
  stiffness: number;
  /** How unevenly they grow, 0..1. */
  uneven: number;
  seed: number;
  /** The ends of open lines stay where they are. */
  held: boolean;
  /** Puts a place where it may be: in a plane, on a skin, within a form; written into the array. */
  keep(positions: Float64Array, i: number): void;
}

/** Lines after so many steps. */
export interface Ruffled {
  /** 3n, where the points were when the step began; new ones in the middle of what they divide. */
  before: Float64Array;
  /** 3n, where they are when it has ended. */
  positions: Float64Array;
  /** n, length that the edge from each point to the next would like to have, metres. */
  rest: Float64Array;
  /** n, how readily each edge grows, about 1. */
  vigour: Float64Array;
  /** n, in which step each point came. */
  born: Uint32Array;
  /** First point of each line, and the end of the last. */
  offsets: Uint32Array;
}

/** Rounds of pushing and pulling in a step. */
const ROUNDS = 6;
/** So many times what a step adds, a line that has found no room adds at most. */
const CATCHES_UP = 6;
/** An edge this much longer than the spacing is divided. */
const DIVIDES = 4 / 3;

/**
 * Lines that grow longer than there is room for: each edge lengthens, long ones are divided, neighbours hold to one another, and
 * all else keeps apart (differential growth of a chain of nodes: common practice, no source; positions are put right in rounds, Müller and others,
 * Position based dynamics, 2007). The whole length rises by as much in every step.
 */
export function ruffling(given: Ruffling): Course<Ruffled> {
  const { lines, factor, steps, apart, spacing, stiffness, held, keep } = given;
  const closed = lines.map((line) => line.closed);
  const first = begin(given);
  const begun = first.rest.reduce((sum, x) => sum + x, 0);
  const keepApart = new KeepApart(apart);
  // As far along the line as they keep apart, points are next to each other.
  const near = ceil((1.5 * apart) / spacing) + 1;

  const next: Course<Ruffled>['next'] = async (state, step, yieldNow) => {
    const whole = begun * (1 + ((factor - 1) * (step + 1)) / steps);
    const made = divided(lengthened(state, whole, (begun * (factor - 1)) / steps), closed, step + 1, given);
    const { positions, rest, offsets } = made;
    const n = rest.length;
    const lineOf = new Uint32Array(n);
    for (let l = 0; l < closed.length; l++) lineOf.fill(l, offsets[l], offsets[l + 1]);
    const nextTo = (i: number, j: number): boolean => {
      const line = lineOf[i];
      if (line !== lineOf[j]) return false;
      const far = i - j;
      return far <= near || (closed[line] && offsets[line + 1] - offsets[line] - far <= near);
    };
    keepApart.begin(positions, n, nextTo);
    for (let round = 0; round < ROUNDS; round++) {
      await yieldNow();
      // What comes too near to another part is pushed away, all at once, by the mean of what pushes it.
      const moves = keepApart.moves(positions, n);
      for (let i = 0; i < 3 * n; i++) positions[i] += moves[i];
      for (let l = 0; l < closed.length; l++)
        straightened(positions, offsets[l], offsets[l + 1], closed[l], 0.15 + 0.6 * stiffness);
      for (let l = 0; l < closed.length; l++)
        pulled(positions, rest, offsets[l], offsets[l + 1], closed[l], round % 2 > 0);
      // On a skin that is what costs most, and once in three rounds does as well.
      if (round % 3 === 2) for (let i = 0; i < n; i++) keep(positions, i);
      if (held)
        for (let l = 0; l < closed.length; l++)
          if (!closed[l])
            for (const i of [offsets[l], offsets[l + 1] - 1])
              for (let c = 0; c < 3; c++) positions[3 * i + c] = made.before[3 * i + c];
    }
    for (let l = 0; l < closed.length; l++) settled(made, offsets[l], offsets[l + 1], closed[l]);
    return made;
  };
  return {
    first,
    next,
    bytes: ({ positions }) => 24 * positions.length,
  };
}

function begin({ lines, spacing, seed, uneven, keep }: Ruffling): Ruffled {
  const points: number[] = [];
  const offsets = [0];
  for (const { positions, closed } of lines) {
    const ends = closed ? [...positions, positions[0]] : positions;
    for (let k = 1; k < ends.length; k++) {
      const [a, b] = [ends[k - 1], ends[k]];
      const pieces = max(1, round(hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2]) / spacing));
      for (let i = 0; i < pieces; i++) for (let c = 0; c < 3; c++) points.push(a[c] + ((b[c] - a[c]) * i) / pieces);
    }
    if (!closed) points.push(...ends[ends.length - 1]);
    offsets.push(points.length / 3);
  }
  const n = points.length / 3;
  const positions = Float64Array.from(points);
  // Nothing breaks a perfect ring: a hair of chance does.
  for (let i = 0; i < n; i++) {
    for (let c = 0; c < 3; c++) positions[3 * i + c] += 0.05 * spacing * (random(seed, i, 20 + c) - 0.5);
    keep(positions, i);
  }
  const state: Ruffled = {
    before: positions.slice(),
    positions,
    rest: new Float64Array(n),
    vigour: filled(Float64Array, n, (i) => 1 + uneven * (2 * random(seed, i, 30) - 1)),
    born: new Uint32Array(n),
    offsets: Uint32Array.from(offsets),
  };
  lines.forEach(({ closed }, l) => {
    const [from, end] = [offsets[l], offsets[l + 1]];
    for (let i = from; i < (closed ? end : end - 1); i++) state.rest[i] = gap(positions, i, i + 1 < end ? i + 1 : from);
  });
  return state;
}

/** The edges longer, so that altogether they come to a length, each by what it has and by its vigour; what found no room is not all made up for. */
function lengthened(state: Ruffled, whole: number, more: number): Ruffled {
  const { rest, vigour } = state;
  let [all, sum] = [0, 0];
  for (let i = 0; i < rest.length; i++) {
    all += rest[i];
    sum += rest[i] * vigour[i];
  }
  const k = sum > 0 ? min(whole - all, CATCHES_UP * more) / sum : 0;
  return { ...state, rest: rest.map((length, i) => length * (1 + k * vigour[i])) };
}

/** Long edges divided in the middle; positions are copies. */
function divided(
  state: Ruffled,
  closed: readonly boolean[],
  step: number,
  { spacing, seed, uneven }: Ruffling,
): Ruffled {
  const { positions, rest, vigour, born, offsets } = state;
  let n = rest.length;
  for (const length of rest) if (length > DIVIDES * spacing) n++;
  const made: Ruffled = {
    before: new Float64Array(3 * n),
    positions: new Float64Array(3 * n),
    rest: new Float64Array(n),
    vigour: new Float64Array(n),
    born: new Uint32Array(n),
    offsets: new Uint32Array(offsets.length),
  };
  let to = 0;
  for (let l = 0; l < closed.length; l++) {
    const [from, end] = [offsets[l], offsets[l + 1]];
    for (let i = from; i < end; i++) {
      made.before.set(positions.subarray(3 * i, 3 * i + 3), 3 * to);
      made.vigour[to] = vigour[i];
      made.born[to] = born[i];
      made.rest[to++] = rest[i];
      if (rest[i] <= DIVIDES * spacing) continue;
      const other = i + 1 < end ? i + 1 : from;
      for (let c = 0; c < 3; c++) made.before[3 * to + c] = (positions[3 * i + c] + positions[3 * other + c]) / 2;
      made.rest[to - 1] = made.rest[to] = rest[i] / 2;
      // What comes new is between its neighbours, and a little of its own kind.
      const own = 1 + uneven * (2 * random(seed, to, 31 + step) - 1);
      made.vigour[to] = 0.4 * (vigour[i] + vigour[other]) + 0.2 * own;
      made.born[to++] = step;
    }
    made.offsets[l + 1] = to;
  }
  made.positions.set(made.before);
  return made;
}

const gap = (positions: Float64Array, i: number, j: number): number =>
  hypot(
    positions[3 * i] - positions[3 * j],
    positions[3 * i + 1] - positions[3 * j + 1],
    positions[3 * i + 2] - positions[3 * j + 2],
  );

/** Takes edges as they have come to be: what found no room grows where there is some. */
function settled({ positions, rest }: Ruffled, from: number, end: number, closed: boolean): void {
  for (let i = from; i < (closed ? end : end - 1); i++) rest[i] = gap(positions, i, i + 1 < end ? i + 1 : from);
}

/** Draws each point towards the middle of its neighbours, from what they were before. */
function straightened(positions: Float64Array, from: number, end: number, closed: boolean, by: number): void {
  if (by === 0 || end - from < 3) return;
  const old = positions.slice(3 * from, 3 * end);
  const n = end - from;
  for (let i = closed ? 0 : 1; i < (closed ? n : n - 1); i++) {
    const [a, b] = [(i + n - 1) % n, (i + 1) % n];
    for (let c = 0; c < 3; c++)
      positions[3 * (from + i) + c] += by * ((old[3 * a + c] + old[3 * b + c]) / 2 - old[3 * i + c]);
  }
}

/** Brings each edge to the length it would like to have, one after another. */
function pulled(
  positions: Float64Array,
  rest: Float64Array,
  from: number,
  end: number,
  closed: boolean,
  backwards: boolean,
): void {
  const edges = closed ? end - from : end - from - 1;
  for (let k = 0; k < edges; k++) {
    const i = from + (backwards ? edges - 1 - k : k);
    const j = i + 1 < end ? i + 1 : from;
    const x = positions[3 * j] - positions[3 * i];
    const y = positions[3 * j + 1] - positions[3 * i + 1];
    const z = positions[3 * j + 2] - positions[3 * i + 2];
    const length = sqrt(x * x + y * y + z * z);
    if (length === 0) continue;
    const by = (0.5 * (length - rest[i])) / length;
    positions[3 * i] += by * x;
    positions[3 * i + 1] += by * y;
    positions[3 * i + 2] += by * z;
    positions[3 * j] -= by * x;
    positions[3 * j + 1] -= by * y;
    positions[3 * j + 2] -= by * z;
  }
}
