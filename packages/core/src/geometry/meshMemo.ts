import type { Mesh } from './mesh';

/** How many results are kept of one mesh: few, since each may be as large as the mesh. */
const MOST = 4;

interface Kept<T> {
  indices: Uint32Array;
  key: string;
  value: T;
}

/**
 * What has been computed from the places and faces of a mesh alone. A front that spreads over a mesh leaves both as they are, so that
 * it is computed once for all frames; it is garbage collected with the places.
 */
export class MeshMemo<T> {
  readonly #known = new WeakMap<Float32Array, Kept<T>[]>();

  /**
   * @param key what it hangs on besides
   * @param make computes it; what throws, or is cancelled, is not kept
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
