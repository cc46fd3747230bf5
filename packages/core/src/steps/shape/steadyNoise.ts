import { type NoiseShape, SteadyNoise } from '../../fields/noise';
import type { Paths } from '../../geometry/paths';
import type { Vec3 } from '../../geometry/vec';
import type { YieldNow } from '../../yieldNow';

/** Points times octaves whose sums are kept: up to 192 bytes each. */
const MOST = 60_000;
/** Steps that may move the same paths, each in its own way. */
const STEPS = 3;

/** Noise by the places that it has been asked at; none yet where that was once. */
const known = new WeakMap<Float32Array, SteadyNoise[]>();

/** Gives the noise at the place of a point, where that is where it was; false where it is not. */
export type ReadNoise = (place: Vec3, point: number, out: Float64Array) => boolean;

/**
 * Noise at the points of paths that stay while it evolves, as those of a drawn stem that sways; null where they are met for the first
 * time and may never be met again, where there are too many, or where time makes no difference.
 */
export async function steadyNoise(
  paths: Paths | null,
  { size, evolve }: { size: number; evolve: number },
  shape: NoiseShape,
  time: number,
  yieldNow: YieldNow,
): Promise<ReadNoise | null> {
  if (!paths || evolve === 0 || paths.s.length * shape.detail > MOST) return null;
  const { positions } = paths;
  const there = known.get(positions);
  if (!there) {
    known.set(positions, []);
    return null;
  }
  let noise = there.find((one) => one.size === size && alike(one.shape, shape));
  if (!noise) {
    noise = new SteadyNoise(positions, size, shape);
    known.set(positions, [noise, ...there].slice(0, STEPS));
  }
  const read = await noise.at(time, yieldNow);
  return (place, point, out) => {
    const at = 3 * point;
    if (place[0] !== positions[at] || place[1] !== positions[at + 1] || place[2] !== positions[at + 2]) return false;
    read(point, out);
    return true;
  };
}

const alike = (a: NoiseShape, b: NoiseShape): boolean =>
  a.detail === b.detail && a.roughness === b.roughness && a.seed === b.seed && a.period === b.period;
