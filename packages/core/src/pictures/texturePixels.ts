import type { Picture } from './readPicture';

/** RGBA texture, 8 bits a channel, rows from the bottom. */
export interface TexturePixels {
  width: number;
  height: number;
  rgba: Uint8Array;
}

/** A mip level: RGBA with premultiplied alpha, 0..1. */
interface Level {
  width: number;
  height: number;
  rgba: Float32Array;
}

/** Cache of textures, by picture. */
const known = new WeakMap<Picture, TexturePixels>();

/** Maximum of a texture's longer side, pixels. */
export const TEXTURE_SIDE = 2048;

/**
 * Converts a picture to a texture: downsampled to the maximum size, with colours bled into transparent pixels so that filtering leaves no
 * dark fringe.
 */
export function texturePixels(picture: Picture): TexturePixels {
  let made = known.get(picture);
  if (!made) known.set(picture, (made = makePixels(picture)));
  return made;
}

function makePixels(picture: Picture): TexturePixels {
  const level = downsampled(picture);
  const colors = bledColors(level);
  const out = new Uint8Array(level.rgba.length);
  const row = 4 * level.width;
  for (let i = 0; i < out.length; i += 4) {
    const to = (level.height - 1 - Math.floor(i / row)) * row + (i % row);
    for (let c = 0; c < 3; c++) out[to + c] = Math.round(255 * colors[(3 * i) / 4 + c]);
    out[to + 3] = Math.round(255 * level.rgba[i + 3]);
  }
  return { width: level.width, height: level.height, rgba: out };
}

/** Box-filters a picture down to the maximum texture size, straight from its integers: a copy of all of it in floats could be huge. */
function downsampled({ width, height, rgba, most }: Picture): Level {
  let block = 1;
  while (Math.ceil(Math.max(width, height) / block) > TEXTURE_SIDE) block *= 2;
  const [wide, high] = [Math.ceil(width / block), Math.ceil(height / block)];
  const out = new Float32Array(4 * wide * high);
  for (let row = 0; row < high; row++)
    for (let column = 0; column < wide; column++) {
      const [right, below] = [Math.min(width, (column + 1) * block), Math.min(height, (row + 1) * block)];
      const to = 4 * (row * wide + column);
      const share = 1 / ((right - column * block) * (below - row * block));
      for (let y = row * block; y < below; y++)
        for (let x = column * block; x < right; x++) {
          const at = 4 * (y * width + x);
          const opaque = (share * rgba[at + 3]) / most;
          for (let c = 0; c < 3; c++) out[to + c] += (rgba[at + c] / most) * opaque;
          out[to + 3] += opaque;
        }
    }
  return { width: wide, height: high, rgba: out };
}

/** The next coarser mip level: the mean of 2 × 2 pixels. */
function halved({ width, height, rgba }: Level): Level {
  const [wide, high] = [Math.ceil(width / 2), Math.ceil(height / 2)];
  const out = new Float32Array(4 * wide * high);
  for (let y = 0; y < high; y++)
    for (let x = 0; x < wide; x++) {
      const [x1, y1] = [Math.min(width - 1, 2 * x + 1), Math.min(height - 1, 2 * y + 1)];
      const corners = [2 * y * width + 2 * x, 2 * y * width + x1, y1 * width + 2 * x, y1 * width + x1];
      for (let c = 0; c < 4; c++)
        out[4 * (y * wide + x) + c] = corners.reduce((sum, k) => sum + rgba[4 * k + c], 0) / 4;
    }
  return { width: wide, height: high, rgba: out };
}

/** RGB of all pixels, 0..1; transparent ones take theirs from the next coarser level (pull-push: Gortler and others, The Lumigraph, 1996). */
function bledColors(level: Level): Float32Array {
  const { width, height, rgba } = level;
  const colors = new Float32Array(3 * width * height);
  let empty = false;
  for (let k = 0; k < width * height; k++) {
    const opaque = rgba[4 * k + 3];
    if (opaque > 0) for (let c = 0; c < 3; c++) colors[3 * k + c] = rgba[4 * k + c] / opaque;
    else empty = true;
  }
  if (!empty || width * height === 1) return colors;
  const coarse = halved(level);
  const below = bledColors(coarse);
  for (let k = 0; k < width * height; k++) {
    if (rgba[4 * k + 3] > 0) continue;
    const from = (Math.floor(k / width) >> 1) * coarse.width + ((k % width) >> 1);
    for (let c = 0; c < 3; c++) colors[3 * k + c] = below[3 * from + c];
  }
  return colors;
}
