import { newStep } from '../scene/make';
import { circle, form, line } from '../../test/paths';
import { pathsAhead } from './extent';

const lengthOf = (piece: readonly number[]): number => {
  let sum = 0;
  for (let i = 3; i < piece.length; i += 3) sum += Math.hypot(...[0, 1, 2].map((c) => piece[i + c] - piece[i + c - 3]));
  return sum;
};
const ahead = async (grow: Record<string, number>, start = line(2, 41)): Promise<number[][]> =>
  pathsAhead(await form([start, newStep('grow', grow)]));

test('what has yet to grow begins where the front is, and ends at the end', async () => {
  const [piece, ...more] = await ahead({ to: 0.53 });
  expect(more).toEqual([]);
  expect(piece[1]).toBeCloseTo(1.06, 5);
  expect(piece.at(-2)).toBeCloseTo(2, 5);
  expect(lengthOf(piece)).toBeCloseTo(0.94, 4);
});

test('nothing grown leaves all of it ahead, all grown nothing; what has been eaten lies behind', async () => {
  expect((await ahead({ to: 0 })).map(lengthOf)).toEqual([expect.closeTo(2, 5)]);
  expect(await ahead({ to: 1 })).toEqual([]);
  const both = await ahead({ from: 0.21, to: 0.77 });
  expect(both.map(lengthOf)).toEqual([expect.closeTo(0.42, 4), expect.closeTo(0.46, 4)]);
  expect([both[0][1], both[0].at(-2), both[1][1]]).toEqual([
    expect.closeTo(0, 5),
    expect.closeTo(0.42, 5),
    expect.closeTo(1.54, 5),
  ]);
});

test('of a window over the seam of a closed path, it is all that the window leaves', async () => {
  const pieces = await ahead({ to: 0.3, travel: 0.85 }, circle(240));
  // A circle of radius 1, by its chords.
  expect(pieces.reduce((sum, piece) => sum + lengthOf(piece), 0)).toBeCloseTo(0.7 * 2 * Math.PI, 2);
});

test('what keeps moving takes it along, and what has never been cut has none', async () => {
  const moved = pathsAhead(
    await form([line(2, 41), newStep('grow', { to: 0.5 }), newStep('transform', { moveX: 3, moveY: 0, moveZ: 0 })]),
  );
  for (let i = 0; i < moved[0].length; i += 3) expect(moved[0][i]).toBeCloseTo(3, 5);
  expect(pathsAhead(await form([line(2)]))).toEqual([]);
});
