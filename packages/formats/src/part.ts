import { type Form, type GrowthResult, Problem, type Scene, type Surface } from '@uvrex/core';
import type { Part } from './obj';

/** A growth at a frame, as formats take it. */
export interface GrownPart extends Part {
  surface: Surface | null;
  form: Form;
  /** Share of the whole length that has grown, 0..1; null without paths. */
  share: number | null;
  /** Time that its steps took. */
  milliseconds: number;
}

/** What growths are called in files: two of one name are told apart by a number, in the order of the scene. */
export function partNames(scene: Pick<Scene, 'growths'>): Map<string, string> {
  const names = new Map<string, string>();
  const taken = new Set(scene.growths.map(({ name }) => name));
  const met = new Set<string>();
  for (const { id, name } of scene.growths) {
    let own = name;
    if (met.has(name)) {
      let i = 2;
      while (taken.has((own = `${name} (${i})`))) i++;
      taken.add(own);
    }
    met.add(name);
    names.set(id, own);
  }
  return names;
}

/** Growths at a frame as parts of a file. @throws Problem for the first that has no form, by its name */
export function partsOf(scene: Scene, frame: number, growths: readonly GrowthResult[]): GrownPart[] {
  const names = partNames(scene);
  return growths.map(({ id, form, notices, share, costs }) => {
    const name = names.get(id) ?? id;
    if (!form) {
      const notice = notices.find(({ level }) => level === 'error');
      throw new Problem(
        `Frame ${frame}, growth “${name}”: ${notice?.what ?? 'it has no result.'}`,
        notice?.advice ?? 'Mend it, or hide the growth.',
        notice?.place,
      );
    }
    const milliseconds = costs.reduce((sum, cost) => sum + cost.milliseconds, 0);
    return { ...form, name, form, share, milliseconds };
  });
}
