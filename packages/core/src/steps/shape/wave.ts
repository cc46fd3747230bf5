import type { Vec3 } from '../../geometry/vec';
import { defineStep } from '../declare';
import { figure, metres } from '../../format';
import { held, progressOf } from './motion';

export const wave = defineStep({
  kind: 'wave',
  family: 'shape',
  label: 'Wave',
  icon: 'M3 10C5 3 8 3 10 10S15 17 17 10',
  help: 'Sends a regular wave along each path, to one side of it.',
  takes: ['paths'],
  gives: ['paths'],
  params: {
    amount: {
      type: 'number',
      unit: 'm',
      label: 'Amount',
      help: 'Height of the wave.',
      default: 0.1,
      min: 0,
      max: 1000,
      slider: [0, 1],
      varies: 'along',
    },
    length: {
      type: 'number',
      unit: 'm',
      label: 'Wavelength',
      help: 'Rest length of path from crest to crest.',
      default: 0.6,
      min: 0.0001,
      max: 1000,
      slider: [0.05, 3],
    },
    speed: {
      type: 'number',
      unit: 'per-second',
      label: 'Speed',
      help: 'Waves a second that pass a point; negative ones run back to the base.',
      default: 0.5,
      min: -100,
      max: 100,
      slider: [-3, 3],
    },
    loop: { type: 'toggle', label: 'Loop', help: 'Fits the speed so that the range closes.', default: true },
    side: {
      type: 'number',
      unit: 'deg',
      label: 'Side',
      help: 'About the path, which way the wave swings.',
      default: 0,
      min: -36000,
      max: 36000,
      slider: [-180, 180],
    },
    spin: {
      type: 'toggle',
      label: 'Corkscrew',
      help: 'Winds round the path instead of swinging to one side.',
      default: false,
    },
    hold: {
      type: 'number',
      unit: 'share',
      label: 'Hold base',
      help: 'Share of the path over which the wave comes up from nothing.',
      default: 0.15,
      min: 0,
      max: 1,
    },
  },
  moves: true,
  summary: (p) =>
    `${metres(p.amount)} every ${metres(p.length)}${p.speed !== 0 ? `, ${figure(p.speed)} a second` : ''}`,
  async run(form, p, context) {
    const { withFrames } = await import('../../curves/pathFrames');
    const { eachPathPoint } = await import('./eachPoint');
    const paths = withFrames(form.paths!);
    const { passed } = progressOf(p.speed, p.loop, context);
    // Whole waves are taken off first: the range's end is then exactly its beginning.
    const phase = passed - Math.floor(passed);
    const side = (p.side * Math.PI) / 180;
    const amount = context.varied('amount');
    return eachPathPoint({ ...form, paths }, context, ([x, y, z], i, element): Vec3 => {
      const [tx, ty, tz] = paths.tangents.subarray(3 * i, 3 * i + 3);
      const [nx, ny, nz] = paths.normals.subarray(3 * i, 3 * i + 3);
      const [bx, by, bz] = [ty * nz - tz * ny, tz * nx - tx * nz, tx * ny - ty * nx];
      const angle = 2 * Math.PI * (paths.s[i] / p.length - phase);
      const k = amount(element) * held(paths.u[i], p.hold);
      const [c, s] = p.spin
        ? [Math.cos(angle + side), Math.sin(angle + side)]
        : [Math.sin(angle) * Math.cos(side), Math.sin(angle) * Math.sin(side)];
      return [x + k * (c * nx + s * bx), y + k * (c * ny + s * by), z + k * (c * nz + s * bz)];
    });
  },
});
