import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { checkScene } from '../src/index';
import { testEvaluator } from '../src/testing';
import { withShipped } from './paths';

withShipped();

const examples = join(__dirname, '../../../examples');
const scenes = readdirSync(examples).flatMap((name) => {
  const found = name.endsWith('.json') ? (JSON.parse(readFileSync(join(examples, name), 'utf8')) as object) : {};
  return 'growths' in found ? [[name, checkScene(found)] as const] : [];
});

test.each(scenes)('%s copies light items wherever it copies many: 400 faces a copy', async (_, scene) => {
  const [first, last] = scene.range;
  const { growths } = await testEvaluator().evaluate(scene, Math.round(first + 0.8 * (last - first)));
  for (const { id, form } of growths) {
    const copies = form?.copies;
    if (!copies || copies.item.length <= 100) continue;
    const faces = copies.items.map(({ mesh }) => mesh.indices.length / 3);
    const drawn = copies.item.reduce((sum, item) => sum + faces[item], 0);
    expect([id, drawn / copies.item.length]).toEqual([id, Math.min(drawn / copies.item.length, 400)]);
  }
});
