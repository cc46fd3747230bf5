import type { Vec3 } from '@uvrex/core';

/** What is drawn of growths. */
export type Look = 'finished' | 'paths' | 'points';

/** How finely pictures are drawn; `auto` goes by what they cost. */
export const QUALITIES = ['auto', 'draft', 'standard', 'fine'] as const;
/** One of them. */
export type Quality = (typeof QUALITIES)[number];

/** A camera in space. */
export interface Eye {
  position: Vec3;
  target: Vec3;
}

/** What is remembered of how a scene is looked at. */
export interface SavedView {
  frame: number;
  growth: string | null;
  openSteps: string[];
  look: Look;
  /** Whether the paths are drawn over the skins. */
  overlay: boolean;
  /** Groups of the list whose growths are not shown. */
  folded: readonly string[];
  /** The lesson that stands beside the work, and which of its steps are done; an id of none shows all lessons. */
  lesson: { id: string; done: readonly number[] } | null;
  quality: Quality;
  /** The orbit view's eye; null while the shot's camera is looked through. */
  eye: Eye | null;
}
