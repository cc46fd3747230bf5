import { newGrowth, newScene, newStep } from '../scene/make';
import { newGuide } from '../scene/owners';
import type { ParamValue } from '../scene/schema';
import type { Cycle } from '../time/track';
import { keepsCourse, periodOf } from './period';
import { planOf } from './plan';

const track = (length: number, cycle: Cycle = 'repeat', end = 1): ParamValue => ({
  keys: [
    { frame: 1, value: 1, ease: 'linear' },
    { frame: 1 + length / 2, value: 2, ease: 'linear' },
    { frame: 1 + length, value: end, ease: 'linear' },
  ],
  before: cycle,
  after: cycle,
});
const period = (...growths: [string, Record<string, ParamValue>, string][]): number => {
  const scene = newScene('Reef');
  scene.growths = growths.map(([id, params, kind]) => ({ ...newGrowth(id, 0, [newStep(kind, params)]), id }));
  return periodOf(planOf(scene), growths[0][0]);
};

test('what stands still has period 1; repeating tracks their least common multiple', () => {
  expect(period(['a', {}, 'solid'])).toBe(1);
  expect(period(['a', { radius: track(12) }, 'solid'])).toBe(12);
  expect(period(['a', { radius: track(12), atX: track(8) }, 'solid'])).toBe(24);
});

test('what does not come back, or changes by itself, is not known', () => {
  expect(period(['a', { radius: track(12, 'hold') }, 'solid'])).toBe(0);
  expect(period(['a', { radius: track(12, 'repeat-offset', 3) }, 'solid'])).toBe(0);
  expect(period(['a', { radius: { formula: 'frame / 100 + 1' } }, 'solid'])).toBe(0);
  expect(period(['a', {}, 'noise'])).toBe(0);
});

test('what a growth refers to counts too', () => {
  expect(period(['a', { growth: 'b' }, 'shared'], ['b', { toX: track(10) }, 'line'])).toBe(10);
});

test('a place that is keyed, and a guide that moves, count as much as the steps', () => {
  const scene = newScene('Reef');
  scene.growths = [{ ...newGrowth('a', 0, [newStep('on-points', { toward: 'guide:g' })]), id: 'a' }];
  scene.guides = [newGuide('g', 'Lamp', 'point')];
  const now = () => periodOf(planOf(scene), 'a');
  expect(now()).toBe(1);
  scene.guides[0].params.positionX = track(12);
  expect(now()).toBe(12);
  scene.growths[0].place = { turnY: track(8) };
  expect(now()).toBe(24);
  scene.guides[0].params.positionY = { formula: 'frame' };
  expect(now()).toBe(0);
});

test('paths keep their course while they grow, and not where what makes or shapes them moves', () => {
  const keeps = (steps: ReturnType<typeof newStep>[], others: ReturnType<typeof newGrowth>[] = []): boolean => {
    const scene = newScene('Reef');
    const place = newStep('along');
    scene.growths = [newGrowth('Stem', 0, [...steps, place]), ...others];
    return keepsCourse(planOf(scene), scene.growths[0], place);
  };
  expect(keeps([newStep('line'), newStep('grow', { to: track(12) })])).toBe(true);
  expect(keeps([newStep('line', { toX: track(12) }), newStep('grow')])).toBe(false);
  expect(keeps([newStep('line'), newStep('noise')])).toBe(false);
  expect(keeps([newStep('line'), { ...newStep('noise'), on: false }])).toBe(true);
  const other = (params: Record<string, ParamValue>) => ({ ...newGrowth('b', 1, [newStep('line', params)]), id: 'b' });
  expect(keeps([newStep('shared', { growth: 'b' })], [other({})])).toBe(true);
  expect(keeps([newStep('shared', { growth: 'b' })], [other({ toX: track(12) })])).toBe(false);
});
