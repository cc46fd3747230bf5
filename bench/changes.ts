// How long the engine takes from a change to a frame, starter by starter: the first number of every step is nudged once, on its own,
// at the frame that shows the starter best; what was computed before stays. What takes longer than a moment is shown coarsely while it
// changes: there a drag waits for that frame, and the whole one comes when it rests. `npm run bench:changes -- [name …]`: in one file, as in the
// studio, since a module that is loaded later costs milliseconds each time where it is translated on the way.
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { draftScene, Evaluator, readScene, type Scene, shareStructure, stepOf } from '@uvrex/core';
import { STARTER_FRAMES } from '../examples/frames';

const folder = join(process.cwd(), 'examples');
const wanted = process.argv.slice(2);

/** As the studio has them (apps/studio/src/state/director/results.ts), milliseconds: when a frame is given up for a coarse one, and which steps make less then. */
const COARSE = { after: 150, step: 40 };

/** The scene with one number a little larger. */
const nudged = (scene: Scene, g: number, s: number, name: string, by: number): Scene => {
  const next: Scene = {
    ...scene,
    growths: scene.growths.map((growth, i) =>
      i !== g
        ? growth
        : {
            ...growth,
            steps: growth.steps.map((step, k) =>
              k !== s ? step : { ...step, params: { ...step.params, [name]: (step.params[name] as number) * by } },
            ),
          },
    ),
  };
  return shareStructure(next, scene);
};

const rows: Record<string, unknown>[] = [];
for (const file of readdirSync(folder).filter((name) => name.endsWith('.json') && name !== 'package.json')) {
  const id = file.replace('.json', '');
  if (wanted.length > 0 && !wanted.includes(id)) continue;
  const scene = shareStructure(readScene(readFileSync(join(folder, file), 'utf8')));
  const frame = (STARTER_FRAMES as Record<string, { frame: number }>)[id]?.frame ?? scene.range[1];
  const evaluator = new Evaluator({
    now: () => performance.now(),
    shipped: (name) => Promise.resolve(new Uint8Array(readFileSync(join(folder, 'assets', `${name}.ply`)))),
  });
  const whole = await evaluator.evaluate(scene, frame);
  const costs = new Map(
    whole.growths.flatMap((growth) => growth.costs.map(({ step, milliseconds }) => [step, milliseconds] as const)),
  );
  const slow = (step: string): boolean => (costs.get(step) ?? Infinity) > COARSE.step;
  const times: { took: number; shown: number; what: string }[] = [];
  for (const [g, growth] of scene.growths.entries())
    for (const [s, step] of growth.steps.entries()) {
      const spec = Object.entries(stepOf(step.kind)?.params ?? {}).find(
        ([name, { type }]) => type === 'number' && typeof step.params[name] === 'number' && step.params[name] !== 0,
      );
      if (!spec || (stepOf(step.kind)!.params[spec[0]] as { whole?: boolean }).whole) continue;
      const timed = async (asked: Scene): Promise<number> => {
        const before = performance.now();
        await evaluator.evaluate(asked, frame);
        return performance.now() - before;
      };
      const took = await timed(nudged(scene, g, s, spec[0], 1.01));
      // The next change of the same drag.
      const coarse = took > COARSE.after && draftScene(nudged(scene, g, s, spec[0], 1.02), scene, slow);
      const shown = coarse ? await timed(shareStructure(coarse, scene)) : took;
      times.push({ took, shown, what: `${growth.name}: ${step.kind}.${spec[0]}` });
    }
  times.sort((a, b) => a.took - b.took);
  const last = times[times.length - 1];
  const drag = times.reduce((most, one) => (one.shown > most.shown ? one : most));
  rows.push({
    starter: id,
    changes: times.length,
    'median, ms': Number(times[times.length >> 1].took.toFixed(1)),
    'within 50 ms': `${Math.round((100 * times.filter(({ took }) => took <= 50).length) / times.length)} %`,
    'whole, longest, ms': Number(last.took.toFixed(0)),
    'which is': last.what,
    'dragged, longest, ms': Number(drag.shown.toFixed(0)),
    'which is so': drag.what,
  });
}
console.table(rows);
