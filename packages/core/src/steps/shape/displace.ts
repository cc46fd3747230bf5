import { defineStep, type ParamSpecs, type ParamsOf } from '../declare';
import { figure, metres } from '../../format';

const params = {
  amount: {
    type: 'number',
    unit: 'm',
    label: 'Amount',
    help: 'How far it is raised everywhere; below 0 it sinks. Let it vary by an attribute, and it swells where the front has passed.',
    default: 0,
    min: -1000,
    max: 1000,
    slider: [-0.5, 0.5],
    varies: 'along',
  },
  noise: {
    type: 'number',
    unit: 'm',
    label: 'Noise',
    help: 'How far noise raises and sinks it, about.',
    default: 0.05,
    min: 0,
    max: 1000,
    slider: [0, 0.5],
    varies: 'along',
  },
  family: {
    type: 'choice',
    label: 'Kind',
    help: 'Soft hills, sharp ridges with round valleys, or round swellings with sharp furrows between.',
    options: [
      { value: 'soft', label: 'Soft' },
      { value: 'ridges', label: 'Ridges' },
      { value: 'swellings', label: 'Swellings' },
    ],
    default: 'soft',
    shown: (p) => Number(p.noise) !== 0,
  },
  size: {
    type: 'number',
    unit: 'm',
    label: 'Size',
    help: 'Distance from one swelling to the next, about.',
    default: 0.3,
    min: 0.001,
    max: 1000,
    slider: [0.02, 2],
    shown: (p) => Number(p.noise) !== 0,
  },
  detail: {
    type: 'number',
    unit: 'count',
    label: 'Detail',
    help: 'Layers of noise, each half the size of the one before.',
    default: 3,
    min: 1,
    max: 8,
    whole: true,
    shown: (p) => Number(p.noise) !== 0,
  },
  roughness: {
    type: 'number',
    unit: 'share',
    label: 'Roughness',
    help: 'Strength of each finer layer against the one before.',
    default: 0.5,
    min: 0,
    max: 1,
    shown: (p) => Number(p.noise) !== 0,
  },
  evolve: {
    type: 'number',
    unit: 'per-second',
    label: 'Evolution',
    help: 'Changes a second, fitted to the range so that it closes; 0 stands still.',
    default: 0,
    min: 0,
    max: 100,
    slider: [0, 3],
    shown: (p) => Number(p.noise) !== 0,
  },
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type DisplaceParams = ParamsOf<typeof params>;

export const displace = defineStep({
  kind: 'displace',
  family: 'shape',
  label: 'Displace',
  icon: 'M3 15C5 15 5.5 11 7 11 8.5 11 9 14 10.5 14 12 14 12.5 8 14 8 15.5 8 16 12 17 12M10 6V2.5M8.3 4.2 10 2.5 11.7 4.2',
  help: 'Raises and sinks a skin along its normals: by an amount, which can go by an attribute such as a front, and by noise.',
  takes: ['mesh'],
  gives: ['mesh'],
  params,
  moves: true,
  summary: (p) =>
    [p.amount !== 0 && metres(p.amount), p.noise > 0 && `noise ${figure(p.noise, 3)} m`].filter(Boolean).join(', ') ||
    'by an attribute',
  async run(form, p, context) {
    const { runDisplace } = await import('./runDisplace');
    return { ...form, mesh: await runDisplace(form.mesh!, p, context) };
  },
});
