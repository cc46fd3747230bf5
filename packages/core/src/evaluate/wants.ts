import { type Growth, isVaried, type Step } from '../scene/schema';
import { runnableOf } from '../scene/owners';
import type { Want } from '../steps/declare';
import { fixedParams } from './fixedParams';
import type { Plan } from './plan';

/** What a step wants by numbers that go by the age of what has grown, besides what its declaration says. */
export const wantsAge = (step: Step): boolean =>
  Object.values(step.params).some(
    (value) => isVaried(value) && value.vary.by === 'attribute' && value.vary.attribute === 'age',
  );

/** What the steps of a growth, and those of growths that take its paths over, want at every moment; null where that may change. */
export function standingWants(plan: Plan, growth: Growth): readonly Want[] | null {
  const wants = new Set<Want>();
  const growths = [growth];
  for (const one of growths) {
    for (const heir of plan.heirs.get(one.id) ?? []) if (!growths.includes(heir)) growths.push(heir);
    for (const step of one.steps) {
      const declaration = step.on ? runnableOf(step.kind) : undefined;
      if (!declaration) continue;
      if (wantsAge(step)) wants.add('age');
      if (!declaration.wants) continue;
      const fixed = fixedParams(declaration, step);
      if (!fixed) return null;
      for (const want of declaration.wants(fixed.params as never)) wants.add(want);
    }
  }
  return [...wants].sort();
}
