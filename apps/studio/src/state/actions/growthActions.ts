import {
  type Anchor,
  defaultsOf,
  growingSteps,
  type Growth,
  isTrack,
  newGrowth,
  newId,
  newStep,
  type ParamValue,
  redrawPart,
  stepOf,
  STEPS,
  unusedName,
  valueAt,
} from '@uvrex/core';
import { say } from '../toasts';
import { edit, growthIn, sceneNow, stepIn, travel, useDocument } from '../document/document';
import { dropEmptyGroups } from './groups';
import { referenceFor, referencesOf, usersOf } from './items';
import { setParam } from './valueActions';
import { SCENE_ENTRY, setView, useView } from '../document/view';

/** The selected growth, or undefined when the scene itself or nothing is selected. */
export const selectedGrowth = (): Growth | undefined => growthIn(sceneNow(), useView.getState().growth);

/** Adds a growth and selects it. */
export function addGrowth(growth: Growth): void {
  if (edit(`Add ${growth.name}`, (draft) => void draft.growths.push(growth)))
    setView({ growth: growth.id, openSteps: [] });
}

/** A name that no growth has yet: Path, Path 2, Path 3 … */
export function freeName(base: string): string {
  return unusedName(base, new Set(sceneNow().growths.map(({ name }) => name)));
}

/** Less than this of a new growth is as good as nothing to look at. */
const SEEN = 0.25;

/** A new growth on a start step of the given kind, growing over the range; the playhead goes where there is something of it to see. */
export function addStartedGrowth(kind: string, params: Record<string, ParamValue> = {}): void {
  const name = freeName(stepOf(kind)?.label ?? 'Growth');
  const start = newStep(kind, params);
  // What begins on another growth begins on the one that is selected.
  for (const { name, spec } of referencesOf(kind, true))
    start.params[name] ??= referenceFor(sceneNow(), '', spec, selectedGrowth());
  const steps = growingSteps(start, sceneNow().range);
  addGrowth(newGrowth(name, sceneNow().growths.length, steps));
  const to = steps.map((step) => step.params[stepOf(step.kind)?.paced ?? '']).find((value) => value !== undefined);
  const { playing, frame } = useView.getState();
  if (!isTrack(to) || playing) return;
  const last = to.keys[to.keys.length - 1];
  if (valueAt(to, frame) < SEEN * last.value) setView({ frame: last.frame });
}

/** Puts a copy of a growth behind it, under a free name, and selects it. */
export function duplicateGrowth(id: string): void {
  const original = growthIn(sceneNow(), id);
  if (!original) return;
  // Step ids stay: the copy keeps the original's randomness, so that it looks the same.
  const copy: Growth = { ...structuredClone(original), id: newId(), name: freeName(original.name), locked: false };
  const done = edit(`Duplicate ${original.name}`, (draft) => {
    draft.growths.splice(draft.growths.findIndex((growth) => growth.id === id) + 1, 0, copy);
  });
  if (done) setView({ growth: copy.id });
}

/** Deletes a growth; who used it is told. */
export function deleteGrowth(id: string): void {
  const { growths } = sceneNow();
  const index = growths.findIndex((growth) => growth.id === id);
  if (index < 0) return;
  const label = `Delete ${growths[index].name}`;
  const users = usersOf(sceneNow(), id).map(({ name }) => name);
  const gone = edit(label, (draft) => {
    draft.growths.splice(index, 1);
    dropEmptyGroups(draft);
  });
  if (!gone) return;
  if (users.length > 0)
    say({
      tone: 'info',
      text: `“${growths[index].name}” was used by ${users.join(', ')}: choose another there.`,
      action: {
        label: 'Keep it',
        run: () => {
          if (useDocument.getState().history.past.at(-1)?.label === label) travel('undo');
          else say({ tone: 'info', text: 'Other things were changed since: Undo brings it back.' });
        },
      },
    });
  const next = sceneNow().growths[Math.min(index, sceneNow().growths.length - 1)];
  setView({ growth: next?.id ?? SCENE_ENTRY, keys: [] });
}

/** Changes what a growth is besides its steps. */
export function changeGrowth(
  id: string,
  label: string,
  changes: Partial<Omit<Growth, 'id' | 'steps'>>,
  merge: string | null = null,
): void {
  edit(label, (draft) => Object.assign(growthIn(draft, id) ?? {}, changes), { merge });
}

/**
 * Makes of a drawn stroke a new growth, or the new course of the path being redrawn.
 * @param skin the growth on whose skin it was drawn; null elsewhere
 */
export function takeStroke(anchors: Anchor[], skin: string | null = null): void {
  const { redraw } = useView.getState();
  const step = redraw && stepIn(sceneNow(), redraw.growth, redraw.step);
  if (redraw && step) {
    const old = step.params.anchors as Anchor[];
    setParam(redraw.growth, redraw.step, 'anchors', redraw.part ? redrawPart(old, anchors) : anchors);
    setView({ tool: 'look', redraw: null });
    return;
  }
  const drawn = STEPS.find(({ handles }) => handles === 'anchors')!;
  addStartedGrowth(drawn.kind, { ...defaultsOf(drawn), anchors, skin });
  setView({ tool: 'look', redraw: null, openSteps: [selectedGrowth()?.steps[0].id ?? ''] });
}
