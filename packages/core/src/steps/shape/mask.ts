import type { Stroke } from '../../geometry/maskStroke';
import { defineStep, type ParamSpecs, type ParamsOf } from '../declare';
import { formatCount } from '../../format';

const params = {
  strokes: {
    type: 'strokes',
    label: 'Strokes',
    help: 'What has been painted on the form, from 0 to 1. It stays where it was painted when the form moves, and when it gets more or fewer faces.',
    default: [] as readonly Stroke[],
  },
  mirror: {
    type: 'choice',
    label: 'Mirrored',
    help: 'Whatever is painted on one side is painted on the other as well.',
    options: [
      { value: 'none', label: 'No' },
      { value: 'x', label: 'Across X' },
      { value: 'y', label: 'Across Y' },
      { value: 'z', label: 'Across Z' },
    ],
    default: 'none',
  },
  plane: {
    type: 'number',
    unit: 'm',
    label: 'Plane at',
    help: 'Where the plane that it is mirrored across stands.',
    default: 0,
    min: -10000,
    max: 10000,
    slider: [-2, 2],
    shown: (p) => p.mirror !== 'none',
  },
  name: {
    type: 'text',
    label: 'Attribute name',
    help: 'Name of the attribute; “mask” where it is empty.',
    default: '',
    most: 40,
  },
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type MaskParams = ParamsOf<typeof params>;

/** The name under which a mask is kept. */
export const maskedAs = (p: Pick<MaskParams, 'name'>): string => p.name.trim() || 'mask';

export const mask = defineStep({
  kind: 'mask',
  family: 'shape',
  label: 'Mask',
  icon: 'M13 3 17 7 10 13C9 11 9 11 7 10ZM7 11C9 12 9 15 6 16.5 4.5 17 3 17 3 17 4.5 15.5 3.5 13.5 4 11.5 4.5 10.5 5.5 10.5 7 11Z',
  help: 'Painted on the form with a brush: 0 to 1 at every place, kept as an attribute. Slow a front by it, scatter by it, displace, colour or reveal by it.',
  takes: ['mesh'],
  gives: [],
  params,
  moves: true,
  writes: (p) => [maskedAs(p)],
  summary: (p) => `${formatCount(p.strokes.length, 'stroke')}${p.name.trim() ? ` as ${p.name.trim()}` : ''}`,
  async run(form, p, context) {
    const { runMask } = await import('./runMask');
    return { ...form, mesh: await runMask(form.mesh!, p, context) };
  },
});
