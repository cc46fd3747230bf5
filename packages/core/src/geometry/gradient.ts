import { linearOf } from '../fields/srgb';

/** A colour of a gradient: position 0..1, colour as #rrggbb in sRGB. */
export interface Stop {
  at: number;
  color: string;
}

/** Linear RGB 0..1 of an sRGB colour #rrggbb (IEC 61966-2-1). */
export function linearRgb(hex: string): [number, number, number] {
  const value = Number.parseInt(hex.slice(1), 16);
  return [linearOf((value >> 16) / 255), linearOf(((value >> 8) & 255) / 255), linearOf((value & 255) / 255)];
}

/**
 * A table of a gradient for fast reading: `size` linear RGB colours from position 0 to 1. Between stops the colours are
 * mixed in Oklab (Björn Ottosson, A perceptual color space for image processing, 2020), which keeps blends clean.
 */
export function gradientTable(stops: readonly Stop[], size: number): Float32Array {
  const sorted = [...stops]
    .sort((a, b) => a.at - b.at)
    .map((stop) => ({ at: stop.at, lab: toOklab(linearRgb(stop.color)) }));
  const table = new Float32Array(3 * size);
  let k = 0;
  for (let i = 0; i < size; i++) {
    const t = size > 1 ? i / (size - 1) : 0;
    while (k < sorted.length - 2 && sorted[k + 1].at <= t) k++;
    const a = sorted[k];
    const b = sorted[Math.min(k + 1, sorted.length - 1)];
    const share = b.at > a.at ? Math.min(1, Math.max(0, (t - a.at) / (b.at - a.at))) : t >= b.at ? 1 : 0;
    const lab = a.lab.map((value, c) => value + (b.lab[c] - value) * share) as [number, number, number];
    table.set(
      fromOklab(lab).map((value) => Math.min(1, Math.max(0, value))),
      3 * i,
    );
  }
  return table;
}

function toOklab([r, g, b]: [number, number, number]): [number, number, number] {
  const l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
  const m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
  const s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
  return [
    0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s,
    1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s,
    0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s,
  ];
}

function fromOklab([L, a, b]: [number, number, number]): [number, number, number] {
  const l = (L + 0.3963377774 * a + 0.2158037573 * b) ** 3;
  const m = (L - 0.1055613458 * a - 0.0638541728 * b) ** 3;
  const s = (L - 0.0894841775 * a - 1.291485548 * b) ** 3;
  return [
    4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s,
    -1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s,
    -0.0041960863 * l - 0.7034186147 * m + 1.707614701 * s,
  ];
}
