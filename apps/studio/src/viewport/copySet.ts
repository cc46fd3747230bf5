import {
  type BufferGeometry,
  Group,
  InstancedBufferAttribute,
  InstancedMesh,
  type Material,
  type Points,
  type PointsMaterial,
} from 'three';
import type { Drawable } from '@uvrex/core/stand-ins';
import type { OnScreen } from '@/state/director/results';
import type { Shown } from '@/worker/protocol';
import type * as StandIns from './copySorter';
import { meshGeometry, releaseGeometry } from './geometry';
import { growthMaterial } from './material';
import type { Materials } from './materials';
import type { Rendering, Viewpoint } from './rendering';

/** Vertices of items that are not in the picture which are kept all the same: copies in time come back to them. */
const SPARE = 2_000_000;
/** Room for copies that are still to come, where some have come already. */
const SLACK = 1.125;
/** Stand-ins kept. */
const LIGHT_KEPT = 2000;

/** The camera's layer on which copies are seen, besides the common one: they alone, when a picture is completed. */
export const COPIES_LAYER = 1;

/** Makes stand-ins; loaded when first asked for: most scenes have few enough copies to be drawn as they are. */
let lightened: typeof StandIns | null = null;
let loading: Promise<void> | null = null;

const loadStandIns = (): Promise<void> =>
  (loading ??= import('./copySorter').then((module) => void (lightened = module)));

/** What an object was last given, so that the same is not handed over again. */
interface Given {
  matrices: Float32Array;
  tints: Float32Array | null;
  from: number;
  ids: Uint32Array;
}

/** Vertices and faces of all copies of an item from which lighter forms pay. */
const WORTH = 200_000;

/** Vertices and faces of a mesh. */
export const loadOf = ({ positions, indices }: Pick<Drawable, 'positions' | 'indices'>): number =>
  (positions.length + indices.length) / 3;

export type Copies = Shown['copies'][number];

/** Copies that are drawn from one mesh. */
export interface Batch {
  name: string;
  mesh: Drawable;
  copies: Omit<Copies, 'item'>;
  first: number;
  end: number;
}

/** Discs in the place of copies, and what they were made of besides where those stand. */
interface Specks {
  points: Points<BufferGeometry, PointsMaterial>;
  of: string;
  tints: Float32Array | null;
}

/**
 * The copies of a growth: an object for each item that they show, kept while other frames show other items, so that what
 * runs through its phases is handed to the graphics once.
 */
export class CopySet {
  readonly group = new Group();
  readonly #objects = new Map<string, InstancedMesh>();
  /** By the matrices that they stand for. */
  readonly #specks = new Map<Float32Array, Specks>();
  #speck: PointsMaterial | null = null;
  readonly #light = new Map<string, Drawable | null>();
  #sorter: StandIns.CopySorter | null = null;

  constructor(private readonly materials: Materials) {}

  /** Shows the copies, or the part of them that the rendering says: a fair sample, as they are dealt out evenly. */
  show({ shown, items, hue }: OnScreen, rendering: Rendering): void {
    const used = new Set<string>();
    const specks = new Set<Float32Array>();
    const { from, to } = rendering.copies ?? { from: 0, to: 1 };
    const sorted = new Set<string>();
    for (const copies of shown.copies) {
      const { item, matrices } = copies;
      const what = items.get(item);
      if (!what?.mesh || what.mesh.indices.length === 0) continue;
      const all = matrices.length / 16;
      const [first, end] = [Math.ceil(from * all), Math.ceil(to * all)];
      if (end <= first) continue;
      const whole = { name: item, mesh: what.mesh, copies, first, end };
      const heavy = rendering.viewpoint && loadOf(what.mesh) * (end - first) >= WORTH;
      if (heavy) sorted.add(item);
      const batches = heavy
        ? this.#sorted(whole, rendering.viewpoint!)
        : this.#whole(copies, what.mesh, first, end, rendering.light);
      if (!batches) {
        specks.add(matrices);
        this.#sprinkle(what, copies, hue);
        continue;
      }
      for (const batch of batches) {
        used.add(batch.name);
        this.#place(batch, what, hue, rendering);
      }
    }
    this.#sorter?.forget(sorted);
    this.#put(used);
    this.#sweep(specks);
  }

  #place({ name, mesh, copies, first, end }: Batch, what: Shown, hue: string, rendering: Rendering): void {
    const { matrices, tints, ids } = copies;
    const object = this.#object(name, mesh, end - first, tints !== null);
    object.material = this.#material(what, hue, rendering, tints !== null);
    object.castShadow = object.receiveShadow = rendering.quality !== 'draft' && !rendering.ghost;
    object.visible = true;
    const given = object.userData as Partial<Given>;
    const part = given.from === first && object.count === end - first;
    const [placed, tinted] = [part && given.matrices === matrices, part && given.tints === tints];
    Object.assign(object.userData, { matrices, tints, from: first, ids: ids.subarray(first, end) } satisfies Given);
    if (!placed) {
      (object.instanceMatrix.array as Float32Array).set(matrices.subarray(16 * first, 16 * end));
      object.instanceMatrix.needsUpdate = true;
      object.count = end - first;
      // Measured anew when a line of sight asks: copies may have moved.
      object.boundingSphere = null;
    }
    if (tints && !tinted) {
      (object.instanceColor!.array as Float32Array).set(tints.subarray(3 * first, 3 * end));
      object.instanceColor!.needsUpdate = true;
    }
  }

  /** All copies of an item in one batch; null where they are too many for anything but discs. */
  #whole(copies: Copies, mesh: Drawable, first: number, end: number, light: number | undefined): Batch[] | null {
    const drawn = this.#drawable(copies.item, mesh, light);
    if (!drawn) return null;
    const name = drawn === mesh ? copies.item : `${copies.item} light ${light}`;
    return [{ name, mesh: drawn, copies, first, end }];
  }

  /** Copies in batches by how large they are on the screen; until stand-ins can be made, all as they are. */
  #sorted(whole: Batch, viewpoint: Viewpoint): Batch[] {
    if (!lightened) {
      void loadStandIns();
      return [whole];
    }
    this.#sorter ??= new lightened.CopySorter((item, mesh, light) => this.#drawable(item, mesh, light));
    return this.#sorter.sort(whole, viewpoint);
  }

  hide(): void {
    this.#sweep(new Set());
    for (const object of this.#objects.values()) object.visible = false;
  }

  dispose(): void {
    this.#sweep(new Set());
    for (const object of this.#objects.values()) {
      releaseGeometry(object.geometry);
      object.dispose();
    }
    this.#speck?.dispose();
    this.#objects.clear();
    this.group.clear();
  }

  /** What is drawn for an item; null where it has no stand-in that is light enough. */
  #drawable(item: string, mesh: Drawable, light: number | undefined): Drawable | null {
    if (light === undefined) return mesh;
    // Until then they are drawn as they are.
    if (!lightened) {
      void loadStandIns();
      return mesh;
    }
    const name = `${item} ${light}`;
    let made = this.#light.get(name);
    if (made === undefined) {
      if (this.#light.size >= LIGHT_KEPT) this.#light.clear();
      this.#light.set(name, (made = lightened.makeLod(mesh, light)));
    }
    return made;
  }

  #sprinkle(what: Shown, copies: Copies, hue: string): void {
    const { matrices, tints } = copies;
    const of = `${copies.item} ${hue}`;
    const known = this.#specks.get(matrices);
    if (known?.of === of && known.tints === tints) return;
    if (known) this.#unsprinkle(matrices, known);
    this.#speck ??= lightened!.speckMaterial();
    const points = lightened!.specksOf(what, copies, hue, this.#speck);
    this.#specks.set(matrices, { points, of, tints });
    this.group.add(points);
  }

  #unsprinkle(matrices: Float32Array, { points }: Specks): void {
    this.group.remove(points);
    points.geometry.dispose();
    this.#specks.delete(matrices);
  }

  /** Takes away the specks of all but some copies. */
  #sweep(kept: ReadonlySet<Float32Array>): void {
    for (const [matrices, specks] of this.#specks) if (!kept.has(matrices)) this.#unsprinkle(matrices, specks);
  }

  /** An item's object, with room for so many copies: for an eighth more where there are ever more, so that it seldom changes. */
  #object(item: string, mesh: Drawable, count: number, tinted: boolean): InstancedMesh {
    const known = this.#objects.get(item);
    // The last used comes last.
    this.#objects.delete(item);
    if (known && known.instanceMatrix.count >= count && (known.instanceColor !== null) === tinted) {
      this.#objects.set(item, known);
      return known;
    }
    const room = known ? Math.ceil(count * SLACK) : count;
    const object = new InstancedMesh(known?.geometry ?? meshGeometry(mesh), undefined, room);
    if (tinted) object.instanceColor = new InstancedBufferAttribute(new Float32Array(3 * room), 3);
    // The whole growth is in the picture or not: copies are not asked one by one.
    object.frustumCulled = false;
    object.layers.enable(COPIES_LAYER);
    if (known) {
      this.group.remove(known);
      known.dispose();
    }
    this.group.add(object);
    this.#objects.set(item, object);
    return object;
  }

  /** A material for what is drawn so. Tinted copies have one of their own: one that serves both is looked up anew at every turn. */
  #material({ mesh, surface, picture }: Shown, hue: string, rendering: Rendering, tinted: boolean): Material {
    const features = { colors: mesh!.colors !== null, glow: mesh!.glow !== null, flat: mesh!.flat };
    const name = ['copies', tinted, rendering.quality === 'draft', rendering.ghost, hue, surface, features];
    return this.materials.of(name, () =>
      growthMaterial(rendering, surface, features, hue, this.materials.textureOf(picture)),
    );
  }

  #put(used: ReadonlySet<string>): void {
    let spare = 0;
    for (const [item, object] of [...this.#objects].reverse()) {
      if (used.has(item)) continue;
      object.visible = false;
      spare += object.geometry.getAttribute('position').count;
      if (spare <= SPARE) continue;
      this.group.remove(object);
      releaseGeometry(object.geometry);
      object.dispose();
      this.#objects.delete(item);
    }
  }
}
