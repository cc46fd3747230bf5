'use client';

import type { KeyboardEvent } from 'react';
import { deleteKeys, endMove, moveKeys } from '@/state/actions/keyActions';
import { type KeyAddress, setView, useView } from '@/state/document/view';
import { useDrag } from '@/ui/drag';
import { INK } from '@/ui/theme';
import { sameKey } from '../state/document/trackRows';
import { frameAt, type Scale } from '../state/document/timeScale';

interface Props {
  /** The keys that this mark stands for. */
  keys: KeyAddress[];
  x: number;
  y: number;
  label: string;
  shape: 'long' | 'round';
  scale: Scale;
  openEasing: (anchor: Element) => void;
}

/** A key on the timeline: drag to move it in time, Delete to remove it, double-click or Enter for its easing. */
export function KeyMark({ keys, x, y, label, shape, scale, openEasing }: Props) {
  const chosen = useView((state) => keys.every((key) => state.keys.some((other) => sameKey(key, other))));
  const choose = (adding: boolean): KeyAddress[] => {
    const others = useView.getState().keys;
    const next = chosen ? others : adding ? [...others, ...keys] : keys;
    setView({ keys: next, growth: keys[0].growth });
    return next;
  };
  const drag = useDrag<void, { frame: number; keys: KeyAddress[]; before: KeyAddress[] }>({
    take(_, { at, event }) {
      const before = choose(event.shiftKey);
      return { frame: frameAt(scale, at.x), keys: before, before };
    },
    move(_, { at }, kept) {
      const frame = frameAt(scale, at.x);
      if (frame === kept.frame) return;
      kept.keys = moveKeys(kept.keys, frame - kept.frame, 'keys');
      kept.frame = frame;
      setView({ keys: kept.keys });
    },
    end: (_, { before }, ending) => (ending === 'taken back' ? setView({ keys: before }) : endMove()),
  });
  const onKey = (event: KeyboardEvent): void => {
    const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (by) setView({ keys: moveKeys(choose(false), by * (event.shiftKey ? 10 : 1), 'keys by hand') });
    else if (event.key === 'Delete' || event.key === 'Backspace') deleteKeys(choose(false));
    else if (event.key === 'Enter') {
      choose(false);
      openEasing(event.currentTarget);
    } else if (event.key === ' ') choose(event.shiftKey);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };

  if (x < scale.left - 6 || x > scale.right + 6) return null;
  return (
    <ellipse
      cx={x}
      cy={y}
      rx={shape === 'long' ? 4.2 : 4}
      ry={shape === 'long' ? 6.6 : 4}
      fill={chosen ? INK.front : INK.ground}
      stroke={chosen || shape === 'long' ? INK.text : INK.front}
      strokeWidth={1.7}
      tabIndex={0}
      role="button"
      aria-pressed={chosen}
      aria-label={label}
      data-keys={JSON.stringify(keys)}
      cursor="ew-resize"
      onKeyDown={onKey}
      onBlur={endMove}
      onDoubleClick={(event) => {
        choose(false);
        openEasing(event.currentTarget);
      }}
      {...drag()}
    />
  );
}
