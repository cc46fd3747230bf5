import type { FormKind } from '../geometry/form';
import { stepOf } from '../steps/index';
import type { Step } from './schema';

/** Kinds of geometry that a growth's steps give, of those that are on. */
export function kindsGiven(steps: readonly Step[]): Set<FormKind> {
  const kinds = new Set<FormKind>();
  for (const { on, kind, params } of steps) {
    const declaration = on && stepOf(kind);
    if (!declaration) continue;
    for (const given of [...declaration.gives, ...(declaration.givesToo?.(params) ?? [])]) kinds.add(given);
  }
  return kinds;
}
