import { distance, dot, partWay, sub, unit, type Vec3 } from '@uvrex/core';
import { type Dot, nearestShare } from './segment';

/** A path as it is drawn, grown or not: where its points are, and how far each is along it, metres. */
export interface WholePath {
  places: Vec3[];
  along: number[];
  closed: boolean;
}

interface Drawn {
  positions: Float32Array;
  offsets: ArrayLike<number>;
  closed: ArrayLike<number>;
}

const placesOf = (flat: ArrayLike<number>, from = 0, to = flat.length / 3): Vec3[] =>
  Array.from({ length: to - from }, (_, i) => [
    flat[3 * (from + i)],
    flat[3 * (from + i) + 1],
    flat[3 * (from + i) + 2],
  ]);

/**
 * The first path of a growth from end to end: what is there of it, and what is still ahead of it or gone behind it.
 * @param drawn its paths as they are there; null where none is
 * @param ahead courses that are not there, points of three numbers
 */
export function wholePath(drawn: Drawn | null, ahead: readonly ArrayLike<number>[]): WholePath | null {
  const paths = drawn ? drawn.offsets.length - 1 : 0;
  const first = Array.from({ length: paths }, (_, p) => p).find((p) => drawn!.offsets[p + 1] - drawn!.offsets[p] > 1);
  const rest = ahead.map((piece) => placesOf(piece));
  let places =
    first === undefined ? rest.shift() : placesOf(drawn!.positions, drawn!.offsets[first], drawn!.offsets[first + 1]);
  if (!places || places.length < 2) return null;
  // Pieces go on where another ends; what does not meet it is of another path.
  for (let found = true; found;) {
    found = false;
    for (const [i, piece] of rest.entries()) {
      if (meets(places.at(-1)!, piece[0], places)) places = [...places, ...piece.slice(1)];
      else if (meets(piece.at(-1)!, places[0], places)) places = [...piece, ...places.slice(1)];
      else continue;
      rest.splice(i, 1);
      found = true;
      break;
    }
  }
  const along = [0];
  for (let i = 1; i < places.length; i++) along.push(along[i - 1] + distance(places[i - 1], places[i]));
  const closed = first !== undefined && drawn!.closed[first] === 1;
  if (closed) {
    along.push(along.at(-1)! + distance(places.at(-1)!, places[0]));
    places = [...places, places[0]];
  }
  return { places, along, closed };
}

/** Whether two ends are one place, to single precision of what the path measures. */
const meets = (a: Vec3, b: Vec3, path: readonly Vec3[]): boolean =>
  distance(a, b) <= 1e-5 * (1e-3 + distance(path[0], path[Math.floor(path.length / 2)]));

/** Where a path is so many metres from its base; its ends beyond them. */
export function placeAt({ places, along }: WholePath, metres: number): Vec3 {
  const next = along.findIndex((s) => s >= metres);
  if (next <= 0) return next === 0 ? places[0] : places.at(-1)!;
  const way = (metres - along[next - 1]) / Math.max(1e-12, along[next] - along[next - 1]);
  return partWay(places[next - 1], places[next], way);
}

/** How far along a path, on screen, the place nearest to a point is, metres. */
export function nearestAlong({ places, along }: WholePath, point: Dot, onScreen: (place: Vec3) => Dot | null): number {
  const dots = places.map(onScreen);
  let best = Infinity;
  let found = 0;
  for (let i = 1; i < dots.length; i++) {
    const [a, b] = [dots[i - 1], dots[i]];
    if (!a || !b) continue;
    const way = nearestShare(point, a, b);
    const off = Math.hypot(a.x + way * (b.x - a.x) - point.x, a.y + way * (b.y - a.y) - point.y);
    if (off >= best) continue;
    best = off;
    found = along[i - 1] + way * (along[i] - along[i - 1]);
  }
  return found;
}

/** How far along a path the place of it that is nearest to another place is, metres. */
export function alongAt({ places, along }: WholePath, place: Vec3): number {
  let best = Infinity;
  let found = 0;
  for (let i = 1; i < places.length; i++) {
    const [a, b] = [places[i - 1], places[i]];
    const run = sub(b, a);
    const share = Math.min(1, Math.max(0, dot(sub(place, a), run) / Math.max(1e-24, dot(run, run))));
    const off = distance(place, [a[0] + share * run[0], a[1] + share * run[1], a[2] + share * run[2]]);
    if (off >= best) continue;
    best = off;
    found = along[i - 1] + share * (along[i] - along[i - 1]);
  }
  return found;
}

/**
 * How far along a path its second copy stands, metres: what the room between copies is held by where each is as long as it is.
 * @param copies as they are drawn, 16 numbers each, columns first
 * @returns null where there are not two that follow one another
 */
export function secondAlong(path: WholePath, copies: DrawnCopies): number | null {
  const all = inOrder(copies);
  const [first, second] = all;
  if (!second || second[0] !== first[0] + 1) return null;
  return alongAt(path, second[1]);
}

type DrawnCopies = readonly { matrices: Float32Array; ids: ArrayLike<number> }[];

/** Copies by their numbers, with where they stand. */
const inOrder = (copies: DrawnCopies): (readonly [id: number, place: Vec3])[] =>
  copies
    .flatMap(({ matrices, ids }) =>
      Array.from(ids, (id, k): readonly [number, Vec3] => [
        id,
        [matrices[16 * k + 12], matrices[16 * k + 13], matrices[16 * k + 14]],
      ]),
    )
    .sort(([a], [b]) => a - b);

/** Where the copy of the lowest number stands; null where there is none. */
export const firstCopy = (copies: DrawnCopies): Vec3 | null => inOrder(copies)[0]?.[1] ?? null;

/** The direction of a path so many metres from its base, a unit vector. */
export function tangentAt({ places, along }: WholePath, metres: number): Vec3 {
  const found = along.findIndex((s, i) => i > 0 && s >= metres);
  const next = found < 0 ? places.length - 1 : found;
  return unit(sub(places[next], places[next - 1]));
}
