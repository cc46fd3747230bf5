import { type Points, POINTS } from './form';
import { joinColumns } from './joinColumns';

/** All points of one or more geometries, in their order; ids of each follow those of the one before. */
export const joinPoints = (...list: readonly Points[]): Points => ({
  ...list[0],
  ...joinColumns(
    POINTS,
    'point',
    list.map((of) => ({ of, count: of.ids.length })),
  ),
});
