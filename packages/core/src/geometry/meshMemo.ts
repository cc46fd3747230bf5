import type { Mesh } from './mesh';

/** Entries per mesh: few, since each may be as large as the mesh. */
const MOST = 4;

interface Kept<T> {
  indices: Uint32Array;
  key: string;
  value: T;
}

/**
 * Cache of results that depend on the positions and indices of a mesh alone. A front that spreads over a mesh changes neither, so that
 * they are computed once for all frames. Entries are garbage collected with the positions.
 */
export class MeshMemo<T> {
  readonly #known = new WeakMap<Float32Array, Kept<T>[]>();

  /**
   * @param key the other inputs of the result
   * @param make computes it; a rejected result is not cached
   */
  async get({ positions, indices }: Mesh, key: string, make: () => Promise<T>): Promise<T> {
    const kept = this.#known.get(positions) ?? [];
    const found = kept.find((one) => one.indices === indices && one.key === key);
    if (found) return found.value;
    const value = await make();
    this.#known.set(positions, [{ indices, key, value }, ...kept].slice(0, MOST));
    return value;
  }
}
