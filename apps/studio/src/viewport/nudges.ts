import type { Vec3 } from '@uvrex/core';

/** Which way each key moves the handle that has the focus. */
export const NUDGES: Readonly<Record<string, Vec3>> = {
  ArrowLeft: [-1, 0, 0],
  ArrowRight: [1, 0, 0],
  ArrowUp: [0, 1, 0],
  ArrowDown: [0, -1, 0],
  PageUp: [0, 0, -1],
  PageDown: [0, 0, 1],
};
