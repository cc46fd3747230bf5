import { filled } from '../../geometry/filled';
import { FAR, NEAR, type Paths, pathCount } from '../../geometry/paths';
import { EASE_NAMES, easeAt } from '../../time/easing';
import { defineStep, type ParamsOf, type StepContext } from '../declare';
import { figure, metres, percent } from '../format';
import { ranksOf } from './order';
import { soundParams } from './soundParams';

export const grow = defineStep({
  kind: 'grow',
  family: 'grow',
  label: 'Grow',
  icon: 'M10 17V6M6.5 9.5 10 6 13.5 9.5M5 17H15M10 3H10.01',
  help: 'Shows the part of each path between two shares of its length. Animate To and the path grows at an even pace; animate From and it is eaten away.',
  takes: ['paths'],
  gives: ['paths'],
  parts: {
    'Several paths': ['stagger', 'order', 'guide', 'ease', 'pace', 'branches'],
    Tip: ['soft', 'whole'],
    'Levels and sound': [
      'levels',
      'levelsBy',
      'change',
      'levelDetail',
      'levelRoughness',
      'levelProfile',
      'sound',
      'low',
      'high',
      'attack',
      'release',
      'blend',
      'repeat',
    ],
  },
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
    travel: {
      type: 'number',
      unit: 'share',
      label: 'Travel',
      help: 'Moves the visible part along: animate it and a window travels. On closed paths it goes round and round.',
      default: 0,
      min: -1000,
      max: 1000,
      slider: [-1, 1],
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
        { value: 'guide', label: 'By distance from a guide' },
      ],
      default: 'index',
      shown: (p) => p.stagger !== 0,
    },
    guide: {
      type: 'guide',
      label: 'Guide',
      help: 'The nearer a path begins to it, the sooner it sets out.',
      default: null,
      shown: (p) => p.stagger !== 0 && p.order === 'guide',
    },
    ease: {
      type: 'choice',
      label: 'Ease each',
      help: "Easing of each path's own growth, over what the keys say.",
      options: EASE_NAMES.filter((name) => name !== 'hold').map((name) => ({
        value: name,
        label: name === 'linear' ? 'As keyed' : name.replaceAll('-', ' '),
      })),
      default: 'linear',
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
    branches: {
      type: 'choice',
      label: 'Branches',
      help: 'How the front runs through what branches: as the start says, at an even pace from the roots, so that it gets to all tips at once, one generation after another, or through each path by itself.',
      options: [
        { value: 'made', label: 'As they were made' },
        { value: 'even', label: 'At an even pace' },
        { value: 'together', label: 'Tips together' },
        { value: 'generations', label: 'By generation' },
        { value: 'each', label: 'Each by itself' },
      ],
      default: 'made',
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
      help: 'How far each path is held back by a level of its own: at 100 % it grows just to its level.',
      default: 0,
      min: 0,
      max: 1,
    },
    levelsBy: {
      type: 'choice',
      label: 'Levels by',
      help: 'What sets the levels: chance, a moving noise, a drawn profile across the paths, or a sound, one band a path.',
      options: [
        { value: 'noise', label: 'Random or noise' },
        { value: 'profile', label: 'Drawn profile' },
        { value: 'sound', label: 'Sound' },
      ],
      default: 'noise',
      shown: (p) => Number(p.levels) !== 0,
    },
    change: {
      type: 'number',
      unit: 'per-second',
      label: 'Level change',
      help: 'How fast levels rise and fall, or the profile moves on; 0 keeps them. The range closes exactly.',
      default: 0,
      min: 0,
      max: 100,
      slider: [0, 4],
      shown: (p) => Number(p.levels) !== 0 && p.levelsBy !== 'sound',
    },
    levelDetail: {
      type: 'number',
      unit: 'count',
      label: 'Detail',
      help: 'Layers of the noise in time, each twice as quick as the one before.',
      default: 2,
      min: 1,
      max: 8,
      whole: true,
      shown: (p) => Number(p.levels) !== 0 && p.levelsBy === 'noise' && Number(p.change) !== 0,
    },
    levelRoughness: {
      type: 'number',
      unit: 'share',
      label: 'Roughness',
      help: 'Strength of each quicker layer against the one before.',
      default: 0.5,
      min: 0,
      max: 1,
      shown: (p) => Number(p.levels) !== 0 && p.levelsBy === 'noise' && Number(p.change) !== 0,
    },
    levelProfile: {
      type: 'profile',
      label: 'Profile',
      help: 'Level of each path, from the first to the last.',
      min: 0,
      max: 1,
      default: [
        { at: 0, value: 0.1 },
        { at: 0.5, value: 1 },
        { at: 1, value: 0.1 },
      ],
      shown: (p) => Number(p.levels) !== 0 && p.levelsBy === 'profile',
    },
    ...soundParams,
  },
  moves: true,
  paced: 'to',
  staggered: 'stagger',
  hears: ({ levels, levelsBy, sound, repeat }) =>
    levels !== 0 && levelsBy === 'sound' && typeof sound === 'string'
      ? { file: sound, repeat: repeat !== false }
      : null,
  summary(p) {
    const more = [
      p.stagger > 0 && `${figure(p.stagger)} frames apart`,
      p.soft > 0 && `soft over ${metres(p.soft)}`,
      p.whole && 'whole pieces',
      p.levels > 0 && { noise: 'levels', profile: 'levels drawn', sound: 'levels by sound' }[p.levelsBy],
    ];
    return [
      p.from > 0 ? `${percent(p.from)} to ${percent(p.to)} there now` : `${percent(p.to)} there now`,
      ...more.filter(Boolean),
    ].join(', ');
  },
  async run(form, p, context) {
    const [{ arcLengths }, { cutPaths }, { withFrames }, { extentOf }, { softened }, { agesBehind, lengthBefore }] =
      await Promise.all([
        import('../../curves/arclength'),
        import('../../curves/cut'),
        import('../../curves/pathFrames'),
        import('../../geometry/extent'),
        import('./soft'),
        import('../../time/arrival'),
      ]);
    const { arrivalsBy, rootRanks } = await import('../../geometry/branches');
    // Frames come from the whole path, so that a cut never rolls what stays.
    let paths = withFrames(form.paths!);
    await context.breathe();
    if (paths.parent && p.branches !== 'made') paths = { ...paths, arrival: arrivalsBy(paths, p.branches) };
    const places = p.stagger > 0 && p.order === 'guide' && p.guide ? await context.places('guide') : [];
    const ranks = p.stagger > 0 ? rootRanks(paths, ranksOf(paths, p.order, context.seed, places)) : null;
    const longest = p.pace === 'speed' ? paths.whole.reduce((top, length) => Math.max(top, length), 0) : 0;
    if (p.levels > 0) paths = { ...paths, level: await levelOfEach(paths, p, context) };

    /** Where growth stands on a path, by its own time, pace and easing. */
    const reached = (name: 'from' | 'to', path: number, framesAgo = 0): number => {
      const late = (ranks ? ranks[path] * p.stagger : 0) + framesAgo;
      const raw = late > 0 ? context.numberAt(name, context.frame - late) : p[name];
      const fair = longest > 0 && paths.whole[path] > 0 ? Math.min(1, (raw * longest) / paths.whole[path]) : raw;
      return p.ease === 'linear' ? fair : Math.min(1, Math.max(0, easeAt(p.ease, fair)));
    };
    const window = (path: number): readonly [number, number] => {
      let [from, to] = [reached('from', path), reached('to', path)];
      if (paths.level && p.levels > 0) to = from + (to - from) * (1 - p.levels * (1 - paths.level[path]));
      const whole = (share: number): number => (p.whole ? wholePieces(paths, path, share) : share);
      if (!paths.arrival) [from, to] = [whole(from), whole(to)];
      if (p.begins === 'tip') [from, to] = [1 - to, 1 - from];
      if (p.begins === 'middle') [from, to] = [0.5 - to / 2, 0.5 + to / 2];
      [from, to] = travelled(from, to, p.travel, paths.closed[path] === 1 && !paths.arrival);
      if (!paths.arrival) return [from, to];
      // Where the front goes through a whole tree, it comes to each path in its turn.
      const arrivals = paths.arrival.subarray(paths.offsets[path], paths.offsets[path + 1]);
      const lengths = arcLengths(paths.positions, paths.offsets[path], paths.offsets[path + 1], false);
      return [whole(lengthBefore(arrivals, lengths, from)), whole(lengthBefore(arrivals, lengths, to))];
    };
    const windows = Array.from({ length: pathCount(paths) }, (_, path) => window(path));
    let cut = cutPaths(paths, (path) => windows[path]);
    const still = stillFronts(p, context);
    cut.fronts.set(windows.map(([from, to]) => frontsOf(from, to, still)));
    if (context.wanted('age')) {
      const most = Math.min(2000, Math.max(0, Math.ceil(context.frame - context.range[0]) + 240));
      const share = { base: (u: number) => u, tip: (u: number) => 1 - u, middle: (u: number) => Math.abs(2 * u - 1) };
      const way = share[p.begins];
      const places = cut.arrival ?? cut.u;
      const front = {
        arrival: (i: number) => way(places[i]),
        lanes: cut.offsets,
        reached: (path: number, ago: number) => reached('to', path, ago),
      };
      cut = { ...cut, age: agesBehind(front, cut.s.length, most, context.fps) };
    }
    const extent = form.extent ?? extentOf(paths);
    return { ...form, extent, paths: p.soft > 0 ? softened(cut, p.soft, p.begins) : cut };
  },
});

/** The share of a path's length at which the last whole piece before a share ends. */
function wholePieces(paths: Paths, path: number, share: number): number {
  const pieces = Math.max(1, paths.offsets[path + 1] - paths.offsets[path] - (paths.closed[path] ? 0 : 1));
  // A hair above, so that a share that means a whole piece is not lost to rounding.
  return Math.floor(share * pieces + 1e-6) / pieces;
}

/** The level of each path, by what is chosen for it. */
async function levelOfEach(paths: Paths, p: ParamsOf<typeof grow.params>, context: StepContext): Promise<Float32Array> {
  const { drawnLevels, noiseLevels, soundLevels } = await import('./levels');
  const m = pathCount(paths);
  const levels =
    p.levelsBy === 'sound'
      ? await soundLevels(
          p.sound,
          { low: p.low, high: p.high, attack: p.attack, release: p.release, smooth: p.blend, loop: p.repeat },
          m,
          context,
        )
      : p.levelsBy === 'profile'
        ? drawnLevels(p.levelProfile, p.change, context)
        : noiseLevels(p.change, p.levelDetail, p.levelRoughness, context);
  return filled(Float32Array, m, (path) => levels(paths.ids[path], path, m));
}

/** The ends that a window leaves inside the path; where it leaves none, those where fronts stand still. */
const frontsOf = (from: number, to: number, still: number): number =>
  (to < 1 ? FAR : 0) | (from > 0 ? NEAR : 0) || still;

/**
 * Where fronts stand while all of a path is there: where they have come to last; or, where none has set out yet, where the
 * first one will.
 */
function stillFronts(p: ParamsOf<typeof grow.params>, context: StepContext): number {
  const ends = { base: [FAR, NEAR], tip: [NEAR, FAR], middle: [FAR | NEAR, FAR | NEAR] }[p.begins];
  if (p.from > 0 || p.to < 1) return ends[0];
  const [first, last] = context.range;
  const at = (frame: number): number => {
    if (context.numberAt('to', frame) < 1) return ends[0];
    return context.numberAt('from', frame) > 0 ? ends[1] : 0;
  };
  for (let frame = context.frame; frame >= first; frame--) if (at(frame)) return at(frame);
  for (let frame = context.frame; frame <= last; frame++) if (at(frame)) return at(frame);
  return ends[0];
}

/** A window moved along: past an open path's ends it slides out, on a closed one it goes round. */
function travelled(from: number, to: number, by: number, closed: boolean): readonly [number, number] {
  if (by === 0) return [from, to];
  if (!closed) return [Math.max(0, from + by), Math.min(1, to + by)];
  const begin = from + by - Math.floor(from + by);
  return [begin, begin + to - from];
}
