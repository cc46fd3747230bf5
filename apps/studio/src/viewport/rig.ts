import {
  AdditiveBlending,
  BufferAttribute,
  BufferGeometry,
  Color,
  Group,
  type Material,
  Mesh,
  type Object3D,
  type PerspectiveCamera,
  Points,
  PointsMaterial,
  Scene as ThreeScene,
  ShaderMaterial,
  Sphere,
  Vector2,
  Vector3,
  type WebGLRenderer,
} from 'three';
import { LineMaterial } from 'three/examples/jsm/lines/LineMaterial.js';
import { LineSegments2 } from 'three/examples/jsm/lines/LineSegments2.js';
import { LineSegmentsGeometry } from 'three/examples/jsm/lines/LineSegmentsGeometry.js';
import { type Scene, type Surface } from '@uvrex/core';
import { type OnScreen } from '@/state/results';
import { type Eye, type Look } from '@/state/view';
import { type Shown } from '@/worker/protocol';
import { growthMaterial } from './material';
import { type Rendering } from './rendering';
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
}

/**
 * The three.js side of a scene, the same for the viewport and for pictures that leave the product: `show` brings it to
 * a picture, changing only what differs from the last one.
 */
export class Rig {
  readonly three = new ThreeScene();
  readonly #surroundings = new Surroundings(this.three);
  readonly #entries = new Map<string, Entry>();
  readonly #bounds = new Sphere(new Vector3(0, 1, 0), 1.5);
  #last: Picture | null = null;
  #shadowsStale = true;

  show(picture: Picture): void {
    const { growths, look, overlay = false, rendering, scene } = picture;
    const ids = new Set(growths.map(({ id }) => id));
    for (const [id, entry] of this.#entries) {
      if (ids.has(id)) continue;
      this.three.remove(entry.group);
      entry.dispose();
      this.#entries.delete(id);
    }
    let changed = this.#last?.growths !== growths || this.#last.look !== look;
    for (const growth of growths) {
      let entry = this.#entries.get(growth.id);
      if (!entry) {
        entry = new Entry();
        this.three.add(entry.group);
        this.#entries.set(growth.id, entry);
        changed = true;
      }
      entry.show(growth, look, overlay, rendering);
    }
    if (changed) this.#measure();
    if (changed || this.#last?.scene !== scene || this.#last.rendering.quality !== rendering.quality) {
      this.#surroundings.fit(this.#bounds);
      this.#surroundings.apply(scene, rendering);
      this.#shadowsStale = true;
    }
    this.#last = picture;
  }

  /** Draws the picture last shown through a camera. */
  draw(renderer: WebGLRenderer, camera: PerspectiveCamera, width: number, height: number): void {
    if (!this.#last) return;
    const { scene, frame } = this.#last;
    const [first, last] = scene.range;
    renderer.toneMappingExposure = scene.finish.exposure;
    renderer.shadowMap.needsUpdate = this.#shadowsStale;
    this.#shadowsStale = false;
    this.#surroundings.resize(width, height);
    this.#surroundings.drift((frame - first) / (last - first + 1), height * renderer.getPixelRatio());
    renderer.render(this.three, camera);
  }

  /** Smallest sphere about everything that is shown, one of a metre and a half where nothing is. */
  get bounds(): Sphere {
    return this.#bounds.clone();
  }

  dispose(): void {
    for (const entry of this.#entries.values()) entry.dispose();
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
  #growth: OnScreen | null = null;
  #drawnAs = '';

  show(growth: OnScreen, look: Look, overlay: boolean, rendering: Rendering): void {
    const parts = partsOf(growth, look, overlay, rendering);
    const drawnAs = JSON.stringify([
      look,
      rendering.quality,
      growth.hue,
      growth.shown.surface,
      parts.map(({ kind }) => kind),
    ]);
    if (this.#growth === growth && this.#drawnAs === drawnAs) return;
    if (this.#drawnAs === drawnAs) {
      parts.forEach((part, i) => {
        const object = this.group.children[i] as Drawn;
        object.geometry.dispose();
        object.geometry = part.geometry();
      });
    } else {
      this.dispose();
      for (const part of parts) this.group.add(part.make(part.geometry()));
    }
    this.#growth = growth;
    this.#drawnAs = drawnAs;
  }

  sphere(): Sphere | null {
    const object = this.group.children[0] as Drawn | undefined;
    if (!object) return null;
    if (!object.geometry.boundingSphere) object.geometry.computeBoundingSphere();
    return object.geometry.boundingSphere;
  }

  dispose(): void {
    for (const object of this.group.children as Drawn[]) {
      object.geometry.dispose();
      object.material.dispose();
    }
    this.group.clear();
  }
}

type Drawn = Object3D & { geometry: BufferGeometry; material: Material };

/** One object of a growth: its geometry is made for every frame, the object around it once. */
interface DrawnPart {
  kind: string;
  geometry: () => BufferGeometry;
  make: (geometry: BufferGeometry) => Drawn;
}

function partsOf({ shown, hue }: OnScreen, look: Look, overlay: boolean, rendering: Rendering): DrawnPart[] {
  const { mesh, paths, surface } = shown;
  if (look === 'finished' && mesh) {
    if (mesh.indices.length === 0) return [];
    const features = { colors: mesh.colors !== null, glow: mesh.glow !== null };
    const skin: DrawnPart = {
      kind: `skin ${features.colors} ${features.glow}`,
      geometry: () => meshGeometry(mesh),
      make: (geometry) => {
        const object = new Mesh(geometry, growthMaterial(rendering, surface, features, hue));
        object.castShadow = object.receiveShadow = rendering.quality !== 'draft';
        return object;
      },
    };
    const parts = [skin];
    const tips = surface && tipsOf(shown);
    if (tips) {
      parts.push({
        kind: 'halos',
        geometry: () => points(tips.positions).setAttribute('strength', new BufferAttribute(tips.strengths, 1)),
        make: (geometry) => halos(geometry, surface),
      });
    }
    if (overlay && paths) {
      parts.push({
        kind: 'overlay',
        geometry: () => pathLines(paths),
        make: (geometry) => thickLines(geometry, hue, true),
      });
    }
    return parts;
  }
  if (!paths) return [];
  if (look === 'points') {
    return [{ kind: 'points', geometry: () => points(paths.positions), make: (geometry) => dots(geometry, hue) }];
  }
  return [{ kind: 'lines', geometry: () => pathLines(paths), make: (geometry) => thickLines(geometry, hue) }];
}

function meshGeometry(mesh: NonNullable<Shown['mesh']>): BufferGeometry {
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(mesh.positions, 3));
  geometry.setAttribute('normal', new BufferAttribute(mesh.normals, 3));
  if (mesh.colors) geometry.setAttribute('color', new BufferAttribute(mesh.colors, 3));
  if (mesh.glow) geometry.setAttribute('glow', new BufferAttribute(mesh.glow, 1));
  geometry.setIndex(new BufferAttribute(mesh.indices, 1));
  return geometry;
}

const points = (positions: Float32Array): BufferGeometry =>
  new BufferGeometry().setAttribute('position', new BufferAttribute(positions, 3));

/** Points of four screen pixels, however finely the picture is drawn. */
function dots(geometry: BufferGeometry, color: string): Drawn {
  const material = new PointsMaterial({ color, sizeAttenuation: false, fog: false });
  const object = new Points(geometry, material);
  object.onBeforeRender = (renderer) => {
    material.size = 4 * renderer.getPixelRatio();
  };
  return object;
}

/** Every segment of the paths as a pair of points. */
function pathLines({ positions, offsets, closed }: NonNullable<Shown['paths']>): BufferGeometry {
  const ends: number[] = [];
  const point = (i: number): void => void ends.push(positions[3 * i], positions[3 * i + 1], positions[3 * i + 2]);
  for (let p = 0; p < offsets.length - 1; p++) {
    const [a, b] = [offsets[p], offsets[p + 1]];
    for (let i = a; i < b - 1; i++) {
      point(i);
      point(i + 1);
    }
    if (closed[p] && b - a > 2) {
      point(b - 1);
      point(a);
    }
  }
  return new LineSegmentsGeometry().setPositions(ends);
}

/** Lines of two screen pixels, however finely the picture is drawn. */
function thickLines(geometry: BufferGeometry, color: string, inFront = false): Drawn {
  const material = new LineMaterial({ color, fog: false, linewidth: 2, depthTest: !inFront, transparent: inFront });
  const object = new LineSegments2(geometry as LineSegmentsGeometry, material);
  if (inFront) object.renderOrder = 10;
  return object;
}

/** The open ends of a growth's paths, with the strongest light that its skin gives off; null where nothing glows. */
function tipsOf({ paths, mesh }: Shown): { positions: Float32Array; strengths: Float32Array } | null {
  if (!paths || !mesh?.glow) return null;
  const ends: number[] = [];
  for (let p = 0; p < paths.offsets.length - 1; p++) {
    const [a, b] = [paths.offsets[p], paths.offsets[p + 1]];
    if (b - a > 1 && !paths.closed[p]) ends.push(...paths.positions.subarray(3 * b - 3, 3 * b));
  }
  const strongest = mesh.glow.reduce((top, glow) => Math.max(top, glow), 0);
  if (ends.length === 0 || strongest < 0.01) return null;
  return { positions: Float32Array.from(ends), strengths: new Float32Array(ends.length / 3).fill(strongest) };
}

/** A soft light about each tip: the glow as water scatters it. */
function halos(geometry: BufferGeometry, { glowColor, glowReach }: Surface): Drawn {
  const material = new ShaderMaterial({
    transparent: true,
    depthWrite: false,
    blending: AdditiveBlending,
    uniforms: { tint: { value: new Color(...glowColor) }, pixels: { value: 600 }, reach: { value: glowReach } },
    vertexShader: `
      uniform float pixels; uniform float reach; attribute float strength; varying float vStrength;
      void main() {
        vStrength = strength;
        vec4 seen = modelViewMatrix * vec4(position, 1.0);
        seen.xyz *= 0.985;
        gl_Position = projectionMatrix * seen;
        gl_PointSize = min(pixels * 2.6 * reach * projectionMatrix[1][1] * 0.5 / -seen.z, 900.0);
      }`,
    fragmentShader: `
      uniform vec3 tint; varying float vStrength;
      void main() {
        float r = length(gl_PointCoord - 0.5) * 2.0;
        float light = pow(max(0.0, 1.0 - r), 2.6) * 0.5 * min(vStrength, 2.0);
        gl_FragColor = vec4(tint * light, light);
        #include <colorspace_fragment>
      }`,
  });
  const object = new Points(geometry, material);
  object.onBeforeRender = (renderer) => {
    material.uniforms.pixels.value = renderer.getDrawingBufferSize(new Vector2()).y;
  };
  return object;
}
