'use client';

import Pause from '@mui/icons-material/Pause';
import PlayArrow from '@mui/icons-material/PlayArrow';
import SkipNext from '@mui/icons-material/SkipNext';
import SkipPrevious from '@mui/icons-material/SkipPrevious';
import VolumeOff from '@mui/icons-material/VolumeOff';
import VolumeUp from '@mui/icons-material/VolumeUp';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import InputBase from '@mui/material/InputBase';
import Tooltip from '@mui/material/Tooltip';
import { memo, useState } from 'react';
import { edit, useDocument } from '@/state/document/document';
import { useResults } from '@/state/director/results';
import { runCommand } from '@/state/actions/commands';
import { soundOf } from '@/state/audio/sound';
import { setView, useView } from '@/state/document/view';
import { INK, MONO } from '@/ui/theme';

/** Playing, the frame at the playhead, loop, and the easing of the chosen keys. */
export const Transport = memo(function Transport({ openEasing }: { openEasing: (anchor: Element) => void }) {
  const playing = useView((state) => state.playing);
  const muted = useView((state) => state.muted);
  const sounds = useDocument((state) => soundOf(state.scene) !== null);
  const chosen = useView((state) => state.keys.length);
  const range = useDocument((state) => state.scene.range);
  const fps = useDocument((state) => state.scene.fps);
  const loop = useDocument((state) => state.scene.loop);
  return (
    <Box
      sx={{
        containerType: 'inline-size',
        flexShrink: 0,
        // What is only told gives way to what is done.
        '@container (max-width: 800px)': { '& .told': { display: 'none' } },
      }}
    >
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.25, px: 1.75, height: 40, flexShrink: 0 }}>
        <Tooltip title={playing ? 'Stop (Space)' : 'Play (Space)'}>
          <IconButton
            aria-label={playing ? 'Stop' : 'Play'}
            onClick={() => runCommand('play')}
            sx={{ bgcolor: INK.front, color: '#2a0f05', width: 28, height: 28, '&:hover': { bgcolor: '#ffa27c' } }}
          >
            {playing ? <Pause fontSize="small" /> : <PlayArrow fontSize="small" />}
          </IconButton>
        </Tooltip>
        <Box sx={{ display: 'flex', alignItems: 'center' }}>
          <Tooltip title="Previous frame (←)">
            <IconButton
              aria-label="Previous frame"
              onClick={() => runCommand('back')}
              sx={{ p: 0.25, color: 'text.secondary' }}
            >
              <SkipPrevious fontSize="small" />
            </IconButton>
          </Tooltip>
          <FrameFigure range={range} />
          <Tooltip title="Next frame (→)">
            <IconButton
              aria-label="Next frame"
              onClick={() => runCommand('on')}
              sx={{ p: 0.25, color: 'text.secondary' }}
            >
              <SkipNext fontSize="small" />
            </IconButton>
          </Tooltip>
        </Box>
        {sounds && (
          <Tooltip title={muted ? 'Sound on (M)' : 'Sound off (M)'}>
            <IconButton
              aria-label={muted ? 'Sound on' : 'Sound off'}
              onClick={() => runCommand('mute')}
              sx={{ p: 0.25, color: muted ? 'text.secondary' : INK.front }}
            >
              {muted ? <VolumeOff fontSize="small" /> : <VolumeUp fontSize="small" />}
            </IconButton>
          </Tooltip>
        )}
        <Box
          sx={{
            display: 'flex',
            alignItems: 'center',
            gap: 0.5,
            fontFamily: MONO,
            color: 'text.secondary',
            fontSize: 12.5,
          }}
        >
          of
          <TypedFigure
            label="First frame"
            value={range[0]}
            set={(next) => setRange([next, Math.max(range[1], next + 1)])}
          />
          –
          <TypedFigure
            label="Last frame"
            value={range[1]}
            set={(next) => setRange([Math.min(range[0], next - 1), next])}
          />
          <TypedFigure label="Frames per second" value={fps} set={(next) => void changeFrameRate(next)} />
          fps
        </Box>
        <Button
          aria-pressed={loop}
          variant="outlined"
          color={loop ? 'primary' : 'inherit'}
          onClick={() => edit(loop ? 'Play once' : 'Loop', (scene) => void (scene.loop = !loop))}
          sx={{ py: 0.1, borderColor: loop ? INK.sprout : INK.line }}
        >
          Loop
        </Button>
        <Box sx={{ ml: 'auto' }} />
        <Ready total={range[1] - range[0] + 1} />
        <Tooltip title="Set or remove a marker here (I)">
          <Button
            color="inherit"
            onClick={() => runCommand('marker')}
            sx={{ py: 0.1, border: `1px solid ${INK.line}` }}
          >
            Marker
          </Button>
        </Tooltip>
        {chosen > 1 && (
          <Tooltip title="Each track's first chosen key to the playhead (G)">
            <Button
              color="inherit"
              onClick={() => runCommand('align')}
              sx={{ py: 0.1, border: `1px solid ${INK.line}` }}
            >
              Align
            </Button>
          </Tooltip>
        )}
        <Button
          color="inherit"
          disabled={chosen === 0}
          onClick={(event) => openEasing(event.currentTarget)}
          sx={{ py: 0.1, border: `1px solid ${INK.line}` }}
        >
          Easing{chosen > 1 ? ` of ${chosen}` : ''}
        </Button>
      </Box>
    </Box>
  );
});

/** What changes at every frame stands by itself: the bar around it need not be drawn anew. */
function FrameFigure({ range }: { range: readonly [number, number] }) {
  const frame = useView((state) => state.frame);
  return (
    <TypedFigure
      label="Frame"
      value={frame}
      shown={String(Number(frame.toFixed(2))).padStart(3, '0')}
      set={(next) => setView({ frame: Math.min(range[1], Math.max(range[0], next)), playing: false })}
      style={{ fontFamily: MONO, fontSize: 20, fontWeight: 500, width: 62 }}
    />
  );
}

/** How many frames are ready; a click decides whether all are made so by themselves. */
function Ready({ total }: { total: number }) {
  const ahead = useView((state) => state.ahead);
  return (
    <Tooltip
      title={
        ahead
          ? 'All frames are made ready in the background. Click to make only those shown, which saves power.'
          : 'Only frames that are shown or played are made. Click to make all of them ready in the background.'
      }
    >
      <Button
        className="told"
        color="inherit"
        aria-pressed={ahead}
        onClick={() => runCommand('ahead')}
        sx={{ py: 0.1, fontSize: 12, fontWeight: 400, color: 'text.secondary', whiteSpace: 'nowrap' }}
      >
        <ReadyFigure total={total} />
      </Button>
    </Tooltip>
  );
}

/** What changes with every frame that is ready stands by itself: the button around it need not be drawn anew. */
function ReadyFigure({ total }: { total: number }) {
  const ready = useResults((state) => state.ready.size);
  const ahead = useView((state) => state.ahead);
  if (ready >= total) return 'All frames ready';
  return `${ready} of ${total} frames ready${ahead ? '' : ', others when shown'}`;
}

/** What asks for a rate is loaded when there is a new one. */
async function changeFrameRate(next: number): Promise<void> {
  const module = await import('@/state/actions/frameRate');
  module.changeFrameRate(next);
}

const setRange = (range: [number, number]): void =>
  void edit('Change range', (scene) => void (scene.range = range.map(Math.round) as [number, number]));

interface FigureProps {
  label: string;
  value: number;
  /** How the value is written; the plain figure where left out. */
  shown?: string;
  set: (value: number) => void;
  style?: object;
}

/** A figure that can be typed over; what is no number is dropped. */
function TypedFigure({ label, value, shown = String(value), set, style }: FigureProps) {
  const [text, setText] = useState<string | null>(null);
  const commit = (): void => {
    const typed = Number(text);
    if (text !== null && text.trim() !== '' && Number.isFinite(typed) && typed !== value) set(typed);
    setText(null);
  };
  return (
    <InputBase
      value={text ?? shown}
      onFocus={(event) => event.target.select()}
      onChange={(event) => setText(event.target.value)}
      onBlur={commit}
      onKeyDown={(event) => {
        if (event.key === 'Enter') (event.target as HTMLElement).blur();
        if (event.key === 'Escape') setText(null);
      }}
      inputProps={{ 'aria-label': label, inputMode: 'decimal' }}
      sx={{
        font: 'inherit',
        color: 'inherit',
        width: `${Math.max(2, shown.length) + 1.2}ch`,
        borderRadius: '6px',
        '&:hover, &.Mui-focused': { bgcolor: INK.raised },
        '& input': { p: 0, textAlign: 'center' },
        ...style,
      }}
    />
  );
}
