import { create } from 'zustand';
import { type Brush, SCENE_ID, type Trail, type Vec3 } from '@uvrex/core';
import { type Shade } from './inspection';

export type Look = 'finished' | 'paths' | 'points';
export const QUALITIES = ['auto', 'draft', 'standard', 'fine'] as const;
export type Quality = (typeof QUALITIES)[number];

/** A camera in space. */
export interface Eye {
  position: Vec3;
  target: Vec3;
}

/** A key of a track, named by where it is. */
export interface KeyAddress {
  growth: string;
  step: string;
  param: string;
  frame: number;
}

/** What is remembered of how a scene is looked at. */
export interface SavedView {
  frame: number;
  growth: string | null;
  openSteps: string[];
  look: Look;
  /** Whether the paths are drawn over the skins. */
  overlay: boolean;
  quality: Quality;
  /** The orbit view's eye; null while the shot's camera is looked through. */
  eye: Eye | null;
}

interface ViewState extends SavedView {
  playing: boolean;
  muted: boolean;
  /** The viewport's tool: look around, draw a path, pick a point to be followed, put places on a form, or paint on it. */
  tool: 'look' | 'draw' | 'pick' | 'place' | 'paint';
  /** The parameter whose places are being put on a form, or whose strokes are being painted. */
  placing: { growth: string; step: string; param: string } | null;
  brush: { does: Brush; radius: number; strength: number; soft: number };
  drawOn: 'ground' | 'view' | 'surface';
  /** A drawn-path step whose anchors the next stroke replaces, all or the part it lies along; null for a new growth. */
  redraw: { growth: string; step: string; part: boolean } | null;
  keys: KeyAddress[];
  /** The frames that the timeline shows; null for the whole range. */
  span: readonly [number, number] | null;
  /** The step that the keyboard last stood on: what B switches. */
  focusStep: string | null;
  /** Parts of steps' fields that stand open, by kind of step and name. */
  openParts: readonly string[];
  palette: 'commands' | 'steps' | 'begin' | null;
  sheet: 'shortcuts' | 'export' | null;
  /** Frames before and after the playhead that are shown faintly, so many apart; 0 for none. */
  ghosts: number;
  /** Where a point of the picture travels. */
  trail: Trail | null;
  /** Places that a check points at. */
  pins: readonly { place: Vec3; label: string }[];
  /** Whether the checks stand open beside the picture. */
  checks: boolean;
  /** Whether the table of attributes stands open below it. */
  table: boolean;
  /** The attribute that is shown as colours. */
  shade: Shade | null;
  /** Counts up to ask the viewport to frame everything. */
  frameAll: number;
  /** The growth that is framed then; null for everything. */
  frameOf: string | null;
  /** The growth that was chosen in the view last, and when: it is outlined for a moment. */
  pointed: { growth: string; at: number } | null;
}

export const firstView: SavedView = {
  frame: 1,
  growth: null,
  openSteps: [],
  look: 'finished',
  overlay: false,
  quality: 'auto',
  eye: null,
};

const QUALITY = 'uvrex-quality';

/** The picture quality chosen last on this device, which scenes open with that have not been looked at yet. */
export function chosenQuality(): Quality {
  try {
    const chosen = localStorage.getItem(QUALITY);
    return QUALITIES.find((quality) => quality === chosen) ?? 'auto';
  } catch {
    return 'auto';
  }
}

export function chooseQuality(quality: Quality): void {
  setView({ quality });
  try {
    localStorage.setItem(QUALITY, quality);
  } catch {
    // It holds for this scene all the same.
  }
}

/** How the studio is being looked at; not part of the scene, not undone. */
export const useView = create<ViewState>(() => ({
  ...firstView,
  playing: false,
  muted: false,
  tool: 'look',
  placing: null,
  brush: { does: 'paint', radius: 0.15, strength: 1, soft: 0.5 },
  drawOn: 'view',
  redraw: null,
  keys: [],
  span: null,
  focusStep: null,
  openParts: [],
  palette: null,
  sheet: null,
  ghosts: 0,
  trail: null,
  pins: [],
  checks: false,
  table: false,
  shade: null,
  frameAll: 0,
  frameOf: null,
  pointed: null,
}));

export const setView = useView.setState;

/** The growth entry that stands for the scene itself in the list. */
export const SCENE_ENTRY = SCENE_ID;

export const savedView = ({ frame, growth, openSteps, look, overlay, quality, eye }: ViewState): SavedView => ({
  frame,
  growth,
  openSteps,
  look,
  overlay,
  quality,
  eye,
});
