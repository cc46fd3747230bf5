import { FAR, type Mesh, NEAR, type Paths } from '@uvrex/core';

/** Growing ends that shine: their places, 3 numbers each, and how strongly. */
export interface Tips {
  positions: Float32Array;
  strengths: Float32Array;
}

/** Weaker than this nothing is seen of a light. */
const FAINT = 0.01;

/**
 * The growing ends of a growth's paths, with the strongest light that its skin gives off.
 * @returns null where nothing grows or nothing glows
 */
export function tipsOf(
  paths: Pick<Paths, 'positions' | 'offsets' | 'closed' | 'fronts'> | null,
  glow: Mesh['glow'],
): Tips | null {
  if (!paths || !glow) return null;
  let strongest = 0;
  for (let i = 0; i < glow.length; i++) if (glow[i] > strongest) strongest = glow[i];
  if (strongest < FAINT) return null;
  const ends: number[] = [];
  const add = (point: number): void => {
    for (let axis = 0; axis < 3; axis++) ends.push(paths.positions[3 * point + axis]);
  };
  for (let p = 0; p < paths.offsets.length - 1; p++) {
    const a = paths.offsets[p];
    const b = paths.offsets[p + 1];
    if (b - a < 2 || paths.closed[p]) continue;
    if (paths.fronts[p] & FAR) add(b - 1);
    if (paths.fronts[p] & NEAR) add(a);
  }
  if (ends.length === 0) return null;
  return { positions: Float32Array.from(ends), strengths: new Float32Array(ends.length / 3).fill(strongest) };
}
