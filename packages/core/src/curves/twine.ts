import { filled } from '../geometry/filled';
import { arcLengths, totalLength } from './arclength';
import { withFrames } from './pathFrames';
import { sampleAt } from './resample';
import type { Mesh } from '../geometry/mesh';
import { nearestPlace, rayHit } from '../geometry/search/nearest';
import type { Paths } from '../geometry/paths';
import { add, cross, dot, scale, sub, unit, type Vec3 } from '../geometry/vec';

/** How tendrils wind. */
export interface Twining {
  /** Metres between the tendril and its host's skin, or its host's path where it has none. */
  clearance: number;
  /** Length along the host of one turn, metres. */
  pitch: number;
  /** 1 right-handed, as most climbers wind, −1 left-handed. */
  hand: 1 | -1;
  /** Share of the host at which it begins and ends. */
  from: number;
  to: number;
  /** Where round the host it begins, radians. */
  start: number;
  /** Points of one turn. */
  points: number;
}

/** Rounds in which what is too near is moved away. */
const ROUNDS = 4;

/**
 * A tendril round one path of a host: a helix about the path, in its frames carried without twist, outside of its skin. In tight
 * bends, where the skin of another turn comes near, it is moved away until it is clear.
 * @param mesh the host's skin; null where it has none
 * @returns 3k numbers, metres; null where the path is too short
 */
export function twineAround(host: Paths, path: number, mesh: Mesh | null, how: Twining): number[] | null {
  const framed = withFrames(host);
  const [a, b] = [host.offsets[path], host.offsets[path + 1]];
  const closed = host.closed[path] === 1;
  if (b - a < 2) return null;
  const table = arcLengths(host.positions, a, b, closed);
  const length = totalLength(table);
  const [first, last] = [how.from * length, how.to * length];
  if (!(last - first > 1e-9)) return null;
  // A hair more, as moving has it, makes no point more.
  const count = Math.max(2, Math.ceil(((last - first) / how.pitch) * how.points - 1e-3) + 1);
  const arcs = filled(Float64Array, count, (i) => first + ((last - first) * i) / (count - 1));
  const sampled = (of: ArrayLike<number>): Float64Array => {
    const out = new Float64Array(3 * count);
    sampleAt(of as Float32Array, a, b, table, arcs, 3, out, 0);
    return out;
  };
  const [axis, tangents, normals] = [host.positions, framed.tangents, framed.normals].map(sampled);
  const at = (of: Float64Array, i: number): Vec3 => [of[3 * i], of[3 * i + 1], of[3 * i + 2]];
  const out: number[] = [];
  for (let i = 0; i < count; i++) {
    const tangent = unit(at(tangents, i));
    const raw = at(normals, i);
    const normal = unit(sub(raw, scale(tangent, dot(raw, tangent))));
    const turn = how.start + (how.hand * 2 * Math.PI * (arcs[i] - first)) / how.pitch;
    const away = add(scale(normal, Math.cos(turn)), scale(cross(tangent, normal), Math.sin(turn)));
    const centre = at(axis, i);
    const skin = mesh ? (rayHit(mesh, centre, away)?.distance ?? 0) : 0;
    out.push(...cleared(add(centre, scale(away, skin + how.clearance)), centre, mesh, how.clearance));
  }
  return out;
}

/** A place that lies as far from a skin as it is to, moved outwards where it does not. */
function cleared(place: Vec3, centre: Vec3, mesh: Mesh | null, clearance: number): Vec3 {
  if (!mesh) return place;
  for (let round = 0; round < ROUNDS; round++) {
    const near = nearestPlace(mesh, place);
    if (!near || near.distance >= clearance * (1 - 1e-6)) return place;
    const away = near.distance > 1e-9 ? unit(sub(place, near.position)) : unit(sub(place, centre));
    place = add(near.position, scale(away, clearance));
  }
  return place;
}
