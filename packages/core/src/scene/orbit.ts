import { add, sub, type Vec3 } from '../geometry/vec';
import { easeAt } from '../time/easing';
import { type Track, valueAt } from '../time/track';
import { baseOf, isTrack, type ParamValue } from './schema';

const AXES = ['X', 'Y', 'Z'] as const;

/** Angles of an offset, radians, with its length: azimuth about Y, elevation above the ground. */
const spherical = ([x, y, z]: Vec3): { length: number; azimuth: number; elevation: number } => {
  const length = Math.hypot(x, y, z);
  return { length, azimuth: Math.atan2(x, z), elevation: length > 0 ? Math.asin(y / length) : 0 };
};

/**
 * Where a camera stands between two keys of its place when it goes round its target: azimuth, elevation and the logarithm of the
 * distance change evenly with the easing of the first key, the azimuth by the shorter way.
 * @param params the camera's numbers as they stand in the document
 * @param frame of the scene
 * @param target what it looks at then, metres
 * @returns null where the place is not keyed on all axes at the same frames, or at a frame outside the keys
 */
export function orbitAt(params: Readonly<Record<string, ParamValue>>, frame: number, target: Vec3): Vec3 | null {
  const tracks = AXES.map((axis) => baseOf(params[`position${axis}`]));
  if (!tracks.every(isTrack)) return null;
  const [first] = tracks;
  const same = tracks.every(
    ({ keys }) => keys.length === first.keys.length && keys.every((key, i) => key.frame === first.keys[i].frame),
  );
  const at = first.keys.findLastIndex((key) => key.frame <= frame);
  if (!same || at < 0 || at + 1 >= first.keys.length) return null;
  const [from, to] = [first.keys[at], first.keys[at + 1]];
  const targetAt = (when: number): Vec3 =>
    AXES.map((axis, i) => {
      const base = baseOf(params[`target${axis}`]);
      return isTrack(base) ? valueAt(base, when) : typeof base === 'number' ? base : target[i];
    }) as unknown as Vec3;
  const placeAt = (index: number): Vec3 => tracks.map(({ keys }: Track) => keys[index].value) as unknown as Vec3;
  const a = spherical(sub(placeAt(at), targetAt(from.frame)));
  const b = spherical(sub(placeAt(at + 1), targetAt(to.frame)));
  if (a.length === 0 || b.length === 0) return null;
  const t = easeAt(from.ease, (frame - from.frame) / (to.frame - from.frame));
  const turn = Math.atan2(Math.sin(b.azimuth - a.azimuth), Math.cos(b.azimuth - a.azimuth));
  const azimuth = a.azimuth + t * turn;
  const elevation = a.elevation + t * (b.elevation - a.elevation);
  const length = a.length * (b.length / a.length) ** t;
  const across = length * Math.cos(elevation);
  return add(target, [across * Math.sin(azimuth), length * Math.sin(elevation), across * Math.cos(azimuth)]);
}
