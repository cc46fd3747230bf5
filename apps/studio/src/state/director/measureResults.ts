import type { FrameRecord } from './results';

/**
 * Measures a growth and frame, with those of some frames put in. Arrays in which one is another are made anew, so that whoever shows
 * them sees the change; all others stay as they are.
 */
export function measureResults(
  known: ReadonlyMap<string, Float32Array>,
  records: readonly FrameRecord[],
  [first, last]: readonly [number, number],
  measure: (growth: FrameRecord['growths'][number]) => number,
): Map<string, Float32Array> {
  const next = new Map(known);
  const fresh = new Set<string>();
  for (const { frame, growths } of records) {
    const index = frame - first;
    if (!Number.isInteger(index) || index < 0 || frame > last) continue;
    for (const growth of growths) {
      const { id } = growth;
      const value = Math.fround(measure(growth));
      const there = next.get(id);
      if (there?.length === last - first + 1 && Object.is(there[index], value)) continue;
      if (!fresh.has(id)) {
        const array = new Float32Array(last - first + 1).fill(NaN);
        array.set((next.get(id) ?? array).subarray(0, array.length));
        next.set(id, array);
        fresh.add(id);
      }
      next.get(id)![index] = value;
    }
  }
  return next;
}
