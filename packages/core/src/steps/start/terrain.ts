import { defineStep } from '../declare';
import { metres } from '../format';

export const terrain = defineStep({
  kind: 'terrain',
  family: 'start',
  label: 'Terrain',
  icon: 'M2.5 15 7 7 10 11 13 5 17.5 15ZM2.5 17.5H17.5',
  help: 'Ground with hills or ridges, running out to level at its rim: for things to grow on.',
  takes: [],
  gives: ['mesh'],
  params: {
    width: {
      type: 'number',
      unit: 'm',
      label: 'Width',
      help: 'From left to right.',
      default: 4,
      min: 0.01,
      max: 10000,
      slider: [0.5, 20],
    },
    depth: {
      type: 'number',
      unit: 'm',
      label: 'Depth',
      help: 'From front to back.',
      default: 4,
      min: 0.01,
      max: 10000,
      slider: [0.5, 20],
    },
    pieces: {
      type: 'number',
      unit: 'count',
      label: 'Pieces',
      help: 'Squares along the longer side.',
      default: 120,
      min: 2,
      max: 1000,
      slider: [10, 300],
      whole: true,
    },
    relief: {
      type: 'number',
      unit: 'm',
      label: 'Relief',
      help: 'From the lowest to the highest place, about.',
      default: 0.6,
      min: 0,
      max: 1000,
      slider: [0, 3],
    },
    size: {
      type: 'number',
      unit: 'm',
      label: 'Hills',
      help: 'From one hill to the next, about.',
      default: 1.6,
      min: 0.001,
      max: 1000,
      slider: [0.2, 8],
    },
    ridges: {
      type: 'number',
      unit: 'share',
      label: 'Ridges',
      help: 'From round hills to sharp ridges.',
      default: 0.35,
      min: 0,
      max: 1,
    },
    detail: {
      type: 'number',
      unit: 'count',
      label: 'Detail',
      help: 'Layers, each half the size of the one before.',
      default: 5,
      min: 1,
      max: 10,
      whole: true,
    },
    roughness: {
      type: 'number',
      unit: 'share',
      label: 'Roughness',
      help: 'Strength of each finer layer against the one before.',
      default: 0.45,
      min: 0,
      max: 1,
    },
    rim: {
      type: 'number',
      unit: 'share',
      label: 'Calm rim',
      help: 'Share of the way to the middle over which it runs out to level ground.',
      default: 0.35,
      min: 0,
      max: 1,
    },
  },
  summary: (p) => `${metres(p.width)} × ${metres(p.depth)}, ${metres(p.relief)} high`,
  async run(form, p, context) {
    const [{ terrain: made }, { withRiders }] = await Promise.all([
      import('../../surfaces/terrain'),
      import('../../geometry/joinMeshes'),
    ]);
    context.claim(
      'faces',
      2 * p.pieces * p.pieces * (Math.min(p.width, p.depth) / Math.max(p.width, p.depth)),
      'Pieces',
    );
    const mesh = await made({ ...p, seed: context.seed }, context.breathe);
    if (!form.mesh) return { ...form, mesh };
    return { ...form, mesh: withRiders(form.mesh, mesh, [{ origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], size: 1 }]) };
  },
});
