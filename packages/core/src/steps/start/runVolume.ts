import { emptyColumns, NO_NAMED } from '../../geometry/attributes';
import { type Points, POINTS } from '../../geometry/form';
import type { Mesh } from '../../geometry/mesh';
import { profileTable, readTable } from '../../geometry/profile';
import { opennessOf } from '../../surfaces/edit/openness';
import {
  EvenFilling,
  PackedFilling,
  RandomFilling,
  SpacedFilling,
  type VolumeDensity,
} from '../../surfaces/scatter/fillVolume';
import { ballVolume, boxVolume, meshVolume, type Volume } from '../../surfaces/scatter/volumes';
import type { StepContext } from '../declare';
import { skinIn } from './others';
import type { VolumeParams } from './volume';

type Filling = EvenFilling | RandomFilling | SpacedFilling | PackedFilling;

/** Balls of a packing take at most this share of the space: that of equal balls in the closest one (Kepler; Hales 2005) is 0.74. */
const PACKED = 0.74;

/** Points that fill a volume. */
export async function runVolume(p: VolumeParams, context: StepContext): Promise<Points> {
  const yieldNow = (): Promise<void> => context.yieldNow();
  const volume = await volumeOf(p, context);
  const most = p.by === 'spacing' ? (PACKED * volume.size) / ((Math.PI / 6) * p.spacing ** 3) : p.count;
  context.claim('points', most, p.by === 'spacing' ? 'the size, or raise Distance' : 'Count');
  const share = shareOf(p, volume);
  const filling = await filled(p, volume, share, context, yieldNow);
  const count = p.by === 'spacing' ? filling.count : Math.min(filling.count, Math.ceil(p.count - 1e-9));
  const points: Points = { ...emptyColumns(POINTS, 'point', count), life: null, age: null, named: NO_NAMED };
  const sizes = share && profileTable(p.sizes, 257);
  for (let k = 0; k < count; k++) {
    if (k % 8192 === 0) await yieldNow();
    const [x, y, z] = filling.positions.subarray(3 * k, 3 * k + 3);
    points.positions.set([x, y, z], 3 * k);
    points.turns[4 * k + 3] = 1;
    // The newest one is coming up.
    const risen = p.by === 'spacing' ? 1 : Math.min(1, p.count - k);
    const room = p.by === 'packed' ? 2 * filling.radii[k] : 1;
    points.size[k] = risen * room * (share ? readTable(sizes!, share(x, y, z, volume.depth(x, y, z))) : 1);
    points.ids[k] = points.dice[k] = k;
    points.share[k] = count > 1 ? k / (count - 1) : 0;
  }
  return points;
}

async function volumeOf(p: VolumeParams, context: StepContext): Promise<Volume> {
  if (p.where !== 'form') {
    const make = p.where === 'ball' ? ballVolume : boxVolume;
    return make([p.atX, p.atY, p.atZ], [p.width, p.height, p.depth]);
  }
  const mesh = await skinIn(context, 'growth', p.growth);
  const open = opennessOf(mesh);
  if (open)
    context.tell(open, 'Points may stand outside of a form that is not closed; close it, or take a ball or box.');
  const known = volumes.get(mesh);
  if (known) return known;
  const made = await meshVolume(mesh, () => context.yieldNow());
  volumes.set(mesh, made);
  return made;
}

/** Cache of the volumes of forms. */
const volumes = new WeakMap<Mesh, Volume>();

/** What density and size go by, 0..1; null where they go by nothing. */
function shareOf(p: VolumeParams, { low, high, deepest }: Volume): VolumeDensity | null {
  if (p.goesBy === 'none') return null;
  if (p.goesBy === 'height') return (_, y) => (y - low[1]) / (high[1] - low[1]);
  return (_x, _y, _z, depth) => Math.min(1, depth / deepest);
}

/** Cache of fillings by all that they depend on: an animated count asks for more of the same. */
const cache = new Map<string, Filling>();
const CACHED = 6;
/** Numbers of volumes, for the keys of the cache. */
const numbers = new WeakMap<Volume, number>();
let next = 0;

async function filled(
  p: VolumeParams,
  volume: Volume,
  share: VolumeDensity | null,
  context: StepContext,
  yieldNow: () => Promise<void>,
): Promise<Filling> {
  if (!numbers.has(volume)) numbers.set(volume, next++);
  const place =
    p.where === 'form' ? numbers.get(volume) : [p.where, p.atX, p.atY, p.atZ, p.width, p.height, p.depth].join();
  const kind = [
    p.by,
    p.spacing,
    p.smallest,
    p.largest,
    context.seed,
    p.goesBy,
    share && JSON.stringify(p.density),
  ].join();
  const name = `${place} ${kind}`;
  const filling = cache.get(name) ?? fillingFor(p, volume, share, context.seed);
  // Out of the cache while it works: an interrupted one is dropped.
  const complete = cache.delete(name) && p.by === 'spacing';
  if (!complete) await filling.fill(Math.ceil(p.count - 1e-9), yieldNow);
  if (cache.size >= CACHED) cache.clear();
  cache.set(name, filling);
  return filling;
}

function fillingFor(p: VolumeParams, volume: Volume, share: VolumeDensity | null, seed: number): Filling {
  const table = profileTable(p.density, 257);
  const density: VolumeDensity | null = share && ((x, y, z, depth) => readTable(table, share(x, y, z, depth)));
  switch (p.by) {
    case 'even':
      return new EvenFilling(volume, seed, density);
    case 'random':
      return new RandomFilling(volume, seed, density);
    case 'spacing':
      return new SpacedFilling(volume, seed, density, p.spacing);
    default:
      return new PackedFilling(volume, seed, density, Math.min(p.smallest, p.largest), p.largest);
  }
}
