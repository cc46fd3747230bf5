'use client';

import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import MenuItem from '@mui/material/MenuItem';
import Popover from '@mui/material/Popover';
import Select from '@mui/material/Select';
import { baseOf, CYCLES, type Cycle, type Ease, EASE_NAMES, easeAt, isTrack } from '@uvrex/core';
import { repeatAll, setCycle, setEase } from '@/state/actions/keyActions';
import { stepIn, useDocument } from '@/state/document/document';
import { useView } from '@/state/document/view';
import { chooseByArrows } from '@/ui/arrows';
import { INK } from '@/ui/theme';
import { CurveEditor } from './CurveEditor';

const CYCLE_WORDS: Record<Cycle, string> = {
  hold: 'Hold',
  repeat: 'Repeat',
  'ping-pong': 'There and back',
  'repeat-offset': 'Repeat onwards',
};

/** How values run on from the chosen keys, and what their track does past its ends. */
export function EasingMenu({ anchor, close }: { anchor: Element; close: () => void }) {
  const keys = useView((state) => state.keys);
  const scene = useDocument((state) => state.scene);
  const first = keys[0];
  const track = first && baseOf(stepIn(scene, first.growth, first.step)?.params[first.param]);
  if (!first || !isTrack(track)) return null;
  const ease = track.keys.find(({ frame }) => frame === first.frame)?.ease;
  return (
    <Popover
      open
      anchorEl={anchor}
      onClose={close}
      anchorOrigin={{ vertical: 'top', horizontal: 'center' }}
      transformOrigin={{ vertical: 'bottom', horizontal: 'center' }}
      slotProps={{ paper: { sx: { p: 1.5, border: `1px solid ${INK.line}`, maxWidth: 680 } } }}
    >
      <Box sx={{ fontSize: 12, color: 'text.secondary', pb: 0.75 }}>
        From {keys.length > 1 ? `these ${keys.length} keys` : 'this key'} to the next
      </Box>
      <Box sx={{ display: 'flex', gap: 1.5 }}>
        {ease !== undefined && <CurveEditor ease={ease} set={(next, merge) => setEase(keys, next, merge)} />}
        <Box
          role="listbox"
          aria-label="Easing"
          onKeyDown={chooseByArrows}
          sx={{ display: 'grid', gridTemplateColumns: 'repeat(6, 1fr)', gap: 0.5, flex: 1 }}
        >
          {EASE_NAMES.map((name) => (
            <ButtonBase
              key={name}
              role="option"
              aria-selected={ease === name}
              tabIndex={ease === name || (typeof ease !== 'string' && name === EASE_NAMES[0]) ? 0 : -1}
              onClick={() => setEase(keys, name)}
              sx={{
                display: 'grid',
                justifyItems: 'center',
                p: 0.5,
                borderRadius: 2,
                fontSize: 10.5,
                color: ease === name ? INK.sprout : INK.mute,
                bgcolor: ease === name ? INK.raised : 'transparent',
                '&:hover': { bgcolor: INK.raised },
              }}
            >
              <EaseCurve ease={name} />
              {name}
            </ButtonBase>
          ))}
        </Box>
      </Box>
      <Box sx={{ display: 'flex', gap: 2, pt: 1.25, fontSize: 12, color: 'text.secondary', alignItems: 'center' }}>
        {(['before', 'after'] as const).map((end) => (
          <Box key={end} sx={{ display: 'flex', gap: 1, alignItems: 'center' }}>
            {end === 'before' ? 'Before the first' : 'After the last'}
            <Select
              variant="standard"
              disableUnderline
              value={track[end]}
              onChange={(event) => setCycle(keys, end, event.target.value as Cycle)}
              inputProps={{ 'aria-label': end === 'before' ? 'Before the first key' : 'After the last key' }}
              sx={{ bgcolor: INK.raised, borderRadius: '7px', px: 1, fontSize: 12.5, height: 24 }}
            >
              {CYCLES.map((cycle) => (
                <MenuItem key={cycle} value={cycle}>
                  {CYCLE_WORDS[cycle]}
                </MenuItem>
              ))}
            </Select>
          </Box>
        ))}
        <ButtonBase
          onClick={() => repeatAll(first.growth)}
          sx={{ ml: 'auto', px: 1, borderRadius: 2, fontSize: 12, color: INK.text, '&:hover': { color: INK.sprout } }}
        >
          Repeat all animation of this growth
        </ButtonBase>
      </Box>
    </Popover>
  );
}

/** A small picture of an easing curve; room above and below for those that overshoot. */
export function EaseCurve({ ease, width = 46, height = 34 }: { ease: Ease; width?: number; height?: number }) {
  const points = Array.from({ length: 41 }, (_, i) => {
    const t = i / 40;
    return `${(3 + t * (width - 6)).toFixed(1)},${(height * 0.8 - easeAt(ease, t) * height * 0.6).toFixed(1)}`;
  });
  return (
    <svg width={width} height={height} aria-hidden>
      <polyline points={points.join(' ')} fill="none" stroke="currentColor" strokeWidth={1.6} strokeLinejoin="round" />
    </svg>
  );
}
