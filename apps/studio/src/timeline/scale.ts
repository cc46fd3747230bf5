/** How frames lie on the timeline, in pixels. */
export interface Scale {
  first: number;
  last: number;
  /** Left end of the first frame and right end of the last. */
  left: number;
  right: number;
}

export const LABELS = 148;

export const scaleOf = ([first, last]: readonly [number, number], width: number): Scale => ({
  first,
  last,
  left: LABELS,
  right: Math.max(LABELS + 50, width - 18),
});

export const xOf = ({ first, last, left, right }: Scale, frame: number): number =>
  left + ((frame - first) / (last - first)) * (right - left);

/** The nearest whole frame of the range to a pixel. */
export function frameAt(scale: Scale, x: number): number {
  const { first, last, left, right } = scale;
  return Math.min(last, Math.max(first, Math.round(first + ((x - left) / (right - left)) * (last - first))));
}

/** Frames to write on the ruler: a round step that leaves room for the figures. */
export function ticks(scale: Scale): number[] {
  const room = (scale.right - scale.left) / (scale.last - scale.first);
  const step = [1, 2, 6, 12, 24, 48, 96, 240, 480, 960].find((frames) => frames * room >= 44) ?? 2400;
  const from = Math.ceil(scale.first / step) * step;
  return Array.from({ length: Math.max(0, Math.floor((scale.last - from) / step) + 1) }, (_, i) => from + i * step);
}
