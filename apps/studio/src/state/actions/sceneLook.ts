import { baseOf, isFormula, isTrack, lookAt, type Scene, type SceneLook, sceneOwners } from '@uvrex/core';

interface Known {
  moving: boolean;
  frame: number;
  look: SceneLook;
}

const known = new WeakMap<Scene, Known>();

/** Whether anything of the scene itself has keys or a formula: light, backdrop, lens, camera, guides. */
const moves = (scene: Scene): boolean =>
  sceneOwners(scene).some(({ params }) =>
    Object.values(params).some((value) => isTrack(baseOf(value)) || isFormula(baseOf(value))),
  );

/** The scene's light, backdrop, lens, camera and guides at a frame: the same object while nothing of them changes. */
export function sceneLook(scene: Scene, frame: number): SceneLook {
  const last = known.get(scene);
  if (last && (!last.moving || last.frame === frame)) return last.look;
  const next = { moving: last?.moving ?? moves(scene), frame, look: lookAt(scene, frame) };
  known.set(scene, next);
  return next.look;
}
