import { helixPoints } from './helix';

const SHAPE = { below: 0.2, above: 0.9, height: 1.4, turns: 4, start: 30, widens: 'by-factor' as const };
const pointsOf = (flat: Float64Array) =>
  Array.from({ length: flat.length / 3 }, (_, i) => ({
    radius: Math.hypot(flat[3 * i], flat[3 * i + 2]),
    angle: Math.atan2(-flat[3 * i + 2], flat[3 * i]),
    height: flat[3 * i + 1],
  }));

// Moseley 1838 (see the module): each turn the radius grows by the same factor, and the spiral lies on a cone.
test('by a factor it is the spiral of a shell: equal factors a turn, on a straight cone', () => {
  const points = pointsOf(helixPoints(SHAPE, 401));
  for (let i = 0; i + 100 <= 400; i++)
    expect(points[i + 100].radius / points[i].radius).toBeCloseTo((0.9 / 0.2) ** 0.25, 9);
  for (const { radius, height } of points) expect(height).toBeCloseTo((1.4 * (radius - 0.2)) / (0.9 - 0.2), 9);
  expect([points[0].height, points[400].height]).toEqual([0, 1.4]);
});

test('evenly both go with the way, from the angle at which it starts', () => {
  const points = pointsOf(helixPoints({ ...SHAPE, widens: 'evenly' }, 101));
  points.forEach(({ radius, height }, i) => {
    expect(radius).toBeCloseTo(0.2 + (0.7 * i) / 100, 9);
    expect(height).toBeCloseTo((1.4 * i) / 100, 9);
  });
  expect((180 * points[0].angle) / Math.PI).toBeCloseTo(30, 9);
});
