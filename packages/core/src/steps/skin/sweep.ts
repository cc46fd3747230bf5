import { bandCorners, contourProfile, crossCorners, polygonCorners, starCorners } from '../../surfaces/profile';
import { sweepProfile } from '../../surfaces/tube';
import { defineStep } from '../declare';
import { figure, metres } from '../format';
import { shapeOf, skinParams, sweepHooks } from './skinParams';

const { radius, along, follows, swell, start, end } = skinParams;

export const sweep = defineStep({
  kind: 'sweep',
  family: 'skin',
  label: 'Sweep',
  help: 'Sweeps a polygon, star, cross or flat band along the paths, always square to them, rolled and twisted as you like.',
  takes: ['paths'],
  gives: ['mesh'],
  params: {
    profile: {
      type: 'choice',
      label: 'Profile',
      help: 'The shape that is swept.',
      options: [
        { value: 'polygon', label: 'Polygon' },
        { value: 'star', label: 'Star' },
        { value: 'cross', label: 'Cross' },
        { value: 'band', label: 'Band' },
      ],
      default: 'star',
    },
    corners: {
      type: 'number',
      unit: 'count',
      label: 'Corners',
      help: 'Corners of the polygon, or points of the star.',
      default: 5,
      min: 3,
      max: 256,
      slider: [3, 16],
      whole: true,
      shown: (p) => p.profile === 'polygon' || p.profile === 'star',
    },
    inner: {
      type: 'number',
      unit: 'share',
      label: 'Notch',
      help: 'How far in the notches of the star reach: 100 % is not at all.',
      default: 0.55,
      min: 0.02,
      max: 1,
      shown: (p) => p.profile === 'star',
    },
    broad: {
      type: 'number',
      unit: 'share',
      label: 'Breadth',
      help: 'Breadth of the arms, or thickness of the band, against the whole.',
      default: 0.3,
      min: 0.005,
      max: 0.99,
      shown: (p) => p.profile === 'cross' || p.profile === 'band',
    },
    hard: { type: 'toggle', label: 'Hard edges', help: 'Keeps the edges sharp in the light.', default: true },
    radius,
    along,
    follows,
    swell,
    roll: {
      type: 'number',
      unit: 'deg',
      label: 'Roll',
      help: 'Turns the profile about the path; animate it and it rolls.',
      default: 0,
      min: -36000,
      max: 36000,
      slider: [-180, 180],
    },
    twist: {
      type: 'number',
      unit: 'turns',
      label: 'Twist',
      help: 'Turns more along the whole path. On a closed path, turns that bring the profile onto itself close it.',
      default: 0,
      min: -1000,
      max: 1000,
      slider: [-6, 6],
    },
    start,
    end: { ...end, default: 'pointed' },
  },
  summary: (p) => `${p.profile}, ${metres(p.radius)}${p.twist !== 0 ? `, ${figure(p.twist)} turns` : ''}`,
  async run(form, p, context) {
    const corners = {
      polygon: () => polygonCorners(p.corners),
      star: () => starCorners(p.corners, p.inner),
      cross: () => crossCorners(p.broad),
      band: () => bandCorners(p.broad),
    }[p.profile as 'polygon' | 'star' | 'cross' | 'band']();
    const mesh = await sweepProfile(
      form.paths!,
      contourProfile(corners, p.hard),
      // Round ends need rings enough to look round, whatever the profile's own corners.
      shapeOf(p, Math.max(16, corners.length)),
      sweepHooks(context, 'Corners, or Points of the path'),
      { roll: (p.roll * Math.PI) / 180, twist: 2 * Math.PI * p.twist },
    );
    return { ...form, mesh };
  },
});
