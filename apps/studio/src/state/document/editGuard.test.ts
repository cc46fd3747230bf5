import fc from 'fast-check';
import {
  checkScene,
  growthPlace,
  isTrack,
  LIMITS,
  newScene,
  newStep,
  type ParamSpec,
  SCENE_ID,
  STEPS,
  stepOf,
  writeClip,
  growthClip,
} from '@uvrex/core';
import { pasteText } from '../actions/clips';
import { edit, endEdit, openScene, travel, useDocument } from './document';
import * as growthActions from '../actions/growthActions';
import { addGuide, renameGuide, shapeGuide } from '../actions/guides';
import * as keyActions from '../actions/keyActions';
import * as stepActions from '../actions/stepActions';
import * as valueActions from '../actions/valueActions';
import { setView } from './view';

const actions = { ...growthActions, ...stepActions, ...valueActions, ...keyActions };

const scene = () => useDocument.getState().scene;
const growth = () => scene().growths[0];
/** What is on the table, as it would come back from this device. */
const reopened = () => checkScene(JSON.parse(JSON.stringify(scene())));

beforeEach(() => {
  openScene('test', newScene('Reef'));
  setView({ frame: 1, growth: null, keys: [], openSteps: [], redraw: null, focusStep: null });
  actions.addStartedGrowth('arc');
});

const wild = fc.oneof(
  fc.constantFrom(0, -0, 1, -1, 1e300, -1e300, Infinity, -Infinity, NaN, 2e5, -2e5, 0.5, 1e-9),
  fc.double(),
);
const long = fc.oneof(fc.string(), fc.constantFrom('k'.repeat(500), ''));

/** Any value for any parameter, sound or not. */
const put = (spec: ParamSpec, a: number, text: string): unknown => {
  const track = {
    keys: [
      { frame: a, value: a, ease: 'linear' },
      { frame: 10, value: 1e9, ease: [0, a, 1, a] },
    ],
    before: 'hold',
    after: 'hold',
  };
  const options: unknown[] = [
    a,
    text,
    true,
    null,
    track,
    { formula: `${'1+'.repeat(text.length)}1` },
    [[a, a, a, a, a]],
    [{ at: a, color: text }],
    [{ at: 0, value: a }],
  ];
  if (spec.type === 'number')
    options.push({ base: a, vary: { by: 'random', amount: a, waves: a, shape: [{ at: a, value: a }] } });
  return options[Math.abs(text.length * 7 + Math.round(Number.isFinite(a) ? a : 3)) % options.length];
};

type Act = (a: number, b: number, text: string) => void;
const ACTS: Act[] = [
  (a, _b, text) => {
    const step = growth()?.steps[0];
    if (!step) return;
    const names = Object.keys(stepOf(step.kind)!.params);
    const name = names[text.length % names.length];
    actions.setParam(growth().id, step.id, name, put(stepOf(step.kind)!.params[name], a, text) as never, 'drag');
  },
  (a, b) =>
    growth()?.steps[0] && actions.setParams(growth().id, growth().steps[0].id, { radius: a, from: b }, 'handle'),
  (_a, _b, text) => growth()?.steps[0] && actions.setFormula(growth().id, growth().steps[0].id, 'radius', text),
  (a, b, text) => growth() && actions.changeGrowth(growth().id, 'Change', { name: text, shift: a, seed: b }),
  (_a, _b, text) => growth()?.steps[0] && actions.renameStep(growth().id, growth().steps[0].id, text),
  () => growth() && actions.duplicateGrowth(growth().id),
  () => growth()?.steps[0] && actions.duplicateStep(growth().id, growth().steps[0].id),
  (a) => actions.addStartedGrowth(STEPS[Math.abs(Math.round(a || 0)) % STEPS.length]?.kind ?? 'line'),
  (a) => actions.addStep(growth()?.id ?? '', STEPS[Math.abs(Math.round(a || 0)) % STEPS.length]?.kind ?? 'tube'),
  (a) => setView({ frame: a }),
  () => actions.toggleMarker(),
  (a, _b, text) => actions.changeMarker(0, { frame: a, name: text }),
  () => actions.chooseAllKeys(),
  (a, b) => {
    const growths = scene().growths;
    const keys = growths.flatMap((one) =>
      one.steps.flatMap((step) =>
        Object.entries(step.params).flatMap(([param, value]) =>
          isTrack(value) ? value.keys.map(({ frame }) => ({ growth: one.id, step: step.id, param, frame })) : [],
        ),
      ),
    );
    actions.retimeKeys(keys, (key) => key.frame * b + a);
    actions.setEase(keys.slice(0, 1), [a, b, a, b] as never);
    if (b > 1) actions.deleteKeys(keys);
  },
  (a, b) => edit('Change range', (draft) => void (draft.range = [a, b])),
  (a) => edit('Change rate', (draft) => void (draft.fps = a)),
  (a, b) => edit('Light', (draft) => Object.assign(draft.light, { turn: a, strength: b })),
  (a, b) => edit('Shot', (draft) => Object.assign(draft.camera, { positionX: a, positionY: b, targetX: b })),
  (a, b) => actions.setParams(SCENE_ID, 'lens', { fov: a, exposure: b }, 'lens'),
  (a, b, text) => {
    actions.setParams(growth()?.id, 'place', { moveX: a, scale: b }, 'place');
    actions.setFormula(growth()?.id, 'place', 'turnX', text || 'frame');
    actions.toggleKey(growth()?.id, 'place', 'moveY', growthPlace.params.moveY);
  },
  (a, b, text) => {
    addGuide('ball');
    const { id } = scene().guides[0];
    shapeGuide(id, { centre: [a, b, 0], radius: a, size: [a, a, b], rotation: [b, 0, 0] });
    renameGuide(id, text);
  },
  (_a, _b, text) => edit('Rename scene', (draft) => void (draft.name = text)),
  (a, b) =>
    actions.takeStroke([
      [0, 0, 0],
      [a, b, a],
      [1, 1, 1],
    ]),
  () => growth() && pasteText(writeClip(growthClip(scene(), growth()))),
  () => travel('undo'),
  () => travel('redo'),
  () => endEdit(),
];

test('whatever is typed, dragged, pasted or undone, the scene opens again and says the same', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.constantFrom(...ACTS), wild, wild, long), { minLength: 1, maxLength: 14 }),
      (series) => {
        openScene('test', newScene('Reef'));
        actions.addStartedGrowth('arc');
        for (const [act, a, b, text] of series) {
          act(a, b, text);
          expect(reopened()).toEqual(JSON.parse(JSON.stringify(scene())));
        }
      },
    ),
    { numRuns: 250 },
  );
});

test('one more than a scene holds is refused, and nothing else happens', () => {
  edit('Fill', (draft) => {
    draft.markers = Array.from({ length: LIMITS.markers }, (_, frame) => ({ frame, name: '' }));
    draft.growths[0].steps = Array.from({ length: LIMITS.steps }, () => newStep('tube'));
  });
  const before = useDocument.getState();
  setView({ frame: 5000 });
  actions.toggleMarker();
  actions.addStep(growth().id, 'tube');
  actions.duplicateStep(growth().id, growth().steps[0].id);
  expect(useDocument.getState()).toBe(before);
});

test('a drag past the limit stays one entry of the history, at the limit', () => {
  const { id, steps } = growth();
  for (const radius of [0.5, 0.1, 0, -2]) actions.setParam(id, steps[0].id, 'radius', radius, 'drag');
  expect(growth().steps[0].params.radius).toBe(0.0001);
  travel('undo');
  expect(growth().steps[0].params.radius).toBe(1);
});
