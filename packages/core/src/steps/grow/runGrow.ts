import { arcLengths } from '../../curves/arclength';
import { cutPaths } from '../../curves/cut';
import { withFrames } from '../../curves/pathFrames';
import { arrivalsBy, rootRanks } from '../../geometry/branches';
import { extentOf } from '../../geometry/extent';
import { filled } from '../../geometry/filled';
import type { Form } from '../../geometry/form';
import { FAR, NEAR, type Paths, pathCount } from '../../geometry/paths';
import { agesBehind, lengthBefore } from '../../time/arrival';
import { easeAt } from '../../time/easing';
import type { StepContext } from '../declare';
import type { GrowParams } from './grow';
import { attributeLevels, drawnLevels, fieldLevels, noiseLevels, soundLevels } from './levels';
import { ranksOf } from './order';
import { softenTips } from './soft';

/** The part of each path that is there. */
export async function runGrow(form: Form, p: GrowParams, context: StepContext): Promise<Form> {
  // Frames come from the whole path, so that a cut never rolls what stays.
  let paths = withFrames(form.paths!);
  await context.yieldNow();
  if (paths.parent && p.branches !== 'made') paths = { ...paths, arrival: arrivalsBy(paths, p.branches) };
  const places = p.stagger > 0 && p.order === 'guide' && p.guide ? await context.places('guide') : [];
  const ranks = p.stagger > 0 ? rootRanks(paths, ranksOf(paths, p.order, context.seed, places)) : null;
  const longest = p.pace === 'speed' ? paths.whole.reduce((top, length) => Math.max(top, length), 0) : 0;
  if (p.levels > 0) paths = { ...paths, level: await levelOfEach(paths, p, context) };

  /** The frame, which is read only where it counts. */
  let now: number | null = null;
  /** Where growth stands on a path, by its own time, pace and easing. */
  const reached = (name: 'from' | 'to', path: number, framesAgo = 0): number => {
    const late = (ranks ? ranks[path] * p.stagger : 0) + framesAgo;
    const raw = late > 0 ? context.numberAt(name, (now ??= context.frame) - late) : p[name];
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
  await context.yieldNow();
  let cut = cutPaths(paths, (path) => windows[path]);
  await context.yieldNow();
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
  return { ...form, extent, paths: p.soft > 0 ? softenTips(cut, p.soft, p.begins) : cut };
}

/** The share of a path's length at which the last whole piece before a share ends. */
function wholePieces(paths: Paths, path: number, share: number): number {
  const pieces = Math.max(1, paths.offsets[path + 1] - paths.offsets[path] - (paths.closed[path] ? 0 : 1));
  // A hair above, so that a share that means a whole piece is not lost to rounding.
  return Math.floor(share * pieces + 1e-6) / pieces;
}

/** The level of each path, by what is chosen for it. */
async function levelOfEach(paths: Paths, p: GrowParams, context: StepContext): Promise<Float32Array> {
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
        : p.levelsBy === 'field'
          ? fieldLevels(paths, p.levelGrain, p.change, p.levelDetail, p.levelRoughness, context)
          : p.levelsBy === 'attribute'
            ? attributeLevels(paths, p.levelAttribute, p.levelLow, p.levelHigh)
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
function stillFronts(p: GrowParams, context: StepContext): number {
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
