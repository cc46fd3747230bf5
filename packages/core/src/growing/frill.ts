import { filled } from '../geometry/filled';
import { noise3 } from '../fields/noise';
import { add, at, cross, scale, sub, unit, type Vec3 } from '../geometry/vec';
import type { Course } from './simulationHistory';
import { KeepApart } from './keepApart';

const { abs, ceil, cos, floor, hypot, max, min, round, sin, sqrt } = Math;

/** What a frill grows by. */
export interface Frilling {
  /** Places of its base, metres; a closed one does not repeat its first. */
  base: readonly Vec3[];
  closed: boolean;
  /** Rows from base to rim, 2 or more. */
  rows: number;
  /** From base to rim when it has grown, metres. */
  height: number;
  /** How many times as long as the base the rim comes to be. */
  ruffle: number;
  /** How much of that is near the rim: the rim's share to this power of the way. */
  rim: number;
  /** How far it opens, radians: 0 upright, a quarter turn flat outwards. */
  open: number;
  /** How much it stands up, 0..1. */
  upright: number;
  /** How wide its folds are at least, about, metres: within half of that it bends little. */
  fold: number;
  /** Parts that are not next to each other keep this far apart, metres. */
  apart: number;
  steps: number;
  seed: number;
}

/** A frill after so many steps: rows of points, base first. */
export interface Frill {
  /** 3 · columns · rows, metres. */
  positions: Float64Array;
}

/** Rounds of pushing and pulling in a step. */
const ROUNDS = 10;
/** Two points within half a fold are at least so much of their way apart. */
const STRAIGHT = 0.88;
/** How far a point is drawn towards the middle of those beside it, each round. */
const SMOOTH = 0.075;
/** How far a rim at full firmness is drawn the way it opens, each round, of the height of a row. */
const FIRM = 0.04;
/** What a frill is as high as when it begins, of its height. */
const BUD = 0.04;

/** How high a frill is after a share of its growing, metres. */
const heightAt = ({ height }: Frilling, share: number): number => height * (BUD + (1 - BUD) * share);

/** How many times as long as at the base a row would like to be, at a share of the way to the rim. */
const stretchAt = ({ ruffle, rim }: Frilling, share: number, grown: number): number =>
  1 + (ruffle - 1) * (share * grown) ** rim;

/**
 * A sheet along a base whose rows grow longer the nearer to the rim, and so cannot lie flat: it ruffles (Sharon, Roman, Marder and
 * others, Buckling cascades in free sheets, Nature 419, 2002). Rows, columns and diagonals are brought to the lengths they would
 * like to have in rounds, bends are resisted, parts that meet keep apart (Müller and others, Position based dynamics, 2007). All
 * points are there from the first: the mesh has the same numbers at every frame.
 */
export function frilling(given: Frilling): Course<Frill> {
  const { base, closed, rows, steps, apart, fold, upright } = given;
  const columns = base.length;
  const n = columns * rows;
  const out = outwards(given);
  const edges = base.map((place, i) => {
    const other = base[(i + 1) % columns];
    return hypot(...sub(other, place));
  });
  const keepApart = new KeepApart(apart);
  const weights = filled(Float64Array, n, (i) => (i < columns ? 0 : 1));

  const next: Course<Frill>['next'] = async (state, step, yieldNow) => {
    const grown = (step + 1) / steps;
    const rise = heightAt(given, grown) / (rows - 1);
    const positions = state.positions.slice();
    const stretch = filled(Float64Array, rows, (j) => stretchAt(given, j / (rows - 1), grown));
    const { stands, of } = standIns(given, grown);
    const near = nearness(given, grown, stands);
    const m = stands.length;
    const those = new Float64Array(3 * m);
    const link = (i: number, k: number, rest: number, give: number): void => {
      const sum = weights[i] + weights[k];
      if (sum === 0) return;
      const x = positions[3 * k] - positions[3 * i];
      const y = positions[3 * k + 1] - positions[3 * i + 1];
      const z = positions[3 * k + 2] - positions[3 * i + 2];
      const length = sqrt(x * x + y * y + z * z);
      if (length === 0) return;
      const by = (give * (length - rest)) / (length * sum);
      const [a, b] = [by * weights[i], by * weights[k]];
      positions[3 * i] += a * x;
      positions[3 * i + 1] += a * y;
      positions[3 * i + 2] += a * z;
      positions[3 * k] -= b * x;
      positions[3 * k + 1] -= b * y;
      positions[3 * k + 2] -= b * z;
    };
    /** Brings two points at least so far apart. */
    const stretched = (i: number, k: number, least: number): void => {
      const x = positions[3 * k] - positions[3 * i];
      const y = positions[3 * k + 1] - positions[3 * i + 1];
      const z = positions[3 * k + 2] - positions[3 * i + 2];
      if (x * x + y * y + z * z < least * least) link(i, k, least, 0.5);
    };
    const acrossRows = max(2, round((0.5 * fold) / rise));
    const mean = edges.reduce((sum, x) => sum + x, 0) / columns;
    for (let turn = 0; turn < ROUNDS; turn++) {
      await yieldNow();
      if (apart > 0 && turn % 3 === 0) {
        for (let k = 0; k < m; k++) for (let c = 0; c < 3; c++) those[3 * k + c] = positions[3 * stands[k] + c];
        if (turn === 0) keepApart.begin(those, m, near);
        const moves = keepApart.moves(those, m);
        for (let i = 3 * columns; i < 3 * n; i++) positions[i] += moves[3 * of[floor(i / 3)] + (i % 3)];
      }
      smoothed(positions);
      for (let j = 1; j < rows; j++) {
        const far = max(2, round((0.5 * fold) / (mean * stretch[j])));
        for (let i = 0; i < columns; i++) {
          const here = j * columns + i;
          const other = i + far < columns ? i + far : closed && far < columns / 3 ? i + far - columns : -1;
          if (other >= 0) stretched(here, j * columns + other, STRAIGHT * far * edges[i] * stretch[j]);
          if (j >= acrossRows) stretched(here - acrossRows * columns, here, STRAIGHT * acrossRows * rise);
        }
      }
      // It stands up, or opens, as it would: more towards the rim.
      if (upright > 0)
        for (let i = columns; i < n; i++) {
          const by = FIRM * upright * rise * (floor(i / columns) / (rows - 1));
          for (let c = 0; c < 3; c++) positions[3 * i + c] += by * out[3 * (i % columns) + c];
        }
      // From the base to the rim, and in the other direction every second time.
      for (let k = 1; k < rows; k++) {
        const j = turn % 2 > 0 ? rows - k : k;
        for (let i = 0; i < columns; i++) {
          const here = j * columns + i;
          const wraps = i + 1 < columns ? i + 1 : closed ? 0 : -1;
          const along = edges[i] * stretch[j];
          link(here - columns, here, rise, 1);
          if (wraps < 0) continue;
          const beside = j * columns + wraps;
          link(here, beside, along, 1);
          const between = edges[i] * 0.5 * (stretch[j] + stretch[j - 1]);
          const diagonal = sqrt(between * between + rise * rise);
          link(here - columns, beside, diagonal, 0.3);
          link(beside - columns, here, diagonal, 0.3);
        }
      }
    }
    return { positions };
  };

  /** Draws points a little towards the middle of those beside them. */
  const smoothed = (positions: Float64Array): void => {
    const old = positions.slice();
    for (let j = 1; j < rows; j++)
      for (let i = 0; i < columns; i++) {
        const here = 3 * (j * columns + i);
        const [a, b] = [i > 0 ? i - 1 : closed ? columns - 1 : -1, i + 1 < columns ? i + 1 : closed ? 0 : -1];
        if (a >= 0 && b >= 0)
          for (let c = 0; c < 3; c++)
            positions[here + c] +=
              SMOOTH * ((old[3 * (j * columns + a) + c] + old[3 * (j * columns + b) + c]) / 2 - old[here + c]);
        if (j + 1 < rows)
          for (let c = 0; c < 3; c++)
            positions[here + c] +=
              SMOOTH * ((old[here - 3 * columns + c] + old[here + 3 * columns + c]) / 2 - old[here + c]);
      }
  };

  return {
    first: { positions: begin(given, out) },
    next,
    bytes: ({ positions }) => positions.byteLength,
  };
}

/**
 * Points that keep apart for those around them: near the base columns are much closer than what they keep apart by, and all of
 * them would be asked in vain.
 */
function standIns(given: Frilling, grown: number): { stands: Uint32Array; of: Uint32Array } {
  const { base, rows, apart } = given;
  const height = heightAt(given, grown);
  const columns = base.length;
  const edge = hypot(...sub(base[1], base[0]));
  const stands: number[] = [];
  const of = new Uint32Array(columns * rows);
  const high = max(1, round((0.5 * apart * (rows - 1)) / height));
  for (let j = 0; j < rows; j += high) {
    const along = edge * stretchAt(given, j / (rows - 1), grown);
    const wide = max(1, round((0.5 * apart) / along));
    for (let i = 0; i < columns; i += wide) {
      for (let r = j; r < min(rows, j + high); r++)
        of.fill(stands.length, r * columns + i, r * columns + min(columns, i + wide));
      stands.push(j * columns + i);
    }
  }
  return { stands: Uint32Array.from(stands), of };
}

/** Tells of two of some points whether they are near each other in the sheet itself. */
function nearness(given: Frilling, grown: number, points: Uint32Array): (a: number, b: number) => boolean {
  const { base, rows, apart, closed } = given;
  const height = heightAt(given, grown);
  const columns = base.length;
  const edge = hypot(...sub(base[1], base[0]));
  const high = ceil((1.6 * apart * (rows - 1)) / height) + 1;
  const rowOf = points.map((i) => floor(i / columns));
  const columnOf = points.map((i) => i % columns);
  // Longer rows have fewer columns to a length.
  const wide = filled(Uint32Array, rows, (j) =>
    ceil((1.6 * apart) / (edge * stretchAt(given, j / (rows - 1), grown)) + 2),
  );
  return (a, b) => {
    if (abs(rowOf[a] - rowOf[b]) > high) return false;
    const across = abs(columnOf[a] - columnOf[b]);
    return (closed ? min(across, columns - across) : across) <= wide[min(rowOf[a], rowOf[b])];
  };
}

/** Which way each column goes from the base: up, and outwards by as much as it opens; 3 · columns. */
function outwards({ base, closed, open }: Frilling): Float64Array {
  const n = base.length;
  const up: Vec3 = [0, 1, 0];
  // Outwards of a ring is away from what it goes round: its area on the ground tells which side that is.
  let area = 0;
  for (let i = 0; closed && i < n; i++) {
    const [a, b] = [base[i], base[(i + 1) % n]];
    area += a[2] * b[0] - a[0] * b[2];
  }
  const side = area < 0 ? -1 : 1;
  return Float64Array.from(
    base.flatMap((_, i) => {
      const before = closed ? base[(i + n - 1) % n] : base[max(0, i - 1)];
      const after = closed ? base[(i + 1) % n] : base[min(n - 1, i + 1)];
      const away = scale(unit(cross(sub(after, before), up), [0, 0, 1]), side);
      return unit(add(scale(up, cos(open)), scale(away, sin(open))));
    }),
  );
}

/** The bud: low, straight, and uneven by a hair, or nothing would tell it which way to go. */
function begin(given: Frilling, out: Float64Array): Float64Array {
  const { base, rows, height, seed } = given;
  const columns = base.length;
  const rise = heightAt(given, 0) / (rows - 1);
  const positions = new Float64Array(3 * columns * rows);
  const push = new Float64Array(3);
  for (let j = 0; j < rows; j++)
    for (let i = 0; i < columns; i++) {
      const place = base[i];
      const grain = 4 / height;
      noise3(
        grain * place[0],
        grain * place[1],
        grain * place[2],
        0,
        { detail: 4, roughness: 0.8, seed, period: 0 },
        push,
      );
      const way = at(out, i);
      for (let c = 0; c < 3; c++)
        positions[3 * (j * columns + i) + c] = place[c] + j * rise * (way[c] + 0.15 * push[c]);
    }
  return positions;
}
