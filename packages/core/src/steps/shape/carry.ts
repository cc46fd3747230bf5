import { defineStep, numberField } from '../declare';
import { figure } from '../../format';

const length = numberField({ unit: 'm', min: 0, max: 1000, slider: [0, 1] });

export const carry = defineStep({
  kind: 'carry',
  family: 'shape',
  label: 'Branch thickness',
  icon: 'M8.5 17V10L4 4M11.5 17V10L16 4M8.5 10 10 7 11.5 10',
  help: 'Makes branches as thick as what they carry: a stem thickens smoothly as its branches come up, and thins where they are taken off.',
  takes: ['paths'],
  gives: ['paths'],
  params: {
    tip: {
      type: 'number',
      unit: 'share',
      label: 'Tips',
      help: 'Thickness of a tip, of what the skin says.',
      default: 0.15,
      min: 0.001,
      max: 10,
      slider: [0.01, 1],
    },
    exponent: {
      type: 'number',
      unit: 'plain',
      label: 'Exponent',
      help: 'At 2 the cross-sections of branches add up to that of their stem; the higher, the less it thickens.',
      default: 2.4,
      min: 1,
      max: 8,
      slider: [1.5, 4],
    },
    over: length('Comes up over', 'Length of a new branch over which its stem takes on its weight.', 0.25),
    flare: length('Flares over', 'Length below a joint over which the stem takes in what leaves there.', 0.08),
  },
  summary: (p) => `exponent ${figure(p.exponent, 1)}`,
  async run(form, p) {
    const { pipeSizes } = await import('../../geometry/branches');
    const paths = form.paths!;
    const carried = pipeSizes(paths, p);
    return { ...form, paths: { ...paths, size: paths.size.map((size, i) => size * carried[i]) } };
  },
});
