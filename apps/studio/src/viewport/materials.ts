import type { Material, Texture } from 'three';
import type { TexturePixels } from '@uvrex/core';
import { Textures } from './textures';

/** Materials that are kept: far more than a scene draws with, and each is small. */
const MOST = 2000;

/**
 * Materials by what they are for, kept while others take turns: a program of the graphics lasts as long as a material that is drawn
 * by it, and to make one holds everything up. Resting pictures and moving ones are drawn by different ones, and a colour that is
 * dragged by one for each of its values.
 */
export class Materials {
  readonly #kept = new Map<string, Material>();
  readonly #textures = new Textures();

  /** The material of a name, made where there is none. @param name all that it hangs on */
  of<M extends Material>(name: readonly unknown[], make: () => M): M {
    const key = JSON.stringify(name);
    const material = (this.#kept.get(key) as M | undefined) ?? make();
    // The last used comes last.
    this.#kept.delete(key);
    this.#kept.set(key, material);
    if (this.#kept.size > MOST) {
      const [[oldest, unused]] = this.#kept;
      this.#kept.delete(oldest);
      unused.dispose();
    }
    return material;
  }

  /** The texture of a picture; null without one. */
  textureOf(picture: TexturePixels | null): Texture | null {
    return picture && this.#textures.of(picture);
  }

  dispose(): void {
    this.#textures.dispose();
    for (const material of this.#kept.values()) material.dispose();
    this.#kept.clear();
  }
}
