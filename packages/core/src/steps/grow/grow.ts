import { EASE_NAMES } from '../../time/easing';
import { defineStep, numberField, type ParamSpecs, type ParamsOf, type Resolved } from '../declare';
import { figure, metres, percent } from '../../format';
import { soundParams } from './soundParams';

/** A noise of each path's own has layers only while it changes; one in space has some in any case. */
const layered = (p: Resolved): boolean =>
  Number(p.levels) !== 0 && (p.levelsBy === 'field' || (p.levelsBy === 'noise' && Number(p.change) !== 0));
const byAttribute = (p: Resolved): boolean => Number(p.levels) !== 0 && p.levelsBy === 'attribute';
const attributeAt = numberField({ unit: 'plain', min: -1e6, max: 1e6, slider: [0, 1] });

const params = {
  from: {
    type: 'number',
    unit: 'share',
    label: 'From',
    help: 'Share of the length at which the visible part begins.',
    default: 0,
    min: 0,
    max: 1,
  },
  to: {
    type: 'number',
    unit: 'share',
    label: 'To',
    help: 'Share of the length at which the visible part ends.',
    default: 1,
    min: 0,
    max: 1,
  },
  begins: {
    type: 'choice',
    label: 'Begins at',
    help: 'Where growth sets out. From the middle, To spreads both ways and From plays no part then.',
    options: [
      { value: 'base', label: 'Base' },
      { value: 'tip', label: 'Tip' },
      { value: 'middle', label: 'Middle' },
    ],
    default: 'base',
  },
  travel: {
    type: 'number',
    unit: 'share',
    label: 'Travel',
    help: 'Moves the visible part along: animate it and a window travels. On closed paths it goes round and round.',
    default: 0,
    min: -1000,
    max: 1000,
    slider: [-1, 1],
  },
  stagger: {
    type: 'number',
    unit: 'frames',
    label: 'Stagger',
    help: 'Frames between one path and the next.',
    default: 0,
    min: 0,
    max: 10000,
    slider: [0, 24],
  },
  order: {
    type: 'choice',
    label: 'Order',
    help: 'Which paths come first.',
    options: [
      { value: 'index', label: 'As they are' },
      { value: 'reverse', label: 'Last first' },
      { value: 'random', label: 'At random' },
      { value: 'centre', label: 'From the centre' },
      { value: 'guide', label: 'By distance from a guide' },
    ],
    default: 'index',
    shown: (p) => p.stagger !== 0,
  },
  guide: {
    type: 'guide',
    label: 'Guide',
    help: 'The nearer a path begins to it, the sooner it sets out.',
    default: null,
    shown: (p) => p.stagger !== 0 && p.order === 'guide',
  },
  ease: {
    type: 'choice',
    label: 'Ease each',
    help: "Easing of each path's own growth, over what the keys say.",
    options: EASE_NAMES.filter((name) => name !== 'hold').map((name) => ({
      value: name,
      label: name === 'linear' ? 'As keyed' : name.replaceAll('-', ' '),
    })),
    default: 'linear',
  },
  pace: {
    type: 'choice',
    label: 'Pace',
    help: 'Whether all paths take the same time, or all fronts move as fast as that of the longest one.',
    options: [
      { value: 'time', label: 'Equal time' },
      { value: 'speed', label: 'Equal speed' },
    ],
    default: 'time',
  },
  branches: {
    type: 'choice',
    label: 'Branches',
    help: 'How the front runs through what branches: as the start says, at an even pace from the roots, so that it gets to all tips at once, one generation after another, or through each path by itself.',
    options: [
      { value: 'made', label: 'As they were made' },
      { value: 'even', label: 'At an even pace' },
      { value: 'together', label: 'Tips together' },
      { value: 'generations', label: 'By generation' },
      { value: 'each', label: 'Each by itself' },
    ],
    default: 'made',
  },
  soft: {
    type: 'number',
    unit: 'm',
    label: 'Soft tip',
    help: 'Length behind the front over which thickness eases to nothing.',
    default: 0,
    min: 0,
    max: 1000,
    slider: [0, 1],
  },
  whole: {
    type: 'toggle',
    label: 'Whole pieces',
    help: 'The front jumps from point to point instead of sliding, as bars light up in a meter.',
    default: false,
  },
  levels: {
    type: 'number',
    unit: 'share',
    label: 'Levels',
    help: 'How far each path is held back by a level of its own: at 100 % it grows just to its level.',
    default: 0,
    min: 0,
    max: 1,
  },
  levelsBy: {
    type: 'choice',
    label: 'Levels by',
    help: 'What sets the levels: chance or a noise of each path’s own; a noise in space, by which neighbours move together; an attribute; a drawn profile across the paths; or a sound, one band a path.',
    options: [
      { value: 'noise', label: 'Random or noise' },
      { value: 'field', label: 'Noise in space' },
      { value: 'attribute', label: 'An attribute' },
      { value: 'profile', label: 'Drawn profile' },
      { value: 'sound', label: 'Sound' },
    ],
    default: 'noise',
    shown: (p) => Number(p.levels) !== 0,
  },
  change: {
    type: 'number',
    unit: 'per-second',
    label: 'Level change',
    help: 'How fast levels rise and fall, or the profile moves on; 0 keeps them. The range closes exactly.',
    default: 0,
    min: 0,
    max: 100,
    slider: [0, 4],
    shown: (p) => Number(p.levels) !== 0 && p.levelsBy !== 'sound' && p.levelsBy !== 'attribute',
  },
  levelGrain: {
    type: 'number',
    unit: 'm',
    label: 'Grain',
    help: 'Size of the noise in space: paths that begin nearer to each other than this move together.',
    default: 0.5,
    min: 0.001,
    max: 1000,
    slider: [0.05, 3],
    shown: (p) => Number(p.levels) !== 0 && p.levelsBy === 'field',
  },
  levelAttribute: {
    type: 'attribute',
    label: 'Attribute',
    help: 'What is known of the paths, or of where they begin: a falloff, height, what has been measured.',
    default: 'falloff',
    shown: byAttribute,
  },
  levelLow: {
    ...attributeAt('Level 0 at', 'Value of the attribute at which a path does not grow at all.', 0),
    shown: byAttribute,
  },
  levelHigh: {
    ...attributeAt('Level 1 at', 'Value of the attribute at which it grows wholly.', 1),
    shown: byAttribute,
  },
  levelDetail: {
    type: 'number',
    unit: 'count',
    label: 'Detail',
    help: 'Layers of the noise in time, each twice as quick as the one before.',
    default: 2,
    min: 1,
    max: 8,
    whole: true,
    shown: layered,
  },
  levelRoughness: {
    type: 'number',
    unit: 'share',
    label: 'Roughness',
    help: 'Strength of each quicker layer against the one before.',
    default: 0.5,
    min: 0,
    max: 1,
    shown: layered,
  },
  levelProfile: {
    type: 'profile',
    label: 'Profile',
    help: 'Level of each path, from the first to the last.',
    min: 0,
    max: 1,
    default: [
      { at: 0, value: 0.1 },
      { at: 0.5, value: 1 },
      { at: 1, value: 0.1 },
    ],
    shown: (p) => Number(p.levels) !== 0 && p.levelsBy === 'profile',
  },
  ...soundParams,
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type GrowParams = ParamsOf<typeof params>;

export const grow = defineStep({
  kind: 'grow',
  family: 'grow',
  label: 'Grow',
  icon: 'M10 17V6M6.5 9.5 10 6 13.5 9.5M5 17H15M10 3H10.01',
  help: 'Shows the part of each path between two shares of its length. Animate To and the path grows at an even pace; animate From and it is eaten away.',
  takes: ['paths'],
  gives: ['paths'],
  parts: {
    'Several paths': ['stagger', 'order', 'guide', 'ease', 'pace', 'branches'],
    Tip: ['soft', 'whole'],
    'Levels and sound': [
      'levels',
      'levelsBy',
      'change',
      'levelGrain',
      'levelAttribute',
      'levelLow',
      'levelHigh',
      'levelDetail',
      'levelRoughness',
      'levelProfile',
      'sound',
      'low',
      'high',
      'attack',
      'release',
      'blend',
      'repeat',
    ],
  },
  params,
  moves: true,
  paced: 'to',
  staggered: 'stagger',
  hears: ({ levels, levelsBy, sound, repeat }) =>
    levels !== 0 && levelsBy === 'sound' && typeof sound === 'string'
      ? { file: sound, repeat: repeat !== false }
      : null,
  summary(p) {
    const more = [
      p.stagger > 0 && `${figure(p.stagger)} frames apart`,
      p.soft > 0 && `soft over ${metres(p.soft)}`,
      p.whole && 'whole pieces',
      p.levels > 0 &&
        {
          noise: 'levels',
          field: 'levels',
          attribute: `levels by ${p.levelAttribute}`,
          profile: 'levels drawn',
          sound: 'levels by sound',
        }[p.levelsBy],
    ];
    return [
      p.from > 0 ? `${percent(p.from)} to ${percent(p.to)} there now` : `${percent(p.to)} there now`,
      ...more.filter(Boolean),
    ].join(', ');
  },
  async run(form, p, context) {
    const { runGrow } = await import('./runGrow');
    return runGrow(form, p, context);
  },
});
