import { profileTable, readTable } from '../../geometry/profile';
import type { Vec3 } from '../../geometry/vec';
import { defineStep } from '../declare';
import { percent } from '../../format';
import { MOVABLE } from './movable';

export const taper = defineStep({
  kind: 'taper',
  family: 'shape',
  label: 'Taper',
  icon: 'M4 17H16M5.5 17 8.5 3H11.5L14.5 17',
  help: 'Makes it narrower or wider about the vertical axis, by a profile from foot to top.',
  takes: [],
  takesOne: MOVABLE,
  gives: [],
  params: {
    amount: {
      type: 'number',
      unit: 'share',
      label: 'Amount',
      help: 'How much of the profile counts; animate it.',
      default: 1,
      min: -10,
      max: 10,
      slider: [0, 1],
    },
    profile: {
      type: 'profile',
      label: 'Width',
      help: 'Factor on the width, from foot to top.',
      min: 0,
      max: 2,
      default: [
        { at: 0, value: 1 },
        { at: 1, value: 0.2 },
      ],
    },
    wide: { type: 'toggle', label: 'Across', help: 'Narrows it from side to side.', default: true },
    deep: { type: 'toggle', label: 'In depth', help: 'Narrows it from front to back.', default: true },
  },
  summary: (p) => percent(p.amount),
  async run(form, p, context) {
    const { wholeBoundsOf } = await import('../../geometry/extent');
    const { eachPoint } = await import('./eachPoint');
    const bounds = wholeBoundsOf(form);
    if (!bounds) return form;
    const [foot, top] = [bounds.min[1], bounds.max[1]];
    const table = profileTable(p.profile, 257);
    return eachPoint(form, context, ([x, y, z]): Vec3 => {
      const share = top > foot ? Math.min(1, Math.max(0, (y - foot) / (top - foot))) : 0;
      const k = 1 + (readTable(table, share) - 1) * p.amount;
      return [p.wide ? x * k : x, y, p.deep ? z * k : z];
    });
  },
});
