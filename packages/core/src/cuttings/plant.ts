import { bestPlace } from '../scene/bestPlace';
import type { Scene, Step } from '../scene/schema';
import { stepOf } from '../steps/index';
import type { Planting } from './cutting';

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

/** Puts what is planted into a scene or a draft of one: steps among those of the host, growths behind it. */
export function plantIn(scene: Scene, hostId: string | null, { steps, growths }: Planting): void {
  const at = scene.growths.findIndex(({ id }) => id === hostId);
  if (at >= 0) plantSteps(scene.growths[at].steps, steps);
  scene.growths.splice(at < 0 ? scene.growths.length : at + 1, 0, ...growths);
}
