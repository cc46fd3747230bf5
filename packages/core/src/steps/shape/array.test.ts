import { boundsOf } from '../../geometry/form';
import { areaAndVolume } from '../../geometry/mesh';
import { NO_PARENT, pathCount } from '../../geometry/paths';
import { at, distance } from '../../geometry/vec';
import { newGrowth, newStep } from '../../scene/make';
import type { ParamValue, Scene, Step } from '../../scene/schema';
import { form, grows, last, line, paths } from '../../../test/paths';

type Params = Record<string, ParamValue>;
const array = (params: Params): Step => newStep('array', params);
const withDot = (scene: Scene): void =>
  void scene.growths.push({ ...newGrowth('Dot', 1, [newStep('solid', { radius: 0.1, sides: 8 })]), id: 'dot' });

describe('in a line', () => {
  test('each is moved, turned and scaled further than the one before', async () => {
    const made = await paths([line(1, 2), array({ count: 3, eachX: 2, turnZ: 90, scale: 0.5 })]);
    // Turned about Z once and twice: up becomes left, then down.
    expect([...made.positions].map((v) => Math.round(1e5 * v) / 1e5 + 0)).toEqual([
      ...[0, 0, 0, 0, 1, 0],
      ...[2, 0, 0, 1.5, 0, 0],
      ...[4, 0, 0, 4, -0.25, 0],
    ]);
    expect([...made.ids]).toEqual([0, 1, 2]);
    expect([...made.whole]).toEqual([1, 0.5, 0.25]);
  });

  test('a part of a count is one that comes up from nothing; 0 is nothing', async () => {
    const made = await paths([line(1, 2), array({ count: 2.4, eachX: 1 })]);
    expect(pathCount(made)).toBe(3);
    expect(last(made, 2)[1]).toBeCloseTo(0.4, 5);
    expect(last(made, 1)[1]).toBe(1);
    // What follows works on nothing too.
    const none = await form([line(1, 2), newStep('tube'), array({ count: 0 }), newStep('finish')]);
    expect([pathCount(none.paths!), none.mesh!.indices.length]).toEqual([0, 0]);
  });

  test('each is a moment later than the one before, as what comes in was then; so are its copies', async () => {
    const steps = [line(1, 101), newStep('grow', { to: grows(0, 1) })];
    const made = await paths([...steps, array({ count: 3, delay: 20, eachX: 1 })], 51);
    expect([0, 1, 2].map((p) => last(made, p)[1])).toEqual([0.5, 0.3, 0.1].map((y) => expect.closeTo(y, 3)));
    const copied = await form(
      [line(1, 2), newStep('along', { growth: 'dot', by: 'count', count: 2 }), array({ count: 2, delay: 7 })],
      9,
      withDot,
    );
    expect(copied.copies!.ids).toHaveLength(4);
    expect(new Set(copied.copies!.ids).size).toBe(4);
  });
});

test('in a circle: evenly over the whole of it, or at an angle, rising; turned as they go', async () => {
  const out = newStep('line', { fromX: 1, toX: 2, toY: 0, points: 2 });
  const full = await paths([out, array({ as: 'circle', count: 4 })]);
  // A right-handed quarter turn about Y takes X to −Z.
  const starts = [0, 1, 2, 3].map((p) => at(full.positions, 2 * p).map((v) => Math.round(1e5 * v) / 1e5 + 0));
  expect(starts).toEqual([
    [1, 0, 0],
    [0, 0, -1],
    [-1, 0, 0],
    [0, 0, 1],
  ]);
  const golden = await paths([
    out,
    array({ as: 'circle', count: 3, full: false, angle: 90, rise: 0.5, axis: 'x', throughY: 1 }),
  ]);
  expect(at(golden.positions, 4).map((v) => Math.round(1e5 * v) / 1e5 + 0)).toEqual([2, 2, 0]);
});

test('in a grid, from the place of the original or about it', async () => {
  const solid = newStep('solid', { which: 'box', width: 0.5, height: 0.5, depth: 0.5, atY: 0 });
  const grid = { as: 'grid', countX: 3, countY: 2, countZ: 4, apartX: 1, apartY: 2, apartZ: 1 };
  const made = await form([solid, array(grid)]);
  expect(boundsOf(made)).toEqual({ min: [-0.25, -0.25, -0.25], max: [2.25, 2.25, 3.25] });
  expect(areaAndVolume(made.mesh!).volume).toBeCloseTo(24 * 0.125, 5);
  const middle = boundsOf(await form([solid, array({ ...grid, centre: true })]))!;
  expect(middle.min.map((v, c) => v + middle.max[c])).toEqual([0, 0, 0]);
});

test('trees are repeated as trees: branches hold on to the parent of their own copy, parts of skins to their paths', async () => {
  const tree = newStep('rules', { generations: 2 });
  const one = await paths([tree]);
  const made = await form([tree, newStep('tube', { sides: 4 }), array({ count: 3, eachX: 5 })]);
  const { parent, ids, positions, offsets, attach } = made.paths!;
  const m = pathCount(one);
  expect(pathCount(made.paths!)).toBe(3 * m);
  const where = new Map([...ids].map((id, p) => [id, p]));
  expect(where.size).toBe(3 * m);
  for (let p = 0; p < 3 * m; p++) {
    if (parent![p] === NO_PARENT) continue;
    const on = where.get(parent![p])!;
    // A branch begins on a parent of the same copy: within its length, not metres away.
    expect(Math.floor(on / m)).toBe(Math.floor(p / m));
    expect(attach![p]).toBe(one.attach![p % m]);
    expect(distance(at(positions, offsets[p]), at(positions, offsets[on]))).toBeLessThan(2);
  }
  const { parts } = made.mesh!;
  for (let i = 0; i < parts!.length; i += 2) {
    const p = where.get(parts![i + 1])!;
    const first = at(made.mesh!.positions, parts![i]);
    expect(distance(first, at(positions, offsets[p]))).toBeLessThan(0.5);
  }
});

test('what growth has cut keeps its whole, copy by copy', async () => {
  const made = await paths([line(1, 101), newStep('grow', { to: 0.5 }), array({ count: 2, eachX: 1 })]);
  expect(pathCount(made.uncut!)).toBe(2);
  expect(last(made.uncut!, 1)).toEqual([1, 1, 0]);
});

test('frames are repeated with their paths: a ribbon along copies is the copies of a ribbon', async () => {
  const [course, band] = [newStep('helix', { points: 60, baseX: 1 }), newStep('ribbon', { radius: 0.1 })];
  const circle = array({ as: 'circle', count: 3, axis: 'x' });
  const [before, after] = [await form([course, circle, band]), await form([course, band, circle])];
  const apart = before.mesh!.positions.map((v, i) => Math.abs(v - after.mesh!.positions[i]));
  expect(apart).toHaveLength(after.mesh!.positions.length);
  expect(Math.max(...apart)).toBeLessThan(1e-5);
});
