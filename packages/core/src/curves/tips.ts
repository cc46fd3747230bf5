import { FAR, NEAR, type Paths, pathCount } from '../geometry/paths';
import { at, scale, type Vec3 } from '../geometry/vec';
import { withFrames } from './pathFrames';

/** The growing end of one path. */
export interface Tip {
  /** The path's stable number. */
  id: number;
  /** Its place among the paths. */
  path: number;
  /** The point that it stands at. */
  point: number;
  /** Metres. */
  position: Vec3;
  /** Unit vector along the path, away from it. */
  tangent: Vec3;
  /** Unit vector square to the tangent, carried without twist. */
  normal: Vec3;
  /** Thickness factor there. */
  size: number;
}

/** The growing ends of all open paths of which something has grown. */
export function tipsOf(input: Paths): Tip[] {
  const paths = withFrames(input);
  const tips: Tip[] = [];
  for (let path = 0; path < pathCount(paths); path++) {
    const [first, last] = [paths.offsets[path], paths.offsets[path + 1] - 1];
    if (paths.closed[path] || last - first < 1) continue;
    const add = (point: number, way: number): void => {
      tips.push({
        id: paths.ids[path],
        path,
        point,
        position: at(paths.positions, point),
        tangent: scale(at(paths.tangents, point), way),
        normal: at(paths.normals, point),
        size: paths.size[point],
      });
    };
    if (paths.fronts[path] & FAR) add(last, 1);
    if (paths.fronts[path] & NEAR) add(first, -1);
  }
  return tips;
}
