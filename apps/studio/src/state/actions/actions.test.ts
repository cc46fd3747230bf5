import { newScene, type Track } from '@uvrex/core';
import { addStartedGrowth, changeGrowth, deleteGrowth, duplicateGrowth, takeStroke } from './growthActions';
import { usersOf } from './items';
import { addStep, deleteStep, duplicateStep, makeItem, moveStep, toggleStep } from './stepActions';
import { growth, kinds, openLine, scene, stepOfKind, trackOf } from './testing';
import { setParam, takePreset } from './valueActions';
import { say } from '../toasts';
import { edit, endEdit, joinEdits, openScene, travel, useDocument } from '../document/document';
import { SCENE_ENTRY, setView, useView } from '../document/view';

jest.mock('../toasts', () => ({ say: jest.fn(), sayProblem: jest.fn() }));

beforeEach(openLine);

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

test('a trail that begins a growth is drawn by the selected one; behind other steps it is drawn by them', () => {
  const line = growth().id;
  addStep(line, 'trail');
  expect(stepOfKind('trail').params.growth).toBeNull();
  addStartedGrowth('trail');
  expect(growth().steps[0].params.growth).toBe(line);
});

test('a second skin is told, and the first is switched off in one click; other steps say nothing', () => {
  const { id } = growth();
  jest.mocked(say).mockClear();
  addStep(id, 'noise');
  expect(say).not.toHaveBeenCalled();
  addStep(id, 'lathe');
  expect(say).toHaveBeenCalledWith(expect.objectContaining({ text: 'There are two skins now: Tube and Lathe.' }));
  jest.mocked(say).mock.calls[0][0].action!.run();
  expect(
    growth()
      .steps.filter(({ on }) => !on)
      .map(({ kind }) => kind),
  ).toEqual(['tube']);
  jest.mocked(say).mockClear();
  addStep(id, 'lathe');
  expect(jest.mocked(say).mock.calls[0][0].action!.label).toBe('Switch the first one off');
  deleteStep(id, stepOfKind('lathe').id);
  // With none that is on beside it, there is nothing to tell.
  jest.mocked(say).mockClear();
  deleteStep(id, stepOfKind('lathe').id);
  addStep(id, 'ribbon');
  expect(say).not.toHaveBeenCalled();
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

test('a falloff in a growth without copies moves what is there, among what shapes', () => {
  addStep(growth().id, 'tube');
  addStep(growth().id, 'falloff');
  expect(stepOfKind('falloff').params).toMatchObject({ drives: 'move', shape: 'ball' });
  expect(kinds().indexOf('falloff')).toBeLessThan(kinds().indexOf('tube'));
  travel('undo');
  addStep(growth().id, 'along');
  addStep(growth().id, 'falloff');
  expect(stepOfKind('falloff').params).toMatchObject({ drives: 'size', shape: 'front' });
  expect(kinds().at(-1)).toBe('falloff');
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
