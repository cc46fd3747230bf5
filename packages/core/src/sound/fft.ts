import FFT from 'fft.js';

/** The discrete Fourier transform of real samples, by `fft.js` (radix 4), in arrays that are made once. */
export class RealFft {
  readonly #fft: FFT;
  readonly #out: number[];

  /** @param size samples, a power of two, 4 or more */
  constructor(readonly size: number) {
    if (size < 4 || (size & (size - 1)) !== 0) throw new RangeError(`${size} is no power of two from 4 on`);
    this.#fft = new FFT(size);
    this.#out = this.#fft.createComplexArray();
  }

  /**
   * @param samples `size` of them
   * @param re, @param im receive bins 0 to size / 2: bin k turns k times over the samples
   */
  transform(samples: ArrayLike<number>, re: Float64Array, im: Float64Array): void {
    this.#fft.realTransform(this.#out, samples as number[]);
    for (let k = 0; k <= this.size / 2; k++) {
      re[k] = this.#out[2 * k];
      im[k] = this.#out[2 * k + 1];
    }
  }
}
