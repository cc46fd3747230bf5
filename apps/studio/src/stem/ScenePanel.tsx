'use client';

import Box from '@mui/material/Box';
import { declarationOf, type NumberParam, type Scene, SCENE_ID } from '@uvrex/core';
import { changeFrameRate } from '@/state/actions/frameRate';
import { edit, endEdit, holderIn, useDocument } from '@/state/document/document';
import { NumberField } from '@/ui/NumberField';
import { Guides } from './Guides';
import { ParamFields } from './ParamFields';

const number = (
  label: string,
  help: string,
  more: Partial<NumberParam> & Pick<NumberParam, 'min' | 'max'>,
): NumberParam => ({
  type: 'number',
  unit: 'plain',
  label,
  help,
  default: 0,
  ...more,
});

const FIELDS = {
  first: number('First', 'First frame that is played.', {
    unit: 'count',
    whole: true,
    min: -100000,
    max: 99999,
    slider: [0, 240],
  }),
  last: number('Last', 'Last frame that is played.', {
    unit: 'count',
    whole: true,
    min: -99999,
    max: 100000,
    slider: [1, 480],
  }),
  fps: number(
    'Frames per second',
    'How fast frames follow one another. Keys keep their frames; what appears below the picture gives them their seconds back.',
    { unit: 'per-second', min: 1, max: 240, slider: [12, 60] },
  ),
  seed: number('Seed', 'Everything random in the scene hangs on it.', {
    unit: 'count',
    whole: true,
    min: 0,
    max: 4294967295,
    slider: [0, 9999],
  }),
};

/** The scene's own settings: time, light, backdrop, picture. */
export function ScenePanel() {
  const scene = useDocument((state) => state.scene);
  const set = (name: string, recipe: (draft: Scene) => void, live: boolean): void => {
    edit(`Change ${name}`, recipe, { merge: `scene:${name}` });
    if (!live) endEdit();
  };
  const field = (key: keyof typeof FIELDS, value: number, recipe: (draft: Scene, next: number) => void) => (
    <NumberField
      spec={FIELDS[key]}
      value={value}
      onChange={(next, live) => set(FIELDS[key].label.toLowerCase(), (draft) => recipe(draft, next), live)}
    />
  );
  const [first, last] = scene.range;
  const holder = holderIn(scene, SCENE_ID)!;
  return (
    <Box
      component="section"
      aria-label="Scene, light and camera"
      sx={{
        flex: 1,
        minHeight: 0,
        overflowY: 'auto',
        px: 1.75,
        pb: 3,
        '& h2': { m: 0, pt: 1.5, pb: 0.25, fontSize: 12, fontWeight: 600, color: 'text.secondary' },
      }}
    >
      <h2>Time</h2>
      {field('first', first, (draft, next) => (draft.range = [next, Math.max(next + 1, draft.range[1])]))}
      {field('last', last, (draft, next) => (draft.range = [Math.min(next - 1, draft.range[0]), next]))}
      <NumberField spec={FIELDS.fps} value={scene.fps} onChange={changeFrameRate} />
      {field('seed', scene.seed, (draft, next) => (draft.seed = next))}
      <Guides holder={holder} />
      {holder.steps
        .filter(({ kind }) => kind !== 'guide')
        .map((owner) => {
          const declaration = declarationOf(owner.kind)!;
          return (
            <Box key={owner.id} role="group" aria-label={declaration.label}>
              <h2>{declaration.label}</h2>
              <ParamFields growth={holder} step={owner} declaration={declaration} />
            </Box>
          );
        })}
    </Box>
  );
}
