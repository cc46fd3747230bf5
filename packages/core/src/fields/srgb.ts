/** Linear value 0..1 of a colour channel given in sRGB 0..1 (IEC 61966-2-1). */
export const linearOf = (c: number): number => (c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4);

/** Channel in sRGB 0..1 of a linear value 0..1 (IEC 61966-2-1). */
export const srgbOf = (c: number): number => (c <= 0.0031308 ? 12.92 * c : 1.055 * c ** (1 / 2.4) - 0.055);
