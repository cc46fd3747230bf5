// Measures every starter as the Checks of the studio do, and prints the table of docs/measurements.md.
import { readFile } from 'node:fs/promises';
import {
  checkScene,
  clashesOf,
  Evaluator,
  figure,
  fitOf,
  grownLength,
  measureSeam,
  paceOf,
  type Scene,
} from '@uvrex/core';
import { shipped } from '../packages/bake/src/shipped';
import { STARTER_FRAMES } from '../examples/frames';

const evaluator = (): Evaluator =>
  new Evaluator({ now: () => performance.now(), shipped, file: async () => undefined });

async function seamOf(scene: Scene): Promise<string> {
  const { growths, size } = await measureSeam(evaluator(), scene);
  const gap = Math.max(...growths.map((one) => one.gap)) / size;
  return gap < 1e-4 ? 'closes' : 'none: it grows';
}

/** Growths whose length changes, with how unevenly. */
async function paceOfAll(scene: Scene): Promise<string> {
  const engine = evaluator();
  const [first, last] = scene.range;
  const lengths = new Map<string, number[]>();
  for (let frame = first; frame <= last; frame++)
    for (const { id, form } of (await engine.evaluate(scene, frame)).growths)
      lengths.set(id, [...(lengths.get(id) ?? []), grownLength(form?.paths ?? null)]);
  const uneven = [...lengths.values()].map((of) => paceOf(of, scene.fps).unevenness).filter((of) => of !== null);
  if (uneven.length === 0) return 'does not grow';
  const [least, most] = [Math.min(...uneven), Math.max(...uneven)].map((x) => `${Math.round(100 * x)} %`);
  return least === most ? least : `${least} to ${most}`;
}

async function copiesOf(scene: Scene, frame: number): Promise<[fit: string, clashes: string]> {
  const { growths } = await evaluator().evaluate(scene, frame);
  const sets = growths.flatMap(({ form }) => (form?.copies ? [form.copies] : []));
  if (sets.length === 0) return ['–', '–'];
  let pairs = 0;
  const gaps: number[] = [];
  let complete = true;
  for (const copies of sets) {
    for (const { gap } of await fitOf(copies)) gaps.push(gap);
    const clashes = await clashesOf(copies, undefined, 2000);
    pairs += clashes.pairs.length;
    complete &&= clashes.complete;
  }
  const mm = (metres: number): string => figure(1000 * metres);
  const fit = gaps.length === 0 ? 'no rows' : `${mm(Math.min(...gaps))} to ${mm(Math.max(...gaps))} mm`;
  return [fit, `${complete ? '' : 'over '}${pairs}`];
}

console.log('| starter | seam | pace, how uneven | gaps in rows | pairs that clash |\n| - | - | - | - | - |');
for (const [id, { name, frame }] of Object.entries(STARTER_FRAMES)) {
  const scene = checkScene(JSON.parse(await readFile(new URL(`../examples/${id}.json`, import.meta.url), 'utf8')));
  const [fit, clashes] = await copiesOf(scene, frame);
  console.log(`| ${name} | ${await seamOf(scene)} | ${await paceOfAll(scene)} | ${fit} | ${clashes} |`);
}
