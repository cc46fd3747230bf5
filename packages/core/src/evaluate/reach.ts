import { tipsOf } from '../curves/tips';
import { type Form } from '../geometry/form';
import { type Vec3 } from '../geometry/vec';
import { Problem } from '../problem';
import { base64Bytes } from '../scene/bytes';
import { type Asset, type Guide, type Scene } from '../scene/schema';
import { REEF_SOUND, reefWav } from '../sound/reef';
import { type Resolved, type StepDeclaration } from '../steps/declare';
import { type GrowthResult, type Surroundings } from './results';

/** What another growth has made, for a step that refers to it. */
export function otherForm(others: ReadonlyMap<string, GrowthResult>, id: string): Form {
  const other = others.get(id);
  if (!other) throw new Problem('The growth that it refers to is not in this scene.', 'Choose another growth.');
  if (!other.form) throw new Problem('The growth that it refers to has a problem of its own.', 'Mend that one first.');
  return other.form;
}

/** Before the growth whose tips a guide parameter stands for. */
const TIP = 'tip:';

/** The guides that a step refers to, as they stand in the scene. */
export const guidesOf = (declaration: StepDeclaration, params: Resolved, scene: Scene): unknown[] =>
  Object.entries(declaration.params).flatMap(([name, spec]) =>
    spec.type === 'guide' ? (scene.guides.find(({ id }) => `guide:${id}` === params[name]) ?? []) : [],
  );

/** Decoded files, by the entry that holds them: a file is read at many frames. */
const decoded = new WeakMap<Asset, Uint8Array>();

function bytesOfAsset(asset: Asset): Uint8Array {
  let bytes = decoded.get(asset);
  if (!bytes) decoded.set(asset, (bytes = base64Bytes(asset.data)));
  return bytes;
}

/** The guide of the scene that a guide parameter stands for; null for the tips of a growth. */
export function guideOf(scene: Scene, guide: string): Guide | null {
  if (guide.startsWith(TIP)) return null;
  const found = scene.guides.find(({ id }) => guide === `guide:${id}`);
  if (!found) throw new Problem('The guide that it refers to is not in this scene.', 'Choose another guide.');
  return found;
}

/** Where the tips stand that a guide parameter stands for, one a path. */
export function tipPlaces(others: ReadonlyMap<string, GrowthResult>, guide: string): Vec3[] {
  const { paths } = otherForm(others, guide.slice(TIP.length));
  return paths ? tipsOf(paths).map(({ position }) => position) : [];
}

/** Bytes of a file: of the scene, or that comes with Uvrex. */
export async function assetBytes(scene: Scene, around: Surroundings, id: string): Promise<Uint8Array> {
  if (id === REEF_SOUND) return reefWav();
  if (id.startsWith('shipped:')) {
    const shipped = around.shipped;
    if (!shipped) throw new Problem('Files that come with Uvrex are not within reach here.', 'Load a file instead.');
    return shipped(id.slice('shipped:'.length));
  }
  const asset = scene.assets.find((entry) => entry.id === id);
  if (!asset) throw new Problem('Its file is not in this scene.', 'Load the file again.');
  return bytesOfAsset(asset);
}
