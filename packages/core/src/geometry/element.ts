/** Where a value is asked for. */
export interface Element {
  /** The path's stable number, which randomness hangs on. */
  id: number;
  /** The path's place among all, and how many there are. */
  index: number;
  count: number;
  /** Rest coordinate on the path, 0..1. */
  u: number;
  /** An attribute there by its name, vectors by their length; null where there is none. */
  read: (name: string) => number | null;
}

/** A number that differs from place to place: `base` plus the variation, kept within what the parameter allows. */
export type VariedNumber = (element: Element) => number;
