import { startWithPoints } from '../start/startWithPoints';
import {
  defineStep,
  numberField,
  type NumberParam,
  type ParamSpecs,
  type ParamsOf,
  type Resolved,
  placesParam,
} from '../declare';
import { figure, metres } from '../../format';

const counts = (p: Resolved): boolean => p.by === 'count';
const bySpacing = (p: Resolved): boolean => p.by === 'spacing' || p.by === 'edges';
const shareField = numberField({ unit: 'share', min: 0, max: 1 });
const degreesField = numberField({ unit: 'deg', min: 0, max: 180 });
const share = (label: string, help: string, value: number): NumberParam => shareField(label, help, value);

const params = {
  by: {
    type: 'choice',
    label: 'Places',
    help: 'A number of them; as many as there is room for at a distance, no two nearer and no room left for another; or at what the skin is made of.',
    options: [
      { value: 'count', label: 'By count' },
      { value: 'spacing', label: 'By distance' },
      { value: 'vertices', label: 'At its corners' },
      { value: 'faces', label: 'At its faces' },
      { value: 'edges', label: 'Along its edges' },
    ],
    default: 'count',
  },
  count: placesParam(200, counts),
  spread: {
    type: 'choice',
    label: 'Spread',
    help: 'Evenly, so that none stands close to another however many there are; or at random, with the clusters and gaps of chance.',
    options: [
      { value: 'even', label: 'Evenly' },
      { value: 'random', label: 'At random' },
    ],
    default: 'even',
    shown: counts,
  },
  spacing: {
    type: 'number',
    unit: 'm',
    label: 'Distance',
    help: 'The least from one to the next; along edges, from one to the next on each.',
    default: 0.1,
    min: 0.0001,
    max: 1000,
    slider: [0.01, 1],
    shown: bySpacing,
  },
  denser: {
    type: 'choice',
    label: 'Density by',
    help: 'Everywhere alike, or by the drawn shape: from the lowest to the highest place, from faces that look up to faces that look down, from base to tip, or from 0 to 1 of an attribute.',
    options: [
      { value: 'none', label: 'Everywhere alike' },
      { value: 'height', label: 'Height' },
      { value: 'slope', label: 'Slope' },
      { value: 'along', label: 'Along the skin' },
      { value: 'attribute', label: 'An attribute' },
    ],
    default: 'none',
  },
  attribute: {
    type: 'attribute',
    label: 'Attribute',
    help: 'What the density goes by, as it is at the last frame.',
    default: '',
    shown: (p) => p.denser === 'attribute',
  },
  density: {
    type: 'profile',
    label: 'Density',
    help: 'How many there are against the full number; at 0 there are none.',
    min: 0,
    max: 1,
    default: [
      { at: 0, value: 1 },
      { at: 1, value: 0 },
    ],
    shown: (p) => p.denser !== 'none',
  },
  lowest: share('From height', 'Below this share of the height of the skin there are none.', 0),
  highest: share('To height', 'Above this share of the height there are none.', 1),
  flattest: degreesField(
    'From slope',
    'There are none where the skin leans less than this: 0 looks straight up, 90 to the side, 180 down.',
    0,
  ),
  steepest: degreesField('To slope', 'There are none where the skin leans more than this.', 180),
  upright: share('Upright', 'At 0 % what stands there stands off the skin, at 100 % upright; anywhere between.', 0),
  sink: {
    type: 'number',
    unit: 'm',
    label: 'Sink',
    help: 'How deep in the skin they are; below 0 they float over it.',
    default: 0,
    min: -100,
    max: 100,
    slider: [-0.2, 0.2],
  },
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type ScatterParams = ParamsOf<typeof params>;

export const scatter = defineStep({
  kind: 'scatter',
  family: 'place',
  label: 'Scatter',
  icon: 'M4 13C6 8 14 8 16 13M6 16H14M7 6H7.01M12 4H12.01M15 7.5H15.01M4 8.5H4.01M10 8H10.01',
  help: 'Points on a skin: evenly spread, at random, so far apart, or at its corners, faces and edges. More of them move none that stand, and they ride on the skin however it moves. Put copies on them with On the points.',
  takes: ['mesh'],
  gives: ['points'],
  coarse: { count: 0.3, spacing: 2 },
  parts: {
    Limits: ['lowest', 'highest', 'flattest', 'steepest'],
    Standing: ['upright', 'sink'],
  },
  params,
  summary: (p) =>
    ({
      count: `${figure(p.count, 0)}, ${p.spread === 'even' ? 'evenly spread' : 'at random'}`,
      spacing: `${metres(p.spacing)} apart`,
      vertices: 'at its corners',
      faces: 'at its faces',
      edges: `along its edges, every ${metres(p.spacing)}`,
    })[p.by] ?? '',
  async run(form, p, context) {
    const { runScatter } = await import('./runScatter');
    return startWithPoints(form, await runScatter(form.mesh!, p, context));
  },
});
