import {
  growthClip,
  isTrack,
  newGrowth,
  newScene,
  newStep,
  type Scene,
  stepClip,
  type Track,
  trackClip,
  writeClip,
} from '@uvrex/core';
import { stopAnimating, toggleKey, setVariation } from './valueActions';
import { copyText, pasteText } from './clips';
import { openScene, travel, useDocument } from '../document/document';
import { setView, useView } from '../document/view';

const scene = (): Scene => useDocument.getState().scene;
const filled = (): Scene => {
  const made = newScene('Reef');
  made.growths = [
    { ...newGrowth('Rider', 0, [newStep('line')]), id: 'rider' },
    {
      ...newGrowth('Rope', 1, [
        newStep('line'),
        newStep('grow', {
          to: {
            keys: [
              { frame: 1, value: 0, ease: 'linear' },
              { frame: 50, value: 1, ease: 'linear' },
            ],
            before: 'hold',
            after: 'hold',
          },
        }),
        newStep('tips', { growth: 'rider' }),
      ]),
      id: 'rope',
    },
  ];
  return made;
};

beforeEach(() => {
  openScene('test', filled());
  setView({ growth: 'rope', focusStep: null, keys: [], frame: 10 });
});

test('a growth pasted where it came from gets a name and an id of its own, and looks the same', () => {
  const text = copyText()!;
  expect(pasteText(text)).toBe(true);
  const pasted = scene().growths[2];
  expect(pasted.name).toBe('Rope 2');
  expect(pasted.id).not.toBe('rope');
  expect(pasted.seed).toBe(scene().growths[1].seed);
  expect(pasted.steps).toEqual(scene().growths[1].steps);
  expect(useView.getState().growth).toBe(pasted.id);
  expect(travel('undo')).toBe('Paste a growth');
  expect(scene().growths).toHaveLength(2);
});

test('into another scene a growth brings what it refers to; a step leaves that open instead of dangling', () => {
  const text = copyText()!;
  const alone = writeClip(stepClip(scene(), scene().growths[1], [scene().growths[1].steps[2]]));
  openScene('other', newScene('Elsewhere'));
  pasteText(text);
  const [rope, rider] = scene().growths;
  expect([rope.name, rider.name]).toEqual(['Rope', 'Rider']);
  expect(rope.steps[2].params.growth).toBe(rider.id);
  openScene('third', { ...newScene('Further'), growths: [newGrowth('Bare', 0, [newStep('line')])] });
  setView({ growth: scene().growths[0].id });
  pasteText(alone);
  expect(scene().growths[0].steps[1].params.growth).toBeNull();
});

test('a step goes behind the focused one, or where its family belongs', () => {
  const [, rope] = scene().growths;
  const text = writeClip(stepClip(scene(), rope, [newStep('noise')]));
  pasteText(text);
  expect(scene().growths[1].steps.map(({ kind }) => kind)).toEqual(['line', 'noise', 'grow', 'tips']);
  setView({ focusStep: rope.steps[1].id });
  pasteText(text);
  expect(scene().growths[1].steps.map(({ kind }) => kind)).toEqual(['line', 'noise', 'grow', 'noise', 'tips']);
  const ids = scene().growths[1].steps.map(({ id }) => id);
  expect(new Set(ids).size).toBe(ids.length);
});

test('tracks find the value of their name, and keep its variation', () => {
  const [, rope] = scene().growths;
  const text = writeClip(trackClip(scene(), rope.id));
  setView({ growth: 'rider' });
  pasteText(text);
  expect(scene().growths[0].steps).toHaveLength(1);
  openScene('test', {
    ...scene(),
    growths: [{ ...newGrowth('Bare', 0, [newStep('line'), newStep('grow', { to: 1 })]), id: 'bare' }],
  });
  setView({ growth: 'bare' });
  pasteText(text);
  expect(isTrack(scene().growths[0].steps[1].params.to)).toBe(true);
});

test('other texts are left alone', () => {
  expect(pasteText('a sentence')).toBe(false);
  expect(pasteText(writeClip(growthClip(scene(), scene().growths[0])).replace('"line"', '"thunder"'))).toBe(true);
  expect(scene().growths).toHaveLength(2);
});

test('keys on a value that differs from path to path: the variation stays all along', () => {
  const [, rope] = scene().growths;
  const vary = { by: 'random' as const, amount: 0.2, waves: 1, shape: [{ at: 0, value: 1 }] };
  const step = rope.steps[2].id;
  const value = () => scene().growths[1].steps[2].params.size;
  setVariation('rope', step, 'size', vary, 1);
  expect(value()).toEqual({ base: 1, vary });
  toggleKey('rope', step, 'size', { type: 'number', unit: 'share', label: '', help: '', default: 1, min: 0, max: 9 });
  expect(value()).toMatchObject({ base: { keys: [{ frame: 10, value: 1 }] }, vary });
  stopAnimating('rope', step, 'size', 3);
  expect(value()).toEqual({ base: 3, vary });
  setVariation('rope', step, 'size', null, 1);
  expect(value()).toBe(3);
});

test('chosen keys are copied alone, and pasted with the first at the playhead', () => {
  const [, rope] = scene().growths;
  const at = (frame: number) => ({ growth: 'rope', step: rope.steps[1].id, param: 'to', frame });
  setView({ keys: [at(1), at(50)], frame: 80 });
  pasteText(copyText()!);
  const to = scene().growths[1].steps[1].params.to as Track;
  expect(to.keys.map(({ frame, value }) => [frame, value])).toEqual([
    [1, 0],
    [50, 1],
    [80, 0],
    [129, 1],
  ]);
  expect(useView.getState().keys.map(({ frame }) => frame)).toEqual([80, 129]);
  expect(travel('undo')).toBe('Paste keys');
});

test('a step pasted onto what it refers to does not make a circle: the reference is empty, and one is told', () => {
  const [, rope] = scene().growths;
  const tips = rope.steps.find(({ kind }) => kind === 'tips')!;
  setView({ growth: 'rope', focusStep: tips.id });
  const text = copyText()!;
  setView({ growth: 'rider' });
  pasteText(text);
  const pasted = scene().growths[0].steps.find(({ kind }) => kind === 'tips')!;
  expect(pasted.params.growth).toBeNull();
  // On another growth it keeps it.
  setView({ growth: 'rope' });
  pasteText(text);
  expect(scene().growths[1].steps.filter(({ kind }) => kind === 'tips')[1].params.growth).toBe('rider');
});

test('a growth that copies a group brings it along, once, and refers to the one that is there', () => {
  const made = filled();
  made.groups = [{ id: 'bed', name: 'Bed', hue: '#aabbcc', visible: false, shift: 0 }];
  made.growths[0] = { ...made.growths[0], group: 'bed' };
  made.growths[1].steps[2].params.growth = 'bed';
  openScene('test', made);
  setView({ growth: 'rope', focusStep: null, keys: [] });
  const text = copyText()!;
  const itemOf = (growth: Scene['growths'][number]) => growth.steps[2].params.growth;

  // Here both share the group that is there.
  pasteText(text);
  expect(scene().groups).toHaveLength(1);
  expect(scene().growths.map(({ name }) => name)).toEqual(['Rider', 'Rope', 'Rope 2']);
  expect(itemOf(scene().growths[2])).toBe('bed');

  // Elsewhere it comes along with what is in it.
  openScene('other', newScene('Other'));
  pasteText(text);
  const [group] = scene().groups;
  expect([group.name, group.visible]).toEqual(['Bed', false]);
  expect(group.id).not.toBe('bed');
  expect(scene().growths.map(({ name, group: own }) => [name, own])).toEqual([
    ['Rope', null],
    ['Rider', group.id],
  ]);
  expect(itemOf(scene().growths[0])).toBe(group.id);
});

test('a step that copies a group is not put into a growth of it', () => {
  const made = filled();
  made.groups = [{ id: 'bed', name: 'Bed', hue: '#aabbcc', visible: false, shift: 0 }];
  made.growths[0] = { ...made.growths[0], group: 'bed' };
  made.growths[1].steps[2].params.growth = 'bed';
  openScene('test', made);
  const [, , tips] = scene().growths[1].steps;
  setView({ growth: 'rope', focusStep: tips.id, keys: [] });
  const text = copyText()!;
  setView({ growth: 'rider', focusStep: null });
  pasteText(text);
  expect(scene().growths[0].steps.find(({ kind }) => kind === 'tips')!.params.growth).toBeNull();
});
