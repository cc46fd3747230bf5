import { runnableOf } from '../scene/owners';
import type { Growth, Scene, Step } from '../scene/schema';

/**
 * A scene as it is shown while something of it changes and the whole takes long: steps from the first changed one of their growth on
 * make less, by what they declare.
 * @param before the scene as it was shown whole
 * @param slow whether a step, by its id, takes so long that it matters
 * @returns the scene with such steps made coarse; null where there are none
 */
export function draftScene(scene: Scene, before: Scene, slow: (step: string) => boolean): Scene | null {
  let any = false;
  const growths = scene.growths.map((growth) => {
    const old = before.growths.find(({ id }) => id === growth.id);
    const first = scene.seed === before.seed ? firstChanged(growth, old) : 0;
    const steps = growth.steps.map((step, k) => (k >= first && step.on && slow(step.id) ? coarse(step) : step));
    if (steps.every((step, k) => step === growth.steps[k])) return growth;
    any = true;
    return { ...growth, steps };
  });
  return any ? { ...scene, growths } : null;
}

/** Where the first step stands that is not as it was. A growth that is new is made whole. */
function firstChanged(growth: Growth, before: Growth | undefined): number {
  if (!before || growth === before) return Infinity;
  if (growth.seed !== before.seed) return 0;
  const at = growth.steps.findIndex((step, k) => step !== before.steps[k]);
  return at < 0 ? Infinity : at;
}

/** A step that makes less of what it makes; itself where it declares nothing for that, or has as little already. */
function coarse(step: Step): Step {
  const declaration = runnableOf(step.kind);
  const params = { ...step.params };
  for (const [name, factor] of Object.entries(declaration?.coarse ?? {})) {
    const spec = declaration!.params[name];
    const value = step.params[name];
    // What is animated or worked out stays: it may not be the size of what it will be.
    if (spec.type !== 'number' || typeof value !== 'number') continue;
    const next = Math.min(spec.max, Math.max(spec.min, value * factor!));
    params[name] = spec.whole ? Math.max(1, Math.round(next)) : next;
  }
  return Object.keys(params).every((name) => params[name] === step.params[name]) ? step : { ...step, params };
}
