import type { ProfilePoint, Stop } from '@uvrex/core';

const points = (...pairs: [at: number, value: number][]): ProfilePoint[] => pairs.map(([at, value]) => ({ at, value }));
const straight = (...pairs: [number, number][]): ProfilePoint[] =>
  points(...pairs).map((point) => ({ ...point, shape: 'straight' }));

/** Courses of a value along something; 1 is 100 %. */
export const PROFILE_PRESETS: readonly { name: string; points: ProfilePoint[] }[] = [
  { name: 'Even', points: points([0, 1]) },
  { name: 'Cone', points: straight([0, 1], [1, 0]) },
  { name: 'Tendril', points: points([0, 1], [0.3, 0.55], [1, 0.05]) },
  { name: 'Spindle', points: points([0, 0.1], [0.45, 1], [1, 0]) },
  { name: 'Bulb', points: points([0, 0.3], [0.7, 0.35], [0.88, 1], [1, 0.2]) },
  { name: 'Waist', points: points([0, 1], [0.5, 0.35], [1, 1]) },
  { name: 'Horn', points: points([0, 0.05], [0.6, 0.35], [1, 1]) },
  {
    name: 'Beads',
    points: points([0, 0.4], [0.1, 1], [0.2, 0.4], [0.35, 1], [0.5, 0.4], [0.65, 1], [0.8, 0.4], [0.9, 1], [1, 0.4]),
  },
  {
    name: 'Stairs',
    points: points([0, 1], [0.25, 0.75], [0.5, 0.5], [0.75, 0.25]).map((point) => ({ ...point, shape: 'step' })),
  },
];

/** Rows of colours, spread evenly. */
export const GRADIENT_PRESETS: readonly { name: string; colors: string[] }[] = [
  { name: 'Kelp', colors: ['#23452f', '#5f8f3a', '#b9d85e', '#f0f4b4'] },
  { name: 'Ember', colors: ['#2a1420', '#8f2f35', '#f0703c', '#ffd98a'] },
  { name: 'Lagoon', colors: ['#0d2f3f', '#1f7d85', '#66d3c8', '#e0fbf1'] },
  { name: 'Anemone', colors: ['#3b1f4d', '#a24a8f', '#f3a6c8', '#fff0e2'] },
  { name: 'Pearl', colors: ['#8f96a8', '#d7d3dc', '#f6eee4', '#ffffff'] },
  { name: 'Lantern', colors: ['#5a2f16', '#c9762b', '#f2d06b', '#fff6d0'] },
  { name: 'Iris', colors: ['#1d1b4a', '#5b54c9', '#a99bff', '#f1e9ff'] },
  { name: 'Rust', colors: ['#1c2226', '#54473f', '#a6603a', '#e0a878'] },
];

/** Colours at even places from 0 to 1. */
export const evenly = (colors: readonly string[]): Stop[] =>
  colors.map((color, i) => ({ at: colors.length > 1 ? i / (colors.length - 1) : 0, color }));
