import { startWithPoints } from './startWithPoints';
import { defineStep, is, numberField, type ParamSpecs, type ParamsOf, place, shownFor, placesParam } from '../declare';
import { figure, metres } from '../../format';

const inSpace = is('where', 'ball', 'box');
const length = numberField({ unit: 'm', min: 0.0001, max: 1000 });

const params = {
  where: {
    type: 'choice',
    label: 'In',
    help: 'A ball, a box, or the inside of the closed form of another growth, as it is at the last frame.',
    options: [
      { value: 'ball', label: 'A ball' },
      { value: 'box', label: 'A box' },
      { value: 'form', label: 'A form' },
    ],
    default: 'ball',
  },
  growth: {
    type: 'growth',
    label: 'Growth',
    help: 'The growth whose form is filled.',
    default: null,
    still: true,
    fits: ['mesh', 'copies'],
    shown: is('where', 'form'),
  },
  ...shownFor(place('at', 'Middle', 'Middle of the ball or box.', [0, 1, 0]), inSpace),
  width: length('Width', 'From side to side.', 1.6, { slider: [0.1, 6], shown: inSpace }),
  height: length('Height', 'From bottom to top.', 1.6, { slider: [0.1, 6], shown: inSpace }),
  depth: length('Depth', 'From front to back.', 1.6, { slider: [0.1, 6], shown: inSpace }),
  by: {
    type: 'choice',
    label: 'Places',
    help: 'A number of them, evenly spread or at random; as many as there is room for at a distance; or packed as balls that touch neither each other nor the skin.',
    options: [
      { value: 'even', label: 'Evenly spread' },
      { value: 'random', label: 'At random' },
      { value: 'spacing', label: 'By distance' },
      { value: 'packed', label: 'Packed balls' },
    ],
    default: 'even',
  },
  count: placesParam(200, (p) => p.by !== 'spacing'),
  spacing: length('Distance', 'The least from one to the next.', 0.15, {
    slider: [0.02, 1],
    shown: is('by', 'spacing'),
  }),
  smallest: length('Smallest radius', 'Gaps that take no ball of this radius stay empty.', 0.03, {
    slider: [0.005, 0.5],
    shown: is('by', 'packed'),
  }),
  largest: length('Largest radius', 'Of the largest balls.', 0.2, { slider: [0.01, 1], shown: is('by', 'packed') }),
  goesBy: {
    type: 'choice',
    label: 'Varies with',
    help: 'What density and size go by: nothing; the height, from the lowest place to the highest; or the way inwards, from the skin to the deepest place.',
    options: [
      { value: 'none', label: 'Nothing' },
      { value: 'height', label: 'Height' },
      { value: 'inwards', label: 'Way inwards' },
    ],
    default: 'none',
  },
  density: {
    type: 'profile',
    label: 'Density',
    help: 'How many there are against the full number; at 0 there are none.',
    min: 0,
    max: 1,
    default: [{ at: 0, value: 1 }],
    shown: (p) => p.goesBy !== 'none',
  },
  sizes: {
    type: 'profile',
    label: 'Size',
    help: 'Size of what stands there.',
    min: 0,
    max: 4,
    default: [{ at: 0, value: 1 }],
    shown: (p) => p.goesBy !== 'none',
  },
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type VolumeParams = ParamsOf<typeof params>;

export const volume = defineStep({
  kind: 'volume',
  family: 'start',
  held: true,
  label: 'Points in a volume',
  use: 'Forms',
  icon: 'M10 2.5A7.5 7.5 0 1 0 10.01 2.5M7 7H7.01M12 6H12.01M13.5 10H13.51M9.5 10.5H9.51M6 11.5H6.01M11.5 14H11.51M8 14.5H8.01',
  help: 'Points that fill a ball, a box or a closed form: evenly, at random, so far apart, or packed as bubbles of all sizes. Put copies on them with On the points; an item of 1 m across just fills the room of a packed one.',
  takes: [],
  gives: ['points'],
  params,
  summary: (p) =>
    p.by === 'spacing' ? `${metres(p.spacing)} apart in a ${p.where}` : `${figure(p.count, 0)} in a ${p.where}`,
  async run(form, p, context) {
    const { runVolume } = await import('./runVolume');
    return startWithPoints(form, await runVolume(p, context));
  },
});
