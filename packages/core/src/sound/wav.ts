import { Problem } from '../problem';

/** A sound as one channel of samples. */
export interface Sound {
  /** Samples a second. */
  rate: number;
  /** −1..1, the mean of all channels. */
  samples: Float32Array;
}

const PCM = 1;
const FLOAT = 3;
const EXTENSIBLE = 0xfffe;

const damaged = (what: string): Problem =>
  new Problem(`The sound cannot be read: ${what}.`, 'Choose a sound WAV file: PCM of 8 to 32 bits, or floating point.');

/**
 * Reads a RIFF/WAVE file: IBM and Microsoft, Multimedia Programming Interface and Data Specifications 1.0, 1991;
 * WAVE_FORMAT_EXTENSIBLE after Microsoft, Multiple Channel Audio Data and WAVE Files, 2007. A data chunk that is cut off
 * at the end of the file is read as far as it goes.
 * @throws Problem for other files, other encodings and damage
 */
export function readWav(bytes: Uint8Array): Sound {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const tag = (at: number): string => String.fromCharCode(...bytes.subarray(at, at + 4));
  if (bytes.length < 12 || tag(0) !== 'RIFF' || tag(8) !== 'WAVE') throw damaged('it is no RIFF/WAVE file');
  let format: Format | null = null;
  for (let at = 12; at + 8 <= bytes.length;) {
    const [name, size, from] = [tag(at), view.getUint32(at + 4, true), at + 8];
    if (name === 'fmt ') format = readFormat(view, from, Math.min(size, bytes.length - from));
    if (name === 'data') {
      if (!format) throw damaged('its data come before their format');
      return { rate: format.rate, samples: readSamples(view, from, Math.min(size, bytes.length - from), format) };
    }
    // Chunks begin at even places.
    at = from + size + (size % 2);
  }
  throw damaged('it holds no samples');
}

interface Format {
  encoding: number;
  channels: number;
  rate: number;
  bits: number;
}

function readFormat(view: DataView, at: number, size: number): Format {
  if (size < 16) throw damaged('its format is cut off');
  const tag = view.getUint16(at, true);
  if (tag === EXTENSIBLE && size < 26) throw damaged('its format is cut off');
  const format: Format = {
    // The first two bytes of the sub-format's identifier are the encoding.
    encoding: tag === EXTENSIBLE ? view.getUint16(at + 24, true) : tag,
    channels: view.getUint16(at + 2, true),
    rate: view.getUint32(at + 4, true),
    bits: view.getUint16(at + 14, true),
  };
  const { encoding, channels, rate, bits } = format;
  if (channels < 1 || channels > 64) throw damaged(`it says to have ${channels} channels`);
  if (rate < 1000 || rate > 768000) throw damaged(`it says to have ${rate} samples a second`);
  const known = encoding === PCM ? [8, 16, 24, 32] : encoding === FLOAT ? [32, 64] : [];
  if (!known.includes(bits)) throw damaged(`samples of encoding ${encoding} with ${bits} bits are not known here`);
  return format;
}

function readSamples(view: DataView, from: number, size: number, { encoding, channels, bits }: Format): Float32Array {
  const width = bits / 8;
  const count = Math.floor(size / (width * channels));
  if (count === 0) throw damaged('it holds no samples');
  const one = (at: number): number => {
    if (encoding === FLOAT) return bits === 32 ? view.getFloat32(at, true) : view.getFloat64(at, true);
    // Eight bits are unsigned, more are signed.
    if (bits === 8) return (view.getUint8(at) - 128) / 128;
    if (bits === 16) return view.getInt16(at, true) / 32768;
    if (bits === 24) return ((view.getInt8(at + 2) << 16) | view.getUint16(at, true)) / 8388608;
    return view.getInt32(at, true) / 2147483648;
  };
  const samples = new Float32Array(count);
  for (let i = 0, at = from; i < count; i++) {
    let sum = 0;
    for (let c = 0; c < channels; c++, at += width) sum += one(at);
    samples[i] = sum / channels;
    if (!Number.isFinite(samples[i])) throw damaged(`sample ${i + 1} is not finite`);
  }
  return samples;
}

/** A sound as a WAV file: PCM, 16 bits, one channel. */
export function writeWav({ rate, samples }: Sound): Uint8Array {
  const bytes = new Uint8Array(44 + 2 * samples.length);
  const view = new DataView(bytes.buffer);
  const tag = (at: number, name: string): void => [...name].forEach((c, i) => (bytes[at + i] = c.charCodeAt(0)));
  tag(0, 'RIFF');
  view.setUint32(4, bytes.length - 8, true);
  tag(8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, PCM, true);
  view.setUint16(22, 1, true);
  view.setUint32(24, rate, true);
  view.setUint32(28, 2 * rate, true);
  view.setUint16(32, 2, true);
  view.setUint16(34, 16, true);
  tag(36, 'data');
  view.setUint32(40, 2 * samples.length, true);
  samples.forEach((x, i) => view.setInt16(44 + 2 * i, Math.round(32767 * Math.min(1, Math.max(-1, x))), true));
  return bytes;
}
