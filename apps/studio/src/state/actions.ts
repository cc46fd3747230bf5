import {
  bestPlace,
  declarationOf,
  placesCopies,
  defaultsOf,
  growingSteps,
  growingTo,
  lateOf,
  type Growth,
  baseOf,
  type Driven,
  isFormula,
  isTrack,
  type Variation,
  withBase,
  newGrowth,
  newId,
  newStep,
  unusedName,
  type NumberParam,
  type ParamValue,
  type Scene,
  type Step,
  stepOf,
  STEPS,
  type Track,
  READY_ITEMS,
  references,
  redrawPart,
  valueAt,
  withKey,
  withKeysMoved,
  type Ease,
  type Cycle,
  type Anchor,
} from '@uvrex/core';
import { completed } from './completed';
import { growthOf, itemFor, itemParamsOf, referencesOf, suit } from './items';
import { say } from '@/ui/Toasts';
import { edit, endEdit, growthIn, holderIn, stepIn, travel, useDocument } from './document';
import { dropEmptyGroups } from './groups';
import { useResults } from './results';
import { type KeyAddress, SCENE_ENTRY, setView, useView } from './view';

const scene = (): Scene => useDocument.getState().scene;

/** The selected growth, or undefined when the scene itself or nothing is selected. */
export const selectedGrowth = (): Growth | undefined => growthIn(scene(), useView.getState().growth);

// Growths

export function addGrowth(growth: Growth): void {
  if (edit(`Add ${growth.name}`, (draft) => void draft.growths.push(growth)))
    setView({ growth: growth.id, openSteps: [] });
}

/** A name that no growth has yet: Path, Path 2, Path 3 … */
export function freeName(base: string): string {
  return unusedName(base, new Set(scene().growths.map(({ name }) => name)));
}

/** Less than this of a new growth is as good as nothing to look at. */
const SEEN = 0.25;

/** A new growth on a start step of the given kind, growing over the range; the playhead goes where there is something of it to see. */
export function addStartedGrowth(kind: string, params: Record<string, ParamValue> = {}): void {
  const name = freeName(stepOf(kind)?.label ?? 'Growth');
  const start = newStep(kind, params);
  // What begins on another growth begins on the one that is selected.
  const source = selectedGrowth()?.id ?? itemFor(scene(), '');
  for (const reference of referencesOf(kind)) start.params[reference] ??= source;
  const steps = growingSteps(start, scene().range);
  addGrowth(newGrowth(name, scene().growths.length, steps));
  const to = steps.map((step) => step.params[stepOf(step.kind)?.paced ?? '']).find((value) => value !== undefined);
  const { playing, frame } = useView.getState();
  if (!isTrack(to) || playing) return;
  const last = to.keys[to.keys.length - 1];
  if (valueAt(to, frame) < SEEN * last.value) setView({ frame: last.frame });
}

export function duplicateGrowth(id: string): void {
  const original = growthIn(scene(), id);
  if (!original) return;
  // Step ids stay: the copy keeps the original's randomness, so that it looks the same.
  const copy: Growth = { ...structuredClone(original), id: newId(), name: freeName(original.name), locked: false };
  const done = edit(`Duplicate ${original.name}`, (draft) => {
    draft.growths.splice(draft.growths.findIndex((growth) => growth.id === id) + 1, 0, copy);
  });
  if (done) setView({ growth: copy.id });
}

/** What each growth refers to: asked after every change, and the same for all growths but the changed one. */
const referred = new WeakMap<Growth, readonly string[]>();

function referredBy(growth: Growth): readonly string[] {
  let ids = referred.get(growth);
  if (!ids) referred.set(growth, (ids = references(growth)));
  return ids;
}

/** The growths that refer to one: that copy it, ride with it, take over its paths or its skin. */
export const usersOf = ({ growths }: Scene, id: string): Growth[] =>
  growths.filter((other) => other.id !== id && referredBy(other).includes(id));

export function deleteGrowth(id: string): void {
  const { growths } = scene();
  const index = growths.findIndex((growth) => growth.id === id);
  if (index < 0) return;
  const label = `Delete ${growths[index].name}`;
  const users = usersOf(scene(), id).map(({ name }) => name);
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
  const next = scene().growths[Math.min(index, scene().growths.length - 1)];
  setView({ growth: next?.id ?? SCENE_ENTRY, keys: [] });
}

export function changeGrowth(
  id: string,
  label: string,
  changes: Partial<Omit<Growth, 'id' | 'steps'>>,
  merge: string | null = null,
): void {
  edit(label, (draft) => Object.assign(growthIn(draft, id) ?? {}, changes), merge);
}

// Steps

export function addStep(growthId: string, kind: string, index?: number): void {
  const beforehand = growthIn(scene(), growthId)?.steps ?? [];
  const other = placesCopies(beforehand) ? undefined : stepOf(kind)?.withoutCopies;
  const step = newStep(kind, other?.params);
  const items = itemParamsOf(kind);
  const item = items.length > 0 ? itemFor(scene(), growthId) : null;
  // Nothing begins with an error: where there is nothing to copy, a leaf is made.
  const made = items.length > 0 && item === null ? growthOf(READY_ITEMS[0], scene()) : null;
  if (items.length > 0) step.params[items[0]] = item ?? made!.id;
  if (made) suit(step, READY_ITEMS[0]);
  for (const reference of referencesOf(kind)) step.params[reference] = itemFor(scene(), growthId);
  for (const [name, spec] of Object.entries(stepOf(kind)?.params ?? {}))
    if (spec.type === 'number' && spec.grows)
      step.params[name] = growingTo(sizeOf(growthId) ?? 2 * spec.default, scene().range, 'linear');
  const done = edit(`Add ${stepOf(kind)?.label}`, (draft) => {
    const steps = growthIn(draft, growthId)?.steps;
    steps?.splice(index ?? bestPlace(steps, kind, other?.family), 0, step);
    if (made) draft.growths.push(made);
  });
  if (done) setView(({ openSteps }) => ({ openSteps: [...openSteps, step.id] }));
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
  const made = growthOf(item, scene());
  edit(`Make ${item.label}`, (draft) => {
    const step = stepIn(draft, growthId, stepId);
    if (!step) return;
    draft.growths.push(made);
    step.params[param] = made.id;
    suit(step, item);
  });
}

export function duplicateStep(growthId: string, stepId: string): void {
  const original = stepIn(scene(), growthId, stepId);
  if (!original) return;
  const copy: Step = { ...structuredClone(original), id: newId() };
  edit(`Duplicate ${titleOf(original)}`, (draft) => {
    const steps = growthIn(draft, growthId)?.steps;
    steps?.splice(steps.findIndex(({ id }) => id === stepId) + 1, 0, copy);
  });
}

export function deleteStep(growthId: string, stepId: string): void {
  const step = stepIn(scene(), growthId, stepId);
  if (!step) return;
  edit(`Delete ${titleOf(step)}`, (draft) => {
    const growth = growthIn(draft, growthId);
    if (growth) growth.steps = growth.steps.filter(({ id }) => id !== stepId);
  });
  setView(({ keys }) => ({ keys: keys.filter((key) => key.step !== stepId) }));
}

export function toggleStep(growthId: string, stepId: string): void {
  const step = stepIn(scene(), growthId, stepId);
  if (!step) return;
  edit(`Switch ${titleOf(step)} ${step.on ? 'off' : 'on'}`, (draft) => {
    const found = stepIn(draft, growthId, stepId);
    if (found) found.on = !found.on;
  });
}

export function renameStep(growthId: string, stepId: string, name: string): void {
  edit('Rename step', (draft) => {
    const step = stepIn(draft, growthId, stepId);
    if (step) step.name = name.trim();
  });
}

export function moveStep(growthId: string, from: number, to: number): void {
  edit('Reorder steps', (draft) => moveWithin(growthIn(draft, growthId)?.steps ?? [], from, to));
}

/** The name of a step as people see it. */
export const titleOf = (step: Step): string => step.name || declarationOf(step.kind)?.label || step.kind;

function moveWithin<T>(list: T[], from: number, to: number): void {
  const [moved] = list.splice(from, 1);
  if (moved !== undefined) list.splice(to, 0, moved);
}

// Parameters and tracks

/** The growth's own frame: what it runs late by taken off the playhead. */
export const ownFrame = (growth: Pick<Growth, 'shift' | 'group'>, frame: number): number =>
  frame - lateOf(scene(), growth);

/** Sets a parameter: a constant, or on a track a key at the playhead. */
export function setParam(
  growthId: string,
  stepId: string,
  param: string,
  value: ParamValue,
  merge: string | null = null,
): void {
  const { frame } = useView.getState();
  edit(
    'Change a value',
    (draft) => {
      const growth = holderIn(draft, growthId);
      const step = stepIn(draft, growthId, stepId);
      if (!growth || !step) return;
      const before = { ...step.params };
      step.params[param] =
        typeof value === 'number' ? withNumber(before[param], ownFrame(growth, frame), value) : value;
      if (stepOf(step.kind)?.params[param]?.type === 'choice')
        Object.assign(step.params, completed(draft, growthId, step, before));
    },
    merge && `${merge}:${growthId}:${stepId}:${param}`,
  );
}

/** Sets a value back to what it is where a step is new, keys and formulas and all. */
export function resetParam(growthId: string, stepId: string, param: string): void {
  edit('Set a value back', (draft) => {
    const step = stepIn(draft, growthId, stepId);
    const declaration = step && declarationOf(step.kind);
    if (!declaration) return;
    const before = { ...step.params };
    step.params[param] = defaultsOf(declaration)[param];
    if (declaration.params[param].type === 'choice')
      Object.assign(step.params, completed(draft, growthId, step, before));
  });
}

/** Sets several numbers of a step at once: where they are animated, keys at the playhead. */
export function setParams(growthId: string, stepId: string, values: Record<string, number>, merge: string): void {
  const { frame } = useView.getState();
  edit(
    'Change values',
    (draft) => {
      const growth = holderIn(draft, growthId);
      const step = stepIn(draft, growthId, stepId);
      if (!growth || !step) return;
      for (const [param, value] of Object.entries(values))
        step.params[param] = withNumber(step.params[param], ownFrame(growth, frame), value);
    },
    `${merge}:${growthId}:${stepId}`,
  );
}

/** Gives several parameters of a step other values; what is animated goes on so, up to the new one. */
export function takePreset(growthId: string, stepId: string, label: string, values: Record<string, ParamValue>): void {
  edit(`Take ${label}`, (draft) => {
    const step = stepIn(draft, growthId, stepId);
    if (!step) return;
    for (const [name, value] of Object.entries(values)) step.params[name] = withMost(step.params[name], value);
  });
}

/** A value in the place of another: of one that is animated by keys, these brought to where the greatest is the new one. */
function withMost(old: ParamValue | undefined, value: ParamValue): ParamValue {
  const base = baseOf(old);
  const most = isTrack(base) ? Math.max(...base.keys.map((key) => key.value)) : 0;
  if (!isTrack(base) || typeof value !== 'number' || !(most > 0)) return value;
  return { ...base, keys: base.keys.map((key) => ({ ...key, value: (key.value / most) * value })) };
}

/** A parameter with another number: a key where it is animated; its variation stays. */
function withNumber(old: ParamValue | undefined, frame: number, value: number): ParamValue {
  const base = baseOf(old);
  return withBase(old, isTrack(base) ? withKey(base, frame, value) : value);
}

/** Links a parameter to others by a formula, or takes the formula off and leaves the number that it gave. */
export function setFormula(growthId: string, stepId: string, param: string, formula: string | number): void {
  edit(typeof formula === 'string' ? 'Link a value by formula' : 'Take a formula off', (draft) => {
    const step = stepIn(draft, growthId, stepId);
    if (step) step.params[param] = withBase(step.params[param], typeof formula === 'string' ? { formula } : formula);
  });
}

/** Sets how a parameter differs from path to path; null makes it alike for all. */
export function setVariation(
  growthId: string,
  stepId: string,
  param: string,
  vary: Variation | null,
  fallback: number,
  merge: string | null = null,
): void {
  edit(
    'Vary a value',
    (draft) => {
      const step = stepIn(draft, growthId, stepId);
      if (!step) return;
      const base = (baseOf(step.params[param]) ?? fallback) as Driven;
      step.params[param] = vary ? { base, vary } : base;
    },
    merge && `${merge}:${growthId}:${stepId}:${param}:vary`,
  );
}

/** The leaf: animates a constant with a key here; on a track, puts in the key at the playhead or takes it out. */
export function toggleKey(
  growthId: string,
  stepId: string,
  param: string,
  spec: NumberParam,
  merge: string | null = null,
): void {
  const growth = holderIn(scene(), growthId);
  const step = stepIn(scene(), growthId, stepId);
  if (!growth || !step) return;
  const frame = ownFrame(growth, useView.getState().frame);
  const old = baseOf(step.params[param]);
  if (isFormula(old)) return;
  const value = isTrack(old) ? valueAt(old, frame) : ((old ?? spec.default) as number);
  let next: Driven;
  if (!isTrack(old)) next = { keys: [{ frame, value, ease: 'ease-in-out' }], before: 'hold', after: 'hold' };
  else if (!old.keys.some((key) => key.frame === frame)) next = withKey(old, frame, value);
  else if (old.keys.length > 1) next = { ...old, keys: old.keys.filter((key) => key.frame !== frame) };
  else next = value;
  edit(
    isTrack(next) ? 'Set a key' : 'Stop animating',
    (draft) => {
      const found = stepIn(draft, growthId, stepId);
      if (found) found.params[param] = withBase(found.params[param], next);
    },
    merge,
  );
}

/** Sets a key at the playhead on each of several values; takes them out where all have one. */
export function toggleKeys(
  growthId: string,
  stepId: string,
  params: readonly string[],
  specs: Record<string, NumberParam>,
): void {
  const growth = holderIn(scene(), growthId);
  const step = stepIn(scene(), growthId, stepId);
  if (!growth || !step) return;
  const frame = ownFrame(growth, useView.getState().frame);
  const has = (param: string): boolean => {
    const track = baseOf(step.params[param]);
    return isTrack(track) && track.keys.some((key) => key.frame === frame);
  };
  const all = params.every(has);
  // One entry of the history for all of them.
  for (const param of params) if (all || !has(param)) toggleKey(growthId, stepId, param, specs[param], 'keys together');
  endEdit();
}

/** Takes all keys off a value, which stays as it is now. */
export function stopAnimating(growthId: string, stepId: string, param: string, value: number): void {
  edit('Stop animating', (draft) => {
    const step = stepIn(draft, growthId, stepId);
    if (step) step.params[param] = withBase(step.params[param], value);
  });
  setView(({ keys }) => ({ keys: keys.filter((key) => key.step !== stepId || key.param !== param) }));
}

const trackAt = (draft: Scene, { growth, step, param }: Omit<KeyAddress, 'frame'>): Track | undefined => {
  const value = baseOf(stepIn(draft, growth, step)?.params[param]);
  return isTrack(value) ? value : undefined;
};

/**
 * Puts keys at other frames; keys they land on are replaced. Where two of one track would meet, nothing is changed.
 * @param to the frame of the growth for each of them
 * @returns where they are now
 */
export function retimeKeys(
  keys: readonly KeyAddress[],
  to: (key: KeyAddress, i: number) => number,
  merge: string | null = null,
): KeyAddress[] {
  const targets = keys.map((key, i) => ({ ...key, frame: Math.round(to(key, i)) }));
  const names = targets.map(({ growth, step, param, frame }) => `${growth} ${step} ${param} ${frame}`);
  if (new Set(names).size < names.length || targets.every(({ frame }, i) => frame === keys[i].frame)) return [...keys];
  const tracks = new Map<string, { address: KeyAddress; moves: Map<number, number> }>();
  keys.forEach((address, i) => {
    const name = `${address.growth} ${address.step} ${address.param}`;
    const entry = tracks.get(name) ?? { address, moves: new Map<number, number>() };
    entry.moves.set(address.frame, targets[i].frame);
    tracks.set(name, entry);
  });
  edit(
    keys.length > 1 ? 'Move keys' : 'Move key',
    (draft) => {
      for (const { address, moves } of tracks.values()) {
        const step = stepIn(draft, address.growth, address.step);
        const track = trackAt(draft, address);
        if (step && track)
          step.params[address.param] = withBase(step.params[address.param], withKeysMoved(track, moves));
      }
    },
    merge,
  );
  return targets;
}

/** Moves keys by whole frames. Returns where they are now. */
export const moveKeys = (keys: readonly KeyAddress[], by: number, merge: string): KeyAddress[] =>
  retimeKeys(keys, ({ frame }) => frame + by, merge);

/** Moves the chosen keys of every track so that its first one stands at the playhead. */
export function alignKeys(): void {
  const { keys, frame } = useView.getState();
  const first = new Map<string, number>();
  const nameOf = ({ growth, step, param }: KeyAddress): string => `${growth} ${step} ${param}`;
  for (const key of keys) first.set(nameOf(key), Math.min(first.get(nameOf(key)) ?? Infinity, key.frame));
  const shift = (id: string): number => holderIn(scene(), id)?.shift ?? 0;
  setView({ keys: retimeKeys(keys, (key) => key.frame - first.get(nameOf(key))! + frame - shift(key.growth)) });
}

/** Chooses every key of the selected growth, or of the scene itself. */
export function chooseAllKeys(): void {
  const growth = holderIn(scene(), useView.getState().growth);
  if (!growth) return;
  const keys = growth.steps.flatMap((step) =>
    Object.entries(step.params).flatMap(([param, value]) => {
      const track = baseOf(value);
      return isTrack(track) ? track.keys.map(({ frame }) => ({ growth: growth.id, step: step.id, param, frame })) : [];
    }),
  );
  setView({ keys });
}

// Markers

/** Puts a marker at the playhead, or takes the one there away. */
export function toggleMarker(): void {
  const frame = Math.round(useView.getState().frame);
  const there = scene().markers.some((marker) => marker.frame === frame);
  edit(there ? 'Take a marker away' : 'Set a marker', (draft) => {
    if (there) draft.markers = draft.markers.filter((marker) => marker.frame !== frame);
    else draft.markers = [...draft.markers, { frame, name: '' }].sort((a, b) => a.frame - b.frame);
  });
}

export function changeMarker(
  index: number,
  change: { frame?: number; name?: string },
  merge: string | null = null,
): void {
  edit(
    'Change a marker',
    (draft) => {
      const marker = draft.markers[index];
      // Two in one place would be one.
      if (marker && !draft.markers.some((other, i) => i !== index && other.frame === change.frame))
        Object.assign(marker, change);
    },
    merge,
  );
}

/** Removes keys; a track that loses its last one becomes the constant it showed. */
export function deleteKeys(keys: readonly KeyAddress[]): void {
  edit(keys.length > 1 ? 'Delete keys' : 'Delete key', (draft) => {
    for (const key of keys) {
      const step = stepIn(draft, key.growth, key.step);
      const track = trackAt(draft, key);
      if (!step || !track) continue;
      const left = track.keys.filter(({ frame }) => frame !== key.frame);
      step.params[key.param] = withBase(
        step.params[key.param],
        left.length > 0 ? { ...track, keys: left } : valueAt(track, key.frame),
      );
    }
  });
  setView({ keys: [] });
}

export function setEase(keys: readonly KeyAddress[], ease: Ease, merge: string | null = null): void {
  edit(
    'Change easing',
    (draft) => {
      for (const address of keys) {
        const key = trackAt(draft, address)?.keys.find(({ frame }) => frame === address.frame);
        if (key) key.ease = ease;
      }
    },
    merge,
  );
}

export function setCycle(address: Omit<KeyAddress, 'frame'>, end: 'before' | 'after', cycle: Cycle): void {
  edit('Change what happens past the keys', (draft) => {
    const track = trackAt(draft, address);
    if (track) track[end] = cycle;
  });
}

// Drawn paths

/** Makes of a drawn stroke a new growth, or the new course of the path being redrawn. */
export function takeStroke(anchors: Anchor[]): void {
  const { redraw } = useView.getState();
  const step = redraw && stepIn(scene(), redraw.growth, redraw.step);
  if (redraw && step) {
    const old = step.params.anchors as Anchor[];
    setParam(redraw.growth, redraw.step, 'anchors', redraw.part ? redrawPart(old, anchors) : anchors);
    setView({ tool: 'look', redraw: null });
    return;
  }
  const drawn = STEPS.find(({ handles }) => handles === 'anchors')!;
  addStartedGrowth(drawn.kind, { ...defaultsOf(drawn), anchors });
  setView({ tool: 'look', redraw: null, openSteps: [selectedGrowth()?.steps[0].id ?? ''] });
}
