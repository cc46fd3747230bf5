import type { ParamValue, ProfilePoint, Stop } from '@uvrex/core';
import { evenly, GRADIENT_PRESETS, PROFILE_PRESETS } from '@/ui/presetLists';

// Values that lessons set, as their texts call them.

export const profile = (name: string): ProfilePoint[] => PROFILE_PRESETS.find((preset) => preset.name === name)!.points;

export const colours = (name: string): Stop[] =>
  evenly(GRADIENT_PRESETS.find((preset) => preset.name === name)!.colors);

export const formula = (text: string): ParamValue => ({ formula: text });

/** A stem from the ground up, a little bent. */
export const STEM: ParamValue = [
  [0, 0, 0],
  [-0.12, 0.6, 0.02],
  [0.1, 1.25, 0.05],
  [-0.02, 2, 0],
];

/** A way that hangs between two places and winds. */
export const TETHER: ParamValue = [
  [-1.3, 1.1, 0],
  [-0.6, 0.55, 0.2],
  [0.1, 0.8, -0.1],
  [0.7, 0.5, 0.1],
  [1.3, 1.15, 0],
];

/** The outline of a fan, from the ground up and round. */
export const FAN: ParamValue = [
  [0, 0, 0],
  [-0.7, 0.5, 0],
  [-0.85, 1.1, 0],
  [-0.35, 1.65, 0],
  [0.35, 1.65, 0],
  [0.85, 1.1, 0],
  [0.7, 0.5, 0],
];

/** A patch of a rock's front. */
export const PATCH: ParamValue = [
  {
    ...{ does: 'paint', radius: 0.2, strength: 1, soft: 0.5, frame: 1 },
    points: [-0.02, 0.79, 0.58, 1, 0.07, 0.84, 0.55, 1, 0.13, 0.74, 0.5, 1, 0.29, 0.51, 0.69, 1, 0.38, 0.38, 0.76, 1],
  },
];

/** A number that is another from path to path, by chance. */
export const byChance = (base: number, amount: number): ParamValue => ({
  base,
  vary: {
    ...{ by: 'random', amount, waves: 3 },
    shape: [
      { at: 0, value: 0, shape: 'straight' },
      { at: 1, value: 1 },
    ],
  },
});

/** A number that goes by an attribute of 0 to 1. */
export const byAttribute = (attribute: string, amount: number): ParamValue => ({
  base: 0,
  vary: {
    ...{ by: 'attribute', attribute, span: [0, 1], amount, waves: 3 },
    shape: [
      { at: 0, value: 0, shape: 'straight' },
      { at: 1, value: 1 },
    ],
  },
});

/** The preset of branching rules that is called Sea fern, but for how thin each is, which the lesson sets. */
export const SEA_FERN: Record<string, ParamValue> = {
  ...{ shorter: 1, rising: 20, vary: 0, growing: 3, marks: '', generations: 20, angle: 46, line: 0.16 },
  axiom: 'A(0.16)',
  rules: [
    'A(x) : x > 0.02 -> F(x)[!+B(x * 0.75)][!-B(x * 0.75)]\\(6)A(x * 0.93)',
    'B(x) : x > 0.02 -> F(x)[!+C(x * 0.5)][!-C(x * 0.5)]B(x * 0.88)',
    'C(x) : x > 0.012 -> F(x)C(x * 0.8)',
  ].join('\n'),
};
