import {
  baseOf,
  declarationOf,
  defaultsOf,
  type Driven,
  type Growth,
  isFormula,
  isTrack,
  lateOf,
  type NumberParam,
  type ParamValue,
  stepOf,
  valueAt,
  type Variation,
  withBase,
  withKey,
} from '@uvrex/core';
import { completeParams } from './completeParams';
import { edit, endEdit, holderIn, sceneNow, stepIn } from '../document/document';
import { setView, useView } from '../document/view';

/** The growth's own frame: what it runs late by taken off the playhead. */
export const ownFrame = (growth: Pick<Growth, 'shift' | 'group'>, frame: number): number =>
  frame - lateOf(sceneNow(), growth);

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
        Object.assign(step.params, completeParams(draft, growthId, step, before));
    },
    { merge: merge && `${merge}:${growthId}:${stepId}:${param}` },
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
      Object.assign(step.params, completeParams(draft, growthId, step, before));
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
    { merge: `${merge}:${growthId}:${stepId}` },
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
    { merge: merge && `${merge}:${growthId}:${stepId}:${param}:vary` },
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
  const growth = holderIn(sceneNow(), growthId);
  const step = stepIn(sceneNow(), growthId, stepId);
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
    { merge },
  );
}

/** Sets a key at the playhead on each of several values; takes them out where all have one. */
export function toggleKeys(
  growthId: string,
  stepId: string,
  params: readonly string[],
  specs: Record<string, NumberParam>,
): void {
  const growth = holderIn(sceneNow(), growthId);
  const step = stepIn(sceneNow(), growthId, stepId);
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
  const done = edit('Stop animating', (draft) => {
    const step = stepIn(draft, growthId, stepId);
    if (step) step.params[param] = withBase(step.params[param], value);
  });
  if (!done) return;
  setView(({ keys }) => ({ keys: keys.filter((key) => key.step !== stepId || key.param !== param) }));
}
