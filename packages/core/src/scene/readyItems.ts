import { newStep } from './make';
import type { ParamValue, Step } from './schema';

/** Something to copy that is made in one go. */
export interface ReadyItem {
  id: string;
  /** What it is called in a sentence: “Make a leaf”. */
  label: string;
  /** What its growth is called. */
  name: string;
  steps: () => Step[];
  /** What suits it in steps that copy it, by their kind. */
  suits: Readonly<Record<string, Readonly<Record<string, ParamValue>>>>;
}

const gradient = (...colors: readonly string[]): ParamValue =>
  colors.map((color, i) => ({ at: i / (colors.length - 1), color }));
const finish = (roughness: number, ...colors: readonly string[]): Step =>
  newStep('finish', { glow: 0, roughness, gradient: gradient(...colors) });
const solid = (params: Record<string, ParamValue>, ...colors: readonly string[]): (() => Step[]) => {
  return () => [newStep('solid', params), finish(0.5, ...colors)];
};

/** Leaves spring from a stem in the spiral of most plants (Vogel, A better way to construct the sunflower head, 1979). */
const FROM_A_STEM = { stands: 'origin', by: 'count', count: 24, turns: '+137.508', lean: 55 };

/** What steps that copy something offer to make. */
export const READY_ITEMS: readonly ReadyItem[] = [
  {
    id: 'leaf',
    label: 'a leaf',
    name: 'Leaf',
    steps: () => [newStep('blade', { length: 0.3, width: 0.09 }), finish(0.55, '#2f5d3a', '#8fb84a', '#e3f29a')],
    suits: { along: FROM_A_STEM, 'on-points': { lean: 20 } },
  },
  {
    id: 'petal',
    label: 'a petal',
    name: 'Petal',
    steps: () => [
      newStep('blade', { length: 0.32, width: 0.14, fold: 6, cup: 0.4, droop: 24 }),
      finish(0.5, '#7d1f4f', '#e0567f', '#ffd0c2'),
    ],
    suits: { along: FROM_A_STEM, 'on-points': { lean: 40 } },
  },
  {
    id: 'picture-leaf',
    label: 'a leaf from a picture',
    name: 'Pictured leaf',
    steps: () => [
      newStep('blade', {
        ...{ length: 0.3, width: 0.3, stalk: 0, fold: 8, thick: 0.002, rows: 12 },
        outline: [{ at: 0, value: 1 }],
      }),
      newStep('skin-picture'),
    ],
    suits: { along: FROM_A_STEM, 'on-points': { lean: 20 } },
  },
  {
    id: 'link',
    label: 'a chain link',
    name: 'Link',
    steps: solid(
      { which: 'link', wire: 0.03, innerLength: 0.12, innerWidth: 0.045, sides: 18 },
      '#8d9a9c',
      '#cfd8d6',
      '#ffffff',
    ),
    suits: { along: { turns: '0, 90' } },
  },
  {
    id: 'ball',
    label: 'a ball',
    name: 'Ball',
    steps: solid({ which: 'ball', radius: 0.05, sides: 24 }, '#c4622d', '#f2b45c', '#fff0c9'),
    suits: {},
  },
  {
    id: 'box',
    label: 'a box',
    name: 'Box',
    steps: solid({ which: 'box', width: 0.08, height: 0.08, depth: 0.08 }, '#2c5a6b', '#5fa7a8', '#d3efe0'),
    suits: {},
  },
  {
    id: 'crystal',
    label: 'a crystal',
    name: 'Crystal',
    steps: solid(
      { which: 'crystal', radius: 0.03, height: 0.2, point: 0.6, sides: 6 },
      '#3d2a6b',
      '#8f7bd8',
      '#e6dcff',
    ),
    suits: { along: { stands: 'origin', by: 'count', count: 40, turns: '+137.508', lean: 70 } },
  },
  {
    id: 'plank',
    label: 'a plank',
    name: 'Plank',
    steps: solid({ which: 'box', width: 0.5, height: 0.03, depth: 0.1 }, '#4a3327', '#9a6b4a', '#d9b08a'),
    suits: { along: { forward: 'z', facing: 'upright', gap: 0.012 } },
  },
];
