/** Picture sizes that are asked for most; both sides even, as video encoders want them. */
export const SIZES: readonly { id: string; label: string; width: number; height: number }[] = [
  { id: 'half', label: '640 × 360', width: 640, height: 360 },
  { id: '720', label: '1280 × 720', width: 1280, height: 720 },
  { id: '1080', label: '1920 × 1080', width: 1920, height: 1080 },
  { id: 'square', label: '1080 × 1080', width: 1080, height: 1080 },
  { id: 'upright', label: '1080 × 1920', width: 1080, height: 1920 },
];

/** Why a picture size cannot be made, or null. */
export function sizeFault(width: number, height: number): string | null {
  for (const [name, value] of [
    ['Width', width],
    ['Height', height],
  ] as const) {
    if (!Number.isInteger(value) || value < 16 || value > 4096)
      return `${name} must be a whole number from 16 to 4096.`;
    if (value % 2) return `${name} must be even: video stores colour for pairs of pixels.`;
  }
  return null;
}

/** Why a range of frames cannot be made, or null. */
export function rangeFault(first: number, last: number): string | null {
  if (!Number.isInteger(first) || !Number.isInteger(last)) return 'Frames must be whole numbers.';
  if (last < first) return 'The last frame must not come before the first.';
  if (last - first >= 20000) return 'That is more than 20,000 frames: deliver it in parts.';
  return null;
}
