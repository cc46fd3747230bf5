import { useDrag } from './drag';

/**
 * Drags one of several points of a field: live while it goes, taken once where it is let go of. One that is only clicked has not
 * changed anything.
 * @param value all the points
 * @param moved a point is where the pointer is now
 * @param taken they stay so
 * @returns what each of the points listens to
 */
export function usePointDrag<T>(
  value: readonly T[],
  moved: (point: number, event: PointerEvent) => void,
  taken: (value: T[]) => void,
) {
  return useDrag<number, { before: readonly T[]; moved: boolean }>({
    take: () => ({ before: value, moved: false }),
    move(point, { event }, kept) {
      kept.moved = true;
      moved(point, event);
    },
    end(_, kept, ending) {
      if (kept.moved) taken([...(ending === 'taken back' ? kept.before : value)]);
    },
  });
}

/** A share as a hand means it: to a thousandth, within 0 and 1. */
export const handShare = (share: number): number => Math.round(1000 * Math.min(1, Math.max(0, share))) / 1000;
