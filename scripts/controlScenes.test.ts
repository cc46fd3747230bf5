import { join } from 'node:path';
import { readFile } from 'node:fs/promises';
import { Evaluator, isTrack, type NumberParam, readScene, STEPS, writeScene } from '@uvrex/core';
import { OWN_PICTURES, STEP_PICTURES } from '@uvrex/examples/small/controls';
import { CONTROLS, controlScene, SHOWN_BY_STEPS } from './controlScenes';
import { FRAMES } from './stepScenes';

const shipped = async (name: string): Promise<Uint8Array> =>
  new Uint8Array(await readFile(join(__dirname, '..', 'examples', 'assets', `${name}.ply`)));

test.each([...CONTROLS, ...Object.keys(SHOWN_BY_STEPS)])('%s is a control', (control) => {
  const [kind, param] = control.split('.');
  expect(STEPS.find((step) => step.kind === kind)?.params).toHaveProperty([param]);
});

test.each(CONTROLS)('%s: its scene is sound, shows it, and something moves', async (control) => {
  const [kind, param] = control.split('.');
  // As it is opened.
  const scene = readScene(writeScene(controlScene(control)));
  const step = scene.growths[0].steps.find((one) => one.kind === kind);
  const value = step?.params[param];
  const { min, max } = STEPS.find((one) => one.kind === kind)!.params[param] as NumberParam;
  for (const one of isTrack(value!) ? value.keys.map((key) => key.value) : [value as number]) {
    expect(one).toBeGreaterThanOrEqual(min);
    expect(one).toBeLessThanOrEqual(max);
  }
  const evaluator = new Evaluator({ now: () => 0, shipped });
  const keys = new Set<string>();
  for (const frame of [2, FRAMES / 2, FRAMES]) {
    const { growths } = await evaluator.evaluate(scene, frame);
    expect(growths.flatMap(({ notices }) => notices.filter(({ level }) => level !== 'note'))).toEqual([]);
    keys.add(growths[0].key);
  }
  expect(keys.size).toBe(3);
});

test('what help goes by lists them all, each once', () => {
  expect(OWN_PICTURES).toEqual([...CONTROLS].sort());
  expect(STEP_PICTURES).toEqual(Object.keys(SHOWN_BY_STEPS).sort());
  for (const [control, picture] of Object.entries(SHOWN_BY_STEPS))
    expect(picture).toBe(`step-${control.split('.')[0]}`);
});
