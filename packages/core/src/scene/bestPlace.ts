import type { Family } from '../steps/declare';
import { stepOf } from '../steps/index';
import type { Step } from './schema';

const ORDER = ['start', 'shape', 'grow', 'skin', 'finish', 'place'];

/** Whether any of a growth's steps that are on places copies. */
export const placesCopies = (steps: readonly Step[]): boolean =>
  steps.some((step) => step.on && stepOf(step.kind)?.gives.includes('copies'));

/** Whether a step puts a skin on paths. */
export function skinsPaths({ kind }: Pick<Step, 'kind'>): boolean {
  const declaration = stepOf(kind);
  return declaration?.family === 'skin' && declaration.takes.includes('paths') && declaration.gives.includes('mesh');
}

/** Where a new step goes: behind the last step of its family, or the family whose part it takes there, or an earlier one. */
export function bestPlace(steps: readonly Step[], kind: string, part?: Family): number {
  const rank = (of: string): number => ORDER.indexOf(stepOf(of)?.family ?? 'finish');
  const own = part ? ORDER.indexOf(part) : rank(kind);
  // Where it takes part in another family's work it still comes after its like.
  const last = steps.findLastIndex((step) => rank(step.kind) <= own || (part && step.kind === kind));
  const declaration = stepOf(kind);
  const writes = steps.findLastIndex((step) => stepOf(step.kind)?.writes !== undefined);
  // What works on paths and on skins alike works on the paths, before they get one, unless it goes by what comes later.
  const skin = steps.findIndex(skinsPaths);
  const either = declaration?.family === 'skin' && declaration.takesOne?.includes('paths');
  if (either && !declaration.writes && skin >= 0 && writes < skin) return skin;
  if (!either && !declaration?.takes.includes('mesh')) return last + 1;
  // What moves or marks a skin comes before what is placed on it, which would stay where the skin was.
  const laid = steps.findIndex((step) => {
    const made = stepOf(step.kind);
    return made?.takes.includes('mesh') && (made.gives.includes('points') || made.gives.includes('copies'));
  });
  if (laid >= 0 && !declaration?.gives.some((given) => given === 'points' || given === 'copies'))
    return bestPlace(steps.slice(0, laid), kind, part);
  // What works on a skin comes after all that makes it, and after what it may go by.
  const needed = steps.findLastIndex((step) => {
    const made = stepOf(step.kind);
    return made?.writes !== undefined || (made?.gives.includes('mesh') && !made.takes.includes('mesh'));
  });
  return Math.max(last, needed) + 1;
}
