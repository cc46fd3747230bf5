import { gradientTable, linearRgb, type Stop } from '../../geometry/gradient';
import { random } from '../../fields/random';
import type { Mesh } from '../../geometry/mesh';
import { defineStep, type Resolved, type StepContext } from '../declare';
import { figure } from '../../format';

const TABLE = 256;

/** Tables of gradients that have been met: a gradient seldom changes from frame to frame. */
const tables = new WeakMap<readonly Stop[], Float32Array>();

function tableOf(gradient: readonly Stop[]): Float32Array {
  let table = tables.get(gradient);
  if (!table) tables.set(gradient, (table = gradientTable(gradient, TABLE)));
  return table;
}

const glows = (p: Resolved): boolean => Number(p.glow) !== 0;

export const finish = defineStep({
  kind: 'finish',
  family: 'finish',
  label: 'Finish',
  icon: 'M4 16C3 8 8 3 16 4 17 12 12 17 4 16ZM4 16 10.5 9.5',
  help: 'Colours the skin along the path, lets the growing tip glow, and sets how matt it is.',
  takes: ['mesh'],
  gives: ['mesh'],
  params: {
    by: {
      type: 'choice',
      label: 'Colour by',
      help: 'What a place is coloured by: its rest coordinate, which stays while the path grows; its place in the grown part; the time since the front passed; the level its path stands at; one colour for each path; or an attribute, such as a front.',
      options: [
        { value: 'rest', label: 'Whole path' },
        { value: 'grown', label: 'Grown part' },
        { value: 'age', label: 'Time since front' },
        { value: 'level', label: 'Level' },
        { value: 'order', label: 'Path by path' },
        { value: 'random', label: 'Path at random' },
        { value: 'attribute', label: 'An attribute' },
      ],
      default: 'rest',
    },
    gradient: {
      type: 'gradient',
      label: 'Colour',
      help: 'From the base to the far end, or from the first path to the last.',
      default: [
        { at: 0, color: '#2f5d3a' },
        { at: 0.55, color: '#8fb84a' },
        { at: 1, color: '#e3f29a' },
      ],
    },
    attribute: {
      type: 'attribute',
      label: 'Attribute',
      help: 'What the colours go by.',
      default: 'front',
      shown: (p) => p.by === 'attribute',
    },
    firstAt: {
      type: 'number',
      unit: 'plain',
      label: 'First colour at',
      help: 'Value of the attribute that has the first colour.',
      default: 0,
      min: -1e6,
      max: 1e6,
      slider: [0, 1],
      shown: (p) => p.by === 'attribute',
    },
    lastAt: {
      type: 'number',
      unit: 'plain',
      label: 'Last colour at',
      help: 'Value of the attribute that has the last colour.',
      default: 1,
      min: -1e6,
      max: 1e6,
      slider: [0, 1],
      shown: (p) => p.by === 'attribute',
    },
    fade: {
      type: 'number',
      unit: 's',
      label: 'Over',
      help: 'Seconds after the front that the colours run over, the first colour at the front.',
      default: 2,
      min: 0.01,
      max: 1000,
      slider: [0.1, 8],
      shown: (p) => p.by === 'age',
    },
    roughness: {
      type: 'number',
      unit: 'share',
      label: 'Roughness',
      help: 'From glossy to matt.',
      default: 0.55,
      min: 0,
      max: 1,
    },
    glow: {
      type: 'number',
      unit: 'share',
      label: 'Glow',
      help: 'Light that the growing tip gives off, or that an attribute says where.',
      default: 0.6,
      min: 0,
      max: 4,
      slider: [0, 2],
    },
    glowBy: {
      type: 'choice',
      label: 'Glows',
      help: 'At the growing tip, or where an attribute comes near to 1.',
      options: [
        { value: 'tip', label: 'At the tip' },
        { value: 'attribute', label: 'By an attribute' },
      ],
      default: 'tip',
      shown: glows,
    },
    glowAttribute: {
      type: 'attribute',
      label: 'Glow attribute',
      help: 'Where it is 1 it glows, where it is 0 it is dark.',
      default: 'pulse',
      shown: (p) => glows(p) && p.glowBy === 'attribute',
    },
    glowLength: {
      type: 'number',
      unit: 'm',
      label: 'Glow length',
      help: 'How far behind the tip the glow reaches.',
      default: 0.25,
      min: 0.001,
      max: 100,
      slider: [0.01, 2],
      shown: (p) => glows(p) && p.glowBy === 'tip',
    },
    glowColor: {
      type: 'color',
      label: 'Glow colour',
      help: 'Colour of that light.',
      default: '#ff8a5b',
      shown: glows,
    },
  },
  wants: (p) => (p.by === 'age' ? ['age'] : []),
  summary: (p) =>
    `${p.gradient.length} colours${p.glow > 0 ? (p.glowBy === 'tip' ? ', glowing tip' : ', glowing') : ''}, roughness ${figure(p.roughness)}`,
  async run(form, p, context) {
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
  },
});

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
