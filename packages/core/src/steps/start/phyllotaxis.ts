import { areaOf, floretAt, GOLDEN_ANGLE, type ReceptacleShape } from '../../geometry/phyllotaxis';
import { emptyColumns, NO_NAMED } from '../../geometry/attributes';
import { type Points, POINTS } from '../../geometry/form';
import { profileTable, readTable } from '../../geometry/profile';
import { fromAxes } from '../../geometry/turns';
import { Problem } from '../../problem';
import {
  defineStep,
  type NumberParam,
  type ParamsOf,
  type ParamSpecs,
  type Resolved,
  type StepContext,
  numberField,
} from '../declare';
import { figure } from '../../format';
import { modulo } from '../place/turnPattern';
import { smoothstep } from '../../fields/smoothstep';

const metresField = numberField({ unit: 'm', min: 0.0001, max: 1000, slider: [0.01, 2] });
const metres = (label: string, help: string, value: number, shown?: (p: Resolved) => boolean): NumberParam =>
  metresField(label, help, value, { shown });

const params = {
  which: {
    type: 'choice',
    label: 'Surface',
    help: 'What the points sit on.',
    options: [
      { value: 'disc', label: 'Disc' },
      { value: 'dome', label: 'Dome' },
      { value: 'cone', label: 'Cone' },
      { value: 'cylinder', label: 'Cylinder' },
    ],
    default: 'disc',
  },
  count: {
    type: 'number',
    unit: 'plain',
    label: 'Count',
    help: 'How many there are; between whole numbers the newest one is coming up.',
    default: 200,
    min: 0,
    max: 1_000_000,
    slider: [0, 2000],
  },
  angle: {
    type: 'number',
    unit: 'deg',
    label: 'Divergence',
    help: 'From each to the next, about the axis; the golden angle packs evenly at any count.',
    default: GOLDEN_ANGLE,
    min: -360,
    max: 360,
    slider: [130, 145],
  },
  born: {
    type: 'choice',
    label: 'New ones',
    help: 'Where they are born: at the centre they push the others out. Endless births come up at the centre, push outwards for ever and close with the range.',
    options: [
      { value: 'centre', label: 'At the centre' },
      { value: 'rim', label: 'At the rim' },
      { value: 'endless', label: 'Endless' },
    ],
    default: 'centre',
  },
  births: {
    type: 'number',
    unit: 'count',
    label: 'Births',
    help: 'How many are born over the range. A Fibonacci number (8, 13, 21, 34 …) turns the whole the least.',
    default: 21,
    min: 0,
    max: 100000,
    slider: [0, 144],
    whole: true,
    shown: (p) => p.born === 'endless',
  },
  room: {
    type: 'choice',
    label: 'As the count changes',
    help: 'Whether the surface keeps its size, or each point keeps its room and the whole grows.',
    options: [
      { value: 'held', label: 'Size held' },
      { value: 'grows', label: 'Spacing held' },
    ],
    default: 'grows',
    shown: (p) => p.born !== 'endless',
  },
  radius: metres('Radius', 'Of the whole; with the spacing held, only its proportion to the height.', 0.5),
  height: metres('Height', 'From rim to top.', 0.4, (p) => p.which !== 'disc'),
  spacing: metres(
    'Spacing',
    'About how far neighbours are apart.',
    0.05,
    (p) => p.room === 'grows' && p.born !== 'endless',
  ),
  swell: {
    type: 'number',
    unit: 'plain',
    label: 'Swell',
    help: 'Births that a new one takes to come up to its size.',
    default: 6,
    min: 0,
    max: 100000,
    slider: [0, 60],
  },
  fade: {
    type: 'number',
    unit: 'plain',
    label: 'Fade',
    help: 'Births before its end in which an old one goes.',
    default: 10,
    min: 0,
    max: 100000,
    slider: [0, 60],
    shown: (p) => p.born === 'endless',
  },
  ramp: {
    type: 'profile',
    label: 'Size by place',
    help: 'Size of what stands there, from the middle, or the top, to the rim.',
    min: 0.05,
    max: 4,
    default: [{ at: 0, value: 1 }],
  },
  touch: {
    type: 'toggle',
    label: 'Spaced by size',
    help: 'Larger ones take more room, so that neighbours stay in touch from the smallest to the largest.',
    default: true,
  },
} as const satisfies ParamSpecs;

export const phyllotaxis = defineStep({
  kind: 'phyllotaxis',
  family: 'start',
  held: true,
  label: 'Phyllotaxis',
  use: 'Folds and heads',
  icon: 'M10 10H10.01M12.6 10.6H12.61M8.4 12.4H8.41M9.4 7H9.41M13.4 7.2H13.41M11.6 14.4H11.61M5.6 9.4H5.61M16.4 11.4H16.41M7 15.8H7.01M11 3.4H11.01M4 13H4.01M15.4 15.6H15.41',
  help: 'Points in the spirals of flower heads, each turned on from the one before by the same angle. The count can be animated from nothing: the pattern stays, new ones are born at the centre and push outwards, or join at the rim; or births go on for ever.',
  takes: [],
  gives: ['points'],
  params,
  moves: true,
  summary: (p) => `${figure(p.count, 0)} on a ${p.which}${p.born === 'endless' ? ', endless' : ''}`,
  async run(form, p, context) {
    if (form.points) throw new Problem('There are points already.', 'Switch the other step off.');
    context.claim('points', p.count, 'Count');
    if (p.born === 'endless') tellOfKeyedCount(context);
    return { ...form, points: await florets(p, context) };
  },
});

/** Births that go on for ever replace what goes: a count that changes as well leaves places empty, and the range open. */
function tellOfKeyedCount(context: StepContext): void {
  const [first, last] = context.range.map((frame) => context.numberAt('count', frame));
  if (first === last) return;
  const most = Math.max(first, last);
  context.tell(
    'Count is animated while births go on for ever: that leaves gaps, and the range does not close.',
    'Let Count stand still: new ones come up by Births alone.',
    { label: `Hold Count at ${figure(most, 0)}`, set: { count: most } },
  );
}

async function florets(p: ParamsOf<typeof params>, context: StepContext): Promise<Points> {
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
    if (k % 4096 === 0) await context.breathe();
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
function rampOf(p: ParamsOf<typeof params>): Ramp {
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
function grownShape(p: ParamsOf<typeof params>, total: number): ReceptacleShape {
  const shape = { which: p.which, radius: p.radius, height: p.height };
  if (p.room === 'held' || p.born === 'endless') return shape;
  // Neighbours a spacing apart in hexagons take √3/2 of its square each.
  const wanted = (Math.max(total, 1e-6) * p.spacing ** 2 * Math.sqrt(3)) / 2;
  const k = wanted / areaOf(shape);
  if (shape.which === 'cylinder') return { ...shape, height: shape.height * k };
  return { ...shape, radius: shape.radius * Math.sqrt(k), height: shape.height * Math.sqrt(k) };
}
