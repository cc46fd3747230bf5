import { defineStep, type ParamSpecs, type ParamsOf } from '../declare';
import { metres } from '../../format';

const params = {
  within: {
    type: 'number',
    unit: 'm',
    label: 'Tolerance',
    help: 'How far the simpler course may be from the old one.',
    default: 0.01,
    min: 0,
    max: 1000,
    slider: [0, 0.2],
  },
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type ThinParams = ParamsOf<typeof params>;

export const thin = defineStep({
  kind: 'thin',
  family: 'shape',
  label: 'Simplify',
  icon: 'M3 14 8 6 12 12 17 5M3 14H3.01M8 6H8.01M12 12H12.01M17 5H17.01',
  help: 'Leaves out points that the course can do without; those that stay do not move.',
  takes: ['paths'],
  gives: ['paths'],
  params,
  summary: (p) => `within ${metres(p.within)}`,
  async run(form, p, context) {
    const { runThin } = await import('./runThin');
    return { ...form, paths: await runThin(form.paths!, p, context) };
  },
});
