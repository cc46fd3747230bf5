'use client';

import { type KeyboardEvent, useState } from 'react';
import { changeMarker } from '@/state/actions/keyActions';
import { edit, useDocument } from '@/state/document/document';
import { setView } from '@/state/document/view';
import { useDrag } from '@/ui/drag';
import { RenameInput } from '@/ui/RenameInput';
import { INK } from '@/ui/theme';
import { frameAt, type Scale, xOf } from '../state/document/timeScale';

/** Named moments on the ruler: click to go there, drag to move, double-click or Enter to name, Delete to remove. */
export function Markers({ scale }: { scale: Scale }) {
  const markers = useDocument((state) => state.scene.markers);
  const [naming, setNaming] = useState<number | null>(null);
  const drag = useDrag<number>({
    move: (index, { at }) => changeMarker(index, { frame: frameAt(scale, at.x) }, 'marker'),
    // It may have been deleted while it was pressed.
    click: (index) => markers[index] && setView({ frame: markers[index].frame, playing: false }),
  });
  const onKey = (event: KeyboardEvent, index: number): void => {
    const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    const { frame } = markers[index];
    if (by) changeMarker(index, { frame: frame + by }, 'marker');
    else if (event.key === 'Delete' || event.key === 'Backspace')
      edit('Take a marker away', (draft) => void draft.markers.splice(index, 1));
    else if (event.key === 'Enter') setNaming(index);
    else if (event.key === ' ') setView({ frame, playing: false });
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <g>
      {markers.map(({ frame, name }, index) => {
        const x = xOf(scale, frame);
        if (frame < scale.first || frame > scale.last) return null;
        return (
          <g key={index} transform={`translate(${x} 0)`}>
            <path
              d="M0 24C-5 19-5 15 0 13 5 15 5 19 0 24Z"
              fill={INK.sprout}
              stroke={INK.deep}
              tabIndex={0}
              role="button"
              aria-label={`Marker ${name || 'without a name'} at frame ${frame}`}
              cursor="pointer"
              onKeyDown={(event) => onKey(event, index)}
              onDoubleClick={() => setNaming(index)}
              {...drag(index)}
            />
            {naming === index ? (
              <foreignObject x={7} y={4} width={120} height={22} onPointerDown={(event) => event.stopPropagation()}>
                <RenameInput
                  value={name}
                  label="Name of the marker"
                  done={(next) => {
                    setNaming(null);
                    if (next !== null) changeMarker(index, { name: next });
                  }}
                />
              </foreignObject>
            ) : (
              name && (
                <text x={7} y={22} fontSize={10.5} fill={INK.sprout} pointerEvents="none">
                  {name}
                </text>
              )
            )}
          </g>
        );
      })}
    </g>
  );
}
