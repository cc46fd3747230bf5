import type { SceneFile } from './schema';

/** A file that comes with Uvrex. */
export interface ShippedFile {
  kind: SceneFile['kind'];
  label: string;
  /** Its name in the folder of assets. */
  file: string;
}

/** The files that come with Uvrex; scenes refer to them as `shipped:ID`. */
export const SHIPPED_FILES = {
  bricolage: { kind: 'font', label: 'Bricolage Grotesque', file: 'bricolage-grotesque-800.woff' },
  'reef-rock': { kind: 'form', label: 'Reef rock', file: 'reef-rock.ply' },
  propeller: { kind: 'form', label: 'Propeller', file: 'propeller.ply' },
  figurehead: { kind: 'form', label: 'Figurehead', file: 'figurehead.ply' },
  'reef-tides': { kind: 'table', label: 'Reef tides', file: 'reef-tides.csv' },
  'reef-leaf': { kind: 'picture', label: 'Reef leaf', file: 'reef-leaf.png' },
  'reef-relief': { kind: 'picture', label: 'Reef relief', file: 'reef-relief.png' },
  'reef-leaves': { kind: 'picture', label: 'Sheet of 2 × 2 reef leaves', file: 'reef-leaves.png' },
} satisfies Record<string, ShippedFile>;

export type ShippedId = keyof typeof SHIPPED_FILES;

/** The shipped files of a kind, as a parameter offers them. */
export const shippedOf = (kind: SceneFile['kind']): { value: string; label: string }[] =>
  Object.entries<ShippedFile>(SHIPPED_FILES)
    .filter(([, entry]) => entry.kind === kind)
    .map(([id, { label }]) => ({ value: `shipped:${id}`, label }));
