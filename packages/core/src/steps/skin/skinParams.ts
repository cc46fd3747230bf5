import { profileTable, readTable } from '../../geometry/profile';
import { type Cap, type TubeShape } from '../../surfaces/rings';
import { type SweepHooks } from '../../surfaces/tube';
import { type ChoiceParam, type NumberParam, type ParamsOf, type ProfileParam, type StepContext } from '../declare';

const cap = (label: string, value: Cap): ChoiceParam => ({
  type: 'choice',
  label,
  help: 'How the tube ends: open, flat, half a ball, or a point.',
  options: [
    { value: 'open', label: 'Open' },
    { value: 'flat', label: 'Flat' },
    { value: 'round', label: 'Round' },
    { value: 'pointed', label: 'Pointed' },
  ],
  default: value,
});

/** What all skins swept along a path have in common: thickness along, and ends. */
export const skinParams = {
  radius: {
    type: 'number',
    unit: 'm',
    label: 'Radius',
    help: 'Thickness where the profile is at 100 %.',
    default: 0.06,
    min: 0,
    max: 100,
    slider: [0, 0.5],
  } as NumberParam,
  along: {
    type: 'profile',
    label: 'Along',
    help: 'Factor on the radius, from base to tip.',
    min: 0,
    max: 2,
    default: [
      { at: 0, value: 1 },
      { at: 0.7, value: 0.7 },
      { at: 1, value: 0.2 },
    ],
  } as ProfileParam,
  follows: {
    type: 'choice',
    label: 'Follows',
    help: 'Whether the profile lies on the whole path, or is fitted to what has grown so far.',
    options: [
      { value: 'grown', label: 'Grown part' },
      { value: 'whole', label: 'Whole path' },
    ],
    default: 'grown',
  } as ChoiceParam,
  swell: {
    type: 'number',
    unit: 'm',
    label: 'Swell',
    help: 'Length of growth over which thickness comes up from nothing.',
    default: 0.4,
    min: 0,
    max: 1000,
    slider: [0, 3],
  } as NumberParam,
  start: cap('Start', 'flat'),
  end: cap('End', 'round'),
};

/** The shape that these parameters describe. */
export function shapeOf(p: ParamsOf<typeof skinParams>, sides: number): TubeShape {
  const table = profileTable(p.along, 257);
  return {
    radius: p.radius,
    along: (position) => readTable(table, position),
    follows: p.follows as TubeShape['follows'],
    swell: p.swell,
    sides,
    start: p.start as Cap,
    end: p.end as Cap,
  };
}

/** Holds a sweep to the budgets, and lets it be given up. */
export const sweepHooks = (context: StepContext, lower: string): SweepHooks => ({
  claim: (vertices, faces) => {
    context.claim('points', vertices, lower);
    context.claim('faces', faces, lower);
  },
  breathe: context.breathe,
});
