// How long each step works at most between two yields, on large inputs: while it does, nothing can be cancelled.
// `npm run bench:yields -- [--choices] [--extremes] [step …]`: at the defaults, at each choice, with each number at its most;
// the aim is 50 ms.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Evaluator, newGrowth, newScene, newStep, STEPS, type Step, type StepDeclaration } from '@uvrex/core';

const CHOICES = process.argv.includes('--choices');
const EXTREMES = process.argv.includes('--extremes');
const wanted = process.argv.slice(2).filter((word) => !word.startsWith('--'));
/** What takes longer is broken off, milliseconds. */
const PATIENCE = 20_000;
/** Steps that simulate take minutes on inputs like these. */
const SIMULATED = ['frill', 'ruffle', 'colonise'];

const growthsNamed = ({ params }: StepDeclaration): Record<string, string> =>
  Object.fromEntries(
    Object.entries(params).flatMap(([name, { type }]) => (type === 'growth' ? [[name, 'source']] : [])),
  );

/** Parameters to be tried: the defaults, each choice that differs from them, and each number as large as it may be. */
function variantsOf({ params }: StepDeclaration): Record<string, string | boolean | number>[] {
  const others = Object.entries(params).flatMap(([name, param]): Record<string, string | boolean | number>[] => {
    if (EXTREMES && param.type === 'number') return [{ [name]: param.max }];
    if (!CHOICES) return [];
    if (param.type === 'toggle') return [{ [name]: !param.default }];
    if (param.type !== 'choice') return [];
    return param.options.filter(({ value }) => value !== param.default).map(({ value }) => ({ [name]: value }));
  });
  return [{}, ...others];
}

/** Large inputs of each kind that a step takes; one of nothing for a step that takes none. */
function inputsFor({ takes, takesOne = [] }: StepDeclaration): [name: string, steps: Step[]][] {
  const inputs: [string, Step[]][] = [
    ['paths', [newStep('helix', { points: 60 }), newStep('strands', { count: 3000 })]],
    ['mesh', [newStep('solid', { sides: 400 })]],
    ['points', [newStep('phyllotaxis', { count: 50_000 })]],
    ['copies', [newStep('phyllotaxis', { count: 20_000 }), newStep('on-points', { growth: 'source' })]],
  ];
  const kinds: readonly string[] = [...takes, ...takesOne];
  const taken = inputs.filter(([name]) => kinds.includes(name));
  return taken.length > 0 ? taken : [['', []]];
}

/** The growth that a step refers to: small where it is copied, large where a start is made from it. */
const sourceFor = ({ family, kind }: StepDeclaration): Step[] => {
  if (family !== 'start' || kind === 'colonise') return [newStep('line'), newStep('tube', { sides: 4 })];
  return [newStep('solid', { sides: 400 })];
};

const rows: Record<string, unknown>[] = [];
for (const declaration of STEPS) {
  const { kind } = declaration;
  if (wanted.length > 0 ? !wanted.includes(kind) : SIMULATED.includes(kind)) continue;
  for (const variant of variantsOf(declaration))
    for (const [input, before] of inputsFor(declaration)) {
      const scene = newScene('Yields');
      scene.growths.push(
        {
          ...newGrowth('Growth', 1, [...before, newStep(kind, { ...growthsNamed(declaration), ...variant })]),
          id: 'growth',
        },
        { ...newGrowth('Source', 1, sourceFor(declaration)), id: 'source', visible: false },
      );
      let [last, longest] = [0, 0];
      let own = false;
      const evaluator = new Evaluator({
        // The clock is asked at every yield.
        now: () => {
          const time = performance.now();
          if (own) longest = Math.max(longest, time - last);
          return (last = time);
        },
        pause: () => Promise.resolve(),
        stage: (_, step) => (own = step.kind === kind),
        shipped: (name) =>
          Promise.resolve(new Uint8Array(readFileSync(join(process.cwd(), 'examples', 'assets', `${name}.ply`)))),
      });
      // What it refers to is there already: its steps are not this one's.
      const [, source] = scene.growths;
      await evaluator.evaluate({ ...scene, growths: [{ ...source, visible: true }] }, 60);
      [last, longest, own] = [performance.now(), 0, false];
      const begun = performance.now();
      const wanting = {
        get aborted() {
          return performance.now() - begun > PATIENCE;
        },
      };
      const result = await evaluator.evaluate(scene, 60, wanting).catch(() => null);
      const [{ form, notices }] = result?.growths ?? [{ form: null, notices: [{ what: 'Broken off.' }] }];
      rows.push({
        step: kind,
        at: JSON.stringify(variant),
        on: input,
        faces: form?.mesh ? form.mesh.indices.length / 3 : '',
        'all, ms': Math.round(performance.now() - begun),
        'longest piece, ms': Math.round(longest),
        said: notices
          .map(({ what }) => what)
          .join(' ')
          .slice(0, 60),
      });
    }
}
rows.sort((a, b) => (b['longest piece, ms'] as number) - (a['longest piece, ms'] as number));
console.table(rows);
