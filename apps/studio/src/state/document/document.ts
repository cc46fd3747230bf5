import { create } from 'zustand';
import {
  faultOfScene,
  type Fault,
  gentleChanges,
  type Growth,
  lateOf,
  namedPlace,
  newScene,
  ownerIn,
  ownersOf,
  Problem,
  putAt,
  type Scene,
  SCENE_ID,
  type Step,
} from '@uvrex/core';
import { say, sayProblem } from '../toasts';
import { change, emptyHistory, type History, redo, seal, undo } from './history';

interface DocumentState {
  /** Id under which the scene is kept on this device. */
  id: string | null;
  scene: Scene;
  history: History;
  /** Nothing may be changed, as there is no room to save it. */
  readOnly: boolean;
}

/** The open scene and its history. All changes go through `edit`. */
export const useDocument = create<DocumentState>(() => ({
  id: null,
  scene: newScene('Untitled'),
  history: emptyHistory,
  readOnly: false,
}));

/** The open scene as it is now. */
export const sceneNow = (): Scene => useDocument.getState().scene;

/** Puts a scene on the table, with no history. */
export const openScene = (id: string, scene: Scene): void => useDocument.setState({ id, scene, history: emptyHistory });

/** The key under which all changes become one entry for now; null while each is by itself. */
let joined: string | null = null;
let joins = 0;

/** Makes all changes from now on one entry of undo. @returns what ends that */
export function joinEdits(): () => void {
  endEdit();
  const key = `joined ${++joins}`;
  joined = key;
  return () => {
    if (joined !== key) return;
    joined = null;
    endEdit();
  };
}

interface EditOptions {
  /** Changes in a row with the same key become one entry, until `endEdit`. */
  merge?: string | null;
  /** Whether what is locked may be changed too. */
  free?: boolean;
}

/**
 * Changes the scene, undoably. Every change passes here: what a hand overshot is brought back within its limits, and what
 * would give a scene that does not open again is refused, with its reason.
 * @param label what the change is, as undo names it
 * @returns whether the scene took the change
 */
export function edit(
  label: string,
  recipe: (scene: Scene) => void,
  { merge = null, free = false }: EditOptions = {},
): boolean {
  const { scene, history, readOnly } = useDocument.getState();
  if (readOnly) {
    sayProblem(
      new Problem(
        `“${label}” was not done: there is no room on this device to save it.`,
        'Export the scene, delete others in the library; it can be changed as soon as there is room.',
      ),
    );
    return false;
  }
  const key = joined ?? merge;
  let next = change(scene, history, label, recipe, key);
  const locked = free ? undefined : lockedChange(scene, next.value);
  if (locked) {
    sayProblem(new Problem(`“${label}” was not done: ${locked.name} is locked.`, 'Unlock it in the list of growths.'));
    return false;
  }
  const fault = faultOfScene(next.value, scene);
  if (fault) {
    const gentle = gentleChanges(next.value, scene);
    if (!gentle) {
      sayProblem(refusal(next.value, fault, label));
      return false;
    }
    next = change(
      scene,
      history,
      label,
      (draft) => {
        recipe(draft);
        for (const { path, value } of gentle) putAt(draft, path, value);
      },
      key,
    );
    if (key === null)
      say({ tone: 'info', text: `Brought within its limits: ${placeOf(next.value, fault)} ${fault.reason}.` });
  }
  useDocument.setState({ scene: next.value, history: next.history });
  return true;
}

/** What may be changed of a growth that is locked. */
const FREE: ReadonlySet<string> = new Set(['locked', 'visible', 'hue', 'group', 'name']);

/** A growth that is locked, and that a change would change or delete. */
function lockedChange(before: Scene, after: Scene): Growth | undefined {
  if (before.growths === after.growths) return undefined;
  return before.growths.find((growth) => {
    if (!growth.locked) return false;
    const next = growthIn(after, growth.id);
    if (next === growth || (next && !next.locked)) return false;
    return (
      !next || Object.entries(growth).some(([part, value]) => !FREE.has(part) && next[part as keyof Growth] !== value)
    );
  });
}

const placeOf = (scene: Scene, { path }: Fault): string => namedPlace(scene, path) ?? String(path[0] ?? 'the scene');

const refusal = (scene: Scene, fault: Fault, label: string): Problem =>
  new Problem(`“${label}” was not done: ${placeOf(scene, fault)}: ${fault.reason}.`, 'The scene is as it was before.', {
    path: fault.path.join('.'),
  });

/** Ends a drag: the next change is an entry of its own. */
export const endEdit = (): void => {
  if (joined === null) useDocument.setState(({ history, scene }) => ({ history: seal(history, scene) }));
};

/** Puts the scene and its history back as they were a moment ago, as if what was changed since had not been. */
export function putBack(before: Pick<DocumentState, 'id' | 'scene' | 'history'>): void {
  const { id, scene } = useDocument.getState();
  if (id === before.id && scene !== before.scene) useDocument.setState(before);
}

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

/** What holds owners of numbers: a growth, or the scene itself under `SCENE_ID`. Its `steps` are all its owners. */
export type Holder = Pick<Growth, 'id' | 'name' | 'hue' | 'shift' | 'group' | 'steps'>;

const SCENE_HOLDER = { id: SCENE_ID, name: 'Scene', hue: '#e9efe8', shift: 0, group: null } as const;

/** The holder of that id within a scene or draft; of a growth in a group, as late as both together. */
export function holderIn(scene: Scene, id: string | null): Holder | undefined {
  if (id === SCENE_ID) return { ...SCENE_HOLDER, steps: ownersOf(scene, id) };
  const growth = growthIn(scene, id);
  return growth && { ...growth, shift: lateOf(scene, growth), group: null, steps: ownersOf(scene, id) };
}

/** The owner of numbers of that id within a scene or draft: a step, a growth's place, or a part of the scene. */
export const stepIn = (scene: Scene, holder: string, id: string): Step | undefined => ownerIn(scene, holder, id);
