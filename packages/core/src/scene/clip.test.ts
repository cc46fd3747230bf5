import { readClip, growthClip, stepClip, trackClip, writeClip } from './clip';
import { newGrowth, newScene, newStep } from './make';
import { readScene, writeScene } from './read';
import { isTrack, type ParamValue, type Scene } from './schema';
import { asVersion4 } from '../../test/oldScenes';

const track: ParamValue = {
  keys: [
    { frame: 1, value: 0, ease: 'linear' },
    { frame: 9, value: 1, ease: 'linear' },
  ],
  before: 'hold',
  after: 'repeat',
};

function reef(): Scene {
  const scene = newScene('Reef');
  const varied: ParamValue = {
    base: track as never,
    vary: { by: 'random', amount: 0.1, waves: 1, shape: [{ at: 0, value: 1 }] },
  };
  scene.growths = [
    newGrowth('Kelp', 0, [
      newStep('vector', { drawing: 'buoy' }),
      newStep('noise', { amount: varied }),
      newStep('grow', { to: track }),
    ]),
    newGrowth('Other', 1, [newStep('line')]),
  ];
  scene.files = [
    { id: 'buoy', name: 'buoy.svg', kind: 'svg' },
    { id: 'unused', name: 'not.svg', kind: 'svg' },
  ];
  return scene;
}

test('a growth goes and comes back as it was, with the files that it uses and no others', () => {
  const scene = reef();
  const clip = readClip(writeClip(growthClip(scene, scene.growths[0])))!;
  expect(clip.of).toBe('growths');
  expect(clip.scene.growths).toEqual([scene.growths[0]]);
  expect(clip.scene.files.map(({ id }) => id)).toEqual(['buoy']);
});

test('a step alone, and tracks alone: plain values stay behind, a variation loses its base only', () => {
  const scene = reef();
  const [growth] = scene.growths;
  expect(readClip(writeClip(stepClip(scene, growth, [growth.steps[1]])))!.scene.growths[0].steps).toEqual([
    growth.steps[1],
  ]);
  const { steps } = readClip(writeClip(trackClip(scene, growth.id)))!.scene.growths[0];
  expect(steps.map(({ kind, params }) => [kind, Object.keys(params)])).toEqual([
    ['noise', ['amount']],
    ['grow', ['to']],
  ]);
  expect(steps.every(({ params }) => Object.values(params).every(isTrack))).toBe(true);
});

test('other texts are none of ours; damaged ones say so', () => {
  for (const text of ['', 'hello', '{"a": 1}', '{"format": "uvrex-scene"}', '{ uvrex-clip'])
    expect(readClip(text)).toBeNull();
  const text = writeClip(growthClip(reef(), reef().growths[0]));
  expect(() => readClip(text.replace('"of":"growths"', '"of":"everything"'))).toThrow(/unknown kind/);
  for (const own of ['0', '3', '1.5', '"1"'])
    expect(() => readClip(text.replace('"own":1', `"own":${own}`))).toThrow(/how many growths/);
  expect(() => readClip(text.replace('"kind":"noise"', '"kind":"thunder"'))).toThrow(/no step "thunder"/);
});

test('a scene file holds the files that its steps name, and no others', () => {
  expect(readScene(writeScene(reef())).files.map(({ id }) => id)).toEqual(['buoy']);
});

test('scenes of the first version are read: they kept no files', () => {
  const scene = newScene('Old');
  // Cameras went straight from key to key.
  delete scene.camera.travel;
  const old = asVersion4(scene);
  delete old.files;
  old.version = 1;
  expect(readScene(JSON.stringify(old))).toEqual(scene);
});
