'use client';

import { useMemo } from 'react';
import type { Growth, GrowthGroup } from '@uvrex/core';
import { foldGroup } from '@/state/actions/groups';
import { useResults } from '@/state/director/results';
import { useView } from '@/state/document/view';
import { INK } from '@/ui/theme';
import { PodShape } from './PodShape';
import { clipToRange, onRowKey, POD } from './rows';
import { type Scale, xOf } from '../state/document/timeScale';

interface Props {
  group: GrowthGroup;
  members: readonly Growth[];
  scale: Scale;
}

/** A group's band: how much of all that is in it has grown; its name folds it. */
export function GroupPod({ group, members, scale }: Props) {
  const all = useResults((state) => state.shares);
  const folded = useView((state) => state.folded.includes(group.id));
  const shares = useMemo(() => meanOf(members.flatMap(({ id }) => all.get(id) ?? [])), [all, members]);
  const [from, to] = [xOf(scale, scale.range[0]), xOf(scale, scale.range[1])];
  const fold = (): void => foldGroup(group.id);
  return (
    <g>
      <path
        d={folded ? `M12 ${POD / 2 - 4}l5 4-5 4z` : `M10 ${POD / 2 - 2}h9l-4.500 5z`}
        fill={group.hue}
        pointerEvents="none"
      />
      <text
        x={24}
        y={POD / 2 + 4}
        fontSize={12.5}
        fill={group.visible ? INK.text : INK.mute}
        cursor="pointer"
        role="button"
        tabIndex={0}
        data-row
        aria-label={`Row of ${group.name}`}
        aria-expanded={!folded}
        onKeyDown={(event) => onRowKey(event, fold)}
        onPointerDown={(event) => {
          event.stopPropagation();
          fold();
        }}
      >
        {clipToRange(group.name, 18)}
      </text>
      <g clipPath="url(#shown-frames)">
        {shares && group.visible && (
          <g transform={`translate(${from} ${POD / 2 - 5})`}>
            <PodShape shares={shares} width={to - from} height={10} hue={group.hue} opacity={0.6} />
          </g>
        )}
      </g>
    </g>
  );
}

/** What several have grown, frame by frame, on an average; null where nothing is known. */
function meanOf(several: readonly Float32Array[]): Float32Array | null {
  if (several.length === 0) return null;
  return several[0].map((_, frame) => {
    let sum = 0;
    for (const shares of several) sum += shares[frame];
    return sum / several.length;
  });
}
