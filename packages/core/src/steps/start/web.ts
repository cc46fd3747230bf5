import {
  defineStep,
  is,
  numberField,
  type ParamSpecs,
  type ParamsOf,
  place,
  type Resolved,
  shownFor,
} from '../declare';
import { counted, percent } from '../format';

const length = numberField({ unit: 'm', min: 0, max: 1000 });
const inSpace = is('where', 'ball', 'box');

const pulsing = (p: Resolved): boolean => Number(p.pulses) !== 0;

const params = {
  where: {
    type: 'choice',
    label: 'Nodes',
    help: 'Where the nodes are: at random in a ball or a box, or at the points of another growth.',
    options: [
      { value: 'ball', label: 'In a ball' },
      { value: 'box', label: 'In a box' },
      { value: 'growth', label: 'Points of a growth' },
    ],
    default: 'ball',
  },
  growth: {
    type: 'growth',
    label: 'Growth',
    help: 'The growth at whose points the nodes are: loose points, those of paths, corners of a skin.',
    default: null,
    shown: is('where', 'growth'),
  },
  count: {
    type: 'number',
    unit: 'count',
    label: 'Count',
    help: 'How many nodes there are at most.',
    default: 90,
    min: 2,
    max: 3000,
    slider: [4, 400],
    whole: true,
  },
  ...shownFor(place('at', 'Middle', 'Middle of the ball or box.', [0, 1.2, 0]), inSpace),
  width: length('Width', 'From side to side.', 2.2, { slider: [0.1, 8], shown: inSpace }),
  height: length('Height', 'From bottom to top.', 1.8, { slider: [0.1, 8], shown: inSpace }),
  depth: length('Depth', 'From front to back.', 2.2, { slider: [0.1, 8], shown: inSpace }),
  links: {
    type: 'choice',
    label: 'Links',
    help: 'Which nodes are linked: each with those nearest to it, all within a distance, so that all hang together on the shortest way, all with no other between them, all neighbours by Delaunay, which fill space with tetrahedra, or all with the hub.',
    options: [
      { value: 'nearest', label: 'To the nearest' },
      { value: 'within', label: 'Within a distance' },
      { value: 'tree', label: 'Shortest tree' },
      { value: 'between', label: 'None between' },
      { value: 'delaunay', label: 'All neighbours' },
      { value: 'hub', label: 'To the hub' },
    ],
    default: 'between',
  },
  each: {
    type: 'number',
    unit: 'count',
    label: 'For each',
    help: 'How many of the nearest each is linked to.',
    default: 3,
    min: 1,
    max: 50,
    slider: [1, 8],
    whole: true,
    shown: is('links', 'nearest'),
  },
  longest: length('No longer than', 'Links that would be longer are left out.', 1.2, {
    slider: [0.05, 4],
    shown: is('links', 'nearest', 'within', 'between', 'delaunay'),
  }),
  ...place('hub', 'Hub', 'It grows out from the node that is nearest to this place.', [0, 0, 0]),
  grown: {
    type: 'number',
    unit: 'share',
    label: 'Grown',
    help: 'How far it has grown out from the hub, link by link, at an even pace.',
    default: 1,
    min: 0,
    max: 1,
  },
  swell: length('Swells over', 'Way of the front over which a node that it has come to swells up.', 0.3, {
    slider: [0, 1.5],
  }),
  shape: {
    type: 'choice',
    label: 'Shape',
    help: 'Links run straight, hang through, or bow out each to a side of its own.',
    options: [
      { value: 'straight', label: 'Straight' },
      { value: 'sag', label: 'Sagging' },
      { value: 'bow', label: 'Curved' },
    ],
    default: 'straight',
  },
  bow: {
    type: 'number',
    unit: 'share',
    label: 'By',
    help: 'How far they hang or bow, of their length.',
    default: 0.15,
    min: -2,
    max: 2,
    slider: [0, 0.6],
    shown: is('shape', 'sag', 'bow'),
  },
  pulses: length(
    'Pulses apart',
    'Pulses of light run out from the hub along the links, this far from one another; 0 there are none. Finish glows by the attribute “pulse”.',
    0,
    { slider: [0, 3] },
  ),
  pulseLength: length('Pulse length', 'How long a pulse is, from its head to the end of its tail.', 0.3, {
    min: 0.001,
    slider: [0.05, 1],
    shown: pulsing,
  }),
  pulseSpeed: {
    type: 'number',
    unit: 'per-second',
    label: 'Pulses a second',
    help: 'How many come to each place in a second; below 0 they run towards the hub.',
    default: 0.5,
    min: -50,
    max: 50,
    slider: [-2, 2],
    shown: pulsing,
  },
  drift: length('Drift', 'How far nodes drift at most, about. Links follow.', 0, { slider: [0, 0.5] }),
  rate: {
    type: 'number',
    unit: 'per-second',
    label: 'Drifts',
    help: 'How many times a second they change their way, about: each has a rate of its own.',
    default: 0.25,
    min: 0,
    max: 50,
    slider: [0, 2],
    shown: (p) => Number(p.drift) !== 0,
  },
  loop: {
    type: 'toggle',
    label: 'Loop',
    help: 'Fits the drift and the pulses into the range, so that it can be played in a loop.',
    default: true,
    shown: (p) => Number(p.drift) !== 0 || pulsing(p),
  },
} satisfies ParamSpecs;

export type WebParams = ParamsOf<typeof params>;

export const web = defineStep({
  kind: 'web',
  family: 'start',
  held: true,
  label: 'Web',
  use: 'Branches and webs',
  icon: 'M10 3 4 9 7 16 14 15 16 8ZM10 3 9.5 9.5 4 9M9.5 9.5 7 16M9.5 9.5 14 15M9.5 9.5 16 8',
  help: 'Nodes and links between them, growing out from a hub. Nodes are points that swell as the front comes: On the points puts something on them.',
  takes: [],
  gives: ['paths', 'points'],
  parts: {
    Hub: ['hubX', 'hubY', 'hubZ'],
    'Shape of links': ['shape', 'bow'],
    Movement: ['swell', 'drift', 'rate', 'pulses', 'pulseLength', 'pulseSpeed', 'loop'],
  },
  params,
  moves: true,
  many: true,
  paced: 'grown',
  writes: (p) => (p.pulses > 0 ? ['hub', 'pulse'] : ['hub']),
  summary: (p) => `${counted(p.count, 'node')}, ${percent(p.grown)} grown`,
  async run(form, p, context) {
    const { wovenWeb } = await import('./wovenWeb');
    return wovenWeb(form, p, context);
  },
});
