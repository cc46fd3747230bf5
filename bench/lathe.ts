import { LatheGeometry, Vector2 } from 'three';
import { pathsFrom } from '@uvrex/core';
import { latheMesh } from '../packages/core/src/surfaces/sweep/latheMesh';
import { median, type Row } from './harness';

const ROWS = 500;
const SIDES = 200;

/** A profile turned about an axis, beside three's LatheGeometry. */
export async function benchLathe(): Promise<Row[]> {
  const profile = Array.from({ length: ROWS }, (_, i) => new Vector2(0.5 + 0.2 * Math.sin(i / 40), i / ROWS));
  const paths = pathsFrom([{ positions: profile.flatMap(({ x, y }) => [x, y, 0]) }]);
  const shape = {
    origin: [0, 0, 0] as const,
    axis: [0, 1, 0] as const,
    turnOf: () => ({ from: 0, turn: 2 * Math.PI }),
    rise: 0,
    sides: SIDES,
    crease: Math.PI / 6,
    toAxis: false,
    caps: false,
  };
  return [
    {
      what: `a profile of ${ROWS} points turned on ${SIDES} sides, beside three LatheGeometry`,
      ours: await median(() => latheMesh(paths, shape)),
      theirs: await median(() => new LatheGeometry(profile, SIDES)),
      amount: ROWS * (SIDES + 1),
      unit: 'vertices',
    },
  ];
}
