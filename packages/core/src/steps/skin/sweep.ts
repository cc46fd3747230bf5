import { shippedOf } from '../../scene/shippedFiles';
import type { SweepProfile } from '../../surfaces/sweep/sweepProfile';
import { defineStep } from '../declare';
import { figure, metres } from '../../format';
import { shapeOf, skinParams, sweepHooks, variedPaths } from './skinParams';
import { withSkin } from './withSkin';

const { radius, along, follows, reach, swell, start, end } = skinParams;

export const sweep = defineStep({
  kind: 'sweep',
  family: 'skin',
  label: 'Sweep',
  icon: 'M3 17C3 10 6 7 10 6M14 2 15.2 4.8 18 6 15.2 7.2 14 10 12.8 7.2 10 6 12.8 4.8Z',
  help: 'Sweeps a shape along the paths, always square to them: a polygon, star, cross, arch, band, letter, drawing, or the closed path of another growth. Where a path bends more tightly than the shape is wide, the inner side is drawn in so that it does not cut through itself.',
  takes: ['paths'],
  gives: ['mesh'],
  parts: {
    'As it grows': ['follows', 'reach', 'swell'],
    'Placing the profile': ['offsetX', 'offsetY', 'roll', 'twist'],
    Ends: ['start', 'end'],
  },
  params: {
    profile: {
      type: 'choice',
      label: 'Profile',
      help: 'The shape that is swept.',
      options: [
        { value: 'circle', label: 'Circle' },
        { value: 'polygon', label: 'Polygon' },
        { value: 'star', label: 'Star' },
        { value: 'cross', label: 'Cross' },
        { value: 'arch', label: 'Arch' },
        { value: 'band', label: 'Band' },
        { value: 'drawn', label: 'Drawn round' },
        { value: 'letter', label: 'Letter' },
        { value: 'svg', label: 'SVG file' },
        { value: 'growth', label: 'Closed path of a growth' },
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
      help: 'Breadth of the arms, or thickness of the arch or band, against the whole.',
      default: 0.3,
      min: 0.005,
      max: 0.99,
      shown: (p) => ['cross', 'arch', 'band'].includes(String(p.profile)),
    },
    rounding: {
      type: 'number',
      unit: 'share',
      label: 'Rounding',
      help: 'How much of each side the rounded corners take.',
      default: 0,
      min: 0,
      max: 1,
      shown: (p) => ['polygon', 'star', 'cross', 'arch', 'band'].includes(String(p.profile)),
    },
    outline: {
      type: 'profile',
      label: 'Outline',
      help: 'Distance from the middle, once round.',
      min: 0,
      max: 1.5,
      default: [
        { at: 0, value: 1 },
        { at: 0.25, value: 0.6 },
        { at: 0.5, value: 1 },
        { at: 0.75, value: 0.6 },
      ],
      shown: (p) => p.profile === 'drawn',
    },
    letter: {
      type: 'text',
      label: 'Letter',
      help: 'One letter, or a few.',
      default: 'R',
      most: 20,
      shown: (p) => p.profile === 'letter',
    },
    font: {
      type: 'file',
      kind: 'font',
      label: 'Font',
      help: 'A TTF, OTF or WOFF file, or the font that comes with Uvrex.',
      shipped: shippedOf('font'),
      default: 'shipped:bricolage',
      shown: (p) => p.profile === 'letter',
    },
    drawing: {
      type: 'file',
      kind: 'svg',
      label: 'SVG file',
      help: 'Its closed paths are swept; those inside others are holes.',
      shipped: [],
      default: null,
      shown: (p) => p.profile === 'svg',
    },
    growth: {
      type: 'growth',
      label: 'Growth',
      help: 'Whose closed paths are swept, laid flat; those inside others are holes.',
      default: null,
      fits: ['paths'],
      shown: (p) => p.profile === 'growth',
    },
    hard: { type: 'toggle', label: 'Hard edges', help: 'Keeps sharp edges sharp in the light.', default: true },
    radius: { ...radius, help: 'Size of the profile where it is at 100 %: half of its longer side.' },
    along,
    follows,
    reach,
    swell,
    offsetX: {
      type: 'number',
      unit: 'share',
      label: 'Across',
      help: 'Moves the profile off the path, in radii.',
      default: 0,
      min: -100,
      max: 100,
      slider: [-2, 2],
      group: 'Offset',
    },
    offsetY: {
      type: 'number',
      unit: 'share',
      label: 'Up',
      help: 'Moves the profile off the path the other way, in radii.',
      default: 0,
      min: -100,
      max: 100,
      slider: [-2, 2],
      group: 'Offset',
    },
    roll: {
      type: 'number',
      unit: 'deg',
      label: 'Roll',
      help: 'Turns the profile about the path; animate it and it rolls.',
      default: 0,
      min: -36000,
      max: 36000,
      slider: [-180, 180],
      varies: 'along',
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
      varies: 'path',
    },
    start,
    end: { ...end, default: 'pointed' },
  },
  summary: (p) =>
    `${p.profile === 'letter' ? `letter ${p.letter}` : p.profile}, ${metres(p.radius)}${p.twist !== 0 ? `, ${figure(p.twist)} turns` : ''}`,
  async run(form, p, context) {
    const { regionsOfChoice } = await import('./sweepProfiles');
    const { regionProfile } = await import('../../surfaces/sweep/sweepProfile');
    const { sweepProfile } = await import('../../surfaces/sweep/sweepTubes');
    const profile = moved(regionProfile(await regionsOfChoice(p, context), p.hard), p.offsetX, p.offsetY);
    const mesh = await sweepProfile(
      await variedPaths(form.paths!, p.radius, context, { roll: true, twist: true }),
      profile,
      // Round ends need rings enough to look round, whatever the profile's own corners.
      shapeOf(p, 24),
      sweepHooks(context, 'Corners, or Points of the path'),
      { roll: (p.roll * Math.PI) / 180, twist: 2 * Math.PI * p.twist },
    );
    return withSkin(form, mesh);
  },
});

function moved(profile: SweepProfile, x: number, y: number): SweepProfile {
  if (x === 0 && y === 0) return profile;
  return {
    ...profile,
    x: profile.x.map((value) => value + x),
    y: profile.y.map((value) => value + y),
    reach: profile.reach + Math.hypot(x, y),
  };
}
