import { settled32, stir } from './random';

const { floor, imul, sqrt } = Math;

/** Gradients: the 32 edge midpoints of the four-dimensional cube, as in Perlin's improved noise taken to 4D. */
const GRADIENTS = (() => {
  const list: number[] = [];
  for (let zero = 0; zero < 4; zero++) {
    for (let signs = 0; signs < 8; signs++) {
      let bit = 0;
      for (let c = 0; c < 4; c++) list.push(c === zero ? 0 : (signs >> bit++) & 1 ? -1 : 1);
    }
  }
  return new Float64Array(list);
})();

export interface NoiseShape {
  /** Octaves, 1 or more: each has half the size of the one before. */
  detail: number;
  /** How much of an octave's strength the next one has, 0..1. */
  roughness: number;
  seed: number;
  /** Period of the time axis in whole units, or 0 for none: the noise at t + period is exactly the noise at t. */
  period: number;
}

/**
 * Three independent channels of gradient noise over space and time, centred on zero. Ken Perlin, Improving noise,
 * SIGGRAPH 2002, in four dimensions with a hashed lattice; octaves are normalised so that `detail` keeps the strength.
 * @param x,y,z place in units of the feature size
 * @param t time in units of one change
 * @param out receives three values, each about −1..1; the first alone where it has room for one
 * @param slopes receives how each of three values grows along x, y and z, channel by channel: nine numbers
 */
export function noise3(
  x: number,
  y: number,
  z: number,
  t: number,
  shape: NoiseShape,
  out: Float64Array,
  slopes: Float64Array | null = null,
): void {
  for (let channel = 0; channel < out.length; channel++) out[channel] = 0;
  for (let i = 0; slopes && i < 9; i++) slopes[i] = 0;
  let gain = 1;
  let total = 0;
  let frequency = 1;
  for (let octave = 0; octave < shape.detail; octave++) {
    lattice(
      x * frequency,
      y * frequency,
      z * frequency,
      t * frequency,
      shape.seed + octave * 7919,
      shape.period * frequency,
      gain,
      out,
      slopes,
      frequency,
    );
    total += gain * gain;
    gain *= shape.roughness;
    frequency *= 2;
  }
  // Octaves are independent, so their strengths add as squares.
  const k = 1 / sqrt(total);
  for (let channel = 0; channel < out.length; channel++) out[channel] *= k;
  for (let i = 0; slopes && i < 9; i++) slopes[i] *= k;
}

const fade = (t: number): number => t * t * t * (t * (t * 6 - 15) + 10);
const fadeSlope = (t: number): number => 30 * t * t * (t - 1) * (t - 1);

/** Hashes of the four columns of lattice points about a place, as far as x and y go. */
const COLUMNS = new Int32Array(4);
/** Their weights. */
const WEIGHTS = new Float64Array(4);

function lattice(
  x: number,
  y: number,
  z: number,
  t: number,
  seed: number,
  period: number,
  gain: number,
  out: Float64Array,
  slopes: Float64Array | null,
  frequency: number,
): void {
  const ix = floor(x);
  const iy = floor(y);
  const iz = floor(z);
  const it = floor(t);
  const fx = x - ix;
  const fy = y - iy;
  const fz = z - iz;
  const ft = t - it;
  const wx = fade(fx);
  const wy = fade(fy);
  const wz = fade(fz);
  const wt = fade(ft);
  const one = out.length === 1;
  const sx = slopes ? frequency * fadeSlope(fx) : 0;
  const sy = slopes ? frequency * fadeSlope(fy) : 0;
  const sz = slopes ? frequency * fadeSlope(fz) : 0;
  let a = 0;
  let b = 0;
  let c = 0;
  // How each of them grows along x, y and z.
  let ax = 0;
  let ay = 0;
  let az = 0;
  let bx = 0;
  let by = 0;
  let bz = 0;
  let cx = 0;
  let cy = 0;
  let cz = 0;
  for (let ct = 0; ct < 2; ct++) {
    const kt = gain * (ct ? wt : 1 - wt);
    if (kt === 0) continue;
    const time = it + ct;
    const wrapped = period > 0 ? ((time % period) + period) % period : time;
    const layer = seed ^ imul(wrapped, 0x9e3779b1);
    const dt = ft - ct;
    const near = stir(layer, ix);
    const far = stir(layer, ix + 1);
    COLUMNS[0] = stir(near, iy);
    COLUMNS[1] = stir(far, iy);
    COLUMNS[2] = stir(near, iy + 1);
    COLUMNS[3] = stir(far, iy + 1);
    WEIGHTS[0] = kt * (1 - wx) * (1 - wy);
    WEIGHTS[1] = kt * wx * (1 - wy);
    WEIGHTS[2] = kt * (1 - wx) * wy;
    WEIGHTS[3] = kt * wx * wy;
    for (let corner = 0; corner < 8; corner++) {
      const i = corner & 1;
      const j = (corner >> 1) & 1;
      const l = corner >> 2;
      const kz = l ? wz : 1 - wz;
      const k = WEIGHTS[corner & 3] * kz;
      if (k === 0) continue;
      const h = settled32(stir(COLUMNS[corner & 3], iz + l));
      const dx = fx - i;
      const dy = fy - j;
      const dz = fz - l;
      // Five bits of the hash choose each channel's gradient.
      const ga = 4 * (h & 31);
      const va = GRADIENTS[ga] * dx + GRADIENTS[ga + 1] * dy + GRADIENTS[ga + 2] * dz + GRADIENTS[ga + 3] * dt;
      a += k * va;
      if (one) continue;
      const gb = 4 * ((h >>> 5) & 31);
      const vb = GRADIENTS[gb] * dx + GRADIENTS[gb + 1] * dy + GRADIENTS[gb + 2] * dz + GRADIENTS[gb + 3] * dt;
      b += k * vb;
      const gc = 4 * ((h >>> 10) & 31);
      const vc = GRADIENTS[gc] * dx + GRADIENTS[gc + 1] * dy + GRADIENTS[gc + 2] * dz + GRADIENTS[gc + 3] * dt;
      c += k * vc;
      if (!slopes) continue;
      // Both the gradient's value and its weight change from place to place.
      const along = frequency * k;
      const alongX = (i ? sx : -sx) * kt * (j ? wy : 1 - wy) * kz;
      const alongY = (j ? sy : -sy) * kt * (i ? wx : 1 - wx) * kz;
      const alongZ = (l ? sz : -sz) * WEIGHTS[corner & 3];
      ax += along * GRADIENTS[ga] + alongX * va;
      ay += along * GRADIENTS[ga + 1] + alongY * va;
      az += along * GRADIENTS[ga + 2] + alongZ * va;
      bx += along * GRADIENTS[gb] + alongX * vb;
      by += along * GRADIENTS[gb + 1] + alongY * vb;
      bz += along * GRADIENTS[gb + 2] + alongZ * vb;
      cx += along * GRADIENTS[gc] + alongX * vc;
      cy += along * GRADIENTS[gc + 1] + alongY * vc;
      cz += along * GRADIENTS[gc + 2] + alongZ * vc;
    }
  }
  out[0] += a;
  if (one) return;
  out[1] += b;
  out[2] += c;
  if (!slopes) return;
  slopes[0] += ax;
  slopes[1] += ay;
  slopes[2] += az;
  slopes[3] += bx;
  slopes[4] += by;
  slopes[5] += bz;
  slopes[6] += cx;
  slopes[7] += cy;
  slopes[8] += cz;
}
