import { Problem } from '../problem';
import type { SceneValues } from '../scene/look';
import type { Guide } from '../scene/owners';
import type { Scene } from '../scene/schema';
import { SHIPPED_FILES, type ShippedId } from '../scene/shippedFiles';
import { reefWav } from '../sound/reef';
import { REEF_SOUND } from '../sound/reefName';
import type { Surroundings } from './results';

/** Before the growth whose tips a guide parameter stands for. */
export const TIP = 'tip:';

/** The guide of the scene that a guide parameter stands for, as it stands at a frame; null for the tips of a growth. */
export function guideOf(values: SceneValues, guide: string): Guide | null {
  if (guide.startsWith(TIP)) return null;
  const found = values.guide(guide.slice('guide:'.length));
  if (!found) throw new Problem('The guide that it refers to is not in this scene.', 'Choose another guide.');
  return found;
}

/** Bytes of a file: of the scene, or that comes with Uvrex. */
export async function fileBytes(scene: Scene, around: Surroundings, id: string): Promise<Uint8Array> {
  if (id === REEF_SOUND) return reefWav();
  if (id.startsWith('shipped:')) {
    const shipped = around.shipped;
    if (!shipped) throw new Problem('Files that come with Uvrex are not within reach here.', 'Load a file instead.');
    const name = id.slice('shipped:'.length);
    if (!Object.hasOwn(SHIPPED_FILES, name))
      throw new Problem(`No file “${name}” comes with this version.`, 'Choose another, or load a file.');
    return shipped(name as ShippedId);
  }
  const file = scene.files.find((entry) => entry.id === id);
  if (!file) throw new Problem('Its file is not in this scene.', 'Load the file again.');
  const bytes = await around.file?.(id);
  if (!bytes) throw new Problem(`The file “${file.name}” is not within reach here.`, 'Load the file again.');
  return bytes;
}
