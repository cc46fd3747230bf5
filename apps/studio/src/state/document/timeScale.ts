/** How frames lie on the timeline, in pixels. */
export interface Scale {
  /** The frames that are shown. */
  first: number;
  last: number;
  /** Left end of the first frame and right end of the last. */
  left: number;
  right: number;
  /** The frames that are played: what pixels are taken for stays within them. */
  range: readonly [number, number];
}

export const LABELS = 148;
/** The fewest frames that the timeline shows. */
const NEAREST = 4;

export const scaleOf = (
  range: readonly [number, number],
  width: number,
  span: readonly [number, number] | null = null,
): Scale => ({
  first: (span ?? range)[0],
  last: (span ?? range)[1],
  left: LABELS,
  right: Math.max(LABELS + 50, width - 18),
  range,
});

export const xOf = ({ first, last, left, right }: Scale, frame: number): number =>
  left + ((frame - first) / (last - first)) * (right - left);

/** The nearest whole frame of the range to a pixel. */
export function frameAt(scale: Scale, x: number): number {
  const [first, last] = scale.range;
  return Math.min(last, Math.max(first, Math.round(exactFrame(scale, x))));
}

/** The moment at a pixel, on and beyond what is shown. */
export const exactFrame = ({ first, last, left, right }: Scale, x: number): number =>
  first + ((x - left) / (right - left)) * (last - first);

/** Frames to write on the ruler: a round step that leaves room for the figures. */
export function ticks(scale: Scale): number[] {
  const room = (scale.right - scale.left) / (scale.last - scale.first);
  const step = [1, 2, 6, 12, 24, 48, 96, 240, 480, 960].find((frames) => frames * room >= 44) ?? 2400;
  const from = Math.ceil(scale.first / step) * step;
  return Array.from({ length: Math.max(0, Math.floor((scale.last - from) / step) + 1) }, (_, i) => from + i * step);
}

/**
 * What is shown after coming nearer or going further about a frame, within the range; null when that is all of it.
 * @param factor on the number of frames shown
 */
export function zoomScale(
  range: readonly [number, number],
  span: readonly [number, number] | null,
  about: number,
  factor: number,
): readonly [number, number] | null {
  const [a, b] = span ?? range;
  const length = Math.max(NEAREST, (b - a) * factor);
  if (length >= range[1] - range[0]) return null;
  const share = (about - a) / (b - a);
  return within(range, [about - share * length, about + (1 - share) * length]);
}

/** What is shown, moved by some frames. */
export const panScale = (
  range: readonly [number, number],
  span: readonly [number, number] | null,
  by: number,
): readonly [number, number] | null => span && within(range, [span[0] + by, span[1] + by]);

function within(range: readonly [number, number], [a, b]: readonly [number, number]): readonly [number, number] {
  const back = Math.max(0, range[0] - a) - Math.max(0, b - range[1]);
  return [a + back, b + back];
}
