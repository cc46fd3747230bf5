import { smoothstep } from '../../fields/smoothstep';
import { visibleLength } from '../../curves/pathFrames';
import { type Paths, pathCount } from '../../geometry/paths';

/** Thickness eased to nothing (smoothstep) over a length behind each growing end. */
export function softenTips(paths: Paths, soft: number, begins: string): Paths {
  const size = new Float32Array(paths.size);
  const { positions, offsets } = paths;
  for (let path = 0; path < pathCount(paths); path++) {
    if (paths.closed[path]) continue;
    const length = visibleLength(paths, path);
    let s = 0;
    for (let i = offsets[path]; i < offsets[path + 1]; i++) {
      if (i > offsets[path]) {
        s += Math.hypot(
          positions[3 * i] - positions[3 * i - 3],
          positions[3 * i + 1] - positions[3 * i - 2],
          positions[3 * i + 2] - positions[3 * i - 1],
        );
      }
      const behind = begins === 'base' ? length - s : begins === 'tip' ? s : Math.min(s, length - s);
      size[i] *= smoothstep(behind / soft);
    }
  }
  return { ...paths, size };
}
