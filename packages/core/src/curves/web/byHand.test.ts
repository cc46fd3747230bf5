import { at, distance } from '../../geometry/vec';
import { newGrowth, newStep } from '../../scene/make';
import { tipsOf } from '../tips';
import type { ParamValue } from '../../scene/schema';
import { sceneOf, testEvaluator } from '../../testing';
import { form } from '../../../test/paths';
import { readLinks, parseMovedNodes, withLink, moveNodes } from './byHand';

test('links and moves are read, written and read again', () => {
  expect(readLinks('3 17\n\n 9, 2 \n17 3\n4 4')).toEqual([
    [2, 16],
    [1, 8],
  ]);
  expect(parseMovedNodes('3 0.1 0 -0.2\n1 1e-2 0 0')).toEqual([
    [2, [0.1, 0, -0.2]],
    [0, [0.01, 0, 0]],
  ]);
  expect(withLink('3 17', 0, 4)).toBe('3 17\n1 5');
  expect(withLink('3 17\n1 5', 16, 2)).toBe('1 5');
  expect(moveNodes('', 2, [0.1, 0, 0])).toBe('3 0.1 0 0');
  expect(moveNodes('3 0.1 0 0\n4 1 1 1', 2, [0.05, 0.2, -1 / 3])).toBe('3 0.15 0.2 -0.3333\n4 1 1 1');
});

test.each([
  ['3', 1, 1],
  ['1 2\n3 x', 2, 3],
  ['0 2', 1, 1],
  ['1 2 3', 1, 1],
])('what is wrong in a row is told with its place: %s', (text, line, column) => {
  let told: unknown;
  try {
    readLinks(text);
  } catch (error) {
    told = (error as { place: { text: unknown } }).place.text;
  }
  expect(told).toEqual({ field: 'own', line, column });
});

const web = (params: Record<string, ParamValue>) => newStep('web', { count: 12, grown: 1, swell: 0, ...params });
/** Ends of all links, as node numbers counted from 1. */
const linksOf = async (params: Record<string, ParamValue>): Promise<Set<string>> => {
  const { paths, points } = await form([web(params)]);
  const nearest = (k: number): number => {
    const place = at(paths!.positions, k);
    const away = Array.from(points!.ids, (_, i) => distance(place, at(points!.positions, i)));
    return points!.ids[away.indexOf(Math.min(...away))] + 1;
  };
  return new Set(
    Array.from({ length: paths!.offsets.length - 1 }, (_, p) =>
      [nearest(paths!.offsets[p]), nearest(paths!.offsets[p + 1] - 1)].sort((a, b) => a - b).join(' '),
    ),
  );
};

test('links by hand are there besides the others, or alone; those of nodes that are not there are left out', async () => {
  expect(await linksOf({ links: 'own', own: '1 5\n9 3\n2 40' })).toEqual(new Set(['1 5', '3 9']));
  const tree = await linksOf({ links: 'tree' });
  const one = [...Array(12).keys()].flatMap((a) => [...Array(12).keys()].map((b) => `${a + 1} ${b + 1}`));
  const missing = one.find((pair) => Number(pair.split(' ')[0]) < Number(pair.split(' ')[1]) && !tree.has(pair))!;
  expect(await linksOf({ links: 'tree', own: missing })).toEqual(new Set([...tree, missing]));
});

test('a node that is moved takes its links along, and keeps them', async () => {
  const rest = await form([web({ links: 'between' })]);
  const moved = await form([web({ links: 'between', moved: '4 0.5 -0.25 2' })]);
  for (let k = 0; k < 12; k++) {
    const by = [0, 1, 2].map((c) => at(moved.points!.positions, k)[c] - at(rest.points!.positions, k)[c]);
    expect(by).toEqual((k === 3 ? [0.5, -0.25, 2] : [0, 0, 0]).map((x) => expect.closeTo(x, 5) as number));
  }
  expect(await linksOf({ links: 'between', moved: '4 0.5 -0.25 2' })).toEqual(await linksOf({ links: 'between' }));
});

test('a row that is typed wrongly is told at its field', async () => {
  const [{ notices }] = (await testEvaluator().evaluate(sceneOf([web({ own: '1 2\n3 four' })]), 1)).growths;
  expect(notices[0]).toMatchObject({ level: 'error', place: { text: { field: 'own', line: 2, column: 3 } } });
});

test('nodes go round their middle, each at its own rate, links follow, and the range closes', async () => {
  const turning = { links: 'own', own: '1 5', turning: 0.4, turnsVary: 0.5 };
  const at1 = await form([web({ ...turning, turning: 0 })]);
  const later = await form([web(turning)], 31);
  const [before, after] = [at1.points!.positions, later.points!.positions];
  const middle = (c: number): number => before.filter((_, i) => i % 3 === c).reduce((sum, x) => sum + x, 0) / 12;
  const [x, z] = [middle(0), middle(2)];
  const turned = new Set<string>();
  for (let k = 0; k < 12; k++) {
    const [[ax, ay, az], [bx, by, bz]] = [at(before, k), at(after, k)];
    expect(by).toBeCloseTo(ay, 5);
    expect(Math.hypot(bx - x, bz - z)).toBeCloseTo(Math.hypot(ax - x, az - z), 5);
    turned.add((Math.atan2(az - z, ax - x) - Math.atan2(bz - z, bx - x)).toFixed(3));
  }
  expect(turned.size).toBeGreaterThan(3);
  const ends = [0, later.paths!.s.length - 1].map((k) => at(later.paths!.positions, k));
  for (const node of [0, 4]) expect(Math.min(...ends.map((end) => distance(end, at(after, node))))).toBeCloseTo(0, 5);
  const [first, past] = [await form([web(turning)], 1), await form([web(turning)], 145)];
  first.points!.positions.forEach((value, i) => expect(past.points!.positions[i]).toBeCloseTo(value, 4));
});

test('nodes stand at the tips of another growth, wherever these have come to', async () => {
  const burst = newStep('burst', { generations: 1, count: 7, varyCount: 0 });
  const scene = sceneOf([web({ where: 'tips', growth: 'other', links: 'hub' })]);
  scene.growths.push({ ...newGrowth('Other', 1, [burst, newStep('grow', { to: 0.6 })]), id: 'other' });
  const [own, other] = (await testEvaluator().evaluate(scene, 1)).growths;
  const tips = tipsOf(other.form!.paths!).map(({ position }) => position.map((x) => expect.closeTo(x, 5) as number));
  expect(tips).toHaveLength(7);
  expect(Array.from({ length: 7 }, (_, k) => at(own.form!.points!.positions, k))).toEqual(tips);
});
