import { bestPlace, skinsPaths } from '../scene/bestPlace';
import { references } from '../scene/references';
import type { Growth, Scene, Step } from '../scene/schema';
import { stepOf } from '../steps/index';
import type { Planting } from './cutting';

/** Switches off the skins of a growth's paths, and what has no skin to work on then. */
function switchSkinOff(steps: readonly Step[]): void {
  let skin = false;
  for (const step of steps) {
    if (skinsPaths(step)) step.on = false;
    const declaration = stepOf(step.kind);
    if (!skin && declaration?.takes.includes('mesh')) step.on = false;
    skin ||= step.on && (declaration?.gives.includes('mesh') ?? false);
  }
}

/**
 * Puts planted steps among those of a host, each where it belongs. A front that is there already is the one that they go by, and
 * what is placed keeps its own effects behind it: they act on that placement alone.
 */
function plantSteps(own: Step[], steps: readonly Step[]): void {
  const places = (step: Step): boolean => stepOf(step.kind)?.gives.includes('copies') ?? false;
  const scopes = (step: Step): boolean => 'scope' in step.params;
  const block = steps.some(places);
  for (const step of steps) {
    if (step.kind === 'front' && own.some(({ kind, on }) => kind === 'front' && on)) continue;
    if (block && scopes(step)) {
      own.push({ ...step, params: { ...step.params, scope: 'last' } });
    } else if (block && stepOf(step.kind)?.family === 'place') own.push(step);
    else own.splice(bestPlace(own, step.kind), 0, step);
  }
}

/**
 * What is planted in the open, moved aside by so much. Growths that go by another one that is shown are moved with that.
 * @param by metres along X
 */
export function aside({ growths, ...rest }: Planting, by: number): Planting {
  const shown = new Set(growths.filter(({ visible }) => visible).map(({ id }) => id));
  const follows = (growth: Growth): boolean => references(growth).some((id) => id !== growth.id && shown.has(id));
  return {
    ...rest,
    growths: growths.map((growth) =>
      shown.has(growth.id) && !follows(growth) ? { ...growth, place: { ...growth.place, moveX: by } } : growth,
    ),
  };
}

/** Puts what is planted into a scene or a draft of one: steps among those of the host, growths behind it. */
export function plantIn(
  scene: Scene,
  hostId: string | null,
  { steps, growths, replacesSkin = false, changed = [] }: Planting,
): void {
  for (const growth of changed) {
    const place = scene.growths.findIndex(({ id }) => id === growth.id);
    if (place >= 0) scene.growths[place] = growth;
  }
  const at = scene.growths.findIndex(({ id }) => id === hostId);
  if (at >= 0) {
    const own = scene.growths[at].steps;
    if (replacesSkin) switchSkinOff(own);
    plantSteps(own, steps);
  }
  scene.growths.splice(at < 0 ? scene.growths.length : at + 1, 0, ...growths);
}
