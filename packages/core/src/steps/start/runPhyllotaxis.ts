import { emptyColumns, NO_NAMED } from '../../geometry/attributes';
import { type Points, POINTS } from '../../geometry/form';
import { areaOf, floretAt, type ReceptacleShape } from '../../geometry/phyllotaxis';
import { profileTable, readTable } from '../../geometry/profile';
import { fromAxes } from '../../geometry/turns';
import { smoothstep } from '../../fields/smoothstep';
import type { StepContext } from '../declare';
import { modulo } from '../place/turnPattern';
import type { PhyllotaxisParams } from './phyllotaxis';

/** The points of a head as it stands at a frame. */
export async function florets(p: PhyllotaxisParams, context: StepContext): Promise<Points> {
  const endless = p.born === 'endless';
  const [first, last] = endless ? context.range : [0, 0];
  const passed = endless ? (p.births * (context.frame - first)) / (last - first + 1) : 0;
  const total = p.count;
  // Seats ahead of the ages: the k-th oldest of an endless head was born so many births ago.
  const settled = Math.floor(passed + 1e-9);
  const moved = Math.max(0, passed - settled);
  const n = endless ? Math.ceil(total - moved - 1e-9) : Math.ceil(total - 1e-9);
  const ramp = rampOf(p);
  const shape = grownShape(p, total * ramp.room);
  // Over the range the whole turns back by what its births have turned, less whole turns: then it closes.
  const residue = modulo(p.births * p.angle + 180, 360) - 180;
  const spin = endless ? (-residue * passed) / Math.max(1, p.births) : 0;
  const points: Points = {
    ...emptyColumns(POINTS, 'point', n),
    life: endless ? new Float32Array(n) : null,
    named: NO_NAMED,
  };
  for (let k = 0; k < n; k++) {
    if (k % 4096 === 0) await context.yieldNow();
    // `birth` counts from the first ever, `age` in births since.
    const birth = endless ? settled - k : k;
    const age = endless ? moved + k : total - k;
    const inside = p.born === 'rim' ? k + 0.5 : Math.max(0, age - 0.5 * Math.min(1, age));
    const share = ramp.placeOf(total > 0 ? Math.min(1, inside / total) : 0);
    // Whole turns are taken off in degrees, where they are exact.
    const degrees = ((birth * p.angle) % 360) + spin;
    const floret = floretAt(shape, share, (degrees * Math.PI) / 180);
    points.positions.set(floret.position, 3 * k);
    points.turns.set(fromAxes(floret.along, floret.up), 4 * k);
    points.size[k] =
      ramp.sizeAt(share) *
      (p.swell > 0 ? smoothstep(age / p.swell) : 1) *
      (endless && p.fade > 0 ? smoothstep((total - age) / p.fade) : 1);
    points.ids[k] = endless ? modulo(birth, Math.max(1, p.births) * Math.ceil((total + 2) / Math.max(1, p.births))) : k;
    points.dice[k] = endless ? modulo(birth, Math.max(1, p.births)) : k;
    points.share[k] = share;
    if (points.life) points.life[k] = total > 0 ? age / total : 0;
  }
  return points;
}

/** Steps of the table by which places are found. */
const STEPS = 256;

/** Sizes by place, and places by rank. */
interface Ramp {
  /** @param share of the area, from the middle outwards */
  sizeAt(share: number): number;
  /** The share of the area at which the points of a share of their number have found room. */
  placeOf(rank: number): number;
  /** Room that each takes on average, against one of size 1. */
  room: number;
}

/**
 * How sizes run over the head. Where neighbours stay in touch each takes room as the square of its size f, so that ranks rise over
 * the area as 1 / f².
 */
function rampOf(p: PhyllotaxisParams): Ramp {
  const table = profileTable(p.ramp, STEPS + 1);
  const sizeAt = (share: number): number => readTable(table, share);
  if (!p.touch || p.ramp.every(({ value }) => value === p.ramp[0].value))
    return { sizeAt, placeOf: (rank) => rank, room: p.touch ? p.ramp[0].value ** 2 : 1 };
  const ranks = new Float64Array(STEPS + 1);
  for (let i = 1; i <= STEPS; i++) ranks[i] = ranks[i - 1] + 1 / sizeAt((i - 0.5) / STEPS) ** 2 / STEPS;
  const whole = ranks[STEPS];
  const placeOf = (rank: number): number => {
    const wanted = rank * whole;
    let [low, high] = [0, STEPS];
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if (ranks[middle] <= wanted) low = middle;
      else high = middle;
    }
    return (low + (wanted - ranks[low]) / (ranks[high] - ranks[low])) / STEPS;
  };
  return { sizeAt, placeOf, room: 1 / whole };
}

/** The surface as large as so many points need, where their spacing is held. */
function grownShape(p: PhyllotaxisParams, total: number): ReceptacleShape {
  const shape = { which: p.which, radius: p.radius, height: p.height };
  if (p.room === 'held' || p.born === 'endless') return shape;
  // Neighbours a spacing apart in hexagons take √3/2 of its square each.
  const wanted = (Math.max(total, 1e-6) * p.spacing ** 2 * Math.sqrt(3)) / 2;
  const k = wanted / areaOf(shape);
  if (shape.which === 'cylinder') return { ...shape, height: shape.height * k };
  return { ...shape, radius: shape.radius * Math.sqrt(k), height: shape.height * Math.sqrt(k) };
}
