import { type Growth, type Scene, type Step } from '../scene/schema';
import { type Resolved, type StepDeclaration } from '../steps/declare';
import { stepOf } from '../steps/index';

/** Ids of the growths that a step's parameters name. */
export const referencedBy = (declaration: StepDeclaration, params: Resolved | Step['params']): string[] =>
  Object.entries(declaration.params).flatMap(([name, spec]) => {
    const value = params[name];
    return spec.type === 'growth' && typeof value === 'string' ? [value] : [];
  });

/** Ids of the growths that a growth's steps refer to; steps that are off count for nothing. */
export const references = (growth: Growth): string[] =>
  growth.steps.flatMap((step) => {
    const declaration = step.on ? stepOf(step.kind) : undefined;
    return declaration ? referencedBy(declaration, step.params) : [];
  });

export interface Plan {
  /** Growths so that each comes after those it refers to; members of circles are left out. */
  order: Growth[];
  /** For each growth that refers to itself in the end: the names round the circle, first one repeated. */
  circles: Map<string, string[]>;
}

/** Orders a scene's growths for evaluation, by depth-first search. */
export function planOf(scene: Scene): Plan {
  const byId = new Map(scene.growths.map((growth) => [growth.id, growth]));
  const order: Growth[] = [];
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
    for (const id of references(growth)) {
      const other = byId.get(id);
      if (other) visit(other);
    }
    trail.pop();
    done.add(growth.id);
    if (!circles.has(growth.id)) order.push(growth);
  };
  scene.growths.forEach(visit);
  return { order, circles };
}
