import { random } from '../../fields/random';
import { smoothstep } from '../../fields/smoothstep';
import { pathCount } from '../../geometry/paths';
import type { Vec3 } from '../../geometry/vec';
import { defineStep } from '../declare';
import { metres } from '../../format';
import { progressOf } from './motion';

export const feel = defineStep({
  kind: 'feel',
  family: 'shape',
  label: 'Feeling tips',
  icon: 'M3 17C6 16 8 13 9 10 10 7 12 5 14 6 16 7 15.5 9.5 13.5 9M14 3C16.5 3 18.5 5 18 8',
  help: 'The growing ends reach out from their course and circle, as tendrils look for a hold; what has grown on comes back to it.',
  takes: ['paths'],
  gives: ['paths'],
  params: {
    length: {
      type: 'number',
      unit: 'm',
      label: 'Length',
      help: 'How much of the path behind its end is free.',
      default: 0.3,
      min: 0.0001,
      max: 1000,
      slider: [0.02, 1.5],
      varies: 'path',
    },
    reach: {
      type: 'number',
      unit: 'm',
      label: 'Reach',
      help: 'How far the end itself is from its course.',
      default: 0.1,
      min: 0,
      max: 1000,
      slider: [0, 0.6],
      varies: 'path',
    },
    speed: {
      type: 'number',
      unit: 'hz',
      label: 'Circles',
      help: 'How often it goes round in a second.',
      default: 0.5,
      min: -50,
      max: 50,
      slider: [-2, 2],
    },
    loop: {
      type: 'toggle',
      label: 'Loop',
      help: 'Fits the circling into the range, so that it can be played in a loop.',
      default: true,
    },
  },
  moves: true,
  summary: (p) => `the last ${metres(p.length)}`,
  async run(form, p, context) {
    const { withFrames } = await import('../../curves/pathFrames');
    const { eachPathPoint } = await import('./eachPoint');
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
  },
});
