import type { YieldNow } from '../../yieldNow';
import { filled } from '../../geometry/filled';
import { type Mesh, meshWith } from '../../geometry/mesh';
import { nearestPlace } from '../../geometry/search/nearest';
import { treeInTime } from '../../geometry/search/meshTree';
import type { Topology } from '../../geometry/topology/topology';
import { at, cross, dot, partWay, scale, sub, unit, type Vec3 } from '../../geometry/vec';
import { PlacesGrid } from '../../geometry/search/placesGrid';

/** Ways over gaps: from a welded place to a point of a face of another part, or to another place across a rim. */
export interface Bridges {
  /** Ways at each place, at either end: those of place i are `ways[starts[i]]` up to `ways[starts[i + 1]]`. */
  starts: Uint32Array;
  ways: Uint32Array;
  /** b, the place at which each begins. */
  places: Uint32Array;
  /** 3b, the corners of the face at which it ends, as welded places; thrice the same place for one that ends there. */
  corners: Uint32Array;
  /** 3b, metres from the point where it ends to each of these corners. */
  spokes: Float64Array;
  /** 3b, lengths of the sides of that face, from each corner to the next, metres. */
  sides: Float64Array;
  /** b, its own length, metres. */
  lengths: Float64Array;
}

/** So many places are looked at between two yields. */
const CHUNK = 1 << 12;
/** Edges longer than so many gaps are looked at between their ends; what comes near shorter ones is near an end. */
const LONG = 0.25;
/** Pieces that an edge is looked at in at most, and places on it that are joined. */
const MOST_PIECES = 64;
const MOST_NEAR = 4;
/** Golden sections: the place is found to a ten thousandth of a piece. */
const SECTIONS = 20;
const GOLDEN = (Math.sqrt(5) - 1) / 2;
/** How many times as far as at first is looked by cells. */
const WIDEST = 8;
/** Cosine of the widest angle between the way across a hole and the directions in which its rim looks: 40°, so that the sides of a square
 * corner are not joined. */
const ACROSS = Math.cos((40 * Math.PI) / 180);

/**
 * Ways over gaps, no longer than `gap`: from each place to the nearest point of each other part's faces; from where a long edge
 * comes nearest to them, reached along it from both its ends; and from each place at a rim to the nearest one of its own part
 * that lies before it, across the hole, and looks back.
 * @param mesh of which the topology is
 * @param p 3n, positions of the welded places
 */
export async function bridgesOf(
  mesh: Pick<Mesh, 'positions' | 'indices'>,
  topology: Topology,
  p: Float64Array<ArrayBuffer>,
  gap: number,
  yieldNow: YieldNow,
): Promise<Bridges> {
  const { weld, edges } = topology;
  const count = weld.first.length;
  const parts = partsOf(count, edges.count, edges.ends);
  await yieldNow();
  const made = new Gathered();
  await betweenParts(mesh, topology, parts, p, gap, made, yieldNow);
  await acrossRims(topology, parts, p, gap, made, yieldNow);
  return made.done(count);
}

/** Ways as they are found. */
class Gathered {
  readonly #places: number[] = [];
  readonly #corners: number[] = [];
  readonly #spokes: number[] = [];
  readonly #sides: number[] = [];
  readonly #lengths: number[] = [];

  add(
    place: number,
    corners: readonly number[],
    spokes: readonly number[],
    sides: readonly number[],
    length: number,
  ): void {
    this.#places.push(place);
    this.#corners.push(...corners);
    this.#spokes.push(...spokes);
    this.#sides.push(...sides);
    this.#lengths.push(length);
  }

  /** @param count of places */
  done(count: number): Bridges {
    const [places, corners] = [Uint32Array.from(this.#places), Uint32Array.from(this.#corners)];
    const ends = (way: number): Set<number> => new Set([places[way], ...corners.subarray(3 * way, 3 * way + 3)]);
    const starts = new Uint32Array(count + 1);
    for (let way = 0; way < places.length; way++) for (const place of ends(way)) starts[place + 1]++;
    for (let i = 0; i < count; i++) starts[i + 1] += starts[i];
    const next = starts.slice();
    const ways = new Uint32Array(starts[count]);
    for (let way = 0; way < places.length; way++) for (const place of ends(way)) ways[next[place]++] = way;
    return {
      ...{ starts, ways, places, corners },
      spokes: Float64Array.from(this.#spokes),
      sides: Float64Array.from(this.#sides),
      lengths: Float64Array.from(this.#lengths),
    };
  }
}

/** A connected part of a mesh: its places, its own faces, and the box round it. */
interface Part {
  places: number[];
  faces: number[];
  /** Edges so long that what comes near their middle may be far from their ends. */
  edges: number[];
  low: number[];
  high: number[];
}

async function betweenParts(
  { positions, indices }: Pick<Mesh, 'positions' | 'indices'>,
  { corners, edges, faces: faceOf }: Topology,
  parts: Uint32Array,
  p: Float64Array,
  gap: number,
  made: Gathered,
  yieldNow: YieldNow,
): Promise<void> {
  const all = new Map<number, Part>();
  for (let i = 0; i < parts.length; i++) {
    const part = all.get(parts[i]) ?? { places: [], faces: [], edges: [], low: [1, 1, 1], high: [-1, -1, -1] };
    if (part.places.length === 0) {
      all.set(parts[i], part);
      [part.low, part.high] = [[...at(p, i)], [...at(p, i)]];
    }
    part.places.push(i);
    for (let c = 0; c < 3; c++) {
      part.low[c] = Math.min(part.low[c], p[3 * i + c]);
      part.high[c] = Math.max(part.high[c], p[3 * i + c]);
    }
  }
  if (all.size < 2) return;
  for (let f = 0; f < faceOf.length; f++) all.get(parts[corners[3 * f]])!.faces.push(f);
  for (let e = 0; e < edges.count; e++) {
    const [a, b] = [edges.ends[2 * e], edges.ends[2 * e + 1]];
    if (length(sub(at(p, b), at(p, a))) > LONG * gap) all.get(parts[a])!.edges.push(e);
  }
  const list = [...all.values()].filter(({ faces }) => faces.length > 0);
  let looked = 0;
  for (const to of list) {
    const own = meshWith({
      positions,
      ...{ normals: positions, uvs: new Float32Array((2 * positions.length) / 3) },
      indices: filled(Uint32Array, 3 * to.faces.length, (k) => indices[3 * faceOf[to.faces[(k / 3) | 0]] + (k % 3)]),
    });
    let ready = false;
    for (const from of list) {
      if (from === to || boxesApart(from, to) > gap) continue;
      if (!ready) await treeInTime(own, yieldNow);
      ready = true;
      const join = (i: number, near: NonNullable<ReturnType<typeof nearestPlace>>, along: number): void => {
        const face = to.faces[near.face];
        const ends = [0, 1, 2].map((c) => corners[3 * face + c]);
        made.add(
          i,
          ends,
          ends.map((end) => length(sub(at(p, end), near.position))),
          ends.map((end, c) => length(sub(at(p, ends[(c + 1) % 3]), at(p, end)))),
          along + near.distance,
        );
      };
      for (const i of from.places) {
        if (++looked % CHUNK === 0) await yieldNow();
        const place = at(p, i);
        if (outside(place, to) > gap) continue;
        const near = nearestPlace(own, place, gap);
        if (near) join(i, near, 0);
      }
      for (const e of from.edges) {
        const [a, b] = [edges.ends[2 * e], edges.ends[2 * e + 1]];
        const [start, end] = [at(p, a), at(p, b)];
        if (segmentOutside(start, end, to) > gap) continue;
        if ((looked += 64) > CHUNK) {
          looked = 0;
          await yieldNow();
        }
        for (const { share, near } of nearestAlong(own, start, end, gap)) {
          const whole = length(sub(end, start));
          join(a, near, share * whole);
          join(b, near, (1 - share) * whole);
        }
      }
    }
  }
}

/**
 * Where a segment comes nearer to a mesh than both its ends do: the least distance in each stretch in which it falls and rises
 * again, by golden sections (Kiefer: Sequential minimax search for a maximum, 1953). Along a line the distance to a convex
 * form has one such place at most; others are found where they are further apart than the samples.
 */
function nearestAlong(
  mesh: Mesh,
  start: Vec3,
  end: Vec3,
  gap: number,
): { share: number; near: NonNullable<ReturnType<typeof nearestPlace>> }[] {
  const whole = length(sub(end, start));
  const pieces = Math.min(MOST_PIECES, Math.max(4, Math.ceil(whole / gap)));
  // As far from a sample as what is within the gap of the segment may be.
  const reach = gap + whole / pieces;
  const nearAt = (share: number) => nearestPlace(mesh, partWay(start, end, share), reach);
  const away = (share: number): number => nearAt(share)?.distance ?? Infinity;
  const samples = Array.from({ length: pieces + 1 }, (_, k) => away(k / pieces));
  const atEnds = Math.min(samples[0], samples[pieces]);
  const found: ReturnType<typeof nearestAlong> = [];
  for (let k = 0; k <= pieces; k++) {
    if (samples[k] === Infinity) continue;
    const falls = k === 0 || samples[k] <= samples[k - 1];
    if (!falls || (k < pieces && samples[k] > samples[k + 1])) continue;
    let [low, high] = [Math.max(0, k - 1) / pieces, Math.min(pieces, k + 1) / pieces];
    for (let turn = 0; turn < SECTIONS; turn++) {
      const [left, right] = [high - GOLDEN * (high - low), low + GOLDEN * (high - low)];
      if (away(left) <= away(right)) high = right;
      else low = left;
    }
    const share = (low + high) / 2;
    const near = nearAt(share);
    if (near && near.distance <= gap && near.distance < atEnds - 1e-3 * whole) found.push({ share, near });
    if (found.length === MOST_NEAR) break;
  }
  return found;
}

const length = (v: Vec3): number => Math.hypot(...v);

/** How far two boxes are apart, metres; 0 where they overlap. */
const boxesApart = (a: Part, b: Part): number =>
  Math.hypot(...[0, 1, 2].map((c) => Math.max(0, a.low[c] - b.high[c], b.low[c] - a.high[c])));

const outside = (place: Vec3, { low, high }: Part): number =>
  Math.hypot(...[0, 1, 2].map((c) => Math.max(0, low[c] - place[c], place[c] - high[c])));

/** How far the box round a segment is from a part's. */
const segmentOutside = (a: Vec3, b: Vec3, { low, high }: Part): number =>
  Math.hypot(...[0, 1, 2].map((c) => Math.max(0, low[c] - Math.max(a[c], b[c]), Math.min(a[c], b[c]) - high[c])));

/** Ways across holes of one part, from rim to rim. */
async function acrossRims(
  { corners, edges, weld }: Topology,
  parts: Uint32Array,
  p: Float64Array<ArrayBuffer>,
  gap: number,
  made: Gathered,
  yieldNow: YieldNow,
): Promise<void> {
  const ways = rimDirections(corners, edges, p, weld.first.length);
  const rims = [...ways.keys()];
  if (rims.length === 0) return;
  const places = filled(Float64Array, 3 * rims.length, (k) => p[3 * rims[(k / 3) | 0] + (k % 3)]);
  const reach = gap * (1 + 1e-12);
  const near = Math.min(reach, Math.max(1e-9, meanLength(edges.ends, edges.count, p)));
  const grid = new PlacesGrid({ positions: places, count: rims.length }, near);
  let looked = 0;
  for (const i of rims) {
    const way = ways.get(i)!;
    const place = at(p, i);
    let [best, nearest] = [Infinity, -1];
    const consider = (j: number): void => {
      if (j === i || parts[j] !== parts[i]) return;
      const by = sub(at(p, j), place);
      const away = length(by);
      if (away > gap || away >= best || !(away > 0)) return;
      if (dot(by, way) < ACROSS * away || dot(by, ways.get(j)!) > -ACROSS * away) return;
      [best, nearest] = [away, j];
    };
    for (let radius = near; ; radius = Math.min(reach, 2 * radius)) {
      // Cells are of no use where there are more of them than places.
      const all = radius > WIDEST * near;
      const there = all ? rims.length : grid.gather(...place, radius);
      for (let n = 0; n < there; n++) consider(rims[all ? n : grid.found[n]]);
      if ((looked += there + 8) > CHUNK) {
        looked = 0;
        await yieldNow();
      }
      if (nearest >= 0 || radius >= reach || all) break;
    }
    if (nearest >= 0) made.add(i, [nearest, nearest, nearest], [0, 0, 0], [0, 0, 0], best);
  }
}

/** For each place at a rim the direction in which its faces end there: in their plane, away from them. */
function rimDirections(
  corners: Uint32Array,
  edges: Topology['edges'],
  p: Float64Array,
  count: number,
): ReadonlyMap<number, Vec3> {
  const sums = new Float64Array(3 * count);
  const rim = new Uint8Array(count);
  for (let corner = 0; corner < corners.length; corner++) {
    const edge = edges.of[corner];
    if (edges.there[edge] + edges.back[edge] !== 1) continue;
    const first = 3 * Math.floor(corner / 3);
    const [a, b, c] = [0, 1, 2].map((k) => corners[first + ((corner - first + k) % 3)]);
    const along = sub(at(p, b), at(p, a));
    const inwards = sub(at(p, c), at(p, a));
    const out = cross(along, cross(along, inwards));
    const size = length(out);
    if (!(size > 0)) continue;
    for (const place of [a, b]) {
      rim[place] = 1;
      scale(out, 1 / size).forEach((value, k) => (sums[3 * place + k] += value));
    }
  }
  const found = new Map<number, Vec3>();
  for (let i = 0; i < count; i++) if (rim[i] && length(at(sums, i)) > 1e-6) found.set(i, unit(at(sums, i)));
  return found;
}

function meanLength(ends: Uint32Array, count: number, p: Float64Array): number {
  let sum = 0;
  for (let e = 0; e < count; e++) sum += length(sub(at(p, ends[2 * e]), at(p, ends[2 * e + 1])));
  return count > 0 ? sum / count : 0;
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
