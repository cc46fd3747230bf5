import { frameAtRest } from '../../curves/frameAtRest';
import type { Mesh } from '../../geometry/mesh';
import { type FramedPaths, type Paths, pathCount } from '../../geometry/paths';
import { add, scale } from '../../geometry/vec';
import { regionsOf } from '../../outline/region';
import { Problem } from '../../problem';
import { withSoftNormals } from '../../surfaces/edit/smoothNormals';
import { type LoftFrame, loftMesh } from '../../surfaces/sweep/loftMesh';
import { matchSections, type Section, sectionsOfRegions, spreadPoints } from '../../surfaces/sweep/loftSections';
import type { StepContext } from '../declare';
import { leaning } from './leaning';
import { pathsIn } from '../start/others';
import type { LoftParams } from './loft';
import { planeContours } from './sweepProfiles';

/** A skin through the paths in their order; null where there are not two sections. */
export async function runLoft(paths: Paths, p: LoftParams, context: StepContext): Promise<Mesh | null> {
  const course =
    p.course === null
      ? null
      : // Across a path that stands upright is level.
        await leaning(await pathsIn(context, 'course', p.course), p.lean === 'upright' ? 'level' : 'path', () =>
          context.yieldNow(),
        );
  const roll = (p.roll * Math.PI) / 180;
  const sections = course ? sectionsAlong(paths, p.points) : sectionsInPlace(paths, p);
  if (sections.length < 2) return null;
  // What has grown of the course has a skin.
  const shown = course ? shownOf(course) : [0, 1];
  const mesh = await loftMesh(
    sections,
    {
      rows: p.rows,
      smooth: p.shape === 'smooth',
      loop: p.loop,
      caps: p.caps,
      from: Math.max(p.from, shown[0]),
      to: Math.min(p.to, shown[1]),
      frameAt: course ? (share) => frameOn(course, share, roll) : undefined,
    },
    {
      claim: (vertices, faces) => {
        context.claim('points', vertices, 'Points or Rows');
        context.claim('faces', faces, 'Points or Rows');
      },
      yieldNow: () => context.yieldNow(),
    },
  );
  return withSoftNormals(mesh, (p.crease * Math.PI) / 180, () => context.yieldNow());
}

/** Each path as a section where it is. */
function sectionsInPlace(paths: Paths, p: LoftParams): Section[] {
  const sections: Section[] = [];
  for (let path = 0; path < pathCount(paths); path++) {
    const [a, b] = [paths.offsets[path], paths.offsets[path + 1]];
    const closed = paths.closed[path] === 1;
    if (b - a < (closed ? 3 : 2)) continue;
    if (sections.length > 0 && sections[0][0].closed !== closed)
      throw new Problem(
        'Some of the paths are open, and some are closed.',
        'Open or close them all; a skin spans only what is alike.',
      );
    const positions = spreadPoints(Float64Array.from(paths.positions.subarray(3 * a, 3 * b)), p.points, closed);
    sections.push([{ positions, closed, shrunk: false }]);
  }
  return p.match === 'nearest' ? matchSections(sections, true) : sections;
}

/** Closed paths with their holes, each about the middle of its own box. */
function sectionsAlong(paths: Paths, points: number): Section[] {
  const regions = regionsOf(planeContours(paths)).map(({ outer, holes }) => {
    const xs = outer.filter((_, i) => i % 2 === 0);
    const ys = outer.filter((_, i) => i % 2 === 1);
    const middle = [(Math.min(...xs) + Math.max(...xs)) / 2, (Math.min(...ys) + Math.max(...ys)) / 2];
    const centred = (flat: readonly number[]): number[] => flat.map((value, i) => value - middle[i % 2]);
    return { outer: centred(outer), holes: holes.map(centred) };
  });
  return regions.length < 2 ? [] : sectionsOfRegions(regions, points);
}

/** Rest coordinates of the first path between which it is there. */
function shownOf({ u, offsets, closed }: Paths): [number, number] {
  const last = offsets[1] - 1;
  return [u[offsets[0]], closed[0] === 1 ? 1 : u[last]];
}

/** The frame of the first path at a rest coordinate: x along its normal, y beside it, so that a section faces along the path. */
function frameOn(course: FramedPaths, share: number, roll: number): LoftFrame {
  const { position, normal, across } = frameAtRest(course, 0, share);
  const [c, s] = [Math.cos(roll), Math.sin(roll)];
  return {
    origin: position,
    x: add(scale(normal, c), scale(across, s)),
    y: add(scale(across, c), scale(normal, -s)),
  };
}
