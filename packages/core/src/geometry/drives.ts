/** What formulas of a copied growth know of each copy, 0..1, by the names that they use: several, each with a timing of its own. */
export const DRIVES = ['drive', 'drive2', 'drive3'] as const;

export type DriveName = (typeof DRIVES)[number];

/** Values of the drives, in their order. */
export type Drives = readonly [number, number, number];

/** The drives of what nothing drives. */
export const UNDRIVEN: Drives = [0, 0, 0];
