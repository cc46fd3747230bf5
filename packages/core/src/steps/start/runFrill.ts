import { arcLengths, totalLength } from '../../curves/arclength';
import { resample } from '../../curves/resample';
import { digest } from '../../digests/digest';
import { type Frill, type Frilling, frilling } from '../../growing/frill';
import { Histories } from '../../growing/simulationHistory';
import { oneNumber } from '../../geometry/attributes';
import { withRiders } from '../../geometry/joinMeshes';
import { type Mesh, meshWith } from '../../geometry/mesh';
import { at, cross, sub, unit, type Vec3 } from '../../geometry/vec';
import { Problem } from '../../problem';
import type { StepContext } from '../declare';
import type { FrillParams } from './frill';
import { pathsIn } from './others';

const histories = new Histories<Frill>();
/** Steps that a frill of so many rows is made in: it rises by a third of a row at a time, or more slowly. */
const stepsFor = (rows: number): number => Math.min(60, Math.max(16, 3 * rows));
const HERE = { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], size: 1 } as const;

/** A base as it is given: a line of points. */
interface Base {
  positions: Float64Array;
  closed: boolean;
}

/** Frills as far as they have grown, one on each path of the base; between two steps they are between the two. */
export async function runFrill(p: FrillParams, context: StepContext): Promise<Mesh> {
  const rows = Math.max(3, Math.round(p.height / p.piece) + 1);
  let made: Mesh | null = null;
  const bases = await basesOf(p, context);
  const columns = bases.map((base) => Math.max(8, Math.round((lengthOf(base) * p.ruffle) / p.piece)));
  context.claim(
    'faces',
    columns.reduce((sum, n) => sum + 2 * n * (rows - 1), 0),
    'Height or Rim, or raise Segment length',
  );
  for (const [b, base] of bases.entries()) {
    const given: Frilling = {
      base: placesOf(resample(base.positions, columns[b], base.closed)),
      closed: base.closed,
      rows,
      height: p.height,
      ruffle: p.ruffle,
      rim: p.rim,
      open: (p.open * Math.PI) / 180,
      upright: p.upright,
      fold: p.fold,
      apart: p.apart,
      steps: stepsFor(rows),
      seed: context.seed + b,
    };
    const mesh = sheet(await grownTo(given, p.grown, context), given);
    made = made ? await withRiders(made, mesh, [HERE]) : mesh;
  }
  return made!;
}

async function grownTo(given: Frilling, grown: number, context: StepContext): Promise<Float64Array> {
  const history = await histories.of(digest(JSON.stringify(given)), () => Promise.resolve(frilling(given)));
  const yieldNow = (): Promise<void> => context.yieldNow();
  const place = grown * given.steps;
  const whole = Math.floor(place);
  const { positions } = await history.at(whole, yieldNow);
  const t = place - whole;
  if (t < 1e-9) return positions;
  const after = (await history.at(whole + 1, yieldNow)).positions;
  return positions.map((from, i) => from + t * (after[i] - from));
}

async function basesOf(p: FrillParams, context: StepContext): Promise<Base[]> {
  if (p.base === 'line')
    return [{ positions: Float64Array.of(-p.length / 2, 0, 0, p.length / 2, 0, 0), closed: false }];
  if (p.base === 'growth') {
    const { positions, offsets, closed } = await pathsIn(context, 'growth', p.growth);
    const bases = Array.from(closed, (loop, k) => ({
      positions: Float64Array.from(positions.subarray(3 * offsets[k], 3 * offsets[k + 1])),
      closed: loop === 1,
    })).filter((base) => lengthOf(base) > 0);
    if (bases.length === 0) throw new Problem('Its paths have no length.', 'Choose another growth.');
    return bases;
  }
  const ring = p.base === 'ring';
  const turns = ring ? 1 : p.turns;
  const points = Math.ceil(128 * turns);
  const places = Array.from({ length: ring ? points : points + 1 }, (_, k) => {
    const angle = (2 * Math.PI * turns * k) / points;
    const radius = ring ? p.radius : p.inner + ((p.radius - p.inner) * k) / points;
    return [radius * Math.cos(angle), 0, -radius * Math.sin(angle)];
  });
  return [{ positions: Float64Array.from(places.flat()), closed: ring }];
}

const placesOf = (flat: Float64Array): Vec3[] => Array.from({ length: flat.length / 3 }, (_, i) => at(flat, i));

const lengthOf = ({ positions, closed }: Base): number =>
  totalLength(arcLengths(positions, 0, positions.length / 3, closed));

/** Rows of points as a skin; where it is closed the first column stands twice, since its texture begins and ends there. */
function sheet(positions: Float64Array, { base, closed, rows, height }: Frilling): Mesh {
  const columns = base.length;
  const wide = closed ? columns + 1 : columns;
  const n = wide * rows;
  const mesh = meshWith({
    positions: new Float32Array(3 * n),
    normals: new Float32Array(3 * n),
    uvs: new Float32Array(2 * n),
    indices: new Uint32Array(6 * (wide - 1) * (rows - 1)),
    u: new Float32Array(n),
    tip: new Float32Array(n),
  });
  const rim = new Float32Array(n);
  const place = (i: number, j: number): Vec3 => {
    const column = closed ? (i + columns) % columns : Math.min(columns - 1, Math.max(0, i));
    return at(positions, Math.min(rows - 1, Math.max(0, j)) * columns + column);
  };
  let to = 0;
  for (let j = 0; j < rows; j++)
    for (let i = 0; i < wide; i++) {
      const v = j * wide + i;
      const share = j / (rows - 1);
      mesh.positions.set(place(i, j), 3 * v);
      const across = sub(place(i + 1, j), place(i - 1, j));
      const up = sub(place(i, j + 1), place(i, j - 1));
      mesh.normals.set(unit(cross(across, up), [0, 0, 1]), 3 * v);
      mesh.uvs.set([i / Math.max(1, wide - 1), share], 2 * v);
      mesh.u![v] = rim[v] = share;
      mesh.tip![v] = (1 - share) * height;
      if (j + 1 === rows || i + 1 === wide) continue;
      mesh.indices.set([v, v + 1, v + wide, v + 1, v + wide + 1, v + wide], to);
      to += 6;
    }
  return { ...mesh, named: { rim: oneNumber('vertex', rim) } };
}
