import { withRiders } from '../../geometry/joinMeshes';
import { type Mesh } from '../../geometry/mesh';
import { type Paths, pathCount } from '../../geometry/paths';
import { at, cross, dot, perpendicular, sub, unit, type Vec3 } from '../../geometry/vec';
import { regionsOf } from '../../outline/region';
import { Problem } from '../../problem';
import { plateOf } from '../../surfaces/plate';
import { ringNormal } from '../../surfaces/softNormals';
import { defineStep } from '../declare';
import { metres } from '../format';

const HERE = { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], size: 1 } as const;

export const plate = defineStep({
  kind: 'plate',
  family: 'skin',
  label: 'Plate',
  icon: 'M3 7 10 4 17 7 10 10ZM3 7V12L10 15 17 12V7M10 10V15',
  help: 'Fills closed flat paths and gives them a depth: solid letters, badges, petals cut from a drawing. Paths inside others are holes.',
  takes: ['paths'],
  gives: ['mesh'],
  params: {
    depth: {
      type: 'number',
      unit: 'm',
      label: 'Depth',
      help: 'From face to face, half on each side.',
      default: 0.1,
      min: 0.0001,
      max: 1000,
      slider: [0.005, 1],
    },
    hard: {
      type: 'toggle',
      label: 'Hard edges',
      help: 'Keeps corners of the outline sharp in the light.',
      default: true,
    },
  },
  summary: (p) => `${metres(p.depth)} deep`,
  run(form, p, context) {
    const paths = form.paths!;
    const made = plates(paths, p.depth, p.hard);
    if (!made)
      throw new Problem(
        'No closed path has an area to fill.',
        'Begin with text, a vector file, an arc, or close the drawn path.',
      );
    context.claim('faces', made.indices.length / 3, 'the points of the paths');
    return { ...form, mesh: form.mesh ? withRiders(form.mesh, made, [HERE]) : made };
  },
});

/** All closed paths filled in the plane of the largest of them. */
function plates(paths: Paths, depth: number, hard: boolean): Mesh | null {
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
