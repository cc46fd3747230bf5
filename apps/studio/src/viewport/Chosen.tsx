'use client';

import Box from '@mui/material/Box';
import { useEffect } from 'react';
import { isShown, type Vec3 } from '@uvrex/core';
import { growthIn, useDocument } from '@/state/document';
import { useResults } from '@/state/results';
import { setView, useView } from '@/state/view';
import { Overlay } from './Overlay';
import { pathOnScreen } from './screenPath';
import { toScreen, useProjection } from './projection';

/** How long what was chosen in the view is outlined, milliseconds. */
const SHOWN = 1200;

/** What the selected growth has yet to grow to, dotted; and for a moment the frame of one that has been clicked. */
export function Chosen() {
  const id = useView((state) => state.growth);
  const pointed = useView((state) => state.pointed);
  const growth = useDocument(({ scene }) => {
    const found = growthIn(scene, id);
    return found && isShown(scene, found) ? found : undefined;
  });
  const told = useResults(({ record }) => record?.growths.find((entry) => entry.id === id));
  useProjection((state) => state.drawn);
  useEffect(() => {
    if (!pointed) return;
    const timer = setTimeout(() => setView({ pointed: null }), SHOWN);
    return () => clearTimeout(timer);
  }, [pointed]);
  if (!growth || !told) return null;
  const projection = useProjection.getState();
  const lines = told.ahead.map((piece) => pathOnScreen(placesOf(piece), projection));
  const framed = pointed?.growth === id && told.bounds ? cornersOf(told.bounds, projection) : null;
  return (
    <>
      {lines.length > 0 && (
        <Overlay role="img" label={`What ${growth.name} has yet to grow to`} id="ahead">
          <path
            d={lines.join('')}
            fill="none"
            stroke={growth.hue}
            strokeWidth={1.6}
            strokeLinecap="round"
            strokeDasharray="0.1 6"
            opacity={0.55}
          />
        </Overlay>
      )}
      {framed && (
        <Box
          data-testid="pointed"
          aria-hidden
          style={{ left: framed.left, top: framed.top, width: framed.width, height: framed.height }}
          sx={{
            position: 'absolute',
            pointerEvents: 'none',
            borderRadius: 2,
            border: `1.5px solid ${growth.hue}`,
            '@keyframes fade': { from: { opacity: 0.9 }, to: { opacity: 0 } },
            animation: `fade ${SHOWN}ms ease-in forwards`,
          }}
        />
      )}
    </>
  );
}

function* placesOf(flat: ArrayLike<number>): Generator<Vec3> {
  for (let i = 0; i < flat.length; i += 3) yield [flat[i], flat[i + 1], flat[i + 2]];
}

/** The frame on screen round a box in space, a little wider. */
function cornersOf(
  { min, max }: { min: readonly number[]; max: readonly number[] },
  projection: ReturnType<typeof useProjection.getState>,
): { left: number; top: number; width: number; height: number } | null {
  const dots = Array.from({ length: 8 }, (_, k) =>
    toScreen([k & 1 ? max[0] : min[0], k & 2 ? max[1] : min[1], k & 4 ? max[2] : min[2]], projection),
  ).flatMap((dot) => dot ?? []);
  if (dots.length < 8) return null;
  const [xs, ys] = [dots.map(({ x }) => x), dots.map(({ y }) => y)];
  const [left, top] = [Math.min(...xs) - 6, Math.min(...ys) - 6];
  return { left, top, width: Math.max(...xs) + 6 - left, height: Math.max(...ys) + 6 - top };
}
