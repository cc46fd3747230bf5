import {
  defaultsOf,
  growingSteps,
  type Growth,
  isTrack,
  newGrowth,
  newId,
  newStep,
  type NumberParam,
  type ParamValue,
  resolveParam,
  type Scene,
  type Step,
  stepOf,
  type Track,
  valueAt,
  withKey,
  withKeyMoved,
  type Ease,
  type Cycle,
  type Vec3,
} from '@uvrex/core';
import { edit, growthIn, stepIn, useDocument } from './document';
import { type KeyAddress, SCENE_ENTRY, setView, useView } from './view';

const scene = (): Scene => useDocument.getState().scene;

/** The selected growth, or undefined when the scene itself or nothing is selected. */
export const selectedGrowth = (): Growth | undefined => growthIn(scene(), useView.getState().growth);

// Growths

export function addGrowth(growth: Growth): void {
  edit(`Add ${growth.name}`, (draft) => void draft.growths.push(growth));
  setView({ growth: growth.id, openSteps: [] });
}

/** A name that no growth has yet: Path, Path 2, Path 3 … */
export function freeName(base: string): string {
  const taken = new Set(scene().growths.map(({ name }) => name));
  for (let i = 1; ; i++) {
    const name = i === 1 ? base : `${base} ${i}`;
    if (!taken.has(name)) return name;
  }
}

/** A new growth on a start step of the given kind, growing over the range. */
export function addStartedGrowth(kind: string, params: Record<string, ParamValue> = {}): void {
  const name = freeName(stepOf(kind)?.label ?? 'Growth');
  addGrowth(newGrowth(name, scene().growths.length, growingSteps(newStep(kind, params), scene().range)));
}

export function duplicateGrowth(id: string): void {
  const original = growthIn(scene(), id);
  if (!original) return;
  // Step ids stay: the copy keeps the original's randomness, so that it looks the same.
  const copy: Growth = { ...structuredClone(original), id: newId(), name: freeName(original.name) };
  edit(`Duplicate ${original.name}`, (draft) => {
    draft.growths.splice(draft.growths.findIndex((growth) => growth.id === id) + 1, 0, copy);
  });
  setView({ growth: copy.id });
}

export function deleteGrowth(id: string): void {
  const { growths } = scene();
  const index = growths.findIndex((growth) => growth.id === id);
  if (index < 0) return;
  edit(`Delete ${growths[index].name}`, (draft) => void draft.growths.splice(index, 1));
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

export function moveGrowth(from: number, to: number): void {
  edit('Reorder growths', (draft) => moveWithin(draft.growths, from, to));
}

// Steps

export function addStep(growthId: string, kind: string, index?: number): void {
  const step = newStep(kind);
  edit(`Add ${stepOf(kind)?.label}`, (draft) => {
    const steps = growthIn(draft, growthId)?.steps;
    steps?.splice(index ?? bestPlace(steps, kind), 0, step);
  });
  setView(({ openSteps }) => ({ openSteps: [...openSteps, step.id] }));
}

const ORDER = ['start', 'shape', 'grow', 'skin', 'finish'];

/** Where a new step goes: behind the last step of its family or an earlier one. */
function bestPlace(steps: readonly Step[], kind: string): number {
  const rank = (of: string): number => ORDER.indexOf(stepOf(of)?.family ?? 'finish');
  const last = steps.findLastIndex((step) => rank(step.kind) <= rank(kind));
  return last + 1;
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
    if (step) step.name = name.trim().slice(0, 120);
  });
}

export function moveStep(growthId: string, from: number, to: number): void {
  edit('Reorder steps', (draft) => moveWithin(growthIn(draft, growthId)?.steps ?? [], from, to));
}

/** The name of a step as people see it. */
export const titleOf = (step: Step): string => step.name || stepOf(step.kind)?.label || step.kind;

function moveWithin<T>(list: T[], from: number, to: number): void {
  const [moved] = list.splice(from, 1);
  if (moved !== undefined) list.splice(to, 0, moved);
}

// Parameters and tracks

/** The growth's own frame: its shift taken off the playhead. */
export const ownFrame = (growth: Growth, frame: number): number => frame - growth.shift;

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
      const growth = growthIn(draft, growthId);
      const step = stepIn(draft, growthId, stepId);
      if (!growth || !step) return;
      const old = step.params[param];
      step.params[param] =
        isTrack(old) && typeof value === 'number' ? withKey(old, ownFrame(growth, frame), value) : value;
    },
    merge && `${merge}:${growthId}:${stepId}:${param}`,
  );
}

/** The leaf: animates a constant with a key here; on a track, puts in the key at the playhead or takes it out. */
export function toggleKey(growthId: string, stepId: string, param: string, spec: NumberParam): void {
  const growth = growthIn(scene(), growthId);
  const step = stepIn(scene(), growthId, stepId);
  if (!growth || !step) return;
  const frame = ownFrame(growth, useView.getState().frame);
  const old = step.params[param];
  const value = resolveParam(spec, old, frame) as number;
  let next: ParamValue;
  if (!isTrack(old)) next = { keys: [{ frame, value, ease: 'ease-in-out' }], before: 'hold', after: 'hold' };
  else if (!old.keys.some((key) => key.frame === frame)) next = withKey(old, frame, value);
  else if (old.keys.length > 1) next = { ...old, keys: old.keys.filter((key) => key.frame !== frame) };
  else next = value;
  edit(isTrack(next) ? 'Set a key' : 'Stop animating', (draft) => {
    const found = stepIn(draft, growthId, stepId);
    if (found) found.params[param] = next;
  });
}

const trackAt = (draft: Scene, { growth, step, param }: Omit<KeyAddress, 'frame'>): Track | undefined => {
  const value = stepIn(draft, growth, step)?.params[param];
  return isTrack(value) ? value : undefined;
};

/** Moves keys by whole frames; keys they land on are replaced. Returns where they are now. */
export function moveKeys(keys: readonly KeyAddress[], by: number, merge: string): KeyAddress[] {
  if (by === 0) return [...keys];
  edit(
    'Move keys',
    (draft) => {
      // The foremost in the direction of travel first, so that none runs over its neighbour.
      for (const key of [...keys].sort((a, b) => (b.frame - a.frame) * Math.sign(by))) {
        const step = stepIn(draft, key.growth, key.step);
        const track = trackAt(draft, key);
        const index = track?.keys.findIndex(({ frame }) => frame === key.frame) ?? -1;
        if (step && track && index >= 0) step.params[key.param] = withKeyMoved(track, index, key.frame + by);
      }
    },
    merge,
  );
  return keys.map((key) => ({ ...key, frame: key.frame + by }));
}

/** Removes keys; a track that loses its last one becomes the constant it showed. */
export function deleteKeys(keys: readonly KeyAddress[]): void {
  edit(keys.length > 1 ? 'Delete keys' : 'Delete key', (draft) => {
    for (const key of keys) {
      const step = stepIn(draft, key.growth, key.step);
      const track = trackAt(draft, key);
      if (!step || !track) continue;
      const left = track.keys.filter(({ frame }) => frame !== key.frame);
      step.params[key.param] = left.length > 0 ? { ...track, keys: left } : valueAt(track, key.frame);
    }
  });
  setView({ keys: [] });
}

export function setEase(keys: readonly KeyAddress[], ease: Ease): void {
  edit('Change easing', (draft) => {
    for (const address of keys) {
      const key = trackAt(draft, address)?.keys.find(({ frame }) => frame === address.frame);
      if (key) key.ease = ease;
    }
  });
}

export function setCycle(address: Omit<KeyAddress, 'frame'>, end: 'before' | 'after', cycle: Cycle): void {
  edit('Change what happens past the keys', (draft) => {
    const track = trackAt(draft, address);
    if (track) track[end] = cycle;
  });
}

// Drawn paths

/** Makes of a drawn stroke a new growth, or the new course of the path being redrawn. */
export function takeStroke(anchors: Vec3[]): void {
  const { redraw } = useView.getState();
  const step = redraw && stepIn(scene(), redraw.growth, redraw.step);
  if (redraw && step) {
    setParam(redraw.growth, redraw.step, 'anchors', anchors);
    setView({ tool: 'look', redraw: null });
    return;
  }
  addStartedGrowth('drawn', { ...defaultsOf(stepOf('drawn')!), anchors });
  setView({ tool: 'look', redraw: null, openSteps: [selectedGrowth()?.steps[0].id ?? ''] });
}
