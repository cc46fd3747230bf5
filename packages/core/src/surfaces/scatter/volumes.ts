import type { YieldNow } from '../../yieldNow';
import { boundsOf, emptyForm } from '../../geometry/form';
import { treeInTime } from '../../geometry/search/meshTree';
import { insideOf } from '../../geometry/search/nearest';
import { areaAndVolume, type Mesh } from '../../geometry/mesh';
import type { Vec3 } from '../../geometry/vec';
import { Within } from '../../growing/within';

const { abs, hypot, max, min } = Math;

/** A part of space. */
export interface Volume {
  low: Vec3;
  high: Vec3;
  /** Cubic metres. */
  size: number;
  /** How deep a place lies inside, metres; below 0 outside. Of forms it is near the truth, and its sign is right. */
  depth(x: number, y: number, z: number): number;
  /** The greatest depth, metres. */
  deepest: number;
}

/** A ball or ellipsoid by its three diameters, metres. */
export function ballVolume([x, y, z]: Vec3, [width, height, breadth]: Vec3): Volume {
  const [a, b, c] = [width / 2, height / 2, breadth / 2];
  const least = min(a, b, c);
  return {
    low: [x - a, y - b, z - c],
    high: [x + a, y + b, z + c],
    size: (4 / 3) * Math.PI * a * b * c,
    deepest: least,
    // Of a ball exactly; of an ellipsoid by the size of the one through the place.
    depth: (px, py, pz) => least * (1 - hypot((px - x) / a, (py - y) / b, (pz - z) / c)),
  };
}

/** An upright box by its three sides, metres. */
export function boxVolume([x, y, z]: Vec3, [width, height, breadth]: Vec3): Volume {
  const [a, b, c] = [width / 2, height / 2, breadth / 2];
  return {
    low: [x - a, y - b, z - c],
    high: [x + a, y + b, z + c],
    size: width * height * breadth,
    deepest: min(a, b, c),
    depth: (px, py, pz) => min(a - abs(px - x), b - abs(py - y), c - abs(pz - z)),
  };
}

/** The inside of a closed mesh. */
export async function meshVolume(mesh: Mesh, yieldNow: YieldNow): Promise<Volume> {
  await treeInTime(mesh, yieldNow);
  const within = await Within.of(mesh, yieldNow);
  const { min: low, max: high } = boundsOf({ ...emptyForm(), mesh })!;
  return {
    low,
    high,
    size: abs(areaAndVolume(mesh).volume),
    deepest: max(1e-9, within.deepest),
    depth: (x, y, z) => {
      const about = within.depth(x, y, z);
      // Far from the skin the grid knows; near to it rays tell.
      if (abs(about) > within.unsure) return about;
      return insideOf(mesh, [x, y, z]) ? max(1e-9, about) : min(-1e-9, about);
    },
  };
}
