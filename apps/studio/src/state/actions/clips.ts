import {
  baseOf,
  bestPlace,
  type Clip,
  declarationOf,
  type Growth,
  growthClip,
  type GrowthGroup,
  growthsClip,
  keyClip,
  isTrack,
  newId,
  readClip,
  type Scene,
  type Step,
  stepClip,
  stepOf,
  trackClip,
  unusedName,
  tracksOfClip,
  type Track,
  withBase,
  withKeysPut,
  writeClip,
} from '@uvrex/core';
import { say, sayProblem } from '../toasts';
import { freeName, selectedGrowth } from './growthActions';
import { makesCircle } from './items';
import { ownFrame } from './valueActions';
import { edit, growthIn, holderIn, stepIn, useDocument } from '../document/document';
import { chosenIn, setView, useView } from '../document/view';

/** What is copied now: the chosen keys, the focused step, or the selected growth; null when nothing is. */
function current(): { clip: Clip; what: string } | null {
  const { scene } = useDocument.getState();
  const { keys, focusStep } = useView.getState();
  const keyed = keys.length > 0 ? holderIn(scene, keys[0].growth) : undefined;
  if (keyed) {
    const wanted = (step: Step, param: string, frame: number): boolean =>
      keys.some((key) => key.step === step.id && key.param === param && key.frame === frame);
    return { clip: keyClip(scene, keyed.id, wanted), what: keys.length > 1 ? 'Keys' : 'Key' };
  }
  const growth = selectedGrowth();
  if (!growth) return null;
  const chosen = chosenIn(useView.getState());
  if (chosen.length > 1) {
    const growths = scene.growths.filter(({ id }) => chosen.includes(id));
    return { clip: growthsClip(scene, growths), what: `${growths.length} growths` };
  }
  const step = growth.steps.find(({ id }) => id === focusStep);
  return step
    ? { clip: stepClip(scene, growth, [step]), what: 'Step' }
    : { clip: growthClip(scene, growth), what: 'Growth' };
}

/** The text of what is copied now, for the clipboard, and word of it. */
export function copyText(): string | null {
  const copied = current();
  if (!copied) return null;
  say({ tone: 'info', text: `${copied.what} copied.` });
  return writeClip(copied.clip);
}

const toClipboard = (clip: Clip, what: string): void =>
  void navigator.clipboard.writeText(writeClip(clip)).then(
    () => say({ tone: 'info', text: `${what} copied.` }),
    () =>
      say({ tone: 'error', text: 'The browser did not let it onto the clipboard: use the keys for copying instead.' }),
  );

export const copyGrowth = (growth: Growth): void =>
  toClipboard(growthClip(useDocument.getState().scene, growth), 'Growth');
export const copyStep = (growth: Growth, step: Step): void =>
  toClipboard(stepClip(useDocument.getState().scene, growth, [step]), 'Step');
export const copyTracks = (growth: Growth): void =>
  toClipboard(trackClip(useDocument.getState().scene, growth.id), 'Tracks');

/** Pastes what was copied here or in another scene. Gives false for a text that is nothing of ours. */
export function pasteText(text: string): boolean {
  try {
    const clip = readClip(text);
    if (!clip) return false;
    if (clip.of === 'growths') pasteGrowths(clip);
    else if (clip.of === 'steps') pasteSteps(clip);
    else pasteTracks(clip, clip.of === 'keys');
  } catch (error) {
    sayProblem(error);
  }
  return true;
}

/** Whether a growth, or a group that can be copied as a whole, is in a scene. */
const isThere = (scene: Scene, id: string): boolean =>
  growthIn(scene, id) !== undefined || scene.groups.some((group) => group.id === id);

/**
 * A copy of what refers to growths, guides and files only where those are there.
 * @param into the growth that the steps come into: they do not refer back to it
 */
function settled(
  steps: readonly Step[],
  own: ReadonlyMap<string, string>,
  into?: string,
): { steps: Step[]; lost: number; circles: number } {
  const { scene } = useDocument.getState();
  let [lost, circles] = [0, 0];
  const known = (id: string): string | null => {
    const here = own.get(id) ?? (isThere(scene, id) ? id : null);
    if (here === null) lost++;
    if (here === null || into === undefined || !makesCircle(scene, into, here)) return here;
    circles++;
    return null;
  };
  const made = steps.map((step): Step => {
    const params = structuredClone(step.params);
    for (const [name, spec] of Object.entries(stepOf(step.kind)?.params ?? {})) {
      const value = params[name];
      if (typeof value !== 'string') continue;
      if (spec.type === 'growth') params[name] = known(value);
      if (spec.type === 'guide' && value.startsWith('tip:')) {
        const id = known(value.slice(4));
        params[name] = id && `tip:${id}`;
      }
    }
    return { ...structuredClone(step), id: newId(), params };
  });
  return { steps: made, lost, circles };
}

const tell = (what: string, lost: number, circles = 0): void => {
  if (circles > 0)
    return say({
      tone: 'info',
      text: `${what} pasted. It referred to the growth that it is in now, which would be a circle: choose another there.`,
    });
  say({
    tone: lost > 0 ? 'info' : 'success',
    text:
      lost > 0
        ? `${what} pasted. It referred to ${lost} growth${lost > 1 ? 's' : ''} that are not in this scene: choose others.`
        : `${what} pasted.`,
  });
};

/** Files and guides of the clip that the scene has not. */
function bring(draft: { files: Clip['scene']['files']; guides: Clip['scene']['guides'] }, { scene }: Clip): void {
  for (const file of scene.files) if (!draft.files.some(({ id }) => id === file.id)) draft.files.push(file);
  const text = JSON.stringify(scene.growths);
  for (const guide of scene.guides)
    if (text.includes(`"guide:${guide.id}"`) && !draft.guides.some(({ id }) => id === guide.id))
      draft.guides.push(guide);
}

/** Growths as they are put into the scene, and groups that they copy as a whole, with ids and names of their own there. */
function copiesOf(
  fresh: readonly Growth[],
  fromGroups: Clip['scene']['groups'],
): { growths: Growth[]; groups: GrowthGroup[]; own: ReadonlyMap<string, string>; lost: number } {
  const { scene } = useDocument.getState();
  const brought = fromGroups.filter(({ id }) => !isThere(scene, id));
  const own = new Map([...fresh, ...brought].map(({ id }) => [id, newId()]));
  const groups = brought.map((group) => ({
    ...group,
    id: own.get(group.id)!,
    name: unusedName(group.name, new Set(scene.groups.map(({ name }) => name))),
  }));
  let lost = 0;
  const growths = fresh.map((growth): Growth => {
    const made = settled(growth.steps, own);
    lost += made.lost;
    // The growth's seed stays, and so do its steps' ids, on which randomness hangs: it looks the same.
    const steps = made.steps.map((step, i) => ({ ...step, id: growth.steps[i].id }));
    const group = growth.group && (own.get(growth.group) ?? null);
    return { ...structuredClone(growth), id: own.get(growth.id)!, name: freeName(growth.name), group, steps };
  });
  return { growths, groups, own, lost };
}

function pasteGrowths(clip: Clip): void {
  // What they need comes along where it is not here already.
  const { scene } = useDocument.getState();
  const count = clip.own ?? 1;
  const { growths, groups, lost } = copiesOf(
    clip.scene.growths.filter(({ id }, i) => i < count || !growthIn(scene, id)),
    clip.scene.groups,
  );
  const done = edit(count > 1 ? `Paste ${count} growths` : 'Paste a growth', (draft) => {
    bring(draft, clip);
    draft.groups.push(...groups);
    draft.growths.push(...growths);
  });
  if (!done) return;
  setView({ growth: growths[0].id, openSteps: [] });
  tell(count > 1 ? `${count} growths` : 'Growth', lost);
}

function pasteSteps(clip: Clip): void {
  const growth = selectedGrowth();
  if (!growth) {
    say({ tone: 'info', text: 'Select the growth that the step is for, and paste again.' });
    return;
  }
  // What the steps need comes along behind the growth that they are of, where it is not here already.
  const { scene } = useDocument.getState();
  const [from, ...needs] = clip.scene.growths;
  const brought = copiesOf(
    needs.filter(({ id }) => !growthIn(scene, id)),
    clip.scene.groups,
  );
  const { steps, lost, circles } = settled(from?.steps ?? [], brought.own, growth.id);
  const { focusStep } = useView.getState();
  const done = edit(steps.length === 1 ? 'Paste a step' : `Paste ${steps.length} steps`, (draft) => {
    bring(draft, clip);
    draft.groups.push(...brought.groups);
    draft.growths.push(...brought.growths);
    const list = growthIn(draft, growth.id)?.steps;
    if (!list || steps.length === 0) return;
    const focused = list.findIndex(({ id }) => id === focusStep);
    // They stay together, in their order.
    list.splice(focused >= 0 ? focused + 1 : bestPlace(list, steps[0].kind), 0, ...steps);
  });
  if (done) tell(steps.length === 1 ? 'Step' : `${steps.length} steps`, lost, circles);
}

/** Puts tracks in the place of what is there; keys among those that are there, the first of them at the playhead. */
function pasteTracks(clip: Clip, keys: boolean): void {
  const { focusStep, frame, growth: selected } = useView.getState();
  const growth = holderIn(useDocument.getState().scene, selected);
  const tracks = tracksOfClip(clip);
  /** Where a track goes: the focused step if it has that number, else the first owner of its kind. */
  const home = (step: Step, param: string): Step | undefined => {
    // Keys go back to what they are from, where it is here.
    const own = keys ? growth?.steps.find(({ id, kind }) => id === step.id && kind === step.kind) : undefined;
    if (own) return own;
    const has = (entry: Step): boolean => declarationOf(entry.kind)?.params[param]?.type === 'number';
    const focused = growth?.steps.find(({ id }) => id === focusStep);
    return focused && has(focused) ? focused : growth?.steps.find((entry) => entry.kind === step.kind && has(entry));
  };
  const placed = tracks.flatMap(({ owner, param, track }) => {
    const to = home(owner, param);
    return to ? [{ to: to.id, param, track }] : [];
  });
  if (!growth || placed.length === 0) {
    say({ tone: 'info', text: 'Select a growth with a step that has those values, and paste again.' });
    return;
  }
  const first = Math.min(...placed.flatMap(({ track }) => track.keys.map((key) => key.frame)));
  const later = ownFrame(growth, frame) - first;
  const done = edit(keys ? 'Paste keys' : 'Paste tracks', (draft) => {
    for (const { to, param, track } of placed) {
      const step = stepIn(draft, growth.id, to);
      if (!step) continue;
      const old = baseOf(step.params[param]);
      const bare: Track = isTrack(old) ? old : { ...track, keys: [] };
      const next = keys ? withKeysPut(bare, track.keys, later) : structuredClone(track);
      step.params[param] = withBase(step.params[param], next);
    }
  });
  if (!done) return;
  if (keys)
    setView({
      keys: placed.flatMap(({ to, param, track }) =>
        track.keys.map((key) => ({ growth: growth.id, step: to, param, frame: key.frame + later })),
      ),
    });
  const what = keys ? 'Keys' : 'Tracks';
  tell(placed.length === tracks.length ? what : `${placed.length} of ${tracks.length} tracks`, 0);
}
