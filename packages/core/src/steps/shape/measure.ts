import {
  defineStep,
  is,
  shownFor,
  numberField,
  type NumberParam,
  type ParamSpecs,
  type ParamsOf,
  place,
} from '../declare';

const value = numberField({ unit: 'plain', min: -1e6, max: 1e6 });
const between = (label: string, help: string, at: number): NumberParam =>
  value(label, help, at, { slider: [0, 4], shown: is('scale', 'between') });

/** What can be measured, by the name under which it is kept. */
export const MEASURES = [
  { value: 'height', label: 'Height' },
  { value: 'slope', label: 'Slope' },
  { value: 'curvature', label: 'Curvature' },
  { value: 'thickness', label: 'Thickness' },
  { value: 'area', label: 'Area of faces' },
  { value: 'guide', label: 'Distance to a guide' },
  { value: 'growth', label: 'Distance to a growth' },
  { value: 'direction', label: 'Along a direction' },
  { value: 'random', label: 'Chance' },
  { value: 'number', label: 'Number' },
  { value: 'noise', label: 'Noise' },
  { value: 'depth', label: 'Joints from the root' },
  { value: 'order', label: 'Order of branches' },
  { value: 'root', label: 'Distance from the root' },
] as const;

const params = {
  what: {
    type: 'choice',
    label: 'Quantity',
    help: 'Height in metres; slope in degrees, 0 where it looks straight up; curvature in one over metres, above 0 where it bulges; thickness through the form; area of faces in square metres, at a corner a third of those around it; distance in metres to a guide, to the tips of a growth or to another growth; metres along a direction; chance; number of the point; noise; of branches, how many joints lie between them and the root, their order by Strahler, and metres from the root.',
    options: MEASURES,
    default: 'height',
  },
  at: {
    type: 'choice',
    label: 'On skins',
    help: 'At each corner, with even passages in between, or on each face for itself. On paths and points it is always measured at each point.',
    options: [
      { value: 'corners', label: 'At corners' },
      { value: 'faces', label: 'On faces' },
    ],
    default: 'corners',
  },
  guide: {
    type: 'guide',
    label: 'Guide',
    help: 'What the distance is measured to; of a plane, ball or box to its border, below 0 inside.',
    default: null,
    shown: is('what', 'guide'),
  },
  growth: {
    type: 'growth',
    label: 'Growth',
    help: 'What the distance is measured to: its skin, or else its paths and points.',
    default: null,
    shown: is('what', 'growth'),
  },
  ...shownFor(
    place('way', 'Direction', 'The direction that it is measured along.', [1, 0, 0]),
    is('what', 'direction'),
  ),
  size: {
    type: 'number',
    unit: 'm',
    label: 'Size',
    help: 'Size of the noise.',
    default: 0.5,
    min: 0.001,
    max: 1000,
    slider: [0.02, 3],
    shown: is('what', 'noise'),
  },
  detail: {
    type: 'number',
    unit: 'count',
    label: 'Detail',
    help: 'Layers of noise, each half the size of the one before.',
    default: 2,
    min: 1,
    max: 8,
    whole: true,
    shown: is('what', 'noise'),
  },
  scale: {
    type: 'choice',
    label: 'Scale',
    help: 'As it is measured; or as a share, from 0 at its least to 1 at its most, or between two values.',
    options: [
      { value: 'share', label: 'Least 0, most 1' },
      { value: 'between', label: 'Between values' },
      { value: 'measured', label: 'As measured' },
    ],
    default: 'share',
  },
  low: between('Map to 0 at', 'Value that becomes 0.', 0),
  high: between('Map to 1 at', 'Value that becomes 1.', 1),
  shape: {
    type: 'profile',
    label: 'Shape',
    help: 'What becomes of each share.',
    min: 0,
    max: 1,
    default: [
      { at: 0, value: 0, shape: 'straight' },
      { at: 1, value: 1 },
    ],
    shown: (p) => p.scale !== 'measured',
  },
  name: {
    type: 'text',
    label: 'Attribute name',
    help: 'Name of the attribute; that of what is measured where it is empty.',
    default: '',
    most: 40,
  },
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type MeasureParams = ParamsOf<typeof params>;

/** The name under which it is kept. */
export const measuredAs = (p: Pick<MeasureParams, 'name' | 'what'>): string => p.name.trim() || p.what;

export const measure = defineStep({
  kind: 'measure',
  family: 'shape',
  label: 'Measure',
  icon: 'M3 13 13 3 17 7 7 17ZM6 10 8 12M9 7 11 9M12 4 14 6',
  help: 'Keeps what it measures at every place as an attribute, for later steps to go by: height, slope, curvature, thickness, distances, chance, noise.',
  takes: [],
  takesOne: ['mesh', 'paths', 'points', 'copies'],
  gives: [],
  params,
  writes: (p) => [measuredAs(p)],
  summary: (p) =>
    `${MEASURES.find(({ value: what }) => what === p.what)?.label ?? ''}${p.name.trim() ? ` as ${p.name.trim()}` : ''}`,
  async run(form, p, context) {
    const { runMeasure } = await import('./runMeasure');
    return runMeasure(form, p, context);
  },
});
