import { defineStep, type ParamSpecs, type ParamsOf, type Resolved } from '../declare';
import { figure } from '../../format';

const glows = (p: Resolved): boolean => Number(p.glow) !== 0;

const params = {
  by: {
    type: 'choice',
    label: 'Colour by',
    help: 'What a place is coloured by: its rest coordinate, which stays while the path grows; its place in the grown part; the time since the front passed; the level its path stands at; one colour for each path; or an attribute, such as a front.',
    options: [
      { value: 'rest', label: 'Whole path' },
      { value: 'grown', label: 'Grown part' },
      { value: 'age', label: 'Time since front' },
      { value: 'level', label: 'Level' },
      { value: 'order', label: 'Path by path' },
      { value: 'random', label: 'Path at random' },
      { value: 'attribute', label: 'An attribute' },
    ],
    default: 'rest',
  },
  gradient: {
    type: 'gradient',
    label: 'Colour',
    help: 'From the base to the far end, or from the first path to the last.',
    default: [
      { at: 0, color: '#2f5d3a' },
      { at: 0.55, color: '#8fb84a' },
      { at: 1, color: '#e3f29a' },
    ],
  },
  attribute: {
    type: 'attribute',
    label: 'Attribute',
    help: 'What the colours go by.',
    default: 'front',
    shown: (p) => p.by === 'attribute',
  },
  firstAt: {
    type: 'number',
    unit: 'plain',
    label: 'First colour at',
    help: 'Value of the attribute that has the first colour.',
    default: 0,
    min: -1e6,
    max: 1e6,
    slider: [0, 1],
    shown: (p) => p.by === 'attribute',
  },
  lastAt: {
    type: 'number',
    unit: 'plain',
    label: 'Last colour at',
    help: 'Value of the attribute that has the last colour.',
    default: 1,
    min: -1e6,
    max: 1e6,
    slider: [0, 1],
    shown: (p) => p.by === 'attribute',
  },
  fade: {
    type: 'number',
    unit: 's',
    label: 'Over',
    help: 'Seconds after the front that the colours run over, the first colour at the front.',
    default: 2,
    min: 0.01,
    max: 1000,
    slider: [0.1, 8],
    shown: (p) => p.by === 'age',
  },
  roughness: {
    type: 'number',
    unit: 'share',
    label: 'Roughness',
    help: 'From glossy to matt.',
    default: 0.55,
    min: 0,
    max: 1,
  },
  glow: {
    type: 'number',
    unit: 'share',
    label: 'Glow',
    help: 'Light that the growing tip gives off, or that an attribute says where.',
    default: 0.6,
    min: 0,
    max: 4,
    slider: [0, 2],
  },
  glowBy: {
    type: 'choice',
    label: 'Glows',
    help: 'At the growing tip, or where an attribute comes near to 1.',
    options: [
      { value: 'tip', label: 'At the tip' },
      { value: 'attribute', label: 'By an attribute' },
    ],
    default: 'tip',
    shown: glows,
  },
  glowAttribute: {
    type: 'attribute',
    label: 'Glow attribute',
    help: 'Where it is 1 it glows, where it is 0 it is dark.',
    default: 'pulse',
    shown: (p) => glows(p) && p.glowBy === 'attribute',
  },
  glowLength: {
    type: 'number',
    unit: 'm',
    label: 'Glow length',
    help: 'How far behind the tip the glow reaches.',
    default: 0.25,
    min: 0.001,
    max: 100,
    slider: [0.01, 2],
    shown: (p) => glows(p) && p.glowBy === 'tip',
  },
  glowColor: {
    type: 'color',
    label: 'Glow colour',
    help: 'Colour of that light.',
    default: '#ff8a5b',
    shown: glows,
  },
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type FinishParams = ParamsOf<typeof params>;

export const finish = defineStep({
  kind: 'finish',
  family: 'finish',
  label: 'Finish',
  icon: 'M4 16C3 8 8 3 16 4 17 12 12 17 4 16ZM4 16 10.5 9.5',
  help: 'Colours the skin along the path, lets the growing tip glow, and sets how matt it is.',
  takes: ['mesh'],
  gives: ['mesh'],
  params,
  wants: (p) => (p.by === 'age' ? ['age'] : []),
  summary: (p) =>
    `${p.gradient.length} colours${p.glow > 0 ? (p.glowBy === 'tip' ? ', glowing tip' : ', glowing') : ''}, roughness ${figure(p.roughness)}`,
  async run(form, p, context) {
    const { runFinish } = await import('./runFinish');
    return runFinish(form, p, context);
  },
});
