import { arcLengths, totalLength } from '../../curves/arclength';
import { sampleAt } from '../../curves/resample';
import { allocatePaths, pathCount } from '../../geometry/paths';
import { defineStep } from '../declare';
import { counted, metres } from '../format';

export const respace = defineStep({
  kind: 'respace',
  family: 'shape',
  label: 'Respace',
  help: 'Places the points of each path anew at equal lengths along it.',
  takes: ['paths'],
  gives: ['paths'],
  params: {
    by: {
      type: 'choice',
      label: 'By',
      help: 'A fixed number of points, or a fixed distance between them.',
      options: [
        { value: 'count', label: 'Count' },
        { value: 'spacing', label: 'Spacing' },
      ],
      default: 'count',
    },
    count: {
      type: 'number',
      unit: 'count',
      label: 'Count',
      help: 'Points on each path.',
      default: 200,
      min: 2,
      max: 200000,
      slider: [2, 600],
      whole: true,
      shown: (p) => p.by === 'count',
    },
    spacing: {
      type: 'number',
      unit: 'm',
      label: 'Spacing',
      help: 'Length between neighbours; it is fitted so that a whole number of pieces fills the path.',
      default: 0.02,
      min: 0.0001,
      max: 100,
      slider: [0.005, 0.5],
      shown: (p) => p.by === 'spacing',
    },
  },
  summary: (p) => (p.by === 'count' ? counted(p.count, 'point') : `every ${metres(p.spacing)}`),
  async run(form, p, context) {
    const old = form.paths!;
    const m = pathCount(old);
    const tables = Array.from({ length: m }, (_, k) =>
      arcLengths(old.positions, old.offsets[k], old.offsets[k + 1], old.closed[k] === 1),
    );
    const counts = tables.map((table, k) => {
      if (old.offsets[k + 1] - old.offsets[k] < 2) return old.offsets[k + 1] - old.offsets[k];
      const pieces = p.by === 'count' ? p.count - 1 : Math.max(1, Math.round(totalLength(table) / p.spacing));
      return old.closed[k] ? Math.max(3, p.by === 'count' ? p.count : pieces) : pieces + 1;
    });
    const total = counts.reduce((sum, count) => sum + count, 0);
    context.claim('points', total, p.by === 'count' ? 'Count' : 'the number of points by a larger Spacing');

    const paths = allocatePaths(total, m);
    for (const key of ['closed', 'ids', 'whole', 'cutFrom', 'parent', 'attach', 'depth', 'birth'] as const)
      paths[key].set(old[key]);
    let first = 0;
    for (let k = 0; k < m; k++) {
      await context.breathe();
      const [a, b, n, table] = [old.offsets[k], old.offsets[k + 1], counts[k], tables[k]];
      const step = totalLength(table) / (old.closed[k] ? n : Math.max(1, n - 1));
      const arcs = Float64Array.from({ length: n }, (_, i) => i * step);
      if (!old.closed[k] && n > 0) arcs[n - 1] = totalLength(table);
      sampleAt(old.positions, a, b, table, arcs, 3, paths.positions, first);
      sampleAt(old.size, a, b, table, arcs, 1, paths.size, first);
      if (old.closed[k]) restOnClosed(old, a, b, old.whole[k], table, arcs, paths, first);
      else {
        sampleAt(old.s, a, b, table, arcs, 1, paths.s, first);
        sampleAt(old.u, a, b, table, arcs, 1, paths.u, first);
      }
      first += n;
      paths.offsets[k + 1] = first;
    }
    // Normals belong to points that are gone: the next step that needs frames transports them anew.
    return { ...form, paths };
  },
});

/** On the closing segment the rest coordinate runs up to its full value instead of back to 0. */
function restOnClosed(
  old: { s: Float32Array; u: Float32Array },
  a: number,
  b: number,
  whole: number,
  table: Float64Array,
  arcs: Float64Array,
  out: { s: Float32Array; u: Float32Array },
  first: number,
): void {
  const s = Float64Array.from([...old.s.subarray(a, b), whole]);
  const u = Float64Array.from([...old.u.subarray(a, b), 1]);
  sampleAt(s, 0, s.length, table, arcs, 1, out.s, first);
  sampleAt(u, 0, u.length, table, arcs, 1, out.u, first);
}
