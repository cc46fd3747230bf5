import { defineStep, is, type ParamSpecs, type ParamsOf } from '../declare';
import { MOVABLE } from './movable';

const params = {
  plane: {
    type: 'choice',
    label: 'Plane',
    help: 'Which way the mirror faces; or a guide, of whose upper side it is the plane.',
    options: [
      { value: 'x', label: 'Across X' },
      { value: 'y', label: 'Across Y' },
      { value: 'z', label: 'Across Z' },
      { value: 'guide', label: 'Guide' },
    ],
    default: 'x',
  },
  guide: {
    type: 'guide',
    label: 'Guide',
    help: 'The plane of the mirror.',
    default: null,
    shown: is('plane', 'guide'),
  },
  at: {
    type: 'number',
    unit: 'm',
    label: 'At',
    help: 'Where on that axis the mirror stands.',
    default: 0,
    min: -1000,
    max: 1000,
    slider: [-3, 3],
    shown: is('plane', 'x', 'y', 'z'),
  },
  side: {
    type: 'choice',
    label: 'Side',
    help: 'What is mirrored: all of it, or only what lies on one side; what lies beyond the mirror is then cut away. Paths are not cut.',
    options: [
      { value: 'both', label: 'All of it' },
      { value: 'front', label: 'Positive side' },
      { value: 'back', label: 'Negative side' },
    ],
    default: 'both',
  },
  keep: {
    type: 'toggle',
    label: 'Keep the original',
    help: 'Shows both sides; else only the mirror image.',
    default: true,
  },
  join: {
    type: 'number',
    unit: 'm',
    label: 'Join within',
    help: 'Skins are joined on the mirror: what is no further from it than this is put onto it, and light runs over it smoothly. 0 joins nothing.',
    default: 0.002,
    min: 0,
    max: 10,
    slider: [0, 0.1],
    shown: (p) => p.keep === true,
  },
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type MirrorParams = ParamsOf<typeof params>;

export const mirror = defineStep({
  kind: 'mirror',
  family: 'shape',
  label: 'Mirror',
  icon: 'M10 2V18M7.5 5 3 10 7.5 15ZM12.5 5 17 10 12.5 15Z',
  help: 'Mirrors everything in a plane: paths, skin, points and copies, with skins joined where they meet. What moves or grows on one side does so on the other.',
  takes: [],
  takesOne: MOVABLE,
  gives: [],
  params,
  summary: (p) => (p.plane === 'guide' ? 'in a guide' : `across ${p.plane.toUpperCase()}`),
  async run(form, p, context) {
    const { runMirror } = await import('./runMirror');
    return runMirror(form, p, context);
  },
});
