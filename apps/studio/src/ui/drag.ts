import { useDrag as useGesture } from '@use-gesture/react';
import { useEffect, useRef } from 'react';
import { endEdit, putBack, useDocument } from '@/state/document/document';

/** A place on screen, pixels. */
export interface Spot {
  x: number;
  y: number;
}

/** How what is dragged is held at one moment. */
export interface Hold {
  /** Where the pointer is in the drawing that what is dragged lies in; in what is dragged itself, where that is no part of one. */
  at: Spot;
  /** How far the pointer has come since it took hold. */
  by: Spot;
  /** The keys that are held, and the pen's pressure. */
  event: PointerEvent;
  /** What is dragged. */
  element: Element;
}

/** How a drag ends: let go of, taken from the hand by the browser, or taken back with Escape. */
export type Ending = 'let go' | 'lost' | 'taken back';

interface Acts<Which, Kept> {
  /** It is taken hold of. @returns what is known of it while it is held; null: it is not taken. Where it is not given nothing is known, and all is taken */
  take?: (which: Which, hold: Hold) => Kept | null;
  move: (which: Which, hold: Hold, kept: Kept) => void;
  /** It was pressed and did not go anywhere. Where this is given, `move` begins some pixels from there. */
  click?: (which: Which, hold: Hold) => void;
  /** It was held, and is no more. */
  end?: (which: Which, kept: Kept, ending: Ending) => void;
  /** Of what drags are heard, before all else that lies in it; where it is not given, of what the result is spread on. */
  within?: () => Element | null;
}

/** What is held. */
interface Drag<Which, Kept> {
  which: Which;
  kept: Kept;
  /** It has come further than in a click. */
  going: boolean;
  done: (ending: Ending) => void;
}

/** Pixels that a pointer may move in a click. */
const STILL = 4;

/**
 * Lets things be dragged, by mouse, pen or finger: all that one drag changes is one entry of undo, it ends where the pointer is taken away, and
 * Escape takes it back.
 * @returns what a thing listens to, by what `move` and the others are to call it
 */
export function useDrag<Which = void, Kept = true>(acts: Acts<Which, Kept>) {
  const { take, move, click, within } = acts;
  const now = useRef(acts);
  useEffect(() => void (now.current = acts));
  const held = useRef<Drag<Which, Kept> | null>(null);
  // What goes away while it is held is let go of.
  useEffect(() => () => held.current?.done('lost'), []);
  const bind = useGesture<PointerEvent>(
    ({ args, event, first, last, movement: [x, y], xy, currentTarget, cancel }) => {
      const [which] = args as [Which];
      const element = currentTarget as Element;
      const box = ((element as SVGElement).ownerSVGElement ?? element).getBoundingClientRect();
      const hold = { at: { x: xy[0] - box.left, y: xy[1] - box.top }, by: { x, y }, event, element };
      if (first) {
        const kept = take ? take(which, hold) : (true as Kept);
        if (kept === null) return cancel();
        event.stopPropagation();
        // By the thing itself: a part of it that was under the pointer may not stay.
        element.setPointerCapture(event.pointerId);
        if ((element as HTMLElement).tabIndex >= 0) (element as HTMLElement).focus();
        const before = useDocument.getState();
        const onKey = (key: KeyboardEvent): void => {
          if (key.key !== 'Escape') return;
          key.stopPropagation();
          key.preventDefault();
          held.current?.done('taken back');
          cancel();
        };
        // Heard by the window too: a thing that goes away while it is held hears no more of its pointer.
        const onUp = ({ pointerId }: PointerEvent): void => {
          if (pointerId === event.pointerId) setTimeout(() => held.current === drag && drag.done('lost'));
        };
        const ends = ['pointerup', 'pointercancel'] as const;
        window.addEventListener('keydown', onKey, true);
        for (const end of ends) window.addEventListener(end, onUp, true);
        const drag: Drag<Which, Kept> = {
          which,
          kept,
          going: !click,
          done: (ending) => {
            window.removeEventListener('keydown', onKey, true);
            for (const end of ends) window.removeEventListener(end, onUp, true);
            held.current = null;
            now.current.end?.(which, kept, ending);
            endEdit();
            if (ending === 'taken back') putBack(before);
          },
        };
        held.current = drag;
        return;
      }
      const drag = held.current;
      if (!drag) return;
      if (last) {
        const released = event.type === 'pointerup';
        if (released && !drag.going) click?.(drag.which, hold);
        drag.done(released ? 'let go' : 'lost');
        return;
      }
      drag.going ||= Math.hypot(x, y) >= STILL;
      if (drag.going) move(drag.which, hold, drag.kept);
    },
    {
      pointer: { keys: false },
      ...(within && {
        target: {
          get current() {
            return within();
          },
        },
        eventOptions: { capture: true, passive: false },
      }),
    },
  );
  return (which: Which): ReturnType<typeof bind> => bind(which);
}
