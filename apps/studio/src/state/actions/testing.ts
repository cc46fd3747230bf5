import { isTrack, newScene, type Track } from '@uvrex/core';
import { openScene, useDocument } from '../document/document';
import { SCENE_ENTRY, setView } from '../document/view';
import { addStartedGrowth, selectedGrowth } from './growthActions';

/** The scene as it is now. */
export const scene = () => useDocument.getState().scene;
/** The growth that is selected. */
export const growth = () => selectedGrowth()!;
/** Kinds of its steps, in order. */
export const kinds = () => growth().steps.map(({ kind }) => kind);
/** Its step of a kind. */
export const stepOfKind = (kind: string) => growth().steps.find((step) => step.kind === kind)!;

/** A track of the selected growth. @throws where the value has no keys */
export function trackOf(kind: string, param: string): Track {
  const value = stepOfKind(kind).params[param];
  if (!isTrack(value)) throw new Error('not animated');
  return value;
}

/** Opens a scene with one line that grows, selected, at its first frame. */
export function openLine(): void {
  openScene('test', newScene('Reef'));
  setView({ frame: 1, growth: SCENE_ENTRY, keys: [], openSteps: [], redraw: null });
  addStartedGrowth('line');
  setView({ frame: 1 });
}
