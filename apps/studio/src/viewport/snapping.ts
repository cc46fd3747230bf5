import { type Anchor, byAxis, partWay, stepOf, type Vec3 } from '@uvrex/core';
import { useDocument } from '@/state/document/document';
import { useResults } from '@/state/director/results';
import { toScreen, type useProjection } from '../state/director/projection';
import { type Dot, nearestShare } from './segment';

/** So near on screen something has to be, pixels: ends and anchors, and the course of paths. */
const REACH = { end: 11, course: 8 };
/** Points of other growths that are looked at; of more, every second, third, … */
const MOST = 6000;

/** What a place snaps to, and what that is. */
export interface Snap {
  at: Vec3;
  to: string;
}

/**
 * What a pointer is near of the other growths: an end of a path, an anchor of a drawn one, else the course of a path; null where
 * it is near none.
 * @param own id of the growth that is being changed: it does not snap to itself
 */
export function snapUnder(
  pointer: Dot,
  own: string,
  projection: ReturnType<typeof useProjection.getState>,
): Snap | null {
  const { scene } = useDocument.getState();
  const nameOf = (id: string): string => scene.growths.find((growth) => growth.id === id)?.name ?? '';
  let best: (Snap & { off: number }) | null = null;
  const meet = (at: Vec3, to: string, reach: number): void => {
    const dot = toScreen(at, projection);
    const off = dot ? Math.hypot(dot.x - pointer.x, dot.y - pointer.y) : Infinity;
    if (off <= reach && (!best || off < best.off)) best = { at, to, off };
  };
  const drawn = useResults.getState().onScreen.filter(({ id }) => id !== own);
  for (const growth of scene.growths) {
    if (growth.id === own || !drawn.some(({ id }) => id === growth.id) || Object.keys(growth.place).length > 0)
      continue;
    for (const { kind, params, on } of growth.steps)
      for (const [name, spec] of Object.entries(on ? (stepOf(kind)?.params ?? {}) : {}))
        if (spec.type === 'anchors' && !spec.onSkin)
          for (const [x, y, z] of (params[name] ?? []) as Anchor[])
            meet([x, y, z], `an anchor of ${growth.name}`, REACH.end);
  }
  const pathed = drawn.flatMap(({ id, shown: { paths } }) => (paths ? [{ id, ...paths }] : []));
  const place = (flat: Float32Array, i: number): Vec3 => [flat[3 * i], flat[3 * i + 1], flat[3 * i + 2]];
  for (const { id, positions, offsets, closed } of pathed)
    for (let p = 0; p + 1 < offsets.length; p++) {
      if (closed[p] === 1 || offsets[p + 1] - offsets[p] < 2) continue;
      for (const i of [offsets[p], offsets[p + 1] - 1]) meet(place(positions, i), `an end of ${nameOf(id)}`, REACH.end);
    }
  if (best) return best;
  const stride = Math.ceil(pathed.reduce((sum, { positions }) => sum + positions.length / 3, 0) / MOST);
  for (const { id, positions, offsets } of pathed)
    for (let p = 0; p + 1 < offsets.length; p++)
      for (let i = offsets[p]; i + stride < offsets[p + 1]; i += stride) {
        const at = nearestOfSegment(pointer, place(positions, i), place(positions, i + stride), projection);
        if (at) meet(at, nameOf(id), REACH.course);
      }
  return best;
}

/** The place of a segment that is nearest to a pointer on screen; null behind the camera. */
function nearestOfSegment(
  pointer: Dot,
  from: Vec3,
  to: Vec3,
  projection: ReturnType<typeof useProjection.getState>,
): Vec3 | null {
  const [a, b] = [toScreen(from, projection), toScreen(to, projection)];
  if (!a || !b) return null;
  const k = nearestShare(pointer, a, b);
  return partWay(from, to, k);
}

/** A place to the tenth of a millimetre, as it is stored. */
export const toTenthMillimetre = (place: Vec3): Vec3 => byAxis((c) => Math.round(place[c] * 1e4) / 1e4);
