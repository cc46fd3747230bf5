import type { Vec3 } from '../../geometry/vec';
import { defineStep } from '../declare';
import { figure } from '../../format';
import { MOVABLE } from './movable';
import { rangeParams } from './rangeParams';

export const fold = defineStep({
  kind: 'fold',
  family: 'shape',
  label: 'Fold',
  icon: 'M10 17V5L3 3V15ZM10 17 17 15V3L10 5',
  help: 'Folds both halves forward about the upright middle line, like a book or a leaf closing.',
  takes: [],
  takesOne: MOVABLE,
  gives: [],
  params: {
    angle: {
      type: 'number',
      unit: 'deg',
      label: 'Angle',
      help: 'By how much each half turns; 90 brings them face to face.',
      default: 40,
      min: -180,
      max: 180,
      slider: [-90, 90],
      varies: 'path',
    },
    soft: {
      type: 'number',
      unit: 'm',
      label: 'Softness',
      help: 'Width over which each half is bent rather than creased.',
      default: 0.02,
      min: 0,
      max: 1000,
      slider: [0, 0.5],
    },
    ...rangeParams,
  },
  summary: (p) => `${figure(p.angle, 1)}° each half`,
  async run(form, p, context) {
    const { wholeBoundsOf } = await import('../../geometry/extent');
    const { rangeOf } = await import('./range');
    const { eachPoint } = await import('./eachPoint');
    const bounds = wholeBoundsOf(form);
    if (!bounds) return form;
    const range = rangeOf(p, bounds.min[1], bounds.max[1]);
    const angleOf = context.varied('angle');
    return eachPoint(form, context, ([x, y, z], element): Vec3 => {
      const angle = ((angleOf(element) * Math.PI) / 180) * range(y);
      if (angle === 0 || x === 0) return [x, y, z];
      const [side, way] = [Math.sign(x), Math.abs(x)];
      // Bent along an arc first, so that its width is kept, then straight on.
      const arc = Math.min(way, p.soft);
      const turned = p.soft > 0 ? (angle * arc) / p.soft : angle;
      const radius = p.soft / angle;
      const [bx, bz] = p.soft > 0 ? [radius * Math.sin(turned), radius * (1 - Math.cos(turned))] : [0, 0];
      const on = way - arc;
      const [c, s] = [Math.cos(turned), Math.sin(turned)];
      return [side * (bx + on * c - z * s), y, bz + on * s + z * c];
    });
  },
});
