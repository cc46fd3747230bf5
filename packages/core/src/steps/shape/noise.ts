import type { Vec3 } from '../../geometry/vec';
import type { Place } from '../../curves/elements';
import { defineStep } from '../declare';
import { figure, metres, percent } from '../../format';
import { MOVABLE } from './movable';
import { held, progressOf } from './motion';
import { rangeParams } from './rangeParams';

export const noise = defineStep({
  kind: 'noise',
  family: 'shape',
  label: 'Noise',
  icon: 'M3 11 5 7 7 13 9 6 11 14 13 8 15 12 17 9',
  help: 'Moves it irregularly, centred on its own course. Evolving noise sways; the base of a path can stay where it is.',
  takes: [],
  takesOne: MOVABLE,
  gives: [],
  parts: {
    Where: ['hold', 'low', 'high'],
  },
  params: {
    amount: {
      type: 'number',
      unit: 'm',
      label: 'Amount',
      help: 'How far points are moved at most, about.',
      default: 0.2,
      min: 0,
      max: 1000,
      slider: [0, 2],
      varies: 'along',
    },
    size: {
      type: 'number',
      unit: 'm',
      label: 'Size',
      help: 'Distance over which the direction of the push changes.',
      default: 1,
      min: 0.001,
      max: 1000,
      slider: [0.05, 5],
    },
    detail: {
      type: 'number',
      unit: 'count',
      label: 'Detail',
      help: 'Layers of noise, each half the size of the one before.',
      default: 2,
      min: 1,
      max: 8,
      whole: true,
    },
    roughness: {
      type: 'number',
      unit: 'share',
      label: 'Roughness',
      help: 'Strength of each finer layer against the one before.',
      default: 0.4,
      min: 0,
      max: 1,
    },
    evolve: {
      type: 'number',
      unit: 'per-second',
      label: 'Evolution',
      help: 'Changes a second; 0 stands still.',
      default: 0.3,
      min: 0,
      max: 100,
      slider: [0, 3],
    },
    loop: {
      type: 'toggle',
      label: 'Loop',
      help: 'Fits the evolution to the range, so that the frame after the last is exactly the first.',
      default: true,
    },
    hold: {
      type: 'number',
      unit: 'share',
      label: 'Hold base',
      help: 'Share of the path over which the push comes up from nothing; 0 moves the base too.',
      default: 0.15,
      min: 0,
      max: 1,
    },
    ...rangeParams,
  },
  moves: true,
  summary: (p) =>
    `${metres(p.amount)}${p.hold > 0 ? `, base held for ${percent(p.hold)}` : ''}${p.evolve > 0 ? `, ${figure(p.evolve)} a second` : ''}`,
  async run(form, p, context) {
    const { noise3 } = await import('../../fields/noise');
    const { steadyNoise } = await import('./steadyNoise');
    const { withinRange } = await import('./range');
    const { eachPoint } = await import('./eachPoint');
    const { passed: time, period } = progressOf(p.evolve, p.loop, context);
    const shape = { detail: p.detail, roughness: p.roughness, seed: context.seed, period };
    const steady = await steadyNoise(form.paths, p, shape, time, () => context.yieldNow());
    const push = new Float64Array(3);
    const turns = new Float64Array(9);
    const amount = context.varied('amount');
    const within = withinRange(p, form);
    const { size, hold } = p;
    const move = (place: Vec3, element: Readonly<Place>, slopes: Float64Array | null): Vec3 => {
      if (slopes || !steady?.(place, element.at, push))
        noise3(place[0] / size, place[1] / size, place[2] / size, time, shape, push, slopes);
      const k = amount(element) * held(element.u, hold) * within(place[1]);
      return [place[0] + k * push[0], place[1] + k * push[1], place[2] + k * push[2]];
    };
    return eachPoint(
      form,
      context,
      (place, element) => move(place, element, null),
      (place, element, slopes, small) => {
        const moved = move(place, element, turns);
        const whole = amount(element) * held(element.u, hold);
        const k = (whole * within(place[1])) / size;
        for (let axis = 0; axis < 3; axis++)
          for (let c = 0; c < 3; c++) slopes[3 * axis + c] = k * turns[3 * c + axis] + (axis === c ? 1 : 0);
        // Where the noise begins within a range it grows with the height.
        const rises = (whole * (within(place[1] + small) - within(place[1]))) / small;
        for (let c = 0; c < 3; c++) slopes[3 + c] += rises * push[c];
        return moved;
      },
    );
  },
});
