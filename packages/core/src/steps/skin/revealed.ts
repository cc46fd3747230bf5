import { cutPaths } from '../../curves/cut';
import { noise3 } from '../../fields/noise';
import { picked } from '../../geometry/attributes';
import { extentOf } from '../../geometry/extent';
import { type Form } from '../../geometry/form';
import { linearRgb } from '../../geometry/gradient';
import { faceCount, type Mesh, vertexCount } from '../../geometry/mesh';
import { unwritten, vertexValues } from '../../geometry/meshAttributes';
import { pointValues } from '../../geometry/pathAttributes';
import { FAR, NEAR, PATHS, type Paths, pathCount } from '../../geometry/paths';
import { Problem } from '../../problem';
import { cutMesh } from '../../surfaces/cutMesh';
import { halvedWhere } from '../../surfaces/refine';
import { arcLengths } from '../../curves/arclength';
import { type StepContext } from '../declare';
import { type RevealParams } from './reveal';

/** Where a thing was on the form at the last frame: its grain stays with it. It is taken off again. */
const REST = 'place at rest';
/** How often edges are halved at most. */
const ROUNDS = 6;

/** A form of which only a part shows. */
export async function revealed(form: Form, p: RevealParams, context: StepContext): Promise<Form> {
  const mesh = form.mesh && (await revealedMesh(form.mesh, p, context));
  const paths = form.paths && !form.mesh ? await revealedPaths(form.paths, p, context) : form.paths;
  const surface =
    mesh && p.glow > 0
      ? { roughness: form.surface?.roughness ?? 0.55, glowColor: linearRgb(p.color), glowReach: p.width }
      : form.surface;
  const extent = paths === form.paths ? form.extent : (form.extent ?? (form.paths && extentOf(form.paths)));
  return { ...form, mesh, paths, surface, extent };
}

/** What is there, by the values that it goes by: not below 0 at its near edge, and at its far one. */
function edgesOf(p: RevealParams): (value: number) => readonly [near: number, far: number] {
  const side = p.invert ? -1 : 1;
  if (p.by === 'attribute') return (value) => [side * (value - p.level), Infinity];
  if (p.band === 0) return (value) => [side * (value - p.behind), Infinity];
  if (p.invert) return (value) => [Math.max(p.behind - value, value - p.behind - p.band), Infinity];
  return (value) => [value - p.behind, p.behind + p.band - value];
}

const missing = (p: RevealParams): Problem =>
  p.by === 'front'
    ? new Problem('No front spreads over it.', 'Add Front before this step, or let it go by an attribute.')
    : unwritten(p.attribute);

async function revealedMesh(mesh: Mesh, p: RevealParams, context: StepContext): Promise<Mesh> {
  const name = p.by === 'front' ? 'tip' : p.attribute;
  if (!vertexValues(mesh, name)) throw missing(p);
  const breathe = (): Promise<void> => context.breathe();
  const fine = p.dissolve > 0 || p.glow > 0 ? await refined(await resting(mesh, context), name, p, context) : mesh;
  const edges = edgesOf(p);
  const values = vertexValues(fine, name)!;
  const near = Float64Array.from(values, (value) => edges(value)[0]);
  const grains = p.dissolve > 0 ? grainsOf(fine, p, context.seed) : null;
  const field = grains ? near.map((d, i) => d / p.dissolve - grains[i]) : near;
  // Metres from the edge: through grains it turns about as fast as they do.
  const metres = grains ? 1 / (1 / p.dissolve + 1.5 / p.grain) : 1;
  const glowing =
    p.glow > 0
      ? withGlow(
          fine,
          field.map((value) => value * metres),
          p,
        )
      : fine;
  const cut = await cutMesh(withoutRest(glowing), field, p.close, breathe);
  if (p.by !== 'front' || p.band === 0 || p.invert) return cut;
  const far = Float64Array.from(vertexValues(cut, name)!, (value) => edges(value)[1]);
  return cutMesh(cut, far, p.close, breathe);
}

/** A mesh that carries along where it stands at the last frame. */
async function resting(mesh: Mesh, context: StepContext): Promise<Mesh> {
  const last = (await context.inputAtLast()).mesh;
  const same = last && faceCount(last) === faceCount(mesh) && vertexCount(last) === vertexCount(mesh);
  const values = (same ? last : mesh).positions;
  return {
    ...mesh,
    named: { ...mesh.named, [REST]: { domain: 'vertex', width: 3, blend: 'mix', missing: 0, values } },
  };
}

function withoutRest(mesh: Mesh): Mesh {
  const { [REST]: _, ...named } = mesh.named;
  return { ...mesh, named };
}

/** Thresholds 0..1 of the grains at each vertex. */
function grainsOf(mesh: Mesh, p: RevealParams, seed: number): Float64Array {
  const rest = mesh.named[REST].values;
  const shape = { detail: 2, roughness: 0.5, seed, period: 0 };
  const out = new Float64Array(3);
  return Float64Array.from({ length: vertexCount(mesh) }, (_, i) => {
    noise3(rest[3 * i] / p.grain, rest[3 * i + 1] / p.grain, rest[3 * i + 2] / p.grain, 0, shape, out);
    return Math.min(1, Math.max(0, 0.5 + 0.8 * out[0]));
  });
}

/** A mesh with small enough faces where grains and glow are to be seen. */
async function refined(mesh: Mesh, name: string, p: RevealParams, context: StepContext): Promise<Mesh> {
  const edges = edgesOf(p);
  const [least, most] = [0, p.dissolve + (p.glow > 0 ? p.width : 0)];
  const size = Math.min(p.dissolve > 0 ? p.grain / 2.5 : Infinity, p.glow > 0 ? p.width / 1.5 : Infinity);
  let made = mesh;
  for (let round = 0; round < ROUNDS; round++) {
    const values = vertexValues(made, name)!;
    const { positions } = made;
    const near = Float64Array.from(values, (value) => edges(value)[0]);
    const wants = (a: number, b: number): boolean => {
      if (Math.max(near[a], near[b]) < least || Math.min(near[a], near[b]) > most) return false;
      let sum = 0;
      for (let c = 0; c < 3; c++) sum += (positions[3 * a + c] - positions[3 * b + c]) ** 2;
      return sum > size * size;
    };
    const next = await halvedWhere(made, wants, () => context.breathe());
    if (next === made) break;
    context.claim('faces', faceCount(next), 'the number of faces before it, or raise Grain and Glow width');
    made = next;
  }
  return made;
}

/** A mesh that glows along the edge. @param away metres of each vertex from the edge */
function withGlow(mesh: Mesh, away: Float64Array, p: RevealParams): Mesh {
  const glow = Float32Array.from(away, (d, i) => {
    const near = d < 0 ? 1 : Math.max(0, 1 - d / p.width);
    return Math.max(p.glow * near * near, mesh.glow?.[i] ?? 0);
  });
  return { ...mesh, glow };
}

/** Paths of which only the parts show where the front has passed: each may fall into several. */
async function revealedPaths(paths: Paths, p: RevealParams, context: StepContext): Promise<Paths> {
  const values = pointValues(paths, p.by === 'front' ? 'tip' : p.attribute);
  if (!values) throw missing(p);
  const edges = edgesOf(p);
  const field = Float64Array.from(values, (value) => Math.min(...edges(value)));
  const sources: number[] = [];
  const windows: (readonly [number, number])[] = [];
  for (let path = 0; path < pathCount(paths); path++) {
    if (path % 512 === 511) await context.breathe();
    const found = windowsOf(paths, path, field);
    for (const window of found.length > 0 ? found : [[0, 0] as const]) {
      sources.push(path);
      windows.push(window);
    }
  }
  const pieces = repeated(paths, sources);
  context.claim('points', pieces.s.length, 'the number of points before it');
  const cut = cutPaths(pieces, (k) => windows[k]);
  windows.forEach(([from, to], k) => (cut.fronts[k] = (from > 0 ? NEAR : 0) | (to < 1 ? FAR : 0) || FAR));
  if (p.soft === 0) return cut;
  const now = pointValues(cut, p.by === 'front' ? 'tip' : p.attribute)!;
  return {
    ...cut,
    size: cut.size.map((size, i) => {
      const t = Math.min(1, Math.max(0, Math.min(...edges(now[i])) / p.soft));
      return size * t * (2 - t);
    }),
  };
}

/** Shares of a path's length between which its field is not below 0. */
function windowsOf(paths: Paths, path: number, field: Float64Array): (readonly [number, number])[] {
  const [a, b] = [paths.offsets[path], paths.offsets[path + 1]];
  const closed = paths.closed[path] === 1;
  const lengths = arcLengths(paths.positions, a, b, closed);
  const total = lengths[lengths.length - 1];
  if (!(total > 0)) return b > a && field[a] >= 0 ? [[0, 1]] : [];
  const found: [number, number][] = [];
  let from = field[a] >= 0 ? 0 : -1;
  const corners = b - a + (closed ? 1 : 0);
  for (let k = 1; k < corners; k++) {
    const [before, here] = [field[a + k - 1], field[a + (k % (b - a))]];
    if (before >= 0 === here >= 0) continue;
    const share = (lengths[k - 1] + ((lengths[k] - lengths[k - 1]) * before) / (before - here)) / total;
    if (here >= 0) from = share;
    else {
      found.push([from, share]);
      from = -1;
    }
  }
  if (from >= 0) found.push([from, 1]);
  // Over the seam of a closed path the last part goes on into the first.
  if (closed && found.length > 1 && found[0][0] === 0 && found[found.length - 1][1] === 1) {
    const [, end] = found.shift()!;
    found[found.length - 1][1] = 1 + end;
  }
  return found;
}

/** Paths by their numbers, any of them several times: what comes again gets an id of its own. */
function repeated(paths: Paths, sources: readonly number[]): Paths {
  const points: number[] = [];
  const offsets = new Uint32Array(sources.length + 1);
  sources.forEach((path, k) => {
    for (let i = paths.offsets[path]; i < paths.offsets[path + 1]; i++) points.push(i);
    offsets[k + 1] = points.length;
  });
  const onPoints = picked(PATHS, paths, 'point', points);
  const made: Paths = { ...paths, ...onPoints, ...picked(PATHS, { ...paths, ...onPoints }, 'path', sources), offsets };
  let next = paths.ids.reduce((top, id) => Math.max(top, id), 0) + 1;
  sources.forEach((path, k) => {
    if (k > 0 && sources[k - 1] === path) made.ids[k] = next++;
  });
  return { ...made, uncut: null };
}
