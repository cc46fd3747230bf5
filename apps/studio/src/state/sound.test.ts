import { newGrowth, newScene, newStep, REEF_SOUND } from '@uvrex/core';
import { soundOf } from './sound';

const bars = (params: Record<string, string | number | boolean>) =>
  newGrowth('Bars', 0, [newStep('line'), newStep('grow', params)]);

test('the sound is that of the first shown growth whose levels follow one', () => {
  const scene = newScene('Reef');
  expect(soundOf(scene)).toBeNull();
  scene.growths = [
    bars({ levels: 1 }),
    bars({ levels: 0, levelsBy: 'sound' }),
    bars({ levels: 0.5, levelsBy: 'sound', repeat: false }),
  ];
  expect(soundOf(scene)).toEqual({ file: REEF_SOUND, repeat: false });
  scene.growths[2].visible = false;
  expect(soundOf(scene)).toBeNull();
  scene.growths[2].visible = true;
  scene.growths[2].steps[1].on = false;
  expect(soundOf(scene)).toBeNull();
});
