import fc from 'fast-check';
import { RealFft } from '../sound/fft';
import { noise3, type NoiseShape, SteadyNoise } from './noise';
import { hash, random } from './random';

const sample = (x: number, y: number, z: number, t: number, shape: Partial<NoiseShape> = {}): number[] => {
  const out = new Float64Array(3);
  noise3(x, y, z, t, { detail: 1, roughness: 0.5, seed: 1, period: 0, ...shape }, out);
  return [...out];
};

const coordinate = fc.double({ min: -20, max: 20, noNaN: true });

describe('noise', () => {
  // Gradient noise is zero on the lattice and differentiable across it: Perlin, Improving noise, 2002.
  test('is zero on lattice points and continuous across them', () => {
    expect(sample(3, -2, 5, 4).map((v) => v + 0)).toEqual([0, 0, 0]);
    for (const c of [0, 1, 2]) {
      expect(sample(3 - 1e-6, 0.4, 0.7, 0.2)[c]).toBeCloseTo(sample(3 + 1e-6, 0.4, 0.7, 0.2)[c], 4);
    }
  });

  test('is centred on zero and of useful strength in every channel', () => {
    const n = 40000;
    for (const c of [0, 1, 2]) {
      let [sum, squares, top] = [0, 0, 0];
      for (let i = 0; i < n; i++) {
        const v = sample(random(5, i, 0) * 200, random(5, i, 1) * 200, random(5, i, 2) * 200, random(5, i, 3) * 200)[c];
        sum += v;
        squares += v * v;
        top = Math.max(top, Math.abs(v));
      }
      const deviation = Math.sqrt(squares / n);
      expect(Math.abs(sum / n)).toBeLessThan((5 * deviation) / Math.sqrt(n));
      expect(deviation).toBeGreaterThan(0.15);
      expect(top).toBeLessThan(2);
    }
  });

  // Perlin, An image synthesizer, SIGGRAPH 1985: the same whichever way it is turned, within a narrow band of frequencies.
  test('is as strong along an axis as across, and has hardly anything finer than half its grain', () => {
    const n = 1024;
    const directions = [
      [1, 0, 0],
      [0, 0, 1],
      [Math.SQRT1_2, Math.SQRT1_2, 0],
      [1 / Math.sqrt(3), 1 / Math.sqrt(3), 1 / Math.sqrt(3)],
    ];
    const fft = new RealFft(n);
    const [re, im] = [new Float64Array(n / 2 + 1), new Float64Array(n / 2 + 1)];
    const strengths = directions.map(([dx, dy, dz]) => {
      let [strength, fine, all] = [0, 0, 0];
      for (let row = 0; row < 60; row++) {
        const samples = Float64Array.from({ length: n }, (_, i) => {
          // Eight samples a unit, from places that no lattice knows.
          const s = i / 8;
          return sample(3.17 * row + s * dx, 7.31 * row + s * dy, 0.37 + s * dz, 0.41 * row, { seed: 5 })[0];
        });
        strength += samples.reduce((sum, x) => sum + x * x, 0) / n;
        fft.transform(samples, re, im);
        for (let k = 0; k <= n / 2; k++) {
          const power = re[k] ** 2 + im[k] ** 2;
          all += power;
          // Bin k is k / 128 waves a unit.
          if (k / 128 > 2) fine += power;
        }
      }
      expect(fine / all).toBeLessThan(0.03);
      return strength / 60;
    });
    const mean = strengths.reduce((sum, x) => sum + x, 0) / strengths.length;
    for (const strength of strengths) expect(Math.abs(strength / mean - 1)).toBeLessThan(0.2);
  });

  // Gradients reach one unit far: what is two apart has none in common.
  test('knows nothing of what is two units away', () => {
    let [together, own] = [0, 0];
    for (let k = 0; k < 20_000; k++) {
      const [x, y, z, t] = [0.731 * k, 1.373 * k, 2.117 * k, 0.177 * k];
      const [here] = sample(x, y, z, t, { seed: 9 });
      together += here * sample(x + 2.3, y, z, t, { seed: 9 })[0];
      own += here * here;
    }
    expect(Math.abs(together / own)).toBeLessThan(0.05);
  });

  test('channels are independent', () => {
    let product = 0;
    for (let i = 0; i < 10000; i++) {
      const [a, b] = sample(i * 0.37, i * 0.11, 0.3, 0.1);
      product += a * b;
    }
    expect(Math.abs(product / 10000)).toBeLessThan(0.01);
  });

  test('the first channel alone is the first of the three, to the bit', () => {
    const shape = { detail: 3, roughness: 0.6, seed: 9, period: 4 };
    const [three, one] = [new Float64Array(3), new Float64Array(1)];
    for (let k = 0; k < 200; k++) {
      const at = [0.37 * k - 20, 1.7 * k, 3 - 0.21 * k, 0.13 * k] as const;
      noise3(...at, shape, three);
      noise3(...at, shape, one);
      expect(one[0]).toBe(three[0]);
    }
  });

  test('slopes are how the values grow, measured on both sides', () => {
    fc.assert(
      fc.property(
        fc.tuple(coordinate, coordinate, coordinate, coordinate),
        fc.integer({ min: 1, max: 4 }),
        (at, detail) => {
          const shape = { detail, roughness: 0.6, seed: 11, period: 0 };
          const slopes = new Float64Array(9);
          const [out, above, below] = [new Float64Array(3), new Float64Array(3), new Float64Array(3)];
          noise3(at[0], at[1], at[2], at[3], shape, out, slopes);
          const plain = new Float64Array(3);
          noise3(at[0], at[1], at[2], at[3], shape, plain);
          out.forEach((value, channel) => expect(value).toBeCloseTo(plain[channel], 12));
          for (let axis = 0; axis < 3; axis++) {
            const [more, less] = [[...at], [...at]];
            more[axis] += 1e-4;
            less[axis] -= 1e-4;
            noise3(more[0], more[1], more[2], more[3], shape, above);
            noise3(less[0], less[1], less[2], less[3], shape, below);
            for (let channel = 0; channel < 3; channel++)
              expect(slopes[3 * channel + axis]).toBeCloseTo((above[channel] - below[channel]) / 2e-4, 3);
          }
        },
      ),
      { numRuns: 200 },
    );
  });

  test('with a period, time comes round exactly, finer layers too', () => {
    for (const t of [0, 0.25, 1.5, 2.75]) {
      const shape = { period: 3, detail: 4 };
      expect(sample(0.3, 1.7, -2.2, t + 3, shape)).toEqual(sample(0.3, 1.7, -2.2, t, shape));
      expect(sample(0.3, 1.7, -2.2, t + 1, shape)).not.toEqual(sample(0.3, 1.7, -2.2, t, shape));
    }
  });

  test('detail keeps the strength', () => {
    const strength = (detail: number): number => {
      let squares = 0;
      for (let i = 0; i < 8000; i++)
        squares += sample(i * 0.731, i * 0.377, 0.2, 0.6, { detail, roughness: 0.6 })[0] ** 2;
      return Math.sqrt(squares / 8000);
    };
    expect(strength(5) / strength(1)).toBeCloseTo(1, 1);
  });
});

describe('counter-based randomness', () => {
  test('is even over 0..1: chi-squared over 64 bins stays below the 99.9 % point', () => {
    const bins = new Array<number>(64).fill(0);
    for (let i = 0; i < 64000; i++) bins[Math.floor(random(11, i) * 64)]++;
    const chi = bins.reduce((sum, count) => sum + (count - 1000) ** 2 / 1000, 0);
    expect(chi).toBeLessThan(103.4); // 63 degrees of freedom, handbook table (from memory)
  });

  test('differs by seed, element and channel', () => {
    const values = new Set([hash(1, 1, 1), hash(2, 1, 1), hash(1, 2, 1), hash(1, 1, 2), hash(1, 1, 1, 1)]);
    expect(values.size).toBe(5);
  });
});

describe('noise at places that stay', () => {
  const n = 50;
  const places = Float32Array.from({ length: 3 * n }, (_, i) => 9 * random(3, i) - 4);
  const shape = { detail: 3, roughness: 0.45, seed: 17, period: 6 };
  const size = 0.7;
  const direct = (i: number, t: number): Float64Array => {
    const out = new Float64Array(3);
    noise3(places[3 * i] / size, places[3 * i + 1] / size, places[3 * i + 2] / size, t, shape, out);
    return out;
  };
  const yieldNow = (): Promise<void> => Promise.resolve();

  test('is the same to the last bit, forwards, backwards, by a jump, and on the lattice', async () => {
    const steady = new SteadyNoise(places, size, shape);
    const out = new Float64Array(3);
    for (const t of [0, 0.3, 0.55, 1.2, 1.1, -2.4, 5.9, 6, 12.25, 0.3]) {
      const read = await steady.at(t, yieldNow);
      for (let i = 0; i < n; i++) {
        read(i, out);
        expect(out).toEqual(direct(i, t));
      }
    }
  });

  test('a moment that is prepared stays readable while others are asked for', async () => {
    const steady = new SteadyNoise(places, size, shape);
    const [early, ...late] = await Promise.all([0.4, 7.7, 3.1, 9.6].map((t) => steady.at(t, yieldNow)));
    const out = new Float64Array(3);
    early(7, out);
    expect(out).toEqual(direct(7, 0.4));
    late[2](7, out);
    expect(out).toEqual(direct(7, 9.6));
  });
});
