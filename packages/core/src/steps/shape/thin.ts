import { squaredFrames } from '../../curves/pathFrames';
import { simplify } from '../../curves/simplify';
import { pickedInTime } from '../../geometry/carrier';
import { PATHS, type Paths, pathCount, uncut } from '../../geometry/paths';
import { rejoin } from '../../geometry/tree';
import { defineStep, type StepContext } from '../declare';
import { metres } from '../format';

export const thin = defineStep({
  kind: 'thin',
  family: 'shape',
  label: 'Simplify',
  icon: 'M3 14 8 6 12 12 17 5M3 14H3.01M8 6H8.01M12 12H12.01M17 5H17.01',
  help: 'Leaves out points that the course can do without; those that stay do not move.',
  takes: ['paths'],
  gives: ['paths'],
  params: {
    within: {
      type: 'number',
      unit: 'm',
      label: 'Within',
      help: 'How far the simpler course may be from the old one.',
      default: 0.01,
      min: 0,
      max: 1000,
      slider: [0, 0.2],
    },
  },
  summary: (p) => `within ${metres(p.within)}`,
  async run(form, p, context) {
    const old = form.paths!;
    const kept: number[][] = [];
    for (let path = 0; path < pathCount(old); path++) {
      await context.breathe();
      const [a, b] = [old.offsets[path], old.offsets[path + 1]];
      const points = Array.from(old.positions.subarray(3 * a, 3 * b));
      // A closed path keeps its first point, and the one furthest from it, so that it stays a loop.
      if (old.closed[path] && b - a > 3) points.push(...points.slice(0, 3));
      const indices = simplify(points, p.within).filter((i) => i < b - a);
      kept.push(
        (old.closed[path] && indices.length < 3 ? [0, 1, 2].map((k) => Math.floor((k * (b - a)) / 3)) : indices).map(
          (i) => a + i,
        ),
      );
    }
    return { ...form, paths: await only(old, kept, context) };
  },
});

/** The paths with only the points given, by number, for each. */
async function only(old: Paths, kept: readonly number[][], context: StepContext): Promise<Paths> {
  const offsets = new Uint32Array(kept.length + 1);
  kept.forEach((points, path) => (offsets[path + 1] = offsets[path] + points.length));
  const sources = new Uint32Array(offsets[kept.length]);
  kept.forEach((points, path) => sources.set(points, offsets[path]));
  const breathe = (): Promise<void> => context.breathe();
  const points = await pickedInTime(PATHS, old, 'point', sources, breathe);
  const paths: Paths = { ...uncut(old), ...points, number: null, offsets };
  await breathe();
  rejoin(paths, paths.positions);
  return squaredFrames(paths, breathe);
}
