/**
 * Whether a kerning table (OpenType specification 1.9, "GPOS") holds what it claims: parsers write down all pairs of classes, and read
 * what is pointed to twice twice, so that some bytes can claim more than memory holds.
 * @param bytes the table
 * @returns null, or what is wrong with it
 */
export function kerningFault(bytes: Uint8Array): string | null {
  try {
    new Walk(bytes).table();
    return null;
  } catch (error) {
    if (error instanceof RangeError) return 'its kerning is cut off';
    if (error instanceof TooMany) return 'its kerning claims more than it holds';
    throw error;
  }
}

class TooMany extends Error {}

/** So many entries may be claimed for each byte: what is sound has less than one, and shares a few of its parts. */
const MOST_A_BYTE = 4;

/** A walk through a table that counts what a parser would write down. */
class Walk {
  readonly #view: DataView;
  #left: number;

  constructor(bytes: Uint8Array) {
    this.#view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
    this.#left = MOST_A_BYTE * bytes.length;
  }

  table(): void {
    this.#pointed(0, 4, (scripts) =>
      this.#records(scripts, (script) => {
        this.#pointed(script, 0, (language) => this.#language(language));
        this.#records(script + 2, (language) => this.#language(language), script);
      }),
    );
    this.#pointed(0, 6, (features) => this.#records(features, (feature) => this.#take(this.#u16(feature + 2))));
    this.#pointed(0, 8, (lookups) =>
      this.#offsets(lookups, 0, lookups, (lookup) => {
        const type = this.#u16(lookup);
        this.#offsets(lookup, 4, lookup, (subtable) => this.#subtable(type, subtable));
      }),
    );
  }

  #language(at: number): void {
    this.#take(this.#u16(at + 4));
  }

  #subtable(type: number, at: number): void {
    if (type !== 1 && type !== 2) return;
    const format = this.#u16(at);
    this.#pointed(at, 2, (coverage) => this.#take(this.#u16(coverage + 2)));
    if (type === 1) {
      if (format === 2) this.#take(this.#u16(at + 6));
    } else if (format === 1) this.#offsets(at, 8, at, (pairs) => this.#take(this.#u16(pairs)));
    else if (format === 2) {
      for (const classes of [8, 10]) this.#pointed(at, classes, (from) => this.#classes(from));
      this.#take(this.#u16(at + 12) * this.#u16(at + 14));
    }
  }

  #classes(at: number): void {
    const format = this.#u16(at);
    if (format === 1) this.#take(this.#u16(at + 4));
    else if (format === 2) this.#take(this.#u16(at + 2));
  }

  /** A count, and as many records of a tag and an offset. */
  #records(at: number, each: (at: number) => void, base = at): void {
    const count = this.#u16(at);
    this.#take(count);
    for (let i = 0; i < count; i++) this.#pointed(base, at - base + 6 + 6 * i, each);
  }

  /** A count, and as many offsets. */
  #offsets(at: number, first: number, base: number, each: (at: number) => void): void {
    const count = this.#u16(at + first);
    this.#take(count);
    for (let i = 0; i < count; i++) this.#pointed(base, at - base + first + 2 + 2 * i, each);
  }

  /** What an offset that stands `field` behind a base points to from there; nothing where it is 0. */
  #pointed(base: number, field: number, visit: (at: number) => void): void {
    const offset = this.#u16(base + field);
    if (offset > 0) visit(base + offset);
  }

  #u16(at: number): number {
    return this.#view.getUint16(at);
  }

  #take(count: number): void {
    this.#left -= count;
    if (this.#left < 0) throw new TooMany();
  }
}
