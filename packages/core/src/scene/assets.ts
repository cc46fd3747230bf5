import { type Asset, type Growth, type Scene } from './schema';

/** The files that growths refer to; those that no step names any more are left out. */
export function usedAssets(scene: Pick<Scene, 'assets'>, growths: readonly Growth[]): Asset[] {
  const values = new Set(growths.flatMap(({ steps }) => steps.flatMap(({ params }) => Object.values(params))));
  return scene.assets.filter(({ id }) => values.has(id));
}
