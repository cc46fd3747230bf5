import { isShown, type Scene, type Vec3 } from '@uvrex/core';
import type { Bounds, FramePayload, GrowthPayload, Shown } from '@/worker/protocol';
import { growthIn } from '../document/document';
import type { Geometries } from './geometries';

/** What is known of one evaluated frame. */
export type FrameRecord = Omit<FramePayload, 'growths' | 'items'> & {
  growths: Omit<GrowthPayload, 'shown'>[];
  /** It stands for one that takes longer. */
  coarse: boolean;
};

/** A growth as it stands on screen: its geometry, from this frame or the last good one. */
export interface OnScreen {
  id: string;
  hue: string;
  key: string;
  shown: Shown;
  /** The items of its copies, by key. */
  items: ReadonlyMap<string, Shown>;
}

/**
 * The growths of a frame as they stand on screen. One whose geometry is not at hand keeps its last good one.
 * @param before what was on screen
 */
export const onScreenOf = (
  record: FrameRecord,
  scene: Scene,
  geometries: Geometries,
  before: readonly OnScreen[],
): OnScreen[] =>
  record.growths.flatMap(({ id, key, failed, items }): OnScreen[] => {
    const last = before.find((entry) => entry.id === id);
    const growth = growthIn(scene, id);
    // It may have gone while its picture was on the way.
    if (!growth || !isShown(scene, growth)) return [];
    const shown = failed ? undefined : geometries.get(key);
    const { hue } = growth;
    if (!shown) return last ? [last] : [];
    if (last?.key === key && last.hue === hue) return [last];
    const held = items.map((item) => [item, geometries.get(item)] as const);
    if (held.some(([, item]) => !item)) return last ? [last] : [];
    return [{ id, key, shown, hue, items: new Map(held as [string, Shown][]) }];
  });

/** Box round growths over some frames, with what has yet to grow. @param growth one of them; null for all that are shown */
export function wholeBounds(records: Iterable<FrameRecord>, scene: Scene, growth: string | null): Bounds | null {
  let box: Bounds | null = null;
  for (const record of records)
    for (const { id, whole } of record.growths) {
      const entry = growthIn(scene, id);
      if (!whole || !entry || (growth === null ? !isShown(scene, entry) : id !== growth)) continue;
      box = box ? union(box, whole) : whole;
    }
  return box;
}

function union(a: Bounds, b: Bounds): Bounds {
  const each = (pick: (...of: number[]) => number, x: Vec3, y: Vec3): [number, number, number] => [
    pick(x[0], y[0]),
    pick(x[1], y[1]),
    pick(x[2], y[2]),
  ];
  return { min: each(Math.min, a.min, b.min), max: each(Math.max, a.max, b.max) };
}
