'use client';

import Box from '@mui/material/Box';
import { type NumberParam, type Scene } from '@uvrex/core';
import { edit, endEdit, useDocument } from '@/state/document';
import { ColorField, ToggleField } from '@/ui/fields';
import { NumberField } from '@/ui/NumberField';
import { Guides } from './Guides';

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
  fps: number('Rate', 'Frames a second.', { unit: 'per-second', min: 1, max: 240, slider: [12, 60] }),
  seed: number('Seed', 'Everything random in the scene hangs on it.', {
    unit: 'count',
    whole: true,
    min: 0,
    max: 4294967295,
    slider: [0, 9999],
  }),
  turn: number('Turn', 'Where the main light stands, about the vertical.', {
    unit: 'deg',
    min: -360,
    max: 360,
    slider: [-180, 180],
  }),
  height: number('Height', 'How high it stands.', { unit: 'deg', min: -90, max: 90, slider: [0, 90] }),
  strength: number('Strength', 'Of all light.', { unit: 'share', min: 0, max: 10, slider: [0, 3] }),
  haze: number('Haze', 'How soon things fade into the distance.', { unit: 'share', min: 0, max: 1 }),
  motes: number('Motes', 'Specks drifting in the water.', { unit: 'share', min: 0, max: 1 }),
  exposure: number('Exposure', 'Brightness of the whole picture.', {
    unit: 'share',
    min: 0.05,
    max: 8,
    slider: [0.2, 3],
  }),
  fov: number('Field of view', 'Of the shot and of this view, from bottom to top.', {
    unit: 'deg',
    min: 5,
    max: 120,
    slider: [12, 80],
  }),
};

/** The scene's own settings: time, light, backdrop, picture. */
export function ScenePanel() {
  const scene = useDocument((state) => state.scene);
  const set = (name: string, recipe: (draft: Scene) => void, live: boolean): void => {
    edit(`Change ${name}`, recipe, `scene:${name}`);
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
  const { backdrop, light, finish, camera } = scene;
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
        '& h3': { m: 0, pt: 1.5, pb: 0.25, fontSize: 12, fontWeight: 600, color: 'text.secondary' },
      }}
    >
      <h3>Time</h3>
      {field('first', first, (draft, next) => (draft.range = [next, Math.max(next + 1, draft.range[1])]))}
      {field('last', last, (draft, next) => (draft.range = [Math.min(next - 1, draft.range[0]), next]))}
      {field('fps', scene.fps, (draft, next) => (draft.fps = next))}
      {field('seed', scene.seed, (draft, next) => (draft.seed = next))}
      <Guides />
      <h3>Light</h3>
      {field('turn', light.turn, (draft, next) => (draft.light.turn = next))}
      {field('height', light.height, (draft, next) => (draft.light.height = next))}
      {field('strength', light.strength, (draft, next) => (draft.light.strength = next))}
      <ColorField
        label="Light colour"
        help="Of the main light."
        value={light.color}
        onChange={(next, live) => set('light colour', (draft) => (draft.light.color = next), live)}
      />
      <h3>Backdrop</h3>
      <ColorField
        label="Above"
        help="Colour of the water where the light comes from."
        value={backdrop.above}
        onChange={(next, live) => set('backdrop', (draft) => (draft.backdrop.above = next), live)}
      />
      <ColorField
        label="Below"
        help="Colour of the deep."
        value={backdrop.below}
        onChange={(next, live) => set('backdrop', (draft) => (draft.backdrop.below = next), live)}
      />
      <ToggleField
        label="Ground"
        help="A floor at height 0 that takes shadows."
        value={backdrop.ground}
        onChange={(next) => set('ground', (draft) => (draft.backdrop.ground = next), false)}
      />
      {field('haze', backdrop.haze, (draft, next) => (draft.backdrop.haze = next))}
      {field('motes', backdrop.motes, (draft, next) => (draft.backdrop.motes = next))}
      <h3>Picture</h3>
      {field('exposure', finish.exposure, (draft, next) => (draft.finish.exposure = next))}
      {field('fov', camera.fov, (draft, next) => (draft.camera.fov = next))}
    </Box>
  );
}
