'use client';

import type { Anchor, Growth, Step, Vec3 } from '@uvrex/core';
import { setParam } from '@/state/actions/valueActions';
import { useView } from '@/state/document/view';
import { type Spot, useDrag } from '@/ui/drag';
import { keyStep } from '@/ui/pressed';
import { INK } from '@/ui/theme';
import { say } from '@/state/toasts';
import { Grip } from './Grip';
import { PlacingLayer } from './PlacingLayer';
import { useOwnSpace } from './ownSpace';
import { skinUnder, toScreen, useProjection } from '../state/director/projection';
import { toTenthMillimetre } from './snapping';

interface Props {
  growth: Growth;
  step: Step;
  /** The parameter that holds the places. */
  param: string;
}

/** Places on a form: clicks put new ones down while they are being placed; those that are there can be dragged and deleted. */
export function PlaceLayer({ growth, step, param }: Props) {
  // Drawn again with every picture, since the camera may have moved.
  useProjection((state) => state.drawn);
  const placing = useView(({ placing: now }) => now?.step === step.id && now.param === param);
  const { toOwn, toWorld } = useOwnSpace(growth);
  const places = step.params[param] as readonly Anchor[];
  const projection = useProjection.getState();
  const set = (next: readonly Anchor[], merge: string | null = null): void =>
    setParam(growth.id, step.id, param, [...next], merge);

  /** The place on the skin that is under a place in the view, in the growth's own space. */
  const under = ({ x, y }: Spot): Vec3 | null => {
    const hit = skinUnder(x, y, useProjection.getState());
    return hit && toTenthMillimetre(toOwn(hit.place));
  };
  const drag = useDrag<number>({
    move(i, { at }) {
      // It may have been deleted meanwhile, by key or by undo.
      const place = places[i] && under(at);
      if (place) set(places.with(i, place), 'place');
    },
  });
  return (
    <PlacingLayer
      label="Places on the form"
      id="place-layer"
      placing={placing}
      put={(spot) => {
        const place = under(spot);
        if (place) set([...places, place]);
        else say({ tone: 'info', text: 'There was nothing there: click on the form.' });
      }}
    >
      {places.map((anchor, i) => {
        const dot = toScreen(toWorld([anchor[0], anchor[1], anchor[2]]), projection);
        if (!dot) return null;
        return (
          <Grip
            key={i}
            at={dot}
            label={`Place ${i + 1} of ${places.length}`}
            fill={INK.front}
            stroke={INK.deep}
            onKeyDown={(event) => {
              if (keyStep(event, { Delete: true, Backspace: true })) set(places.filter((_, k) => k !== i));
            }}
            {...drag(i)}
          />
        );
      })}
    </PlacingLayer>
  );
}
