import { profileTable, readTable } from '../../geometry/profile';
import { type Cap, type TubeShape } from '../../surfaces/rings';
import { sweepTubes } from '../../surfaces/tube';
import { type ChoiceParam, defineStep } from '../declare';
import { metres } from '../format';

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

export const tube = defineStep({
  kind: 'tube',
  family: 'skin',
  label: 'Tube',
  help: 'Sweeps a circle along the paths. Thickness follows a drawn profile.',
  takes: ['paths'],
  gives: ['mesh'],
  params: {
    radius: {
      type: 'number',
      unit: 'm',
      label: 'Radius',
      help: 'Thickness where the profile is at 100 %.',
      default: 0.06,
      min: 0,
      max: 100,
      slider: [0, 0.5],
    },
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
    },
    follows: {
      type: 'choice',
      label: 'Follows',
      help: 'Whether the profile lies on the whole path, or is fitted to what has grown so far.',
      options: [
        { value: 'grown', label: 'Grown part' },
        { value: 'whole', label: 'Whole path' },
      ],
      default: 'grown',
    },
    swell: {
      type: 'number',
      unit: 'm',
      label: 'Swell',
      help: 'Length of growth over which thickness comes up from nothing.',
      default: 0.4,
      min: 0,
      max: 1000,
      slider: [0, 3],
    },
    sides: {
      type: 'number',
      unit: 'count',
      label: 'Sides',
      help: 'Corners of the circle.',
      default: 12,
      min: 3,
      max: 512,
      slider: [3, 48],
      whole: true,
    },
    start: cap('Start', 'flat'),
    end: cap('End', 'round'),
  },
  summary: (p) => `${metres(p.radius)} radius, ${p.sides} sides, ${p.end} tip`,
  async run(form, p, context) {
    const table = profileTable(p.along, 257);
    const shape: TubeShape = {
      radius: p.radius,
      along: (position) => readTable(table, position),
      follows: p.follows as TubeShape['follows'],
      swell: p.swell,
      sides: p.sides,
      start: p.start as Cap,
      end: p.end as Cap,
    };
    const mesh = await sweepTubes(form.paths!, shape, {
      claim: (vertices, faces) => {
        context.claim('points', vertices, 'Sides, or Points of the path');
        context.claim('faces', faces, 'Sides, or Points of the path');
      },
      breathe: context.breathe,
    });
    return { ...form, mesh };
  },
});
