/** Arrays in which attributes are kept. */
export type Numbers = Float32Array | Uint32Array | Uint8Array;

const MAKE = {
  float: (n: number): Numbers => new Float32Array(n),
  integer: (n: number): Numbers => new Uint32Array(n),
  byte: (n: number): Numbers => new Uint8Array(n),
};

/** Arrays that come to no more than so many bytes together share one buffer. */
const SMALL = 16_384;

/**
 * Makes several arrays. Small ones lie in one piece of memory: there may be hundreds of moments of as many little forms, and a buffer
 * each costs more to make, to count and to clear away than what is in it.
 */
export class Batch {
  #bytes = 0;
  readonly #wanted: [kind: keyof typeof MAKE, length: number][] = [];

  /** Asks for one more. @returns its number */
  add(kind: keyof typeof MAKE, length: number): number {
    this.#bytes += (kind === 'byte' ? 1 : 4) * length;
    return this.#wanted.push([kind, length]) - 1;
  }

  /** All that were asked for, full of zeros. */
  make(): Numbers[] {
    if (this.#bytes > SMALL) return this.#wanted.map(([kind, length]) => MAKE[kind](length));
    const buffer = new ArrayBuffer(this.#bytes);
    // Bytes come last, so that what is wider lies as it must.
    let wide = 0;
    let narrow = 0;
    for (const [kind, length] of this.#wanted) if (kind !== 'byte') narrow += 4 * length;
    return this.#wanted.map(([kind, length]) => {
      if (kind === 'byte') return new Uint8Array(buffer, (narrow += length) - length, length);
      wide += 4 * length;
      return kind === 'float'
        ? new Float32Array(buffer, wide - 4 * length, length)
        : new Uint32Array(buffer, wide - 4 * length, length);
    });
  }
}
