/**
 * Makes the forms that come with Uvrex from signed distances: `npx tsx scripts/forms.ts`. Each is drawn on a grid by marching
 * tetrahedra (Doi and Koide, An efficient method of triangulating equi-valued surfaces, IEICE E74, 1991), reduced, and written as
 * binary PLY.
 */
import { writeFileSync } from 'node:fs';
import { MeshoptSimplifier } from 'meshoptimizer';
import { withoutFins } from '../packages/core/src/forms/fins';
import { opennessOf } from '../packages/core/src/surfaces/edit/openness';
import { noise3 } from '../packages/core/src/fields/noise';

type Point = readonly [number, number, number];
type Distance = (p: Point) => number;

const length = (...of: number[]): number => Math.hypot(...of);
const mix = (a: number, b: number, t: number): number => a + (b - a) * t;
const clamp = (x: number, low = 0, high = 1): number => Math.min(high, Math.max(low, x));
/** Distance to two forms melted together over a width (Quilez, Smooth minimum). */
const melted = (a: number, b: number, width: number): number => {
  const h = clamp(0.5 + (0.5 * (b - a)) / width);
  return mix(b, a, h) - width * h * (1 - h);
};
const ellipsoid = ([x, y, z]: Point, [cx, cy, cz]: Point, [rx, ry, rz]: Point): number => {
  const [a, b, c] = [(x - cx) / rx, (y - cy) / ry, (z - cz) / rz];
  const k = length(a, b, c);
  return (k * (k - 1)) / Math.max(1e-6, length(a / rx, b / ry, c / rz));
};
/** Distance to a limb that grows from one radius to another. */
const limb = ([x, y, z]: Point, [ax, ay, az]: Point, [bx, by, bz]: Point, from: number, to: number): number => {
  const [dx, dy, dz] = [bx - ax, by - ay, bz - az];
  const t = clamp(((x - ax) * dx + (y - ay) * dy + (z - az) * dz) / (dx * dx + dy * dy + dz * dz));
  return length(x - ax - t * dx, y - ay - t * dy, z - az - t * dz) - mix(from, to, t);
};
const out = new Float64Array(3);
const noise = (p: Point, size: number, detail: number, seed: number): number => {
  noise3(p[0] / size, p[1] / size, p[2] / size, 0, { detail, roughness: 0.5, seed, period: 0 }, out);
  return out[0];
};

/** A weathered rock: lumps melted together, layered and pitted, on a flat foot. */
const rock: Distance = (p) => {
  const [x, y, z] = p;
  const warped: Point = [
    x + 0.12 * noise(p, 0.9, 2, 3),
    y + 0.08 * noise(p, 0.8, 2, 5),
    z + 0.12 * noise(p, 0.9, 2, 7),
  ];
  let d = ellipsoid(warped, [0, 0.42, 0], [0.72, 0.5, 0.6]);
  d = melted(d, ellipsoid(warped, [0.42, 0.3, 0.22], [0.46, 0.36, 0.42]), 0.18);
  d = melted(d, ellipsoid(warped, [-0.46, 0.26, -0.1], [0.4, 0.3, 0.44]), 0.16);
  d = melted(d, ellipsoid(warped, [-0.1, 0.88, -0.08], [0.32, 0.3, 0.3]), 0.16);
  d -= 0.075 * noise(p, 0.42, 4, 11) + 0.022 * (1 - 2 * Math.abs(noise(p, 0.16, 2, 13)));
  // Layers, leaning a little, and hollows that the swell has worn.
  d += 0.014 * Math.sin(34 * (y + 0.18 * x - 0.1 * z) + 3 * noise(p, 0.5, 2, 17));
  d = -melted(-d, ellipsoid(warped, [0.22, 0.56, 0.66], [0.2, 0.15, 0.22]), 0.1);
  return Math.max(d, -y);
};

/** A ship's propeller of four blades on a hub that runs along Z. */
const propeller: Distance = (p) => {
  const [x, y, z] = [p[0], p[1] - 1, p[2]];
  const r = length(x, y);
  const angle = Math.atan2(y, x);
  let d = ellipsoid([x, y, z], [0, 0, 0.02], [0.2, 0.2, 0.34]);
  d = melted(d, limb([x, y, z], [0, 0, -0.34], [0, 0, 0.1], 0.15, 0.19), 0.05);
  // Helicoids of one pitch: further out the blades lie flatter.
  const turn = (2 * Math.PI) / 1.5;
  const share = clamp((r - 0.14) / 0.86);
  const width = 0.06 + 0.56 * Math.sin(Math.PI * Math.min(1, share ** 0.75 * 0.86 + 0.1)) ** 0.8;
  const thick = mix(0.05, 0.011, share ** 0.7);
  const along = z * Math.sqrt(1 + (r * turn) ** 2);
  for (let k = 0; k < 4; k++) {
    const raked = angle - (k * Math.PI) / 2 - 0.5 * share ** 2 - turn * z;
    const off = Math.atan2(Math.sin(raked), Math.cos(raked));
    const across = (off * r) / Math.sqrt(1 + (r * turn) ** 2);
    const edge = along / (width / 2);
    const face = Math.abs(across) - thick * (1 - Math.min(1, edge * edge)) - 0.016;
    const blade = -melted(-face, width / 2 - Math.abs(along), 0.012);
    d = melted(d, Math.max(blade, r - 1, 0.1 - r), 0.045);
  }
  return d;
};

/** A figure that leans into the wind over the scroll of a bow. */
const figurehead: Distance = (p) => {
  // All of it leans forwards, more the higher it is.
  const lean = 0.34 * Math.max(0, p[1] - 0.2) ** 1.25;
  const q: Point = [p[0], p[1], p[2] - lean];
  const [x, y, z] = q;
  const angle = Math.atan2(z, x);
  // The gown: wide at its foot, in folds that fade towards the waist.
  const low = clamp((1.02 - y) / 0.85);
  const folds =
    0.028 * low * Math.sin(11 * angle + 5 * y + 1.5 * noise(q, 0.4, 2, 3)) + 0.012 * low * Math.sin(23 * angle - 7 * y);
  const radius = 0.155 + 0.2 * low ** 1.6 + folds;
  let d = Math.max((length(x * 1.05, z) - radius) * 0.75, y - 1.06, 0.2 - y);
  // Waist, chest, shoulders, neck and head.
  d = melted(d, ellipsoid(q, [0, 1.1, 0], [0.165, 0.24, 0.13]), 0.08);
  d = melted(d, ellipsoid(q, [0, 1.3, 0.02], [0.2, 0.16, 0.14]), 0.07);
  for (const side of [-1, 1]) {
    d = melted(d, ellipsoid(q, [side * 0.085, 1.27, 0.11], [0.082, 0.085, 0.075]), 0.03);
    d = melted(d, ellipsoid(q, [side * 0.2, 1.38, 0], [0.085, 0.075, 0.08]), 0.05);
    // Arms that cross below the heart.
    d = melted(d, limb(q, [side * 0.235, 1.37, 0], [side * 0.26, 1.12, 0.07], 0.068, 0.055), 0.03);
    d = melted(d, limb(q, [side * 0.26, 1.12, 0.07], [side * -0.03, 1.17 + 0.025 * side, 0.19], 0.053, 0.035), 0.02);
    d = melted(d, ellipsoid(q, [side * -0.075, 1.185 + 0.025 * side, 0.195], [0.052, 0.024, 0.034]), 0.015);
  }
  d = melted(d, limb(q, [0, 1.4, 0], [0, 1.56, 0.03], 0.075, 0.062), 0.04);
  d = melted(d, ellipsoid(q, [0, 1.69, 0.05], [0.098, 0.128, 0.112]), 0.02);
  d = melted(d, limb(q, [0, 1.715, 0.15], [0, 1.662, 0.182], 0.014, 0.022), 0.014);
  d = melted(d, ellipsoid(q, [0, 1.615, 0.135], [0.034, 0.013, 0.02]), 0.01);
  d = melted(d, ellipsoid(q, [0, 1.572, 0.118], [0.036, 0.028, 0.03]), 0.02);
  for (const side of [-1, 1]) d = -melted(-d, ellipsoid(q, [side * 0.043, 1.705, 0.158], [0.024, 0.014, 0.018]), 0.012);
  // Hair that streams back, in strands.
  const strand = 0.012 * Math.sin(42 * Math.atan2(x, y - 1.66) + 9 * z) + 0.01 * Math.sin(26 * x + 14 * z);
  let hair = ellipsoid(q, [0, 1.74, 0.015], [0.116, 0.115, 0.125]);
  hair = melted(hair, limb(q, [0, 1.72, -0.06], [0, 1.42, -0.2], 0.11, 0.085), 0.06);
  hair = melted(hair, limb(q, [0, 1.42, -0.2], [0.02, 1.08, -0.26], 0.085, 0.03), 0.05);
  d = melted(d, Math.max(hair - strand, z - 0.105 - 0.6 * Math.max(0, y - 1.74)), 0.012);
  // A sash, and the scroll of the bow below.
  d = melted(d, Math.abs(length(length(x, z * 1.15) - 0.165, 1.4 * (y - 0.98 - 0.1 * x))) - 0.026, 0.015);
  const scroll: Point = [p[0], p[1] - 0.2, p[2] - 0.1];
  const spiral = length(scroll[1], scroll[2]);
  const phase = Math.atan2(scroll[1], scroll[2]);
  const turns = Math.round((spiral - 0.028 * (phase / (2 * Math.PI)) * 2.2) / 0.062);
  const ring = Math.abs(spiral - (turns * 0.062 + 0.028 * (phase / (2 * Math.PI)) * 2.2)) - 0.022;
  const whole = Math.max(spiral - 0.215, Math.abs(scroll[0]) - 0.13);
  d = melted(d, Math.max(whole, Math.min(ring, spiral - 0.19) * 0.8), 0.02);
  return d;
};

/** A cube's corners by their numbers, and the six tetrahedra about the diagonal from 0 to 7 that it is cut into. */
const TETRAHEDRA = [
  [0, 1, 3, 7],
  [0, 3, 2, 7],
  [0, 2, 6, 7],
  [0, 6, 4, 7],
  [0, 4, 5, 7],
  [0, 5, 1, 7],
];

/** The surface on which a distance is 0: closed, each edge in two faces, however thin the form is. */
function isosurface(
  distance: Distance,
  low: Point,
  high: Point,
  step: number,
): { positions: number[]; indices: number[] } {
  const size = [0, 1, 2].map((c) => Math.ceil((high[c] - low[c]) / step) + 1);
  const at = (i: number, j: number, k: number): number => i + size[0] * (j + size[1] * k);
  const field = new Float64Array(size[0] * size[1] * size[2]);
  for (let k = 0; k < size[2]; k++)
    for (let j = 0; j < size[1]; j++)
      for (let i = 0; i < size[0]; i++)
        // Never 0: no corner of the grid lies on the surface.
        field[at(i, j, k)] = distance([low[0] + i * step, low[1] + j * step, low[2] + k * step]) || 1e-12;
  const positions: number[] = [];
  const indices: number[] = [];
  const vertices = new Map<number, number>();
  const place = (n: number): number[] => [
    n % size[0],
    Math.floor(n / size[0]) % size[1],
    Math.floor(n / (size[0] * size[1])),
  ];
  /** The vertex between two corners of the grid, one of which lies inside. */
  const between = (a: number, b: number): number => {
    const [p, q] = a < b ? [a, b] : [b, a];
    const key = p * field.length + q;
    let found = vertices.get(key);
    if (found === undefined) {
      // Not too near to a corner, where slivers would fall together.
      const t = Math.min(0.95, Math.max(0.05, field[p] / (field[p] - field[q])));
      const [u, v] = [place(p), place(q)];
      vertices.set(key, (found = positions.length / 3));
      positions.push(...u.map((x, c) => low[c] + step * mix(x, v[c], t)));
    }
    return found;
  };
  for (let k = 0; k + 1 < size[2]; k++)
    for (let j = 0; j + 1 < size[1]; j++)
      for (let i = 0; i + 1 < size[0]; i++) {
        const corner = (n: number): number => at(i + (n & 1), j + ((n >> 1) & 1), k + (n >> 2));
        if (new Set(Array.from({ length: 8 }, (_, n) => field[corner(n)] < 0)).size < 2) continue;
        for (const tetrahedron of TETRAHEDRA) {
          const own = tetrahedron.map(corner);
          const inside = own.filter((n) => field[n] < 0);
          const outside = own.filter((n) => field[n] >= 0);
          if (inside.length === 0 || outside.length === 0) continue;
          const ring =
            inside.length === 2
              ? [
                  between(inside[0], outside[0]),
                  between(inside[0], outside[1]),
                  between(inside[1], outside[1]),
                  between(inside[1], outside[0]),
                ]
              : inside.flatMap((a) => outside.map((b) => between(a, b)));
          // Anticlockwise as seen from outside.
          const [a, b, c] = ring.slice(0, 3).map((n) => positions.slice(3 * n, 3 * n + 3));
          const [u, v] = [b, c].map((p) => p.map((x, n) => x - a[n]));
          const normal = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
          const [from, to] = [place(inside[0]), place(outside[0])];
          if (normal.reduce((sum, x, n) => sum + x * (to[n] - from[n]), 0) < 0) ring.reverse();
          for (let n = 2; n < ring.length; n++) indices.push(ring[0], ring[n - 1], ring[n]);
        }
      }
  return { positions, indices };
}

/** Evens a net out: each vertex goes to the middle of its neighbours, and from there back onto the surface, by Newton's step. */
function evened(
  distance: Distance,
  positions: number[],
  indices: readonly number[],
  step: number,
  rounds: number,
): void {
  const n = positions.length / 3;
  const h = 0.05 * step;
  for (let round = 0; round < rounds; round++) {
    const sums = new Float64Array(positions.length);
    const counts = new Uint32Array(n);
    for (let i = 0; i < indices.length; i++) {
      const [a, b] = [indices[i], indices[i - (i % 3) + ((i + 1) % 3)]];
      counts[a]++;
      for (let c = 0; c < 3; c++) sums[3 * a + c] += positions[3 * b + c];
    }
    for (let i = 0; i < n; i++) {
      const p = [0, 1, 2].map((c) => sums[3 * i + c] / counts[i]) as unknown as Point;
      const here = distance(p);
      const slope = [0, 1, 2].map((c) => {
        const q = [...p] as [number, number, number];
        q[c] += h;
        return (distance(q) - here) / h;
      });
      const square = slope[0] ** 2 + slope[1] ** 2 + slope[2] ** 2;
      for (let c = 0; c < 3; c++) {
        const back = square > 1e-6 ? (here * slope[c]) / square : 0;
        // At sharp edges the step may lead far off.
        positions[3 * i + c] = p[c] - Math.min(step / 2, Math.max(-step / 2, back));
      }
    }
  }
}

/** Binary PLY of positions and triangles, Y up as all that comes with Uvrex. */
function ply(positions: Float32Array, indices: Uint32Array): Uint8Array {
  const head = `ply\nformat binary_little_endian 1.0\ncomment made from signed distances by scripts/forms.ts\nelement vertex ${positions.length / 3}\nproperty float x\nproperty float y\nproperty float z\nelement face ${indices.length / 3}\nproperty list uchar int vertex_indices\nend_header\n`;
  const bytes = new Uint8Array(head.length + 4 * positions.length + (13 * indices.length) / 3);
  bytes.set(new TextEncoder().encode(head));
  const view = new DataView(bytes.buffer);
  let write = head.length;
  for (let i = 0; i < positions.length; i += 3)
    // Files of this kind mostly have Z up, and are taken so.
    for (const value of [positions[i], -positions[i + 2], positions[i + 1]]) {
      view.setFloat32(write, value, true);
      write += 4;
    }
  for (let i = 0; i < indices.length; i += 3) {
    bytes[write++] = 3;
    for (let c = 0; c < 3; c++) {
      view.setInt32(write, indices[i + c], true);
      write += 4;
    }
  }
  return bytes;
}

const FORMS: Record<string, { of: Distance; low: Point; high: Point; step: number; faces: number; even: number }> = {
  'reef-rock': { of: rock, low: [-1.2, -0.1, -1.1], high: [1.2, 1.4, 1.1], step: 0.016, faces: 19_000, even: 3 },
  propeller: { of: propeller, low: [-1.1, -0.1, -0.6], high: [1.1, 2.1, 0.6], step: 0.008, faces: 19_000, even: 3 },
  figurehead: { of: figurehead, low: [-0.7, -0.1, -0.7], high: [0.7, 2, 1], step: 0.0095, faces: 19_500, even: 0 },
};

/** A form with about so many faces, closed, each edge in two of them. */
function made({ of, low, high, step, faces, even }: (typeof FORMS)[string]): {
  positions: Float32Array;
  indices: Uint32Array;
} {
  // Now and then two sheets are brought together at an edge: a few faces fewer, or a slightly wider grid, and they are not.
  for (let wider = 1; ; wider *= 1.017) {
    const net = isosurface(of, low, high, step * wider);
    evened(of, net.positions, net.indices, step, even);
    const positions = Float32Array.from(net.positions);
    for (let goal = faces; goal > 0.95 * faces; goal -= 60) {
      const [simple] = MeshoptSimplifier.simplify(Uint32Array.from(net.indices), positions, 3, 3 * goal, 0.02, [
        'Prune',
      ]);
      const indices = withoutFins(simple);
      if (opennessOf({ positions, indices }) === null) return { positions, indices };
    }
  }
}

await MeshoptSimplifier.ready;
for (const [name, form] of Object.entries(FORMS)) {
  const { positions, indices } = made(form);
  const used = new Map<number, number>();
  const kept: number[] = [];
  const renumbered = Uint32Array.from(indices, (i) => {
    let number = used.get(i);
    if (number === undefined) {
      used.set(i, (number = used.size));
      kept.push(positions[3 * i], positions[3 * i + 1], positions[3 * i + 2]);
    }
    return number;
  });
  const bytes = ply(Float32Array.from(kept), renumbered);
  writeFileSync(new URL(`../examples/assets/${name}.ply`, import.meta.url), bytes);
  console.log(`${name}: ${renumbered.length / 3} faces, ${(bytes.length / 1000).toFixed(0)} kB`);
}
