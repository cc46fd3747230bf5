'use client';

import Box from '@mui/material/Box';
import { followPoint } from '@/checks/follow';
import { setView } from '@/state/document/view';
import { say } from '@/state/toasts';
import { skinUnder, useProjection } from '../state/director/projection';

/** Takes one click on a skin: the point there is followed over the range. */
export function PickLayer() {
  return (
    <Box
      data-testid="pick-layer"
      sx={{ position: 'absolute', inset: 0, cursor: 'crosshair', touchAction: 'none' }}
      onClick={(event) => {
        const box = event.currentTarget.getBoundingClientRect();
        const hit = skinUnder(event.clientX - box.left, event.clientY - box.top, useProjection.getState());
        if (!hit?.target) {
          say({
            tone: 'info',
            text: hit
              ? 'Nothing of that stays the same from frame to frame: pick a copy, or the skin of a path.'
              : 'There was nothing there: click on a copy, or on the skin of a path.',
          });
          return;
        }
        setView({ tool: 'look', checks: true });
        void followPoint(hit.target);
      }}
    />
  );
}
