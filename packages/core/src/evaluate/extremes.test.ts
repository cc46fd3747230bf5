import { stepsShown } from '../cuttings/stepsShown';
import { flaws } from '../geometry/invariants';
import { newGrowth, newScene, newStep } from '../scene/make';
import type { ParamValue, Scene, Step } from '../scene/schema';
import { STEPS, stepOf } from '../steps/index';
import { testEvaluator } from '../testing';
import { withShipped } from '../../test/paths';

withShipped();

/** So little that whatever is too much says so before it is made. */
const BUDGETS = { points: 6000, faces: 6000, copies: 1500, cacheBytes: 1_000_000 };

/** A step as it comes from a scene in which it copies, or goes by, another growth. */
const used = (kind: string, more: Record<string, ParamValue>): Step => {
  const step = newStep(kind, more);
  for (const [name, spec] of Object.entries(stepOf(kind)!.params))
    if (spec.type === 'growth' && step.params[name] === null) step.params[name] = 'other';
  return step;
};

function sceneWith(step: Step): Scene {
  const scene = { ...newScene('Ends'), range: [1, 9] as [number, number] };
  const other = newGrowth('Other', 1, [newStep('helix', { points: 24 }), newStep('tube', { sides: 5 })]);
  scene.growths = [newGrowth('Taken', 0, [step]), { ...other, id: 'other' }];
  return stepsShown(scene);
}

/** The numbers of a step, and both ends of what each may be. */
const ENDS = STEPS.flatMap(({ kind, params }) =>
  Object.entries(params).flatMap(([name, spec]) =>
    spec.type === 'number' ? [spec.min, spec.max].map((value) => [kind, name, value] as const) : [],
  ),
);

/** What is grown step by step takes minutes at its ends, which can be given up at any moment: `EXTREMES=all` tries it too. */
const LONG = process.env.EXTREMES === 'all' ? [] : ['frill', 'ruffle', 'colonise'];

test.each(STEPS.map(({ kind }) => kind).filter((kind) => !LONG.includes(kind)))(
  '%s: whatever end a number of it is at, it gives something sound, or says what and what to do',
  async (kind) => {
    const said: string[] = [];
    for (const [of, name, value] of ENDS) {
      if (of !== kind) continue;
      const { growths } = await testEvaluator(BUDGETS).evaluate(sceneWith(used(kind, { [name]: value })), 5);
      const [{ form, notices }] = growths;
      const where = `${name} ${value}`;
      if (form) said.push(...flaws(form).map((flaw) => `${where}: ${flaw}`));
      for (const { level, what, advice } of notices) {
        // What a step did not foresee is told by what the machine says of it.
        const unforeseen = / failed: /.test(what);
        if (unforeseen || what === '' || (level !== 'note' && advice === '')) said.push(`${where}: ${what} ${advice}`);
      }
      if (!form && notices.length === 0) said.push(`${where}: nothing, and nothing said`);
    }
    expect(said).toEqual([]);
  },
  LONG.length > 0 ? 60_000 : 1_200_000,
);
