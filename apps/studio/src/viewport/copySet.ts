import { Group, InstancedBufferAttribute, InstancedMesh, type Material } from 'three';
import { type OnScreen } from '@/state/results';
import { type Shown } from '@/worker/protocol';
import { meshGeometry } from './geometry';
import { growthMaterial } from './material';
import { type Rendering } from './rendering';

/** Vertices of items that are not in the picture which are kept all the same: copies in time come back to them. */
const SPARE = 2_000_000;

/**
 * The copies of a growth: an object for each item that they show, kept while other frames show other items, so that what
 * runs through its phases is handed to the graphics once.
 */
export class CopySet {
  readonly group = new Group();
  readonly #objects = new Map<string, InstancedMesh>();
  readonly #materials = new Map<string, Material>();
  #look = '';

  show({ shown, items, hue }: OnScreen, rendering: Rendering): void {
    const look = `${rendering.quality} ${rendering.ghost} ${hue}`;
    if (look !== this.#look) this.dispose();
    this.#look = look;
    const used = new Set<string>();
    for (const { item, matrices, tints, ids } of shown.copies) {
      const what = items.get(item);
      if (!what?.mesh || what.mesh.indices.length === 0) continue;
      used.add(item);
      const object = this.#object(item, what, matrices.length / 16, tints !== null, hue, rendering);
      (object.instanceMatrix.array as Float32Array).set(matrices);
      object.instanceMatrix.needsUpdate = true;
      if (tints) {
        (object.instanceColor!.array as Float32Array).set(tints);
        object.instanceColor!.needsUpdate = true;
      }
      object.count = matrices.length / 16;
      object.visible = true;
      object.userData.ids = ids;
      // Measured anew when a line of sight asks: copies may have moved.
      object.boundingSphere = null;
    }
    this.#put(used);
  }

  hide(): void {
    for (const object of this.#objects.values()) object.visible = false;
  }

  dispose(): void {
    for (const object of this.#objects.values()) {
      object.geometry.dispose();
      object.dispose();
    }
    for (const material of this.#materials.values()) material.dispose();
    this.#objects.clear();
    this.#materials.clear();
    this.group.clear();
  }

  /** An item's object, with room for so many copies: made in doubling steps, so that it seldom changes. */
  #object(
    item: string,
    { mesh, surface }: Shown,
    count: number,
    tinted: boolean,
    hue: string,
    rendering: Rendering,
  ): InstancedMesh {
    const known = this.#objects.get(item);
    if (known && known.instanceMatrix.count >= count && (known.instanceColor !== null) === tinted) {
      // The last used comes last.
      this.#objects.delete(item);
      this.#objects.set(item, known);
      return known;
    }
    const room = 2 ** Math.ceil(Math.log2(Math.max(1, count)));
    const features = { colors: mesh!.colors !== null, glow: mesh!.glow !== null };
    const name = JSON.stringify([surface, features]);
    let material = this.#materials.get(name);
    if (!material) this.#materials.set(name, (material = growthMaterial(rendering, surface, features, hue)));
    const object = new InstancedMesh(known?.geometry ?? meshGeometry(mesh!), material, room);
    if (tinted) object.instanceColor = new InstancedBufferAttribute(new Float32Array(3 * room), 3);
    object.castShadow = object.receiveShadow = rendering.quality !== 'draft' && !rendering.ghost;
    // The whole growth is in the picture or not: copies are not asked one by one.
    object.frustumCulled = false;
    if (known) {
      this.group.remove(known);
      known.dispose();
    }
    this.group.add(object);
    this.#objects.set(item, object);
    return object;
  }

  #put(used: ReadonlySet<string>): void {
    let spare = 0;
    for (const [item, object] of [...this.#objects].reverse()) {
      if (used.has(item)) continue;
      object.visible = false;
      spare += object.geometry.getAttribute('position').count;
      if (spare <= SPARE) continue;
      this.group.remove(object);
      object.geometry.dispose();
      object.dispose();
      this.#objects.delete(item);
    }
  }
}
