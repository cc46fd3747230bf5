import type { SheetOf } from '@uvrex/core';
import { attributeLabel } from '@/state/document/attributeNames';

/** What a sheet is called. */
export const SHEETS: Record<SheetOf, string> = {
  vertices: 'Vertices',
  faces: 'Faces',
  points: 'Points of paths',
  paths: 'Paths',
  loose: 'Points',
  copies: 'Copies',
};

const AXES = ['X', 'Y', 'Z', 'W'];
const CHANNELS = ['Red', 'Green', 'Blue'];

/** Built-in attributes by the words in which people know them. */
const WORDS: Record<string, string> = {
  positions: 'Position',
  normals: 'Normal',
  tangents: 'Direction',
  uvs: 'Texture',
  u: 'Share of the path',
  s: 'Distance from base',
  tip: 'Behind the tip',
  colors: 'Colour',
  tints: 'Tint',
  glow: 'Glow',
  finished: 'Colours of its own',
  size: 'Size',
  sizes: 'Size',
  turns: 'Turn',
  lean: 'Lean',
  arrival: 'Arrival',
  number: 'Number',
  closed: 'Closed',
  loop: 'Whole is closed',
  ids: 'Number',
  dice: 'Chance by',
  whole: 'Whole length',
  cutFrom: 'Begins at',
  fronts: 'Growing ends',
  level: 'Level',
  parent: 'Parent',
  attach: 'Joint at',
  item: 'Item',
  rows: 'Row',
  share: 'Share of all',
  life: 'Life',
};

/** What a column is called. */
export function columnLabel({ name, part }: { name: string; part: number | null }): string {
  const word = WORDS[name] ?? attributeLabel(name);
  if (part === null) return word;
  return `${word} ${name === 'colors' || name === 'tints' ? CHANNELS[part] : AXES[part]}`;
}
