import {
  AdditiveBlending,
  BufferAttribute,
  BufferGeometry,
  CircleGeometry,
  Color,
  DirectionalLight,
  Fog,
  Group,
  HemisphereLight,
  Mesh,
  MeshBasicMaterial,
  MeshLambertMaterial,
  MeshStandardMaterial,
  Points,
  type Scene as ThreeScene,
  ShaderMaterial,
  Sphere,
  Vector2,
  Vector3,
} from 'three';
import { random, type SceneLook } from '@uvrex/core';
import { COPIES_LAYER } from './copySet';
import type { Rendering } from './rendering';

const MOTES = 420;
const SPREAD = 9;
const GROUND_RADIUS = 60;

/** Everything around the growths: backdrop, ground, light and drifting specks, as the scene says. */
export class Surroundings {
  readonly group = new Group();
  readonly #sky: Mesh<BufferGeometry, ShaderMaterial>;
  readonly #ground: Mesh<CircleGeometry, MeshLambertMaterial | MeshStandardMaterial>;
  /** The ground without colour: it only hides. */
  readonly #floor: Mesh<CircleGeometry, MeshBasicMaterial>;
  readonly #key = new DirectionalLight();
  readonly #back = new DirectionalLight();
  readonly #fill = new HemisphereLight();
  readonly #motes: Points<BufferGeometry, ShaderMaterial>;
  #middle = new Vector3(0, 1, 0);
  #radius = 3;
  /** Share of the range that the light on the ground is at. */
  readonly #caustics = { value: 0 };
  /** What the ground is made of in drafts, and otherwise. */
  readonly #draft = dressed(new MeshLambertMaterial(), this.#caustics);
  #soil: MeshStandardMaterial | null = null;

  constructor(readonly three: ThreeScene) {
    this.#sky = skyMesh();
    this.#ground = new Mesh(new CircleGeometry(GROUND_RADIUS, 72).rotateX(-Math.PI / 2), this.#draft);
    this.#ground.receiveShadow = true;
    this.#floor = new Mesh(this.#ground.geometry, new MeshBasicMaterial({ colorWrite: false }));
    this.#motes = motePoints();
    this.#key.castShadow = true;
    this.group.add(
      this.#sky,
      this.#ground,
      this.#key,
      this.#key.target,
      this.#back,
      this.#back.target,
      this.#fill,
      this.#motes,
    );
    // Where the rest of the copies is added to a picture, they stand in the same light, and behind the ground as before.
    for (const light of [this.#key, this.#back, this.#fill]) light.layers.enable(COPIES_LAYER);
    this.#floor.layers.set(COPIES_LAYER);
    this.#floor.renderOrder = -5;
    this.group.add(this.#floor);
    three.add(this.group);
  }

  /** Takes the scene's light and backdrop. */
  apply({ backdrop, light }: SceneLook, rendering: Rendering): void {
    const { above, below, ground, haze, motes } = backdrop;
    const [high, low] = [new Color(above), new Color(below)];
    const uniforms = this.#sky.material.uniforms;
    uniforms.above.value = high;
    uniforms.below.value = low;
    const far = haze > 0 ? 4 + 26 * (1 - haze) ** 2 : 1e6;
    this.three.fog = haze > 0 ? new Fog(low.clone().lerp(high, 0.42), far * 0.25, far) : null;

    this.#ground.visible = this.#floor.visible = ground;
    const floor = low.clone().lerp(high, 0.5);
    // Both are kept: resting and moving pictures take turns.
    if (rendering.quality === 'draft') this.#ground.material = this.#draft;
    else this.#ground.material = this.#soil ??= dressed(new MeshStandardMaterial({ roughness: 1 }), this.#caustics);
    this.#ground.material.color.copy(floor);

    const { turn, height, strength, color } = light;
    const [t, h] = [(turn * Math.PI) / 180, (height * Math.PI) / 180];
    const direction = new Vector3(Math.sin(t) * Math.cos(h), Math.sin(h), Math.cos(t) * Math.cos(h));
    const reach = 4 * this.#radius;
    this.#key.color.set(color);
    this.#key.intensity = 3.1 * strength;
    this.#key.target.position.copy(this.#middle);
    this.#key.position.copy(this.#middle).addScaledVector(direction, reach);
    this.#back.color.copy(high).lerp(new Color('#9fe8ff'), 0.55);
    this.#back.intensity = 2.2 * strength;
    this.#back.target.position.copy(this.#middle);
    this.#back.position.copy(this.#middle).add(new Vector3(-direction.x, 0.35, -direction.z).multiplyScalar(reach));
    this.#fill.color.copy(high).lerp(new Color('#ffffff'), 0.35);
    this.#fill.groundColor.copy(low).lerp(high, 0.35);
    this.#fill.intensity = 1.15 * strength;

    this.#key.castShadow = rendering.quality !== 'draft';
    const size = rendering.quality === 'fine' ? 2048 : 1024;
    const { shadow } = this.#key;
    // Drafts have no shadows, and leave theirs to the next.
    if (this.#key.castShadow && shadow.mapSize.x !== size) {
      shadow.mapSize.set(size, size);
      shadow.map?.dispose();
      shadow.map = null;
    }
    shadow.radius = 4;
    shadow.bias = -0.0006;
    shadow.normalBias = 0.01;
    const lens = shadow.camera;
    lens.left = lens.bottom = -this.#radius * 1.15;
    lens.right = lens.top = this.#radius * 1.15;
    lens.near = 0.1;
    lens.far = 2 * reach;
    lens.updateProjectionMatrix();

    this.#motes.visible = motes > 0;
    this.#motes.geometry.setDrawRange(0, Math.round(MOTES * motes));
  }

  /** Fits shadows to what there is. */
  fit(bounds: Sphere): void {
    const radius = Math.max(0.5, bounds.radius);
    this.#middle.copy(bounds.center);
    this.#radius = radius;
  }

  /** Moves the specks to where they are at this share of the range; the range's end meets its beginning. */
  drift(share: number, pixels: number): void {
    const { uniforms } = this.#motes.material;
    uniforms.share.value = share;
    uniforms.pixels.value = pixels;
    this.#sky.material.uniforms.share.value = share;
    this.#caustics.value = share;
  }

  resize(width: number, height: number): void {
    this.#sky.material.uniforms.size.value.set(width, height);
  }

  dispose(): void {
    for (const mesh of [this.#sky, this.#floor, this.#motes]) {
      mesh.geometry.dispose();
      mesh.material.dispose();
    }
    this.#draft.dispose();
    this.#soil?.dispose();
    this.#key.shadow.map?.dispose();
    this.three.remove(this.group);
  }
}

/**
 * A material that lets the ground fade into the backdrop with distance instead of ending at an edge, and lays the net of light on it
 * that waves make: two layers of ridges that drift round once over the range.
 */
function dressed<M extends MeshLambertMaterial | MeshStandardMaterial>(material: M, share: { value: number }): M {
  material.transparent = true;
  material.depthWrite = false;
  material.fog = false;
  material.onBeforeCompile = (shader) => {
    shader.uniforms.share = share;
    shader.vertexShader = shader.vertexShader
      .replace('#include <common>', '#include <common>\nvarying vec3 vPlace;')
      .replace('#include <begin_vertex>', '#include <begin_vertex>\nvPlace = position;');
    shader.fragmentShader = shader.fragmentShader
      .replace(
        '#include <common>',
        `#include <common>
        varying vec3 vPlace;
        uniform float share;
        float net(vec2 p, float turn) {
          p += 0.55 * vec2(sin(1.3 * p.y + turn), cos(1.1 * p.x - turn));
          p += 0.3 * vec2(cos(2.3 * p.y - turn + 1.0), sin(2.1 * p.x + turn));
          return pow(1.0 - min(1.0, abs(sin(p.x) + cos(p.y)) * 0.75), 4.0);
        }`,
      )
      .replace(
        '#include <color_fragment>',
        `#include <color_fragment>
        float turn = 6.2831853 * share;
        diffuseColor.rgb *= 0.82 + 1.5 * net(vPlace.xz * 2.3, turn) * 0.5 + 0.8 * net(vPlace.zx * 3.7 + 4.0, -turn) * 0.5;`,
      )
      .replace(
        '#include <dithering_fragment>',
        '#include <dithering_fragment>\ngl_FragColor.a *= pow(1.0 - smoothstep(0.0, 6.5, length(vPlace.xz)), 1.5);',
      );
  };
  return material;
}

/** A full-screen gradient with a soft light high in the middle; dithered, since deep gradients band. */
function skyMesh(): Mesh<BufferGeometry, ShaderMaterial> {
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(new Float32Array([-1, -1, 0, 3, -1, 0, -1, 3, 0]), 3));
  const material = new ShaderMaterial({
    depthTest: false,
    depthWrite: false,
    fog: false,
    toneMapped: false,
    uniforms: {
      above: { value: new Color() },
      below: { value: new Color() },
      size: { value: new Vector2(1, 1) },
      share: { value: 0 },
    },
    vertexShader:
      'varying vec2 at;\nvoid main() { at = position.xy * 0.5 + 0.5; gl_Position = vec4(position.xy, 1.0, 1.0); }',
    fragmentShader: `
      uniform vec3 above; uniform vec3 below; uniform vec2 size; uniform float share; varying vec2 at;
      float grain(vec2 p) { return fract(sin(dot(p, vec2(12.9898, 78.233))) * 43758.5453); }
      void main() {
        float aspect = size.x / size.y;
        vec2 d = (at - vec2(0.55, 0.74)) * vec2(aspect * 0.62, 1.0);
        float light = exp(-4.0 * dot(d, d));
        // Shafts of light: beams about a point above the picture, drifting once over the range.
        vec2 source = (at - vec2(0.72, 1.5)) * vec2(aspect, 1.0);
        float angle = atan(source.x, -source.y);
        float turn = 6.2831853 * share;
        float beams = sin(angle * 17.0 + sin(turn)) + sin(angle * 29.0 - 1.3 - sin(turn + 1.0)) + 0.7 * sin(angle * 47.0 + 2.1 + turn);
        beams = smoothstep(0.1, 2.6, beams) * smoothstep(0.25, 1.0, at.y) * exp(-2.2 * angle * angle);
        vec3 color = mix(below, above, 0.05 + 0.95 * light) + above * beams * 0.42;
        color += (grain(gl_FragCoord.xy) - 0.5) / 190.0;
        gl_FragColor = vec4(max(color, 0.0), 1.0);
        #include <colorspace_fragment>
      }`,
  });
  const mesh = new Mesh(geometry, material);
  mesh.frustumCulled = false;
  mesh.renderOrder = -10;
  return mesh;
}

function motePoints(): Points<BufferGeometry, ShaderMaterial> {
  const geometry = new BufferGeometry();
  const places = new Float32Array(3 * MOTES);
  const phases = new Float32Array(4 * MOTES);
  for (let i = 0; i < MOTES; i++) {
    places.set(
      [SPREAD * (random(91, i, 0) - 0.5), 0.1 + 4.2 * random(91, i, 1), SPREAD * (random(91, i, 2) - 0.5)],
      3 * i,
    );
    phases.set([random(91, i, 3), random(91, i, 4), random(91, i, 5), 0.3 + 0.7 * random(91, i, 6)], 4 * i);
  }
  geometry.setAttribute('position', new BufferAttribute(places, 3));
  geometry.setAttribute('phase', new BufferAttribute(phases, 4));
  geometry.boundingSphere = new Sphere(new Vector3(0, 2, 0), 10);
  const material = new ShaderMaterial({
    transparent: true,
    depthWrite: false,
    blending: AdditiveBlending,
    uniforms: { share: { value: 0 }, pixels: { value: 800 } },
    vertexShader: `
      uniform float share; uniform float pixels; attribute vec4 phase; varying float strength;
      void main() {
        vec3 turn = 6.2831853 * (share + phase.xyz);
        vec3 place = position + vec3(0.14 * sin(turn.x), 0.2 * sin(turn.y), 0.14 * cos(turn.z));
        vec4 seen = modelViewMatrix * vec4(place, 1.0);
        gl_Position = projectionMatrix * seen;
        gl_PointSize = clamp(pixels * 0.011 * phase.w / -seen.z, 1.0, 9.0);
        strength = phase.w * smoothstep(11.0, 3.0, -seen.z) * (0.6 + 0.4 * sin(turn.y * 2.0));
      }`,
    fragmentShader: `
      varying float strength;
      void main() {
        float r = length(gl_PointCoord - 0.5) * 2.0;
        gl_FragColor = vec4(vec3(0.62, 0.86, 0.84), 0.34 * strength * smoothstep(1.0, 0.0, r));
        #include <colorspace_fragment>
      }`,
  });
  return new Points(geometry, material);
}
