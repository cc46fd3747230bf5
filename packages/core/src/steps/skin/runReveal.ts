import { cutPaths } from '../../curves/cut';
import { noise3 } from '../../fields/noise';
import { pickColumns } from '../../geometry/carrier';
import { extentOf } from '../../geometry/extent';
import type { Form } from '../../geometry/form';
import { linearRgb } from '../../geometry/gradient';
import { faceCount, type Mesh, vertexCount } from '../../geometry/mesh';
import { unwritten, vertexValues } from '../../geometry/meshAttributes';
import { pointValues } from '../../geometry/pathAttributes';
import { FAR, NEAR, PATHS, type Paths, pathCount } from '../../geometry/paths';
import { Problem } from '../../problem';
import { cutMesh } from '../../surfaces/edit/cutMesh';
import { Refining } from '../../surfaces/edit/refineMesh';
import { arcLengths } from '../../curves/arclength';
import type { StepContext } from '../declare';
import type { RevealParams } from './reveal';

/** Where a thing was on the form at the last frame: its grain stays with it. It is taken off again. */
const REST = 'place at rest';
/** How often edges are halved at most. */
const ROUNDS = 6;

/** A form of which only a part shows. */
export async function runReveal(form: Form, p: RevealParams, context: StepContext): Promise<Form> {
  const mesh = form.mesh && (await revealedMesh(form.mesh, p, context));
  const paths = form.paths && !form.mesh ? await revealedPaths(form.paths, p, context) : form.paths;
  const surface =
    mesh && p.glow > 0
      ? {
          roughness: form.surface?.roughness ?? 0.55,
          glowColor: linearRgb(p.color),
          glowReach: p.width,
          picture: form.surface?.picture ?? null,
        }
      : form.surface;
  const extent = paths === form.paths ? form.extent : (form.extent ?? (form.paths && extentOf(form.paths)));
  return { ...form, mesh, paths, surface, extent };
}

/** What is there, by the values that it goes by: where both of these are not below 0. */
interface Edges {
  near(value: number): number;
  /** Null where what is there has no end. */
  far: ((value: number) => number) | null;
}

function edgesOf({ by, invert, level, behind, band }: RevealParams): Edges {
  const side = invert ? -1 : 1;
  const [edge, end] = by === 'attribute' ? [level, 0] : [behind, band];
  if (end === 0) return { near: (value) => side * (value - edge), far: null };
  if (invert) return { near: (value) => Math.max(edge - value, value - edge - end), far: null };
  return { near: (value) => value - edge, far: (value) => edge + end - value };
}

/** The edges as one. */
const nearest = ({ near, far }: Edges): ((value: number) => number) =>
  far ? (value) => Math.min(near(value), far(value)) : near;

function each(values: ArrayLike<number>, f: (value: number) => number): Float64Array {
  const out = new Float64Array(values.length);
  for (let i = 0; i < out.length; i++) out[i] = f(values[i]);
  return out;
}

const missing = (p: RevealParams): Problem =>
  p.by === 'front'
    ? new Problem('No front spreads over it.', 'Add Front before this step, or let it go by an attribute.')
    : unwritten(p.attribute);

async function revealedMesh(mesh: Mesh, p: RevealParams, context: StepContext): Promise<Mesh> {
  const name = p.by === 'front' ? 'tip' : p.attribute;
  if (!vertexValues(mesh, name)) throw missing(p);
  const yieldNow = (): Promise<void> => context.yieldNow();
  const edges = edgesOf(p);
  const fine = p.dissolve > 0 || p.glow > 0 ? await refined(await resting(mesh, context), name, p, context) : mesh;
  const field = each(vertexValues(fine, name)!, edges.near);
  let glowing = fine;
  if (p.dissolve > 0) {
    // Metres from the edge: through grains it turns about as fast as they do.
    const metres = 1 / (1 / p.dissolve + 1.5 / p.grain);
    const most = p.dissolve * (1 + (p.glow > 0 ? p.width / metres : 0));
    const grains = grainsOf(fine, field, most, p.grain, context.seed);
    for (let i = 0; i < field.length; i++) field[i] = field[i] / p.dissolve - grains[i];
    if (p.glow > 0) glowing = withGlow(fine, field, metres, p);
  } else if (p.glow > 0) glowing = withGlow(fine, field, 1, p);
  const cut = await cutMesh(withoutRest(glowing), field, p.close, yieldNow);
  if (!edges.far) return cut;
  return cutMesh(cut, each(vertexValues(cut, name)!, edges.far), p.close, yieldNow);
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

/**
 * Thresholds 0..1 of the grains at each vertex; 0 where they make no difference: on faces that lie wholly before the edge, or
 * wholly behind all grains and their glow.
 * @param near metres behind the edge
 * @param most metres behind the edge where no grain and no glow is any more
 */
function grainsOf(mesh: Mesh, near: Float64Array, most: number, grain: number, seed: number): Float64Array {
  const { indices } = mesh;
  const wanted = new Uint8Array(near.length);
  for (let i = 0; i < indices.length; i += 3) {
    const a = indices[i];
    const b = indices[i + 1];
    const c = indices[i + 2];
    if ((near[a] < 0 && near[b] < 0 && near[c] < 0) || (near[a] > most && near[b] > most && near[c] > most)) continue;
    wanted[a] = wanted[b] = wanted[c] = 1;
  }
  const rest = mesh.named[REST].values;
  const shape = { detail: 2, roughness: 0.5, seed, period: 0 };
  const out = new Float64Array(1);
  const grains = new Float64Array(near.length);
  for (let i = 0; i < grains.length; i++) {
    if (wanted[i] === 0) continue;
    noise3(rest[3 * i] / grain, rest[3 * i + 1] / grain, rest[3 * i + 2] / grain, 0, shape, out);
    grains[i] = Math.min(1, Math.max(0, 0.5 + 0.8 * out[0]));
  }
  return grains;
}

/** A mesh with small enough faces where grains and glow are to be seen. */
async function refined(mesh: Mesh, name: string, p: RevealParams, context: StepContext): Promise<Mesh> {
  const { near: nearEdge } = edgesOf(p);
  const most = p.dissolve + (p.glow > 0 ? p.width : 0);
  const size = Math.min(p.dissolve > 0 ? p.grain / 2.5 : Infinity, p.glow > 0 ? p.width / 1.5 : Infinity);
  const limit = size * size;
  const refining = new Refining(mesh);
  let among: Uint32Array | null = null;
  // On which side of what is to be refined each vertex lies: 1 before it, 2 behind it, 0 within.
  let sides = new Uint8Array(0);
  for (let round = 0; round < ROUNDS; round++) {
    sides = sidesOf(vertexValues(refining.mesh, name)!, nearEdge, most, sides);
    const { positions } = refining.mesh;
    const beside = sides;
    const wants = (a: number, b: number): boolean => {
      if ((beside[a] & beside[b]) !== 0) return false;
      const x = positions[3 * a] - positions[3 * b];
      const y = positions[3 * a + 1] - positions[3 * b + 1];
      const z = positions[3 * a + 2] - positions[3 * b + 2];
      return x * x + y * y + z * z > limit;
    };
    among = await refining.halve(wants, () => context.yieldNow(), among);
    if (!among) break;
    context.claim('faces', faceCount(refining.mesh), 'the number of faces before it, or raise Grain and Glow width');
  }
  return refining.mesh;
}

/** On which side of a band each value lies; the first ones are known. */
function sidesOf(
  values: ArrayLike<number>,
  near: (value: number) => number,
  most: number,
  known: Uint8Array,
): Uint8Array<ArrayBuffer> {
  const sides = new Uint8Array(values.length);
  sides.set(known);
  for (let i = known.length; i < sides.length; i++) {
    const behind = near(values[i]);
    sides[i] = behind < 0 ? 1 : behind > most ? 2 : 0;
  }
  return sides;
}

/** A mesh that glows along the edge. @param field how far each vertex is from the edge, in so many metres each */
function withGlow(mesh: Mesh, field: Float64Array, metres: number, p: RevealParams): Mesh {
  const glow = mesh.glow ? Float32Array.from(mesh.glow) : new Float32Array(field.length);
  for (let i = 0; i < glow.length; i++) {
    const away = field[i] * metres;
    if (away >= p.width) continue;
    const near = away < 0 ? 1 : 1 - away / p.width;
    glow[i] = Math.max(p.glow * near * near, glow[i]);
  }
  return { ...mesh, glow };
}

/** Paths of which only the parts show where the front has passed: each may fall into several. */
async function revealedPaths(paths: Paths, p: RevealParams, context: StepContext): Promise<Paths> {
  const values = pointValues(paths, p.by === 'front' ? 'tip' : p.attribute);
  if (!values) throw missing(p);
  const edge = nearest(edgesOf(p));
  const field = each(values, edge);
  const sources: number[] = [];
  const windows: (readonly [number, number])[] = [];
  for (let path = 0; path < pathCount(paths); path++) {
    if (path % 512 === 511) await context.yieldNow();
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
      const t = Math.min(1, Math.max(0, edge(now[i]) / p.soft));
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
  const offsets = new Uint32Array(sources.length + 1);
  sources.forEach((path, k) => (offsets[k + 1] = offsets[k] + paths.offsets[path + 1] - paths.offsets[path]));
  const points = new Uint32Array(offsets[sources.length]);
  sources.forEach((path, k) => {
    const shift = paths.offsets[path] - offsets[k];
    for (let i = offsets[k]; i < offsets[k + 1]; i++) points[i] = i + shift;
  });
  const onPoints = pickColumns(PATHS, paths, 'point', points);
  const made: Paths = {
    ...paths,
    ...onPoints,
    ...pickColumns(PATHS, { ...paths, ...onPoints }, 'path', sources),
    offsets,
  };
  let next = paths.ids.reduce((top, id) => Math.max(top, id), 0) + 1;
  sources.forEach((path, k) => {
    if (k > 0 && sources[k - 1] === path) made.ids[k] = next++;
  });
  return { ...made, uncut: null };
}
