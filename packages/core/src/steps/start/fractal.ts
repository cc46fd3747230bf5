import { defineStep, place } from '../declare';
import { metres } from '../../format';
import { lies, liesParam } from './planeParam';
import { startWith } from './startWith';
import { boxAround, middleOf, sidesOf } from '../../geometry/box';

const ARC_STEPS = 6;

const OPTIONS = [
  { value: 'hilbert-3d', label: 'Hilbert, solid' },
  { value: 'hilbert', label: 'Hilbert, plane' },
  { value: 'koch', label: 'Koch' },
  { value: 'dragon', label: 'Dragon' },
  { value: 'gosper', label: 'Gosper' },
  { value: 'arrowhead', label: 'Sierpinski arrowhead' },
] as const;

export const fractal = defineStep({
  kind: 'fractal',
  family: 'start',
  held: true,
  label: 'Fractal path',
  use: 'Curves',
  icon: 'M3 17V10H9V3H17V10H12V17H17',
  help: 'A path that fills a square, a cube or a shape of its own, ever finer with its order.',
  takes: [],
  gives: ['paths'],
  params: {
    which: {
      type: 'choice',
      label: 'Curve',
      help: 'Hilbert paths fill a square or cube; the others have outlines of their own.',
      options: OPTIONS,
      default: 'hilbert-3d',
    },
    order: {
      type: 'number',
      unit: 'count',
      label: 'Order',
      help: 'How often the rule is applied. Each order has several times the segments of the one before.',
      default: 3,
      min: 1,
      max: 20,
      slider: [1, 7],
      whole: true,
    },
    size: {
      type: 'number',
      unit: 'm',
      label: 'Size',
      help: 'Longest side of the box that it fills.',
      default: 1.6,
      min: 0.001,
      max: 1000,
      slider: [0.1, 5],
    },
    round: {
      type: 'number',
      unit: 'share',
      label: 'Rounding',
      help: 'Share of each side that the arcs at its corners take up.',
      default: 0.9,
      min: 0,
      max: 1,
    },
    lies: { ...liesParam, shown: (p) => p.which !== 'hilbert-3d' },
    ...place('base', 'Base', 'Middle of the lowest side of the box.', [0, 0.1, 0]),
  },
  summary: (p) => `${OPTIONS.find(({ value }) => value === p.which)?.label}, order ${p.order}, ${metres(p.size)}`,
  async run(form, p, context) {
    const { pathsFrom } = await import('../../geometry/paths');
    const { fractalPoints, fractalSegments } = await import('../../curves/fractal');
    const { roundCorners } = await import('../../curves/roundCorners');
    const kind = p.which;
    const corners = fractalSegments(kind, p.order) + 1;
    context.claim('points', p.round > 0 ? corners * (ARC_STEPS + 1) : corners, 'Order');
    await context.yieldNow();
    const raw = fractalPoints(kind, p.order);
    const placed = kind === 'hilbert-3d' ? raw : upright(raw, p.lies);
    const rounded = roundCorners(placed, p.round, ARC_STEPS, false);
    return startWith(form, pathsFrom([{ positions: fitted(rounded, p.size, [p.baseX, p.baseY, p.baseZ]) }]));
  },
});

function upright(points: Float64Array, plane: string): Float64Array {
  const out = new Float64Array(points.length);
  for (let i = 0; i < points.length; i += 3) out.set(lies(plane, points[i], points[i + 1]), i);
  return out;
}

/** Scales points so that the longest side of their box is `size`, standing on `base`. */
function fitted(points: Float64Array, size: number, base: readonly [number, number, number]): Float64Array {
  const box = boxAround(points);
  const longest = Math.max(...sidesOf(box));
  const k = longest > 0 ? size / longest : 1;
  const [x, , z] = middleOf(box);
  const origin = [x, box.low[1], z];
  return points.map((value, i) => base[i % 3] + k * (value - origin[i % 3]));
}
