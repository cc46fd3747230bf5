import { type ParamSpec, type ParamValue, type Resolved, type Scene, type Step, stepOf } from '@uvrex/core';
import { attributeNames } from '../document/attributeNames';
import { referenceFor } from './items';

/**
 * What fields that a choice has brought up begin with, so that they are no error: another growth, a guide, an attribute that is
 * there. What has a value that will do keeps it, and so do fields that were shown before.
 * @param before the step's parameters before the choice
 */
export function completeParams(
  scene: Scene,
  growthId: string,
  step: Step,
  before: Step['params'],
): Record<string, ParamValue> {
  const shows = (spec: ParamSpec, params: Step['params']): boolean => spec.shown?.(params as Resolved) ?? true;
  const made: Record<string, ParamValue> = {};
  for (const [name, spec] of Object.entries(stepOf(step.kind)?.params ?? {})) {
    if (!shows(spec, step.params) || shows(spec, before)) continue;
    const value = step.params[name];
    if (spec.type === 'growth' && value === null && !spec.item && !spec.optional) {
      const other = referenceFor(scene, growthId, spec);
      if (other) made[name] = other;
    } else if (spec.type === 'guide' && value === null && scene.guides.length > 0)
      made[name] = `guide:${scene.guides[scene.guides.length - 1].id}`;
    else if (spec.type === 'attribute') {
      const names = attributeNames(scene.growths, growthId, step.id);
      // What steps have written says more than what every skin has.
      if (!names.includes(String(value))) made[name] = names[names.length - 1];
    }
  }
  return made;
}
