import { isTrack, LIGHT, newGrowth, newGuide, newScene, newStep, SCENE_ID, type Track } from '@uvrex/core';
import { tracksOf } from '@/state/document/trackRows';
import { chooseAllKeys, deleteKeys, moveKeys, setCycle } from './keyActions';
import { setFormula, setParam, setParams, toggleKey } from './valueActions';
import { copyText, pasteText } from './clips';
import { holderIn, openScene, travel, useDocument } from '../document/document';
import { shapeGuide } from './guides';
import { sceneLook } from './sceneLook';
import { setView, useView } from '../document/view';

const scene = () => useDocument.getState().scene;

beforeEach(() => {
  const made = newScene('Reef');
  made.growths = [{ ...newGrowth('Line', 0, [newStep('line')]), id: 'line', shift: 10 }];
  made.guides = [newGuide('lamp', 'Lamp', 'ball')];
  openScene('test', made);
  setView({ growth: SCENE_ID, frame: 5, keys: [] });
});

const keysOf = (value: unknown): [number, number][] => (value as Track).keys.map(({ frame, value: v }) => [frame, v]);

test('the light takes keys at the playhead, shows them as rows, and moves between them', () => {
  toggleKey(SCENE_ID, 'light', 'turn', LIGHT.params.turn);
  setView({ frame: 15 });
  setParam(SCENE_ID, 'light', 'turn', 90);
  expect(keysOf(scene().light.turn)).toEqual([
    [5, 40],
    [15, 90],
  ]);
  expect(tracksOf(holderIn(scene(), SCENE_ID)!).map(({ label }) => label)).toEqual(['Light, Turn']);
  expect(sceneLook(scene(), 10).light.turn).toBeCloseTo(65, 6);
  expect(travel('undo')).toBe('Change a value');
  expect(sceneLook(scene(), 15).light.turn).toBe(40);
});

test('a look is the same object while nothing of the scene moves, and another at each frame where something does', () => {
  expect(sceneLook(scene(), 1)).toBe(sceneLook(scene(), 50));
  setFormula(SCENE_ID, 'lens', 'exposure', 'frame');
  expect(sceneLook(scene(), 60).lens.exposure).toBeCloseTo(0.6, 12);
  expect(sceneLook(scene(), 70).lens.exposure).toBeCloseTo(0.7, 12);
});

test("a growth's place is keyed on the growth's own clock", () => {
  setParam('line', 'place', 'moveY', {
    keys: [{ frame: 0, value: 1, ease: 'linear' }],
    before: 'hold',
    after: 'hold',
  });
  setView({ growth: 'line', frame: 30 });
  setParams('line', 'place', { moveY: 3 }, 'drag');
  expect(keysOf(scene().growths[0].place.moveY)).toEqual([
    [0, 1],
    [20, 3],
  ]);
  chooseAllKeys();
  expect(useView.getState().keys).toHaveLength(2);
  setCycle([{ growth: 'line', step: 'place', param: 'moveY' }], 'after', 'repeat');
  const moved = moveKeys(useView.getState().keys, 2, 'move');
  expect(keysOf(scene().growths[0].place.moveY)).toEqual([
    [2, 1],
    [22, 3],
  ]);
  deleteKeys(moved);
  expect(isTrack(scene().growths[0].place.moveY)).toBe(false);
});

test('a guide that has keys gets one where it is dragged to', () => {
  toggleKey(SCENE_ID, 'lamp', 'positionX', LIGHT.params.turn);
  setView({ frame: 25 });
  shapeGuide('lamp', { centre: [2, 3, 4] });
  const { params } = scene().guides[0];
  expect(keysOf(params.positionX)).toEqual([
    [5, 0],
    [25, 2],
  ]);
  expect(params.positionY).toBe(3);
  expect(sceneLook(scene(), 25).guides[0].position).toEqual([2, 3, 4]);
});

test('keys of the scene, and of places, are copied and pasted to where they are from', () => {
  toggleKey(SCENE_ID, 'light', 'turn', LIGHT.params.turn);
  setView({ keys: [{ growth: SCENE_ID, step: 'light', param: 'turn', frame: 5 }], frame: 60 });
  const text = copyText()!;
  pasteText(text);
  expect(keysOf(scene().light.turn).map(([frame]) => frame)).toEqual([5, 60]);
  toggleKey('line', 'place', 'scale', { ...LIGHT.params.turn, default: 1 });
  const [[at]] = keysOf(scene().growths[0].place.scale);
  setView({ growth: 'line', keys: [{ growth: 'line', step: 'place', param: 'scale', frame: at }], frame: 80 });
  pasteText(copyText()!);
  expect(keysOf(scene().growths[0].place.scale).map(([frame]) => frame)).toEqual([50, 70]);
});

test('a copied growth keeps its place', () => {
  setParam('line', 'place', 'moveX', 4);
  setView({ growth: 'line', keys: [] });
  pasteText(copyText()!);
  expect(scene().growths[1].place).toEqual({ moveX: 4 });
});
