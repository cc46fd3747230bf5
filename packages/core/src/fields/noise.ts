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
  const { detail, roughness, seed, period } = shape;
  const one = out.length === 1;
  let gain = 1;
  let total = 0;
  let frequency = 1;
  for (let octave = 0; octave < detail; octave++) {
    const [own, around] = [seed + octave * 7919, period * frequency];
    if (slopes)
      sloped(x * frequency, y * frequency, z * frequency, t * frequency, own, around, gain, out, slopes, frequency);
    else {
      const before = floor(t * frequency);
      const ft = t * frequency - before;
      const wt = fade(ft);
      AT[0] = x * frequency;
      AT[1] = y * frequency;
      AT[2] = z * frequency;
      sumCorners(layerOf(own, around, before), one, SUMS, 0);
      addLayer(SUMS, 0, gain * (1 - wt), ft, one, out);
      if (wt > 0) {
        sumCorners(layerOf(own, around, before + 1), one, SUMS, 0);
        addLayer(SUMS, 0, gain * wt, ft - 1, one, out);
      }
    }
    total += gain * gain;
    gain *= roughness;
    frequency *= 2;
  }
  // Octaves are independent, so their strengths add as squares.
  const k = 1 / sqrt(total);
  for (let channel = 0; channel < out.length; channel++) out[channel] *= k;
  for (let i = 0; slopes && i < 9; i++) slopes[i] *= k;
}

/** Where the lattice is asked: a place in its units. Not passed on, since numbers that are passed on are boxed. */
const AT = new Float64Array(3);
/** What `sumCorners` leaves. */
const SUMS = new Float64Array(6);

/** The hash of all lattice points of one moment. */
function layerOf(seed: number, period: number, time: number): number {
  const wrapped = period > 0 ? ((time % period) + period) % period : time;
  return seed ^ imul(wrapped, 0x9e3779b1);
}

/**
 * Sums over the corners of the cube round `AT`, in one layer of lattice points of the same moment: of the gradients along x, y and z
 * for each channel, then of those along time. What becomes of them at a moment is left to `addLayer`: they stay while time passes.
 */
function sumCorners(layer: number, one: boolean, out: Float64Array, at: number): void {
  const x = AT[0];
  const y = AT[1];
  const z = AT[2];
  const ix = floor(x);
  const iy = floor(y);
  const iz = floor(z);
  const fx = x - ix;
  const fy = y - iy;
  const fz = z - iz;
  const wx = fade(fx);
  const wy = fade(fy);
  const wz = fade(fz);
  hashColumns(layer, ix, iy);
  WEIGHTS[0] = (1 - wx) * (1 - wy);
  WEIGHTS[1] = wx * (1 - wy);
  WEIGHTS[2] = (1 - wx) * wy;
  WEIGHTS[3] = wx * wy;
  let a = 0;
  let b = 0;
  let c = 0;
  let ta = 0;
  let tb = 0;
  let tc = 0;
  for (let corner = 0; corner < 8; corner++) {
    const l = corner >> 2;
    const column = corner & 3;
    const k = WEIGHTS[column] * (l === 1 ? wz : 1 - wz);
    const h = settled32(stir(COLUMNS[column], iz + l));
    const dx = fx - (corner & 1);
    const dy = fy - ((corner >> 1) & 1);
    const dz = fz - l;
    // Five bits of the hash choose each channel's gradient.
    const ga = (h & 31) << 2;
    a += k * (GRADIENTS[ga] * dx + GRADIENTS[ga + 1] * dy + GRADIENTS[ga + 2] * dz);
    ta += k * GRADIENTS[ga + 3];
    if (one) continue;
    const gb = (h >>> 3) & 124;
    b += k * (GRADIENTS[gb] * dx + GRADIENTS[gb + 1] * dy + GRADIENTS[gb + 2] * dz);
    tb += k * GRADIENTS[gb + 3];
    const gc = (h >>> 8) & 124;
    c += k * (GRADIENTS[gc] * dx + GRADIENTS[gc + 1] * dy + GRADIENTS[gc + 2] * dz);
    tc += k * GRADIENTS[gc + 3];
  }
  out[at] = a;
  out[at + 1] = b;
  out[at + 2] = c;
  out[at + 3] = ta;
  out[at + 4] = tb;
  out[at + 5] = tc;
}

/** Adds a layer to what there is. @param weight of the layer @param dt from its moment to the one that is asked for */
function addLayer(sums: Float64Array, at: number, weight: number, dt: number, one: boolean, out: Float64Array): void {
  out[0] += weight * (sums[at] + dt * sums[at + 3]);
  if (one) return;
  out[1] += weight * (sums[at + 1] + dt * sums[at + 4]);
  out[2] += weight * (sums[at + 2] + dt * sums[at + 5]);
}

/** Places at which a layer is summed between two yields. */
const CHUNK = 2048;
/** Layers that are kept of each octave: those on both sides of a moment, and two of another that is asked for in between. */
const LAYERS = 4;

/**
 * The same noise at places that stay where they are while time passes: sums over the lattice are made once for each unit of time, and a
 * frame only weighs them. It gives the very bytes of `noise3`.
 */
export class SteadyNoise {
  /** Of each octave, what `sumCorners` leaves at each place, by the moment of the layer; the latest last. */
  readonly #layers: Map<number, Float64Array>[];

  /** @param places 3n @param size of a feature, in the places' unit */
  constructor(
    readonly places: Float32Array,
    readonly size: number,
    readonly shape: Readonly<NoiseShape>,
  ) {
    this.#layers = Array.from({ length: shape.detail }, () => new Map());
  }

  /**
   * Prepares a moment; others may be asked for before it has been read.
   * @param t time in units of one change
   * @returns writes the three values at the i-th place
   */
  async at(t: number, yieldNow: () => Promise<void>): Promise<(i: number, out: Float64Array) => void> {
    const { detail, roughness } = this.shape;
    const parts: { sums: Float64Array; weight: number; dt: number }[] = [];
    let gain = 1;
    let frequency = 1;
    let total = 0;
    for (let octave = 0; octave < detail; octave++) {
      const time = floor(t * frequency);
      const dt = t * frequency - time;
      const w = fade(dt);
      parts.push({ sums: await this.#layer(octave, time, yieldNow), weight: gain * (1 - w), dt });
      if (w > 0) parts.push({ sums: await this.#layer(octave, time + 1, yieldNow), weight: gain * w, dt: dt - 1 });
      total += gain * gain;
      gain *= roughness;
      frequency *= 2;
    }
    const k = 1 / sqrt(total);
    return (i, out) => {
      out[0] = out[1] = out[2] = 0;
      for (const { sums, weight, dt } of parts) addLayer(sums, 6 * i, weight, dt, false, out);
      for (let channel = 0; channel < 3; channel++) out[channel] *= k;
    };
  }

  async #layer(octave: number, time: number, yieldNow: () => Promise<void>): Promise<Float64Array> {
    const layers = this.#layers[octave];
    const found = layers.get(time);
    if (found) return found;
    const { places, size, shape } = this;
    const frequency = 2 ** octave;
    const layer = layerOf(shape.seed + octave * 7919, shape.period * frequency, time);
    const sums = new Float64Array(2 * places.length);
    for (let i = 0; i < places.length; i += 3) {
      if (i % (3 * CHUNK) === 0) await yieldNow();
      AT[0] = (places[i] / size) * frequency;
      AT[1] = (places[i + 1] / size) * frequency;
      AT[2] = (places[i + 2] / size) * frequency;
      sumCorners(layer, false, sums, 2 * i);
    }
    layers.set(time, sums);
    if (layers.size > LAYERS) layers.delete(layers.keys().next().value!);
    return sums;
  }
}

const fade = (t: number): number => t * t * t * (t * (t * 6 - 15) + 10);
const fadeSlope = (t: number): number => 30 * t * t * (t - 1) * (t - 1);

/** Hashes of the four columns of lattice points about a place, as far as x and y go. */
const COLUMNS = new Int32Array(4);
/** Their weights. */
const WEIGHTS = new Float64Array(4);

/** Puts the hashes of the four columns about a place into `COLUMNS`. */
function hashColumns(layer: number, ix: number, iy: number): void {
  const near = stir(layer, ix);
  const far = stir(layer, ix + 1);
  COLUMNS[0] = stir(near, iy);
  COLUMNS[1] = stir(far, iy);
  COLUMNS[2] = stir(near, iy + 1);
  COLUMNS[3] = stir(far, iy + 1);
}

/** Adds one octave and its slopes. */
function sloped(
  x: number,
  y: number,
  z: number,
  t: number,
  seed: number,
  period: number,
  gain: number,
  out: Float64Array,
  slopes: Float64Array,
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
  const sx = frequency * fadeSlope(fx);
  const sy = frequency * fadeSlope(fy);
  const sz = frequency * fadeSlope(fz);
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
    const layer = layerOf(seed, period, time);
    const dt = ft - ct;
    hashColumns(layer, ix, iy);
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
      const gb = 4 * ((h >>> 5) & 31);
      const vb = GRADIENTS[gb] * dx + GRADIENTS[gb + 1] * dy + GRADIENTS[gb + 2] * dz + GRADIENTS[gb + 3] * dt;
      b += k * vb;
      const gc = 4 * ((h >>> 10) & 31);
      const vc = GRADIENTS[gc] * dx + GRADIENTS[gc + 1] * dy + GRADIENTS[gc + 2] * dz + GRADIENTS[gc + 3] * dt;
      c += k * vc;
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
  out[1] += b;
  out[2] += c;
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
