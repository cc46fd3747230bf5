import { rewrite, type Symbols } from '../../curves/rules/expand';
import { readRules } from '../../curves/rules/parse';
import { drawn } from '../../curves/rules/turtle';
import type { Form } from '../../geometry/form';
import { allocatePaths } from '../../geometry/paths';
import type { StepContext } from '../declare';
import { formatCount } from '../../format';
import type { RulesParams } from './rules';
import { drawingOf } from './rulesDrawing';
import { startWith } from './startWith';
import { startWithPoints } from './startWithPoints';
import { startWithMesh } from './startWithMesh';

/** Symbols that rules may come to. */
const MOST = 400_000;
/** Expansions kept: while Generations is animated every frame of one asks for the same. */
const KEPT = 6;
const known = new Map<string, Symbols>();

/** What rules grow to, added to what is there. */
export async function runRules(form: Form, p: RulesParams, context: StepContext): Promise<Form> {
  const { seed } = context;
  const generations = Math.ceil(p.generations - 1e-9);
  const length = (birth: number): number => p.line * p.shorter ** birth;
  const key = JSON.stringify([p.axiom, p.rules, generations, seed, p.growing, p.line, p.shorter]);
  let symbols = known.get(key);
  if (!symbols) {
    const system = readRules(p.axiom, p.rules);
    const order = { generations, seed, most: MOST, length, growing: p.growing };
    symbols = await rewrite(system, order, () => context.yieldNow());
    if (known.size >= KEPT) known.clear();
    known.set(key, symbols);
  }
  const lines = symbols.letters.reduce((sum, letter) => sum + (letter === 'F' ? 1 : 0), 0);
  context.tell(`${formatCount(symbols.letters.length, 'symbol')}, ${formatCount(lines, 'line')}.`, '');
  context.claim('points', 2 * lines, 'Generations');
  await context.yieldNow();
  const made = drawn(symbols, drawingOf(p, length, seed));
  const whole = await startWith(form, made.paths ?? allocatePaths(0, 0));
  const withMesh = made.mesh ? await startWithMesh(whole, made.mesh) : whole;
  return made.points ? startWithPoints(withMesh, made.points) : withMesh;
}
