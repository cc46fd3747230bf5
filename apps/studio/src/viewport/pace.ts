import type { OnScreen } from '@/state/director/results';
import type { Rendering } from './rendering';

/** Faces that the processor draws finely, or with shadows, without holding the page up for long. */
const FACES = { fine: 250_000, standard: 350_000 };
/** Vertices and faces of copies that the processor draws many times a second. */
const AT_ONCE = 80_000;
/** A resting picture that took longer, in milliseconds, is not drawn so again by itself. */
const PATIENCE = 1500;

/** What resting pictures of a quality took last, in milliseconds, and of how many faces. */
export type Costs = Partial<Record<'fine' | 'standard', { faces: number; took: number }>>;

/**
 * How a picture is drawn where that is left to us: quickly while things move, finely when they rest, as far as what draws
 * it is up to it.
 * @param software whether the processor draws
 */
export function automatic(software: boolean, rest: boolean, costs: Costs, faces: number): Rendering['quality'] {
  if (!software) return rest ? 'fine' : 'standard';
  if (!rest) return 'draft';
  const slow = (quality: 'fine' | 'standard'): boolean => {
    const known = costs[quality];
    return faces > FACES[quality] || (known !== undefined && known.took > PATIENCE && known.faces <= 1.2 * faces);
  };
  return !slow('fine') ? 'fine' : !slow('standard') ? 'standard' : 'draft';
}

/** How the processor draws many copies. */
export interface Sharing {
  /** The share of them that it draws at once. */
  share: number;
  /** Vertices and faces that each of them can have for all to be drawn at once, in steps of √2. */
  light: number;
}

export function sharingOf(growths: readonly Pick<OnScreen, 'shown' | 'items'>[]): Sharing {
  let [load, copies] = [0, 0];
  for (const { shown, items } of growths)
    for (const { item, ids } of shown.copies) {
      const mesh = items.get(item)?.mesh;
      if (!mesh) continue;
      copies += ids.length;
      load += (ids.length * (mesh.positions.length + mesh.indices.length)) / 3;
    }
  return {
    share: Math.min(1, AT_ONCE / Math.max(1, load)),
    light: Math.round(2 ** (Math.floor(2 * Math.log2(AT_ONCE / Math.max(1, copies))) / 2)),
  };
}
