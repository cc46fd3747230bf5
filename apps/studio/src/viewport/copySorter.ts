import type { Drawable } from '@uvrex/core/stand-ins';
import { ballOf, DETAIL_LEVELS, detailLevels, loadAt } from './copyDetail';
import { type Batch, type Copies, loadOf } from './copySet';
import type { Viewpoint } from './rendering';

export { makeLod } from '@uvrex/core/stand-ins';
export { speckMaterial, specksOf } from './specks';

/** An item's copies by how finely they are drawn, and what they were sorted from. */
interface Sorted {
  matrices: Float32Array;
  tints: Float32Array | null;
  first: number;
  levels: Uint8Array;
  batches: Batch[];
}

/** Sorts copies by how large they are on the screen: small ones are drawn from lighter forms. */
export class CopySorter {
  readonly #details = new Map<string, Sorted>();
  readonly #balls = new WeakMap<Float32Array, ReturnType<typeof ballOf>>();

  /** @param lighter a form of an item of at most so many vertices and faces; null where there is none */
  constructor(private readonly lighter: (item: string, mesh: Drawable, light: number) => Drawable | null) {}

  /** Copies in batches; the same arrays as last time where nothing has changed. */
  sort(whole: Batch, viewpoint: Viewpoint): Batch[] {
    const { name: item, mesh, copies, first, end } = whole;
    const { matrices, tints, ids } = copies;
    const load = loadOf(mesh);
    const levels = detailLevels(this.#ball(mesh.positions), load, matrices, [first, end], viewpoint);
    const known = this.#details.get(item);
    if (
      known &&
      known.matrices === matrices &&
      known.tints === tints &&
      known.first === first &&
      known.levels.length === levels.length &&
      known.levels.every((level, i) => level === levels[i])
    )
      return known.batches;
    const chosen: number[][] = Array.from({ length: DETAIL_LEVELS }, () => []);
    levels.forEach((level, i) => chosen[level].push(first + i));
    const batches = chosen.flatMap((list, level): Batch[] => {
      if (list.length === 0) return [];
      const light = loadAt(load, level);
      return [
        {
          name: level === 0 ? item : `${item} light ${light}`,
          mesh: (level > 0 && this.lighter(item, mesh, light)) || mesh,
          copies: list.length === matrices.length / 16 ? { matrices, tints, ids } : pick(copies, list),
          first: 0,
          end: list.length,
        },
      ];
    });
    this.#details.set(item, { matrices, tints, first, levels, batches });
    return batches;
  }

  /** Forgets all but some items. */
  forget(kept: ReadonlySet<string>): void {
    for (const item of this.#details.keys()) if (!kept.has(item)) this.#details.delete(item);
  }

  #ball(positions: Float32Array): ReturnType<typeof ballOf> {
    let ball = this.#balls.get(positions);
    if (!ball) this.#balls.set(positions, (ball = ballOf(positions)));
    return ball;
  }
}

/** Some of the copies, in arrays of their own. */
function pick({ matrices, tints, ids }: Omit<Copies, 'item'>, list: readonly number[]): Omit<Copies, 'item'> {
  const picked = {
    matrices: new Float32Array(16 * list.length),
    tints: tints && new Float32Array(3 * list.length),
    ids: new Uint32Array(list.length),
  };
  list.forEach((k, i) => {
    picked.matrices.set(matrices.subarray(16 * k, 16 * k + 16), 16 * i);
    picked.tints?.set(tints!.subarray(3 * k, 3 * k + 3), 3 * i);
    picked.ids[i] = ids[k];
  });
  return picked;
}
