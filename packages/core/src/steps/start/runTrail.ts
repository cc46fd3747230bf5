import { catmullRom } from '../../curves/catmullRom';
import { tipsOf } from '../../curves/tips';
import type { Form } from '../../geometry/form';
import { type Paths, type PathSource, pathsFrom } from '../../geometry/paths';
import type { StepContext } from '../declare';
import type { TrailParams } from './trail';

/** What draws at one frame: a number of each, and where it is. */
interface Drawers {
  ids: ArrayLike<number>;
  /** 3n, metres. */
  positions: ArrayLike<number>;
}

/** Numbers of paths stay below this, so that those of several starts can follow one another. */
const MOST_IDS = 1 << 24;

/** Where things were, as paths from their oldest place to where they are now; null where nothing draws. */
export async function runTrail(form: Form, p: TrailParams, context: StepContext): Promise<Paths | null> {
  // Its own input goes by the frames of its growth, another growth by those of the scene.
  const now = p.growth === null ? context.frame : context.sceneFrame;
  const formAt = (frame: number): Promise<Form> => {
    if (frame === now) return p.growth === null ? Promise.resolve(form) : context.other('growth');
    return p.growth === null ? context.inputAt(frame) : context.otherAt('growth', frame);
  };
  const here = drawersOf(await formAt(now), p.of);
  if (!here) return null;
  const begin = context.range[0] - (p.growth === null ? context.sceneFrame - context.frame : 0);
  const frames = framesBetween(p.over === 'last' ? now - p.frames : begin, now, p.every);
  context.claim('points', here.ids.length * frames.length * p.smooth, 'Length, or raise Every');
  const places = new Map<number, { at: number[]; frames: number[] }>();
  for (const frame of frames) {
    await context.yieldNow();
    const drawers = frame === now ? here : drawersOf(await formAt(frame), p.of);
    // Corners and points of paths go by their place in the list: where there are others, these are other things.
    if (!drawers || (isListed(p.of) && drawers.ids.length !== here.ids.length)) continue;
    for (let k = 0; k < drawers.ids.length; k++) {
      const id = drawers.ids[k];
      const own = places.get(id) ?? { at: [], frames: [] };
      places.set(id, own);
      own.at.push(drawers.positions[3 * k], drawers.positions[3 * k + 1], drawers.positions[3 * k + 2]);
      own.frames.push(frame);
    }
  }
  const sources: PathSource[] = [];
  const ages: number[] = [];
  for (const [id, own] of [...places].sort(([a], [b]) => a - b)) {
    await context.yieldNow();
    if (own.frames.length < 2) continue;
    sources.push({ id: id % MOST_IDS, positions: catmullRom(own.at, p.smooth, false) });
    for (let k = 0; k + 1 < own.frames.length; k++)
      for (let j = 0; j < p.smooth; j++)
        ages.push((now - own.frames[k] - ((own.frames[k + 1] - own.frames[k]) * j) / p.smooth) / context.fps);
    ages.push((now - own.frames.at(-1)!) / context.fps);
  }
  const paths = pathsFrom(sources);
  return { ...paths, age: Float32Array.from(ages) };
}

const isListed = (of: string): boolean => of === 'nodes' || of === 'vertices';

/** Frames that are looked at: the ends, and whole steps between, which are the same ones at every frame. */
function framesBetween(first: number, last: number, every: number): number[] {
  const frames: number[] = [];
  if (first < last) frames.push(first);
  for (let k = Math.floor(first / every) + 1; k * every < last - 1e-6; k++)
    if (k * every > first + 1e-6) frames.push(k * every);
  return [...frames, last];
}

const counted = (positions: Float32Array): Drawers => ({
  ids: Uint32Array.from({ length: positions.length / 3 }, (_, i) => i),
  positions,
});

/** What draws; null where there is nothing of that kind. */
function drawersOf({ paths, mesh, points, copies, seats }: Form, of: string): Drawers | null {
  switch (of) {
    case 'tips': {
      const tips = paths ? tipsOf(paths) : [];
      // A path that grows at both ends has two.
      const seen = new Set<number>();
      const ids = tips.map(({ id }) => (seen.has(id) ? 2 * id + 1 : (seen.add(id), 2 * id)));
      return tips.length > 0 ? { ids, positions: tips.flatMap(({ position }) => position) } : null;
    }
    case 'copies':
      return copies ?? seats;
    case 'points':
      return points;
    case 'nodes':
      return paths && counted(paths.positions);
    default:
      return mesh && counted(mesh.positions);
  }
}
