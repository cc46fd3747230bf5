import { attributeOf, type Growth, type Step, stepOf } from '@uvrex/core';

/**
 * The attributes that a step can go by: those that skins have by themselves, and those that the steps before it leave behind,
 * of its own growth and of the growths that these steps and it refer to.
 */
export function attributeNames(growths: readonly Growth[], growthId: string, stepId: string): string[] {
  const found = new Set<string>(['height']);
  const seen = new Set<string>();
  const collect = (id: string, end: string | null): void => {
    if (seen.has(id)) return;
    seen.add(id);
    const steps = growths.find((growth) => growth.id === id)?.steps ?? [];
    const last = end === null ? steps.length : steps.findIndex((step) => step.id === end);
    steps.slice(0, last).forEach(take);
    if (end !== null && steps[last]) others(steps[last]);
  };
  const take = (step: Step): void => {
    const declaration = stepOf(step.kind);
    if (!declaration || !step.on) return;
    for (const name of declaration.writes?.(step.params as never) ?? []) found.add(name);
    others(step);
  };
  const others = ({ kind, params }: Step): void => {
    for (const [name, spec] of Object.entries(stepOf(kind)?.params ?? {}))
      if (spec.type === 'growth' && !spec.item && typeof params[name] === 'string') collect(params[name], null);
  };
  collect(growthId, stepId);
  return [...found];
}

/** What an attribute is called where people read it. */
export const attributeLabel = (name: string): string => attributeOf(name)?.label ?? name;
