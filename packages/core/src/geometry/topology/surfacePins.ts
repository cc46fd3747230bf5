import { faceCount, type Mesh, vertexCount } from '../mesh';
import type { SurfacePlaces } from './surfacePlaces';

/** Places on a mesh that were found on another state of it, those of them that are there. */
export interface PinnedPlaces {
  /** Which of the places each is, rising. */
  places: Uint32Array;
  /** 4 corners of each, and their weights, which add up to 1. */
  corners: Uint32Array;
  weights: Float32Array;
  /** The face of each; null where faces are others now. */
  faces: Uint32Array | null;
}

/**
 * Places pinned to a skin: where they are on it now. Where faces are the same they keep to their face; on skins along
 * paths, of which there may be more or less now, to their path, their place along it and their place around it.
 * @param rest the mesh that they were found on
 * @returns null where both meshes have nothing in common to go by
 */
export function pinPlaces(places: SurfacePlaces, rest: Mesh, now: Mesh): PinnedPlaces | null {
  if (rest === now || (faceCount(rest) === faceCount(now) && vertexCount(rest) === vertexCount(now)))
    return byFaces(places, now);
  const [before, after] = [tubesOf(rest), tubesOf(now)];
  return before && after && before.columns === after.columns ? byTubes(places, rest, now, before, after) : null;
}

function byFaces({ faces, weights }: SurfacePlaces, { indices }: Mesh): PinnedPlaces {
  const found = roomFor(faces.length);
  for (let k = 0; k < faces.length; k++) {
    found.places[k] = k;
    for (let c = 0; c < 3; c++) {
      found.corners[4 * k + c] = indices[3 * faces[k] + c];
      found.weights[4 * k + c] = weights[3 * k + c];
    }
    found.corners[4 * k + 3] = found.corners[4 * k];
  }
  return { ...found, faces: faces.slice() };
}

const roomFor = (n: number): PinnedPlaces => ({
  places: new Uint32Array(n),
  corners: new Uint32Array(4 * n),
  weights: new Float32Array(4 * n),
  faces: null,
});

/** A skin along paths: rings of so many vertices each. */
interface Tubes {
  /** First vertex of each path's part by the path's id, and past its last. */
  parts: Map<number, readonly [first: number, end: number]>;
  columns: number;
}

/** How a skin along paths is built; null for what is none. */
function tubesOf({ parts, u, uvs, positions }: Mesh): Tubes | null {
  if (!parts || !u || parts.length === 0) return null;
  const n = positions.length / 3;
  // Shares around a ring are the same on every ring.
  let columns = 2;
  while (columns < n && !repeats(uvs, columns)) columns++;
  const found = new Map<number, readonly [number, number]>();
  for (let k = 0; k < parts.length; k += 2) {
    const [first, end] = [parts[k], k + 2 < parts.length ? parts[k + 2] : n];
    if ((end - first) % columns !== 0 || end - first < 2 * columns) return null;
    found.set(parts[k + 1], [first, end]);
  }
  return { parts: found, columns };
}

function repeats(uvs: Float32Array, columns: number): boolean {
  for (let v = columns; 2 * v < uvs.length; v++) if (uvs[2 * v] !== uvs[2 * (v - columns)]) return false;
  return true;
}

function byTubes(places: SurfacePlaces, rest: Mesh, now: Mesh, before: Tubes, after: Tubes): PinnedPlaces {
  const { columns } = after;
  const partOf = partsByVertex(rest);
  const all = roomFor(places.faces.length);
  let count = 0;
  for (let k = 0; k < places.faces.length; k++) {
    const corners = rest.indices.subarray(3 * places.faces[k], 3 * places.faces[k] + 3);
    const weights = places.weights.subarray(3 * k, 3 * k + 3);
    const id = partOf(corners[0]);
    const part = after.parts.get(id);
    if (!part) continue;
    let along = 0;
    let around = 0;
    let row = 0;
    const own = before.parts.get(id)!;
    for (let c = 0; c < 3; c++) {
      const vertex = corners[c] - own[0];
      along += weights[c] * rest.u![corners[c]];
      around += weights[c] * (vertex % columns);
      row += weights[c] * Math.floor(vertex / columns);
    }
    // Rings of the end at the base lie all at one place along the path: there they go by their numbers.
    const lead = leading(rest.u!, own, columns);
    const sameBase = lead === leading(now.u!, part, columns) && rest.u![own[0]] === now.u![part[0]];
    if (sameBase && row <= lead && corners.every((corner) => (corner - own[0]) / columns < lead + 1)) {
      all.places[count] = k;
      all.corners.set(
        [...corners, corners[0]].map((corner) => corner - own[0] + part[0]),
        4 * count,
      );
      all.weights.set(weights, 4 * count);
      count++;
      continue;
    }
    const ring = ringAt(now.u!, part, columns, along);
    if (!ring) continue;
    const column = Math.min(columns - 2, Math.floor(around));
    const across = around - column;
    const [vertex, t] = [ring[0] + column, ring[1]];
    all.places[count] = k;
    all.corners.set([vertex, vertex + 1, vertex + columns, vertex + columns + 1], 4 * count);
    all.weights.set([(1 - t) * (1 - across), (1 - t) * across, t * (1 - across), t * across], 4 * count);
    count++;
  }
  return {
    places: all.places.slice(0, count),
    corners: all.corners.slice(0, 4 * count),
    weights: all.weights.slice(0, 4 * count),
    faces: null,
  };
}

/** Rings before the one at which a path begins: those of a round or pointed end. */
function leading(u: Float32Array, [first, end]: readonly [number, number], columns: number): number {
  let rings = 1;
  while (first + rings * columns < end && u[first + rings * columns] === u[first]) rings++;
  return rings - 1;
}

/** First vertex of the ring before a place along a path, and how far it is to the next; null where that is not there. */
function ringAt(
  u: Float32Array,
  [first, end]: readonly [number, number],
  columns: number,
  along: number,
): readonly [vertex: number, t: number] | null {
  const rings = (end - first) / columns;
  const at = (ring: number): number => u[first + ring * columns];
  if (rings < 2 || along < at(0) || along > at(rings - 1)) return null;
  let [low, high] = [0, rings - 1];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (at(middle) <= along) low = middle;
    else high = middle;
  }
  const length = at(high) - at(low);
  return [first + low * columns, length > 0 ? (along - at(low)) / length : 0];
}

function partsByVertex({ parts }: Mesh): (vertex: number) => number {
  const count = parts!.length / 2;
  return (vertex) => {
    let [low, high] = [0, count - 1];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (parts![2 * middle] <= vertex) low = middle;
      else high = middle - 1;
    }
    return parts![2 * low + 1];
  };
}
