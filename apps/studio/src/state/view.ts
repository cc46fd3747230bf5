import { create } from 'zustand';
import { type Vec3 } from '@uvrex/core';

export type Look = 'finished' | 'paths' | 'points';
export type Quality = 'auto' | 'draft' | 'standard' | 'fine';

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
  /** The viewport's tool: look around, or draw a path. */
  tool: 'look' | 'draw';
  drawOn: 'ground' | 'view';
  /** A drawn-path step whose anchors the next stroke replaces; null for a new growth. */
  redraw: { growth: string; step: string } | null;
  keys: KeyAddress[];
  /** The step that the keyboard last stood on: what B switches. */
  focusStep: string | null;
  palette: 'commands' | 'steps' | null;
  sheet: 'shortcuts' | 'export' | null;
  /** Whether the checks stand open beside the picture. */
  checks: boolean;
  /** Counts up to ask the viewport to frame everything. */
  frameAll: number;
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

/** How the studio is being looked at; not part of the scene, not undone. */
export const useView = create<ViewState>(() => ({
  ...firstView,
  playing: false,
  tool: 'look',
  drawOn: 'view',
  redraw: null,
  keys: [],
  focusStep: null,
  palette: null,
  sheet: null,
  checks: false,
  frameAll: 0,
}));

export const setView = useView.setState;

/** The growth entry that stands for the scene itself in the list. */
export const SCENE_ENTRY = 'scene';

export const savedView = ({ frame, growth, openSteps, look, overlay, quality, eye }: ViewState): SavedView => ({
  frame,
  growth,
  openSteps,
  look,
  overlay,
  quality,
  eye,
});
