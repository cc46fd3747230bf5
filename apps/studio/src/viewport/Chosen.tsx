'use client';

import { isShown, type Vec3 } from '@uvrex/core';
import { growthIn, useDocument } from '@/state/document/document';
import { useResults } from '@/state/director/results';
import { useView } from '@/state/document/view';
import { Overlay } from './Overlay';
import { pathOnScreen } from './screenPath';
import { useProjection } from '../state/director/projection';

/** What the selected growth has yet to grow to, dotted. */
export function Chosen() {
  const id = useView((state) => state.growth);
  const growth = useDocument(({ scene }) => {
    const found = growthIn(scene, id);
    return found && isShown(scene, found) ? found : undefined;
  });
  const told = useResults(({ record }) => record?.growths.find((entry) => entry.id === id));
  useProjection((state) => state.drawn);
  if (!growth || !told || told.ahead.length === 0) return null;
  const projection = useProjection.getState();
  const lines = told.ahead.map((piece) => pathOnScreen(placesOf(piece), projection));
  return (
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
  );
}

function* placesOf(flat: ArrayLike<number>): Generator<Vec3> {
  for (let i = 0; i < flat.length; i += 3) yield [flat[i], flat[i + 1], flat[i + 2]];
}
