import type { Shown } from '@/worker/protocol';

const BUDGET = 512 * 1024 * 1024;

interface Kept {
  shown: Shown;
  bytes: number;
}

/**
 * Geometry that the screen holds, under the engine's keys. The longest unused is dropped past the byte budget, but
 * never what is on screen.
 */
export class Geometries {
  readonly #kept = new Map<string, Kept>();
  #bytes = 0;
  /** Told the keys that were dropped. */
  onDrop: (keys: string[]) => void = () => {};

  get(key: string): Shown | undefined {
    const kept = this.#kept.get(key);
    if (!kept) return undefined;
    this.#kept.delete(key);
    this.#kept.set(key, kept);
    return kept.shown;
  }

  has(key: string): boolean {
    return this.#kept.has(key);
  }

  add(key: string, shown: Shown, onScreen: ReadonlySet<string>): void {
    const bytes = sizeOf(shown);
    this.#kept.set(key, { shown, bytes });
    this.#bytes += bytes;
    if (this.#bytes <= BUDGET) return;
    const dropped: string[] = [];
    for (const [old, kept] of this.#kept) {
      if (this.#bytes <= BUDGET) break;
      if (old === key || onScreen.has(old)) continue;
      this.#kept.delete(old);
      this.#bytes -= kept.bytes;
      dropped.push(old);
    }
    if (dropped.length > 0) this.onDrop(dropped);
  }
}

function sizeOf({ mesh, paths, copies, dots, dotIds, tips }: Shown): number {
  let bytes = 256;
  for (const part of [mesh, paths, tips, { dots, dotIds }, ...copies])
    for (const held of Object.values(part ?? {})) if (ArrayBuffer.isView(held)) bytes += held.byteLength;
  return bytes;
}
