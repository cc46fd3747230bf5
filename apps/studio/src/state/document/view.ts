import { create } from 'zustand';
import { type Brush, SCENE_ID, type Trail, type Vec3 } from '@uvrex/core';
import { type Quality, QUALITIES, type SavedView } from '@/store/savedView';
import type { Shade } from '../director/inspection';

/** A key of a track, named by where it is. */
export interface KeyAddress {
  growth: string;
  step: string;
  param: string;
  frame: number;
}

export { type Eye, type Look, QUALITIES, type Quality } from '@/store/savedView';

interface ViewState extends SavedView {
  /** All growths that are chosen, where they are several: the selected one among them. */
  chosen: readonly string[];
  /** Whether all that is not chosen is drawn faintly. */
  alone: boolean;
  playing: boolean;
  /** Whether all frames of the range are made ready in the background, or only those that are shown or played. */
  ahead: boolean;
  muted: boolean;
  /** The viewport's tool: look around, draw a path, pick a point to be followed, put places on a form, paint on it, or measure. */
  tool: 'look' | 'draw' | 'pick' | 'place' | 'paint' | 'measure';
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
  sheet: 'shortcuts' | 'export' | 'versions' | null;
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
  /** The side that it is looked at from then; null for where one looks from now. */
  frameFrom: 'front' | 'side' | 'top' | null;
  /** Whether a grid lies on the ground. */
  grid: boolean;
  /** The growth that was chosen in the view last, and when: it is outlined for a moment. */
  pointed: { growth: string; at: number } | null;
}

/** The view of a scene that has none yet. */
export const firstView: SavedView = {
  frame: 1,
  growth: null,
  openSteps: [],
  look: 'finished',
  overlay: false,
  folded: [],
  lesson: null,
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

/** Sets how finely pictures are drawn; kept on this device. */
export function chooseQuality(quality: Quality): void {
  setView({ quality });
  try {
    localStorage.setItem(QUALITY, quality);
  } catch {
    // It holds for this scene all the same.
  }
}

const AHEAD = 'uvrex-ahead';

/** Whether frames are made ready in the background, as chosen last on this device. */
function chosenAhead(): boolean {
  try {
    return localStorage.getItem(AHEAD) !== 'no';
  } catch {
    return true;
  }
}

/** Sets whether all frames are computed ahead; kept on this device. */
export function chooseAhead(ahead: boolean): void {
  setView({ ahead });
  try {
    localStorage.setItem(AHEAD, ahead ? 'yes' : 'no');
  } catch {
    // It holds until the studio is left.
  }
}

/** How the studio is being looked at; not part of the scene, not undone. */
export const useView = create<ViewState>(() => ({
  ...firstView,
  chosen: [],
  alone: false,
  playing: false,
  ahead: chosenAhead(),
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
  frameFrom: null,
  grid: false,
  pointed: null,
}));

/** Changes how the scene is looked at. Where another growth is selected, no step of it has the focus yet. */
export const setView: typeof useView.setState = (partial) =>
  useView.setState((state) => {
    const next = typeof partial === 'function' ? partial(state) : partial;
    const other = next.growth !== undefined && next.growth !== state.growth && !('focusStep' in next);
    return other ? { ...next, focusStep: null } : next;
  });

/** The growth entry that stands for the scene itself in the list. */
export const SCENE_ENTRY = SCENE_ID;

/** What of the view is kept with a scene. */
export const savedView = ({
  frame,
  growth,
  openSteps,
  look,
  overlay,
  folded,
  lesson,
  quality,
  eye,
}: ViewState): SavedView => ({
  frame,
  growth,
  openSteps,
  look,
  overlay,
  folded,
  lesson,
  quality,
  eye,
});

const GREETED = 'uvrex-greeted';

/** Whether somebody opens an empty scene on this device for the first time; true once. */
export function greeting(): boolean {
  try {
    const first = localStorage.getItem(GREETED) === null;
    localStorage.setItem(GREETED, 'yes');
    return first;
  } catch {
    // Where nothing is kept it would come again and again.
    return false;
  }
}

/** Ids of the growths that are chosen, of all chosen ones or the one that is selected. */
export const chosenIn = ({ growth, chosen }: Pick<ViewState, 'growth' | 'chosen'>): readonly string[] =>
  growth !== null && chosen.includes(growth) ? chosen : growth === null || growth === SCENE_ENTRY ? [] : [growth];

/** Selects one growth, or the scene's own entry. */
export const select = (growth: string): void => setView({ growth, chosen: [], keys: [] });

/** Brings growths into the picture: one, or everything that is shown; from a side, or from where one looks now. */
export const seeAll = (frameOf: string | null = null, frameFrom: ViewState['frameFrom'] = null): void =>
  setView(({ frameAll }) => ({ frameAll: frameAll + 1, frameOf, frameFrom }));
