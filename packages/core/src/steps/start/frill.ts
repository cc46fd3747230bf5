import { defineStep, is, numberField, type ParamSpecs, type ParamsOf } from '../declare';
import { factor, metres, percent } from '../../format';

const length = numberField({ unit: 'm', min: 0.0001, max: 1000 });
const shareField = numberField({ unit: 'share', min: 0, max: 1 });

const params = {
  base: {
    type: 'choice',
    label: 'Base',
    help: 'What it stands on: a ring, a spiral, a straight line, or the paths of another growth.',
    options: [
      { value: 'ring', label: 'A ring' },
      { value: 'spiral', label: 'A spiral' },
      { value: 'line', label: 'A line' },
      { value: 'growth', label: 'Paths of a growth' },
    ],
    default: 'ring',
  },
  growth: {
    type: 'growth',
    label: 'Growth',
    help: 'The growth on whose paths it stands, as they are at the last frame.',
    default: null,
    fits: ['paths'],
    still: true,
    shown: is('base', 'growth'),
  },
  radius: length('Radius', 'From the middle to the ring, or to the end of the spiral.', 0.25, {
    slider: [0.02, 2],
    shown: is('base', 'ring', 'spiral'),
  }),
  inner: length('Inner radius', 'From the middle to where the spiral begins.', 0.04, {
    slider: [0.01, 1],
    shown: is('base', 'spiral'),
  }),
  turns: {
    type: 'number',
    unit: 'turns',
    label: 'Turns',
    help: 'How often the spiral goes round.',
    default: 2,
    min: 0.1,
    max: 50,
    slider: [0.5, 6],
    shown: is('base', 'spiral'),
  },
  length: length('Length', 'From end to end of the line.', 1, { slider: [0.05, 6], shown: is('base', 'line') }),
  grown: shareField('Grown', 'How far it has grown: it rises from its base, and its rim gets longer.', 1),
  height: length('Height', 'From the base to the rim, along the sheet.', 0.4, { slider: [0.05, 2] }),
  ruffle: {
    type: 'number',
    unit: 'plain',
    label: 'Rim',
    help: 'How many times as long as the base the rim would like to be: the more, the more it ruffles.',
    default: 4,
    min: 1,
    max: 30,
    slider: [1, 10],
  },
  rim: {
    type: 'number',
    unit: 'plain',
    label: 'Near the rim',
    help: 'At 1 it gets longer all the way up; higher, only near the rim, so that only that ruffles.',
    default: 2,
    min: 0.2,
    max: 10,
    slider: [0.5, 5],
  },
  fold: length('Folds', 'How wide its folds are at least, about.', 0.14, { slider: [0.02, 0.5] }),
  open: {
    type: 'number',
    unit: 'deg',
    label: 'Opens',
    help: 'How it stands: 0 upright, 90 flat outwards.',
    default: 40,
    min: -180,
    max: 180,
    slider: [0, 120],
  },
  upright: shareField('Firmness', 'How much it holds that way against its own folds.', 0.5),
  apart: length(
    'Minimum distance',
    'How far folds that come to lie beside each other keep apart; 0 lets them meet.',
    0.03,
    {
      min: 0,
      slider: [0, 0.1],
    },
  ),
  piece: length(
    'Segment length',
    'Side of the squares at the rim, about: smaller is smoother, and takes longer to make.',
    0.035,
    {
      min: 0.001,
      slider: [0.01, 0.1],
    },
  ),
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type FrillParams = ParamsOf<typeof params>;

export const frill = defineStep({
  kind: 'frill',
  family: 'start',
  label: 'Frill',
  use: 'Folds and heads',
  icon: 'M2.5 7C4 3 6 3 6.5 6.5S9 10 10 6.5 13 3 13.5 6.5 16 9 17.5 6M5 16C8 17.5 12 17.5 15 16M2.5 7 5 16M17.5 6 15 16',
  help: 'A sheet that rises from its base while its rim grows longer than there is room for, so that it ruffles: lettuce, kelp blades, petals, skirts. Thicken makes it solid.',
  takes: [],
  gives: ['mesh'],
  parts: {
    Folding: ['fold', 'open', 'upright'],
    Detail: ['apart', 'piece'],
  },
  params,
  thin: 0.008,
  paced: 'grown',
  coarse: { piece: 3 },
  writes: () => ['rim'],
  summary: (p) => `${metres(p.height)}, rim ${factor(p.ruffle)}, ${percent(p.grown)} grown`,
  async run(form, p, context) {
    const [{ runFrill }, { startWithMesh }] = await Promise.all([import('./runFrill'), import('./startWithMesh')]);
    return startWithMesh(form, await runFrill(p, context));
  },
});
