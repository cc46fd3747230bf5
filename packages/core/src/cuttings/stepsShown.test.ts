import { wholeMesh } from '../geometry/copies';
import { newGrowth, newScene, newStep } from '../scene/make';
import { checkScene } from '../scene/read';
import type { Step } from '../scene/schema';
import { STEPS, stepOf } from '../steps/index';
import { testEvaluator } from '../testing';
import { withShipped } from '../../test/paths';
import { stepsShown } from './stepsShown';

withShipped();

/** A step as it comes from a scene in which it copies, or goes by, another growth. */
const asUsed = (kind: string): Step => {
  const step = newStep(kind);
  for (const [name, spec] of Object.entries(stepOf(kind)!.params))
    if (spec.type === 'growth' && step.params[name] === null && !['second', 'third', 'fourth', 'fifth'].includes(name))
      step.params[name] = 'other';
  return step;
};

/** What wants more than a step by itself says: a file, a front over it, a closed path or two, something that moves. */
const WANTING = ['vector', 'reveal', 'plate', 'loft', 'trail'];

test.each(STEPS.map(({ kind }) => kind).filter((kind) => !WANTING.includes(kind)))(
  '%s by itself comes to something that is seen',
  async (kind) => {
    const scene = { ...newScene('Clip'), range: [1, 9] as [number, number] };
    const other = newGrowth('Other', 1, [newStep('helix'), newStep('tube')]);
    scene.growths = [newGrowth('Taken', 0, [asUsed(kind)]), { ...other, id: 'other' }];
    const shown = checkScene(stepsShown(scene));
    const { growths } = await testEvaluator().evaluate(shown, 9);
    const [{ form, notices }] = growths;
    expect(notices.filter(({ level }) => level !== 'note')).toEqual([]);
    expect(wholeMesh(form!)!.indices.length).toBeGreaterThan(0);
    expect(growths).toHaveLength(1);
  },
);
