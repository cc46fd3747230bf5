import { cutPaths } from '../../curves/cut';
import { visibleLength, withFrames } from '../../curves/pathFrames';
import { noise3 } from '../../fields/noise';
import { random } from '../../fields/random';
import { type FramedPaths, type Paths, pathCount } from '../../geometry/paths';
import { defineStep, type StepContext } from '../declare';
import { figure, metres, percent } from '../format';
import { progressOf } from '../shape/motion';

export const grow = defineStep({
  kind: 'grow',
  family: 'grow',
  label: 'Grow',
  help: 'Shows the part of each path between two shares of its length. Animate To and the path grows at an even pace; animate From and it is eaten away.',
  takes: ['paths'],
  gives: ['paths'],
  params: {
    from: {
      type: 'number',
      unit: 'share',
      label: 'From',
      help: 'Share of the length at which the visible part begins.',
      default: 0,
      min: 0,
      max: 1,
    },
    to: {
      type: 'number',
      unit: 'share',
      label: 'To',
      help: 'Share of the length at which the visible part ends.',
      default: 1,
      min: 0,
      max: 1,
    },
    begins: {
      type: 'choice',
      label: 'Begins at',
      help: 'Where growth sets out. From the middle, To spreads both ways and From plays no part then.',
      options: [
        { value: 'base', label: 'Base' },
        { value: 'tip', label: 'Tip' },
        { value: 'middle', label: 'Middle' },
      ],
      default: 'base',
    },
    stagger: {
      type: 'number',
      unit: 'count',
      label: 'Stagger',
      help: 'Frames between one path and the next.',
      default: 0,
      min: 0,
      max: 10000,
      slider: [0, 24],
    },
    order: {
      type: 'choice',
      label: 'Order',
      help: 'Which paths come first.',
      options: [
        { value: 'index', label: 'As they are' },
        { value: 'reverse', label: 'Last first' },
        { value: 'random', label: 'At random' },
        { value: 'centre', label: 'From the centre' },
      ],
      default: 'index',
      shown: (p) => p.stagger !== 0,
    },
    pace: {
      type: 'choice',
      label: 'Pace',
      help: 'Whether all paths take the same time, or all fronts move as fast as that of the longest one.',
      options: [
        { value: 'time', label: 'Equal time' },
        { value: 'speed', label: 'Equal speed' },
      ],
      default: 'time',
    },
    soft: {
      type: 'number',
      unit: 'm',
      label: 'Soft tip',
      help: 'Length behind the front over which thickness eases to nothing.',
      default: 0,
      min: 0,
      max: 1000,
      slider: [0, 1],
    },
    whole: {
      type: 'toggle',
      label: 'Whole pieces',
      help: 'The front jumps from point to point instead of sliding, as bars light up in a meter.',
      default: false,
    },
    levels: {
      type: 'number',
      unit: 'share',
      label: 'Levels',
      help: 'How far each path stays behind To, by a level of its own.',
      default: 0,
      min: 0,
      max: 1,
    },
    change: {
      type: 'number',
      unit: 'per-second',
      label: 'Level change',
      help: 'How fast levels rise and fall; 0 keeps them. The range closes exactly.',
      default: 0,
      min: 0,
      max: 100,
      slider: [0, 4],
      shown: (p) => Number(p.levels) !== 0,
    },
  },
  timed: (p) => p.stagger !== 0 || (p.levels !== 0 && p.change !== 0),
  summary(p) {
    const more = [
      p.stagger > 0 && `${figure(p.stagger)} frames apart`,
      p.soft > 0 && `soft over ${metres(p.soft)}`,
      p.whole && 'whole pieces',
    ];
    return [
      p.from > 0 ? `${percent(p.from)} to ${percent(p.to)} there now` : `${percent(p.to)} there now`,
      ...more.filter(Boolean),
    ].join(', ');
  },
  async run(form, p, context) {
    // Frames come from the whole path, so that a cut never rolls what stays.
    const paths = withFrames(form.paths!);
    await context.breathe();
    const ranks = p.stagger > 0 ? ranksOf(paths, p.order, context.seed) : null;
    const longest = p.pace === 'speed' ? paths.whole.reduce((top, length) => Math.max(top, length), 0) : 0;
    const window = (path: number): readonly [number, number] => {
      const late = ranks ? ranks[path] * p.stagger : 0;
      const at = (name: 'from' | 'to'): number => (late > 0 ? context.numberAt(name, context.frame - late) : p[name]);
      let [from, to] = [at('from'), at('to')];
      if (longest > 0 && paths.whole[path] > 0) {
        const k = longest / paths.whole[path];
        [from, to] = [Math.min(1, from * k), Math.min(1, to * k)];
      }
      if (p.levels > 0) to = from + (to - from) * (1 - p.levels * levelOf(paths.ids[path], p.change, context));
      if (p.whole) {
        const pieces = Math.max(1, paths.offsets[path + 1] - paths.offsets[path] - (paths.closed[path] ? 0 : 1));
        // A hair above, so that a share that means a whole piece is not lost to rounding.
        [from, to] = [Math.floor(from * pieces + 1e-6) / pieces, Math.floor(to * pieces + 1e-6) / pieces];
      }
      if (p.begins === 'tip') return [1 - to, 1 - from];
      return p.begins === 'middle' ? [0.5 - to / 2, 0.5 + to / 2] : [from, to];
    };
    const cut = cutPaths(paths, window);
    return { ...form, paths: p.soft > 0 ? softened(cut, p.soft, p.begins) : cut };
  },
});

/** The place of each path in the order in which they set out. */
function ranksOf(paths: FramedPaths, order: string, seed: number): Float64Array {
  const m = pathCount(paths);
  const weight = (path: number): number => {
    if (order === 'random') return random(seed, paths.ids[path], 3);
    if (order === 'reverse') return -path;
    if (order !== 'centre') return path;
    const base = 3 * paths.offsets[path];
    return Math.hypot(paths.positions[base], paths.positions[base + 2]);
  };
  const weights = Array.from({ length: m }, (_, path) => weight(path));
  const ranks = new Float64Array(m);
  [...weights.keys()].sort((a, b) => weights[a] - weights[b] || a - b).forEach((path, rank) => (ranks[path] = rank));
  return ranks;
}

/** A path's own level 0..1: fixed at random, or rising and falling in a noise that closes over the range. */
function levelOf(id: number, change: number, context: StepContext): number {
  const { seed } = context;
  if (change === 0) return random(seed, id, 4);
  const { passed, period } = progressOf(change, true, context);
  const out = new Float64Array(3);
  noise3(id * 0.37 + 0.5, 0.5, 0.5, passed + random(seed, id, 5), { detail: 2, roughness: 0.5, seed, period }, out);
  return Math.min(1, Math.max(0, 0.5 + 0.8 * out[0]));
}

/** Thickness eased to nothing (smoothstep) over a length behind each growing end. */
function softened(paths: Paths, soft: number, begins: string): Paths {
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
      const t = Math.min(1, Math.max(0, behind / soft));
      size[i] *= t * t * (3 - 2 * t);
    }
  }
  return { ...paths, size };
}
