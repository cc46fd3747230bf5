import { NO_PARENT } from '../geometry/paths';
import { nodePaths, type Running } from './nodePaths';

/**
 * A stem of three nodes that forks twice, evenly: of four tips each node carries what stands beyond it.
 *
 *     0 – 1 – 2 – 5 – 8     and from 5: 6
 *              \\ 3 – 7     and from 3: 4
 */
const PARENTS = Int32Array.of(-1, 0, 1, 2, 3, 2, 5, 3, 5);
const DEPTH = [0, 1, 2, 3, 4, 3, 4, 4, 4];
const TREE = {
  parents: PARENTS,
  positions: Float32Array.from(DEPTH.flatMap((depth) => [0, depth, 0])),
  births: Uint32Array.of(0, 1, 2, 3, 4, 3, 5, 6, 8),
};
const rowsOf = (values: ArrayLike<number>, { offsets }: { offsets: ArrayLike<number> }): number[][] =>
  Array.from({ length: offsets.length - 1 }, (_, p) => Array.from(values).slice(offsets[p], offsets[p + 1]));
const close = (is: number[][], should: number[][]): void => {
  expect(is.map((row) => row.length)).toEqual(should.map((row) => row.length));
  should.forEach((row, p) => row.forEach((value, i) => expect(is[p][i]).toBeCloseTo(value, 6)));
};

// The pipe model: Shinozaki and others, A quantitative analysis of plant form, Japanese Journal of Ecology 14, 1964; the exponent as of
// Leonardo's rule (2) and Murray's law (3).
test.each([2, 3])(
  'where it forks the thicknesses to the power of %d come to that below; branches begin as thick as they are',
  (exponent) => {
    const paths = nodePaths(TREE, { running: 'even', exponent });
    const [half, quarter] = [0.5 ** (1 / exponent), 0.25 ** (1 / exponent)];
    close(rowsOf(paths.size!, paths), [
      [1, 1, 1, half, quarter],
      [half, half, quarter],
      [quarter, quarter],
      [quarter, quarter],
    ]);
    expect(2 * half ** exponent).toBeCloseTo(1, 9);
  },
);

test('each goes on into what carries most; others begin where they leave it, and name it', () => {
  const paths = nodePaths(TREE, { running: 'even', exponent: 2 });
  const heights = Float32Array.from({ length: paths.positions.length / 3 }, (_, i) => paths.positions[3 * i + 1]);
  expect(rowsOf(heights, paths)).toEqual([
    [0, 1, 2, 3, 4],
    [2, 3, 4],
    [3, 4],
    [3, 4],
  ]);
  expect([...paths.parent!]).toEqual([NO_PARENT, 0, 1, 0]);
});

test.each([
  [
    'even',
    [
      [0, 0.25, 0.5, 0.75, 1],
      [0.5, 0.75, 1],
      [0.75, 1],
      [0.75, 1],
    ],
  ],
  [
    'birth',
    [
      [0, 0.125, 0.25, 0.375, 1],
      [0.25, 0.375, 0.75],
      [0.375, 0.5],
      [0.375, 0.625],
    ],
  ],
] as [Running, number[][]][])('time runs through it: %s', (running, wanted) => {
  const paths = nodePaths(TREE, { running, exponent: 2 });
  close(rowsOf(paths.arrival!, paths), wanted);
});

test('where it gets to all tips at once, each place goes by the longest way beyond it', () => {
  //     0 – 1 – 2     and from 1: 3 – 4
  const paths = nodePaths(
    {
      parents: Int32Array.of(-1, 0, 1, 1, 3),
      positions: Float32Array.of(0, 0, 0, 0, 1, 0, 1, 1, 0, 0, 2, 0, 0, 3, 0),
      births: Uint32Array.of(0, 1, 2, 2, 3),
    },
    { running: 'together', exponent: 2 },
  );
  close(rowsOf(paths.arrival!, paths), [
    [0, 1 / 3, 2 / 3, 1],
    [1 / 3, 1],
  ]);
});

test('a root that nothing grew from is no path', () => {
  const paths = nodePaths(
    { parents: Int32Array.of(-1, -1, 1), positions: new Float32Array(9), births: Uint32Array.of(0, 0, 1) },
    { running: 'even', exponent: 2 },
  );
  expect(paths.offsets).toHaveLength(2);
});
