import { pickColumns } from './carrier';
import { boundsOf, emptyForm, type Form } from './form';
import { pathCount, PATHS, type Paths } from './paths';

/** Points that stand for all of a growth's paths, more or less. */
const ENOUGH = 600;

/**
 * A few points of whole paths, the ends of each among them. A growth takes them along while only a part of it is there, moved
 * by whatever moves that: so what is said in shares of the whole keeps its place while it grows.
 */
export function extentOf(paths: Paths): Paths {
  const m = pathCount(paths);
  const each = Math.max(2, Math.floor(ENOUGH / Math.max(1, m)));
  const kept: number[] = [];
  const offsets = new Uint32Array(m + 1);
  for (let p = 0; p < m; p++) {
    const [a, b] = [paths.offsets[p], paths.offsets[p + 1]];
    const count = Math.min(b - a, each);
    for (let k = 0; k < count; k++)
      kept.push(count === b - a ? a + k : a + Math.round((k * (b - a - 1)) / (count - 1)));
    offsets[p + 1] = kept.length;
  }
  const { uncut: _, ...whole } = paths;
  return { ...whole, ...pickColumns(PATHS, paths, 'point', kept), number: null, offsets };
}

/** Corners of the box round all of a form, grown or not yet; null where there is nothing. */
export function wholeBoundsOf(form: Form): ReturnType<typeof boundsOf> {
  const [there, whole] = [boundsOf(form), form.extent && boundsOf({ ...emptyForm(), paths: form.extent })];
  if (!there || !whole) return there ?? whole;
  const each = (pick: (...of: number[]) => number, a: number[], b: number[]): [number, number, number] => [
    pick(a[0], b[0]),
    pick(a[1], b[1]),
    pick(a[2], b[2]),
  ];
  return { min: each(Math.min, there.min, whole.min), max: each(Math.max, there.max, whole.max) };
}

/** Paths whose missing parts are told: those of a thicket would hide it. */
const MOST_PATHS = 120;

/** The parts of a form's whole paths that are not there, by where growth has cut them: points of three numbers, metres. */
export function pathsAhead({ extent, paths }: Form): number[][] {
  if (!extent || pathCount(extent) > MOST_PATHS) return [];
  const there = new Map<number, number>();
  for (let p = 0; p < (paths ? pathCount(paths) : 0); p++)
    if (paths!.offsets[p + 1] - paths!.offsets[p] > 1) there.set(paths!.ids[p], p);
  const found: number[][] = [];
  for (let p = 0; p < pathCount(extent); p++) {
    const own = there.get(extent.ids[p]);
    const [first, last] = own === undefined ? [0, -1] : [paths!.offsets[own], paths!.offsets[own + 1] - 1];
    const [from, to] = own === undefined ? [Infinity, -Infinity] : [paths!.u[first], paths!.u[last]];
    // A window over the seam of a closed path goes on beyond its end.
    const covers = (u: number): boolean =>
      (u >= from && u <= to) || (extent.loop[p] === 1 && (u + 1 <= to || u - 1 >= from));
    let piece: number[] = [];
    const point = (of: Paths, k: number): void => void piece.push(...of.positions.subarray(3 * k, 3 * k + 3));
    const close = (): void => {
      if (piece.length > 3) found.push(piece);
      piece = [];
    };
    for (let k = extent.offsets[p]; k < extent.offsets[p + 1]; k++) {
      if (!covers(extent.u[k])) {
        // It goes on from where what is there ends.
        if (piece.length === 0 && own !== undefined && k > extent.offsets[p]) point(paths!, last);
        point(extent, k);
        continue;
      }
      if (piece.length > 0 && own !== undefined) point(paths!, first);
      close();
    }
    close();
  }
  return found;
}
