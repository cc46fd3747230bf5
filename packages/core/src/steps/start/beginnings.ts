import { pointsOf } from '../../geometry/formPoints';
import { tipsOf } from '../../curves/tips';
import { turnAt, turnedBy } from '../../geometry/turns';
import { at, unit, type Vec3 } from '../../geometry/vec';
import { Problem } from '../../problem';
import type { StepContext } from '../declare';

/** A place where something begins, and which way it points there. */
export interface Beginning {
  place: Vec3;
  way: Vec3;
}

/** Where things begin, worked out where it is asked for: a large form has more places than most things begin at. */
export interface Beginnings {
  readonly length: number;
  at: (k: number) => Beginning;
}

/** Where things begin; at one place and on paths' points they point the way that is told. */
export async function beginningsOf(
  p: { begins: string; growth: string | null; atX: number; atY: number; atZ: number },
  way: Vec3,
  context: StepContext,
): Promise<Beginnings> {
  if (p.begins === 'place') return { length: 1, at: () => ({ place: [p.atX, p.atY, p.atZ], way }) };
  if (p.growth === null) throw new Problem('No growth is chosen.', 'Choose the growth at whose points it begins.');
  const other = await context.other('growth');
  if (p.begins === 'tips') {
    const tips = other.paths ? tipsOf(other.paths) : [];
    if (tips.length === 0)
      throw new Problem('The chosen growth has no tips.', 'Choose one of open paths, or begin at its points.');
    return { length: tips.length, at: (k) => ({ place: tips[k].position, way: unit(tips[k].tangent) }) };
  }
  const { points, mesh } = other;
  if (points)
    return {
      length: points.ids.length,
      at: (k) => ({ place: at(points.positions, k), way: turnedBy(turnAt(points.turns, k), [0, 1, 0]) }),
    };
  if (!other.paths && mesh)
    return {
      length: mesh.positions.length / 3,
      at: (k) => ({ place: at(mesh.positions, k), way: at(mesh.normals, k) }),
    };
  const flat = pointsOf(other);
  if (flat.length === 0) throw new Problem('The chosen growth has no points.', 'Choose one that has some.');
  return { length: flat.length / 3, at: (k) => ({ place: at(flat, k), way }) };
}
