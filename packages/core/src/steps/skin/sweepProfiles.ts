import { roundCorners } from '../../curves/roundCorners';
import { type Paths, pathCount } from '../../geometry/paths';
import { profileCurve, type ProfilePoint } from '../../geometry/profile';
import { at, cross, dot, unit, type Vec3 } from '../../geometry/vec';
import { readFont, textContours } from '../../outline/font';
import { type Region, regionsOf } from '../../outline/region';
import { svgContours } from '../../outline/svg';
import { Problem } from '../../problem';
import {
  archCorners,
  bandCorners,
  crossCorners,
  fitProfile,
  polygonCorners,
  roundCornersOf,
  starCorners,
} from '../../surfaces/sweep/sweepProfile';
import type { StepContext } from '../declare';

/** What a profile is made from; see the sweep's parameters. */
export interface ProfileChoice {
  profile: string;
  corners: number;
  inner: number;
  broad: number;
  rounding: number;
  letter: string;
  font: string | null;
  drawing: string | null;
  outline: readonly ProfilePoint[];
  growth: string | null;
}

const ROUNDING_STEPS = 6;

/** The contours to be swept, in units of the radius. */
export async function regionsOfChoice(p: ProfileChoice, context: StepContext): Promise<Region[]> {
  switch (p.profile) {
    case 'letter': {
      if (p.font === null)
        throw new Problem('No font is chosen.', 'Load a font, or take the one that comes with Uvrex.');
      const contours = textContours(await readFont(await context.file(p.font)), p.letter, 0);
      return fitProfile(regionsOf(contours.map(({ points }) => points)));
    }
    case 'svg': {
      if (p.drawing === null) throw new Problem('No SVG file is chosen.', 'Load one.');
      const closed = (await svgContours(await context.file(p.drawing))).filter((contour) => contour.closed);
      return fitProfile(
        someRegions(
          closed.map(({ points }) => points),
          'The SVG file has no closed path.',
        ),
      );
    }
    case 'growth': {
      if (p.growth === null) throw new Problem('No growth is chosen.', 'Choose one with a closed path.');
      return fitProfile(
        someRegions(planeContours((await context.other('growth')).paths), 'The chosen growth has no closed path.'),
      );
    }
    case 'drawn':
      return [{ outer: roundCornersOf(roundTheAngle(p.outline), 96).flat(), holes: [] }];
    default: {
      const corners = cornersOf(p);
      const flat = corners.flatMap(([x, y]) => [x, y, 0]);
      const rounded = roundCorners(flat, p.rounding, ROUNDING_STEPS, true);
      return [{ outer: [...rounded].filter((_, i) => i % 3 !== 2), holes: [] }];
    }
  }
}

function cornersOf(p: ProfileChoice): [number, number][] {
  switch (p.profile) {
    case 'circle':
      return polygonCorners(48);
    case 'polygon':
      return polygonCorners(p.corners);
    case 'star':
      return starCorners(p.corners, p.inner);
    case 'cross':
      return crossCorners(p.broad);
    case 'arch':
      return archCorners(p.broad, 24);
    default:
      return bandCorners(p.broad);
  }
}

function someRegions(contours: number[][], otherwise: string): Region[] {
  const regions = regionsOf(contours);
  if (regions.length === 0) throw new Problem(otherwise, 'Choose another, or close the path.');
  return regions;
}

/** A profile over the angle, carried on smoothly over the full turn. */
function roundTheAngle(points: readonly ProfilePoint[]): (share: number) => number {
  const thrice = [-1, 0, 1].flatMap((turn) => points.map(({ at: place, value }) => ({ at: place + turn, value })));
  // Points on both ends would stand in one place: the first counts.
  const placed = new Map(thrice.map((point) => [Math.round(point.at * 1e6), point]));
  return profileCurve([...placed.values()]);
}

/** The closed paths of a growth, laid flat in the plane that they lie in, all in one. */
export function planeContours(paths: Paths | null): number[][] {
  if (!paths) return [];
  const closed = Array.from({ length: pathCount(paths) }, (_, p) => p).filter(
    (p) => paths.closed[p] === 1 && paths.offsets[p + 1] - paths.offsets[p] > 2,
  );
  if (closed.length === 0) return [];
  const [right, up] = planeOf(paths, closed[0]);
  return closed.map((p) =>
    Array.from({ length: paths.offsets[p + 1] - paths.offsets[p] }, (_, k) =>
      at(paths.positions, paths.offsets[p] + k),
    ).flatMap((point) => [dot(point, right), dot(point, up)]),
  );
}

/** Right and up in the plane of a closed path: its normal after Newell; up is the world's where the plane stands. */
function planeOf(paths: Paths, p: number): [Vec3, Vec3] {
  const [a, b] = [paths.offsets[p], paths.offsets[p + 1]];
  let normal: Vec3 = [0, 0, 0];
  for (let i = a; i < b; i++) {
    const [x, y, z] = at(paths.positions, i);
    const [u, v, w] = at(paths.positions, i + 1 < b ? i + 1 : a);
    normal = [normal[0] + (y - v) * (z + w), normal[1] + (z - w) * (x + u), normal[2] + (x - u) * (y + v)];
  }
  let facing = unit(normal, [0, 0, 1]);
  // Seen from the front or from above, whichever way it was drawn.
  if (facing[2] < -1e-6 || (Math.abs(facing[2]) <= 1e-6 && facing[1] < 0))
    facing = [-facing[0], -facing[1], -facing[2]];
  const world: Vec3 = Math.abs(facing[1]) > 0.9 ? [0, 0, -1] : [0, 1, 0];
  const right = unit(cross(world, facing), [1, 0, 0]);
  return [right, cross(facing, right)];
}
