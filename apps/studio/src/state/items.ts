import {
  defaultsOf,
  type Growth,
  newGrowth,
  type ParamValue,
  READY_ITEMS,
  type ReadyItem,
  references,
  type Resolved,
  type Scene,
  type Step,
  stepOf,
  unusedName,
} from '@uvrex/core';

/** Parameters of a step that name what is copied, the first of them first. */
export const itemParamsOf = (kind: string): string[] =>
  Object.entries(stepOf(kind)?.params ?? {}).flatMap(([name, spec]) =>
    spec.type === 'growth' && spec.item ? [name] : [],
  );

/** Parameters of a new step that name another growth which it cannot do without. */
export const referencesOf = (kind: string): string[] => {
  const declaration = stepOf(kind);
  return Object.entries(declaration?.params ?? {}).flatMap(([name, spec]) =>
    spec.type === 'growth' && !spec.item && (spec.shown?.(defaultsOf(declaration!) as Resolved) ?? true) ? [name] : [],
  );
};

/** What a growth's new step copies: of the others with a skin the newest, hidden ones before those that are shown; null where there is none. */
export const itemFor = (scene: Scene, growthId: string): string | null =>
  otherFor(scene, growthId, ({ steps }) =>
    steps.some(({ on, kind }) => on && stepOf(kind)?.gives.some((given) => given === 'mesh' || given === 'copies')),
  );

/** Of the growths that a growth may refer to, and that fit, the newest, hidden ones before those that are shown; null where there is none. */
export function otherFor({ growths }: Scene, growthId: string, fits: (growth: Growth) => boolean): string | null {
  const byId = new Map(growths.map((growth) => [growth.id, growth]));
  const leadsBack = (id: string, seen = new Set<string>()): boolean => {
    if (id === growthId) return true;
    if (seen.has(id)) return false;
    seen.add(id);
    const found = byId.get(id);
    return found !== undefined && references(found).some((next) => leadsBack(next, seen));
  };
  const fit = growths.filter((growth) => fits(growth) && !leadsBack(growth.id)).reverse();
  return (fit.find(({ visible }) => !visible) ?? fit[0])?.id ?? null;
}

/** A growth to be copied, hidden itself. */
export const growthOf = (item: ReadyItem, { growths }: Scene): Growth => ({
  ...newGrowth(unusedName(item.name, new Set(growths.map(({ name }) => name))), growths.length, item.steps()),
  visible: false,
});

/** Sets what suits an item where the step has its defaults still, or what suits another ready one. */
export function suit(step: Step, item: ReadyItem): void {
  const params = stepOf(step.kind)?.params ?? {};
  const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);
  const suited = READY_ITEMS.map(({ suits }) => suits[step.kind] ?? {});
  for (const name of new Set(suited.flatMap((values) => Object.keys(values)))) {
    const given = [params[name].default, ...suited.flatMap((values) => (name in values ? [values[name]] : []))];
    if (given.some((value) => same(value, step.params[name])))
      step.params[name] = item.suits[step.kind]?.[name] ?? (params[name].default as ParamValue);
  }
}
