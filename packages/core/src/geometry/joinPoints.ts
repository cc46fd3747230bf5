import { type Points, POINTS } from './form';
import { joinColumns } from './joinColumns';

/** All points of `a`, then all of `b`; ids of `b` follow those of `a`. */
export const joinPoints = (a: Points, b: Points): Points => ({
  ...a,
  ...joinColumns(POINTS, 'point', [
    { of: a, count: a.ids.length },
    { of: b, count: b.ids.length },
  ]),
});
