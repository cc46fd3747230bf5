/** Variables, 0..1, by which falloffs drive formulas of a copied growth: several, each with its own timing. */
export const DRIVES = ['drive', 'drive2', 'drive3'] as const;

export type DriveName = (typeof DRIVES)[number];

/** Values of the drives, in their order. */
export type Drives = readonly [number, number, number];

/** The drives of what nothing drives. */
export const UNDRIVEN: Drives = [0, 0, 0];
