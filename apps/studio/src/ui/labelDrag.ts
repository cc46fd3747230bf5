import { type MouseEvent, type RefObject, useEffect, useRef, useState } from 'react';
import type { NumberParam } from '@uvrex/core';
import { joinEdits } from '@/state/document/document';
import { useDrag } from './drag';
import { draggedValue } from './units';

/** A number whose label is dragged. */
interface Member {
  spec: NumberParam;
  value: number;
  onChange: (value: number, live: boolean) => void;
}

/** What a label changes now, null while it cannot be dragged; and how it shows that it is taken. */
interface Label {
  now: RefObject<Member | null>;
  mark: (taken: boolean) => void;
  /** Tells whether the pointer holds it. */
  hold: (held: boolean) => void;
}

const labels = new WeakMap<Element, Label>();

/** A label that moves along, and the value at which its drag began and has come to. */
interface Held extends Label {
  from: number;
  to: number;
}

const taking = (label: Label): Held[] =>
  label.now.current ? [{ ...label, from: label.now.current.value, to: label.now.current.value }] : [];

interface Drag {
  /** Where it began, from the top of the window. */
  y: number;
  held: Held[];
  sideways: boolean;
  /** Ends the entry of undo that they share. */
  end: (() => void) | null;
}

/** So far to a side a drag gathers no more labels, pixels. */
const SIDEWAYS = 4;

/** The labels of one column from the one that was taken to the height of the pointer, of the same unit. */
function gathered(label: Element, from: number, to: number): Held[] {
  const { left } = label.getBoundingClientRect();
  const unit = labels.get(label)?.now.current?.spec.unit;
  return [...document.querySelectorAll('label[data-number]')].flatMap((other) => {
    const found = labels.get(other);
    const box = other.getBoundingClientRect();
    const passed = box.bottom > Math.min(from, to) && box.top < Math.max(from, to);
    const fits = found?.now.current?.spec.unit === unit && Math.abs(box.left - left) < 2;
    return found && (other === label || (passed && fits)) ? taking(found) : [];
  });
}

const markAll = (held: readonly Held[], taken: boolean): void => {
  for (const { mark } of held) mark(taken);
};

/**
 * Lets a number be changed by dragging its label sideways; and several at once, where the pointer first goes down or up over
 * their labels: all of the same unit change by as much of their own reach.
 * @param member the number; null while it cannot be dragged
 * @param begin the drag begins
 */
export function useLabelDrag(member: Member | null, begin: () => void) {
  const ref = useRef<HTMLLabelElement>(null);
  const [taken, mark] = useState(false);
  const [held, hold] = useState(false);
  const now = useRef<Member | null>(null);
  const moved = useRef(false);
  useEffect(() => void (now.current = member));
  useEffect(() => void (ref.current && labels.set(ref.current, { now, mark, hold })), []);
  const drag = useDrag<void, Drag>({
    take(_, { event }) {
      moved.current = false;
      if (!now.current) return null;
      hold(true);
      begin();
      return { y: event.clientY, held: taking({ now, mark, hold }), sideways: false, end: null };
    },
    move(_, { by: { x: by }, event, element }, drag) {
      if (!drag.sideways) {
        const held = gathered(element, drag.y, event.clientY);
        if (held.length !== drag.held.length) {
          markAll(drag.held, false);
          if (held.length > 1) markAll(held, true);
          drag.held = held;
        }
        drag.sideways = Math.abs(by) >= SIDEWAYS;
        if (drag.sideways && drag.held.length > 1) drag.end = joinEdits();
      }
      if (by === 0 || (!drag.sideways && drag.held.length > 1)) return;
      moved.current = true;
      for (const held of drag.held) {
        if (!held.now.current) continue;
        const { spec, onChange } = held.now.current;
        const [low, high] = spec.slider ?? [spec.min, spec.max];
        held.to = draggedValue(spec, held.from + (by * (high - low)) / (event.shiftKey ? 2000 : 250));
        onChange(held.to, true);
      }
    },
    end(_, { held, end }, ending) {
      hold(false);
      markAll(held, false);
      for (const { now, from, to } of held)
        if (to !== from) now.current?.onChange(ending === 'taken back' ? from : to, false);
      end?.();
    },
  });
  return {
    taken,
    /** The pointer holds it: nothing is to stand over what it changes. */
    held,
    label: {
      ref,
      'data-number': '',
      ...drag(),
      onClick(event: MouseEvent): void {
        // A drag that ends on its label is no click into the field.
        if (moved.current) event.preventDefault();
      },
    },
  };
}
