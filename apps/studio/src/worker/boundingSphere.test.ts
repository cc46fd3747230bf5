import { ballRound } from './boundingSphere';

test('a ball lies about the middle of the box, and reaches to the furthest point', () => {
  // Box from (0, 0, 0) to (2, 4, 6): its middle is (1, 2, 3), and its corner at (2, 4, 6) lies √14 from it.
  expect(ballRound([0, 0, 1, 2, 4, 6, 1, 2, 0])).toEqual({ centre: [1, 2, 3], radius: Math.sqrt(14) });
  expect(ballRound([5, 6, 7])).toEqual({ centre: [5, 6, 7], radius: 0 });
  expect(ballRound([])).toBeNull();
});
