import { arcLengths, totalLength } from '../../curves/arclength';
import { resample } from '../../curves/resample';
import { add, at, distance, dot, scale, sub, type Vec3, unit } from '../../geometry/vec';
import { doubleArea, inside, type Region } from '../../outline/region';
import { fillOutline } from './fillOutline';

/** A contour of a section: as many points as the same contour has in every other section. */
export interface Contour {
  /** 3n, metres. */
  positions: Float64Array;
  closed: boolean;
  /** All points in one place: a hole that other sections have, and this one does not. */
  shrunk: boolean;
}

/** A cross-section of a lofted skin: its outer contour, then its holes. */
export type Section = readonly Contour[];

/** Corners that turn by more are kept when points are spread anew, radians. */
const CORNER = Math.PI / 6;

/**
 * A contour's points spread evenly, with the nearest of them moved onto each sharp corner, so that corners stay corners.
 * @param positions 3n, metres
 */
export function spreadPoints(positions: Float64Array, count: number, closed: boolean): Float64Array {
  const out = resample(positions, count, closed);
  const n = positions.length / 3;
  const table = arcLengths(positions, 0, n, closed);
  const step = totalLength(table) / (closed ? count : count - 1);
  if (!(step > 0)) return out;
  const taken = new Map<number, number>();
  for (let i = closed ? 0 : 1; i < (closed ? n : n - 1); i++) {
    const here = at(positions, i);
    const before = unit(sub(here, at(positions, (i + n - 1) % n)), [0, 0, 0]);
    const after = unit(sub(at(positions, (i + 1) % n), here), [0, 0, 0]);
    const turn = Math.acos(Math.max(-1, Math.min(1, dot(before, after))));
    if (!(turn > CORNER)) continue;
    const k = Math.round(table[i] / step) % count;
    // The ends of an open contour stay; of two corners at one point, the sharper one counts.
    if ((!closed && (k === 0 || k === count - 1)) || (taken.get(k) ?? 0) >= turn) continue;
    taken.set(k, turn);
    out.set(here, 3 * k);
  }
  return out;
}

/**
 * Turns the points of a contour so that they lie nearest to those of the one before: where they begin, and which way round they run.
 * Both are compared about their own middles, at the same size.
 * @param flip whether it may run the other way
 */
export function matchContour(
  contour: Float64Array,
  before: Float64Array,
  closed: boolean,
  flip: boolean,
): Float64Array {
  const n = contour.length / 3;
  const [a, b] = [centred(before), centred(contour)];
  let best = { sum: Infinity, shift: 0, back: false };
  for (const back of flip ? [false, true] : [false])
    for (let shift = 0; shift < (closed ? n : 1); shift++) {
      let sum = 0;
      for (let i = 0; i < n && sum < best.sum; i++) {
        const j = 3 * ((back ? n - 1 - i + shift : i + shift) % n);
        sum += (a[3 * i] - b[j]) ** 2 + (a[3 * i + 1] - b[j + 1]) ** 2 + (a[3 * i + 2] - b[j + 2]) ** 2;
      }
      if (sum < best.sum) best = { sum, shift, back };
    }
  const out = new Float64Array(3 * n);
  for (let i = 0; i < n; i++) out.set(at(contour, (best.back ? n - 1 - i + best.shift : i + best.shift) % n), 3 * i);
  return out;
}

const middleOfPoints = (positions: Float64Array): Vec3 => {
  let sum: Vec3 = [0, 0, 0];
  const n = positions.length / 3;
  for (let i = 0; i < n; i++) sum = add(sum, at(positions, i));
  return scale(sum, 1 / n);
};

function centred(positions: Float64Array): Float64Array {
  const middle = middleOfPoints(positions);
  let size = 0;
  for (let i = 0; i < positions.length / 3; i++) size = Math.max(size, distance(at(positions, i), middle));
  return positions.map((value, i) => (value - middle[i % 3]) / (size || 1));
}

/**
 * Regions with holes as sections of the same contours. Each hole is one all along: the section with the most holes has them all, and
 * every other section's go to the nearest of those. A hole that a section has not is shrunk to a point inside it.
 * @param count points of each contour
 */
export function sectionsOfRegions(regions: readonly Region[], count: number): Section[] {
  const most = regions.reduce((best, region) => (region.holes.length > best.holes.length ? region : best));
  const middles = most.holes.map(flatMiddle);
  const sections = regions.map((region): Section => {
    const free = region.holes.map((hole) => ({ hole, middle: flatMiddle(hole) }));
    const holes = middles.map((middle): Contour => {
      const nearest = free.reduce<(typeof free)[number] | null>(
        (best, entry) =>
          !best || flatDistance(entry.middle, middle) < flatDistance(best.middle, middle) ? entry : best,
        null,
      );
      if (!nearest) return pointContour(placeInside(region, middle), count);
      free.splice(free.indexOf(nearest), 1);
      return contourOf(nearest.hole, count);
    });
    return [contourOf(region.outer, count), ...holes];
  });
  return matchSections(sections, false);
}

/** Every contour turned to lie nearest to the same one of the section before. */
export function matchSections(sections: readonly Section[], flip: boolean): Section[] {
  const last: (Float64Array | undefined)[] = [];
  return sections.map((section) =>
    section.map((contour, k) => {
      if (contour.shrunk) return contour;
      const before = last[k];
      const positions = before ? matchContour(contour.positions, before, contour.closed, flip) : contour.positions;
      last[k] = positions;
      return { ...contour, positions };
    }),
  );
}

const contourOf = (flat: readonly number[], count: number): Contour => ({
  positions: spreadPoints(
    Float64Array.from({ length: (3 * flat.length) / 2 }, (_, i) =>
      i % 3 === 2 ? 0 : flat[2 * Math.floor(i / 3) + (i % 3)],
    ),
    count,
    true,
  ),
  closed: true,
  shrunk: false,
});

const pointContour = ([x, y]: readonly [number, number], count: number): Contour => ({
  positions: Float64Array.from({ length: 3 * count }, (_, i) => [x, y, 0][i % 3]),
  closed: true,
  shrunk: true,
});

function flatMiddle(flat: readonly number[]): [number, number] {
  let [x, y] = [0, 0];
  for (let i = 0; i < flat.length; i += 2) {
    x += flat[i];
    y += flat[i + 1];
  }
  return [(2 * x) / flat.length, (2 * y) / flat.length];
}

const flatDistance = (a: readonly [number, number], b: readonly [number, number]): number =>
  Math.hypot(a[0] - b[0], a[1] - b[1]);

/** A place inside a region: the one asked for, or the middle of the nearest of its larger triangles. */
function placeInside(region: Region, asked: readonly [number, number]): readonly [number, number] {
  const within = inside(region.outer, ...asked) && !region.holes.some((hole) => inside(hole, ...asked));
  if (within) return asked;
  const flat = [region.outer, ...region.holes].flat();
  const corners = fillOutline([region.outer, ...region.holes]);
  const triangles: { middle: [number, number]; area: number }[] = [];
  for (let t = 0; t < corners.length; t += 3) {
    const triangle = corners.slice(t, t + 3).flatMap((i) => [flat[2 * i], flat[2 * i + 1]]);
    triangles.push({ middle: flatMiddle(triangle), area: doubleArea(triangle) });
  }
  const largest = Math.max(...triangles.map(({ area }) => area));
  const large = triangles.filter(({ area }) => area > 0.1 * largest);
  return large.reduce((best, entry) =>
    flatDistance(entry.middle, asked) < flatDistance(best.middle, asked) ? entry : best,
  ).middle;
}
