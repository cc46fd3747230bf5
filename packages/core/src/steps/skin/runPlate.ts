import type { Mesh } from '../../geometry/mesh';
import { type Paths, pathCount } from '../../geometry/paths';
import { at, cross, dot, perpendicular, sub, unit, type Vec3, ringNormal } from '../../geometry/vec';
import { regionsOf } from '../../outline/region';
import { plateOf } from '../../surfaces/sweep/extrudePlate';

/** All closed paths filled in the plane of the largest of them. */
export function runPlate(paths: Paths, depth: number, hard: boolean): Mesh | null {
  const rings: Vec3[][] = [];
  for (let path = 0; path < pathCount(paths); path++) {
    if (!paths.closed[path]) continue;
    const ring: Vec3[] = [];
    for (let i = paths.offsets[path]; i < paths.offsets[path + 1]; i++) ring.push(at(paths.positions, i));
    if (ring.length >= 3) rings.push(ring);
  }
  const normals = rings.map(ringNormal);
  const largest = normals.reduce((best, n, i) => (Math.hypot(...n) > Math.hypot(...normals[best]) ? i : best), 0);
  if (rings.length === 0 || Math.hypot(...normals[largest]) < 1e-12) return null;
  const raw = unit(normals[largest]);
  // Outlines run either way round: the plate faces the viewer's side, or up.
  const forward =
    raw[2] < -1e-6 || (Math.abs(raw[2]) <= 1e-6 && raw[1] < 0) ? ([-raw[0], -raw[1], -raw[2]] as Vec3) : raw;
  const origin = rings[largest][0];
  const x = Math.abs(forward[1]) < 0.99 ? unit(cross([0, 1, 0], forward)) : perpendicular(forward);
  const y = cross(forward, x);
  const flat = rings.map((ring) => ring.flatMap((place) => [dot(sub(place, origin), x), dot(sub(place, origin), y)]));
  const regions = regionsOf(flat);
  return regions.length > 0 ? plateOf(regions, depth, hard, { origin, x, y }) : null;
}
