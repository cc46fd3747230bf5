import earcut from 'earcut';
import { doubleArea } from '../../outline/region';

/**
 * Triangles over flat contours, anticlockwise, that use every point: those on straight edges too, so that walls which stand on the
 * contours meet them without gaps (ear clipping, by the package earcut, which leaves such points out).
 * @param contours xy pairs: the outer one anticlockwise, then its holes, clockwise
 * @returns numbers of points, counted through all contours
 */
export function fillOutline(contours: readonly (readonly number[])[]): number[] {
  const flat = contours.flat();
  const starts: number[] = [];
  const next = new Uint32Array(flat.length / 2);
  let first = 0;
  for (const contour of contours) {
    const count = contour.length / 2;
    if (first > 0) starts.push(first);
    for (let i = 0; i < count; i++) next[first + i] = first + ((i + 1) % count);
    first += count;
  }
  const clipped = earcut(flat, starts);
  const used = new Uint8Array(next.length);
  for (const i of clipped) used[i] = 1;
  const skips = (a: number, b: number): boolean => {
    if (next[a] === b || used[next[a]] === 1) return false;
    let i = next[a];
    while (i !== a && used[i] === 0) i = next[i];
    return i === b;
  };
  const triangles: number[] = [];
  const add = (a: number, b: number, c: number): void => {
    for (const [from, to, tip] of [
      [a, b, c],
      [b, c, a],
      [c, a, b],
    ]) {
      if (!skips(from, to)) continue;
      const middle = next[from];
      used[middle] = 1;
      add(from, middle, tip);
      return add(middle, to, tip);
    }
    triangles.push(a, b, c);
  };
  for (let t = 0; t < clipped.length; t += 3) {
    const [a, b, c] = [clipped[t], clipped[t + 1], clipped[t + 2]];
    const area = doubleArea([a, b, c].flatMap((i) => [flat[2 * i], flat[2 * i + 1]]));
    if (area >= 0) add(a, b, c);
    else add(a, c, b);
  }
  return triangles;
}
