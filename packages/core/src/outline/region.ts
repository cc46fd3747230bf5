import type { Flat2 } from './bezier';

/** Twice the signed area of a closed contour: positive when it runs anticlockwise. */
export function doubleArea(points: Flat2): number {
  let sum = 0;
  for (let i = 0, n = points.length; i < n; i += 2) {
    const j = (i + 2) % n;
    sum += points[i] * points[j + 1] - points[j] * points[i + 1];
  }
  return sum;
}

/** Whether a point lies inside a closed contour (even-odd rule). */
export function inside(points: Flat2, x: number, y: number): boolean {
  let within = false;
  for (let i = 0, n = points.length, j = n - 2; i < n; j = i, i += 2) {
    const xi = points[i];
    const yi = points[i + 1];
    const xj = points[j];
    const yj = points[j + 1];
    if (yi > y !== yj > y && x < ((xj - xi) * (y - yi)) / (yj - yi) + xi) within = !within;
  }
  return within;
}

/** An outer contour, anticlockwise, with the holes in it, clockwise. */
export interface Region {
  outer: Flat2;
  holes: Flat2[];
}

/**
 * Sorts closed contours into outer ones and their holes by how many others each lies in (even-odd), and turns them the
 * right way round. Contours without area are dropped.
 */
export function regionsOf(contours: readonly Flat2[]): Region[] {
  const solid = contours.filter((points) => Math.abs(doubleArea(points)) > 1e-12);
  const boxes = solid.map(boxOf);
  const areas = solid.map((points) => Math.abs(doubleArea(points)));
  const around = solid.map((points, i) => {
    const found: number[] = [];
    for (let j = 0; j < solid.length; j++)
      if (i !== j && areas[j] > areas[i] && boxHolds(boxes[j], boxes[i]) && holds(solid[j], points)) found.push(j);
    return found;
  });
  const regions = new Map<number, Region>();
  solid.forEach((points, i) => {
    if (around[i].length % 2 === 0) regions.set(i, { outer: turned(points, true), holes: [] });
  });
  solid.forEach((points, i) => {
    if (around[i].length % 2 === 0) return;
    // The innermost contour around it is the one that holds the most others around itself.
    const owner = around[i].reduce((best, j) => (around[j].length > around[best].length ? j : best));
    regions.get(owner)?.holes.push(turned(points, false));
  });
  return [...regions.values()];
}

type Box = readonly [left: number, low: number, right: number, high: number];

function boxOf(points: Flat2): Box {
  let [left, low, right, high] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i < points.length; i += 2) {
    left = Math.min(left, points[i]);
    right = Math.max(right, points[i]);
    low = Math.min(low, points[i + 1]);
    high = Math.max(high, points[i + 1]);
  }
  return [left, low, right, high];
}

const boxHolds = (a: Box, b: Box): boolean => a[0] <= b[0] && a[1] <= b[1] && a[2] >= b[2] && a[3] >= b[3];

/** So many points tell whether a contour lies in another: more than can touch it. */
const TELLING = 9;

/** Whether a contour lies in another; contours that touch at a point are told apart by others of their points. */
function holds(outer: Flat2, inner: Flat2): boolean {
  const n = inner.length / 2;
  const asked = Math.min(n, TELLING);
  let yes = 0;
  for (let k = 0; k < asked; k++) {
    const i = 2 * Math.floor((k * n) / asked);
    if (inside(outer, inner[i], inner[i + 1])) yes++;
  }
  return 2 * yes > asked;
}

function turned(points: Flat2, anticlockwise: boolean): Flat2 {
  if (doubleArea(points) > 0 === anticlockwise) return points;
  const back: Flat2 = [];
  for (let i = points.length - 2; i >= 0; i -= 2) back.push(points[i], points[i + 1]);
  return back;
}
