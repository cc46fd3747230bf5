import type { Scene } from '../src/index';

const triple = (params: Record<string, unknown>, name: string): unknown[] =>
  ['X', 'Y', 'Z'].map((axis) => params[`${name}${axis}`]);

/** A scene as version 4 kept it: no places of growths, lens within camera and finish, guides by triples. */
export function asVersion4({ lens, camera, growths, guides, ...scene }: Scene): Record<string, unknown> {
  return JSON.parse(
    JSON.stringify({
      ...scene,
      version: 4,
      finish: { ...scene.finish, exposure: lens.exposure },
      camera: { position: triple(camera, 'position'), target: triple(camera, 'target'), fov: lens.fov },
      growths: growths.map((growth) => ({ ...growth, place: undefined })),
      guides: guides.map(({ params, ...guide }) => ({
        ...guide,
        kind: params.which,
        position: triple(params, 'position'),
        rotation: triple(params, 'turn'),
        size: triple(params, 'size'),
      })),
    }),
  ) as Record<string, unknown>;
}
