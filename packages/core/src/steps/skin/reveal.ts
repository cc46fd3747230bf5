import {
  type AttributeParam,
  defineStep,
  numberField,
  type ParamSpecs,
  type ParamsOf,
  type Resolved,
} from '../declare';
import { figure, metres } from '../../format';

const byFront = (p: Resolved): boolean => p.by === 'front';
const glows = (p: Resolved): boolean => Number(p.glow) !== 0;
const length = numberField({ unit: 'm', min: 0, max: 10000 });

const params = {
  by: {
    type: 'choice',
    label: 'Goes by',
    help: 'Shows what a front has passed, or where an attribute is high enough.',
    options: [
      { value: 'front', label: 'The front' },
      { value: 'attribute', label: 'An attribute' },
    ],
    default: 'front',
  },
  attribute: {
    type: 'attribute',
    label: 'Attribute',
    help: 'What it goes by.',
    default: 'height',
    shown: (p) => p.by === 'attribute',
  } satisfies AttributeParam,
  level: {
    type: 'number',
    unit: 'plain',
    label: 'From value',
    help: 'There where the attribute is this much or more. Animate it and it comes or goes.',
    default: 0.5,
    min: -1e6,
    max: 1e6,
    slider: [0, 1],
    shown: (p) => p.by === 'attribute',
  },
  behind: length('Behind', 'How far behind the edge of the front things come to be; below 0 ahead of it.', 0, {
    min: -10000,
    slider: [0, 1],
    shown: byFront,
  }),
  band: length(
    'Visible length',
    'Length of what is there, from its edge back; what lies further back is gone. 0 keeps all.',
    0,
    {
      slider: [0, 4],
      shown: byFront,
    },
  ),
  invert: { type: 'toggle', label: 'Invert', help: 'Shows what would be hidden, and hides the rest.', default: false },
  dissolve: length('Dissolve', 'Width over which it comes in grain by grain; 0 cuts cleanly.', 0, { slider: [0, 1] }),
  grain: length('Grain', 'Size of the grains.', 0.1, {
    min: 0.001,
    slider: [0.01, 0.5],
    shown: (p) => Number(p.dissolve) !== 0,
  }),
  soft: length('Soft tips', 'Of paths: length over which thickness eases to nothing at the edge.', 0, {
    slider: [0, 0.5],
  }),
  close: {
    type: 'toggle',
    label: 'Closed',
    help: 'Closes a solid where it is cut, so that one does not look into it.',
    default: false,
  },
  glow: {
    type: 'number',
    unit: 'share',
    label: 'Edge glow',
    help: 'Light that the edge of the cut gives off.',
    default: 0,
    min: 0,
    max: 8,
    slider: [0, 3],
  },
  width: length('Glow width', 'How far from the edge the light reaches.', 0.06, {
    min: 0.0001,
    slider: [0.005, 0.5],
    shown: glows,
  }),
  color: { type: 'color', label: 'Glow colour', help: 'Colour of that light.', default: '#ff8a5b', shown: glows },
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type RevealParams = ParamsOf<typeof params>;

export const reveal = defineStep({
  kind: 'reveal',
  family: 'skin',
  label: 'Reveal',
  icon: 'M4 16V7C4 5 5 4 7 4H11M11 4C9 6 13 8 11 10 9 12 13 14 11 16M4 16H11M14.5 5.5H14.51M16.5 9H16.51M14.5 12.5H14.51',
  help: 'Shows a skin, or paths, only where a front has passed or an attribute is high enough: cut exactly along the line, or dissolved in grains, with a glowing edge.',
  takes: [],
  takesOne: ['mesh', 'paths'],
  gives: [],
  params,
  summary: (p) =>
    [
      p.by === 'front' ? 'by the front' : `${p.attribute || 'no attribute'} from ${figure(p.level)}`,
      p.dissolve > 0 && `dissolving over ${metres(p.dissolve)}`,
      p.glow > 0 && 'hot edge',
    ]
      .filter(Boolean)
      .join(', '),
  async run(form, p, context) {
    const { runReveal } = await import('./runReveal');
    return runReveal(form, p, context);
  },
});
