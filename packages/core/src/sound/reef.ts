import { random } from '../fields/random';
import { type Sound, writeWav } from './wav';

const RATE = 22050;
const SECONDS = 6;

/**
 * The sound that comes with Uvrex: six seconds of an invented sounding at the Lantern Reef, made by rule and looping.
 * A slow swell below, pulses every half second, pings that fall and echo, and a bed of fine noise.
 */
export function reefSound(): Sound {
  const n = RATE * SECONDS;
  const samples = new Float32Array(n);
  /** Adds a note that may ring on past the end: it then comes in again at the beginning. */
  const note = (at: number, length: number, wave: (t: number, share: number) => number): void => {
    const from = Math.round(at * RATE);
    const count = Math.round(length * RATE);
    for (let i = 0; i < count; i++) samples[(from + i) % n] += wave(i / RATE, i / count);
  };
  const turn = 2 * Math.PI;
  // Swell: whole turns over the loop, so that it closes.
  for (let i = 0; i < n; i++) {
    const t = i / RATE;
    const swell = 0.5 - 0.5 * Math.cos((turn * t) / 3);
    samples[i] += 0.07 * swell * (Math.sin(turn * 55 * t) + 0.5 * Math.sin(turn * 110 * t + 0.4));
  }
  // Pulses: a low drum whose pitch falls.
  for (let k = 0; k < 12; k++) {
    const strong = k % 4 === 0 ? 1 : 0.55;
    note(
      k * 0.5,
      0.4,
      (t) => 0.42 * strong * Math.exp(-11 * t) * Math.sin(turn * (62 * t + 2.2 * (1 - Math.exp(-18 * t)))),
    );
  }
  // Pings on a five-note scale, each with two echoes.
  const scale = [196, 261.63, 293.66, 392, 440, 523.25, 659.25, 784, 1046.5, 1568];
  for (let k = 0; k < 22; k++) {
    const at = (Math.floor(random(11, k, 0) * 24) * SECONDS) / 24;
    const pitch = scale[Math.floor(random(11, k, 1) * scale.length)] * (k % 3 === 0 ? 2 : 1);
    for (let echo = 0; echo < 3; echo++)
      note(at + echo * 0.24, 1.1, (t) => {
        const swing = Math.exp(-4.5 * t) * (1 - Math.exp(-200 * t));
        return 0.2 * 0.5 ** echo * swing * (Math.sin(turn * pitch * t) + 0.3 * Math.sin(turn * 2.01 * pitch * t));
      });
  }
  // Sand: short rushes of bright noise on the off-beats.
  for (let k = 0; k < 24; k++) {
    let held = 0;
    note(k * 0.25 + 0.125, 0.16, (t) => {
      const white = 2 * random(29, k, Math.round(t * RATE)) - 1;
      const bright = white - held;
      held += 0.35 * bright;
      return 0.32 * (k % 2 ? 1 : 0.5) * Math.exp(-22 * t) * bright;
    });
  }
  let peak = 0;
  for (const x of samples) peak = Math.max(peak, Math.abs(x));
  return { rate: RATE, samples: samples.map((x) => (0.9 * x) / peak) };
}

let wav: Uint8Array | null = null;

/** The same as a WAV file, made once. */
export const reefWav = (): Uint8Array => (wav ??= writeWav(reefSound()));
