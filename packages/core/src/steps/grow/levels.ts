import { noise3 } from '../../fields/noise';
import { random } from '../../fields/random';
import { unwritten } from '../../geometry/meshAttributes';
import { pointValues } from '../../geometry/pathAttributes';
import type { Paths } from '../../geometry/paths';
import { at } from '../../geometry/vec';
import { profileCurve, type ProfilePoint } from '../../geometry/profile';
import { Problem } from '../../problem';
import { type Bands, bandsOf, type BandShape } from '../../sound/bands';
import { readWav, type Sound } from '../../sound/wav';
import type { StepContext } from '../declare';
import { progressOf } from '../shape/motion';

/** The level 0..1 of a path, by its stable number and its place among `count`. */
export type Levels = (id: number, index: number, count: number) => number;

/** Levels fixed at random, or rising and falling in a noise that closes over the range. */
export function noiseLevels(change: number, detail: number, roughness: number, context: StepContext): Levels {
  const { seed } = context;
  if (change === 0) return (id) => random(seed, id, 4);
  const { passed, period } = progressOf(change, true, context);
  const out = new Float64Array(1);
  const shape = { detail, roughness, seed, period };
  return (id) => {
    noise3(id * 0.37 + 0.5, 0.5, 0.5, passed + random(seed, id, 5), shape, out);
    return Math.min(1, Math.max(0, 0.5 + 0.8 * out[0]));
  };
}

/**
 * Levels by a noise in space, at the place where each path begins: neighbours rise and fall together. It closes over the range.
 * @param grain size of the noise, metres
 */
export function fieldLevels(
  paths: Paths,
  grain: number,
  change: number,
  detail: number,
  roughness: number,
  context: StepContext,
): Levels {
  const { passed, period } = progressOf(change, true, context);
  const shape = { detail, roughness, seed: context.seed, period };
  const out = new Float64Array(1);
  return (_, path) => {
    const [x, y, z] = at(paths.positions, paths.offsets[path]);
    noise3(x / grain, y / grain, z / grain, passed, shape, out);
    return Math.min(1, Math.max(0, 0.5 + 0.8 * out[0]));
  };
}

/**
 * Levels by an attribute of the paths, or of the points where they begin.
 * @param low value at which the level is 0; at `high` it is 1
 */
export function attributeLevels(paths: Paths, name: string, low: number, high: number): Levels {
  const own = paths.named[name]?.domain === 'path' ? paths.named[name].values : null;
  const values = own ?? pointValues(paths, name);
  if (!values) throw unwritten(name);
  return (_, path) => {
    const value = values[own ? path : paths.offsets[path]];
    return low === high ? (value >= high ? 1 : 0) : Math.min(1, Math.max(0, (value - low) / (high - low)));
  };
}

/** Levels drawn by hand from the first path to the last, moving on over the range a whole number of times. */
export function drawnLevels(points: readonly ProfilePoint[], change: number, context: StepContext): Levels {
  const curve = profileCurve(points);
  const { passed } = progressOf(change, true, context);
  return (_, index, count) => {
    const place = (count > 1 ? index / (count - 1) : 0) - passed;
    return Math.min(1, Math.max(0, curve(change === 0 ? place : place - Math.floor(place))));
  };
}

/** Levels a second that a sound is split into, whatever the scene's frames per second: timing must not hang on those. */
const RATE = 48;

/** Bands that have been worked out, by sound and shape: they serve every frame. */
const known = new WeakMap<Sound, Map<string, Promise<Bands>>>();
const sounds = new WeakMap<Uint8Array, Sound>();

/** Levels that follow a sound, one band a path from low to high. It begins at the range's first frame. */
export async function soundLevels(
  file: string | null,
  shape: Omit<BandShape, 'bands'>,
  count: number,
  context: StepContext,
): Promise<Levels> {
  if (file === null)
    throw new Problem('No sound is chosen.', 'Load a WAV file, or take the one that comes with Uvrex.');
  const bytes = await context.file(file);
  let sound = sounds.get(bytes);
  if (!sound) sounds.set(bytes, (sound = readWav(bytes)));
  const bySound = known.get(sound) ?? new Map<string, Promise<Bands>>();
  known.set(sound, bySound);
  const key = JSON.stringify([count, shape]);
  let bands = bySound.get(key);
  if (!bands) {
    // Few shapes are wanted at a time; a slider's drag leaves a trail of others.
    if (bySound.size > 8) bySound.clear();
    bands = bandsOf(sound, { ...shape, bands: count }, RATE, context.yieldNow);
    bySound.set(key, bands);
    // What was given up half-way is begun anew.
    bands.catch(() => bySound.delete(key));
  }
  const { frames, levels } = await bands;
  const at = ((context.frame - context.range[0]) / context.fps) * RATE;
  const whole = Math.floor(at);
  const frame = (k: number): number => (shape.loop ? ((k % frames) + frames) % frames : k);
  const level = (k: number, band: number): number => (k >= 0 && k < frames ? levels[k * count + band] : 0);
  return (_, index) => {
    const [a, b] = [level(frame(whole), index), level(frame(whole + 1), index)];
    return at === whole ? a : a + (b - a) * (at - whole);
  };
}
