import { alongAt, firstCopy, nearestAlong, placeAt, secondAlong, tangentAt, wholePath } from './wholePath';

const drawn = (positions: number[], closed = 0) => ({
  positions: Float32Array.from(positions),
  offsets: [0, positions.length / 3],
  closed: [closed],
});

test('what has grown and what is ahead of it and behind it are one path, measured from end to end', () => {
  const path = wholePath(drawn([1, 0, 0, 2, 0, 0]), [
    [2, 0, 0, 2, 3, 0],
    [0, 0, 0, 1, 0, 0],
  ])!;
  expect(path.places).toEqual([
    [0, 0, 0],
    [1, 0, 0],
    [2, 0, 0],
    [2, 3, 0],
  ]);
  expect(path.along).toEqual([0, 1, 2, 5]);
});

test('what is ahead on another path is left to that; before anything has grown, its first course is the path', () => {
  const other = [5, 0, 0, 6, 0, 0];
  expect(wholePath(drawn([0, 0, 0, 1, 0, 0]), [other])!.along).toEqual([0, 1]);
  expect(wholePath(null, [other, [9, 0, 0, 9, 1, 0]])!.places[0]).toEqual([5, 0, 0]);
  expect(wholePath(null, [])).toBeNull();
  expect(wholePath(drawn([]), [])).toBeNull();
});

test('a closed path comes back to its beginning', () => {
  const path = wholePath(drawn([0, 0, 0, 1, 0, 0, 1, 1, 0, 0, 1, 0], 1), [])!;
  expect(path.along.at(-1)).toBe(4);
  expect(path.places.at(-1)).toEqual([0, 0, 0]);
});

test('places by their length along, and lengths by the place on screen', () => {
  const path = wholePath(drawn([0, 0, 0, 4, 0, 0, 4, 2, 0]), [])!;
  expect(placeAt(path, 1)).toEqual([1, 0, 0]);
  expect(placeAt(path, 5)).toEqual([4, 1, 0]);
  expect([placeAt(path, -1), placeAt(path, 9)]).toEqual([
    [0, 0, 0],
    [4, 2, 0],
  ]);
  // A screen of a hundred pixels a metre, Y downwards.
  const onScreen = ([x, y]: readonly number[]) => ({ x: 100 * x, y: -100 * y });
  expect(nearestAlong(path, { x: 130, y: 7 }, onScreen)).toBeCloseTo(1.3, 9);
  expect(nearestAlong(path, { x: 420, y: -150 }, onScreen)).toBeCloseTo(5.5, 9);
  // What lies behind the camera is not met.
  expect(nearestAlong(path, { x: 130, y: 7 }, () => null)).toBe(0);
});

test('how far along a place is, and where the second copy stands', () => {
  const path = wholePath(drawn([0, 0, 0, 4, 0, 0, 4, 3, 0]), [])!;
  expect(alongAt(path, [1.5, 0.3, 0.2])).toBeCloseTo(1.5, 9);
  expect(alongAt(path, [4.4, 1, 0])).toBeCloseTo(5, 9);
  expect(alongAt(path, [9, 9, 9])).toBe(7);
  const copy = (x: number, y: number): number[] => [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, x, y, 0, 1];
  const of = (ids: number[], ...at: number[][]) => ({ ids, matrices: Float32Array.from(at.flat()) });
  // By their numbers, whichever item they show.
  const copies = [of([2, 0], copy(4, 1), copy(1, 0)), of([1], copy(3, 0))];
  expect(secondAlong(path, copies)).toBeCloseTo(3, 6);
  expect(secondAlong(path, [of([0, 2], copy(1, 0), copy(4, 1))])).toBeNull();
  expect(secondAlong(path, [])).toBeNull();
});

test('the direction of a path is that of the piece that a place lies on', () => {
  const path = wholePath(drawn([0, 0, 0, 4, 0, 0, 4, 2, 0]), [])!;
  expect([0, 3, 4, 5, 9].map((s) => tangentAt(path, s))).toEqual([
    [1, 0, 0],
    [1, 0, 0],
    [1, 0, 0],
    [0, 1, 0],
    [0, 1, 0],
  ]);
});

test('the first copy is that of the lowest number, of whichever item', () => {
  const at = (id: number, x: number) => {
    const matrices = new Float32Array(16);
    matrices[12] = x;
    return { matrices, ids: [id] };
  };
  expect(firstCopy([at(3, 30), at(1, 10), at(2, 20)])).toEqual([10, 0, 0]);
  expect(firstCopy([])).toBeNull();
});
