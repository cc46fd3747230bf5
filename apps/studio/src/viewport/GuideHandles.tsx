'use client';

import { useDocument, endEdit } from '@/state/document';
import { changeGuide } from '@/state/guides';
import { INK } from '@/ui/theme';
import { Overlay } from './Overlay';
import { type ShapeChange, ShapeHandles } from './ShapeHandles';

/** The scene's guides, to be moved, turned and sized. */
export function GuideHandles() {
  const guides = useDocument((state) => state.scene.guides);
  if (guides.length === 0) return null;
  return (
    <Overlay role="group" label="Guides">
      {guides.map(({ id, name, kind, position, rotation, size }) => (
        <ShapeHandles
          key={id}
          of={name}
          name={name}
          hue={INK.text}
          shape={{ which: kind, centre: position, rotation, size, soft: 0 }}
          change={({ centre, rotation: turned, radius, size: sized }: ShapeChange) =>
            changeGuide(id, {
              ...(centre && { position: centre }),
              ...(turned && { rotation: turned }),
              ...(radius !== undefined && { size: [2 * radius, 2 * radius, 2 * radius] as const }),
              ...(sized && { size: sized }),
            })
          }
          done={endEdit}
        />
      ))}
    </Overlay>
  );
}
