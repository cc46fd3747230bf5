import type { Paths } from '../../geometry/paths';
import type { Element } from '../../geometry/element';
import { profileTable, readTable } from '../../geometry/profile';
import type { Cap, TubeShape } from '../../surfaces/sweep/rings';
import type { SweepHooks } from '../../surfaces/sweep/sweepTubes';
import type { ChoiceParam, ParamSpecs, ParamsOf, StepContext } from '../declare';

const cap = (label: string, value: Cap) =>
  ({
    type: 'choice',
    label,
    help: 'How the tube ends: open, flat, half a ball, or a point.',
    options: [
      { value: 'open', label: 'Open' },
      { value: 'flat', label: 'Flat' },
      { value: 'round', label: 'Round' },
      { value: 'pointed', label: 'Pointed' },
    ],
    default: value,
  }) as const satisfies ChoiceParam;

/** What all skins swept along a path have in common: thickness along, and ends. */
export const skinParams = {
  radius: {
    type: 'number',
    unit: 'm',
    label: 'Radius',
    help: 'Thickness where the profile is at 100 %.',
    default: 0.06,
    min: 0,
    max: 100,
    slider: [0, 0.5],
    varies: 'along',
  },
  along: {
    type: 'profile',
    label: 'Along',
    help: 'Factor on the radius, from base to tip.',
    min: 0,
    max: 2,
    default: [
      { at: 0, value: 1 },
      { at: 0.7, value: 0.7 },
      { at: 1, value: 0.2 },
    ],
  },
  follows: {
    type: 'choice',
    label: 'Follows',
    help: 'Whether the profile lies on the whole path, is fitted to what has grown so far, or runs back from the tip over a length.',
    options: [
      { value: 'grown', label: 'Grown part' },
      { value: 'whole', label: 'Whole path' },
      { value: 'tip', label: 'From the tip' },
    ],
    default: 'grown',
  },
  reach: {
    type: 'number',
    unit: 'm',
    label: 'Reach',
    help: 'Length back from the tip that the profile runs over.',
    default: 1,
    min: 0.001,
    max: 1000,
    slider: [0.05, 4],
    shown: (p) => p.follows === 'tip',
  },
  swell: {
    type: 'number',
    unit: 'm',
    label: 'Swell',
    help: 'Length of growth over which thickness comes up from nothing.',
    default: 0.4,
    min: 0,
    max: 1000,
    slider: [0, 3],
  },
  start: cap('Start', 'flat'),
  end: cap('End', 'round'),
} as const satisfies ParamSpecs;

/** The shape that these parameters describe. */
export function shapeOf(p: ParamsOf<typeof skinParams>, sides: number): TubeShape {
  const table = profileTable(p.along, 257);
  return {
    radius: p.radius,
    along: (position) => readTable(table, position),
    follows: p.follows,
    reach: p.reach,
    swell: p.swell,
    sides,
    start: p.start,
    end: p.end,
  };
}

/** Holds a sweep to the budgets, and lets it be given up. */
export const sweepHooks = (context: StepContext, lower: string): SweepHooks => ({
  claim: (vertices, faces) => {
    context.claim('points', vertices, lower);
    context.claim('faces', faces, lower);
  },
  yieldNow: context.yieldNow,
});

/** The paths with a skin's variations taken into them: radius into their thickness, roll and twist into their lean. */
export async function variedPaths(
  paths: Paths,
  radius: number,
  context: StepContext,
  turns: { roll?: boolean; twist?: boolean } = {},
): Promise<Paths> {
  const names = ['radius', ...(turns.roll ? ['roll'] : []), ...(turns.twist ? ['twist'] : [])];
  if (!names.some((name) => context.varies(name))) return paths;
  const { eachElement } = await import('../../curves/elements');
  const [thick, roll, twist] = ['radius', 'roll', 'twist'].map((name) =>
    names.includes(name) && context.varies(name) ? context.varied(name) : null,
  );
  const size = new Float32Array(paths.size);
  const lean = paths.lean ? new Float32Array(paths.lean) : roll || twist ? new Float32Array(size.length) : null;
  const vary = (element: Readonly<Element>, i: number): void => {
    // The skin multiplies by the plain radius, adds the plain roll and twist: what is left is the difference.
    if (thick && radius > 0) size[i] *= thick(element) / radius;
    if (roll) lean![i] += ((roll(element) - context.plain('roll')) * Math.PI) / 180;
    if (twist) lean![i] += 2 * Math.PI * element.u * (twist(element) - context.plain('twist'));
  };
  await eachElement(paths, vary, () => context.yieldNow());
  return { ...paths, size, lean };
}
