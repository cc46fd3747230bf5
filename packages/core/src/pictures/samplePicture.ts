import type { Picture } from './readPicture';

/** Wrap mode: repeat, clamp to the edge, or transparent outside. */
export type Wrap = 'repeat' | 'edge' | 'nothing';

/** Samples a picture: `x` 0..1 from the left, `y` 0..1 from the bottom; writes RGBA 0..1, as stored. */
export type Sampler = (x: number, y: number, out: Float64Array) => void;

/** A bilinear sampler. It weighs colours by alpha: transparent pixels do not bleed into others. */
export function pictureSampler({ width, height, rgba, most }: Picture, wrap: Wrap): Sampler {
  const index = (k: number, count: number): number => {
    if (wrap === 'repeat') return ((k % count) + count) % count;
    return k < 0 ? 0 : k >= count ? count - 1 : k;
  };
  return (x, y, out) => {
    out.fill(0, 0, 4);
    if (wrap === 'nothing' && (x < 0 || x > 1 || y < 0 || y > 1)) return;
    const [left, top] = [x * width - 0.5, (1 - y) * height - 0.5];
    const [column, row] = [Math.floor(left), Math.floor(top)];
    const [right, down] = [left - column, top - row];
    for (let corner = 0; corner < 4; corner++) {
      const [a, b] = [corner & 1, corner >> 1];
      const share = (a ? right : 1 - right) * (b ? down : 1 - down);
      const at = 4 * (index(row + b, height) * width + index(column + a, width));
      const opaque = (share * rgba[at + 3]) / most;
      for (let c = 0; c < 3; c++) out[c] += (opaque * rgba[at + c]) / most;
      out[3] += opaque;
    }
    if (out[3] > 0) for (let c = 0; c < 3; c++) out[c] /= out[3];
  };
}

/** Luma of a stored colour, 0..1 (ITU-R BT.709). */
export const lumaOf = (color: ArrayLike<number>): number => 0.2126 * color[0] + 0.7152 * color[1] + 0.0722 * color[2];
