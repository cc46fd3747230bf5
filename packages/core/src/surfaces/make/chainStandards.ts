/** Sizes of a link, metres. */
export interface LinkSizes {
  wire: number;
  innerLength: number;
  innerWidth: number;
}

/**
 * Chains by their published sizes, from memory: DIN 766 (short link) and DIN 763 (long link) give wire × inner length and
 * inner width in millimetres; the common studless link of mooring chain is 6 d long and 3.35 d wide outside (ISO 20438),
 * d being the diameter of its bar, so 4 d and 1.35 d inside.
 */
const MILLIMETRES: Record<string, readonly [wire: number, innerLength: number, innerWidth: number]> = {
  'din766-4': [4, 16, 5],
  'din766-6': [6, 18.5, 7.5],
  'din766-8': [8, 24, 9.6],
  'din766-10': [10, 28, 12],
  'din766-13': [13, 36, 15.6],
  'din766-16': [16, 45, 19.2],
  'din763-4': [4, 32, 8],
  'din763-6': [6, 42, 12],
  'din763-8': [8, 52, 16],
  'din763-10': [10, 65, 20],
  'din763-13': [13, 82, 26],
};

/** What a link can be made to, for a menu. */
export const CHAINS: readonly { value: string; label: string }[] = [
  { value: 'own', label: 'Sizes of its own' },
  { value: 'studless', label: 'Mooring chain, studless (ISO 20438)' },
  ...Object.entries(MILLIMETRES).map(([value, [wire, innerLength]]) => ({
    value,
    label: `DIN ${value.slice(3, 6)}, ${wire} × ${innerLength} mm`,
  })),
];

/** Sizes of a chain, metres: all of them, or of a mooring chain those that go by its wire; null for sizes of one's own. */
export function sizesOf(chain: string, wire: number): Partial<LinkSizes> | null {
  if (chain === 'studless') return { innerLength: 4 * wire, innerWidth: 1.35 * wire };
  const sizes = MILLIMETRES[chain];
  return sizes ? { wire: sizes[0] / 1000, innerLength: sizes[1] / 1000, innerWidth: sizes[2] / 1000 } : null;
}
