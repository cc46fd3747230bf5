import { Matrix4 } from 'three';
import { ballOf, detailLevels, loadAt } from './copyDetail';

const CUBE = Float32Array.of(-1, -1, -1, 1, 1, 1);
/** A view of 600 pixels for a field of 90°: a metre at a metre's distance takes 300 pixels. */
const VIEW = { eye: [0, 0, 0] as [number, number, number], pixels: 300 };

/** Levels of copies at distances, of a size. */
function levels(load: number, distances: readonly number[], size = 1): number[] {
  const matrices = new Float32Array(16 * distances.length);
  distances.forEach((z, k) =>
    new Matrix4()
      .makeTranslation(0, 0, -z)
      .scale({ x: size, y: size, z: size } as never)
      .toArray(matrices, 16 * k),
  );
  return [...detailLevels(ballOf(CUBE), load, matrices, [0, distances.length], VIEW)];
}

test('the level is the lightest whose faces are still a pixel large', () => {
  const { radius } = ballOf(CUBE);
  expect(radius).toBeCloseTo(Math.sqrt(3));
  const load = 9000;
  for (const level of [1, 2, 3]) {
    // Faces are a pixel large where the ball covers a third of the load, in pixels.
    const covered = loadAt(load, level) / 3;
    const distance = (VIEW.pixels * radius) / Math.sqrt(covered / Math.PI) + radius;
    expect(levels(load, [0.98 * distance, 1.02 * distance])).toEqual([level - 1, level]);
  }
});

test('copies half as large are drawn as lightly at half the distance', () => {
  const far = [20, 60, 100, 200, 400];
  const { radius } = ballOf(CUBE);
  const near = far.map((z) => (z - radius) / 2 + radius / 2);
  expect(levels(9000, near, 0.5)).toEqual(levels(9000, far));
  expect(new Set(levels(9000, far)).size).toBeGreaterThan(2);
});

test('what the eye is in, and what is near, is drawn as it is; nothing gets fewer faces than have a shape', () => {
  expect(levels(9000, [0, 1, 2])).toEqual([0, 0, 0]);
  expect(levels(300, [1e6])).toEqual([1]);
  expect(levels(100, [1e6])).toEqual([0]);
});

test('a part of the copies is sorted as in the whole', () => {
  const matrices = new Float32Array(16 * 6);
  for (let k = 0; k < 6; k++) new Matrix4().makeTranslation(0, 0, -(2 + 40 * k)).toArray(matrices, 16 * k);
  const of = (part: readonly [number, number]) => [...detailLevels(ballOf(CUBE), 9000, matrices, part, VIEW)];
  expect(of([2, 5])).toEqual(of([0, 6]).slice(2, 5));
});
