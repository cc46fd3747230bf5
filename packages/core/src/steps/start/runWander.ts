import { random } from '../../fields/random';
import { nearestPlace } from '../../geometry/search/nearest';
import { type Paths, pathsFrom } from '../../geometry/paths';
import { add, byAxis, scale, unit, type Vec3 } from '../../geometry/vec';
import { wanderPaths } from '../../growing/wander';
import { Problem } from '../../problem';
import type { StepContext } from '../declare';
import { beginningsOf } from './beginnings';
import { skinIn } from './others';
import type { WanderParams } from './wander';

/** Tendrils as paths, one each. */
export async function runWander(p: WanderParams, context: StepContext): Promise<Paths> {
  if (p.stays === 'heights' && p.highest < p.lowest)
    throw new Problem('The highest is lower than the lowest.', 'Raise Highest, or lower Lowest.');
  context.claim('points', (p.count * p.length * (1 + p.vary)) / p.piece, 'Count or Length, or raise Segment length');
  const { seed } = context;
  const places = await beginningsOf(p, unit([p.wayX, p.wayY, p.wayZ]), context);
  // Where there are more places than tendrils these are dealt out evenly.
  const placeOf = (k: number): number =>
    places.length > p.count ? Math.floor((k * places.length) / p.count) : k % places.length;
  const beginnings = Array.from({ length: p.count }, (_, k) => {
    const { place, way } = places.at(placeOf(k));
    const off = ball(seed, k);
    return {
      place: add(place, scale(off, p.scatter)),
      way: unit(p.scatter > 0 ? add(way, scale(off, 0.5)) : way),
    };
  });
  const skin = p.stays === 'skin' ? await skinIn(context, 'skin', p.skin) : null;
  const drawn = p.toward === null ? [] : await context.places('toward');
  const tendrils = await wanderPaths(
    {
      beginnings,
      length: p.length,
      vary: p.vary,
      piece: p.piece,
      turning: p.turning,
      size: p.size,
      rise: p.rise,
      drawn,
      draw: p.draw,
      apart: p.apart,
      hold: skin
        ? (place) => nearestPlace(skin, place)?.position ?? place
        : p.stays === 'heights'
          ? ([x, y, z]) => [x, Math.min(p.highest, Math.max(p.lowest, y)), z]
          : null,
      seed,
    },
    () => context.yieldNow(),
  );
  return pathsFrom(tendrils.map((positions, id) => ({ id, positions })));
}

/** A place in the ball of radius 1, evenly by chance. */
function ball(seed: number, k: number): Vec3 {
  for (let dart = 0; ; dart++) {
    const place = byAxis((c) => 2 * random(seed, k, 10 + 3 * dart + c) - 1);
    if (Math.hypot(...place) <= 1) return place;
  }
}
