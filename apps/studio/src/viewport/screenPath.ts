import type { Vec3 } from '@uvrex/core';
import { toScreen } from '../state/director/projection';

/** A line in space as the path of an SVG; what lies behind the camera is left out. */
export function pathOnScreen(line: Iterable<Vec3>, projection: Parameters<typeof toScreen>[1]): string {
  let pen = 'M';
  let path = '';
  for (const place of line) {
    const dot = toScreen(place, projection);
    if (dot) path += `${pen}${dot.x.toFixed(1)} ${dot.y.toFixed(1)}`;
    pen = dot ? 'L' : 'M';
  }
  return path;
}
