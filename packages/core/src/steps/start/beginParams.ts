import { type ChoiceParam, type GrowthParam, is, place, shownFor } from '../declare';

/** Where things begin: at one place, or at the points of another growth. */
export const beginParams = {
  begins: {
    type: 'choice',
    label: 'Begins at',
    help: 'At one place, at the points of another growth (loose points, else those of its paths, else the corners of its skin), or at the tips of its paths.',
    options: [
      { value: 'place', label: 'A place' },
      { value: 'points', label: 'Points of a growth' },
      { value: 'tips', label: 'Tips of a growth' },
    ],
    default: 'place',
  } satisfies ChoiceParam,
  growth: {
    type: 'growth',
    label: 'Growth',
    help: 'The growth at whose points or tips it begins, as it is at the last frame.',
    default: null,
    still: true,
    shown: is('begins', 'points', 'tips'),
  } satisfies GrowthParam,
  ...shownFor(place('at', 'Place', 'Where it begins.', [0, 0, 0]), is('begins', 'place')),
};
