import { withFrames } from '../../curves/pathFrames';
import { random } from '../../fields/random';
import { smoothstep } from '../../fields/smoothstep';
import type { Form } from '../../geometry/form';
import { pathCount } from '../../geometry/paths';
import type { Vec3 } from '../../geometry/vec';
import type { StepContext } from '../declare';
import { eachPathPoint } from './eachPoint';
import type { FeelParams } from './feel';
import { progressOf } from './motion';

/** Paths whose growing ends reach out and circle. */
export async function runFeel(form: Form, p: FeelParams, context: StepContext): Promise<Form> {
  const paths = withFrames(form.paths!);
  const { passed } = progressOf(p.speed, p.loop, context);
  const [length, reach] = [context.varied('length'), context.varied('reach')];
  const { seed } = context;
  const { s, offsets, tangents, normals } = paths;
  const ends = new Map<number, readonly [first: number, last: number]>();
  for (let path = 0; path < pathCount(paths); path++) ends.set(path, [offsets[path], offsets[path + 1] - 1]);
  return eachPathPoint({ ...form, paths }, context, (place, i, element): Vec3 => {
    const [first, last] = ends.get(element.index)!;
    const free = Math.max(1e-9, length(element));
    const behind = s[last] - s[i];
    if (behind >= free) return place;
    // What has only just set out has nothing yet to reach out with.
    const begun = smoothstep((s[last] - s[first]) / free);
    const k = reach(element) * begun * (1 - behind / free) ** 2;
    const turn = 2 * Math.PI * (passed + random(seed, element.id, 3));
    const [c, d] = [k * Math.cos(turn), k * Math.sin(turn)];
    const [tx, ty, tz] = tangents.subarray(3 * last, 3 * last + 3);
    const [nx, ny, nz] = normals.subarray(3 * last, 3 * last + 3);
    const [bx, by, bz] = [ty * nz - tz * ny, tz * nx - tx * nz, tx * ny - ty * nx];
    return [place[0] + c * nx + d * bx, place[1] + c * ny + d * by, place[2] + c * nz + d * bz];
  });
}
