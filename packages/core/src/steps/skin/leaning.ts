import { withFrames } from '../../curves/pathFrames';
import type { FramedPaths, Paths } from '../../geometry/paths';
import { at, byAxis, cross, dot, unit, type Vec3 } from '../../geometry/vec';

/** So many points between two yields. */
const CHUNK = 8192;

/** Frames whose first normal, across the ribbon, lies level or stands up; as they are where a path runs straight up. */
export async function leaning(paths: Paths, lean: string, yieldNow: () => Promise<void>): Promise<FramedPaths> {
  const framed = withFrames(paths);
  if (lean === 'path') return framed;
  const normals = new Float32Array(framed.normals);
  for (let i = 0; i < normals.length / 3; i++) {
    if (i % CHUNK === 0) await yieldNow();
    const tangent = at(framed.tangents, i);
    const carried = at(framed.normals, i);
    const level = cross([0, 1, 0], tangent);
    // Near the vertical, level is no direction: the carried frame takes over smoothly.
    const sure = Math.min(1, Math.hypot(...level) / 0.2);
    const across = unit(level, carried);
    const wanted = lean === 'level' ? across : cross(tangent, across);
    const side = dot(wanted, carried) < 0 && sure < 1 ? -1 : 1;
    const mixed: Vec3 = byAxis((c) => wanted[c] * sure + side * carried[c] * (1 - sure));
    const along = dot(mixed, tangent);
    normals.set(
      unit([mixed[0] - along * tangent[0], mixed[1] - along * tangent[1], mixed[2] - along * tangent[2]], carried),
      3 * i,
    );
  }
  return { ...framed, normals };
}
