import { bestPlace } from '../scene/bestPlace';
import type { Scene } from '../scene/schema';
import type { Planting } from './cutting';

/** Puts what is planted into a scene or a draft of one: steps among those of the host, growths behind it. */
export function plantIn(scene: Scene, hostId: string | null, { steps, growths }: Planting): void {
  const at = scene.growths.findIndex(({ id }) => id === hostId);
  for (const step of at < 0 ? [] : steps) {
    const own = scene.growths[at].steps;
    own.splice(bestPlace(own, step.kind), 0, step);
  }
  scene.growths.splice(at < 0 ? scene.growths.length : at + 1, 0, ...growths);
}
