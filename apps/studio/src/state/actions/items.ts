import {
  defaultsOf,
  type Growth,
  type GrowthParam,
  kindsGiven,
  membersOf,
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

/** Parameters of a new step that name another growth which it cannot do without; `first`: as the first step of a growth. */
export const referencesOf = (kind: string, first = false): { name: string; spec: GrowthParam }[] => {
  const declaration = stepOf(kind);
  return Object.entries(declaration?.params ?? {}).flatMap(([name, spec]) =>
    spec.type === 'growth' &&
    !spec.item &&
    (!spec.optional || (first && spec.neededFirst)) &&
    (spec.shown?.(defaultsOf(declaration!) as Resolved) ?? true)
      ? [{ name, spec }]
      : [],
  );
};

/** Whether a growth has what a parameter asks for. */
export const fitsParam = ({ fits }: GrowthParam, { steps }: Growth): boolean => {
  if (!fits) return true;
  const kinds = kindsGiven(steps);
  return fits.some((kind) => kinds.has(kind));
};

/**
 * The growth that a reference of a new step begins with: the preferred one where it fits, or else the newest that fits,
 * those that are shown before hidden ones.
 */
export function referenceFor(scene: Scene, growthId: string, spec: GrowthParam, preferred?: Growth): string | null {
  if (preferred && preferred.id !== growthId && fitsParam(spec, preferred)) return preferred.id;
  return otherFor(scene, growthId, (growth) => fitsParam(spec, growth), 'shown');
}

/** What a growth's new step copies: of the others with a skin the newest, hidden ones before those that are shown; null where there is none. */
export const itemFor = (scene: Scene, growthId: string): string | null =>
  otherFor(scene, growthId, ({ steps }) =>
    steps.some(({ on, kind }) => on && stepOf(kind)?.gives.some((given) => given === 'mesh' || given === 'copies')),
  );

/** What each growth refers to: asked after every change, and the same for all growths but the changed one. */
const referred = new WeakMap<Growth, readonly string[]>();

function referredBy(growth: Growth): readonly string[] {
  let ids = referred.get(growth);
  if (!ids) referred.set(growth, (ids = references(growth)));
  return ids;
}

/** The growths that refer to a growth or a group: that copy it, ride with it, take over its paths or its skin. */
export const usersOf = ({ growths }: Pick<Scene, 'growths'>, id: string): Growth[] =>
  growths.filter((other) => other.id !== id && referredBy(other).includes(id));

/** Whether a reference from one growth to another, or to a group, makes a circle. */
export function makesCircle(scene: Scene, from: string, to: string): boolean {
  const byId = new Map(scene.growths.map((growth) => [growth.id, growth]));
  const seen = new Set<string>();
  const leadsBack = (id: string): boolean => {
    if (id === from) return true;
    if (seen.has(id)) return false;
    seen.add(id);
    const found = byId.get(id);
    return (found ? references(found) : membersOf(scene, id).map((member) => member.id)).some(leadsBack);
  };
  return leadsBack(to);
}

/**
 * Of the growths that a growth may refer to, and that fit, the newest; null where there is none.
 * @param first which stand before the others: items to be copied are usually hidden
 */
export function otherFor(
  scene: Scene,
  growthId: string,
  fits: (growth: Growth) => boolean,
  first: 'hidden' | 'shown' = 'hidden',
): string | null {
  const fit = scene.growths.filter((growth) => fits(growth) && !makesCircle(scene, growthId, growth.id)).reverse();
  return (fit.find(({ visible }) => visible === (first === 'shown')) ?? fit[0])?.id ?? null;
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
