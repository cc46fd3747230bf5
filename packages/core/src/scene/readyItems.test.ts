import { flaws } from '../geometry/invariants';
import { sceneOf, testEvaluator } from '../testing';
import { newGrowth, newStep } from './make';
import { READY_ITEMS } from './readyItems';
import { withShipped } from '../../test/paths';
import { checkScene } from './read';

withShipped();

test.each(READY_ITEMS.map((item) => [item.id, item] as const))(
  '%s is copied along a path, at points and at tips with what suits it, and opens again',
  async (_, { name, steps, suits }) => {
    const along = newStep('along', { ...suits.along, growth: 'item', settle: 0 });
    const onPoints = newStep('on-points', { ...suits['on-points'], growth: 'item' });
    for (const own of [
      [newStep('line', { points: 40 }), along],
      [newStep('phyllotaxis', { count: 12 }), onPoints],
      [newStep('line', { points: 40 }), newStep('tips', { growth: 'item' })],
    ]) {
      const scene = sceneOf(own);
      scene.growths.push({ ...newGrowth(name, 1, steps()), id: 'item', visible: false });
      expect(() => checkScene(JSON.parse(JSON.stringify(scene)))).not.toThrow();
      const [{ form, notices }] = (await testEvaluator().evaluate(scene, 1)).growths;
      expect(notices).toEqual([]);
      expect(flaws(form!)).toEqual([]);
      expect(form!.copies?.ids.length ?? form!.mesh!.indices.length).toBeGreaterThan(0);
    }
  },
);
