import fc from 'fast-check';
import type { Form } from '../../geometry/form';
import { flaws } from '../../geometry/invariants';
import { areaAndVolume } from '../../geometry/mesh';
import { topologyCounts } from '../../geometry/topology/topology';
import { at, cross, distance, dot, sub, unit } from '../../geometry/vec';
import { newStep } from '../../scene/make';
import type { ParamValue, Step } from '../../scene/schema';
import { formOf, sceneOf, testEvaluator } from '../../testing';

const stem = (points = 400): Step => newStep('line', { toY: 2, points });
const leaf = (rows = 160): Step =>
  newStep('blade', { length: 1, width: 0.3, fold: 0, cup: 0, droop: 0, thick: 0.004, rows });
const after = (first: Step, kind: string, params: Record<string, ParamValue>): Promise<Form> =>
  formOf(sceneOf([first, newStep(kind, params)]));
const lengthOf = (form: Form): number => {
  const { positions } = form.paths!;
  let sum = 0;
  for (let i = 1; i < positions.length / 3; i++) sum += distance(at(positions, i - 1), at(positions, i));
  return sum;
};

describe('roll-up', () => {
  const rolls = fc.record({
    amount: fc.double({ min: 0, max: 1, noNaN: true }),
    from: fc.constantFrom('top', 'foot', 'both', 'middle'),
    exempt: fc.double({ min: 0, max: 0.5, noNaN: true }),
    core: fc.double({ min: 0.02, max: 0.1, noNaN: true }),
    apart: fc.double({ min: 0.02, max: 0.1, noNaN: true }),
  });

  test('keeps the length of what it rolls, from any end', async () => {
    await fc.assert(
      fc.asyncProperty(rolls, async (params) => {
        const form = await after(stem(3000), 'roll-up', params);
        expect(lengthOf(form)).toBeCloseTo(2, 1);
      }),
      { numRuns: 24 },
    );
  });

  test('does not cut through itself: what is apart along the strip is apart in space, by the spacing', async () => {
    await fc.assert(
      fc.asyncProperty(rolls, async (params) => {
        const { positions } = (await after(stem(400), 'roll-up', { ...params, amount: 1 })).paths!;
        let nearest = Infinity;
        for (let i = 0; i < 400; i += 3)
          // Further on than half round the core and once the spacing: nothing of it may come near.
          for (let j = i + Math.ceil((Math.PI * params.core + 2 * params.apart) / 0.005); j < 400; j += 3)
            nearest = Math.min(nearest, distance(at(positions, i), at(positions, j)));
        expect(nearest).toBeGreaterThan(0.97 * params.apart);
      }),
      { numRuns: 40 },
    );
  });

  test('leaves the stalk alone, and everything where nothing is rolled', async () => {
    const rolled = await after(stem(), 'roll-up', { amount: 1, exempt: 0.4 });
    const still = await formOf(sceneOf([stem()]));
    for (let i = 0; i < 79; i++)
      expect(distance(at(rolled.paths!.positions, i), at(still.paths!.positions, i))).toBeLessThan(1e-5);
    for (const from of ['top', 'foot', 'both', 'middle']) {
      const flat = await after(stem(), 'roll-up', { amount: 0, from });
      flat.paths!.positions.forEach((x, i) => expect(x).toBeCloseTo(still.paths!.positions[i], 5));
    }
  });

  test('a leaf unrolls smoothly: no point of it jumps', async () => {
    let before = (await after(leaf(24), 'roll-up', { amount: 1 })).mesh!;
    expect(topologyCounts(before)).toMatchObject({ openEdges: 0, flippedEdges: 0, euler: 2 });
    for (let amount = 0.98; amount >= 0; amount -= 0.02) {
      const now = (await after(leaf(24), 'roll-up', { amount })).mesh!;
      let furthest = 0;
      for (let i = 0; i < now.positions.length / 3; i += 7)
        furthest = Math.max(furthest, distance(at(before.positions, i), at(now.positions, i)));
      expect(furthest).toBeLessThan(0.2);
      before = now;
    }
  });
});

describe('deforming a skin', () => {
  const cases: [string, Record<string, ParamValue>][] = [
    ['bend', { angle: 500, over: 1, towards: 90 }],
    ['twist', { turns: 2, over: 1 }],
    ['taper', {}],
    ['stretch', { by: 2.5, axis: 'x' }],
    ['fold', { angle: 60 }],
    ['cup', { angle: 250 }],
    ['noise', { amount: 0.05, size: 0.3, evolve: 0 }],
    ['roll-up', { amount: 0.9 }],
    ['transform', { turnX: 30, scale: 2, moveY: 3 }],
  ];

  test.each(cases)('%s keeps it closed, sound, and its normals square to its faces', async (kind, params) => {
    const { mesh } = await after(leaf(), kind, params);
    expect(flaws({ ...(await after(leaf(), kind, params)) })).toEqual([]);
    expect(topologyCounts(mesh!)).toMatchObject({ openEdges: 0, flippedEdges: 0, euler: 2 });
    const flat = (await formOf(sceneOf([leaf()]))).mesh!;
    const { indices, positions, normals } = mesh!;
    let [agree, faces] = [0, 0];
    for (let i = 0; i < indices.length; i += 3) {
      const [a, b, c] = [0, 1, 2].map((k) => indices[i + k]);
      const was = cross(
        sub(at(flat.positions, b), at(flat.positions, a)),
        sub(at(flat.positions, c), at(flat.positions, a)),
      );
      const face = cross(sub(at(positions, b), at(positions, a)), sub(at(positions, c), at(positions, a)));
      // Rims and points are slivers, whose own normal says little.
      if (Math.hypot(...was) < 1e-4 || dot(unit(was), at(flat.normals, a)) < 0.95) continue;
      faces++;
      if (dot(unit(face), at(normals, a)) > 0.9) agree++;
    }
    expect(faces).toBeGreaterThan(100);
    // The two columns along a fold stand on its crease, where the light runs over from one half to the other.
    expect(agree / faces).toBeGreaterThan(kind === 'fold' ? 0.79 : 0.97);
  });

  test('a bent bar keeps its volume, as Pappus has it for what is bent about its own middle', async () => {
    const bar = newStep('blade', {
      length: 1,
      width: 0.2,
      fold: 0,
      cup: 0,
      droop: 0,
      thick: 0.02,
      stalk: 0,
      outline: [{ at: 0, value: 1 }],
    });
    const before = areaAndVolume((await formOf(sceneOf([bar]))).mesh!).volume;
    const bent = areaAndVolume((await after(bar, 'bend', { angle: 200, over: 1, towards: 0 })).mesh!).volume;
    expect(bent / before).toBeCloseTo(1, 2);
  });

  test('a cup of a full turn makes a tube whose way round is the width', async () => {
    const bar = newStep('blade', {
      length: 1,
      width: 0.6,
      fold: 0,
      cup: 0,
      droop: 0,
      thick: 0.002,
      stalk: 0,
      outline: [{ at: 0, value: 1 }],
    });
    const { mesh } = await after(bar, 'cup', { angle: 360 });
    const radius = 0.6 / (2 * Math.PI);
    for (let i = 0; i < mesh!.positions.length; i += 3)
      expect(Math.hypot(mesh!.positions[i], mesh!.positions[i + 2] - radius)).toBeCloseTo(radius, 2);
  });

  test('fold turns each half by its angle, and keeps its width', async () => {
    const bar = newStep('blade', {
      length: 1,
      width: 0.4,
      fold: 0,
      cup: 0,
      droop: 0,
      thick: 0.001,
      stalk: 0,
      outline: [{ at: 0, value: 1 }],
    });
    const { mesh } = await after(bar, 'fold', { angle: 60, soft: 0 });
    const tips = Array.from({ length: mesh!.positions.length / 3 }, (_, i) => at(mesh!.positions, i)).filter(
      ([x]) => x > 0.099,
    );
    for (const [x, , z] of tips) {
      expect(Math.hypot(x, z)).toBeCloseTo(0.2, 2);
      expect((Math.atan2(z, x) * 180) / Math.PI).toBeCloseTo(60, 0);
    }
  });

  test('a range limits it to a part', async () => {
    const [flat, part] = [
      await formOf(sceneOf([leaf()])),
      await after(leaf(), 'fold', { angle: 60, low: 0.5, high: 0.5 }),
    ];
    let moved = 0;
    for (let i = 0; i < flat.mesh!.positions.length / 3; i++) {
      const apart = distance(at(flat.mesh!.positions, i), at(part.mesh!.positions, i));
      if (flat.mesh!.positions[3 * i + 1] < 0.5) expect(apart).toBeLessThan(1e-6);
      else if (apart > 0.01) moved++;
    }
    expect(moved).toBeGreaterThan(20);
  });
});

test.each([
  ['twist', { turns: 0.4, over: 2 }],
  ['noise', { amount: 0.2, hold: 0, evolve: 0 }],
] as const)('%s is limited to a range: below it nothing moves, above it all does as without', async (kind, params) => {
  const plain = await formOf(sceneOf([leaf()]));
  const [whole, part] = [
    await after(leaf(), kind, params),
    await after(leaf(), kind, { ...params, low: 0.3, high: 0.6 }),
  ];
  let moved = 0;
  for (let i = 0; i < plain.mesh!.positions.length / 3; i++) {
    const [was, all, some] = [plain, whole, part].map(({ mesh }) => at(mesh!.positions, i));
    // The leaf is a metre high, and stands on the ground.
    if (was[1] < 0.3 - 1e-4) expect(distance(some, was)).toBeLessThan(1e-6);
    if (was[1] > 0.6 + 1e-4) expect(distance(some, all)).toBeLessThan(1e-6);
    if (was[1] > 0.6 && distance(some, was) > 0.005) moved++;
  }
  expect(moved).toBeGreaterThan(10);
});

describe('plates', () => {
  test('letters come out solid, holes and all', async () => {
    const ring = (radius: number): Step => newStep('arc', { radius, points: 64 });
    const form = await formOf(sceneOf([ring(1), ring(0.5), newStep('plate', { depth: 0.3 })]));
    expect(topologyCounts(form.mesh!)).toMatchObject({ openEdges: 0, flippedEdges: 0, euler: 0 });
    // Regular polygons of 64 corners: n/2 · r² · sin(2π/n).
    const area = (r: number): number => 32 * r * r * Math.sin((2 * Math.PI) / 64);
    expect(areaAndVolume(form.mesh!).volume).toBeCloseTo(0.3 * (area(1) - area(0.5)), 4);
  });
});

test('a path that has not grown yet has a skin of nothing, and deforming it is no failure', async () => {
  for (const kind of ['bend', 'twist', 'noise', 'taper', 'fold']) {
    const scene = sceneOf([newStep('line'), newStep('grow', { to: 0 }), newStep('tube'), newStep(kind)]);
    const [growth] = (await testEvaluator().evaluate(scene, 1)).growths;
    expect([kind, growth.notices.filter(({ level }) => level === 'error')]).toEqual([kind, []]);
  }
});
