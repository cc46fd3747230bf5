'use client';

import ButtonBase from '@mui/material/ButtonBase';
import Tooltip from '@mui/material/Tooltip';
import { INK } from './theme';

/** Whether a value is animated: no track, a track, or a track with a key at the playhead. */
export type LeafState = 'constant' | 'animated' | 'key';

const HELP: Record<LeafState, string> = {
  constant: 'Animate: sets a key here',
  animated: 'Animated: set a key here; with Shift, stop animating',
  key: 'Take this key out; with Shift, stop animating',
};

/** The leaf beside a value: makes it a track, and sets or takes out the key at the playhead. */
export function Leaf({
  state,
  label,
  onClick,
}: {
  state: LeafState;
  label: string;
  /** @param all whether all keys are meant, not just the one here */
  onClick: (all: boolean) => void;
}) {
  const tone = state === 'constant' ? INK.mute : INK.front;
  return (
    <Tooltip title={HELP[state]}>
      <ButtonBase
        aria-label={`${label}: ${HELP[state].toLowerCase()}`}
        data-state={state}
        onClick={(event) => onClick(event.shiftKey && state !== 'constant')}
        sx={{ width: 20, height: 20, borderRadius: 1 }}
      >
        <svg width="14" height="14" viewBox="0 0 14 14" aria-hidden>
          <path
            d="M2 12C1 5 5 2 12 2 12 9 9 13 2 12ZM2 12 7 7"
            fill={state === 'key' ? tone : 'none'}
            stroke={tone}
            strokeWidth="1.3"
            strokeLinejoin="round"
            strokeLinecap="round"
          />
        </svg>
      </ButtonBase>
    </Tooltip>
  );
}
