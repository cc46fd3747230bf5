import { defineStep } from '../declare';
import { metres } from '../../format';
import { shapeOf, skinParams, sweepHooks, variedPaths } from './skinParams';
import { withSkin } from './withSkin';

const { radius, along, follows, reach, swell, start, end } = skinParams;

export const tube = defineStep({
  kind: 'tube',
  family: 'skin',
  label: 'Tube',
  icon: 'M6 5V14M14 5V14M6 5A4 1.8 0 0 1 14 5 4 1.8 0 0 1 6 5M6 14A4 1.8 0 0 0 14 14',
  help: 'Sweeps a circle along the paths. Thickness follows a drawn profile.',
  takes: ['paths'],
  gives: ['mesh'],
  parts: {
    'As it grows': ['follows', 'reach', 'swell'],
    Ends: ['start', 'end'],
  },
  params: {
    radius,
    along,
    follows,
    reach,
    swell,
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
    start,
    end,
    joints: {
      type: 'choice',
      label: 'Joints',
      help: 'Where a path grows from another: each tube by itself, pushed into the other, or all of them grown together into one closed skin. Grown together, the sides are a multiple of four.',
      options: [
        { value: 'pushed', label: 'Pushed in' },
        { value: 'grown', label: 'Grown together' },
      ],
      default: 'pushed',
    },
    collar: {
      type: 'number',
      unit: 'share',
      label: 'Collar',
      help: 'How far the skin bends out before a branch, as a share of the branch.',
      default: 0.5,
      min: 0,
      max: 3,
      slider: [0, 1.5],
      shown: (p) => p.joints === 'grown',
    },
  },
  summary: (p) => `${metres(p.radius)} radius, ${p.sides} sides, ${p.end} tip`,
  async run(form, p, context) {
    const paths = await variedPaths(form.paths!, p.radius, context);
    const [shape, hooks] = [shapeOf(p, p.sides), sweepHooks(context, 'Sides, or Points of the path')];
    if (p.joints === 'grown') {
      const { treeSkin } = await import('../../surfaces/tree/treeSkin');
      return withSkin(form, await treeSkin(paths, shape, p.collar, hooks));
    }
    const { sweepTubes } = await import('../../surfaces/sweep/sweepTubes');
    return withSkin(form, await sweepTubes(paths, shape, hooks));
  },
});
