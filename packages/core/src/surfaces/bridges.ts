import { boxAround } from '../geometry/box';
import { filled } from '../geometry/filled';
import type { Topology } from '../geometry/topology';
import { PlacesGrid } from './placesGrid';

/** Ways from place to place that lead over no face: those of place i are number `starts[i]` up to `starts[i + 1]`. */
export interface Bridges {
  starts: Uint32Array;
  ends: Uint32Array;
  /** Metres. */
  lengths: Float64Array;
}

/** So many places are looked at between two breaths. */
const CHUNK = 1 << 16;
/** How many times as far as at first is looked by cells. */
const WIDEST = 8;

/**
 * Ways over gaps: from each place to the nearest one of each other part, and from each that lies at a hole to the nearest one at a
 * hole of its own part that is no neighbour, no longer than `gap`.
 * @param p positions of the welded places
 */
export async function bridgesOf(
  { weld, edges, neighbours }: Topology,
  p: Float64Array<ArrayBuffer>,
  gap: number,
  breathe: () => Promise<void>,
): Promise<Bridges> {
  const count = weld.first.length;
  const parts = partsOf(count, edges.count, edges.ends);
  await breathe();
  const open = new Uint8Array(count);
  for (let e = 0; e < edges.count; e++)
    if (edges.there[e] + edges.back[e] === 1) open[edges.ends[2 * e]] = open[edges.ends[2 * e + 1]] = 1;
  // Inside a closed part of its own there is nothing to cross to.
  const others = new Set(parts).size - 1;
  if (others === 0 && !open.includes(1)) return bothWays(count, [], []);
  // A grid finds what is nearer than a length, and a way may be as long as the gap. Whoever asks looks near by first.
  const reach = gap * (1 + 1e-12);
  const { low, high } = boxAround(p);
  const near = Math.min(reach, Math.max(1e-9, (2 * Math.hypot(...low.map((x, c) => high[c] - x))) / Math.sqrt(count)));
  const grid = new PlacesGrid({ positions: p, count }, near);
  const { found } = grid;
  const { starts, others: beside } = neighbours;
  const ways: number[] = [];
  const lengths: number[] = [];
  /** The nearest place of each part, and how far away it is. */
  const nearest = new Map<number, number>();
  const lengthsTo = new Map<number, number>();
  let looked = 0;
  for (let i = 0; i < count; i++) {
    const wanted = others + open[i];
    const consider = (j: number): void => {
      const part = parts[j];
      if (j === i) return;
      if (part === parts[i] && !(open[i] && open[j] && !isAmong(beside, starts[i], starts[i + 1], j))) return;
      const away = between(p, i, j);
      if (away <= gap && away < (lengthsTo.get(part) ?? Infinity)) {
        lengthsTo.set(part, away);
        nearest.set(part, j);
      }
    };
    for (let radius = near; wanted > 0; radius *= 2) {
      nearest.clear();
      lengthsTo.clear();
      // Cells are of no use where there are more of them than places.
      const all = radius > WIDEST * near;
      const there = all ? count : grid.gather(p[3 * i], p[3 * i + 1], p[3 * i + 2], radius);
      for (let n = 0; n < there; n++) consider(all ? n : found[n]);
      if ((looked += there + 8) > CHUNK) {
        looked = 0;
        await breathe();
      }
      if (nearest.size >= wanted || radius >= reach || all) break;
    }
    for (const j of nearest.values()) {
      ways.push(i, j);
      lengths.push(between(p, i, j));
    }
  }
  return bothWays(count, ways, lengths);
}

function isAmong(others: Uint32Array, first: number, end: number, place: number): boolean {
  for (let at = first; at < end; at++) if (others[at] === place) return true;
  return false;
}

const between = (p: Float64Array, i: number, j: number): number =>
  Math.sqrt((p[3 * i] - p[3 * j]) ** 2 + (p[3 * i + 1] - p[3 * j + 1]) ** 2 + (p[3 * i + 2] - p[3 * j + 2]) ** 2);

/** Ways by the places at both of their ends. @param ways both ends of each */
function bothWays(count: number, ways: readonly number[], lengths: readonly number[]): Bridges {
  const starts = new Uint32Array(count + 1);
  for (const place of ways) starts[place + 1]++;
  for (let i = 0; i < count; i++) starts[i + 1] += starts[i];
  const next = starts.slice();
  const made = { starts, ends: new Uint32Array(ways.length), lengths: new Float64Array(ways.length) };
  for (let w = 0; w < ways.length; w++) {
    const at = next[ways[w]]++;
    made.ends[at] = ways[w ^ 1];
    made.lengths[at] = lengths[w >> 1];
  }
  return made;
}

/** The connected part of each place, by the number of one of its places (Tarjan, union by path halving). */
function partsOf(count: number, edges: number, ends: Uint32Array): Uint32Array {
  const parent = filled(Uint32Array, count, (i) => i);
  const root = (i: number): number => {
    while (parent[i] !== i) i = parent[i] = parent[parent[i]];
    return i;
  };
  for (let e = 0; e < edges; e++) parent[root(ends[2 * e])] = root(ends[2 * e + 1]);
  for (let i = 0; i < count; i++) parent[i] = root(i);
  return parent;
}
