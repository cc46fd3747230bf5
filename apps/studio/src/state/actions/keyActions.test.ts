import { type NumberParam, stepOf } from '@uvrex/core';
import {
  alignKeys,
  changeMarker,
  chooseAllKeys,
  deleteKeys,
  endMove,
  moveKeys,
  repeatAll,
  retimeKeys,
  setCycle,
  toggleMarker,
} from './keyActions';
import { addStep } from './stepActions';
import { growth, openLine, scene, stepOfKind, trackOf } from './testing';
import { setParam, setParams, toggleKey, toggleKeys } from './valueActions';
import { say } from '../toasts';
import { travel, useDocument } from '../document/document';
import { setView, useView } from '../document/view';

jest.mock('../toasts', () => ({ say: jest.fn(), sayProblem: jest.fn() }));

beforeEach(openLine);

test('the leaf: a key here, a key elsewhere by changing the value, keys taken out, a constant again', () => {
  const { id } = stepOfKind('tube');
  const spec = stepOf('tube')!.params.radius as NumberParam;
  toggleKey(growth().id, id, 'radius', spec);
  setView({ frame: 25 });
  setParam(growth().id, id, 'radius', 0.3);
  expect(trackOf('tube', 'radius').keys.map(({ frame, value }) => [frame, value])).toEqual([
    [1, 0.06],
    [25, 0.3],
  ]);
  toggleKey(growth().id, id, 'radius', spec);
  expect(travel('undo')).toBe('Set a key');
  travel('redo');
  setView({ frame: 1 });
  toggleKey(growth().id, id, 'radius', spec);
  expect(stepOfKind('tube').params.radius).toBe(0.06);
  expect(travel('undo')).toBe('Stop animating');
});

test('on a growth that runs late, keys lie on its own clock', () => {
  const { id } = growth();
  useDocument.setState({ scene: { ...scene(), growths: scene().growths.map((entry) => ({ ...entry, shift: 10 })) } });
  setView({ frame: 30 });
  toggleKey(id, stepOfKind('tube').id, 'radius', stepOf('tube')!.params.radius as NumberParam);
  expect(trackOf('tube', 'radius').keys[0].frame).toBe(20);
});

test('moving several keys at once runs over none of them', () => {
  const address = (frame: number) => ({ growth: growth().id, step: stepOfKind('grow').id, param: 'to', frame });
  const [a, b] = trackOf('grow', 'to').keys.map(({ frame }) => frame);
  const moved = moveKeys([address(a), address(b)], b - a, 'drag');
  expect(trackOf('grow', 'to').keys.map(({ frame, value }) => [frame, value])).toEqual([
    [b, 0],
    [2 * b - a, 1],
  ]);
  deleteKeys(moved);
  expect(stepOfKind('grow').params.to).toBe(1);
});

describe('keys moved over others', () => {
  const frames = (): number[] => trackOf('grow', 'to').keys.map(({ frame }) => frame);
  const address = (frame: number) => ({ growth: growth().id, step: stepOfKind('grow').id, param: 'to', frame });
  const entries = (): number => useDocument.getState().history.past.length;
  beforeEach(() => {
    setParam(growth().id, stepOfKind('grow').id, 'to', {
      keys: [20, 40, 60, 80].map((frame, i) => ({ frame, value: i / 3, ease: 'linear' as const })),
      before: 'hold',
      after: 'hold',
    });
    jest.mocked(say).mockClear();
  });

  test('what is passed over stays, by drag and by arrow keys; back at the beginning nothing has changed', () => {
    const before = trackOf('grow', 'to');
    const count = entries();
    let keys = [address(20)];
    for (const by of [10, 10, 10]) keys = moveKeys(keys, by, 'keys');
    expect(frames()).toEqual([40, 50, 60, 80]);
    keys = moveKeys(keys, -30, 'keys');
    endMove();
    expect(trackOf('grow', 'to')).toEqual(before);
    expect(entries()).toBe(count);
    expect(say).not.toHaveBeenCalled();
  });

  test('only what lies under the final place is replaced, and one is told and can take it back', () => {
    let keys = [address(20)];
    for (const by of [20, 20]) keys = moveKeys(keys, by, 'keys');
    endMove();
    expect(frames()).toEqual([40, 60, 80]);
    const [told] = jest.mocked(say).mock.calls.map(([toast]) => toast);
    expect(told.text).toBe('The key that stood at frame 60 is replaced.');
    told.action!.run();
    expect(frames()).toEqual([20, 40, 60, 80]);
  });

  test('a second move begins with what the first has left: what that replaced does not come back', () => {
    moveKeys([address(20)], 20, 'keys');
    endMove();
    moveKeys([address(40)], 5, 'keys');
    endMove();
    expect(frames()).toEqual([45, 60, 80]);
    moveKeys([address(45)], 1, 'keys by hand');
    setParam(growth().id, stepOfKind('grow').id, 'from', 0.1);
    moveKeys([address(46)], 14, 'keys by hand');
    expect(frames()).toEqual([60, 80]);
    expect(stepOfKind('grow').params.from).toBe(0.1);
  });

  test('several keys dragged and dragged back leave all as it was', () => {
    const original = [address(20), address(40)];
    let keys = retimeKeys(original, ({ frame }) => frame + 20, 'keys together');
    expect(frames()).toEqual([40, 60, 80]);
    keys = retimeKeys(keys, (_, i) => original[i].frame, 'keys together');
    endMove();
    expect(frames()).toEqual([20, 40, 60, 80]);
  });
});

test('what happens past the keys is set for all chosen tracks, and for all animation of a growth', () => {
  const { id } = growth();
  const line = stepOfKind('line').id;
  toggleKey(id, line, 'toY', stepOf('line')!.params.toY as NumberParam);
  setCycle(
    [
      { growth: id, step: line, param: 'toY' },
      { growth: id, step: stepOfKind('grow').id, param: 'to' },
    ],
    'after',
    'ping-pong',
  );
  expect([trackOf('line', 'toY').after, trackOf('grow', 'to').after]).toEqual(['ping-pong', 'ping-pong']);
  repeatAll(id);
  for (const track of [trackOf('line', 'toY'), trackOf('grow', 'to')])
    expect([track.before, track.after]).toEqual(['repeat', 'repeat']);
  travel('undo');
  expect(trackOf('line', 'toY').after).toBe('ping-pong');
});

test('stretching keeps the keys apart: where two would meet nothing happens', () => {
  const address = (frame: number) => ({ growth: growth().id, step: stepOfKind('grow').id, param: 'to', frame });
  const keys = trackOf('grow', 'to').keys.map(({ frame }) => address(frame));
  const [first, last] = keys.map(({ frame }) => frame);
  const wide = retimeKeys(keys, ({ frame }) => first + 2 * (frame - first));
  expect(trackOf('grow', 'to').keys.map(({ frame }) => frame)).toEqual([first, first + 2 * (last - first)]);
  expect(retimeKeys(wide, () => 5)).toEqual(wide);
  expect(travel('undo')).toBe('Move keys');
});

test('aligned, the first chosen key of each track stands at the playhead', () => {
  const step = stepOfKind('tube');
  toggleKey(growth().id, step.id, 'radius', stepOf('tube')!.params.radius as NumberParam);
  setView({ frame: 40 });
  chooseAllKeys();
  expect(useView.getState().keys).toHaveLength(3);
  alignKeys();
  expect(trackOf('tube', 'radius').keys[0].frame).toBe(40);
  expect(trackOf('grow', 'to').keys[0].frame).toBe(40);
});

test('markers are set and taken away at the playhead, and no two share a frame', () => {
  setView({ frame: 12 });
  toggleMarker();
  setView({ frame: 30 });
  toggleMarker();
  changeMarker(0, { name: 'Lanterns lit' });
  changeMarker(0, { frame: 30 });
  expect(scene().markers).toEqual([
    { frame: 12, name: 'Lanterns lit' },
    { frame: 30, name: '' },
  ]);
  toggleMarker();
  expect(scene().markers).toHaveLength(1);
});

test('several values are keyed together, and moved where they have keys', () => {
  addStep(growth().id, 'falloff');
  const { id } = stepOfKind('falloff');
  const specs = stepOf('falloff')!.params as Record<string, NumberParam>;
  toggleKeys(growth().id, id, ['atX', 'atY'], specs);
  setView({ frame: 20 });
  setParams(growth().id, id, { atX: 3, radius: 2 }, 'drag');
  expect(trackOf('falloff', 'atX').keys.map(({ frame, value }) => [frame, value])).toEqual([
    [1, 0],
    [20, 3],
  ]);
  expect(stepOfKind('falloff').params.radius).toBe(2);
  setView({ frame: 1 });
  toggleKeys(growth().id, id, ['atX', 'atY'], specs);
  expect(stepOfKind('falloff').params.atY).toBe(1);
});
