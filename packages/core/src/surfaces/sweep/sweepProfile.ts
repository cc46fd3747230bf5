import earcut from 'earcut';
import { doubleArea, type Region } from '../../outline/region';

/**
 * What is swept: closed contours in the plane square to a path, x along the path's normal, y along tangent × normal.
 * Outer contours run anticlockwise seen from the path's tip, holes clockwise.
 */
export interface SweepProfile {
  /** Places in units of the radius. The last column of a contour repeats its first; hard corners stand twice. */
  x: Float64Array;
  y: Float64Array;
  /** Outward unit normals of the columns. */
  nx: Float64Array;
  ny: Float64Array;
  /** 0 where a column begins a new face: at hard corners, and at the first column of each contour. */
  joined: Uint8Array;
  /** Way round from the contour's first corner, in lengths of the longest contour, for texture coordinates. */
  share: Float64Array;
  /** Length of the longest contour, in units of the radius. */
  round: number;
  /** Largest distance of a column from the middle. */
  reach: number;
  /** Triangles over the columns that close an end, anticlockwise seen from the tip. */
  cap: Uint32Array;
}

type Corner = readonly [number, number];

/** Corners that turn by more than this keep an edge where edges are to be hard, degrees. */
const CREASE = 25;

const circles = new Map<number, SweepProfile>();

/** A circle of straight sides with smooth normals, made once for each number of sides. */
export function circleProfile(sides: number): SweepProfile {
  let profile = circles.get(sides);
  if (!profile) {
    profile = contourProfile(polygonCorners(sides), false);
    // To the last bit: a place on the unit circle is its own normal, which sweeping takes a short way for.
    circles.set(sides, (profile = { ...profile, nx: profile.x, ny: profile.y }));
  }
  return profile;
}

let square: SweepProfile | null = null;

/** What a flat band has, made once: a square with hard edges, which is as thick and as wide as its rings tell. */
export const squareProfile = (): SweepProfile => (square ??= contourProfile(bandCorners(1), true));

/** A regular polygon on the unit circle. */
export const polygonCorners = (corners: number): [number, number][] =>
  Array.from({ length: corners }, (_, j) => [
    Math.cos((2 * Math.PI * j) / corners),
    Math.sin((2 * Math.PI * j) / corners),
  ]);

/** A star: points on the unit circle, notches at `inner` of it. */
export const starCorners = (points: number, inner: number): [number, number][] =>
  Array.from({ length: 2 * points }, (_, j) => {
    const r = j % 2 ? inner : 1;
    return [r * Math.cos((Math.PI * j) / points), r * Math.sin((Math.PI * j) / points)];
  });

/** A cross of four equal arms that reach to ±1; `arm` is their breadth, 0..1 of the whole. */
export function crossCorners(arm: number): [number, number][] {
  const a = arm;
  return [
    [1, -a],
    [1, a],
    [a, a],
    [a, 1],
    [-a, 1],
    [-a, a],
    [-1, a],
    [-1, -a],
    [-a, -a],
    [-a, -1],
    [a, -1],
    [a, -a],
  ];
}

/** A flat band from −1 to 1, `thick` of that high. */
export const bandCorners = (thick: number): [number, number][] => [
  [1, -thick],
  [1, thick],
  [-1, thick],
  [-1, -thick],
];

/** Half a ring over the path, `thick` of its radius strong, of `steps` pieces. */
export function archCorners(thick: number, steps: number): [number, number][] {
  const half = (radius: number, back: boolean): [number, number][] =>
    Array.from({ length: steps + 1 }, (_, k) => {
      const angle = (Math.PI * (back ? steps - k : k)) / steps;
      return [radius * Math.cos(angle), radius * Math.sin(angle)];
    });
  return [...half(1, false), ...half(Math.max(0.001, 1 - thick), true)];
}

/** A closed outline drawn as its distance from the middle at each angle, on `steps` corners. */
export const roundCornersOf = (radius: (share: number) => number, steps: number): [number, number][] =>
  Array.from({ length: steps }, (_, j) => {
    const [share, r] = [j / steps, Math.max(0.001, radius(j / steps))];
    return [r * Math.cos(2 * Math.PI * share), r * Math.sin(2 * Math.PI * share)];
  });

/** Columns of a single contour; see `regionProfile`. */
export const contourProfile = (corners: readonly Corner[], hard: boolean): SweepProfile =>
  regionProfile([{ outer: corners.flat(), holes: [] }], hard);

/**
 * The profile of any regions with their holes, as they are: not centred, not scaled.
 * @param hard keeps edges in the normals where corners are sharp
 */
export function regionProfile(regions: readonly Region[], hard: boolean): SweepProfile {
  const columns: Columns = { x: [], y: [], nx: [], ny: [], joined: [], share: [] };
  const cap: number[] = [];
  let round = 0;
  for (const { outer, holes } of regions)
    for (const contour of [outer, ...holes]) round = Math.max(round, lengthOf(contour));
  for (const { outer, holes } of regions.map(cleaned)) {
    const flat: number[] = [];
    const starts: number[] = [];
    const columnOf: number[] = [];
    for (const contour of [outer, ...holes]) {
      if (flat.length > 0) starts.push(flat.length / 2);
      flat.push(...contour);
      columnOf.push(...addContour(columns, contour, hard, round));
    }
    const triangles = earcut(flat, starts);
    for (let t = 0; t < triangles.length; t += 3) {
      const [a, b, c] = triangles.slice(t, t + 3);
      const area = doubleArea([a, b, c].flatMap((i) => [flat[2 * i], flat[2 * i + 1]]));
      const turned = area >= 0 ? [a, b, c] : [a, c, b];
      cap.push(...turned.map((i) => columnOf[i]));
    }
  }
  let reach = 0;
  columns.x.forEach((x, j) => (reach = Math.max(reach, Math.hypot(x, columns.y[j]))));
  return {
    x: Float64Array.from(columns.x),
    y: Float64Array.from(columns.y),
    nx: Float64Array.from(columns.nx),
    ny: Float64Array.from(columns.ny),
    joined: Uint8Array.from(columns.joined),
    share: Float64Array.from(columns.share),
    round,
    reach,
    cap: Uint32Array.from(cap),
  };
}

/** Without corners that turn nowhere: triangulation would leave them out of the cap, and so open its rim. */
const cleaned = ({ outer, holes }: Region): Region => ({
  outer: straightened(distinct(outer)),
  holes: holes.map((hole) => straightened(distinct(hole))),
});

/** Corners that stand where the one before stands are left out. */
function distinct(contour: readonly number[]): number[] {
  const kept: number[] = [];
  const n = contour.length;
  const apart = (i: number, x: number, y: number): boolean => Math.hypot(contour[i] - x, contour[i + 1] - y) > 1e-9;
  for (let i = 0; i < n; i += 2) {
    const k = kept.length;
    if (k > 0 && !apart(i, kept[k - 2], kept[k - 1])) continue;
    // The last must not stand where the first does.
    if (i > 0 && i === n - 2 && !apart(i, contour[0], contour[1])) continue;
    kept.push(contour[i], contour[i + 1]);
  }
  return kept;
}

function straightened(contour: number[]): number[] {
  const kept: number[] = [];
  const n = contour.length;
  for (let i = 0; i < n; i += 2) {
    const [x, y] = [contour[i], contour[i + 1]];
    const [ax, ay] = kept.length > 0 ? kept.slice(-2) : [contour[n - 2], contour[n - 1]];
    const [bx, by] = [contour[(i + 2) % n], contour[(i + 3) % n]];
    const turn = (x - ax) * (by - y) - (y - ay) * (bx - x);
    if (Math.abs(turn) > 1e-12 * Math.hypot(x - ax, y - ay) * Math.hypot(bx - x, by - y)) kept.push(x, y);
  }
  return kept.length >= 6 ? kept : contour;
}

type Columns = Record<'x' | 'y' | 'nx' | 'ny' | 'joined' | 'share', number[]>;

function lengthOf(contour: readonly number[]): number {
  let sum = 0;
  const n = contour.length;
  for (let i = 0; i < n; i += 2)
    sum += Math.hypot(contour[(i + 2) % n] - contour[i], contour[(i + 3) % n] - contour[i + 1]);
  return sum;
}

/** Adds a contour's columns; gives the column at which each corner stands first. */
function addContour(columns: Columns, contour: readonly number[], hard: boolean, round: number): number[] {
  const n = contour.length / 2;
  const corner = (j: number): Corner => [contour[2 * (j % n)], contour[2 * (j % n) + 1]];
  const sides = Array.from({ length: n }, (_, j): Corner => {
    const [a, b] = [corner(j), corner(j + 1)];
    const length = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
    return [(b[1] - a[1]) / length, -(b[0] - a[0]) / length];
  });
  const limit = Math.cos((CREASE * Math.PI) / 180);
  const sharp = (j: number): boolean => {
    const [a, b] = [sides[(j + n - 1) % n], sides[j % n]];
    return hard && a[0] * b[0] + a[1] * b[1] < limit;
  };
  const smooth = (j: number): Corner => {
    const [a, b] = [sides[(j + n - 1) % n], sides[j % n]];
    const length = Math.hypot(a[0] + b[0], a[1] + b[1]);
    return length > 1e-9 ? [(a[0] + b[0]) / length, (a[1] + b[1]) / length] : a;
  };
  let way = 0;
  const put = (j: number, [nx, ny]: Corner, joined: boolean): number => {
    const [x, y] = corner(j);
    columns.x.push(x);
    columns.y.push(y);
    columns.nx.push(nx);
    columns.ny.push(ny);
    columns.joined.push(joined ? 1 : 0);
    return columns.share.push(way / round) - 1;
  };
  const first = [put(0, sharp(0) ? sides[0] : smooth(0), false)];
  for (let j = 1; j <= n; j++) {
    const [a, b] = [corner(j - 1), corner(j)];
    way += Math.hypot(b[0] - a[0], b[1] - a[1]);
    const edge = sharp(j);
    const column = put(j, edge ? sides[j - 1] : smooth(j), true);
    if (j < n) first.push(edge ? put(j, sides[j], false) : column);
  }
  return first;
}

/** Regions moved and scaled so that the box round them is centred and reaches to ±1 on its longer side. */
export function fitProfile(regions: readonly Region[]): Region[] {
  let [left, right, low, high] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const { outer } of regions) {
    for (let i = 0; i < outer.length; i += 2) {
      [left, right] = [Math.min(left, outer[i]), Math.max(right, outer[i])];
      [low, high] = [Math.min(low, outer[i + 1]), Math.max(high, outer[i + 1])];
    }
  }
  const k = 2 / Math.max(right - left, high - low, 1e-12);
  const moved = (contour: number[]): number[] =>
    contour.map((value, i) => k * (value - (i % 2 === 0 ? left + right : low + high) / 2));
  return regions.map(({ outer, holes }) => ({ outer: moved(outer), holes: holes.map(moved) }));
}
