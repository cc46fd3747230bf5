'use client';

import { baseOf, GUIDE, isTrack, type NumberParam, SCENE_ID, type SceneGuide } from '@uvrex/core';
import { toggleKeys } from '@/state/actions/valueActions';
import { useDocument } from '@/state/document/document';
import { shapeGuide } from '@/state/actions/guides';
import { sceneLook } from '@/state/actions/sceneLook';
import { useView } from '@/state/document/view';
import { INK } from '@/ui/theme';
import { Overlay } from './Overlay';
import { ShapeHandles } from './ShapeHandles';

const PLACE = ['positionX', 'positionY', 'positionZ'];
const TURN = ['turnX', 'turnY', 'turnZ'];

/** The scene's guides, to be moved, turned and sized; the leaf sets keys. */
export function GuideHandles() {
  const scene = useDocument((state) => state.scene);
  const frame = useView((state) => state.frame);
  if (scene.guides.length === 0) return null;
  const { guides } = sceneLook(scene, frame);
  const keysOf = (kind: string): string[] => [
    ...PLACE,
    ...(kind === 'ball' ? ['radius'] : kind === 'point' ? [] : TURN),
  ];
  const keyedHere = ({ params }: SceneGuide, names: readonly string[]): boolean =>
    names.every((name) => {
      const track = baseOf(params[name]);
      return isTrack(track) && track.keys.some((key) => key.frame === frame);
    });
  return (
    <Overlay role="group" label="Guides">
      {guides.map(({ id, name, kind, position, rotation, size }, i) => (
        <ShapeHandles
          key={id}
          of={name}
          name={name}
          hue={INK.text}
          shape={{ which: kind, centre: position, rotation, size, soft: 0 }}
          change={(change) => shapeGuide(id, change)}
          keyed={{
            here: keyedHere(scene.guides[i], keysOf(kind)),
            toggle: () =>
              toggleKeys(SCENE_ID, id, keysOf(kind), GUIDE.params as unknown as Record<string, NumberParam>),
          }}
        />
      ))}
    </Overlay>
  );
}
