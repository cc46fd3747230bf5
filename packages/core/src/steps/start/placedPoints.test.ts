import fc from 'fast-check';
import { type PlacedNode, readNodes, withoutNode, writeNodes } from '../../curves/web/placedNodes';
import { at, distance, partWay, sub } from '../../geometry/vec';
import { newStep } from '../../scene/make';
import type { ParamValue } from '../../scene/schema';
import { sceneOf, testEvaluator } from '../../testing';
import { form, last } from '../../../test/paths';
import { overshooting } from './runPlacedPoints';

// A stem of two metres, then a branch of one and one of three; and a point that grows from none.
const ROWS = '0 0 0\n0 2 0 1\n1 2 0 2 0.5\n0 2 3 2 2 7\n5 0 0';
/** Without overshoot they slow down as cubic easing does. */
const OUT = (t: number): number => 1 - (1 - t) ** 3;
const placed = (params: Record<string, ParamValue> = {}) =>
  newStep('placed-points', { nodes: ROWS, overshoot: 0, points: 5, ...params });
const made = async (params: Record<string, ParamValue> = {}) => {
  const { paths, points } = await form([placed(params)]);
  return { paths: paths!, points: points! };
};

test('all grown: points stand where they were put, with size and kind; a line runs to each from its parent', async () => {
  const { paths, points } = await made();
  expect([...points.ids]).toEqual([0, 1, 2, 3, 4]);
  expect(Array.from(points.ids, (_, k) => at(points.positions, k))).toEqual([
    [0, 0, 0],
    [0, 2, 0],
    [1, 2, 0],
    [0, 2, 3],
    [5, 0, 0],
  ]);
  expect([...points.size]).toEqual([1, 1, 0.5, 2, 1]);
  expect([...points.named.kind.values]).toEqual([1, 1, 1, 7, 1]);
  expect([...points.named.generation.values]).toEqual([0, 1, 2, 2, 0]);
  expect([...paths.ids]).toEqual([1, 2, 3]);
  expect([0, 1, 2].map((p) => [at(paths.positions, paths.offsets[p]), last(paths, p)])).toEqual([
    [
      [0, 0, 0],
      [0, 2, 0],
    ],
    [
      [0, 2, 0],
      [1, 2, 0],
    ],
    [
      [0, 2, 0],
      [0, 2, 3],
    ],
  ]);
  // The branches grow from the end of the stem.
  expect([...paths.parent!]).toEqual([0xffffffff, 1, 1]);
  expect([...paths.attach!]).toEqual([1, 1, 1]);
});

test('after their parents, at an even pace: the longest way of five metres takes the whole time', async () => {
  const half = await made({ grown: 0.5 });
  // After 2.5 m: half a metre into both branches.
  expect([...half.points.ids]).toEqual([0, 1, 2, 3, 4]);
  expect(at(half.points.positions, 2)).toEqual([OUT(1 / 2), 2, 0]);
  expect(at(half.points.positions, 3)[2]).toBeCloseTo(3 * OUT(1 / 6), 6);
  expect(half.points.size[2]).toBeCloseTo(0.25, 6);
  const early = await made({ grown: 0.2 });
  expect([...early.points.ids]).toEqual([0, 1, 4]);
  expect(at(early.points.positions, 1)[1]).toBeCloseTo(2 * OUT(1 / 2), 6);
  expect([...early.paths.ids]).toEqual([1]);
  expect([...(await made({ grown: 0 })).points.ids]).toEqual([]);
});

test('row by row: with no overlap each has a fifth of the time, whoever its parent is', async () => {
  const made3 = await made({ order: 'rows', overlap: 0, grown: 0.5 });
  expect([...made3.points.ids]).toEqual([0, 1, 2]);
  expect(at(made3.points.positions, 2)).toEqual([OUT(1 / 2), 2, 0]);
  // With all overlap all travel at once: children ride along with their parents.
  const together = await made({ order: 'rows', overlap: 1, grown: 0.5 });
  expect(at(together.points.positions, 1)).toEqual([0, 1.75, 0]);
  expect(at(together.points.positions, 3)).toEqual([0, 1.75 + 0.25 * 0.875, 3 * 0.875]);
});

test('points that grow from none come up together where there is nothing else', async () => {
  const { points, paths } = await made({ nodes: '0 0 0\n1 0 0', grown: 0.25 });
  expect([...points.size]).toEqual([0.25, 0.25]);
  expect(paths.ids).toHaveLength(0);
});

test.each([0, 0.05, 0.12, 0.5, 1.5])(
  'overshoot %d is how far past its place a point gets, and it comes to rest there',
  (most) => {
    const ease = overshooting(most);
    let high = 0;
    for (let t = 0; t <= 1; t += 1e-4) high = Math.max(high, ease(t));
    expect(high - 1).toBeCloseTo(most, 4);
    expect([ease(0), ease(1)]).toEqual([expect.closeTo(0, 9), expect.closeTo(1, 9)]);
  },
);

test('what overshoots takes its line and its children along', async () => {
  const { points, paths } = await made({ grown: 0.3, overshoot: 0.3 });
  const tip = at(points.positions, 1);
  expect(tip[1]).toBeGreaterThan(2);
  expect(last(paths)).toEqual(tip);
  expect(distance(tip, [0, 2, 0])).toBeLessThanOrEqual(0.6 + 1e-6);
});

const METRES = fc.integer({ min: -9999, max: 9999 }).map((x) => x / 1000);

test('rows are read, written and read again; of one that is taken away the children grow from its parent', () => {
  expect(writeNodes(readNodes(ROWS))).toBe('0 0 0\n0 2 0 1\n1 2 0 2 0.5\n0 2 3 2 2 7\n5 0 0');
  fc.assert(
    fc.property(
      fc.array(
        fc.record({
          place: fc.tuple(METRES, METRES, METRES),
          size: fc.integer({ min: 0, max: 40 }).map((x) => x / 10),
          kind: fc.integer({ min: -3, max: 9 }),
          dice: fc.nat(),
        }),
        { minLength: 1, maxLength: 12 },
      ),
      fc.nat(),
      (list, pick) => {
        // Each grows from an earlier one or from none.
        const nodes = list.map(
          ({ dice, ...node }, k): PlacedNode => ({ ...node, parent: (dice % (k + 1)) - 1 }) as PlacedNode,
        );
        expect(readNodes(writeNodes(nodes))).toEqual(nodes);
        const gone = pick % nodes.length;
        const left = withoutNode(nodes, gone);
        const before = nodes.filter((_, k) => k !== gone);
        left.forEach(({ parent }, k) => {
          const was = before[k].parent === gone ? nodes[gone].parent : before[k].parent;
          expect(parent < 0 ? null : left[parent].place).toEqual(was < 0 ? null : nodes[was].place);
        });
      },
    ),
  );
});

test.each([
  ['1 2', 1, 1, 'three to six numbers'],
  ['0 0 0\n1 x 0', 2, 3, '“x” is no number'],
  ['0 0 0 2', 1, 1, 'there is no point 2'],
  ['0 0 0 1.5', 1, 7, 'that of another row'],
  ['0 0 0\n\n0 1 0 1 -2', 3, 9, 'a size is 0 or more'],
  ['0 0 0 0 1 1.5', 1, 11, 'a kind is a whole number'],
  ['0 0 0 2\n0 1 0 3\n0 2 0 1', 1, 1, 'it would grow from itself'],
  ['0 0 0 1', 1, 1, 'it would grow from itself'],
])('what is wrong in a row is told with its place: %j', async (nodes, line, column, what) => {
  const { notices } = (await testEvaluator().evaluate(sceneOf([placed({ nodes })]), 1)).growths[0];
  expect(notices[0].what).toContain(what);
  expect(notices[0].place.text).toEqual({ field: 'nodes', line, column });
});

test('without rows it says what to do', async () => {
  const { notices } = (await testEvaluator().evaluate(sceneOf([placed({ nodes: '\n' })]), 1)).growths[0];
  expect(notices[0].what).toBe('There are no points.');
});

test('a second start in the same growth adds its points and lines to those of the first', async () => {
  const { points, paths } = await form([
    placed(),
    placed({ nodes: '9 0 0\n9 1 0 1 1 3' }),
    newStep('phyllotaxis', { count: 4 }),
    newStep('volume', { count: 3 }),
  ]);
  expect(points!.ids).toHaveLength(5 + 2 + 4 + 3);
  expect(new Set(points!.ids).size).toBe(14);
  expect(at(points!.positions, 6)).toEqual([9, 1, 0]);
  expect([...points!.named.kind.values.slice(0, 7)]).toEqual([1, 1, 1, 7, 1, 1, 3]);
  expect(paths!.ids).toHaveLength(4);
});

test('a line is straight and its points are even, also on the way', async () => {
  const { paths } = await made({ grown: 0.7 });
  for (let p = 0; p < paths.ids.length; p++) {
    const [from, to] = [at(paths.positions, paths.offsets[p]), last(paths, p)];
    for (let i = 0; i < 5; i++)
      expect(sub(at(paths.positions, paths.offsets[p] + i), partWay(from, to, i / 4))).toEqual([
        expect.closeTo(0, 5),
        expect.closeTo(0, 5),
        expect.closeTo(0, 5),
      ]);
  }
});
