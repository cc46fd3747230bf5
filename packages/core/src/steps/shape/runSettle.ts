import type { Mesh } from '../../geometry/mesh';
import { nearestPlace, rayHit } from '../../geometry/search/nearest';
import { readPlaces } from '../../geometry/topology/surfacePlaces';
import { add, at, scale, sub, type Vec3 } from '../../geometry/vec';

const WAYS: Record<string, Vec3> = { down: [0, -1, 0], front: [0, 0, -1], side: [-1, 0, 0] };
/** How far before a place lines of sight begin: what lies in front of the skin and what lies behind it meets it alike. */
const BEFORE = 1e4;

/**
 * Where places come to lie on a skin.
 * @param keep heights over the ground are kept over the skin
 * @returns the place, moved by a share of the way to the skin and a height above it; where it meets nothing, the place itself
 */
export function settler(
  mesh: Mesh,
  way: 'down' | 'nearest' | 'front' | 'side',
  keep: boolean,
): (place: Vec3, height: number, amount: number) => Vec3 {
  if (way === 'nearest')
    return (place, height, amount) => {
      const near = nearestPlace(mesh, place);
      if (!near) return place;
      const { normals } = readPlaces(mesh, {
        faces: Uint32Array.of(near.face),
        weights: Float32Array.from(near.weights),
      });
      const goal = add(near.position, scale(at(normals, 0), height));
      return add(place, scale(sub(goal, place), amount));
    };
  const along = WAYS[way];
  return (place, height, amount) => {
    const hit = rayHit(mesh, sub(place, scale(along, BEFORE)), along);
    if (!hit) return place;
    const goal = add(place, scale(along, hit.distance - BEFORE - height - (keep && way === 'down' ? place[1] : 0)));
    return add(place, scale(sub(goal, place), amount));
  };
}
