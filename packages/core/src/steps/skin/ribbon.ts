import { defineStep } from '../declare';
import { metres } from '../../format';
import { shapeOf, skinParams, sweepHooks, variedPaths } from './skinParams';
import { withSkin } from './withSkin';

const { radius, along, follows, reach, swell, start, end } = skinParams;

/** Half discs at the ends look round from about this many corners of the whole circle on. */
const END_SIDES = 32;

export const ribbon = defineStep({
  kind: 'ribbon',
  family: 'skin',
  label: 'Ribbon',
  icon: 'M3 7C7 3 12 11 17 7V12C12 16 7 8 3 12Z',
  help: 'A flat band along the paths: lying level, standing upright, or turning with the path. Its ends can be round.',
  takes: ['paths'],
  gives: ['mesh'],
  parts: {
    'As it grows': ['follows', 'reach', 'swell'],
    Turning: ['lean', 'roll', 'twist'],
    Ends: ['start', 'end'],
  },
  params: {
    radius: { ...radius, label: 'Half width', help: 'Half the width where the profile is at 100 %.' },
    thick: {
      type: 'number',
      unit: 'm',
      label: 'Thickness',
      help: 'From face to face, everywhere alike.',
      default: 0.012,
      min: 0.0001,
      max: 100,
      slider: [0.001, 0.2],
    },
    lean: {
      type: 'choice',
      label: 'Lean',
      help: 'Which way its faces look: up, sideways, or as the path carries them without twist.',
      options: [
        { value: 'path', label: 'Follows the path' },
        { value: 'level', label: 'Level' },
        { value: 'upright', label: 'Upright' },
      ],
      default: 'path',
    },
    along: { ...along, default: [{ at: 0, value: 1 }] },
    follows,
    reach,
    swell: { ...swell, default: 0 },
    roll: {
      type: 'number',
      unit: 'deg',
      label: 'Roll',
      help: 'Turns the ribbon about the path.',
      default: 0,
      min: -36000,
      max: 36000,
      slider: [-180, 180],
      varies: 'along',
    },
    twist: {
      type: 'number',
      unit: 'turns',
      label: 'Twist',
      help: 'Turns more along the whole path.',
      default: 0,
      min: -1000,
      max: 1000,
      slider: [-6, 6],
      varies: 'path',
    },
    start: { ...start, default: 'round' },
    end,
  },
  summary: (p) => `${metres(2 * p.radius)} wide, ${p.lean === 'path' ? 'along the path' : p.lean}, ${p.end} end`,
  async run(form, p, context) {
    const { leaning } = await import('./leaning');
    const { squareProfile } = await import('../../surfaces/sweep/sweepProfile');
    const { sweepProfile } = await import('../../surfaces/sweep/sweepTubes');
    const leant = await leaning(form.paths!, p.lean, () => context.yieldNow());
    const paths = await variedPaths(leant, p.radius, context, { roll: true, twist: true });
    const mesh = await sweepProfile(
      paths,
      squareProfile(),
      { ...shapeOf(p, END_SIDES), deep: p.thick / 2 },
      sweepHooks(context, 'Points of the path'),
      { roll: (p.roll * Math.PI) / 180, twist: 2 * Math.PI * p.twist },
    );
    return withSkin(form, mesh);
  },
});
