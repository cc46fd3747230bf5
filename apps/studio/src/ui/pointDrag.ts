import { type PointerEvent, useRef } from 'react';

/**
 * Drags one of several points of a field: live while it goes, taken once where it is let go of. One that is only clicked has not
 * changed anything.
 * @param moved a point is where the pointer is now
 * @param taken it stays there
 * @returns what each of the points listens to
 */
export function usePointDrag(moved: (point: number, event: PointerEvent) => void, taken: () => void) {
  const drag = useRef<{ point: number; moved: boolean } | null>(null);
  const end = (): void => {
    const went = drag.current?.moved;
    drag.current = null;
    if (went) taken();
  };
  return (point: number) => ({
    onPointerDown(event: PointerEvent): void {
      event.currentTarget.setPointerCapture(event.pointerId);
      drag.current = { point, moved: false };
    },
    onPointerMove(event: PointerEvent): void {
      if (drag.current?.point !== point) return;
      drag.current.moved = true;
      moved(point, event);
    },
    onPointerUp: end,
    onPointerCancel: end,
  });
}

/** A share as a hand means it: to a thousandth, within 0 and 1. */
export const handShare = (share: number): number => Math.round(1000 * Math.min(1, Math.max(0, share))) / 1000;
