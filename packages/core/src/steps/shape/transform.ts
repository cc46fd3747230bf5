import type { Turn } from '../../geometry/turns';
import type { Vec3 } from '../../geometry/vec';
import type { Element } from '../../geometry/element';
import { defineStep, type NumberParam, place } from '../declare';
import { figure, metres } from '../../format';
import { MOVABLE } from './movable';

const turn = (label: string, help: string) =>
  ({
    type: 'number',
    unit: 'deg',
    label,
    help,
    default: 0,
    min: -36000,
    max: 36000,
    slider: [-180, 180],
    group: 'Turn',
  }) as const;

/** Angles about the three axes, in the order in which they count. */
export const turnFields = {
  turnX: turn('X', 'About the axis to the right, first.'),
  turnY: turn('Y', 'About the vertical axis, second.'),
  turnZ: turn('Z', 'About the axis towards you, last.'),
};

/** Fields that may differ from path to path. */
const FIELDS = ['moveX', 'moveY', 'moveZ', 'turnX', 'turnY', 'turnZ', 'scale'];

/** The same fields, free to differ from path to path. */
const varying = <P extends string>(fields: Record<P, NumberParam>): Record<P, NumberParam> =>
  Object.fromEntries(
    Object.entries<NumberParam>(fields).map(([name, field]) => [name, { ...field, varies: 'path' }]),
  ) as Record<P, NumberParam>;

export const transform = defineStep({
  kind: 'transform',
  family: 'shape',
  label: 'Move and turn',
  icon: 'M10 3V17M3 10H17M8 5 10 3 12 5M15 8 17 10 15 12',
  help: 'Scales, turns and moves all of it at once, about the origin.',
  takes: [],
  takesOne: MOVABLE,
  gives: [],
  params: {
    ...varying(place('move', 'Move', 'By how much, after scaling and turning.', [0, 0, 0])),
    ...varying(turnFields),
    scale: {
      type: 'number',
      unit: 'share',
      label: 'Scale',
      help: 'Size of everything, before the rest.',
      default: 1,
      min: 0.0001,
      max: 1000,
      slider: [0.05, 4],
      varies: 'path',
    },
  },
  summary: moveSummary,
  async run(form, p, context) {
    const { movedCopies, movedForm, turnOf } = await import('../../curves/moveForm');
    const movement = {
      turn: turnOf(p.turnX, p.turnY, p.turnZ),
      size: p.scale,
      move: [p.moveX, p.moveY, p.moveZ] as const,
    };
    if (!FIELDS.some((name) => context.varies(name))) return movedForm(form, movement);
    const { eachPoint } = await import('./eachPoint');
    const { withTurnedFrames, withTurnedPoints } = await import('./runTransform');
    const [moveX, moveY, moveZ, turnX, turnY, turnZ, scale] = FIELDS.map((name) => context.varied(name));
    // What is copied moves as one; only paths, skins and loose points can differ from one to another.
    const { copies, seats, ...rest } = form;
    const moved = await eachPoint({ ...rest, copies: null, seats: null }, context, (point, at): Vec3 => {
      const [a, b, c] = [turnX(at), turnY(at), turnZ(at)].map((angle) => (angle * Math.PI) / 180);
      const [x, y, z] = about(2, c, about(1, b, about(0, a, point)));
      const k = scale(at);
      return [k * x + moveX(at), k * y + moveY(at), k * z + moveZ(at)];
    });
    const turnAt = (at: Readonly<Element>): Turn => turnOf(turnX(at), turnY(at), turnZ(at));
    return {
      ...moved,
      paths: form.paths && moved.paths && withTurnedFrames(moved.paths, form.paths, turnAt),
      points: form.points && moved.points && withTurnedPoints(moved.points, form.points, turnAt, scale),
      copies: copies && movedCopies(copies, movement),
      seats: seats && movedCopies(seats, movement),
      pitch: form.pitch === null ? null : form.pitch * p.scale,
    };
  },
});

interface Moved {
  moveX: number;
  moveY: number;
  moveZ: number;
  turnX: number;
  turnY: number;
  turnZ: number;
  scale: number;
}

/** How far something is moved, turned and sized, in a line. */
export function moveSummary(p: Moved): string {
  const moved = Math.hypot(p.moveX, p.moveY, p.moveZ);
  const turned = [p.turnX, p.turnY, p.turnZ].filter((angle) => angle !== 0);
  const parts = [
    moved > 0 && `moved ${metres(moved)}`,
    turned.length > 0 && `turned ${turned.map((angle) => `${figure(angle, 1)}°`).join(' ')}`,
    p.scale !== 1 && `${figure(100 * p.scale)} %`,
  ];
  return parts.filter(Boolean).join(', ') || 'as it is';
}

/** Turns a point about one of the axes, right-handed. */
function about(axis: 0 | 1 | 2, angle: number, point: Vec3): Vec3 {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const out: [number, number, number] = [point[0], point[1], point[2]];
  const [i, j] = [(axis + 1) % 3, (axis + 2) % 3];
  out[i] = point[i] * c - point[j] * s;
  out[j] = point[i] * s + point[j] * c;
  return out;
}
