import { startWithPoints } from './startWithPoints';
import { GOLDEN_ANGLE } from '../../geometry/goldenAngle';
import {
  defineStep,
  type NumberParam,
  type ParamsOf,
  type ParamSpecs,
  type Resolved,
  type StepContext,
  numberField,
} from '../declare';
import { figure } from '../../format';

const metresField = numberField({ unit: 'm', min: 0.0001, max: 1000, slider: [0.01, 2] });
const metres = (label: string, help: string, value: number, shown?: (p: Resolved) => boolean): NumberParam =>
  metresField(label, help, value, { shown });

const params = {
  which: {
    type: 'choice',
    label: 'Surface',
    help: 'What the points sit on.',
    options: [
      { value: 'disc', label: 'Disc' },
      { value: 'dome', label: 'Dome' },
      { value: 'cone', label: 'Cone' },
      { value: 'cylinder', label: 'Cylinder' },
    ],
    default: 'disc',
  },
  count: {
    type: 'number',
    unit: 'plain',
    label: 'Count',
    help: 'How many there are; between whole numbers the newest one is coming up.',
    default: 200,
    min: 0,
    max: 1_000_000,
    slider: [0, 2000],
  },
  angle: {
    type: 'number',
    unit: 'deg',
    label: 'Divergence',
    help: 'From each to the next, about the axis; the golden angle packs evenly at any count.',
    default: GOLDEN_ANGLE,
    min: -360,
    max: 360,
    slider: [130, 145],
  },
  born: {
    type: 'choice',
    label: 'New ones',
    help: 'Where they are born: at the centre they push the others out. Endless births come up at the centre, push outwards for ever and close with the range.',
    options: [
      { value: 'centre', label: 'At the centre' },
      { value: 'rim', label: 'At the rim' },
      { value: 'endless', label: 'Endless' },
    ],
    default: 'centre',
  },
  births: {
    type: 'number',
    unit: 'count',
    label: 'Births',
    help: 'How many are born over the range. A Fibonacci number (8, 13, 21, 34 …) turns the whole the least.',
    default: 21,
    min: 0,
    max: 100000,
    slider: [0, 144],
    whole: true,
    shown: (p) => p.born === 'endless',
  },
  room: {
    type: 'choice',
    label: 'As the count changes',
    help: 'Whether the surface keeps its size, or each point keeps its room and the whole grows.',
    options: [
      { value: 'held', label: 'Size held' },
      { value: 'grows', label: 'Spacing held' },
    ],
    default: 'grows',
    shown: (p) => p.born !== 'endless',
  },
  radius: metres('Radius', 'Of the whole; with the spacing held, only its proportion to the height.', 0.5),
  height: metres('Height', 'From rim to top.', 0.4, (p) => p.which !== 'disc'),
  spacing: metres(
    'Spacing',
    'About how far neighbours are apart.',
    0.05,
    (p) => p.room === 'grows' && p.born !== 'endless',
  ),
  swell: {
    type: 'number',
    unit: 'plain',
    label: 'Swell',
    help: 'Births that a new one takes to come up to its size.',
    default: 6,
    min: 0,
    max: 100000,
    slider: [0, 60],
  },
  fade: {
    type: 'number',
    unit: 'plain',
    label: 'Fade',
    help: 'Births before its end in which an old one goes.',
    default: 10,
    min: 0,
    max: 100000,
    slider: [0, 60],
    shown: (p) => p.born === 'endless',
  },
  ramp: {
    type: 'profile',
    label: 'Size by place',
    help: 'Size of what stands there, from the middle, or the top, to the rim.',
    min: 0.05,
    max: 4,
    default: [{ at: 0, value: 1 }],
  },
  touch: {
    type: 'toggle',
    label: 'Spaced by size',
    help: 'Larger ones take more room, so that neighbours stay in touch from the smallest to the largest.',
    default: true,
  },
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type PhyllotaxisParams = ParamsOf<typeof params>;

export const phyllotaxis = defineStep({
  kind: 'phyllotaxis',
  family: 'start',
  held: true,
  label: 'Phyllotaxis',
  use: 'Folds and heads',
  icon: 'M10 10H10.01M12.6 10.6H12.61M8.4 12.4H8.41M9.4 7H9.41M13.4 7.2H13.41M11.6 14.4H11.61M5.6 9.4H5.61M16.4 11.4H16.41M7 15.8H7.01M11 3.4H11.01M4 13H4.01M15.4 15.6H15.41',
  help: 'Points in the spirals of flower heads, each turned on from the one before by the same angle. The count can be animated from nothing: the pattern stays, new ones are born at the centre and push outwards, or join at the rim; or births go on for ever.',
  takes: [],
  gives: ['points'],
  params,
  moves: true,
  summary: (p) => `${figure(p.count, 0)} on a ${p.which}${p.born === 'endless' ? ', endless' : ''}`,
  async run(form, p, context) {
    context.claim('points', p.count, 'Count');
    if (p.born === 'endless') tellOfKeyedCount(context);
    const { florets } = await import('./runPhyllotaxis');
    return startWithPoints(form, await florets(p, context));
  },
});

/** Births that go on for ever replace what goes: a count that changes as well leaves places empty, and the range open. */
function tellOfKeyedCount(context: StepContext): void {
  const [first, last] = context.range.map((frame) => context.numberAt('count', frame));
  if (first === last) return;
  const most = Math.max(first, last);
  context.tell(
    'Count is animated while births go on for ever: that leaves gaps, and the range does not close.',
    'Let Count stand still: new ones come up by Births alone.',
    { label: `Hold Count at ${figure(most, 0)}`, set: { count: most } },
  );
}
