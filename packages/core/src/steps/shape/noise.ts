import { movedPaths } from '../../curves/pathFrames';
import { noise3 } from '../../fields/noise';
import { pathCount } from '../../geometry/paths';
import { defineStep } from '../declare';
import { figure, metres, percent } from '../format';
import { held, progressOf } from './motion';

const CHUNK = 2048;

export const noise = defineStep({
  kind: 'noise',
  family: 'shape',
  label: 'Noise',
  help: 'Bends the path irregularly, centred on its own course. Evolving noise sways; the base can stay where it is.',
  takes: ['paths'],
  gives: ['paths'],
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
  },
  timed: (p) => p.evolve > 0,
  summary: (p) =>
    `${metres(p.amount)}${p.hold > 0 ? `, base held for ${percent(p.hold)}` : ''}${p.evolve > 0 ? `, ${figure(p.evolve)} a second` : ''}`,
  async run(form, p, context) {
    const paths = form.paths!;
    const positions = new Float32Array(paths.positions);
    const { passed: time, period } = progressOf(p.evolve, p.loop, context);
    const shape = { detail: p.detail, roughness: p.roughness, seed: context.seed, period };
    const push = new Float64Array(3);
    for (let path = 0; path < pathCount(paths); path++) {
      for (let i = paths.offsets[path]; i < paths.offsets[path + 1]; i++) {
        if (i % CHUNK === 0) await context.breathe();
        const [x, y, z] = [positions[3 * i], positions[3 * i + 1], positions[3 * i + 2]];
        noise3(x / p.size, y / p.size, z / p.size, time, shape, push);
        const k = p.amount * held(paths.u[i], p.hold);
        positions[3 * i] = x + k * push[0];
        positions[3 * i + 1] = y + k * push[1];
        positions[3 * i + 2] = z + k * push[2];
      }
    }
    return { ...form, paths: movedPaths(paths, positions) };
  },
});
