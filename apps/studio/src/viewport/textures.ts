import { DataTexture, LinearFilter, LinearMipmapLinearFilter, RepeatWrapping, SRGBColorSpace } from 'three';
import type { TexturePixels } from '@uvrex/core';

/** Textures that stay with the graphics. */
const MOST = 24;

/** Textures by their pixels; the one that has not been asked for the longest is let go of first. */
export class Textures {
  readonly #kept = new Map<Uint8Array, DataTexture>();

  of({ width, height, rgba }: TexturePixels): DataTexture {
    const texture = this.#kept.get(rgba) ?? textureOf(rgba, width, height);
    this.#kept.delete(rgba);
    this.#kept.set(rgba, texture);
    if (this.#kept.size > MOST) {
      const [[oldest, unused]] = this.#kept;
      this.#kept.delete(oldest);
      // A material that has it still hands it over anew.
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
