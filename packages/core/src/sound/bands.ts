import { RealFft } from './fft';
import { type Sound } from './wav';

/** How a sound becomes levels. */
export interface BandShape {
  bands: number;
  /** Lowest and highest frequency, Hz; the bands between are equally wide to the ear. */
  low: number;
  high: number;
  /** Seconds in which a level rises, and falls, by all but 1/e of the way. */
  attack: number;
  release: number;
  /** Bands to each side that are blended in. */
  smooth: number;
  /** Whether the sound repeats, so that the fall of its end reaches into its beginning. */
  loop: boolean;
}

const WINDOW = 4096;
/** Levels are told over this range below the loudest, decibels. */
const RANGE = 42;
/** Decibels an octave that high bands are raised by: sounds fall off about so much (common practice, no source). */
const TILT = 3;
/** The loudest counts as this at least, decibels of a bin: a full tone stands at 60, and silence must stay silent. */
const FAINT = 6;

/** Levels 0..1 of a sound's bands: `levels[frame · bands + band]`. */
export interface Bands {
  frames: number;
  bands: number;
  levels: Float32Array;
}

/** The power of each bin of a windowed piece of the sound about a moment; outside the sound it is silent, or repeats. */
class Spectrum {
  readonly #fft = new RealFft(WINDOW);
  readonly #piece = new Float64Array(WINDOW);
  readonly #re = new Float64Array(WINDOW / 2 + 1);
  readonly #im = new Float64Array(WINDOW / 2 + 1);
  // Hann's window: a tone stays within its bin and the two beside it.
  readonly #window = Float64Array.from({ length: WINDOW }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / WINDOW));
  readonly power = new Float64Array(WINDOW / 2 + 1);

  constructor(
    readonly sound: Sound,
    readonly loop: boolean,
  ) {}

  at(seconds: number): void {
    const { samples, rate } = this.sound;
    const from = Math.round(seconds * rate) - WINDOW / 2;
    const n = samples.length;
    for (let i = 0; i < WINDOW; i++) {
      let k = from + i;
      if (this.loop) k = ((k % n) + n) % n;
      this.#piece[i] = k >= 0 && k < n ? samples[k] * this.#window[i] : 0;
    }
    this.#fft.transform(this.#piece, this.#re, this.#im);
    for (let k = 0; k < this.power.length; k++) this.power[k] = this.#re[k] ** 2 + this.#im[k] ** 2;
  }
}

/**
 * Splits a sound into bands, frame by frame.
 * @param fps frames a second; frame 0 is the sound's beginning
 * @param breathe awaited now and then
 */
export async function bandsOf(
  sound: Sound,
  shape: BandShape,
  fps: number,
  breathe: () => Promise<void>,
): Promise<Bands> {
  const frames = Math.max(1, Math.round((sound.samples.length / sound.rate) * fps));
  const { bands, attack, release, loop } = shape;
  const high = Math.min(shape.high, sound.rate / 2);
  const low = Math.min(shape.low, high / 1.001);
  const bin = sound.rate / WINDOW;
  const edges = Float64Array.from({ length: bands + 1 }, (_, b) => (low * (high / low) ** (b / bands)) / bin);
  const spectrum = new Spectrum(sound, loop);
  const raw = new Float32Array(frames * bands);
  let loudest = FAINT;
  for (let f = 0; f < frames; f++) {
    if (f % 8 === 0) await breathe();
    spectrum.at(f / fps);
    for (let b = 0; b < bands; b++) {
      const octaves = Math.log2((Math.sqrt(edges[b] * edges[b + 1]) * bin) / 1000);
      const decibels = 10 * Math.log10(meanPower(spectrum.power, edges[b], edges[b + 1]) + 1e-12) + TILT * octaves;
      raw[f * bands + b] = decibels;
      loudest = Math.max(loudest, decibels);
    }
  }
  const levels = raw.map((decibels) => Math.min(1, Math.max(0, 1 + (decibels - loudest) / RANGE)));
  follow(levels, bands, frames, fps, attack, release, loop);
  return { frames, bands, levels: blended(levels, bands, frames, shape.smooth) };
}

/** Mean power between two places on the row of bins, which need not be whole. */
function meanPower(power: Float64Array, from: number, to: number): number {
  // A band narrower than a bin is read between bins, so that low bands do not fall into steps.
  if (to - from < 1) {
    const middle = Math.min(power.length - 1.001, Math.max(0, (from + to) / 2));
    const k = Math.floor(middle);
    return power[k] + (power[k + 1] - power[k]) * (middle - k);
  }
  let [sum, width] = [0, 0];
  for (let k = Math.floor(from); k < to && k < power.length; k++) {
    const share = Math.min(k + 1, to) - Math.max(k, from);
    sum += share * power[k];
    width += share;
  }
  return width > 0 ? sum / width : 0;
}

/** Levels that rise and fall at a rate: one-pole followers. A repeating sound is gone through twice. */
function follow(
  levels: Float32Array,
  bands: number,
  frames: number,
  fps: number,
  attack: number,
  release: number,
  loop: boolean,
): void {
  const rate = (seconds: number): number => (seconds > 0 ? 1 - Math.exp(-1 / (seconds * fps)) : 1);
  const [up, down] = [rate(attack), rate(release)];
  const raw = levels.slice();
  for (let b = 0; b < bands; b++) {
    let level = 0;
    for (let round = loop ? 0 : 1; round < 2; round++) {
      for (let f = 0; f < frames; f++) {
        const target = raw[f * bands + b];
        level += (target - level) * (target > level ? up : down);
        levels[f * bands + b] = level;
      }
    }
  }
}

/** Each band with its neighbours, weighted less the further off they are. */
function blended(levels: Float32Array, bands: number, frames: number, reach: number): Float32Array {
  if (reach < 1) return levels;
  const out = new Float32Array(levels.length);
  for (let f = 0; f < frames; f++) {
    for (let b = 0; b < bands; b++) {
      let [sum, weights] = [0, 0];
      for (let k = Math.max(0, b - reach); k <= Math.min(bands - 1, b + reach); k++) {
        const weight = reach + 1 - Math.abs(k - b);
        sum += weight * levels[f * bands + k];
        weights += weight;
      }
      out[f * bands + b] = sum / weights;
    }
  }
  return out;
}
