import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Evaluator, flaws, formHash, measureSeam, readScene } from '@uvrex/core';

const folder = join(__dirname, '../../../examples');
const files = readdirSync(folder).filter((file) => file.endsWith('.json') && file !== 'package.json');
const sceneOf = (file: string) => readScene(readFileSync(join(folder, file), 'utf8'));

test('there are thirteen starters', () => expect(files).toHaveLength(13));

describe.each(files)('%s', (file) => {
  test('is sound at every moment: no notice, and sound forms', async () => {
    const scene = sceneOf(file);
    const evaluator = new Evaluator({ now: () => 0 });
    const [first, last] = scene.range;
    for (const frame of [first, first + 7.5, Math.round((first + last) / 2), last]) {
      for (const { form, notices } of (await evaluator.evaluate(scene, frame)).growths) {
        expect(notices).toEqual([]);
        expect(flaws(form!)).toEqual([]);
      }
    }
  });

  test('gives the same geometry whichever way a frame is reached', async () => {
    const scene = sceneOf(file);
    const [first, last] = scene.range;
    const middle = Math.round((first + last) / 2);
    const hashes = async (frames: number[]): Promise<string[]> => {
      const evaluator = new Evaluator({ now: () => 0 });
      let result = await evaluator.evaluate(scene, frames[0]);
      for (const frame of frames.slice(1)) result = await evaluator.evaluate(scene, frame);
      return result.growths.map(({ form }) => formHash(form!));
    };
    expect(await hashes([first, last, middle])).toEqual(await hashes([middle]));
  });
});

test('the wreath and the bars close: their seam is nothing', async () => {
  for (const file of ['lantern-wreath.json', 'sonar-bars.json']) {
    const { growths, size } = await measureSeam(new Evaluator({ now: () => 0 }), sceneOf(file));
    for (const { gap } of growths) expect(gap / size).toBeLessThan(1e-6);
  }
});
