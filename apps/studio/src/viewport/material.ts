import {
  Color,
  type IUniform,
  type Material,
  MeshBasicMaterial,
  MeshLambertMaterial,
  MeshStandardMaterial,
  type Texture,
  type WebGLProgramParametersWithUniforms,
} from 'three';
import { PLAIN_SURFACE, type Surface } from '@uvrex/core';
import type { Rendering } from './rendering';

/**
 * The material of a growth: vertex colours, light given off where the vertex glows, and a soft rim that lets thin
 * forms stand out against the deep, as translucent edges do.
 */
export function growthMaterial(
  rendering: Rendering,
  surface: Surface | null,
  features: { colors: boolean; glow: boolean; flat?: boolean },
  hue: string,
  texture: Texture | null = null,
): Material {
  if (rendering.ghost) return ghostMaterial(rendering.ghost);
  if (features.flat) return valueMaterial();
  const { roughness, glowColor, picture } = surface ?? PLAIN_SURFACE;
  const color = features.colors ? new Color(1, 1, 1) : new Color(hue).lerp(new Color('#8a9a94'), 0.55);
  const material =
    rendering.quality === 'draft'
      ? new MeshLambertMaterial({ color, vertexColors: features.colors })
      : new MeshStandardMaterial({ color, roughness, metalness: 0, vertexColors: features.colors });
  if (texture && picture) Object.assign(material, { map: texture, alphaTest: picture.cutoff });
  const uniforms: Record<string, IUniform> = { glowColor: { value: new Color(...glowColor) } };
  material.onBeforeCompile = (shader: WebGLProgramParametersWithUniforms) => {
    Object.assign(shader.uniforms, uniforms);
    shader.vertexShader = shader.vertexShader
      .replace(
        '#include <common>',
        `#include <common>\n${features.glow ? 'attribute float glow;\n' : ''}varying float vGlow;`,
      )
      .replace('#include <begin_vertex>', `#include <begin_vertex>\nvGlow = ${features.glow ? 'glow' : '0.0'};`);
    shader.fragmentShader = shader.fragmentShader
      .replace('#include <common>', '#include <common>\nvarying float vGlow;\nuniform vec3 glowColor;')
      .replace(
        '#include <emissivemap_fragment>',
        `#include <emissivemap_fragment>
        float rim = pow(1.0 - clamp(abs(dot(normalize(normal), normalize(vViewPosition))), 0.0, 1.0), 2.6);
        totalEmissiveRadiance += diffuseColor.rgb * (0.05 + 0.65 * rim) + vGlow * glowColor;`,
      );
  };
  material.customProgramCacheKey = () => `growth:${features.glow}`;
  return material;
}

/** Colours that are read as values: as they are, only a little darker where the form turns away, so that it can be made out. */
function valueMaterial(): Material {
  const material = new MeshBasicMaterial({ vertexColors: true, toneMapped: false, fog: false });
  material.onBeforeCompile = (shader) => {
    shader.vertexShader = shader.vertexShader
      .replace('#include <common>', '#include <common>\nvarying float vFacing;')
      .replace(
        '#include <project_vertex>',
        `#include <project_vertex>
        vec3 turned = normal;
        #ifdef USE_INSTANCING
          turned = mat3(instanceMatrix) * turned;
        #endif
        vFacing = abs(dot(normalize(normalMatrix * turned), normalize(mvPosition.xyz)));`,
      );
    shader.fragmentShader = shader.fragmentShader
      .replace('#include <common>', '#include <common>\nvarying float vFacing;')
      .replace('#include <color_fragment>', '#include <color_fragment>\ndiffuseColor.rgb *= 0.72 + 0.28 * vFacing;');
  };
  material.customProgramCacheKey = () => 'values';
  return material;
}

const GHOSTS = { before: '#7fb4ff', after: '#ff8a5b', beside: '#9fb3b0' } as const;

/** What is faint is drawn in: cool before the present frame, warm after it, thin enough to see through several. */
function ghostMaterial(what: keyof typeof GHOSTS): Material {
  return new MeshLambertMaterial({
    color: GHOSTS[what],
    transparent: true,
    opacity: 0.16,
    depthWrite: false,
  });
}
