import { BRANCHES } from './branches';
import { COPIES } from './copies';
import { CURVES } from './curves';
import type { Lesson } from './lesson';
import { SURFACES } from './surfaces';

/** The first growth of somebody who has never been here. */
export const FIRST_GROWTH: Lesson = {
  id: 'first-growth',
  title: 'First growth',
  about: 'A coil that leaves come out of',
  steps: [
    {
      text: 'Press **Shift N**, and choose **Helix** among the curves: it grows over the range.',
      moves: [{ begin: 'helix' }],
    },
    {
      text: 'On the left, click the step _Helix_ and set Top radius to 0.1: the coil narrows as it rises.',
      moves: [{ set: 'helix', of: 'Helix', values: { above: 0.1 } }],
    },
    {
      text: 'Click **Add a step** and choose **Along the paths**: it makes a leaf to copy, and sets it along the coil.',
      moves: [{ add: 'along', to: 'Helix' }],
    },
    { text: 'Press **Space**: it plays. Everything you see can be changed at any time.', moves: [{ play: true }] },
  ],
};

/** Lessons that the studio goes through. */
export const LESSONS: readonly Lesson[] = [FIRST_GROWTH, ...CURVES, ...COPIES, ...SURFACES, ...BRANCHES];
