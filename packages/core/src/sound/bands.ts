import { filled } from '../geometry/filled';
import { RealFft } from './fft';
import type { Sound } from './wav';

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

/** Seconds that the shortest window should take: short enough for a beat. */
const SHORTEST = 0.09;
/** So often a window is doubled for low bands at most: longer ones would smear a beat over more than a second. */
const DOUBLINGS = 4;
/** Bins that a band should take: a tone in its middle then stays within it (Hann's window: two bins to either side). */
const BINS = 4;
/** The amplitude of a full tone in its bin comes to this, whatever the window. */
const FULL = 1024;
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
  readonly #fft: RealFft;
  readonly #piece: Float64Array;
  readonly #re: Float64Array;
  readonly #im: Float64Array;
  // Hann's window: a tone stays within its bin and the two beside it.
  readonly #window: Float64Array;
  readonly power: Float64Array;

  constructor(
    readonly sound: Sound,
    readonly loop: boolean,
    readonly size: number,
  ) {
    this.#fft = new RealFft(size);
    this.#piece = new Float64Array(size);
    [this.#re, this.#im, this.power] = [0, 1, 2].map(() => new Float64Array(size / 2 + 1));
    const scale = (4 * FULL) / size;
    this.#window = filled(Float64Array, size, (i) => scale * (0.5 - 0.5 * Math.cos((2 * Math.PI * i) / size)));
  }

  at(seconds: number): void {
    const { samples, rate } = this.sound;
    const from = Math.round(seconds * rate) - this.size / 2;
    const n = samples.length;
    let k = this.loop ? ((from % n) + n) % n : from;
    for (let i = 0; i < this.size; i++, k++) {
      if (this.loop && k === n) k = 0;
      this.#piece[i] = k >= 0 && k < n ? samples[k] * this.#window[i] : 0;
    }
    this.#fft.transform(this.#piece, this.#re, this.#im);
    for (let k = 0; k < this.power.length; k++) this.power[k] = this.#re[k] ** 2 + this.#im[k] ** 2;
  }
}

/** The window of the filter that comes before leaving out every other sample: its stop band lies 74 dB down (Blackman's). */
const TAPS = 47;
const filter = filled(Float64Array, TAPS, (t) => {
  const x = t - (TAPS - 1) / 2;
  const sinc = x === 0 ? 0.46 : Math.sin(0.46 * Math.PI * x) / (Math.PI * x);
  const w = (2 * Math.PI * (t + 0.5)) / TAPS;
  return sinc * (0.42 - 0.5 * Math.cos(w) + 0.08 * Math.cos(2 * w));
});
/** Up to this share of the new rate nothing is lost by it, nor folded in. */
const PASSES = 0.3;

/** A sound of half the rate, without what that can not tell (Crochiere, Rabiner: Multirate Digital Signal Processing, 1983). */
function halved({ samples, rate }: Sound, loop: boolean): Sound {
  const n = samples.length;
  const half = (TAPS - 1) / 2;
  // The ends are padded, so that the filter runs over all samples alike.
  const padded = new Float32Array(n + 2 * TAPS);
  padded.set(samples, half);
  if (loop)
    for (let t = 0; t < half; t++) {
      padded[half - 1 - t] = samples[n - 1 - (t % n)];
      padded[half + n + t] = samples[t % n];
    }
  const out = new Float32Array(Math.ceil(n / 2));
  const sum = filter.reduce((total, h) => total + h, 0);
  for (let j = 0; j < out.length; j++) {
    let value = 0;
    for (let t = 0; t < TAPS; t++) value += filter[t] * padded[2 * j + t];
    out[j] = value / sum;
  }
  return { samples: out, rate: rate / 2 };
}

/** Where a band is read: in which of the spectra, and from where to where on its row of bins. */
interface Reading {
  level: number;
  from: number;
  to: number;
  /** Its width in bins of the shortest window, 1 at least, in which power is told whatever the window. */
  width: number;
  /** Decibels that it is raised by. */
  tilt: number;
}

/** How each band is read: with the shortest window that keeps a tone within it. */
function readingsOf({ bands, ...shape }: BandShape, rate: number, size: number): Reading[] {
  const high = Math.min(shape.high, rate / 2);
  const low = Math.min(shape.low, high / 1.001);
  const edge = (b: number): number => low * (high / low) ** (b / bands);
  return Array.from({ length: bands }, (_, b) => {
    const [from, to] = [edge(b), edge(b + 1)];
    const bin = rate / size;
    let level = 0;
    while (level < DOUBLINGS && (BINS * bin) / 2 ** level > to - from && to < (PASSES * rate) / 2 ** (level + 1))
      level++;
    const finer = bin / 2 ** level;
    const tilt = TILT * Math.log2(Math.sqrt(from * to) / 1000);
    // Bands narrower than a bin are told by what is in them, not by how dense it is: else a low tone would drown all others.
    return { level, from: from / finer, to: to / finer, width: Math.max(1, (to - from) / bin), tilt };
  });
}

/**
 * Splits a sound into bands, frame by frame.
 * @param fps frames a second; frame 0 is the sound's beginning
 * @param yield awaited now and then
 */
export async function bandsOf(
  sound: Sound,
  shape: BandShape,
  fps: number,
  yieldNow: () => Promise<void>,
): Promise<Bands> {
  const frames = Math.max(1, Math.round((sound.samples.length / sound.rate) * fps));
  const { bands, attack, release, loop } = shape;
  const size = 2 ** Math.max(4, Math.round(Math.log2(SHORTEST * sound.rate)));
  const readings = readingsOf(shape, sound.rate, size);
  const spectra: Spectrum[] = [];
  for (let level = 0, at = sound; level <= Math.max(...readings.map((reading) => reading.level)); level++) {
    await yieldNow();
    if (level > 0) at = halved(at, loop);
    spectra.push(new Spectrum(at, loop, size));
  }
  const raw = new Float32Array(frames * bands);
  let loudest = FAINT;
  for (const [level, spectrum] of spectra.entries()) {
    const own = readings.flatMap((reading, b) => (reading.level === level ? [{ ...reading, b }] : []));
    if (own.length === 0) continue;
    // A longer window changes more slowly: it is read less often, and levels between are blended.
    const hop = Math.max(1, Math.min(2 ** level, Math.floor((2 ** level * SHORTEST * fps) / 4)));
    for (let f = 0; f < frames - 1 + hop; f += hop) {
      if ((f / hop) % 8 === 0) await yieldNow();
      spectrum.at(f / fps);
      for (const { from, to, width, tilt, b } of own) {
        const decibels = 10 * Math.log10(powerWithin(spectrum.power, from, to) / width + 1e-12) + tilt;
        if (f < frames) {
          raw[f * bands + b] = decibels;
          loudest = Math.max(loudest, decibels);
        }
        const before = f > 0 ? raw[(f - hop) * bands + b] : decibels;
        for (let k = Math.max(0, f - hop + 1); k < Math.min(f, frames); k++)
          raw[k * bands + b] = before + ((decibels - before) * (k - f + hop)) / hop;
      }
    }
  }
  const levels = raw.map((decibels) => Math.min(1, Math.max(0, 1 + (decibels - loudest) / RANGE)));
  follow(levels, bands, frames, fps, attack, release, loop);
  return { frames, bands, levels: blended(levels, bands, frames, shape.smooth) };
}

/** Power between two places on the row of bins, which need not be whole: bin k takes from half a bin below it to half above. */
function powerWithin(power: Float64Array, from: number, to: number): number {
  let sum = 0;
  for (let k = Math.max(0, Math.round(from)); k - 0.5 < to && k < power.length; k++)
    sum += power[k] * Math.max(0, Math.min(k + 0.5, to) - Math.max(k - 0.5, from));
  return sum;
}

/**
 * Levels that rise and fall at a rate: one-pole followers. A repeating sound begins at the level at which it ends: where it
 * has to, is found by Newton's method, as a round takes levels to levels in pieces that are straight.
 */
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
    let begin = 0;
    for (let round = 0; round < 60; round++) {
      let level = begin;
      // How much of a difference at the beginning is left.
      let left = 1;
      for (let f = 0; f < frames; f++) {
        const target = raw[f * bands + b];
        const towards = target > level ? up : down;
        level += (target - level) * towards;
        left *= 1 - towards;
        levels[f * bands + b] = level;
      }
      if (!loop || Math.abs(level - begin) < 1e-7) break;
      begin += (level - begin) / Math.max(1e-9, 1 - left);
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
