import {
  bestPlace,
  declarationOf,
  growingTo,
  newId,
  newStep,
  placesCopies,
  READY_ITEMS,
  skinsPaths,
  type Step,
  stepOf,
} from '@uvrex/core';
import { edit, growthIn, sceneNow, stepIn } from '../document/document';
import { growthOf, itemFor, itemParamsOf, referenceFor, referencesOf, suit } from './items';
import { useResults } from '../director/results';
import { setView } from '../document/view';
import { say } from '../toasts';

/** Adds a step where it belongs, or at an index; its required references are filled. */
export function addStep(growthId: string, kind: string, index?: number): void {
  const beforehand = growthIn(sceneNow(), growthId)?.steps ?? [];
  const other = placesCopies(beforehand) ? undefined : stepOf(kind)?.withoutCopies;
  const step = newStep(kind, other?.params);
  const items = itemParamsOf(kind);
  const item = items.length > 0 ? itemFor(sceneNow(), growthId) : null;
  // Nothing begins with an error: where there is nothing to copy, a leaf is made.
  const made = items.length > 0 && item === null ? growthOf(READY_ITEMS[0], sceneNow()) : null;
  if (items.length > 0) step.params[items[0]] = item ?? made!.id;
  if (made) suit(step, READY_ITEMS[0]);
  for (const { name, spec } of referencesOf(kind)) step.params[name] = referenceFor(sceneNow(), growthId, spec);
  for (const [name, spec] of Object.entries(stepOf(kind)?.params ?? {}))
    if (spec.type === 'number' && spec.grows)
      step.params[name] = growingTo(sizeOf(growthId) ?? 2 * spec.default, sceneNow().range, 'linear');
  const done = edit(`Add ${stepOf(kind)?.label}`, (draft) => {
    const steps = growthIn(draft, growthId)?.steps;
    steps?.splice(index ?? bestPlace(steps, kind, other?.family), 0, step);
    if (made) draft.growths.push(made);
  });
  if (!done) return;
  setView(({ openSteps }) => ({ openSteps: [...openSteps, step.id] }));
  const skin = skinsPaths(step) ? beforehand.find((one) => one.on && skinsPaths(one)) : undefined;
  if (skin)
    say({
      tone: 'info',
      text: `There are two skins now: ${titleOf(skin)} and ${titleOf(step)}.`,
      action: {
        label: titleOf(skin) === titleOf(step) ? 'Switch the first one off' : `Switch ${titleOf(skin)} off`,
        run: () => toggleStep(growthId, skin.id),
      },
    });
}

/** Length of the diagonal of a growth and all that it grows to, to two figures, metres; null where it is not known. */
export function sizeOf(growthId: string): number | null {
  const size = useResults.getState().record?.growths.find(({ id }) => id === growthId)?.size;
  return size ? Number(size.toPrecision(2)) : null;
}

/** Makes something to copy, and has a step copy it. */
export function makeItem(growthId: string, stepId: string, param: string, itemId: string): void {
  const item = READY_ITEMS.find(({ id }) => id === itemId);
  if (!item) return;
  const made = growthOf(item, sceneNow());
  edit(`Make ${item.label}`, (draft) => {
    const step = stepIn(draft, growthId, stepId);
    if (!step) return;
    draft.growths.push(made);
    step.params[param] = made.id;
    suit(step, item);
  });
}

/** Puts a copy of a step behind it. */
export function duplicateStep(growthId: string, stepId: string): void {
  const original = stepIn(sceneNow(), growthId, stepId);
  if (!original) return;
  const copy: Step = { ...structuredClone(original), id: newId() };
  edit(`Duplicate ${titleOf(original)}`, (draft) => {
    const steps = growthIn(draft, growthId)?.steps;
    steps?.splice(steps.findIndex(({ id }) => id === stepId) + 1, 0, copy);
  });
}

/** Deletes a step. */
export function deleteStep(growthId: string, stepId: string): void {
  const step = stepIn(sceneNow(), growthId, stepId);
  if (!step) return;
  edit(`Delete ${titleOf(step)}`, (draft) => {
    const growth = growthIn(draft, growthId);
    if (growth) growth.steps = growth.steps.filter(({ id }) => id !== stepId);
  });
  setView(({ keys }) => ({ keys: keys.filter((key) => key.step !== stepId) }));
}

/** Switches a step on or off. */
export function toggleStep(growthId: string, stepId: string): void {
  const step = stepIn(sceneNow(), growthId, stepId);
  if (!step) return;
  edit(`Switch ${titleOf(step)} ${step.on ? 'off' : 'on'}`, (draft) => {
    const found = stepIn(draft, growthId, stepId);
    if (found) found.on = !found.on;
  });
}

/** Gives a step a name of its own; an empty one takes it off. */
export function renameStep(growthId: string, stepId: string, name: string): void {
  edit('Rename step', (draft) => {
    const step = stepIn(draft, growthId, stepId);
    if (step) step.name = name.trim();
  });
}

/** Moves a step among those of its growth. */
export function moveStep(growthId: string, from: number, to: number): void {
  edit('Reorder steps', (draft) => moveWithin(growthIn(draft, growthId)?.steps ?? [], from, to));
}

/** The name of a step as people see it. */
export const titleOf = (step: Step): string => step.name || declarationOf(step.kind)?.label || step.kind;

function moveWithin<T>(list: T[], from: number, to: number): void {
  const [moved] = list.splice(from, 1);
  if (moved !== undefined) list.splice(to, 0, moved);
}
