import type { Mesh } from '../../geometry/mesh';
import { newGrowth, newStep } from '../../scene/make';
import { sceneOf, testEvaluator } from '../../testing';
import type { ParamValue, Step } from '../../scene/schema';

const gradient = (...colors: string[]) => colors.map((color, k) => ({ at: k / (colors.length - 1), color }));

/** A scene of a growth and of an item that is coloured along its height, with many colours. */
const withItem = (steps: Step[], more: [id: string, steps: Step[]][] = []) => {
  const scene = sceneOf(steps);
  const item = [newStep('solid'), newStep('finish', { gradient: gradient('#000000', '#ff0000'), glow: 0 })];
  for (const [id, own] of [['item', item] as [string, Step[]], ...more])
    scene.growths.push({ ...newGrowth(id, 1, own), id, seed: 5 });
  return scene;
};

const meshOf = async (scene: ReturnType<typeof sceneOf>, id: string): Promise<Mesh> => {
  const { growths } = await testEvaluator().evaluate(scene, 1);
  const growth = growths.find((one) => one.id === id)!;
  expect(growth.notices.filter(({ level }) => level !== 'note')).toEqual([]);
  return growth.form!.mesh!;
};

const colourCount = ({ colors }: Mesh): number => {
  const all = new Set<string>();
  for (let i = 0; i < colors!.length; i += 3) all.add(Array.from(colors!.subarray(i, i + 3)).join());
  return all.size;
};

test('the skin of a growth with copies keeps the colours along each item, and can be coloured along them anew', async () => {
  const bed = [newStep('line'), newStep('along', { growth: 'item', by: 'count', count: 5 })];
  const taken = (...steps: Step[]): Step[] => [newStep('skin-of', { growth: 'growth' as ParamValue }), ...steps];
  const dressed = newStep('finish', { gradient: gradient('#0000ff', '#00ff00'), glow: 0 });
  const scene = withItem(bed, [
    ['plain', taken()],
    ['anew', taken(dressed)],
  ]);
  const item = colourCount(await meshOf(scene, 'item'));
  expect(item).toBeGreaterThan(8);
  expect(colourCount(await meshOf(scene, 'plain'))).toBe(item);
  const anew = await meshOf(scene, 'anew');
  expect(colourCount(anew)).toBe(item);
  // Blue below, green above, on every copy.
  expect(Math.max(...anew.colors!.filter((_, i) => i % 3 === 0))).toBeLessThan(1e-6);
});

test('what rides at the tips keeps the colours that it was finished with; the skin takes the new ones', async () => {
  const scene = withItem([
    newStep('line'),
    newStep('tube'),
    newStep('tips', { growth: 'item' as ParamValue }),
    newStep('finish', { gradient: gradient('#0000ff', '#0000ff'), glow: 0 }),
  ]);
  const [whole, item] = [await meshOf(scene, 'growth'), await meshOf(scene, 'item')];
  const riding = item.positions.length;
  expect(whole.colors!.subarray(-riding)).toEqual(item.colors!);
  for (let i = 0; i < whole.colors!.length - riding; i += 3)
    [0, 0, 1].forEach((c, k) => expect(whole.colors![i + k]).toBeCloseTo(c, 6));
});
