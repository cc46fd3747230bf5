import { BackSide, Color, MeshBasicMaterial, Vector2 } from 'three';

/** The layer that is outlined is drawn by itself. */
export const OUTLINE_LAYER = 3;
/** Width of the line, pixels of the page. */
const WIDTH = 2.5;

/**
 * A material that draws the outline of what is there already: its back, pushed outwards on the screen, of which only the rim
 * shows round the front.
 */
export class OutlineMaterial extends MeshBasicMaterial {
  readonly #push = { value: new Vector2() };

  constructor() {
    super({ side: BackSide, toneMapped: false, fog: false });
    this.onBeforeCompile = (shader) => {
      shader.uniforms.push = this.#push;
      shader.vertexShader = shader.vertexShader
        .replace('#include <common>', '#include <common>\nuniform vec2 push;')
        .replace(
          '#include <project_vertex>',
          `#include <project_vertex>
          vec3 out3 = normal;
          #ifdef USE_INSTANCING
            out3 = mat3(instanceMatrix) * out3;
          #endif
          vec2 out2 = (projectionMatrix * vec4(normalMatrix * out3, 0.0)).xy;
          gl_Position.xy += out2 / max(length(out2), 1e-6) * push * gl_Position.w;`,
        );
    };
    this.customProgramCacheKey = () => 'outline';
  }

  /** Fits it to a picture of so many pixels of the page. */
  fit(hue: string, width: number, height: number): void {
    this.color = new Color(hue);
    this.#push.value.set((2 * WIDTH) / width, (2 * WIDTH) / height);
  }
}
