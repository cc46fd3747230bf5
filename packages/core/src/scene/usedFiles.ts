import type { Growth, Scene, SceneFile } from './schema';

/** The files that growths refer to; those that no step names any more are left out. */
export function usedFiles(scene: Pick<Scene, 'files'>, growths: readonly Growth[]): SceneFile[] {
  const values = new Set(growths.flatMap(({ steps }) => steps.flatMap(({ params }) => Object.values(params))));
  return scene.files.filter(({ id }) => values.has(id));
}
