import type { Form, Surface, TexturePixels } from '@uvrex/core';

/** Maximum number of cached textures. */
const MOST = 32;

/** Textures of skins, decoded before a frame is sent. */
export class SkinTextures {
  readonly #known = new Map<string, TexturePixels>();

  /** @param bytesOf the bytes of a file of the scene, or one that comes with Uvrex */
  constructor(private readonly bytesOf: (file: string) => Promise<Uint8Array>) {}

  /** Decodes the pictures that forms show. */
  async read(forms: readonly (Form | null)[]): Promise<void> {
    const surfaces = forms.flatMap((form) => [
      form?.surface,
      ...(form?.copies?.items ?? []).map((item) => item.surface),
    ]);
    for (const surface of surfaces) {
      const file = surface?.picture?.file;
      if (file === undefined || this.#known.has(file)) continue;
      const bytes = await this.bytesOf(file);
      const { readPicture, texturePixels } = await import('@uvrex/core/pictures');
      if (this.#known.size >= MOST) this.#known.clear();
      this.#known.set(file, texturePixels(readPicture(bytes)));
    }
  }

  /** The texture of a surface, once decoded. */
  of(surface: Surface | null): TexturePixels | null {
    return (surface?.picture && this.#known.get(surface.picture.file)) ?? null;
  }
}
