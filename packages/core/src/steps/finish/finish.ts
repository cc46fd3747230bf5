import { gradientTable, linearRgb, type Stop } from '../../geometry/gradient';
import { random } from '../../fields/random';
import { type Mesh } from '../../geometry/mesh';
import { defineStep } from '../declare';
import { figure } from '../format';

const TABLE = 256;

/** Tables of gradients that have been met: a gradient seldom changes from frame to frame. */
const tables = new WeakMap<readonly Stop[], Float32Array>();

function tableOf(gradient: readonly Stop[]): Float32Array {
  let table = tables.get(gradient);
  if (!table) tables.set(gradient, (table = gradientTable(gradient, TABLE)));
  return table;
}

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
      help: 'What a place is coloured by: its rest coordinate, which stays while the path grows; its place in the grown part; the time since the front passed; the level its path stands at; or one colour for each path.',
      options: [
        { value: 'rest', label: 'Whole path' },
        { value: 'grown', label: 'Grown part' },
        { value: 'age', label: 'Time since front' },
        { value: 'level', label: 'Level' },
        { value: 'order', label: 'Path by path' },
        { value: 'random', label: 'Path at random' },
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
      label: 'Tip glow',
      help: 'Light that the growing tip gives off.',
      default: 0.6,
      min: 0,
      max: 4,
      slider: [0, 2],
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
      shown: (p) => Number(p.glow) !== 0,
    },
    glowColor: {
      type: 'color',
      label: 'Glow colour',
      help: 'Colour of that light.',
      default: '#ff8a5b',
      shown: (p) => Number(p.glow) !== 0,
    },
  },
  wants: (p) => (p.by === 'age' ? ['age'] : []),
  summary: (p) => `${p.gradient.length} colours${p.glow > 0 ? ', glowing tip' : ''}, roughness ${figure(p.roughness)}`,
  run(form, p, context) {
    const mesh = form.mesh!;
    const table = tableOf(p.gradient);
    const n = mesh.positions.length / 3;
    const place = placesBy(p.by, p.fade, mesh, context.seed);
    const colors = new Float32Array(3 * n);
    const glow = p.glow > 0 && mesh.tip ? new Float32Array(n) : null;
    for (let i = 0; i < n; i++) {
      const k = 3 * Math.round(place(i) * (TABLE - 1));
      colors[3 * i] = table[k];
      colors[3 * i + 1] = table[k + 1];
      colors[3 * i + 2] = table[k + 2];
      if (glow) {
        // Falls off with the square: a bright tip with a soft tail.
        const near = 1 - mesh.tip![i] / p.glowLength;
        if (near > 0) glow[i] = p.glow * near * near;
      }
    }
    return {
      ...form,
      mesh: { ...mesh, colors, glow },
      surface: { roughness: p.roughness, glowColor: linearRgb(p.glowColor), glowReach: p.glowLength },
    };
  },
});

/** Position 0..1 in the gradient of each vertex, to be asked in rising order. */
function placesBy(by: string, fade: number, mesh: Mesh, seed: number): (vertex: number) => number {
  const { u, tip, parts, level, age, positions } = mesh;
  if (by === 'age') return (i) => (age ? Math.min(1, age[i] / fade) : 0);
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
