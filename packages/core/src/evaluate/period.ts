import { baseOf, type Growth, isFormula, isTrack, type Params, type Step } from '../scene/schema';
import { runnableOf } from '../scene/owners';
import type { Track } from '../time/track';
import type { Plan } from './plan';
import { references } from '../scene/references';

/** Longest period that is worth finding, frames. */
const LONGEST = 100_000;

/**
 * After how many frames a growth is the same again, by its tracks alone: the least common multiple of the lengths of those
 * that repeat; 1 where nothing moves. 0 where that cannot be told: with tracks that do not repeat, formulas, steps that
 * change by themselves, or within a circle.
 */
export function periodOf(plan: Plan, id: string): number {
  const known = plan.periods.get(id);
  if (known !== undefined) return known;
  const growth = plan.byId.get(id);
  if (!growth || plan.circles.has(id)) return 0;
  let period = 1;
  for (const step of growth.steps) period = leastCommon(period, periodOfStep(plan, step));
  for (const other of plan.references.get(id)!) period = leastCommon(period, periodOf(plan, other));
  if (period > LONGEST) period = 0;
  plan.periods.set(id, period);
  return period;
}

/** The same of one step, what it refers to left aside. */
function periodOfStep(plan: Plan, step: Step): number {
  const declaration = step.on ? runnableOf(step.kind) : undefined;
  if (!declaration) return 1;
  if (declaration.moves) return 0;
  let period = periodOfParams(step.params);
  for (const [name, { type }] of Object.entries(declaration.params)) {
    const value = step.params[name];
    const guide = type === 'guide' && typeof value === 'string' ? plan.guides.get(value) : undefined;
    if (guide) period = leastCommon(period, periodOfParams(guide.params));
  }
  return period;
}

function periodOfParams(params: Params): number {
  let period = 1;
  for (const value of Object.values(params)) {
    const base = baseOf(value);
    if (isFormula(base)) return 0;
    if (isTrack(base)) period = leastCommon(period, lengthOf(base));
  }
  return period;
}

/** Whether the paths that a step of a growth gets have the same course at all frames, however much of them has grown. */
export function keepsCourse(plan: Plan, growth: Growth, step: Step): boolean {
  let keeps = plan.steady.get(step);
  if (keeps === undefined) plan.steady.set(step, (keeps = courseKept(plan, growth, step)));
  return keeps;
}

function courseKept(plan: Plan, growth: Growth, step: Step): boolean {
  const before = growth.steps.slice(0, growth.steps.indexOf(step)).filter(({ on, kind }) => {
    const family = runnableOf(kind)?.family;
    return on && (family === 'start' || family === 'shape');
  });
  const others = references({ ...growth, steps: before });
  return before.every((entry) => periodOfStep(plan, entry) === 1) && others.every((id) => periodOf(plan, id) === 1);
}

/** Frames after which a track is the same again; 1 where it never moves, 0 where it does not come back. */
function lengthOf({ keys, before, after }: Track): number {
  const [first, last] = [keys[0], keys[keys.length - 1]];
  if (keys.every(({ value }) => value === first.value)) return 1;
  const length = last.frame - first.frame;
  const comes = before === 'repeat' && after === 'repeat';
  return comes && Number.isInteger(length) ? length : 0;
}

/** 0 where either is. */
const leastCommon = (a: number, b: number): number => (a === 0 || b === 0 ? 0 : (a * b) / greatestCommon(a, b));
const greatestCommon = (a: number, b: number): number => (b === 0 ? a : greatestCommon(b, a % b));
