import { DataTexture, LinearFilter, LinearMipmapLinearFilter, RepeatWrapping, SRGBColorSpace } from 'three';
import type { TexturePixels } from '@uvrex/core';

/** Maximum number of cached textures. */
const MOST = 24;

/** LRU cache of textures, by their pixels. */
export class Textures {
  readonly #kept = new Map<Uint8Array, DataTexture>();

  of({ width, height, rgba }: TexturePixels): DataTexture {
    const texture = this.#kept.get(rgba) ?? textureOf(rgba, width, height);
    this.#kept.delete(rgba);
    this.#kept.set(rgba, texture);
    if (this.#kept.size > MOST) {
      const [[oldest, unused]] = this.#kept;
      this.#kept.delete(oldest);
      // A material that still has it uploads it again.
      unused.dispose();
    }
    return texture;
  }

  dispose(): void {
    for (const texture of this.#kept.values()) texture.dispose();
    this.#kept.clear();
  }
}

function textureOf(rgba: Uint8Array, width: number, height: number): DataTexture {
  const texture = new DataTexture(rgba as Uint8Array<ArrayBuffer>, width, height);
  texture.colorSpace = SRGBColorSpace;
  texture.wrapS = texture.wrapT = RepeatWrapping;
  texture.magFilter = LinearFilter;
  texture.minFilter = LinearMipmapLinearFilter;
  texture.generateMipmaps = true;
  texture.anisotropy = 4;
  texture.needsUpdate = true;
  return texture;
}
