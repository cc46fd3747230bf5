import { defineStep, is, numberField, type ParamSpecs, type ParamsOf, place } from '../declare';
import { formatCount, metres } from '../../format';
import { beginParams } from './beginParams';

const lengthField = numberField({ unit: 'm', min: 0.0005, max: 1000 });
const plain = numberField({ unit: 'plain', min: -100, max: 100 });
const held = is('stays', 'heights');

const params = {
  ...beginParams,
  ...place('way', 'Way', 'Which way they set out, where the growth they begin at says nothing of it.', [0, 1, 0]),
  count: {
    type: 'number',
    unit: 'count',
    label: 'Count',
    help: 'How many tendrils there are; they take turns at the places where they begin.',
    default: 12,
    min: 1,
    max: 5000,
    slider: [1, 100],
    whole: true,
  },
  scatter: lengthField('Scatter', 'How far from its place each begins at most.', 0.15, { min: 0, slider: [0, 1] }),
  length: lengthField('Length', 'That they come to.', 2, { slider: [0.1, 8] }),
  vary: numberField({ unit: 'share', min: 0, max: 1 })('Vary length', 'By which share their lengths differ.', 0.3),
  turning: plain('Turning', 'How much noise turns them: 0 goes straight on.', 0.35, { min: 0, slider: [0, 2] }),
  size: lengthField('Size', 'From one turn of the noise to the next, about.', 0.5, { slider: [0.05, 3] }),
  rise: plain('Rise', 'How much they turn upwards; below 0 downwards.', 0, { slider: [-0.5, 0.5] }),
  toward: {
    type: 'guide',
    label: 'Attracted to',
    help: 'A guide, or the tips of a growth, that they turn towards: each to what is nearest.',
    default: null,
  },
  draw: plain('Attraction', 'How much it draws them; below 0 they shun it.', 0.15, {
    slider: [-1, 1],
    shown: (p) => p.toward !== null,
  }),
  apart: lengthField('Minimum distance', 'Nearer than this to one another they turn away; 0 they do not mind.', 0.06, {
    min: 0,
    slider: [0, 0.5],
  }),
  stays: {
    type: 'choice',
    label: 'Confine to',
    help: 'Where they may go: anywhere, on the skin of another growth, or between two heights.',
    options: [
      { value: 'anywhere', label: 'Anywhere' },
      { value: 'skin', label: 'On a skin' },
      { value: 'heights', label: 'Between heights' },
    ],
    default: 'anywhere',
  },
  skin: {
    type: 'growth',
    label: 'Skin',
    help: 'The growth on whose skin they stay, as it is at the last frame.',
    default: null,
    fits: ['mesh', 'copies'],
    still: true,
    shown: is('stays', 'skin'),
  },
  lowest: numberField({ unit: 'm', min: -1000, max: 1000 })('Lowest', 'They come no lower.', 0.02, {
    slider: [-2, 2],
    shown: held,
  }),
  highest: numberField({ unit: 'm', min: -1000, max: 1000 })('Highest', 'They come no higher.', 0.6, {
    slider: [0, 4],
    shown: held,
  }),
  piece: lengthField('Segment length', 'From point to point.', 0.03, { min: 0.001, slider: [0.005, 0.2] }),
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type WanderParams = ParamsOf<typeof params>;

export const wander = defineStep({
  kind: 'wander',
  family: 'start',
  held: true,
  label: 'Wandering tendrils',
  use: 'Branches and webs',
  icon: 'M4 17C3 13 7 13 6 9.5S8 6 7 3M10 17C11 14 9 12 11 9.5S10 5.5 12 3.5M16 17C14 14 17 12.5 15.5 10S17 6.5 16 5',
  help: 'Tendrils that feel their way by a noise, drawn to guides or tips, keeping off one another, on a skin or between two heights. They are grown once; Grow runs along them.',
  takes: [],
  gives: ['paths'],
  parts: {
    'Drawn and kept apart': ['toward', 'draw', 'apart'],
    Held: ['stays', 'skin', 'lowest', 'highest'],
  },
  params,
  many: true,
  summary: (p) => `${formatCount(p.count, 'tendril')}, ${metres(p.length)}`,
  async run(form, p, context) {
    const [{ runWander }, { startWith }] = await Promise.all([import('./runWander'), import('./startWith')]);
    return startWith(form, await runWander(p, context));
  },
});
