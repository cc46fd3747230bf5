import type { Form } from '../geometry/form';

interface Entry {
  key: string;
  form: Form;
  /** Its paths, its mesh …: many forms share them. */
  parts: object[];
  /** A picture shows it; else it is only on the way to one. */
  shown: boolean;
  /** The evaluation, and the scene, that used it last. */
  used: number;
  scene: number;
  /** Its place in the list. */
  at: number;
}

/** What an entry takes besides its arrays, bytes. */
const OVERHEAD = 512;
/** Evaluations for which what was on the way is kept all the same: an edit begins where it stands. */
const RECENT = 3;
/** How many entries are looked at to find one that can go. */
const SAMPLE = 24;

/**
 * Forms under their keys, within a budget of bytes. Every buffer counts once, however many forms share it.
 *
 * What goes first is of an earlier scene; then what is only on the way to pictures; then the picture that was used last:
 * a range that is too long for the budget is gone through in the same order again and again, and dropping the longest
 * unused would drop each frame just before it comes round. (For a loop through N things with room for C, dropping the last
 * used keeps C − 1 of them; dropping the longest unused keeps none.)
 */
export class FormCache {
  readonly #entries = new Map<string, Entry>();
  readonly #list: Entry[] = [];
  /** How many entries hold each part, and how many of those parts hold each buffer. */
  readonly #holders = new Map<object, number>();
  #budget: number;
  #bytes = 0;
  #evaluation = 0;
  #scene = 0;
  #dice = 1;

  /** @param budget bytes */
  constructor(budget: number) {
    this.#budget = budget;
  }

  get bytes(): number {
    return this.#bytes;
  }

  get size(): number {
    return this.#list.length;
  }

  /** Tells that another evaluation begins, of another scene or of the same. */
  begin(otherScene: boolean): void {
    this.#evaluation++;
    if (otherScene) this.#scene++;
  }

  /** Changes the budget, bytes. */
  resize(budget: number): void {
    this.#budget = budget;
    while (this.#bytes > budget && this.#list.length > 0) this.#drop(this.#victim(null));
  }

  has(key: string): boolean {
    return this.#entries.has(key);
  }

  get(key: string): Form | undefined {
    const entry = this.#entries.get(key);
    if (entry) this.#use(entry);
    return entry?.form;
  }

  /** Marks what a picture shows. */
  show(key: string): void {
    const entry = this.#entries.get(key);
    if (!entry) return;
    entry.shown = true;
    this.#use(entry);
  }

  set(key: string, form: Form): void {
    const known = this.#entries.get(key);
    if (known) {
      this.#use(known);
      return;
    }
    const parts = [form.paths, form.mesh, form.points, form.copies, form.seats, form.extent].filter(
      (part) => part !== null,
    );
    // What fills the budget by itself would drop everything else, and itself at the next.
    if (takeMore(parts, this.#budget - OVERHEAD)) return;
    const entry: Entry = {
      key,
      form,
      parts,
      shown: false,
      used: this.#evaluation,
      scene: this.#scene,
      at: this.#list.length,
    };
    this.#entries.set(key, entry);
    this.#list.push(entry);
    this.#bytes += OVERHEAD;
    for (const part of parts)
      if (this.#held(part, 1) === 1)
        for (const buffer of buffersOf(part)) if (this.#held(buffer, 1) === 1) this.#bytes += buffer.byteLength;
    while (this.#bytes > this.#budget && this.#list.length > 1) this.#drop(this.#victim(entry));
  }

  #use(entry: Entry): void {
    entry.used = this.#evaluation;
    entry.scene = this.#scene;
  }

  /** An entry that can go, out of some taken at random; never the one that has just come, if any has. */
  #victim(fresh: Entry | null): Entry {
    let best: Entry | null = null;
    const few = this.#list.length <= SAMPLE;
    for (let i = 0; i < Math.min(SAMPLE, this.#list.length); i++) {
      const entry = this.#list[few ? i : this.#random(this.#list.length)];
      if (entry !== fresh && (!best || this.#before(entry, best))) best = entry;
    }
    return best ?? this.#list[fresh?.at === 0 ? 1 : 0];
  }

  /** Whether one entry goes before another. */
  #before(a: Entry, b: Entry): boolean {
    const [rankA, rankB] = [this.#rank(a), this.#rank(b)];
    if (rankA !== rankB) return rankA < rankB;
    // Of an earlier scene the longest unused; of this one, see above, the last used.
    return rankA === 0 ? a.used < b.used : a.used > b.used;
  }

  #rank(entry: Entry): number {
    if (this.#evaluation - entry.used < RECENT) return entry.shown ? 2 : 3;
    if (entry.scene !== this.#scene) return 0;
    return entry.shown ? 2 : 1;
  }

  #drop(entry: Entry): void {
    this.#entries.delete(entry.key);
    const last = this.#list.pop()!;
    if (last !== entry) {
      this.#list[entry.at] = last;
      last.at = entry.at;
    }
    this.#bytes -= OVERHEAD;
    for (const part of entry.parts)
      if (this.#held(part, -1) === 0)
        for (const buffer of buffersOf(part)) if (this.#held(buffer, -1) === 0) this.#bytes -= buffer.byteLength;
  }

  /** By how many something is held once so many more hold it. */
  #held(what: object, more: number): number {
    const holders = (this.#holders.get(what) ?? 0) + more;
    if (holders > 0) this.#holders.set(what, holders);
    else this.#holders.delete(what);
    return holders;
  }

  /** A whole number below n (xorshift32, Marsaglia 2003): the same in every run. */
  #random(n: number): number {
    this.#dice ^= this.#dice << 13;
    this.#dice ^= this.#dice >>> 17;
    this.#dice ^= this.#dice << 5;
    return (this.#dice >>> 0) % n;
  }
}

/** Buffers of parts of forms, which never change once they are made, and bytes of all of them. */
const listed = new WeakMap<object, { readonly buffers: readonly ArrayBufferLike[]; readonly bytes: number }>();

/** Every buffer that a part of a form keeps alive, those of its items and of what it was cut from among them. */
const buffersOf = (part: object): readonly ArrayBufferLike[] => list(part).buffers;

function list(part: object): { buffers: readonly ArrayBufferLike[]; bytes: number } {
  let found = listed.get(part);
  if (!found) {
    const buffers = [...within(part, new Set())];
    let bytes = 0;
    for (const { byteLength } of buffers) bytes += byteLength;
    listed.set(part, (found = { buffers, bytes }));
  }
  return found;
}

/** The buffers of all arrays within something, added to others. */
function within(value: unknown, buffers: Set<ArrayBufferLike>): Set<ArrayBufferLike> {
  if (typeof value !== 'object' || value === null) return buffers;
  const known = listed.get(value);
  if (known) for (const buffer of known.buffers) buffers.add(buffer);
  else if (ArrayBuffer.isView(value)) buffers.add(value.buffer);
  else for (const name in value) within((value as Record<string, unknown>)[name], buffers);
  return buffers;
}

/** Whether parts of one form, each buffer once, take more than so many bytes. */
function takeMore(parts: readonly object[], most: number): boolean {
  let atMost = 0;
  for (const part of parts) atMost += list(part).bytes;
  if (atMost <= most) return false;
  let bytes = 0;
  for (const buffer of new Set(parts.flatMap(buffersOf))) bytes += buffer.byteLength;
  return bytes > most;
}
