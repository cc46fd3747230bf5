import type { Resolved, StepDeclaration } from '../steps/declare';
import { runnableOf } from './owners';
import type { Growth, Step } from './schema';

/**
 * Ids of the growths that a step's parameters name, and whether each is looked at as it stands at the last frame:
 * places are laid out by an item's final size, so that they stay where they are while it changes.
 */
export const referencedBy = (
  declaration: StepDeclaration,
  params: Resolved | Step['params'],
): (readonly [id: string, still: boolean])[] =>
  Object.entries(declaration.params).flatMap(([name, spec]) => {
    const value = params[name];
    if (typeof value !== 'string') return [];
    if (spec.type === 'guide') return value.startsWith('tip:') ? [[value.slice(4), false] as const] : [];
    return spec.type === 'growth' ? [[value, spec.still ?? false] as const] : [];
  });

/** Ids of the growths that a growth's steps refer to; steps that are off count for nothing. */
export const references = (growth: Growth): string[] =>
  growth.steps.flatMap((step) => {
    const declaration = step.on ? runnableOf(step.kind) : undefined;
    return declaration ? referencedBy(declaration, step.params).map(([id]) => id) : [];
  });
