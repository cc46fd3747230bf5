import { isTrack, newScene, type NumberParam, stepOf, type Track } from '@uvrex/core';
import {
  addStartedGrowth,
  usersOf,
  changeGrowth,
  deleteGrowth,
  duplicateGrowth,
  selectedGrowth,
  takeStroke,
} from './growthActions';
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
import { addStep, deleteStep, duplicateStep, makeItem, moveStep, toggleStep } from './stepActions';
import { setParam, setParams, takePreset, toggleKey, toggleKeys } from './valueActions';
import { say } from '@/ui/Toasts';
import { edit, endEdit, joinEdits, openScene, travel, useDocument } from '../document/document';
import { SCENE_ENTRY, setView, useView } from '../document/view';

jest.mock('@/ui/Toasts', () => ({ say: jest.fn(), sayProblem: jest.fn() }));

const scene = () => useDocument.getState().scene;
const growth = () => selectedGrowth()!;
const kinds = () => growth().steps.map(({ kind }) => kind);
const stepOfKind = (kind: string) => growth().steps.find((step) => step.kind === kind)!;
const trackOf = (kind: string, param: string): Track => {
  const value = stepOfKind(kind).params[param];
  if (!isTrack(value)) throw new Error('not animated');
  return value;
};

beforeEach(() => {
  openScene('test', newScene('Reef'));
  setView({ frame: 1, growth: SCENE_ENTRY, keys: [], openSteps: [], redraw: null });
  addStartedGrowth('line');
  setView({ frame: 1 });
});

test('a step that needs another growth begins with the newest that has a skin, never its own', () => {
  addStartedGrowth('solid');
  const rock = growth().id;
  addStartedGrowth('line');
  addStep(growth().id, 'settle');
  expect(stepOfKind('settle').params.growth).toBe(rock);
  addStep(rock, 'settle');
  const own = scene().growths.find(({ id }) => id === rock)!;
  const onto = own.steps.find(({ kind }) => kind === 'settle')!.params.growth;
  expect(onto).not.toBe(rock);
  expect(scene().growths.map(({ id }) => id)).toContain(onto);
});

test('a duplicate stands right after what it is of, looks the same, and is what is chosen then', () => {
  addStartedGrowth('helix');
  addStartedGrowth('arc');
  const [line, helix, arc] = scene().growths;
  changeGrowth(helix.id, 'Lock growth', { locked: true });
  duplicateGrowth(helix.id);
  const { growths } = scene();
  expect(growths.map(({ name }) => name)).toEqual([line.name, helix.name, `${helix.name} 2`, arc.name]);
  expect(growths[2]).toMatchObject({ seed: helix.seed, locked: false, steps: helix.steps });
  expect(growth().id).toBe(growths[2].id);
});

test('the playhead goes where a new growth can be seen, and stays where enough of it is there or the film runs', () => {
  const at = (): number => useView.getState().frame;
  const { keys } = trackOf('grow', 'to');
  addStartedGrowth('helix');
  expect(at()).toBe(keys[1].frame);
  setView({ frame: keys[1].frame - 10 });
  addStartedGrowth('arc');
  expect(at()).toBe(keys[1].frame - 10);
  setView({ frame: 1, playing: true });
  addStartedGrowth('line');
  expect(at()).toBe(1);
  setView({ playing: false });
  // What does not grow is there at once.
  addStartedGrowth('solid');
  expect(at()).toBe(1);
});

test('what grows by a number of its own has keys on that and no Grow; a preset keeps them, up to its own value', () => {
  addStartedGrowth('rules');
  const { steps } = growth();
  expect(steps.map(({ kind }) => kind)).toEqual(['rules', 'wire', 'finish']);
  const generations = (): Track => growth().steps[0].params.generations as Track;
  expect(generations().keys.map(({ value }) => value)).toEqual([0, 5]);
  expect(useView.getState().frame).toBe(generations().keys[1].frame);
  takePreset(growth().id, steps[0].id, 'Sea fern', { generations: 20, axiom: 'A(1)', angle: 40 });
  expect(generations().keys.map(({ value }) => value)).toEqual([0, 20]);
  expect(growth().steps[0].params).toMatchObject({ axiom: 'A(1)', angle: 40 });
  // Keys that are nothing all along have no greatest to be brought up.
  edit('Flat', ({ growths }) => {
    const track = growths.at(-1)!.steps[0].params.generations as Track;
    for (const key of track.keys) key.value = 0;
  });
  takePreset(growth().id, steps[0].id, 'Sea fern', { generations: 7 });
  expect(growth().steps[0].params.generations).toBe(7);
});

test('a new growth comes with all it needs to be seen growing, and is selected', () => {
  expect(kinds()).toEqual(['line', 'grow', 'tube', 'finish']);
  expect(trackOf('grow', 'to').keys.map(({ value }) => value)).toEqual([0, 1]);
});

test('an added step goes behind its own family', () => {
  addStep(growth().id, 'noise');
  addStep(growth().id, 'helix');
  expect(kinds()).toEqual(['line', 'helix', 'noise', 'grow', 'tube', 'finish']);
});

test('what works on a skin goes after all that makes it and what it may go by; what works on paths as well before their skin', () => {
  addStep(growth().id, 'reveal');
  expect(kinds()).toEqual(['line', 'grow', 'reveal', 'tube', 'finish']);
  addStep(growth().id, 'front');
  addStep(growth().id, 'displace');
  expect(kinds()).toEqual(['line', 'grow', 'reveal', 'tube', 'front', 'displace', 'finish']);
});

test('a new front reaches over the range; what begins on another growth begins on the selected one', () => {
  addStep(growth().id, 'front');
  const { keys } = trackOf('front', 'reach');
  expect(keys.map(({ value }) => value)).toEqual([0, 1]);
  expect(keys[0].frame).toBe(scene().range[0]);
  const line = growth().id;
  addStartedGrowth('edges');
  expect(growth().steps[0].params.growth).toBe(line);
  // Thousands of paths begin with the lightest skin.
  expect(kinds()).toEqual(['edges', 'grow', 'wire', 'finish']);
});

test('a step is doubled beside itself, switched off and on, and deleted with the keys that were chosen of it', () => {
  const { id } = growth();
  const grow = stepOfKind('grow');
  duplicateStep(id, grow.id);
  expect(kinds()).toEqual(['line', 'grow', 'grow', 'tube', 'finish']);
  const [first, second] = growth().steps.slice(1, 3);
  expect(first).toBe(grow);
  expect(second).toEqual({ ...grow, id: second.id });
  expect(second.id).not.toBe(grow.id);

  toggleStep(id, second.id);
  expect(growth().steps.map(({ on }) => on)).toEqual([true, true, false, true, true]);
  toggleStep(id, second.id);
  expect(growth().steps[2].on).toBe(true);

  const key = (step: string) => ({ growth: id, step, param: 'to', frame: 1 });
  setView({ keys: [key(grow.id), key(second.id)] });
  deleteStep(id, grow.id);
  expect(growth().steps.map((step) => step.id)).not.toContain(grow.id);
  expect(kinds()).toEqual(['line', 'grow', 'tube', 'finish']);
  expect(useView.getState().keys).toEqual([key(second.id)]);
  expect(travel('undo')).toBe('Delete Grow');
  expect(growth().steps).toHaveLength(5);

  const before = scene();
  for (const change of [duplicateStep, toggleStep, deleteStep]) change(id, 'none such');
  expect(scene()).toBe(before);
});

test('moving a step and undoing it', () => {
  moveStep(growth().id, 2, 0);
  expect(kinds()).toEqual(['tube', 'line', 'grow', 'finish']);
  expect(travel('undo')).toBe('Reorder steps');
  expect(kinds()).toEqual(['line', 'grow', 'tube', 'finish']);
});

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

test('one value set after another is an entry of undo each, unless they belong to one hand', () => {
  const { id } = growth();
  const step = stepOfKind('line').id;
  const entries = (): number => useDocument.getState().history.past.length;
  const before = entries();
  setParam(id, step, 'toY', 3);
  setParam(id, step, 'toY', 4);
  expect(entries()).toBe(before + 2);
  setParam(id, step, 'toY', 5, 'drag');
  setParam(id, step, 'toY', 6, 'drag');
  setParam(id, step, 'toX', 1, 'drag');
  expect(entries()).toBe(before + 4);
  travel('undo');
  travel('undo');
  expect(stepOfKind('line').params.toY).toBe(4);
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

test('a second stroke is a path of its own, with something selected and something hidden in the scene', () => {
  const stroke = (): void => takeStroke([0, 1, 2].map((x) => [x, 0, 0]));
  stroke();
  stroke();
  expect(stepOfKind('drawn').params.skin).toBeNull();
  changeGrowth(growth().id, 'Hide', { visible: false });
  setView({ growth: SCENE_ENTRY });
  stroke();
  expect(stepOfKind('drawn').params.skin).toBeNull();
  addStartedGrowth('colonise');
  expect(stepOfKind('colonise').params.around).toBeNull();
});

test('a stroke over a skin follows it', () => {
  addStartedGrowth('solid');
  const rock = growth().id;
  takeStroke(
    [0, 1].map((x) => [x, 1, 0]),
    rock,
  );
  expect(stepOfKind('drawn').params.skin).toBe(rock);
});

test('Blend begins with a growth that has paths, however new others are', () => {
  const line = growth().id;
  addStartedGrowth('helix');
  addStartedGrowth('solid');
  const helix = scene().growths[1].id;
  addStep(helix, 'blend');
  const blended = scene().growths[1].steps.find(({ kind }) => kind === 'blend')!;
  expect(blended.params.growth).toBe(line);
});

test('a duplicate has no step with the focus', () => {
  setView({ focusStep: stepOfKind('line').id });
  duplicateGrowth(growth().id);
  expect(useView.getState().focusStep).toBeNull();
});

test('a duplicate looks the same: it keeps step ids and seed, under another id and name', () => {
  const original = growth();
  duplicateGrowth(original.id);
  expect(growth()).toMatchObject({ name: 'Line 2', seed: original.seed, steps: original.steps });
  expect(growth().id).not.toBe(original.id);
  deleteGrowth(growth().id);
  expect(growth().id).toBe(original.id);
});

test('a stroke makes a growth, or redraws the path it was asked for', () => {
  takeStroke([
    [0, 0, 0],
    [0, 1, 0],
  ]);
  expect(kinds()[0]).toBe('drawn');
  const { id } = growth();
  setView({ redraw: { growth: id, step: stepOfKind('drawn').id, part: false } });
  takeStroke([
    [0, 0, 0],
    [2, 0, 0],
    [2, 2, 0],
  ]);
  expect(scene().growths).toHaveLength(2);
  expect(stepOfKind('drawn').params.anchors).toHaveLength(3);
  expect(useView.getState().redraw).toBeNull();
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

test('a falloff in a growth without copies keeps its weight as an attribute, among what shapes', () => {
  addStep(growth().id, 'tube');
  addStep(growth().id, 'falloff');
  expect(stepOfKind('falloff').params).toMatchObject({ drives: 'attribute', shape: 'ball' });
  expect(kinds().indexOf('falloff')).toBeLessThan(kinds().indexOf('tube'));
  travel('undo');
  addStep(growth().id, 'along');
  addStep(growth().id, 'falloff');
  expect(stepOfKind('falloff').params).toMatchObject({ drives: 'size', shape: 'front' });
  expect(kinds().at(-1)).toBe('falloff');
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

describe('what others use', () => {
  test('is told by whom, and its deletion says what breaks', () => {
    addStep(growth().id, 'along');
    const leaf = scene().growths.find(({ name }) => name === 'Leaf')!;
    expect(usersOf(scene(), leaf.id).map(({ id }) => id)).toEqual([growth().id]);
    expect(usersOf(scene(), growth().id)).toEqual([]);
    const said = jest.mocked(say);
    said.mockClear();
    deleteGrowth(leaf.id);
    const [{ text, action }] = said.mock.calls[0];
    expect(text).toContain('“Leaf” was used by');
    action!.run();
    expect(scene().growths.map(({ id }) => id)).toContain(leaf.id);
    // Not when something else was done since.
    deleteGrowth(leaf.id);
    addStep(growth().id, 'noise');
    said.mock.calls[1][0].action!.run();
    expect(scene().growths.map(({ id }) => id)).not.toContain(leaf.id);
    expect(kinds()).toContain('noise');
  });
});

describe('what is copied', () => {
  const item = () => scene().growths.find(({ id }) => id === stepOfKind('along').params.growth)!;

  test('where there is nothing to copy, a leaf is made, hidden, in the same entry of undo', () => {
    addStep(growth().id, 'along');
    expect(item()).toMatchObject({ name: 'Leaf', visible: false });
    expect(stepOfKind('along').params).toMatchObject({ by: 'count', stands: 'origin', turns: '+137.508' });
    travel('undo');
    expect(scene().growths).toHaveLength(1);
    expect(kinds()).not.toContain('along');
  });

  test('the newest hidden growth with a skin is taken, but none that leads back to its own', () => {
    const stem = growth().id;
    addStartedGrowth('solid');
    addStartedGrowth('solid');
    const [, first, second] = scene().growths;
    for (const { id } of [first, second]) changeGrowth(id, 'Hide', { visible: false });
    setView({ growth: stem });
    addStep(stem, 'along');
    expect(item().id).toBe(second.id);
    // What copies the stem already cannot be copied along it.
    setView({ growth: second.id });
    addStep(second.id, 'tips');
    setParam(second.id, stepOfKind('tips').id, 'growth', stem);
    setView({ growth: stem });
    addStep(stem, 'along');
    const steps = growth().steps.filter(({ kind }) => kind === 'along');
    expect(steps[1].params.growth).toBe(first.id);
  });

  test('made anew, it brings what suits it, and leaves what was set by hand', () => {
    addStep(growth().id, 'along');
    const { id } = stepOfKind('along');
    makeItem(growth().id, id, 'growth', 'link');
    expect(item().name).toBe('Link');
    expect(stepOfKind('along').params).toMatchObject({ by: 'item', stands: 'middle', turns: '0, 90', lean: 0 });
    setParam(growth().id, id, 'turns', '0, 45');
    makeItem(growth().id, id, 'growth', 'leaf');
    expect(stepOfKind('along').params).toMatchObject({ by: 'count', turns: '0, 45' });
  });
});

test('what a choice brings up begins with something that is there', () => {
  const param = (name: string): unknown => growth().steps[0].params[name];
  const other = growth().id;
  addStartedGrowth('colonise');
  setParam(growth().id, growth().steps[0].id, 'where', 'outline');
  expect(param('growth')).toBe(other);
  // What has been chosen stays.
  setParam(growth().id, growth().steps[0].id, 'growth', null);
  setParam(growth().id, growth().steps[0].id, 'where', 'form');
  expect(param('growth')).toBe(null);
  addStartedGrowth('frill');
  const finish = stepOfKind('finish').id;
  setParam(growth().id, finish, 'by', 'attribute');
  expect(stepOfKind('finish').params.attribute).toBe('rim');
  // It is one change.
  travel('undo');
  expect([stepOfKind('finish').params.by, stepOfKind('finish').params.attribute]).toEqual(['rest', 'front']);
});

test('edits that are joined are one entry of undo, whatever ends among them; what comes after is its own', () => {
  openScene('joined', newScene('Joined'));
  const rename = (name: string): boolean => edit(`To ${name}`, (draft) => void (draft.name = name));
  rename('One');
  const end = joinEdits();
  rename('Two');
  endEdit();
  edit('Rate', (draft) => void (draft.fps = 12));
  rename('Three');
  end();
  rename('Four');
  const now = (): string => useDocument.getState().scene.name;
  travel('undo');
  expect(now()).toBe('Three');
  travel('undo');
  expect([now(), useDocument.getState().scene.fps]).toEqual(['One', newScene('').fps]);
  travel('redo');
  expect([now(), useDocument.getState().scene.fps]).toEqual(['Three', 12]);
});
