import type { Hit } from '@/state/director/projection';
import {
  Group,
  InstancedMesh,
  type Material,
  Matrix4,
  Mesh,
  type Object3D,
  type PerspectiveCamera,
  type Raycaster,
  Scene as ThreeScene,
  Sphere,
  Vector3,
  type WebGLRenderer,
} from 'three';
import { LineSegments2 } from 'three/examples/jsm/lines/LineSegments2.js';
import type { Scene, SceneLook, TrailTarget } from '@uvrex/core';
import type { OnScreen } from '@/state/director/results';
import { sceneLook } from '@/state/actions/sceneLook';
import type { Eye, Look } from '@/state/document/view';
import { COPIES_LAYER, CopySet } from './copySet';
import { type Drawn, partsOf } from './drawnParts';
import { releaseGeometry } from './geometry';
import { Materials } from './materials';
import { OUTLINE_LAYER } from './outline';
import type { Rendering } from './rendering';
import { Surroundings } from './surroundings';

/** What a picture shows. */
export interface Picture {
  scene: Scene;
  frame: number;
  growths: readonly OnScreen[];
  look: Look;
  /** Draws the paths over the skins. */
  overlay?: boolean;
  rendering: Rendering;
  /** Ids of the growths that are drawn as ever, all others faintly; null for all. */
  alone?: readonly string[] | null;
  /** Other frames, drawn faintly. */
  ghosts?: readonly { growths: readonly OnScreen[]; when: 'before' | 'after' }[];
}

/**
 * The three.js side of a scene, the same for the viewport and for pictures that leave the product: `show` brings it to
 * a picture, changing only what differs from the last one.
 */
export class Rig {
  readonly three = new ThreeScene();
  readonly #surroundings = new Surroundings(this.three);
  readonly #materials = new Materials();
  readonly #entries = new Map<string, Entry>();
  readonly #bounds = new Sphere(new Vector3(0, 1, 0), 1.5);
  #last: Picture | null = null;
  /** The scene's own look in the last picture. */
  #lit: SceneLook | null = null;
  #shadowsStale = true;

  show(picture: Picture): void {
    const { growths, look, overlay = false, rendering, scene, ghosts = [], alone = null } = picture;
    const faint: Rendering = { ...rendering, ghost: 'beside' };
    const shown = [
      ...growths.map((growth) => ({
        name: growth.id,
        growth,
        rendering: alone === null || alone.includes(growth.id) ? rendering : faint,
      })),
      ...ghosts.flatMap(({ growths: others, when }, i) =>
        others.map((growth) => ({ name: `${growth.id} ${i}`, growth, rendering: { ...rendering, ghost: when } })),
      ),
    ];
    const ids = new Set(shown.map(({ name }) => name));
    for (const [id, entry] of this.#entries) {
      if (ids.has(id)) continue;
      this.three.remove(entry.group);
      entry.dispose();
      this.#entries.delete(id);
    }
    let changed =
      this.#last?.growths !== growths || this.#last.look !== look || String(this.#last.alone) !== String(picture.alone);
    for (const { name, growth, rendering: way } of shown) {
      let entry = this.#entries.get(name);
      if (!entry) {
        entry = new Entry(this.#materials);
        this.three.add(entry.group);
        this.#entries.set(name, entry);
        changed = true;
      }
      entry.show(growth, look, overlay && !way.ghost, way);
    }
    if (changed) this.#measure();
    const surroundings = sceneLook(scene, picture.frame);
    if (changed || this.#lit !== surroundings || this.#last?.rendering.quality !== rendering.quality) {
      this.#surroundings.fit(this.#bounds);
      this.#surroundings.apply(surroundings, rendering);
      this.#shadowsStale = true;
    }
    this.#lit = surroundings;
    this.#last = picture;
  }

  /** Draws the picture last shown through a camera. */
  draw(renderer: WebGLRenderer, camera: PerspectiveCamera, width: number, height: number): void {
    if (!this.#last || !this.#lit) return;
    const { scene, frame } = this.#last;
    const [first, last] = scene.range;
    renderer.toneMappingExposure = this.#lit.lens.exposure;
    renderer.shadowMap.needsUpdate = this.#shadowsStale;
    this.#shadowsStale = false;
    this.#surroundings.resize(width, height);
    this.#surroundings.drift((frame - first) / (last - first + 1), height * renderer.getPixelRatio());
    renderer.render(this.three, camera);
  }

  /** Draws another part of the copies into the picture that was drawn last. */
  add(renderer: WebGLRenderer, camera: PerspectiveCamera, part: { from: number; to: number }): void {
    for (const entry of this.#entries.values()) entry.showCopies(part);
    const seen = camera.layers.mask;
    camera.layers.set(COPIES_LAYER);
    renderer.autoClear = false;
    renderer.render(this.three, camera);
    renderer.autoClear = true;
    camera.layers.mask = seen;
  }

  /** Draws the outline of a growth's skin and copies into the picture that was drawn last. @returns whether it has any */
  outline(renderer: WebGLRenderer, camera: PerspectiveCamera, growth: string, material: Material): boolean {
    const entry = this.#entries.get(growth);
    const skins: Object3D[] = [];
    entry?.group.traverseVisible((object) => {
      if (object instanceof Mesh && !(object instanceof LineSegments2)) skins.push(object);
    });
    if (skins.length === 0) return false;
    const seen = camera.layers.mask;
    for (const skin of skins) skin.layers.enable(OUTLINE_LAYER);
    camera.layers.set(OUTLINE_LAYER);
    this.three.overrideMaterial = material;
    renderer.autoClear = false;
    renderer.render(this.three, camera);
    renderer.autoClear = true;
    this.three.overrideMaterial = null;
    camera.layers.mask = seen;
    for (const skin of skins) skin.layers.disable(OUTLINE_LAYER);
    return true;
  }

  /** Smallest sphere about everything that is shown, one of a metre and a half where nothing is. */
  get bounds(): Sphere {
    return this.#bounds.clone();
  }

  /** The sphere round one growth as it is shown; null where nothing of it is. */
  boundsOf(growth: string): Sphere | null {
    return this.#entries.get(growth)?.sphere()?.clone() ?? null;
  }

  /** The colours of a growth's skin have been changed in place: they are handed to the graphics again. */
  recoloured(growth: string): void {
    this.#entries.get(growth)?.recoloured();
  }

  /** What a line of sight meets first; null where it meets no skin. */
  hit(ray: Raycaster): Hit | null {
    const skins = new Map<Object3D, Entry>();
    for (const entry of this.#entries.values()) {
      if (entry.ghost) continue;
      // A picture may show a part of them only, and be made up of several.
      entry.showCopies();
      entry.group.traverseVisible((object) => {
        // Thick lines are meshes too, and no skin.
        if (object instanceof Mesh && !(object instanceof LineSegments2)) skins.set(object, entry);
      });
    }
    const [nearest] = ray.intersectObjects([...skins.keys()], false);
    if (!nearest) return null;
    const { point, object, instanceId } = nearest;
    const entry = skins.get(object)!;
    return {
      place: [point.x, point.y, point.z],
      growth: entry.growth,
      target: entry.targetAt(object, point, instanceId),
    };
  }

  dispose(): void {
    for (const entry of this.#entries.values()) entry.dispose();
    this.#materials.dispose();
    this.#surroundings.dispose();
  }

  #measure(): void {
    const spheres = [...this.#entries.values()].flatMap((entry) => entry.sphere() ?? []);
    if (spheres.length === 0) this.#bounds.set(new Vector3(0, 1, 0), 1.5);
    else {
      this.#bounds.copy(spheres[0]);
      for (const sphere of spheres.slice(1)) this.#bounds.union(sphere);
    }
  }
}

/** Puts a camera where an eye is. */
export function aim(camera: PerspectiveCamera, eye: Eye, fov: number, aspect: number): void {
  camera.position.set(...eye.position);
  camera.up.set(0, 1, 0);
  camera.lookAt(...eye.target);
  camera.fov = fov;
  camera.aspect = aspect;
  camera.near = 0.01;
  camera.far = 400;
  camera.updateProjectionMatrix();
}

/** One growth's objects: kept from frame to frame, only their geometry changes while the way of drawing is the same. */
class Entry {
  readonly group = new Group();
  readonly #parts = new Group();
  readonly #copies: CopySet;
  #growth: OnScreen | null = null;

  get growth(): string {
    return this.#growth?.id ?? '';
  }
  #shape = '';
  #drawnAs = '';
  #rendering: Rendering = { quality: 'draft' };
  #copied = false;
  #ghost = false;

  constructor(private readonly materials: Materials) {
    this.#copies = new CopySet(materials);
    this.group.add(this.#parts, this.#copies.group);
  }

  show(growth: OnScreen, look: Look, overlay: boolean, rendering: Rendering): void {
    this.#ghost = rendering.ghost !== undefined;
    this.#rendering = rendering;
    this.#copied = look === 'finished';
    if (this.#copied) this.#copies.show(growth, rendering);
    else this.#copies.hide();
    const parts = partsOf(growth, look, overlay, rendering, this.materials);
    const shape = JSON.stringify([look, rendering.ghost, parts.map(({ kind }) => kind)]);
    const drawnAs = JSON.stringify([shape, rendering.quality, growth.hue, growth.shown.surface]);
    const [same, kept] = [this.#growth === growth, this.#shape === shape];
    if (same && this.#drawnAs === drawnAs) return;
    const objects = [...this.#parts.children] as Drawn[];
    if (this.#drawnAs === drawnAs) {
      parts.forEach((part, i) => {
        // The next one first: what both have in common stays with the graphics.
        const before = objects[i].geometry;
        objects[i].geometry = part.geometry();
        releaseGeometry(before);
      });
    } else {
      // Drawn in another way, what has been handed to the graphics can stay there.
      const geometries = same && kept ? objects.map(({ geometry }) => geometry) : null;
      this.#clear(geometries === null);
      parts.forEach((part, i) => this.#parts.add(part.make(geometries?.[i] ?? part.geometry())));
    }
    this.#growth = growth;
    this.#shape = shape;
    this.#drawnAs = drawnAs;
  }

  /** Hands the skin's colours to the graphics again. */
  recoloured(): void {
    for (const object of this.#parts.children as Drawn[]) {
      const colors = object.geometry.getAttribute('color');
      if (colors) colors.needsUpdate = true;
    }
  }

  /** Shows another part of the copies, or all of them. */
  showCopies(part?: { from: number; to: number }): void {
    if (this.#growth && this.#copied) this.#copies.show(this.#growth, { ...this.#rendering, copies: part });
  }

  /** Whether it is another frame's. */
  get ghost(): boolean {
    return this.#ghost;
  }

  /** The point of an object of this growth as it can be followed. */
  targetAt(object: Object3D, place: Vector3, instance: number | undefined): TrailTarget | null {
    const growth = this.#growth;
    if (!growth) return null;
    if (object instanceof InstancedMesh && instance !== undefined) {
      const matrix = new Matrix4();
      object.getMatrixAt(instance, matrix);
      const { x, y, z } = place.clone().applyMatrix4(matrix.invert());
      const copy = (object.userData.ids as Uint32Array)[instance];
      return { growth: growth.id, of: 'copy', copy, local: [x, y, z] };
    }
    const { paths } = growth.shown;
    if (!paths) return null;
    let [best, near] = [-1, Infinity];
    for (let i = 0; i < paths.u.length; i++) {
      const away = place.distanceToSquared(new Vector3(...paths.positions.subarray(3 * i, 3 * i + 3)));
      if (away < near) [best, near] = [i, away];
    }
    const path = paths.offsets.findIndex((offset) => offset > best) - 1;
    return best < 0 ? null : { growth: growth.id, of: 'path', path: paths.ids[path], u: paths.u[best] };
  }

  sphere(): Sphere | null {
    if (this.#ghost) return null;
    const spheres: Sphere[] = [];
    // What is drawn besides the skin lies on it.
    const [first] = this.#parts.children as Drawn[];
    if (first) {
      if (!first.geometry.boundingSphere) first.geometry.computeBoundingSphere();
      if (first.geometry.boundingSphere) spheres.push(first.geometry.boundingSphere.clone());
    }
    const around = this.#growth?.shown.copiesBall;
    if (around) spheres.push(new Sphere(new Vector3(...around.centre), around.radius));
    const solid = spheres.filter(({ radius }) => radius >= 0);
    return solid.length > 0 ? solid.reduce((whole, sphere) => whole.union(sphere)) : null;
  }

  dispose(): void {
    this.#clear();
    this.#copies.dispose();
  }

  #clear(geometries = true): void {
    if (geometries) for (const object of this.#parts.children as Drawn[]) releaseGeometry(object.geometry);
    this.#parts.clear();
  }
}
