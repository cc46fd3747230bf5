import { random } from '../../fields/random';
import type { Form } from '../../geometry/form';
import { gradientTable, linearRgb, type Stop } from '../../geometry/gradient';
import type { Mesh } from '../../geometry/mesh';
import type { StepContext } from '../declare';
import type { FinishParams } from './finish';

const TABLE = 256;

/** Tables of gradients that have been met: a gradient seldom changes from frame to frame. */
const tables = new WeakMap<readonly Stop[], Float32Array>();

function tableOf(gradient: readonly Stop[]): Float32Array {
  let table = tables.get(gradient);
  if (!table) tables.set(gradient, (table = gradientTable(gradient, TABLE)));
  return table;
}

/** A form whose skin has colours, and a surface that says how it takes the light. */
export async function runFinish(form: Form, p: FinishParams, context: StepContext): Promise<Form> {
  const mesh = p.by === 'attribute' ? await apartFor(form.mesh!, p.attribute, context) : form.mesh!;
  const table = tableOf(p.gradient);
  const n = mesh.positions.length / 3;
  const place = p.by === 'attribute' ? await byAttribute(mesh, p) : placesBy(p.by, p.fade, mesh, context.seed);
  const colors = new Float32Array(3 * n);
  // What glows already, as an edge that has been cut, goes on.
  const lit = p.glow > 0 ? await lightOf(mesh, p) : null;
  const glow = lit ? (mesh.glow?.slice() ?? new Float32Array(n)) : mesh.glow;
  for (let i = 0; i < n; i++) {
    if (mesh.finished && mesh.colors && mesh.finished[i] > 0.5) {
      for (let c = 3 * i; c < 3 * i + 3; c++) colors[c] = mesh.colors[c];
      continue;
    }
    const k = 3 * Math.round(place(i) * (TABLE - 1));
    colors[3 * i] = table[k];
    colors[3 * i + 1] = table[k + 1];
    colors[3 * i + 2] = table[k + 2];
    // Falls off with the square: bright, with a soft tail.
    if (glow && lit) glow[i] = Math.max(glow[i], p.glow * lit(i) ** 2);
  }
  return {
    ...form,
    mesh: { ...mesh, colors, glow },
    surface: {
      roughness: p.roughness,
      glowColor: p.glow > 0 || !form.surface ? linearRgb(p.glowColor) : form.surface.glowColor,
      glowReach: p.glowBy === 'tip' ? p.glowLength : 0,
      picture: form.surface?.picture ?? null,
    },
  };
}

/** A skin whose faces can have colours of their own, where these go by what faces know. */
async function apartFor(mesh: Mesh, attribute: string, context: StepContext): Promise<Mesh> {
  if (mesh.named[attribute]?.domain !== 'face') return mesh;
  context.claim('points', mesh.indices.length, 'the number of faces of the skin');
  const { facesApart } = await import('../../geometry/topology/faceAttributes');
  return facesApart(mesh);
}

/** How much of the light each vertex gives off, 0..1; null where nothing tells. */
async function lightOf(
  mesh: Mesh,
  p: { glowBy: string; glowAttribute: string; glowLength: number },
): Promise<((vertex: number) => number) | null> {
  if (p.glowBy === 'attribute') return byAttribute(mesh, { attribute: p.glowAttribute, firstAt: 0, lastAt: 1 });
  const { tip } = mesh;
  if (!tip) return null;
  return (i) => {
    const near = 1 - tip[i] / p.glowLength;
    // A front over a surface has what lies ahead of it as well: that is dark.
    return near <= 1 ? Math.max(0, near) : 0;
  };
}

/** Position 0..1 in the gradient of each vertex, by an attribute. */
async function byAttribute(
  mesh: Mesh,
  p: { attribute: string; firstAt: number; lastAt: number },
): Promise<(vertex: number) => number> {
  const { unwritten, vertexValues } = await import('../../geometry/meshAttributes');
  const values = vertexValues(mesh, p.attribute);
  if (!values) throw unwritten(p.attribute);
  const run = p.lastAt - p.firstAt;
  return (i) => Math.min(1, Math.max(0, run === 0 ? (values[i] >= p.lastAt ? 1 : 0) : (values[i] - p.firstAt) / run));
}

/** Position 0..1 in the gradient of each vertex, to be asked in rising order. */
function placesBy(by: string, fade: number, mesh: Mesh, seed: number): (vertex: number) => number {
  const { u, tip, parts, level, age, positions } = mesh;
  if (by === 'age') return (i) => (age ? Math.min(1, Math.max(0, age[i] / fade)) : 0);
  // A window over the seam of a closed path counts on past 1.
  if (by === 'rest' || !parts || !tip) return (i) => (u ? (u[i] > 1 ? u[i] - 1 : u[i]) : 0);
  const count = parts.length / 2;
  const ends = Array.from({ length: count }, (_, k) => (k + 1 < count ? parts[2 * k + 2] : positions.length / 3));
  const lengths = ends.map((end, k) => {
    let length = 0;
    for (let i = parts[2 * k]; i < end; i++) if (tip[i] > length) length = tip[i];
    return length;
  });
  let part = 0;
  return (i) => {
    while (part < count - 1 && i >= ends[part]) part++;
    if (by === 'level') return level ? level[part] : 1;
    if (by === 'grown') return lengths[part] > 0 ? 1 - tip[i] / lengths[part] : 0;
    return by === 'random' ? random(seed, parts[2 * part + 1], 6) : count > 1 ? part / (count - 1) : 0;
  };
}
