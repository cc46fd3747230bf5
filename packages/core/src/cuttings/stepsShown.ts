import type { FormKind } from '../geometry/form';
import { newGrowth, newStep } from '../scene/make';
import type { Growth, Scene, Step } from '../scene/schema';
import { stepOf } from '../steps/index';

/** What stands there for steps that need something before them. */
const HOSTS: Readonly<Record<FormKind, () => Step[]>> = {
  paths: () => [newStep('helix', { below: 0.12, above: 0.3, height: 1.9, turns: 1.6 })],
  mesh: () => [newStep('rock')],
  points: () => [newStep('phyllotaxis', { which: 'dome', count: 90, radius: 0.5, height: 0.4 })],
  copies: () => [...HOSTS.paths(), newStep('along', { growth: DOT, by: 'count', count: 14 })],
};

const DOT = 'shown-dot';
const dot = (): Growth => ({
  ...newGrowth('Dot', 1, [newStep('solid', { radius: 0.06, sides: 16 }), newStep('finish', { glow: 0 })]),
  ...{ id: DOT, visible: false },
});

/**
 * A scene in which steps are seen that were taken out of a growth: on a path, a form, points or copies, whatever they need, with a
 * skin where they give none.
 * @param scene its first growth holds the steps, those after it are what these need
 */
export function stepsShown(scene: Scene): Scene {
  const [taken, ...needs] = scene.growths;
  const there = new Set<FormKind>();
  const steps: Step[] = [];
  const add = (step: Step): void => {
    const declaration = stepOf(step.kind);
    if (!declaration) return;
    const { takes, takesOne = [], gives } = declaration;
    const missing = takes.filter((kind) => !there.has(kind));
    if (takesOne.length > 0 && !takesOne.some((kind) => there.has(kind))) missing.push(takesOne[0]);
    for (const kind of missing) if (!there.has(kind)) for (const host of HOSTS[kind]()) add(host);
    steps.push(step);
    for (const kind of gives) there.add(kind);
  };
  taken.steps.filter(({ on }) => on).forEach(add);
  if (!there.has('mesh') && !there.has('copies')) {
    if (there.has('points')) add(newStep('on-points', { growth: DOT }));
    else add(newStep('tube', { radius: 0.03 }));
    if (there.has('mesh')) add(newStep('finish', { glow: 0 }));
  }
  return {
    ...scene,
    growths: [
      { ...taken, steps, visible: true, place: {} },
      ...needs.map((need) => ({ ...need, visible: false })),
      dot(),
    ],
  };
}
