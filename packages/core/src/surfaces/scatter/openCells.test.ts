import { random } from '../../fields/random';
import { OpenCells, SIDE } from './openCells';

const [LEFT, LOW, SIZE] = [-0.4, -0.2, 0.05];
// A triangle that reaches over three sides of the block.
const [LENGTH, CU, CV] = [1.5, -0.3, 1.7];

/** Corners of a cell. */
const corners = (cell: number): [number, number][] => {
  const [u, v] = [LEFT + SIZE * (cell % SIDE), LOW + SIZE * Math.floor(cell / SIDE)];
  return [
    [u, v],
    [u + SIZE, v],
    [u + SIZE, v + SIZE],
    [u, v + SIZE],
  ];
};
const inTriangle = (u: number, v: number): boolean =>
  v >= 0 && v <= CV && u * CV >= CU * v && (u - LENGTH) * CV <= (CU - LENGTH) * v;
const open = (cells: OpenCells): Set<number> => new Set(cells.listed.subarray(0, cells.list()));

test('what a triangle touches is open, whatever lies beside it is not', () => {
  const cells = new OpenCells();
  expect(cells.begin(LEFT, LOW, SIZE, LENGTH, CU, CV)).toBe(true);
  const found = open(cells);
  for (let k = 0; k < 20000; k++) {
    const [x, y] = [SIDE * random(1, k, 1), SIDE * random(1, k, 2)];
    if (inTriangle(LEFT + SIZE * x, LOW + SIZE * y)) expect(found).toContain(Math.floor(x) + SIDE * Math.floor(y));
  }
  // Cells that are open beside it touch it: their own corners are no further than their diagonal from one inside.
  expect(found.size).toBeLessThan(SIDE * SIDE * 0.62);
  expect(cells.begin(5, LOW, SIZE, LENGTH, CU, CV)).toBe(false);
  expect(cells.begin(LEFT, CV + 0.1, SIZE, LENGTH, CU, CV)).toBe(false);
});

test('a disc takes away just the cells whose four corners it holds', () => {
  for (let round = 0; round < 60; round++) {
    const cells = new OpenCells();
    cells.begin(LEFT, LOW, SIZE, LENGTH, CU, CV);
    const before = open(cells);
    const [u, v] = [LEFT - 0.3 + 2.2 * random(7, round, 1), LOW - 0.3 + 2.2 * random(7, round, 2)];
    const r2 = (0.02 + 0.5 * random(7, round, 3)) ** 2;
    cells.cover(u, v, r2);
    for (const cell of before) {
      const held = corners(cell).every(([x, y]) => (x - u) ** 2 + (y - v) ** 2 <= r2);
      expect([cell, cells.isOpen(cell)]).toEqual([cell, !held]);
    }
    cells.cover(u, v, -1);
    expect(open(cells).size).toBe([...before].filter((cell) => cells.isOpen(cell)).length);
  }
});
