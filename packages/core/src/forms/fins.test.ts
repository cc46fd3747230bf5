import { withoutFins } from './fins';

test('faces back to back go in pairs, whichever corner they begin with; others stay as they are', () => {
  const fins = [
    [0, 1, 2],
    [5, 6, 7],
    [2, 1, 0],
    [3, 4, 5],
    [7, 5, 6],
    [6, 5, 7],
  ];
  // 5 6 7 lies there twice the one way and once the other: one stays.
  expect([...withoutFins(Uint32Array.from(fins.flat()))]).toEqual([3, 4, 5, 7, 5, 6]);
  const sound = Uint32Array.of(0, 1, 2, 0, 2, 3);
  expect(withoutFins(sound)).toBe(sound);
});
