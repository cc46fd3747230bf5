import { CAMERA, isTrack, newScene, type Scene, type Track } from '@uvrex/core';
import { openScene, sceneNow, travel } from '../document/document';
import { setView, useView } from '../document/view';
import { keepAsShot } from './cameraShot';
import { sceneLook } from './sceneLook';

const EYE = { position: [1, 2, 3], target: [4, 5, 6] } as const;
const linear = (...keys: [number, number][]): Track => ({
  keys: keys.map(([frame, value]) => ({ frame, value, ease: 'linear' })),
  before: 'hold',
  after: 'hold',
});
const open = (camera: Scene['camera']): void => {
  openScene('reef', { ...newScene('Reef'), range: [1, 101], camera });
  setView({ frame: 50, eye: { position: [1, 2, 3], target: [4, 5, 6] } });
};
const keep = (): void => keepAsShot({ position: [...EYE.position], target: [...EYE.target] });
const shotAt = (frame: number) => sceneLook(sceneNow(), frame).camera;

test('a shot that stands still takes the view, at every frame, and the view goes back to the shot', () => {
  open({});
  keep();
  for (const frame of [1, 50, 101]) expect(shotAt(frame)).toMatchObject(EYE);
  expect(Object.values(sceneNow().camera).some((value) => isTrack(value))).toBe(false);
  expect(useView.getState().eye).toBeNull();
  expect(travel('undo')).toBe('Set camera to view');
});

test('a moving one has the view at the playhead, in all six numbers; frames of other keys stay as they were', () => {
  open({ positionX: linear([1, 0], [101, 10]), positionY: 7 });
  const before = [1, 101].map(shotAt);
  keep();
  expect(shotAt(50)).toMatchObject(EYE);
  expect([1, 101].map(shotAt)).toEqual(before);
  for (const name of ['positionX', 'positionY', 'positionZ', 'targetX', 'targetY', 'targetZ']) {
    const track = sceneNow().camera[name] as Track;
    expect([name, track.keys.map(({ frame }) => frame)]).toEqual([name, [1, 50, 101]]);
  }
  // What was not said stood at its default.
  expect((sceneNow().camera.targetY as Track).keys[0].value).toBe(CAMERA.params.targetY.default);
});

test('a second view at the same frame takes the place of the first', () => {
  open({ positionX: linear([1, 0], [101, 10]) });
  keep();
  keepAsShot({ position: [9, 9, 9], target: [0, 0, 0] });
  expect(shotAt(50)).toMatchObject({ position: [9, 9, 9], target: [0, 0, 0] });
  expect((sceneNow().camera.positionZ as Track).keys).toHaveLength(3);
});
