import type { Shown } from '@/worker/protocol';

/** One path to show and nothing else, of so many numbers in its positions. */
export const shownPath = (numbers: number): Shown => ({
  mesh: null,
  paths: {
    positions: new Float32Array(numbers),
    offsets: Uint32Array.of(0, 2),
    closed: new Uint8Array(1),
    fronts: new Uint8Array(1),
    ids: new Uint32Array(1),
    u: new Float32Array(2),
  },
  copies: [],
  copiesBall: null,
  tips: null,
  dots: null,
  dotIds: null,
  surface: null,
  picture: null,
});
