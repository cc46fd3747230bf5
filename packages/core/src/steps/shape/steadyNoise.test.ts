import { pathsFrom } from '../../geometry/paths';
import { newStep } from '../../scene/make';
import { sceneOf, testEvaluator } from '../../testing';
import { formHash } from '../../digests/digest';
import { steadyNoise } from './steadyNoise';

const shape = { detail: 2, roughness: 0.4, seed: 3, period: 0 };
const yieldNow = (): Promise<void> => Promise.resolve();

test('sums are kept for paths that are met again, and answer only for where they were', async () => {
  const paths = pathsFrom([{ positions: [0, 0, 0, 0.2, 1, 0.1, 0.3, 2, 0.4], closed: false }]);
  const ask = (time: number) => steadyNoise(paths, { size: 0.8, evolve: 0.5 }, shape, time, yieldNow);
  expect(await ask(0.1)).toBeNull();
  const read = (await ask(0.2))!;
  const out = new Float64Array(3);
  const place = [...paths.positions.subarray(3, 6)] as [number, number, number];
  expect(read(place, 1, out)).toBe(true);
  expect(Math.hypot(...out)).toBeGreaterThan(0.01);
  // A branch is asked for where its parent has carried it.
  expect(read([place[0], place[1] + 1e-3, place[2]], 1, out)).toBe(false);
});

test('nothing is kept where time makes no difference', async () => {
  const paths = pathsFrom([{ positions: [0, 0, 0, 0, 1, 0], closed: false }]);
  for (let k = 0; k < 3; k++) expect(await steadyNoise(paths, { size: 1, evolve: 0 }, shape, k, yieldNow)).toBeNull();
});

test('a stem that sways is the same whichever way a frame is reached', async () => {
  const scene = sceneOf([newStep('line', { points: 40 }), newStep('noise', { evolve: 0.9, hold: 0 })]);
  const hashAt = async (evaluator: ReturnType<typeof testEvaluator>, frame: number): Promise<string> =>
    formHash((await evaluator.evaluate(scene, frame)).growths[0].form!);
  const lived = testEvaluator();
  const forwards: string[] = [];
  for (let frame = 1; frame <= 90; frame += 7) forwards.push(await hashAt(lived, frame));
  expect(new Set(forwards).size).toBe(forwards.length);
  const fresh = await Promise.all(forwards.map((_, k) => hashAt(testEvaluator(), 1 + 7 * k)));
  expect(forwards).toEqual(fresh);
});
