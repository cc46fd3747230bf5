import { isTrack, newScene } from '@uvrex/core';
import { addStartedGrowth, selectedGrowth } from './growthActions';
import { COMMANDS, keysText, runCommand } from './commands';
import { openScene, useDocument } from '../document/document';
import { SCENE_ENTRY, setView, useView } from '../document/view';

beforeEach(() => {
  openScene('test', newScene('Reef'));
  setView({ frame: 10, growth: SCENE_ENTRY, keys: [], playing: false, look: 'finished' });
});

test('no two commands share a key, an id or a name', () => {
  const keys = COMMANDS.flatMap(({ keys: all }) => all?.split(', ') ?? []);
  expect(new Set(keys).size).toBe(keys.length);
  expect(new Set(COMMANDS.map(({ id }) => id)).size).toBe(COMMANDS.length);
  expect(new Set(COMMANDS.map(({ label }) => label)).size).toBe(COMMANDS.length);
});

test('stepping stays within the range and stops playing', () => {
  setView({ playing: true });
  runCommand('back12');
  expect(useView.getState()).toMatchObject({ frame: 1, playing: false });
  runCommand('last');
  runCommand('on');
  expect(useView.getState().frame).toBe(144);
});

test('from key to key, and keys on everything that is animated', () => {
  addStartedGrowth('line');
  setView({ frame: 40 });
  runCommand('keyAll');
  const to = selectedGrowth()!.steps[1].params.to;
  expect(isTrack(to) && to.keys.map(({ frame }) => frame)).toEqual([1, 40, 115]);
  // Where there is one already it stays, and what is not animated stays so.
  runCommand('keyAll');
  const animated = selectedGrowth()!.steps.flatMap(({ params }) => Object.values(params).filter(isTrack));
  expect(animated).toEqual([to]);
  runCommand('keyAfter');
  expect(useView.getState().frame).toBe(115);
  runCommand('keyBefore');
  runCommand('keyBefore');
  expect(useView.getState().frame).toBe(1);
});

test('a command that can do nothing does nothing', () => {
  runCommand('undo');
  runCommand('duplicate');
  runCommand('remove');
  expect(useDocument.getState().scene.growths).toHaveLength(0);
});

test('looks go round', () => {
  const seen = [1, 2, 3].map(() => {
    runCommand('look');
    return useView.getState().look;
  });
  expect(seen).toEqual(['paths', 'points', 'finished']);
});

test('keys are written as people read them', () => {
  expect(keysText('mod+shift+z, mod+y')).toBe('Ctrl Shift Z  or  Ctrl Y');
  expect(keysText('space')).toBe('Space');
});
