import { type RefObject, useEffect, useRef } from 'react';

/** Milliseconds of rest after which turning the wheel is at an end. */
const REST = 350;

/**
 * Lets the wheel step a value while its field has the focus; the panel round it stays where it is.
 * @param step one step up or down, fine with Shift
 * @param end the wheel has come to rest
 * @returns what the field takes as its ref
 */
export function useWheelSteps(
  step: (way: 1 | -1, fine: boolean, live: boolean) => void,
  end: () => void,
): RefObject<HTMLInputElement | null> {
  const input = useRef<HTMLInputElement>(null);
  const now = useRef({ step, end });
  useEffect(() => void (now.current = { step, end }));
  useEffect(() => {
    const element = input.current;
    if (!element) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const onWheel = (event: WheelEvent): void => {
      // Shift turns the wheel sideways in some browsers.
      const by = event.deltaY || event.deltaX;
      if (document.activeElement !== element || by === 0) return;
      event.preventDefault();
      now.current.step(by < 0 ? 1 : -1, event.shiftKey, true);
      clearTimeout(timer);
      timer = setTimeout(() => now.current.end(), REST);
    };
    // What React listens to cannot keep the panel from scrolling.
    element.addEventListener('wheel', onWheel, { passive: false });
    return () => {
      clearTimeout(timer);
      element.removeEventListener('wheel', onWheel);
    };
  }, []);
  return input;
}
