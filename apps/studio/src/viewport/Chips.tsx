'use client';

import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import Tooltip from '@mui/material/Tooltip';
import { memo, type ReactNode } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { growthIn, useDocument } from '@/state/document/document';
import { runCommand } from '@/state/actions/commands';
import { stopPainting } from '@/state/actions/painting';
import { giveUp, useResults } from '@/state/director/results';
import { chooseQuality, type Look, type Quality, setView, useView } from '@/state/document/view';
import { sayProblem } from '@/state/toasts';
import { INK, MONO } from '@/ui/theme';
import { useProjection } from '../state/director/projection';

const LOOKS: [Look, string, string][] = [
  ['finished', 'Finished', 'Skins with colour and light'],
  ['paths', 'Paths', "The paths alone, in the growths' hues"],
  ['points', 'Points', 'The points that the paths are made of'],
];

const QUALITIES: [Quality, string, string][] = [
  ['auto', 'Auto', 'Quick while things move, fine when they rest'],
  ['draft', 'Draft', 'No shadows, coarse pixels'],
  ['standard', 'Standard', 'Shadows and full shading'],
  ['fine', 'Fine', 'Four times the pixels, smooth edges'],
];

/** Frames between ghosts that are offered in turn. */
const APART = [0, 2, 6, 12];

/** The small bars in the viewport's corners. */
export const Chips = memo(function Chips() {
  const { look, overlay, quality, tool, drawOn, redraw, eye, ghosts, alone, grid } = useView(
    useShallow(({ look, overlay, quality, tool, drawOn, redraw, eye, ghosts, alone, grid }) => ({
      look,
      overlay,
      quality,
      tool,
      drawOn,
      redraw,
      eye,
      ghosts,
      alone,
      grid,
    })),
  );
  return (
    <>
      <Edge side="top">
        <Bar label="What is shown">
          {LOOKS.map(([value, label, help]) => (
            <Choice key={value} label={label} help={help} on={look === value} pick={() => setView({ look: value })} />
          ))}
          {look === 'finished' && (
            <Choice
              label="+ Paths"
              help="Draws the paths over the skins"
              on={overlay}
              pick={() => setView({ overlay: !overlay })}
            />
          )}
          <Choice
            label="Isolate"
            help="Draws all but the chosen growths faintly (A)"
            on={alone}
            pick={() => runCommand('alone')}
          />
          <Choice
            label={ghosts > 0 ? `Ghosts, ${ghosts} apart` : 'Ghosts'}
            help="Shows frames before and after faintly: 2, 6 or 12 frames apart, or none"
            on={ghosts > 0}
            pick={() => setView({ ghosts: APART[(APART.indexOf(ghosts) + 1) % APART.length] })}
          />
        </Bar>
        <Bar label="Picture quality">
          {QUALITIES.map(([value, label, help]) => (
            <Choice key={value} label={label} help={help} on={quality === value} pick={() => chooseQuality(value)} />
          ))}
        </Bar>
      </Edge>
      <Edge side="bottom">
        <Statistics />
        <Bar label="View and drawing">
          {tool === 'pick' ? (
            <>
              <Box component="span" sx={{ color: 'text.secondary' }}>
                Click the point to follow
              </Box>
              <Choice label="Stop picking" help="Esc" on={false} pick={() => setView({ tool: 'look' })} />
            </>
          ) : tool === 'place' ? (
            <>
              <Box component="span" sx={{ color: 'text.secondary' }}>
                Click where places are to be
              </Box>
              <Choice label="Done" help="Esc" on={false} pick={() => setView({ tool: 'look', placing: null })} />
            </>
          ) : tool === 'paint' ? (
            <>
              <Box component="span" sx={{ color: 'text.secondary' }}>
                Drag over the form: Alt erases, Shift sizes the brush
              </Box>
              <Choice label="Done" help="Esc" on={false} pick={stopPainting} />
            </>
          ) : tool === 'measure' ? (
            <>
              <Box component="span" sx={{ color: 'text.secondary' }}>
                Click two points, on forms or on the ground
              </Box>
              <Choice label="Done" help="Esc" on={false} pick={() => setView({ tool: 'look' })} />
            </>
          ) : tool === 'draw' ? (
            <>
              <Box component="span" sx={{ color: 'text.secondary' }}>
                {redraw ? (redraw.part ? 'Redraw a part on' : 'Redraw on') : 'Draw on'}
              </Box>
              <Choice
                label="View plane"
                help="The plane through the view's centre that faces you"
                on={drawOn === 'view'}
                pick={() => setView({ drawOn: 'view' })}
              />
              <Choice
                label="Ground"
                help="The ground at height 0"
                on={drawOn === 'ground'}
                pick={() => setView({ drawOn: 'ground' })}
              />
              <Choice
                label="Surface"
                help="The skin of whatever lies under the pointer"
                on={drawOn === 'surface'}
                pick={() => setView({ drawOn: 'surface' })}
              />
              <Choice label="Stop drawing" help="Esc" on={false} pick={() => setView({ tool: 'look', redraw: null })} />
            </>
          ) : (
            <>
              {/* At the free end of the bar: what stands beside it does not move away under the pointer. */}
              {eye && (
                <Choice
                  label="Set camera to view"
                  help="Makes this view the shot's camera; where the camera is animated, sets a key here"
                  on={false}
                  pick={() =>
                    void import('@/state/actions/cameraShot')
                      .then(({ keepAsShot }) => keepAsShot(eye))
                      .catch(sayProblem)
                  }
                />
              )}
              <Choice
                label="Draw"
                help="Draw a path freehand (D)"
                on={false}
                pick={() => setView({ tool: 'draw', redraw: null, playing: false })}
              />
              <Choice
                label="See all"
                help="Brings everything into view (O)"
                on={false}
                pick={() => runCommand('all')}
              />
              <Choice
                label="Front"
                help="From the front, or the back (1)"
                on={false}
                pick={() => runCommand('front')}
              />
              <Choice label="Side" help="From the right, or the left (2)" on={false} pick={() => runCommand('side')} />
              <Choice label="Top" help="From above (3)" on={false} pick={() => runCommand('top')} />
              <Choice label="Grid" help="Grid and axes (X)" on={grid} pick={() => runCommand('grid')} />
              <Choice
                label="Distance"
                help="How far two points are apart (R)"
                on={false}
                pick={() => runCommand('measure')}
              />
              <Choice
                label="Shot"
                help="Look through the shot's camera, as pictures and films are made"
                on={eye === null}
                pick={() => setView({ eye: null })}
              />
            </>
          )}
        </Bar>
      </Edge>
    </>
  );
});

/** The bars along one edge of the view: beside each other, or where there is no room below each other. */
function Edge({ side, children }: { side: 'top' | 'bottom'; children: ReactNode }) {
  return (
    <Box
      style={{ [side]: 12 }}
      sx={{
        position: 'absolute',
        left: 14,
        right: 14,
        display: 'flex',
        flexWrap: 'wrap',
        justifyContent: 'space-between',
        gap: 0.75,
        pointerEvents: 'none',
        '& > *': { pointerEvents: 'auto' },
      }}
    >
      {children}
    </Box>
  );
}

function Bar({ label, children }: { label: string; children: ReactNode }) {
  return (
    <Box
      role="group"
      aria-label={label}
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: 0.25,
        px: 0.75,
        minHeight: 28,
        fontSize: 12,
        borderRadius: 4,
        bgcolor: '#0b1316c8',
        border: `1px solid ${INK.line}99`,
        whiteSpace: 'nowrap',
      }}
    >
      {children}
    </Box>
  );
}

function Choice({ label, help, on, pick }: { label: string; help: string; on: boolean; pick: () => void }) {
  return (
    <Tooltip title={help}>
      <ButtonBase
        aria-pressed={on}
        onClick={pick}
        sx={{
          px: 0.9,
          py: 0.4,
          borderRadius: 3,
          fontSize: 12,
          fontFamily: 'inherit',
          fontWeight: on ? 650 : 450,
          color: on ? INK.sprout : INK.mute,
          '&:hover': { color: on ? INK.sprout : INK.text },
        }}
      >
        {label}
      </ButtonBase>
    </Tooltip>
  );
}

const compact = (n: number): string =>
  n >= 1e6 ? `${(n / 1e6).toFixed(1)}M` : n >= 1e4 ? `${(n / 1e3).toFixed(1)}k` : n.toLocaleString('en-GB');

/** Faces, copies and time of the frame on screen; while a long evaluation runs, which step is at it and how to stop it. */
function Statistics() {
  const record = useResults((state) => state.record);
  const busy = useResults((state) => state.busy);
  const complete = useProjection((state) => state.complete);
  if (busy) {
    const growth = growthIn(useDocument.getState().scene, busy.stage?.growth ?? null);
    const seconds = ((performance.now() - busy.since) / 1000).toFixed(1);
    return (
      <Bar label="At work">
        <Box component="span" role="status" sx={{ px: 0.75, color: INK.front, fontFamily: MONO }}>
          {growth ? `${growth.name}: ` : ''}working {seconds} s
        </Box>
        <Choice label="Stop" help="Gives this evaluation up; the last picture stays" on={false} pick={giveUp} />
      </Bar>
    );
  }
  // Holds the place at the left of its edge.
  if (!record) return <span />;
  const sum = (of: 'faces' | 'copies' | 'points'): number =>
    record.growths.reduce((total, growth) => total + growth.counts[of], 0);
  return (
    <Bar label="Statistics">
      <Box
        component="span"
        data-testid="statistics"
        sx={{ px: 0.75, fontFamily: MONO, color: INK.mute, '& b': { color: INK.text, fontWeight: 500 } }}
      >
        <b>{compact(sum('faces'))} faces</b>&ensp;{compact(sum('points'))} points&ensp;{compact(sum('copies'))}{' '}
        copies&ensp;
        {complete < 1 ? (
          <Box component="span" sx={{ color: INK.front }}>
            drawing, {Math.floor(100 * complete)} %
          </Box>
        ) : record.coarse ? (
          <Box component="span" sx={{ color: INK.front }}>
            coarse while it changes
          </Box>
        ) : (
          `${record.milliseconds.toFixed(1)} ms`
        )}
      </Box>
    </Bar>
  );
}
