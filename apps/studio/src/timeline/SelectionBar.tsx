'use client';

import type { KeyboardEvent } from 'react';
import { endMove, retimeKeys } from '@/state/actions/keyActions';
import { holderIn, useDocument } from '@/state/document/document';
import { type KeyAddress, setView, useView } from '@/state/document/view';
import { useDrag } from '@/ui/drag';
import { keyStep } from '@/ui/pressed';
import { INK } from '@/ui/theme';
import { exactFrame, type Scale, xOf } from '../state/document/timeScale';

type Part = 'from' | 'to' | 'all';

/** The stretch of time that the chosen keys take: drag it to move them, either end to stretch them. */
export function SelectionBar({ scale, y }: { scale: Scale; y: number }) {
  const keys = useView((state) => state.keys);
  const scene = useDocument((state) => state.scene);
  const drag = useDrag<Part, { at: number; keys: KeyAddress[]; original: KeyAddress[] }>({
    take: (_, { at }) => ({ at: exactFrame(scale, at.x), keys, original: keys }),
    move(part, { at }, held) {
      const goes = target(held.original, part, Math.round(exactFrame(scale, at.x) - held.at));
      held.keys = retimeKeys(held.keys, (_, i) => goes(i), 'keys together');
      setView({ keys: held.keys });
    },
    end: (_, { original }, ending) => (ending === 'taken back' ? setView({ keys: original }) : endMove()),
  });
  const shiftOf = (key: KeyAddress): number => holderIn(scene, key.growth)?.shift ?? 0;
  const frames = keys.map((key) => key.frame + shiftOf(key));
  const [from, to] = [Math.min(...frames), Math.max(...frames)];
  if (keys.length < 2 || from === to) return null;

  /** Where a key of the beginning comes to stand, when a part of the bar is at another frame now. */
  const target =
    (original: readonly KeyAddress[], part: Part, by: number) =>
    (i: number): number => {
      const list = original.map((key) => key.frame + shiftOf(key));
      const [low, high] = [Math.min(...list), Math.max(...list)];
      const frame = list[i];
      const moved =
        part === 'all'
          ? frame + by
          : part === 'to'
            ? low + ((frame - low) * (high + by - low)) / (high - low)
            : high - ((high - frame) * (high - low - by)) / (high - low);
      return moved - shiftOf(original[i]);
    };
  const onKey = (event: KeyboardEvent, part: Part): void => {
    const by = keyStep(event, { ArrowLeft: -1, ArrowRight: 1 });
    if (!by) return;
    const goes = target(keys, part, by * (event.shiftKey ? 10 : 1));
    setView({ keys: retimeKeys(keys, (_, i) => goes(i), 'keys by hand') });
  };
  const [a, b] = [xOf(scale, from), xOf(scale, to)];
  const handle = (part: Part, label: string, x: number, width: number) => (
    <rect
      x={x}
      y={y}
      width={width}
      height={8}
      rx={3}
      fill={part === 'all' ? `${INK.front}55` : INK.front}
      role="button"
      tabIndex={0}
      aria-label={label}
      cursor={part === 'all' ? 'grab' : 'ew-resize'}
      onKeyDown={(event) => onKey(event, part)}
      onBlur={endMove}
      {...drag(part)}
    />
  );
  return (
    <g>
      {handle('all', `Move the ${keys.length} chosen keys`, a, b - a)}
      {handle('from', 'Stretch the chosen keys at their first', a - 4, 8)}
      {handle('to', 'Stretch the chosen keys at their last', b - 4, 8)}
    </g>
  );
}
