import { create } from 'zustand';
import type { Growth, Scene } from '@uvrex/core';
import type { PictureMaker as Maker } from '@/export/pictureMaker';
import { useDocument } from '@/state/document/document';

const SIZE = { width: 96, height: 64 } as const;

/** Pictures of growths by themselves, and what they are of: what has changed since is drawn anew. */
export const useItemPictures = create<{ pictures: ReadonlyMap<string, { url: string; of: Growth }> }>(() => ({
  pictures: new Map(),
}));

/** A scene of which one growth alone is shown. */
const onlyOne = (scene: Scene, id: string): Scene => ({
  ...scene,
  groups: [],
  growths: scene.growths.map((growth) => ({ ...growth, visible: growth.id === id })),
});

let working = false;

/** Draws every growth of the scene by itself, as it has grown at the end, that has no picture yet or has changed since. */
export async function drawItems(): Promise<void> {
  if (working) return;
  working = true;
  let maker: Maker | null = null;
  try {
    const { PictureMaker } = await import('@/export/pictureMaker');
    const { scene } = useDocument.getState();
    const known = useItemPictures.getState().pictures;
    for (const growth of scene.growths) {
      if (known.get(growth.id)?.of === growth) continue;
      const one = onlyOne(scene, growth.id);
      if (maker) maker.use(one);
      else maker = new PictureMaker(one, { ...SIZE, quality: 'draft' });
      try {
        await maker.draw(scene.range[1], 'afar');
      } catch {
        // What cannot be made has no picture; its own panel says why.
        continue;
      }
      const blob = await maker.blob();
      if (blob) put(growth, URL.createObjectURL(blob));
    }
  } finally {
    maker?.dispose();
    working = false;
  }
}

function put(growth: Growth, url: string): void {
  useItemPictures.setState(({ pictures }) => {
    const before = pictures.get(growth.id);
    if (before) URL.revokeObjectURL(before.url);
    return { pictures: new Map(pictures).set(growth.id, { url, of: growth }) };
  });
}
