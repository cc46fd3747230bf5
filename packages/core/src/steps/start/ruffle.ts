import { defineStep, is, numberField, type ParamSpecs, type ParamsOf, place, shownFor } from '../declare';
import { factor, percent } from '../../format';
import { liesParam } from './planeParam';

const length = numberField({ unit: 'm', min: 0.0001, max: 1000 });
const shareField = numberField({ unit: 'share', min: 0, max: 1 });

const params = {
  begin: {
    type: 'choice',
    label: 'Begins as',
    help: 'What it is at first: a ring, a straight line, or the paths of another growth.',
    options: [
      { value: 'ring', label: 'A ring' },
      { value: 'line', label: 'A line' },
      { value: 'growth', label: 'Paths of a growth' },
    ],
    default: 'ring',
  },
  growth: {
    type: 'growth',
    label: 'Growth',
    help: 'The growth with whose paths it begins, as they are at the last frame.',
    default: null,
    fits: ['paths'],
    still: true,
    shown: is('begin', 'growth'),
  },
  radius: length('Radius', 'From the middle of the ring.', 0.25, { slider: [0.02, 2], shown: is('begin', 'ring') }),
  length: length('Length', 'From end to end of the line.', 1.5, { slider: [0.05, 6], shown: is('begin', 'line') }),
  ...shownFor(place('at', 'Middle', 'Middle of the ring or line.', [0, 0.9, 0]), is('begin', 'ring', 'line')),
  where: {
    type: 'choice',
    label: 'Confine to',
    help: 'Where it may grow: in its plane, on the skin of another growth, or anywhere.',
    options: [
      { value: 'plane', label: 'In its plane' },
      { value: 'skin', label: 'On a skin' },
      { value: 'space', label: 'Anywhere' },
    ],
    default: 'plane',
  },
  skin: {
    type: 'growth',
    label: 'Skin',
    help: 'The growth on whose skin it stays, as it is at the last frame.',
    default: null,
    fits: ['mesh', 'copies'],
    still: true,
    shown: is('where', 'skin'),
  },
  lies: { ...liesParam, shown: (p) => p.begin !== 'growth' || p.where === 'plane' },
  within: {
    type: 'choice',
    label: 'Within',
    help: 'What it does not grow out of: a circle or ball round the middle, or round the origin where it begins with paths, or the form of another growth.',
    options: [
      { value: 'nothing', label: 'Nothing' },
      { value: 'round', label: 'A circle' },
      { value: 'form', label: 'A form' },
    ],
    default: 'nothing',
  },
  most: length('Circle', 'Radius that it stays within.', 0.9, { slider: [0.1, 4], shown: is('within', 'round') }),
  form: {
    type: 'growth',
    label: 'Form',
    help: 'The growth within whose form it stays, as it is at the last frame.',
    default: null,
    fits: ['mesh', 'copies'],
    still: true,
    shown: is('within', 'form'),
  },
  grown: { ...shareField('Grown', 'How far it has grown: it gets longer at an even pace.', 1) },
  factor: {
    type: 'number',
    unit: 'plain',
    label: 'Final length ×',
    help: 'How many times its first length it comes to, where there is room.',
    default: 10,
    min: 1,
    max: 200,
    slider: [1, 30],
  },
  apart: length('Minimum distance', 'How far parts that come to lie beside each other keep apart.', 0.08, {
    slider: [0.01, 0.3],
  }),
  piece: length(
    'Segment length',
    'From point to point, about; longer pieces are divided. Less than a third of Keeps apart is smooth.',
    0.03,
    {
      min: 0.001,
      slider: [0.004, 0.1],
    },
  ),
  stiffness: shareField('Stiffness', 'The stiffer, the wider its bends.', 0.5),
  uneven: shareField('Unevenness', 'How much readier some parts grow than others.', 0.5),
  held: {
    type: 'toggle',
    label: 'Fix ends',
    help: 'The ends of open lines stay where they are.',
    default: true,
    shown: (p) => p.begin !== 'ring',
  },
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type RuffleParams = ParamsOf<typeof params>;

export const ruffle = defineStep({
  kind: 'ruffle',
  family: 'start',
  held: true,
  label: 'Ruffled line',
  use: 'Folds and heads',
  icon: 'M10 3C12 3 11 7 13 7S16 5 17 8 13 9 13 11 17 12 16 15 12 13 10 13 6 17 4 15 7 12 7 10 2 9 3 6 7 7 8 6 8 3 10 3Z',
  help: 'A line that grows longer than there is room for: neighbours hold on to one another, all else keeps apart, so that it winds into meanders, lobes and lace.',
  takes: [],
  gives: ['paths'],
  parts: {
    Firmness: ['stiffness', 'uneven', 'held'],
    Detail: ['apart', 'piece'],
  },
  params,
  many: true,
  paced: 'grown',
  writes: () => ['born'],
  summary: (p) => `${factor(p.factor)} as long, ${percent(p.grown)} grown`,
  async run(form, p, context) {
    const [{ runRuffle }, { startWith }] = await Promise.all([import('./runRuffle'), import('./startWith')]);
    return startWith(form, await runRuffle(p, context));
  },
});
