import fc from 'fast-check';
import { grownLength, visibleLength } from '../../curves/pathFrames';
import { tipsOf } from '../../curves/tips';
import { type Paths, pathCount, pointCount } from '../../geometry/paths';
import { at, byAxis, distance, dot, scale, sub, type Vec3 } from '../../geometry/vec';
import { newGrowth, newStep } from '../../scene/make';
import { newGuide } from '../../scene/owners';
import type { ParamValue, Scene } from '../../scene/schema';
import { sceneOf, testEvaluator } from '../../testing';
import { form, paths, line, circle, last, grows } from '../../../test/paths';

describe('windows', () => {
  test('on a closed path the window goes over the seam and keeps its length everywhere', async () => {
    for (let travel = -1.3; travel < 2; travel += 0.0937) {
      const made = await paths([circle(), newStep('grow', { from: 0, to: 0.25, travel })]);
      expect(pathCount(made)).toBe(1);
      expect(made.closed[0]).toBe(0);
      expect(grownLength(made) / ((2 * Math.PI) / 4)).toBeCloseTo(1, 3);
      for (let i = 1; i < pointCount(made); i++)
        expect(distance(at(made.positions, i - 1), at(made.positions, i))).toBeLessThan(0.0525);
    }
  });

  test('a whole turn later it is where it was', async () => {
    const [a, b] = await Promise.all(
      [0.4, 1.4].map((travel) => paths([circle(), newStep('grow', { to: 0.3, travel })])),
    );
    expect(pointCount(a)).toBe(pointCount(b));
    a.positions.forEach((x, i) => expect(x).toBeCloseTo(b.positions[i], 5));
  });

  test('on an open path it slides in at one end and out at the other', async () => {
    const length = async (travel: number) => grownLength(await paths([line(1), newStep('grow', { to: 0.25, travel })]));
    expect(await length(-0.25)).toBe(0);
    expect(await length(-0.1)).toBeCloseTo(0.15, 5);
    expect(await length(0.5)).toBeCloseTo(0.25, 5);
    expect(await length(0.9)).toBeCloseTo(0.1, 5);
    expect(await length(1)).toBe(0);
  });

  test('no point of the visible part jumps while the window travels', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.double({ min: 0, max: 3, noNaN: true }),
        fc.double({ min: 0.1, max: 0.9, noNaN: true }),
        async (travel, to) => {
          const ends = async (by: number) => {
            const made = await paths([circle(90), newStep('grow', { to, travel: travel + by })]);
            return [at(made.positions, 0), last(made)];
          };
          const [before, after] = [await ends(0), await ends(0.002)];
          // Both ends move by the window's own step on the polygon of 90 sides.
          [0, 1].forEach((end) => expect(distance(before[end], after[end])).toBeLessThan(0.002 * 2 * Math.PI * 1.01));
        },
      ),
      { numRuns: 40 },
    );
  });
});

describe('growth in order', () => {
  const row = (count: number) => newStep('strands', { as: 'row', count, apart: 1, vary: 0, turn: 0 });
  const there = (made: Paths) => Array.from({ length: pathCount(made) }, (_, path) => visibleLength(made, path));

  test('by distance from a guide: the nearest sets out first', async () => {
    const made = await paths(
      [line(1), row(5), newStep('grow', { to: grows(0, 1), stagger: 20, order: 'guide', guide: 'guide:g' })],
      51,
      (scene) => scene.guides.push(newGuide('g', 'Lamp', 'point', { positionX: 2, positionY: 0 })),
    );
    // Strands stand at 0, 1, −1, 2, −2 metres: the fourth is nearest, then the second, first, third, fifth.
    const lengths = there(made);
    [0.1, 0.3, 0, 0.5, 0].forEach((length, i) => expect(lengths[i]).toBeCloseTo(length, 4));
  });

  test('the tips of another growth are a guide too, where they are at that frame', async () => {
    const scene = sceneOf([
      line(1),
      row(3),
      newStep('grow', { to: grows(0, 1), stagger: 40, order: 'guide', guide: 'tip:walker' }),
    ]);
    scene.growths.push({
      ...newGrowth('Walker', 1, [newStep('line', { fromX: -3, fromY: 0, toX: -1, toY: 0 })]),
      id: 'walker',
    });
    const lengths = there(await formOf(scene, 61));
    async function formOf(of: Scene, frame: number) {
      return (await testEvaluator().evaluate(of, frame)).growths[0].form!.paths!;
    }
    expect(lengths[2]).toBeGreaterThan(lengths[0]);
    expect(lengths[0]).toBeGreaterThan(lengths[1]);
  });

  test("easing works on each path's own share", async () => {
    const plain = await paths([line(1), newStep('grow', { to: 0.5, ease: 'quad-in' })]);
    expect(grownLength(plain)).toBeCloseTo(0.25, 5);
  });
});

describe('levels', () => {
  const row = newStep('strands', { as: 'row', count: 5, apart: 1, vary: 0, turn: 0 });
  const lengths = (made: Paths) => Array.from({ length: pathCount(made) }, (_, path) => visibleLength(made, path));

  test('by a noise in space neighbours move together, far ones do not, and the range closes', async () => {
    const beds = newStep('strands', { as: 'row', count: 60, apart: 0.02, vary: 0, turn: 0 });
    const grown = async (levelGrain: number, frame: number, change = 0) =>
      (
        await paths(
          [line(1, 21), beds, newStep('grow', { levels: 1, levelsBy: 'field', levelGrain, change, levelDetail: 1 })],
          frame,
        )
      ).level!;
    const level = await grown(0.6, 1);
    // Strands alternate to both sides: those of one side are two apart.
    const steps = [...level].slice(2).map((value, k) => Math.abs(value - level[k]));
    expect(Math.max(...steps)).toBeLessThan(0.12);
    expect(Math.max(...level) - Math.min(...level)).toBeGreaterThan(0.3);
    expect([...(await grown(0.6, 145, 1))]).toEqual([...(await grown(0.6, 1, 1))].map((v) => expect.closeTo(v, 6)));
    expect([...(await grown(0.6, 40, 1))]).not.toEqual([...(await grown(0.6, 1, 1))]);
  });

  test('by an attribute each path grows as far as that says where it begins', async () => {
    const rows = newStep('strands', { as: 'row', count: 9, apart: 0.25, vary: 0, turn: 0 });
    const measured = newStep('measure', {
      what: 'direction',
      directionX: 1,
      directionY: 0,
      scale: 'measured',
      name: 'across',
    });
    const made = await paths([
      line(1, 41),
      rows,
      measured,
      newStep('grow', { levels: 1, levelsBy: 'attribute', levelAttribute: 'across', levelLow: -1, levelHigh: 1 }),
    ]);
    for (let p = 0; p < 9; p++) {
      if (made.offsets[p + 1] - made.offsets[p] < 2) continue;
      const x = made.positions[3 * made.offsets[p]];
      expect(last(made, p)[1]).toBeCloseTo((x + 1) / 2, 2);
    }
    const scene = sceneOf([line(1), newStep('grow', { levels: 1, levelsBy: 'attribute', levelAttribute: 'none' })]);
    const [{ notices }] = (await testEvaluator().evaluate(scene, 1)).growths;
    expect(notices.map(({ what }) => what)).toEqual(['No step before it writes the attribute “none”.']);
  });

  test('drawn by hand from the first path to the last', async () => {
    const levelProfile = [
      { at: 0, value: 0, shape: 'straight' as const },
      { at: 1, value: 1 },
    ];
    const made = await paths([line(1), row, newStep('grow', { levels: 1, levelsBy: 'profile', levelProfile })]);
    lengths(made).forEach((length, i) => expect(length).toBeCloseTo(i / 4, 5));
    made.level!.forEach((level, i) => expect(level).toBeCloseTo(i / 4, 5));
  });

  test('by sound: they move with it, close over its length, and are the same however a frame is reached', async () => {
    const scene = sceneOf([line(1), row, newStep('grow', { levels: 1, levelsBy: 'sound' })]);
    const evaluator = testEvaluator();
    const level = async (frame: number) =>
      Array.from((await evaluator.evaluate(scene, frame)).growths[0].form!.paths!.level!);
    const at30 = await level(30);
    const other = await level(97);
    expect(at30).not.toEqual(other);
    expect(await level(30 + 144)).toEqual(at30);
    const jump = (await testEvaluator().evaluate(scene, 97)).growths[0].form!.paths!.level!;
    expect(Array.from(jump)).toEqual(other);
  });

  test('a sound of no use says so on its step', async () => {
    const scene = sceneOf([line(1), row, newStep('grow', { levels: 1, levelsBy: 'sound', sound: 'none' })]);
    const { growths } = await testEvaluator().evaluate(scene, 1);
    expect(growths[0].notices[0]).toMatchObject({ level: 'error', place: { step: 'step2' } });
    expect(growths[0].notices[0].what).toMatch(/not in this scene/);
  });
});

describe('age', () => {
  test('is the time since the front passed: exact for an even growth, seen or jumped to', async () => {
    const scene = sceneOf([
      line(1, 101),
      newStep('grow', { to: grows(0, 1) }),
      newStep('wire'),
      newStep('finish', { by: 'age', fade: 2 }),
    ]);
    const { form } = (await testEvaluator().evaluate(scene, 61)).growths[0];
    const made = form!.paths!;
    // At frame 61 the front is at 0.6; a point at u was passed 60 − 100 u frames ago.
    for (let i = 0; i < pointCount(made); i += 7) expect(made.age![i]).toBeCloseTo((60 - 100 * made.u[i]) / 24, 3);
    expect(made.age![pointCount(made) - 1]).toBeCloseTo(0, 5);
    expect(form!.mesh!.age).not.toBeNull();
  });

  test('costs nothing where nobody wants it', async () => {
    const made = await form([line(1), newStep('grow', { to: 0.5 }), newStep('wire'), newStep('finish')]);
    expect(made.paths!.age).toBeNull();
  });
});

describe('growing ends', () => {
  const tips = async (grow: Record<string, ParamValue>) => tipsOf(await paths([line(2), newStep('grow', grow)]));

  test('are the far one, the near one where a path is eaten, both in the middle of nowhere', async () => {
    const [far] = await tips({ to: 0.5 });
    expect([far.position[1], far.tangent[1]]).toEqual([1, 1]);
    const [near] = await tips({ from: 0.25 });
    expect([near.position[1], near.tangent[1]]).toEqual([0.5, -1]);
    expect(await tips({ from: 0.2, to: 0.8 })).toHaveLength(2);
    expect(await tips({ begins: 'middle', to: 0.5 })).toHaveLength(2);
    expect((await tips({ begins: 'tip', to: 0.5 }))[0].position[1]).toBeCloseTo(1, 5);
    expect(await tips({ to: 0 })).toHaveLength(0);
  });

  test('what rides stands on the tip at every moment, its axis along the path, with no gap', async () => {
    const scene = sceneOf([
      newStep('helix', { points: 300 }),
      newStep('grow', { to: grows(0.02, 1) }),
      newStep('tips', { growth: 'cap' }),
    ]);
    scene.growths.push({
      ...newGrowth('Cap', 1, [newStep('line', { fromY: 0, toY: 0.1, points: 2 }), newStep('wire', { radius: 0.01 })]),
      id: 'cap',
    });
    const evaluator = testEvaluator();
    for (const frame of [1, 17.3, 44, 80.9, 101]) {
      const { paths: made, mesh } = (await evaluator.evaluate(scene, frame)).growths[0].form!;
      const [tip] = tipsOf(made!);
      // The cap is a wire of three sides: its first ring lies about the tip, its second a tenth of a metre on.
      const ring = (first: number): Vec3 =>
        byAxis((c) => [0, 1, 2].reduce((sum, k) => sum + mesh!.positions[3 * (first + k) + c] / 3, 0));
      expect(distance(ring(0), tip.position)).toBeLessThan(1e-5);
      const axis = scale(sub(ring(4), tip.position), 10);
      expect(dot(axis, tip.tangent)).toBeCloseTo(1, 4);
      expect(distance(last(made!), tip.position)).toBe(0);
    }
  });
});
