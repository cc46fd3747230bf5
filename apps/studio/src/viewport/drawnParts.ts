import {
  AdditiveBlending,
  BufferAttribute,
  BufferGeometry,
  Color,
  type Material,
  Mesh,
  type Object3D,
  Points,
  PointsMaterial,
  ShaderMaterial,
  Vector2,
} from 'three';
import { LineMaterial } from 'three/examples/jsm/lines/LineMaterial.js';
import { LineSegments2 } from 'three/examples/jsm/lines/LineSegments2.js';
import { LineSegmentsGeometry } from 'three/examples/jsm/lines/LineSegmentsGeometry.js';
import type { Surface } from '@uvrex/core';
import type { OnScreen } from '@/state/director/results';
import type { Look } from '@/state/document/view';
import type { Shown } from '@/worker/protocol';
import { meshGeometry } from './geometry';
import { growthMaterial } from './material';
import type { Materials } from './materials';
import type { Rendering } from './rendering';

/** What the parts of a growth are drawn as. */
export type Drawn = Object3D & { geometry: BufferGeometry; material: Material };

/** One object of a growth: its geometry is made for every frame, the object around it once. */
interface DrawnPart {
  kind: string;
  geometry: () => BufferGeometry;
  make: (geometry: BufferGeometry) => Drawn;
}

/** The parts of a growth as it is looked at: its skin, the light of its tips, its lines or its points. */
export function partsOf(
  growth: OnScreen,
  look: Look,
  overlay: boolean,
  rendering: Rendering,
  materials: Materials,
): DrawnPart[] {
  const { mesh, paths, surface, picture, dots: loose, copies, pointColors } = growth.shown;
  const { hue } = growth;
  if (look === 'finished' && mesh && mesh.indices.length > 0) {
    const features = { colors: mesh.colors !== null, glow: mesh.glow !== null, flat: mesh.flat };
    const skin: DrawnPart = {
      kind: `skin ${features.colors} ${features.glow} ${features.flat} ${!!mesh.uvs}`,
      geometry: () => meshGeometry(mesh),
      make: (geometry) => {
        const name = ['skin', rendering.quality === 'draft', rendering.ghost, hue, surface, features];
        const object = new Mesh(
          geometry,
          materials.of(name, () => growthMaterial(rendering, surface, features, hue, materials.textureOf(picture))),
        );
        object.castShadow = object.receiveShadow = rendering.quality !== 'draft' && !rendering.ghost && !mesh.flat;
        return object;
      },
    };
    const parts = [skin];
    const { tips } = growth.shown;
    if (tips && surface && !rendering.ghost && !mesh.flat) {
      parts.push({
        kind: 'halos',
        geometry: () => points(tips.positions).setAttribute('strength', new BufferAttribute(tips.strengths, 1)),
        make: (geometry) => halos(geometry, surface, materials),
      });
    }
    if ((overlay || pointColors) && paths) {
      parts.push({
        kind: `overlay ${!!pointColors}`,
        geometry: () => pathLines(paths, pointColors),
        make: (geometry) => thickLines(geometry, hue, materials, true),
      });
    }
    return parts;
  }
  const dotted = (positions: Float32Array): DrawnPart => ({
    kind: `points ${!!pointColors}`,
    geometry: () => {
      const geometry = points(positions);
      return pointColors ? geometry.setAttribute('color', new BufferAttribute(pointColors, 3)) : geometry;
    },
    make: (geometry) => dots(geometry, hue, materials),
  });
  if (look === 'finished' && copies.length > 0) return [];
  if (loose) return [dotted(loose)];
  if (!paths) return [];
  if (look === 'points') return [dotted(paths.positions)];
  const kind = `lines ${!!pointColors}`;
  return [
    { kind, geometry: () => pathLines(paths, pointColors), make: (geometry) => thickLines(geometry, hue, materials) },
  ];
}

const points = (positions: Float32Array): BufferGeometry =>
  new BufferGeometry().setAttribute('position', new BufferAttribute(positions, 3));

/** Discs of five screen pixels, however finely the picture is drawn. */
function dots(geometry: BufferGeometry, color: string, materials: Materials): Drawn {
  const coloured = geometry.hasAttribute('color');
  const made = () =>
    new PointsMaterial({
      color: coloured ? '#ffffff' : color,
      vertexColors: coloured,
      toneMapped: !coloured,
      sizeAttenuation: false,
      fog: false,
    });
  const material = materials.of(['dots', coloured || color], () => round(made()));
  const object = new Points(geometry, material);
  object.onBeforeRender = (renderer) => {
    material.size = 5 * renderer.getPixelRatio();
  };
  return object;
}

/** Points are drawn as squares: what lies outside of the disc is left out. */
function round(material: PointsMaterial): PointsMaterial {
  material.onBeforeCompile = (shader) => {
    shader.fragmentShader = shader.fragmentShader.replace(
      '#include <color_fragment>',
      '#include <color_fragment>\nif (length(gl_PointCoord - 0.5) > 0.5) discard;',
    );
  };
  return material;
}

/** Every segment of the paths as a pair of points. */
function pathLines(
  { positions, offsets, closed }: NonNullable<Shown['paths']>,
  colors: Float32Array | undefined,
): BufferGeometry {
  const ends: number[] = [];
  const own: number[] = [];
  const point = (i: number): void => {
    ends.push(positions[3 * i], positions[3 * i + 1], positions[3 * i + 2]);
    if (colors) own.push(colors[3 * i], colors[3 * i + 1], colors[3 * i + 2]);
  };
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
  const geometry = new LineSegmentsGeometry().setPositions(ends);
  return colors ? geometry.setColors(own) : geometry;
}

/** Lines of two screen pixels, however finely the picture is drawn. */
function thickLines(geometry: BufferGeometry, color: string, materials: Materials, inFront = false): Drawn {
  const coloured = geometry.hasAttribute('instanceColorStart');
  const made = () =>
    new LineMaterial({
      color: coloured ? '#ffffff' : color,
      vertexColors: coloured,
      toneMapped: !coloured,
      fog: false,
      linewidth: coloured ? 3 : 2,
      depthTest: !inFront,
      transparent: inFront,
    });
  const material = materials.of(['lines', coloured || color, inFront], made);
  const object = new LineSegments2(geometry as LineSegmentsGeometry, material);
  if (inFront) object.renderOrder = 10;
  return object;
}

/** A soft light about each tip: the glow as water scatters it. */
function halos(geometry: BufferGeometry, { glowColor, glowReach }: Surface, materials: Materials): Drawn {
  const made = () =>
    new ShaderMaterial({
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
  const material = materials.of(['halos', glowColor, glowReach], made);
  const object = new Points(geometry, material);
  object.onBeforeRender = (renderer) => {
    material.uniforms.pixels.value = renderer.getDrawingBufferSize(new Vector2()).y;
  };
  return object;
}
