import { movedPaths } from '../../curves/pathFrames';
import { pathCount } from '../../geometry/paths';
import { rejoin } from '../../geometry/tree';
import { defineStep } from '../declare';
import { counted } from '../format';

export const smooth = defineStep({
  kind: 'smooth',
  family: 'shape',
  label: 'Smooth',
  icon: 'M3 14C6 4 8 14 11 9.5S15 6 17 7',
  help: 'Evens out kinks by moving each point towards its neighbours; ends stay where they are.',
  takes: ['paths'],
  gives: ['paths'],
  params: {
    rounds: {
      type: 'number',
      unit: 'count',
      label: 'Rounds',
      help: 'How often it is done; more points need more rounds.',
      default: 8,
      min: 0,
      max: 1000,
      slider: [0, 100],
      whole: true,
    },
  },
  summary: (p) => counted(p.rounds, 'round'),
  async run(form, p, context) {
    const paths = form.paths!;
    let positions = paths.positions;
    for (let round = 0; round < p.rounds; round++) {
      await context.breathe();
      const next = new Float32Array(positions);
      for (let path = 0; path < pathCount(paths); path++) {
        if (path % 512 === 511) await context.breathe();
        const [a, b] = [paths.offsets[path], paths.offsets[path + 1]];
        const closed = paths.closed[path] === 1;
        for (let i = closed ? a : a + 1; i < (closed ? b : b - 1); i++) {
          const [before, after] = [i > a ? i - 1 : b - 1, i < b - 1 ? i + 1 : a];
          for (let c = 0; c < 3; c++)
            next[3 * i + c] = (positions[3 * before + c] + 2 * positions[3 * i + c] + positions[3 * after + c]) / 4;
        }
      }
      positions = next;
    }
    if (positions === paths.positions) return form;
    rejoin(paths, positions);
    return { ...form, paths: await movedPaths(paths, positions, () => context.breathe()) };
  },
});
