import { create } from 'zustand';
import { type Growth, type Scene, type Step, newScene } from '@uvrex/core';
import { change, emptyHistory, type History, redo, seal, undo } from './history';

interface DocumentState {
  /** Id under which the scene is kept on this device. */
  id: string | null;
  scene: Scene;
  history: History;
}

/** The open scene and its history. All changes go through `edit`. */
export const useDocument = create<DocumentState>(() => ({
  id: null,
  scene: newScene('Untitled'),
  history: emptyHistory,
}));

/** Puts a scene on the table, with no history. */
export const openScene = (id: string, scene: Scene): void => useDocument.setState({ id, scene, history: emptyHistory });

/**
 * Changes the scene, undoably.
 * @param label what the change is, as undo names it
 * @param merge changes in a row with the same key become one entry, until `endEdit`
 */
export function edit(label: string, recipe: (scene: Scene) => void, merge: string | null = null): void {
  useDocument.setState(({ scene, history }) => {
    const next = change(scene, history, label, recipe, merge);
    return { scene: next.value, history: next.history };
  });
}

/** Ends a drag: the next change is an entry of its own. */
export const endEdit = (): void => useDocument.setState(({ history }) => ({ history: seal(history) }));

/** Takes the last change back, or does it again. Returns what it was, or null when there was none. */
export function travel(direction: 'undo' | 'redo'): string | null {
  const { scene, history } = useDocument.getState();
  const next = (direction === 'undo' ? undo : redo)(scene, history);
  if (!next) return null;
  useDocument.setState({ scene: next.value, history: next.history });
  return next.label;
}

/** The growth of that id within a scene or draft. */
export const growthIn = (scene: Scene, id: string | null): Growth | undefined =>
  scene.growths.find((growth) => growth.id === id);

/** The step of that id within a scene or draft. */
export const stepIn = (scene: Scene, growthId: string, stepId: string): Step | undefined =>
  growthIn(scene, growthId)?.steps.find((step) => step.id === stepId);
