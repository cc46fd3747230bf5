import type { Shown } from '@/worker/protocol';

/** Bytes that are held where nothing else is said. */
const BUDGET = 512 * 1024 * 1024;
/** Bytes of a form besides its arrays, about. */
const EACH = 256;

/**
 * Geometry that the screen holds, under the engine's keys. The longest unused is dropped past the byte budget, but
 * never what is on screen.
 */
export class Geometries {
  readonly #kept = new Map<string, Shown>();
  /** How many of them hold an array: frames have arrays in common. */
  readonly #users = new Map<ArrayBufferView, number>();
  #bytes = 0;
  /** Told the keys that were dropped. */
  onDrop: (keys: string[]) => void = () => {};

  /** @param budget bytes */
  constructor(readonly budget = BUDGET) {}

  get(key: string): Shown | undefined {
    const shown = this.#kept.get(key);
    if (!shown) return undefined;
    this.#kept.delete(key);
    this.#kept.set(key, shown);
    return shown;
  }

  has(key: string): boolean {
    return this.#kept.has(key);
  }

  add(key: string, shown: Shown, onScreen: ReadonlySet<string>): void {
    this.#drop(key);
    this.#kept.set(key, shown);
    this.#bytes += EACH;
    for (const array of arraysOf(shown)) {
      const users = this.#users.get(array) ?? 0;
      this.#users.set(array, users + 1);
      if (users === 0) this.#bytes += array.byteLength;
    }
    if (this.#bytes <= this.budget) return;
    const dropped: string[] = [];
    for (const old of this.#kept.keys()) {
      if (this.#bytes <= this.budget) break;
      if (old === key || onScreen.has(old)) continue;
      this.#drop(old);
      dropped.push(old);
    }
    if (dropped.length > 0) this.onDrop(dropped);
  }

  #drop(key: string): void {
    const shown = this.#kept.get(key);
    if (!shown) return;
    this.#kept.delete(key);
    this.#bytes -= EACH;
    for (const array of arraysOf(shown)) {
      const users = this.#users.get(array)! - 1;
      if (users > 0) this.#users.set(array, users);
      else {
        this.#users.delete(array);
        this.#bytes -= array.byteLength;
      }
    }
  }
}

const arraysOf = ({ mesh, paths, copies, dots, dotIds, tips, picture }: Shown): ArrayBufferView[] =>
  [mesh, paths, tips, picture, { dots, dotIds }, ...copies].flatMap((part) =>
    Object.values(part ?? {}).filter((held) => ArrayBuffer.isView(held)),
  );
