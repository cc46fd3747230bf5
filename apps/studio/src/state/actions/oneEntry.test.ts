import { newGrowth, newScene, newStep, type Scene, stepOf } from '@uvrex/core';
import { CUTTINGS } from '@uvrex/core/cuttings';
import { COMMANDS, runCommand } from './commands';
import { plant } from './cuttings';
import { openScene, useDocument } from '../document/document';
import { addStartedGrowth, changeGrowth, deleteGrowth, duplicateGrowth, takeStroke } from './growthActions';
import { groupGrowths, takeOutOfGroup, ungroup } from './groups';
import { addGuide, makeGuide } from './guides';
import { alignKeys, deleteKeys, moveKeys, repeatAll, setCycle, setEase, toggleMarker } from './keyActions';
import { deleteGrowths, duplicateGrowths, spreadLate } from './selectionActions';
import { addStep, deleteStep, duplicateStep, moveStep, renameStep, toggleStep } from './stepActions';
import { resetParam, setFormula, setParam, setParams, stopAnimating, toggleKey, toggleKeys } from './valueActions';
import { setView, useView } from '../document/view';

const track = (...frames: number[]) => ({
  keys: frames.map((frame, k) => ({ frame, value: k / frames.length, ease: 'linear' as const })),
  before: 'hold' as const,
  after: 'hold' as const,
});

/** Two growths in a group and one beside it, with keys, a falloff by no guide, and copies. */
function fresh(): Scene {
  const scene = newScene('Lantern Reef');
  const stem = [
    newStep('line', { toX: track(4, 60) }),
    newStep('grow', { from: track(10, 50), to: track(1, 40, 90) }),
    newStep('tube', { radius: track(1, 30) }),
    newStep('falloff'),
  ].map((step, k) => ({ ...step, id: `s${k}` }));
  scene.growths = [
    { ...newGrowth('Stem', 0, stem), id: 'a', group: 'g' },
    { ...newGrowth('Other', 1, [newStep('line'), newStep('tube')]), id: 'b', group: 'g' },
    { ...newGrowth('Bud', 2, [newStep('solid')]), id: 'c' },
  ];
  scene.groups = [{ id: 'g', name: 'Bed', hue: scene.growths[0].hue, visible: true, shift: 3 }];
  return scene;
}

const entries = (): number => useDocument.getState().history.past.length;
const key = (param: string, frame: number) => ({ growth: 'a', step: 's1', param, frame });

beforeEach(() => {
  openScene('one', fresh());
  setView({ frame: 20, growth: 'a', chosen: [], keys: [key('from', 10), key('to', 40)], playing: false, tool: 'look' });
});

const { params: growParams } = stepOf('grow')!;

const ACTIONS: [string, () => unknown][] = [
  ['a new growth', () => addStartedGrowth('helix')],
  ['a stroke', () => takeStroke([0, 1, 2].map((x) => [x, 0, 0]))],
  ['a growth duplicated', () => duplicateGrowth('a')],
  ['a growth deleted', () => deleteGrowth('a')],
  ['a growth hidden', () => changeGrowth('a', 'Hide', { visible: false })],
  ['several duplicated', () => duplicateGrowths(['a', 'b', 'c'])],
  ['several deleted', () => deleteGrowths(['a', 'b', 'c'])],
  ['several late, one after another', () => spreadLate(['a', 'b', 'c'], 5)],
  ['several grouped', () => groupGrowths(['a', 'c'])],
  ['a group parted', () => ungroup('g')],
  ['one taken out of its group', () => takeOutOfGroup('a')],
  ['a step added', () => addStep('a', 'noise')],
  ['a step that copies added', () => addStep('a', 'along')],
  ['a step duplicated', () => duplicateStep('a', 's2')],
  ['a step deleted', () => deleteStep('a', 's2')],
  ['a step switched off', () => toggleStep('a', 's2')],
  ['a step renamed', () => renameStep('a', 's2', 'Skin')],
  ['a step moved', () => moveStep('a', 0, 1)],
  ['a number', () => setParam('a', 's2', 'radius', 0.2)],
  ['several numbers', () => setParams('a', 's0', { fromX: 1, toX: 2, toY: 3 }, 'drag')],
  ['a number set back', () => resetParam('a', 's2', 'radius')],
  ['a formula', () => setFormula('a', 's2', 'radius', 'frame / 100')],
  ['a key', () => toggleKey('a', 's1', 'to', growParams.to as never)],
  ['keys of several', () => toggleKeys('a', 's1', ['from', 'to', 'travel'], growParams as never)],
  ['no more keys', () => stopAnimating('a', 's1', 'to', 1)],
  ['keys moved', () => moveKeys([key('from', 10), key('to', 40)], 7, 'move')],
  ['keys aligned', () => alignKeys()],
  ['keys deleted', () => deleteKeys([key('from', 10), key('to', 40)])],
  ['keys eased', () => setEase([key('from', 10), key('to', 40)], 'ease-in-out')],
  ['keys repeated', () => setCycle([key('from', 10), key('to', 40)], 'after', 'repeat')],
  ['everything repeated', () => repeatAll('a')],
  ['a marker', () => toggleMarker()],
  ['a guide', () => addGuide('point')],
  ['a guide for a step', () => makeGuide('a', 's3', 'guide')],
  ...CUTTINGS.map((cutting): [string, () => unknown] => [`the cutting ${cutting.id}`, () => plant(cutting)]),
];

test.each(ACTIONS)('%s is one entry of undo', (_, act) => {
  act();
  expect(entries()).toBe(1);
});

test.each(ACTIONS)('%s, refused since all growths are locked, leaves what is chosen as it was', (_, act) => {
  const scene = fresh();
  for (const growth of scene.growths) growth.locked = true;
  openScene('one', scene);
  const chosen = () => {
    const { growth, chosen, keys, openSteps, tool } = useView.getState();
    return { growth, chosen, keys, openSteps, tool };
  };
  const before = chosen();
  act();
  if (entries() === 0) expect(chosen()).toEqual(before);
});

/** What goes through history itself, and what needs a page with a clipboard or a store. */
const ELSEWHERE = ['undo', 'redo', 'copy', 'paste', 'keep'];
test.each(COMMANDS.filter(({ id }) => !ELSEWHERE.includes(id)).map(({ id }) => id))(
  'the command %s makes one entry of undo at most',
  async (id) => {
    runCommand(id);
    await Promise.resolve();
    expect(entries()).toBeLessThanOrEqual(1);
  },
);
