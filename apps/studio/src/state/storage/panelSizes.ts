import { create } from 'zustand';

/** Parts of the studio that can be made larger, pixels. */
const PARTS = {
  panel: { least: 300, most: 640, first: 356 },
  list: { least: 90, most: 480, first: 240 },
  timeline: { least: 150, most: 560, first: 236 },
} as const;
export type Part = keyof typeof PARTS;

/** Width of the picture and timeline below which their bars would be cut off. */
const LEAST_MAIN = 700;
/** Height of the picture below which nothing is seen. */
const LEAST_PICTURE = 220;

const HEADER = 46;

const KEPT = 'uvrex-sizes';

/** How far a part may be drawn in the window as it is, pixels. */
export function limitsOf(part: Part, [width, height]: readonly [number, number]): readonly [number, number] {
  const { least, most } = PARTS[part];
  const room =
    part === 'panel' ? width - LEAST_MAIN : part === 'timeline' ? height - LEAST_PICTURE - HEADER : height / 2;
  return [least, Math.max(least, Math.min(most, Math.round(room)))];
}

/** What is kept of another time, as far as it makes sense. */
function kept(): Record<Part, number | null> {
  const sizes: Record<Part, number | null> = { panel: null, list: null, timeline: null };
  try {
    const told = JSON.parse(localStorage.getItem(KEPT) ?? '{}') as Record<string, unknown>;
    for (const part of Object.keys(sizes) as Part[]) {
      const size = told[part];
      if (typeof size === 'number' && Number.isFinite(size)) sizes[part] = size;
    }
  } catch {
    // As they come, then.
  }
  return sizes;
}

/** A size as a length of CSS that leaves the rest its room, in whatever window it was drawn. */
export const within = (part: 'panel' | 'timeline', size: number): string =>
  part === 'panel'
    ? `min(${size}px, max(${PARTS.panel.least}px, 100vw - ${LEAST_MAIN}px))`
    : `min(${size}px, max(${PARTS.timeline.least}px, 100vh - ${LEAST_PICTURE + HEADER}px))`;

/** Sizes as they were drawn; null where a part is as it comes. */
export const useSizes = create<Record<Part, number | null>>(kept);

/** The size that a part comes with. */
export const firstSize = (part: Part): number => PARTS[part].first;

/** Draws a part to a size, or back to what it comes with; it stays so on this device. */
export function setSize(part: Part, size: number | null): void {
  const [least, most] = limitsOf(part, [window.innerWidth, window.innerHeight]);
  useSizes.setState({ [part]: size === null ? null : Math.min(most, Math.max(least, Math.round(size))) });
  try {
    localStorage.setItem(KEPT, JSON.stringify(useSizes.getState()));
  } catch {
    // It holds until the page is left.
  }
}
