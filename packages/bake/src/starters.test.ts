import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { type Copies, Evaluator, flaws, formHash, type GrowthResult, measureSeam, readScene } from '@uvrex/core';

const folder = join(__dirname, '../../../examples');
const files = readdirSync(folder).filter((file) => file.endsWith('.json') && file !== 'package.json');
const sceneOf = (file: string) => readScene(readFileSync(join(folder, file), 'utf8'));

const shipped = async (name: string): Promise<Uint8Array> =>
  new Uint8Array(readFileSync(join(folder, 'assets', `${name}.ply`)));
const hashesOf = (growths: readonly GrowthResult[]): string[] =>
  growths.map(({ form }) => formHash(form!, () => createHash('sha1')));
const evaluatorOf = (): Evaluator => new Evaluator({ now: () => 0, shipped });

/** Faces that are drawn for a copy, on average: many copies are of light items. */
function facesEach({ items, item }: Copies): number {
  const faces = items.map(({ mesh }) => mesh.indices.length / 3);
  return item.reduce((sum, own) => sum + faces[own], 0) / item.length;
}

test('there are twenty-two starters', () => expect(files).toHaveLength(22));

describe.each(files)('%s', (file) => {
  test('is sound at every moment, light where it copies many, and the same whichever way a frame is reached', async () => {
    const scene = sceneOf(file);
    const evaluator = evaluatorOf();
    const [first, last] = scene.range;
    const middle = Math.round((first + last) / 2);
    let reached: GrowthResult[] = [];
    for (const frame of [first, last, first + 7.5, middle]) {
      const { growths } = await evaluator.evaluate(scene, frame);
      for (const { form, notices } of growths) {
        expect(notices.filter(({ level }) => level !== 'note')).toEqual([]);
        expect(flaws(form!)).toEqual([]);
        if (form!.copies && form!.copies.item.length > 100) expect(facesEach(form!.copies)).toBeLessThanOrEqual(400);
      }
      reached = growths;
    }
    const { growths } = await evaluatorOf().evaluate(scene, middle);
    expect(hashesOf(reached)).toEqual(hashesOf(growths));
  });
});

test('the wreath and the bars close: their seam is nothing', async () => {
  for (const file of ['lantern-wreath.json', 'sonar-bars.json']) {
    const { growths, size } = await measureSeam(evaluatorOf(), sceneOf(file));
    for (const { gap } of growths) expect(gap / size).toBeLessThan(1e-6);
  }
});
