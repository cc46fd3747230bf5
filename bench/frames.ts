// How long frames take, starter by starter: the whole range frame by frame with an empty cache, then once more. Beside it, in the same
// run, 64 tubes of three's TubeGeometry. `npm run bench:frames -- [name …]`.
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { CatmullRomCurve3, TubeGeometry, Vector3 } from 'three';
import { Evaluator, readScene, type Scene, shareStructure } from '@uvrex/core';
import { median } from './harness';

const folder = join(process.cwd(), 'examples');
const wanted = process.argv.slice(2);

const fresh = (): Evaluator =>
  new Evaluator({
    now: () => performance.now(),
    // What the studio keeps on a device of 8 GB (apps/studio/src/state/director/device.ts).
    budgets: { cacheBytes: 2 ** 30 },
    shipped: (name) => Promise.resolve(new Uint8Array(readFileSync(join(folder, 'assets', `${name}.ply`)))),
  });

/** Milliseconds of every frame of the range, in order. */
async function pass(evaluator: Evaluator, scene: Scene): Promise<number[]> {
  const [first, last] = scene.range;
  const times: number[] = [];
  for (let frame = first; frame <= last; frame++) {
    const before = performance.now();
    await evaluator.evaluate(scene, frame);
    times.push(performance.now() - before);
  }
  return times;
}

/** Frames that an engine makes one after another, as in the studio (apps/studio/src/state/director/framesAhead.ts). */
const RUN = 6;

/**
 * How many times sooner a whole range is there from so many engines that share nothing: runs go to whoever is free first, and each
 * engine begins with the first frame's cost.
 */
function sooner(begin: number, times: readonly number[], engines: number): number {
  const free = new Array<number>(engines).fill(begin);
  for (let k = 0; k < times.length; k += RUN) {
    const next = free.indexOf(Math.min(...free));
    free[next] += times.slice(k, k + RUN).reduce((sum, time) => sum + time, 0);
  }
  const alone = begin + times.reduce((sum, time) => sum + time, 0);
  return Number((alone / Math.max(...free)).toFixed(1));
}

/** A share of the times lies below this. */
function quantile(times: readonly number[], share: number): number {
  const sorted = [...times].sort((a, b) => a - b);
  return Number(sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))].toFixed(1));
}

const curve = new CatmullRomCurve3(
  Array.from({ length: 200 }, (_, i) => new Vector3(Math.cos(i / 9), i / 60, Math.sin(i / 9))),
);
const tubes = await median(() => {
  for (let k = 0; k < 64; k++) new TubeGeometry(curve, 199, 0.02, 12);
}, 5);

const rows: Record<string, unknown>[] = [];
for (const file of readdirSync(folder).filter((name) => name.endsWith('.json') && name !== 'package.json')) {
  const id = file.replace('.json', '');
  if (wanted.length > 0 && !wanted.includes(id)) continue;
  const scene = shareStructure(readScene(readFileSync(join(folder, file), 'utf8')));
  const [first, last] = scene.range;
  // The compiler warms up on an evaluator of its own.
  const warming = fresh();
  for (let k = 0; k < 6; k++) await warming.evaluate(scene, Math.round(first + ((last - first) * k) / 5));
  const evaluator = fresh();
  const [begin, ...cold] = await pass(evaluator, scene);
  const warm = await pass(evaluator, scene);
  rows.push({
    starter: id,
    frames: cold.length + 1,
    'first frame, ms': Number(begin.toFixed(0)),
    'cold median, ms': quantile(cold, 0.5),
    '95 %': quantile(cold, 0.95),
    longest: quantile(cold, 1),
    'warm median, ms': quantile(warm, 0.5),
    'warm 95 %': quantile(warm, 0.95),
    'times sooner from 2 engines': sooner(begin, cold, 2),
    'from 6': sooner(begin, cold, 6),
    'cold beside 64 TubeGeometry': Number((quantile(cold, 0.5) / tubes).toFixed(2)),
  });
}
console.log(`64 TubeGeometry of 200 × 12: ${tubes.toFixed(0)} ms`);
console.table(rows);
