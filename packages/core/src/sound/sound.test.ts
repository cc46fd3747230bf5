import fc from 'fast-check';
import { Problem } from '../problem';
import { bandsOf, type BandShape } from './bands';
import { RealFft } from './fft';
import { reefSound, reefWav } from './reef';
import { readWav, type Sound, writeWav } from './wav';

const yieldNow = async (): Promise<void> => undefined;
const transformed = (samples: ArrayLike<number>) => {
  const n = samples.length;
  const [re, im] = [new Float64Array(n / 2 + 1), new Float64Array(n / 2 + 1)];
  new RealFft(n).transform(samples, re, im);
  return { re, im };
};

describe('the Fourier transform', () => {
  // The definition itself: X[k] = Σ x[n] e^(−2πi kn / N).
  test.each([4, 8, 64])('of %d samples is the sum that defines it', (n) => {
    const x = Array.from({ length: n }, (_, i) => Math.sin(i * 1.7) + 0.3 * Math.cos(i * i));
    const { re, im } = transformed(x);
    for (let k = 0; k <= n / 2; k++) {
      const turn = (-2 * Math.PI * k) / n;
      expect(re[k]).toBeCloseTo(
        x.reduce((sum, v, i) => sum + v * Math.cos(turn * i), 0),
        9,
      );
      expect(im[k]).toBeCloseTo(
        x.reduce((sum, v, i) => sum + v * Math.sin(turn * i), 0),
        9,
      );
    }
  });

  test('a tone of whole turns stands in one bin: half its height times the samples', () => {
    const n = 1024;
    for (const k of [1, 37, 500]) {
      const { re, im } = transformed(
        Array.from({ length: n }, (_, i) => 0.8 * Math.cos((2 * Math.PI * k * i) / n + 0.6)),
      );
      const sizes = Array.from(re, (x, j) => Math.hypot(x, im[j]));
      expect(sizes[k]).toBeCloseTo((0.8 * n) / 2, 6);
      expect(Math.atan2(im[k], re[k])).toBeCloseTo(0.6, 8);
      sizes.forEach((size, j) => j !== k && expect(size).toBeLessThan(1e-8));
    }
  });

  // Parseval's theorem: Σ |x|² = (1 / N) Σ |X|², the bins that are not kept mirrored.
  test('keeps energy, whatever the samples (Parseval)', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 256, maxLength: 256 }), (x) => {
        const { re, im } = transformed(x);
        let energy = 0;
        for (let k = 0; k <= 128; k++) energy += (k === 0 || k === 128 ? 1 : 2) * (re[k] ** 2 + im[k] ** 2);
        expect(energy / 256).toBeCloseTo(
          x.reduce((sum, v) => sum + v * v, 0),
          9,
        );
      }),
    );
  });

  test('other lengths are refused', () => {
    for (const size of [0, 2, 3, 100]) expect(() => new RealFft(size)).toThrow(RangeError);
  });
});

/** A WAV file by the published layout, written here byte by byte apart from the writer under test. */
function wavBytes(
  encoding: number,
  bits: number,
  channels: number,
  values: number[],
  extra: number[] = [],
): Uint8Array {
  const width = bits / 8;
  const data = Buffer.alloc(values.length * width);
  values.forEach((value, i) => {
    if (encoding === 3 && bits === 32) data.writeFloatLE(value, i * 4);
    else if (encoding === 3) data.writeDoubleLE(value, i * 8);
    else if (bits === 8) data.writeUInt8(value, i);
    else data.writeIntLE(value, i * width, width);
  });
  const format = Buffer.alloc(16);
  format.writeUInt16LE(encoding, 0);
  format.writeUInt16LE(channels, 2);
  format.writeUInt32LE(8000, 4);
  format.writeUInt32LE(8000 * channels * width, 8);
  format.writeUInt16LE(channels * width, 12);
  format.writeUInt16LE(bits, 14);
  const chunk = (name: string, body: Buffer) => {
    const size = Buffer.alloc(4);
    size.writeUInt32LE(body.length);
    return Buffer.concat([Buffer.from(name), size, body, Buffer.alloc(body.length % 2)]);
  };
  const body = Buffer.concat([
    Buffer.from('WAVE'),
    chunk('LIST', Buffer.from(extra)),
    chunk('fmt ', format),
    chunk('data', data),
  ]);
  const size = Buffer.alloc(4);
  size.writeUInt32LE(body.length);
  return new Uint8Array(Buffer.concat([Buffer.from('RIFF'), size, body]));
}

describe('WAV files', () => {
  test.each([
    ['8 bits, unsigned', 1, 8, [128, 255, 0], [0, 127 / 128, -1]],
    ['16 bits', 1, 16, [0, 16384, -32768], [0, 0.5, -1]],
    ['24 bits', 1, 24, [0, 4194304, -8388608], [0, 0.5, -1]],
    ['32 bits', 1, 32, [0, 1073741824, -2147483648], [0, 0.5, -1]],
    ['floating point', 3, 32, [0, 0.5, -1], [0, 0.5, -1]],
    ['double', 3, 64, [0, 0.5, -1], [0, 0.5, -1]],
  ])('%s', (_, encoding, bits, raw, expected) => {
    const { rate, samples } = readWav(wavBytes(encoding, bits, 1, raw));
    expect(rate).toBe(8000);
    expected.forEach((value, i) => expect(samples[i]).toBeCloseTo(value, 6));
  });

  test('channels are mixed, and chunks of odd size are padded', () => {
    const { samples } = readWav(wavBytes(1, 16, 2, [16384, -16384, 32767, 32767], [1, 2, 3]));
    expect(samples).toHaveLength(2);
    expect(samples[0]).toBe(0);
    expect(samples[1]).toBeCloseTo(1, 3);
  });

  test('what is written is read back', () => {
    const sound: Sound = { rate: 22050, samples: Float32Array.from({ length: 500 }, (_, i) => Math.sin(i / 9)) };
    const back = readWav(writeWav(sound));
    expect(back.rate).toBe(22050);
    back.samples.forEach((x, i) => expect(Math.abs(x - sound.samples[i])).toBeLessThan(1e-4));
  });

  const sound = wavBytes(1, 16, 1, [1, 2, 3, 4]);
  const changed = (at: number, ...values: number[]) => {
    const bytes = sound.slice();
    bytes.set(values, at);
    return bytes;
  };
  test.each([
    ['nothing', new Uint8Array(0)],
    ['a text', new TextEncoder().encode('this is no sound, though it is long enough to be one')],
    ['another RIFF file', changed(8, 65, 86, 73, 32)],
    ['a header alone', sound.slice(0, 20)],
    ['no channel', changed(30, 0, 0)],
    ['an unknown encoding', changed(28, 85, 0)],
    ['eleven bits', changed(42, 11, 0)],
    ['no rate', changed(32, 0, 0, 0, 0)],
    ['no samples', sound.slice(0, 44)],
    ['a float that is none', wavBytes(3, 32, 1, [NaN])],
  ])('%s is refused', (_, bytes) => {
    expect(() => readWav(bytes)).toThrow(Problem);
  });

  test('any damage is refused or read, and never takes longer than the file', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(sound.length - 1), fc.nat(255)), { maxLength: 12 }),
        fc.nat(60),
        (marks, cut) => {
          const bytes = sound.slice(0, sound.length - Math.min(cut, sound.length));
          for (const [at, value] of marks) if (at < bytes.length) bytes[at] = value;
          try {
            expect(readWav(bytes).samples.length).toBeLessThanOrEqual(bytes.length);
          } catch (error) {
            expect(error).toBeInstanceOf(Problem);
          }
        },
      ),
      { numRuns: 500 },
    );
  });
});

describe('bands', () => {
  const shape: BandShape = { bands: 12, low: 50, high: 3200, attack: 0, release: 0, smooth: 0, loop: false };
  const tone = (hertz: number, seconds = 1): Sound => ({
    rate: 8000,
    samples: Float32Array.from({ length: 8000 * seconds }, (_, i) => Math.sin((2 * Math.PI * hertz * i) / 8000)),
  });
  const row = (bands: Awaited<ReturnType<typeof bandsOf>>, frame: number) =>
    Array.from(bands.levels.subarray(frame * bands.bands, (frame + 1) * bands.bands));

  // 50 to 3200 Hz are six octaves: twelve bands are half an octave each.
  test.each([
    [60, 0],
    [120, 2],
    [1000, 8],
    [2800, 11],
  ])('a tone of %d Hz is loudest in band %d', async (hertz, band) => {
    const levels = row(await bandsOf(tone(hertz), shape, 24, yieldNow), 12);
    expect(levels.indexOf(Math.max(...levels))).toBe(band);
    expect(levels[band]).toBeGreaterThan(0.9);
    expect(levels[(band + 6) % 12]).toBeLessThan(0.1);
  });

  // The spectral leakage of Hann's window is 31 dB down two bins away: Harris, On the use of windows for harmonic analysis with
  // the discrete Fourier transform, Proceedings of the IEEE 66, 1978, table 1.
  test.each([
    [24, 48000],
    [60, 44100],
    [24, 8000],
  ])(
    'a tone in the middle of any of %d bands stays there, low ones too, at %d samples a second',
    async (bands, rate) => {
      const wide: BandShape = { ...shape, bands, low: 40, high: 0.4 * rate };
      for (let band = 0; band < bands; band += 3) {
        const hertz = 40 * ((0.4 * rate) / 40) ** ((band + 0.5) / bands);
        const samples = Float32Array.from({ length: 3 * rate }, (_, i) => Math.sin((2 * Math.PI * hertz * i) / rate));
        const levels = row(await bandsOf({ rate, samples }, wide, 4, yieldNow), 6);
        expect(levels.indexOf(Math.max(...levels))).toBe(band);
        for (const other of [band - 1, band + 1])
          if (other >= 0 && other < bands) expect(levels[other]).toBeLessThan(0.5);
      }
    },
  );

  test('60 Hz of a hundred bands comes out in the band that holds 60 Hz', async () => {
    const hundred: BandShape = { ...shape, bands: 100, low: 30, high: 16000 };
    const samples = Float32Array.from({ length: 48000 * 3 }, (_, i) => Math.sin((2 * Math.PI * 60 * i) / 48000));
    const levels = row(await bandsOf({ rate: 48000, samples }, hundred, 4, yieldNow), 6);
    const [low, high] = [30, 16000];
    expect(levels.indexOf(Math.max(...levels))).toBe(Math.floor((100 * Math.log(60 / low)) / Math.log(high / low)));
  });

  test('a sound that repeats closes, however long its release', async () => {
    const burst: Sound = { rate: 8000, samples: tone(400, 2).samples.map((x, i) => (i > 9000 && i < 12000 ? x : 0)) };
    for (const release of [0.2, 3, 60]) {
      const long = { ...shape, attack: 0.02, release, loop: true };
      const { levels, bands, frames } = await bandsOf(burst, long, 24, yieldNow);
      const left = Math.exp(-1 / (release * 24));
      // From its last frame to its first it falls by the release, as from any to the next.
      const at = (f: number): number => levels[f * bands + 6];
      expect(at(0)).toBeCloseTo(at(frames - 1) * left, 4);
      expect(at(0)).toBeGreaterThan(release > 1 ? 0.5 : 0);
    }
  });

  test('silence is level 0 all over', async () => {
    const silence = { rate: 8000, samples: new Float32Array(8000) };
    const { levels } = await bandsOf(silence, { ...shape, smooth: 2 }, 24, yieldNow);
    expect(new Set(levels)).toEqual(new Set([0]));
  });

  test('a level falls by 1 / e in the release time, and rises at once without attack', async () => {
    const burst: Sound = { rate: 8000, samples: tone(400, 3).samples.map((x, i) => (i < 8000 ? x : 0)) };
    const { levels, bands, frames } = await bandsOf(burst, { ...shape, release: 0.25 }, 48, yieldNow);
    expect(frames).toBe(144);
    const band = 6;
    const at = (seconds: number) => levels[Math.round(seconds * 48) * bands + band];
    expect(at(0.5)).toBeGreaterThan(0.95);
    expect(at(2) / at(1.75)).toBeCloseTo(Math.exp(-1), 2);
    expect(at(2.25) / at(2)).toBeCloseTo(Math.exp(-1), 2);
  });

  test('the shipped sound is fresh samples within bounds, closes, and moves high and low bands', async () => {
    const sound = reefSound();
    expect(sound.samples).toHaveLength(6 * sound.rate);
    const largest = (values: Float32Array) => values.reduce((top, x) => Math.max(top, Math.abs(x)), 0);
    expect(largest(sound.samples)).toBeCloseTo(0.9, 5);
    const seam = Math.abs(sound.samples[0] - sound.samples.at(-1)!);
    expect(seam).toBeLessThan(largest(sound.samples.map((x, i) => x - sound.samples[Math.max(0, i - 1)])));
    expect(readWav(reefWav()).samples).toHaveLength(sound.samples.length);
    const { levels, bands, frames } = await bandsOf(
      sound,
      { bands: 20, low: 40, high: 6000, attack: 0.03, release: 0.25, smooth: 0, loop: true },
      24,
      yieldNow,
    );
    for (const band of [1, 8, 18]) {
      const course = Array.from({ length: frames }, (_, f) => levels[f * bands + band]);
      expect(Math.max(...course) - Math.min(...course)).toBeGreaterThan(0.2);
    }
  });
});
