// Draws the pictures that come with Uvrex: a leaf, a sheet of two rows of two, and a relief.
// npx tsx scripts/pictureFiles.ts

import { encode } from 'fast-png';
import { writeFile } from 'node:fs/promises';
import { noise3 } from '../packages/core/src/fields/noise';

const SIDE = 512;

interface LeafShape {
  /** Half its width, as a share of its cell, at a share of its length. */
  half: (along: number) => number;
  /** Veins from the midrib to each side, and how steeply they rise. */
  veins: number;
  rise: number;
  base: readonly [number, number, number];
  tip: readonly [number, number, number];
  spots: boolean;
}

const pulse = (x: number): number => Math.max(0, Math.sin(Math.PI * x));
const LEAVES: readonly LeafShape[] = [
  // A broad blade with a waved rim.
  {
    half: (t) => 0.4 * pulse(t) ** 0.7 * (1 - 0.35 * t) * (1 + 0.07 * Math.sin(46 * t)),
    ...{ veins: 11, rise: 0.5, base: [34, 92, 58], tip: [150, 196, 78], spots: false },
  },
  // A long one with teeth.
  {
    half: (t) => 0.27 * pulse(t) ** 0.6 * (1 - 0.3 * t) * (0.84 + 0.16 * ((17 * t) % 1)),
    ...{ veins: 17, rise: 0.8, base: [92, 48, 26], tip: [232, 164, 72], spots: false },
  },
  // A round one with spots.
  {
    half: (t) => 0.46 * Math.sqrt(Math.max(0, 1 - (2 * t - 1) ** 2)),
    ...{ veins: 7, rise: 0.25, base: [30, 84, 92], tip: [122, 212, 190], spots: true },
  },
  // A feather: strips on both sides of a midrib.
  {
    half: (t) => 0.44 * pulse(t) ** 0.8 * (1 - 0.25 * t),
    ...{ veins: 21, rise: 0.7, base: [104, 34, 66], tip: [238, 142, 140], spots: false },
  },
];

/** Colour and opacity of a leaf at a place of its cell, x from −0.5 to 0.5 and y from 0 at the stem to 1. */
function colorAt({ half, veins, rise, base, tip, spots }: LeafShape, feather: boolean, x: number, y: number): number[] {
  const t = (y - 0.04) / 0.92;
  const away = Math.abs(x);
  const rib = 0.014 * (1 - 0.7 * y);
  const along = veins * (t - rise * away);
  const cell = along - Math.floor(along);
  const within = t > 0 && t < 1 && away < half(t) && (!feather || away < 0.02 || cell < 0.72);
  if (!within && !(away < rib && y < 0.98)) return [0, 0, 0, 0];
  const vein = Math.min(1, Math.max(0, 1 - Math.min(cell, 1 - cell) / 0.07)) * (1 - away);
  const light = away < rib ? 1 : 0.55 * vein;
  const edge = within ? Math.max(0, 1 - (half(t) - away) / 0.05) : 0;
  const share = Math.min(1, Math.max(0, 0.75 * t + 0.5 * away));
  const spot =
    spots && Math.hypot(((away * 9) % 1) - 0.5, ((y * 9 + Math.floor(away * 9) / 2) % 1) - 0.5) < 0.24 ? 0.45 : 0;
  return [
    ...base.map((value, c) => {
      const own = value + (tip[c] - value) * share;
      const lit = own + (245 - own) * (0.4 * light + spot * 0.5);
      return Math.min(255, lit * (1 - 0.35 * edge));
    }),
    255,
  ];
}

/** Samples a side of each pixel. */
const SAMPLES = 4;
const data = new Uint8Array(4 * 4 * SIDE * SIDE);
for (let row = 0; row < 2 * SIDE; row++)
  for (let column = 0; column < 2 * SIDE; column++) {
    const leaf = 2 * Math.floor(row / SIDE) + Math.floor(column / SIDE);
    const sum = [0, 0, 0, 0];
    for (let k = 0; k < SAMPLES ** 2; k++) {
      const x = ((column % SIDE) + ((k % SAMPLES) + 0.5) / SAMPLES) / SIDE - 0.5;
      const y = 1 - ((row % SIDE) + (Math.floor(k / SAMPLES) + 0.5) / SAMPLES) / SIDE;
      const color = colorAt(LEAVES[leaf], leaf === 3, x, y);
      for (let c = 0; c < 3; c++) sum[c] += color[c] * color[3];
      sum[3] += color[3];
    }
    const at = 4 * (row * 2 * SIDE + column);
    for (let c = 0; c < 3; c++) data[at + c] = sum[3] > 0 ? Math.round(sum[c] / sum[3]) : 0;
    data[at + 3] = Math.round(sum[3] / SAMPLES ** 2);
  }
const write = (name: string, image: Parameters<typeof encode>[0]): Promise<void> =>
  writeFile(`examples/assets/${name}.png`, encode(image));

await write('reef-leaves', { width: 2 * SIDE, height: 2 * SIDE, data, channels: 4, depth: 8 });
const first = new Uint8Array(4 * SIDE * SIDE);
for (let row = 0; row < SIDE; row++) first.set(data.subarray(8 * row * SIDE, (8 * row + 4) * SIDE), 4 * row * SIDE);
await write('reef-leaf', { width: SIDE, height: SIDE, data: first, channels: 4, depth: 8 });

/** Winding ridges as a brain coral has, sinking to all sides; 16 bits, so that no steps show. */
const WIDE = 320;
const relief = new Uint16Array(WIDE * WIDE);
const out = new Float64Array(1);
const shape = { detail: 3, roughness: 0.35, seed: 8, period: 0 };
for (let i = 0; i < relief.length; i++) {
  const [x, y] = [(i % WIDE) / WIDE - 0.5, Math.floor(i / WIDE) / WIDE - 0.5];
  noise3(3.2 * x, 3.2 * y, 0.5, 0, shape, out);
  const dome = Math.max(0, 1 - 4 * (x * x + y * y));
  const ridge = 0.5 + 0.5 * Math.sin(26 * out[0]);
  relief[i] = Math.round(65535 * Math.sqrt(dome) * (0.35 + 0.65 * ridge));
}
await write('reef-relief', { width: WIDE, height: WIDE, data: relief, channels: 1, depth: 16 });
