import type { FormKind } from '../geometry/form';
import { stepOf } from '../steps/index';
import type { Step } from './schema';

/** Kinds of geometry that a growth's steps give, of those that are on. */
export function kindsGiven(steps: readonly Step[]): Set<FormKind> {
  const kinds = new Set<FormKind>();
  for (const { on, kind } of steps) if (on) for (const given of stepOf(kind)?.gives ?? []) kinds.add(given);
  return kinds;
}
