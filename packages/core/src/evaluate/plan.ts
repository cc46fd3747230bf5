import type { Growth, Scene, SceneGuide, Step } from '../scene/schema';
import { references } from '../scene/references';
import { runnableOf, withPlace } from '../scene/owners';

/** Ids of the growths whose paths a growth takes over. */
const inherited = (growth: Growth): string[] =>
  growth.steps.flatMap(({ on, kind, params }) => {
    const heir = on ? runnableOf(kind)?.heirOf : undefined;
    const id = heir && params[heir];
    return typeof id === 'string' ? [id] : [];
  });

export interface Plan {
  /** Each with its place as its last step. */
  byId: Map<string, Growth>;
  /** The scene's guides, by what parameters call them. */
  guides: Map<string, SceneGuide>;
  /** Ids that each growth's steps refer to. */
  references: Map<string, readonly string[]>;
  /** Growths that take a growth's paths over. */
  heirs: Map<string, Growth[]>;
  /** Periods of growths, as far as they have been asked for. */
  periods: Map<string, number>;
  /** Before which steps the paths keep their course, as far as that has been asked. */
  steady: Map<Step, boolean>;
  /** For each growth that refers to itself in the end: the names round the circle, first one repeated. */
  circles: Map<string, string[]>;
}

/** Finds a scene's growths by their ids, and the circles among them by depth-first search. */
export function planOf(scene: Scene): Plan {
  const growths = scene.growths.map(withPlace);
  const byId = new Map(growths.map((growth) => [growth.id, growth]));
  const named = new Map(growths.map((growth) => [growth.id, [...new Set(references(growth))]]));
  const circles = new Map<string, string[]>();
  const done = new Set<string>();
  const trail: Growth[] = [];

  const visit = (growth: Growth): void => {
    if (done.has(growth.id)) return;
    const seen = trail.indexOf(growth);
    if (seen >= 0) {
      const members = trail.slice(seen);
      for (const member of members)
        circles.set(
          member.id,
          [...members, growth].map(({ name }) => name),
        );
      return;
    }
    trail.push(growth);
    for (const id of named.get(growth.id)!) {
      const other = byId.get(id);
      if (other) visit(other);
    }
    trail.pop();
    done.add(growth.id);
  };
  growths.forEach(visit);
  const heirs = new Map<string, Growth[]>();
  for (const growth of growths) {
    if (circles.has(growth.id)) continue;
    for (const id of inherited(growth)) heirs.set(id, [...(heirs.get(id) ?? []), growth]);
  }
  const guides = new Map(scene.guides.map((guide) => [`guide:${guide.id}`, guide]));
  return { byId, guides, references: named, heirs, periods: new Map(), steady: new Map(), circles };
}
