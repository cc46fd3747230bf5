import { boundsOf, countsOf } from '../geometry/form';
import { flaws } from '../geometry/invariants';
import { pathCount, pointCount } from '../geometry/paths';
import { at, distance } from '../geometry/vec';
import { visibleLength } from '../curves/pathFrames';
import { linearRgb, gradientTable } from '../geometry/gradient';
import { profileCurve } from '../geometry/profile';
import { newStep } from '../scene/make';
import type { ParamValue } from '../scene/schema';
import { formOf, sceneOf } from '../testing';

describe('starts', () => {
  test('line: evenly spaced from one end to the other', async () => {
    const { paths } = await formOf(sceneOf([newStep('line', { fromX: 1, toX: 1, toY: 3, points: 4 })]));
    expect([...paths!.positions]).toEqual([1, 0, 0, 1, 1, 0, 1, 2, 0, 1, 3, 0]);
    expect([...paths!.s]).toEqual([0, 1, 2, 3]);
  });

  test("helix: a cone's points are evenly spaced, and it keeps its radii and height", async () => {
    const { paths } = await formOf(
      sceneOf([newStep('helix', { below: 1, above: 0.25, height: 2, turns: 3, points: 200 })]),
    );
    const gaps = Array.from({ length: 199 }, (_, i) => distance(at(paths!.positions, i), at(paths!.positions, i + 1)));
    expect(Math.max(...gaps) / Math.min(...gaps)).toBeLessThan(1.01);
    const [first, last] = [at(paths!.positions, 0), at(paths!.positions, 199)];
    expect([Math.hypot(first[0], first[2]), first[1]]).toEqual([1, 0]);
    expect(Math.hypot(last[0], last[2])).toBeCloseTo(0.25, 5);
    expect(last[1]).toBeCloseTo(2, 5);
  });

  test('drawn: runs from first anchor to last; closed it returns, without doubling a point', async () => {
    const anchors = [
      [0, 0, 0],
      [1, 0, 0],
      [1, 1, 0],
      [0, 1, 0],
    ] as const;
    const open = await formOf(
      sceneOf([newStep('drawn', { anchors: anchors.map((a) => [...a]) as never, points: 50 })]),
    );
    expect(at(open.paths!.positions, 49)).toEqual([0, 1, 0]);
    const closed = await formOf(
      sceneOf([newStep('drawn', { anchors: anchors.map((a) => [...a]) as never, points: 50, closed: true })]),
    );
    expect(closed.paths!.closed[0]).toBe(1);
    expect(distance(at(closed.paths!.positions, 49), [0, 0, 0])).toBeGreaterThan(0.02);
    expect(closed.paths!.u[49]).toBeCloseTo(49 / 50, 2);
  });

  test('two starts give two paths with ids of their own', async () => {
    const form = await formOf(sceneOf([newStep('line'), newStep('helix'), newStep('tube', { sides: 3 })]));
    expect(pathCount(form.paths!)).toBe(2);
    expect([...form.paths!.ids]).toEqual([0, 1]);
    expect(flaws(form)).toEqual([]);
  });
});

describe('noise', () => {
  const noisy = (params = {}, frame = 1) =>
    formOf(
      sceneOf([newStep('line', { points: 400, toY: 40 }), newStep('noise', { amount: 1, hold: 0, ...params })]),
      frame,
    );

  test('moves points about their own course, not to one side', async () => {
    const { positions } = (await noisy({ detail: 1 })).paths!;
    let sum = 0;
    for (let i = 0; i < 400; i++) sum += positions[3 * i];
    expect(Math.abs(sum / 400)).toBeLessThan(0.1);
    expect(boundsOf(await noisy())!.max[0]).toBeGreaterThan(0.3);
  });

  test('holds the base exactly, and its direction nearly', async () => {
    const { positions } = (await noisy({ hold: 0.5 })).paths!;
    expect(at(positions, 0)).toEqual([0, 0, 0]);
    expect(Math.abs(positions[3])).toBeLessThan(1e-3);
  });

  test('keeps rest coordinates and measures the new whole length', async () => {
    const { paths } = await noisy();
    expect(paths!.s[399]).toBeCloseTo(40, 4);
    expect(paths!.whole[0]).toBeCloseTo(visibleLength(paths!, 0), 3);
    expect(paths!.whole[0]).toBeGreaterThan(40.5);
  });

  test('stands still without evolution, and sways smoothly with it', async () => {
    const still = [await noisy({ evolve: 0 }, 1), await noisy({ evolve: 0 }, 60)].map(({ paths }) => [
      ...paths!.positions,
    ]);
    expect(still[1]).toEqual(still[0]);
    const [a, b, c] = await Promise.all(
      [10, 11, 12].map(async (frame) => (await noisy({ evolve: 0.5, detail: 1 }, frame)).paths!.positions),
    );
    for (let i = 0; i < 400; i += 7) {
      const [d1, d2] = [distance(at(a, i), at(b, i)), distance(at(b, i), at(c, i))];
      expect(Math.abs(d1 - d2)).toBeLessThan(0.01);
    }
  });

  test('after Grow it deforms what is there and keeps the grown share', async () => {
    const form = await formOf(
      sceneOf([newStep('line', { points: 200 }), newStep('grow', { to: 0.4 }), newStep('noise', { amount: 0.2 })]),
    );
    const { paths } = form;
    expect(visibleLength(paths!, 0) / paths!.whole[0]).toBeCloseTo(0.4, 3);
    expect(flaws(form)).toEqual([]);
  });
});

describe('respace', () => {
  test('by count and by spacing: equal pieces, ends kept, rest coordinates carried over', async () => {
    for (const params of [
      { by: 'count', count: 41 },
      { by: 'spacing', spacing: 0.05 },
    ] as Record<string, ParamValue>[]) {
      const form = await formOf(sceneOf([newStep('line', { points: 7 }), newStep('respace', params)]));
      expect(pointCount(form.paths!)).toBe(41);
      for (let i = 0; i < 41; i++) {
        expect(form.paths!.positions[3 * i + 1]).toBeCloseTo(i / 20, 5);
        expect(form.paths!.u[i]).toBeCloseTo(i / 40, 5);
      }
      expect(flaws(form)).toEqual([]);
    }
  });

  test('on a closed path the last piece counts, and rest coordinates do not fall back', async () => {
    const anchors = [
      [0, 0, 0],
      [1, 0, 0],
      [1, 1, 0],
      [0, 1, 0],
    ];
    const form = await formOf(
      sceneOf([
        newStep('drawn', { anchors: anchors as never, closed: true, points: 9 }),
        newStep('respace', { count: 30 }),
      ]),
    );
    expect(form.paths!.u[29]).toBeGreaterThan(0.9);
    expect(flaws(form)).toEqual([]);
  });
});

describe('finish', () => {
  const steps = (to: number) => [
    newStep('line', { points: 50 }),
    newStep('grow', { to }),
    newStep('tube', { sides: 3 }),
    newStep('finish', { glowLength: 0.2 }),
  ];

  test('colours belong to the rest coordinate: the base keeps its colour while the path grows', async () => {
    const [half, whole] = [await formOf(sceneOf(steps(0.5))), await formOf(sceneOf(steps(1)))];
    const ringColor = (form: typeof half, ring: number) => [...form.mesh!.colors!.subarray(12 * ring, 12 * ring + 3)];
    for (const ring of [3, 10, 20]) expect(ringColor(half, ring)).toEqual(ringColor(whole, ring));
  });

  const colorsBy = async (by: string, count = 4, to = 0.6) => {
    const form = await formOf(
      sceneOf([
        newStep('line', { points: 12 }),
        newStep('strands', { as: 'row', count }),
        newStep('grow', { to }),
        newStep('tube', { sides: 3, start: 'open', end: 'open' }),
        newStep('finish', { by }),
      ]),
    );
    const { colors, parts } = form.mesh!;
    // The first and last colour of each path's part.
    return Array.from({ length: count }, (_, k) => {
      const end = k + 1 < count ? parts![2 * k + 2] : colors!.length / 3;
      return [parts![2 * k], end - 1].map((i) =>
        [...colors!.subarray(3 * i, 3 * i + 3)].map((v) => Number(v.toFixed(4))).join(),
      );
    });
  };

  test('by the grown part every path shows the whole gradient; by the whole path only what has grown of it', async () => {
    const [whole] = await colorsBy('rest', 4, 1);
    for (const colors of await colorsBy('grown')) expect(colors).toEqual(whole);
    expect((await colorsBy('rest'))[0][1]).not.toBe(whole[1]);
  });

  test('path by path and at random: one colour each, and a path keeps its random one when more come', async () => {
    const ordered = await colorsBy('order');
    for (const [base, tip] of ordered) expect(base).toBe(tip);
    expect(new Set(ordered.map(([base]) => base)).size).toBe(4);
    const few = await colorsBy('random', 4);
    expect((await colorsBy('random', 9)).slice(0, 4)).toEqual(few);
  });

  test('only what lies within the glow length of the tip glows', async () => {
    const { mesh } = await formOf(sceneOf(steps(0.5)));
    for (let v = 0; v < mesh!.tip!.length; v++) expect(mesh!.glow![v] > 0).toBe(mesh!.tip![v] < 0.2);
    expect(countsOf(await formOf(sceneOf(steps(0.5)))).faces).toBeGreaterThan(100);
  });
});

describe('values along something', () => {
  test('a profile runs through its points without overshoot (Fritsch, Carlson 1980)', () => {
    const curve = profileCurve([
      { at: 1, value: 0 },
      { at: 0, value: 0 },
      { at: 0.3, value: 1 },
      { at: 0.35, value: 1 },
    ]);
    expect([0, 0.3, 0.35, 1].map(curve)).toEqual([0, 1, 1, 0]);
    for (let t = 0; t <= 1; t += 0.01) {
      expect(curve(t)).toBeGreaterThanOrEqual(0);
      expect(curve(t)).toBeLessThanOrEqual(1);
    }
    for (let t = 0.36; t < 1; t += 0.01) expect(curve(t + 0.01)).toBeLessThanOrEqual(curve(t));
  });

  // IEC 61966-2-1: sRGB 0.5 is 0.2140 in linear light.
  test('colours are read as sRGB', () => {
    expect(linearRgb('#808080')[0]).toBeCloseTo(0.2159, 4);
    expect(linearRgb('#ff0000')).toEqual([1, 0, 0]);
  });

  test("a gradient gives its stops' own colours at their positions", () => {
    const table = gradientTable(
      [
        { at: 1, color: '#ff0000' },
        { at: 0, color: '#0000ff' },
      ],
      11,
    );
    expect([...table.subarray(0, 3)].map((v) => Number(v.toFixed(3)))).toEqual([0, 0, 1]);
    expect([...table.subarray(30)].map((v) => Number(v.toFixed(3)))).toEqual([1, 0, 0]);
  });
});
