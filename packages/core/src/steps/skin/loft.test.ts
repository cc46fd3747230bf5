import { areaAndVolume, type Mesh } from '../../geometry/mesh';
import { at, cross, sub } from '../../geometry/vec';
import { topologyCounts } from '../../geometry/topology/topology';
import { newGrowth, newStep } from '../../scene/make';
import type { ParamValue, Scene, Step } from '../../scene/schema';
import { sceneOf, testEvaluator } from '../../testing';
import { form, withShipped } from '../../../test/paths';
import { leastFacing } from '../../../test/surfaces';

withShipped();

type Params = Record<string, ParamValue>;
const ring = (radius: number, height: number, more: Params = {}): Step =>
  newStep('arc', { radius, middleY: height, lies: 'ground', sweep: 360, points: 90, ...more });
const lofted = async (steps: Step[], params: Params = {}, change?: (scene: Scene) => void): Promise<Mesh> =>
  (await form([...steps, newStep('loft', params)], 1, change)).mesh!;
const closed = { openEdges: 0, flippedEdges: 0 };

// The frustum of a cone: V = π h (R² + R r + r²) / 3.
test.each([
  ['upwards', 0, 2],
  ['downwards', 2, 0],
])('two circles, one over the other, %s: a frustum that is closed and faces outwards', async (_, low, high) => {
  const mesh = await lofted([ring(1, low), ring(0.5, high)], { shape: 'straight' });
  expect(areaAndVolume(mesh).volume / ((Math.PI * 2 * (1 + 0.5 + 0.25)) / 3)).toBeCloseTo(1, 2);
  expect(topologyCounts(mesh)).toMatchObject({ euler: 2, ...closed });
  expect(leastFacing(mesh)).toBeGreaterThan(0.5);
  const open = await lofted([ring(1, low), ring(0.5, high)], { caps: false });
  expect(topologyCounts(open)).toMatchObject({ openEdges: 2 * 120, flippedEdges: 0 });
  const [x, , z] = at(open.positions, 0);
  const [nx, , nz] = at(open.normals, 0);
  expect(x * nx + z * nz).toBeGreaterThan(0);
});

test('sections drawn from elsewhere and the other way round are matched: no twist', async () => {
  const steps = [ring(1, 0, { points: 60 }), ring(1, 2, { points: 60, start: 137, sweep: -360 })];
  const mesh = await lofted(steps, { shape: 'straight' });
  expect(areaAndVolume(mesh).volume / (2 * Math.PI)).toBeCloseTo(1, 1);
  const twisted = await lofted(steps, { shape: 'straight', match: 'drawn' });
  expect(areaAndVolume(twisted).volume).toBeLessThan(0.7 * areaAndVolume(mesh).volume);
});

test('squares keep their corners and are a box', async () => {
  // 37 points do not fall on the corners by themselves.
  const square = { points: 4 };
  const mesh = await lofted([ring(1, 0, square), ring(1, 3, square)], { points: 37, shape: 'straight' });
  // A square in a circle of radius 1 has sides of √2.
  expect(areaAndVolume(mesh).volume).toBeCloseTo(2 * 3, 5);
  expect(areaAndVolume(mesh).area).toBeCloseTo(2 * 2 + 4 * 3 * Math.SQRT2, 4);
});

test('smooth, it bends through every section; a straight one does not overshoot', async () => {
  const rings = [ring(1, 0), ring(0.4, 1), ring(1, 2)];
  const radii = (mesh: Mesh): Map<number, number> =>
    new Map(
      Array.from({ length: mesh.u!.length }, (_, i) => [
        Math.round(1e4 * mesh.u![i]) / 1e4,
        Math.hypot(mesh.positions[3 * i], mesh.positions[3 * i + 2]),
      ]),
    );
  const smooth = radii(await lofted(rings, { caps: false }));
  expect([smooth.get(0), smooth.get(0.5), smooth.get(1)]).toEqual([1, 0.4, 1].map((r) => expect.closeTo(r, 3)));
  // Catmull-Rom with the ends mirrored through themselves: at a quarter, (−1.6 + 9 · 1 + 9 · 0.4 − 1) / 16.
  expect(smooth.get(0.25)).toBeCloseTo((9 * 1 + 9 * 0.4 - 1.6 - 1) / 16, 3);
  expect(radii(await lofted(rings, { shape: 'straight', caps: false })).get(0.25)).toBeCloseTo(0.7, 3);
});

test('closed in a loop it is a ring without ends', async () => {
  const sections = [0, 1, 2, 3, 4, 5].map((k) => {
    const angle = (k * Math.PI) / 3;
    return newStep('arc', { radius: 0.2, middleX: Math.cos(angle), middleY: Math.sin(angle), sweep: 360, points: 40 });
  });
  const mesh = await lofted(sections, { loop: true });
  expect(topologyCounts(mesh)).toMatchObject({ euler: 0, ...closed });
});

test('open paths are spanned by a sheet', async () => {
  const rod = (x: number): Step => newStep('line', { fromX: x, toX: x, toY: 1, points: 5 });
  const mesh = await lofted([rod(0), rod(1), rod(2)], { points: 9, rows: 4 });
  expect(areaAndVolume(mesh).area).toBeCloseTo(2, 5);
  expect(mesh.indices).toHaveLength(3 * 2 * 8 * 8);
});

test('it grows: the part from one share to another, whose rows stand where they stood', async () => {
  const rings = [ring(0.5, 0), ring(0.5, 2)];
  const part = await lofted(rings, { from: 0.25, to: 0.6, shape: 'straight' });
  const { positions } = part;
  const heights = Array.from({ length: positions.length / 3 }, (_, i) => positions[3 * i + 1]);
  expect([Math.min(...heights), Math.max(...heights)]).toEqual([0.5, expect.closeTo(1.2, 5)]);
  const all = await lofted(rings, { shape: 'straight' });
  const stood = new Set(
    Array.from({ length: all.positions.length / 3 }, (_, i) => all.positions[3 * i + 1].toFixed(5)),
  );
  const moved = [...new Set(heights.map((h) => h.toFixed(5)))].filter((h) => !stood.has(h));
  expect(moved).toEqual(['1.20000']);
  expect((await lofted(rings, { to: 0 })).indices).toHaveLength(0);
});

describe('along a path', () => {
  const withCourse =
    (...steps: Step[]) =>
    (scene: Scene): void =>
      void scene.growths.push({ ...newGrowth('Course', 1, steps), id: 'course' });
  const line = newStep('line', { toY: 3, points: 31 });

  test('letters turn into others, holes close and open: one closed skin', async () => {
    const word = newStep('text', { text: 'OIB', size: 0.5 });
    const mesh = await lofted([word], { course: 'course', points: 160 }, withCourse(line));
    // O has one hole, I none, B two. Blind holes leave the Euler characteristic of a ball, 2; the hole of O and one of B end in one
    // point at I, which counts once less.
    expect(topologyCounts(mesh)).toMatchObject({ euler: 1, ...closed });
    const heights = Array.from({ length: mesh.positions.length / 3 }, (_, i) => mesh.positions[3 * i + 1]);
    expect(Math.max(...heights)).toBeCloseTo(3, 4);
    expect(areaAndVolume(mesh).volume).toBeGreaterThan(0);
  });

  test('letters stand on their feet, and read from where the path goes to; rolled, they turn about it', async () => {
    // L: its foot is to the right and below. The path comes towards the viewer, along Z.
    const towards = newStep('line', { fromZ: -1, toY: 0, toZ: 1, points: 11 });
    const word = newStep('text', { text: 'LL', size: 1 });
    const corner = async (params: Params): Promise<[number, number]> => {
      const { positions } = await lofted([word], { course: 'course', ...params }, withCourse(towards));
      // The middle of all lies towards where the stem is, away from the free corner of the box.
      let [x, y] = [0, 0];
      const n = positions.length / 3;
      for (let i = 0; i < n; i++) {
        x += positions[3 * i] / n;
        y += positions[3 * i + 1] / n;
      }
      return [Math.sign(x), Math.sign(y)];
    };
    expect(await corner({})).toEqual([-1, -1]);
    // Right-handed about Z: what was left and below is right and below.
    expect(await corner({ roll: 90 })).toEqual([1, -1]);
  });

  test('where two letters follow that have no hole, there is none between them', async () => {
    const mesh = await lofted([newStep('text', { text: 'OIIO', size: 0.5 })], { course: 'course' }, withCourse(line));
    expect(topologyCounts(mesh)).toMatchObject({ euler: 2, ...closed });
    const { positions, indices } = mesh;
    let least = Infinity;
    for (let f = 0; f < indices.length; f += 3) {
      const [a, b, c] = [0, 1, 2].map((k) => at(positions, indices[f + k]));
      least = Math.min(least, Math.hypot(...cross(sub(b, a), sub(c, a))));
    }
    expect(least).toBeGreaterThan(0);
  });

  test('two letters O are a tube with a bore: Euler characteristic 0', async () => {
    const mesh = await lofted([newStep('text', { text: 'OO', size: 0.5 })], { course: 'course' }, withCourse(line));
    expect(topologyCounts(mesh)).toMatchObject({ euler: 0, ...closed });
  });

  test('as much of it is there as has grown of the path, cut at the same place of the same sections', async () => {
    const word = newStep('text', { text: 'OC', size: 0.5 });
    const mesh = await lofted([word], { course: 'course' }, withCourse(line, newStep('grow', { to: 0.4 })));
    expect(Math.max(...mesh.u!)).toBeCloseTo(0.4, 5);
    expect(Math.max(...mesh.positions.filter((_, i) => i % 3 === 1))).toBeCloseTo(1.2, 4);
  });
});

test.each([
  [[ring(1, 0)], {}, 'A loft needs two sections or more.'],
  [[ring(1, 0), newStep('line')], {}, 'Some of the paths are open, and some are closed.'],
  [[newStep('line'), newStep('helix')], { course: 'course' }, 'A loft needs two sections or more.'],
] as [Step[], Params, string][])('says what it lacks', async (steps, params, what) => {
  const scene = sceneOf([...steps, newStep('loft', params)]);
  scene.growths.push({ ...newGrowth('Course', 1, [newStep('line')]), id: 'course' });
  const [{ notices }] = (await testEvaluator().evaluate(scene, 1)).growths;
  expect(notices.map((notice) => notice.what)).toEqual([what]);
});
