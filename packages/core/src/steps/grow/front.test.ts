import { areaAndVolume, type Mesh, vertexCount } from '../../geometry/mesh';
import { flaws } from '../../geometry/invariants';
import { pathCount } from '../../geometry/paths';
import { at, distance, norm } from '../../geometry/vec';
import { newGuide } from '../../scene/owners';
import { newGrowth, newStep } from '../../scene/make';
import type { Scene, Step } from '../../scene/schema';
import { sceneOf, testEvaluator } from '../../testing';
import { arcLengths } from '../../curves/arclength';
import { form, grows } from '../../../test/paths';
import { item } from '../../../test/placing';
import { clicked, mesh, sheet, front, away } from '../../../test/fronts';

describe('a front over a surface', () => {
  test('has passed what lies within its reach, and knows how far it is', async () => {
    const made = await mesh([sheet(), front({ ...clicked, reach: 0.6 })]);
    for (let i = 0; i < vertexCount(made); i++) {
      if (Math.abs(away(made, i) - 0.6) > 1e-4) expect(made.named.front.values[i]).toBe(away(made, i) < 0.6 ? 1 : 0);
      expect(made.named.distance.values[i]).toBeCloseTo(away(made, i), 5);
      expect(made.tip![i]).toBeCloseTo(0.6 - away(made, i), 5);
    }
  });

  test('comes up over its soft edge, and never goes back while its reach grows, however rough', async () => {
    const steps = (soft: number, rough: number): Step[] => [
      sheet(),
      front({ ...clicked, reach: grows(0, 2), soft, rough }),
    ];
    const half = await mesh(steps(0.4, 0), 51);
    for (let i = 0; i < vertexCount(half); i++) {
      const t = Math.min(1, Math.max(0, (1 - away(half, i)) / 0.4));
      expect(half.named.front.values[i]).toBeCloseTo(t * t * (3 - 2 * t), 4);
    }
    let before: Float32Array = new Float32Array(vertexCount(half));
    for (const frame of [1, 20, 40, 60, 80, 101]) {
      const { values } = (await mesh(steps(0.2, 0.3), frame)).named.front;
      values.forEach((value, i) => expect(value).toBeGreaterThanOrEqual(before[i]));
      before = values;
    }
    // Rough edges are about the same front all the same.
    expect(before.every((value) => value > 0)).toBe(true);
  });

  test('tells since when it has been anywhere, and how long it will still take', async () => {
    const scene = sceneOf([sheet(), front({ ...clicked, reach: grows(0, 1) }), newStep('finish', { by: 'age' })]);
    const { growths } = await testEvaluator().evaluate(scene, 51);
    const made = growths[0].form!.mesh!;
    // A metre in 100 frames: at frame 51 it has come half a metre.
    for (let i = 0; i < vertexCount(made); i++) {
      const exact = (50 - 100 * away(made, i)) / scene.fps;
      // What it never gets to is further ahead than all that it does.
      if (away(made, i) > 1.001) expect(made.age![i]).toBeLessThan(-50 / scene.fps);
      else if (away(made, i) < 1) expect(made.age![i]).toBeCloseTo(exact, 3);
    }
  });

  test('sets out from the bottom, a guide, the places of chance, and where another growth comes nearest', async () => {
    const low = await mesh([sheet(), front({ from: 'bottom', reach: 0.7 })]);
    for (let i = 0; i < vertexCount(low); i++) expect(low.tip![i]).toBeCloseTo(0.7 - low.positions[3 * i + 1], 5);
    const high = await mesh([sheet(), front({ from: 'top', way: 'straight', reach: 0.7 })]);
    for (let i = 0; i < vertexCount(high); i++) expect(high.tip![i]).toBeCloseTo(high.positions[3 * i + 1] - 1.3, 5);

    const scene: Scene = sceneOf([sheet(), front({ from: 'growth', growth: 'other', reach: 1 })]);
    const ball = newStep('solid', { which: 'ball', radius: 0.1, sides: 12, atX: 0.4, atY: 1.4, atZ: 0.5 });
    scene.growths.push({ ...newGrowth('Other', 1, [ball]), id: 'other' });
    const near = (await testEvaluator().evaluate(scene, 1)).growths[0].form!.mesh!;
    for (let i = 0; i < vertexCount(near); i++)
      expect(Math.abs(1 - near.tip![i] - distance(at(near.positions, i), [0.4, 1.4, 0]))).toBeLessThan(0.02);

    const scattered = await mesh([sheet(), front({ from: 'random', count: 4, reach: 0.1 })]);
    const starts = Array.from({ length: vertexCount(scattered) }, (_, i) => i).filter((i) => scattered.tip![i] > 0.06);
    // Four places, far from each other.
    const apart = starts.filter((i, k) =>
      starts.slice(0, k).every((j) => distance(at(scattered.positions, i), at(scattered.positions, j)) > 0.3),
    );
    expect(apart).toHaveLength(4);
  });

  test('a guide that has an inside sends it out from all of that', async () => {
    const scene = sceneOf([sheet(), front({ from: 'guide', guide: 'guide:ball', reach: 1 })]);
    scene.guides.push(newGuide('ball', 'Ball', 'ball', { positionX: 0, positionY: 1, positionZ: 0, radius: 0.4 }));
    const made = (await testEvaluator().evaluate(scene, 1)).growths[0];
    expect(made.notices).toEqual([]);
    const of = made.form!.mesh!;
    for (let i = 0; i < vertexCount(of); i++)
      expect(Math.abs(1 - of.tip![i] - Math.max(0, away(of, i) - 0.4))).toBeLessThan(0.03);
  });

  test('is held back by an attribute, and stops where that is 1', async () => {
    // Slope is 0 everywhere on a sheet that lies; height goes from 0 to 1 up a standing one.
    const measured = newStep('measure', { what: 'height' });
    const slowed = await mesh([sheet(), measured, front({ ...clicked, reach: 5, slowBy: 'height' })]);
    for (let i = 0; i < vertexCount(slowed); i++) {
      const [, y] = at(slowed.positions, i);
      if (y > 1.999) expect(slowed.named.front.values[i]).toBe(0);
      // Below it is quicker than half its pace, above slower.
      if (Math.abs(slowed.positions[3 * i]) < 1e-4 && y < 0.9)
        expect(slowed.named.distance.values[i]).toBeLessThan(2 * (1 - y) + 1e-3);
      if (Math.abs(slowed.positions[3 * i]) < 1e-4 && y > 1.1 && y < 1.99)
        expect(slowed.named.distance.values[i]).toBeGreaterThan(2 * (y - 1) - 1e-3);
    }
    const [growth] = (await testEvaluator().evaluate(sceneOf([sheet(), front({ ...clicked, slowBy: 'nothing' })]), 1))
      .growths;
    expect(JSON.stringify(growth.notices)).toContain('No step before it writes the attribute “nothing”');
  });

  test('a second one takes back what the first did', async () => {
    const steps = [
      sheet(),
      front({ from: 'bottom', reach: 1.5 }),
      front({ from: 'bottom', reach: 0.5, combine: 'undo' }),
    ];
    const made = await mesh([...steps, newStep('reveal')]);
    const { area } = areaAndVolume(made);
    expect(area).toBeCloseTo(2 * (1.5 - 0.5), 4);
  });

  test('stays where it is on a form that moves', async () => {
    const moves = newStep('bend', { angle: grows(0, 120) });
    const steps = [sheet(), moves, front({ ...clicked, reach: 0.6 })];
    const [early, late] = [await mesh(steps, 20), await mesh(steps, 90)];
    expect(early.named.distance.values).toEqual(late.named.distance.values);
    expect(early.positions).not.toEqual(late.positions);
  });
});

describe('a front along paths', () => {
  test('goes over where they meet, by their length, and straight through space', async () => {
    // A path round three sides of a square, and one that closes it in two pieces.
    const line = (fromX: number, fromY: number, toX: number, toY: number): Step =>
      newStep('line', { fromX, fromY, toX, toY, points: 11 });
    const square = [line(0, 0, 1, 0), line(1, 0, 1, 1), line(1, 1, 0, 1), line(0, 1, 0, 0)];
    const start = { from: 'clicked', places: [[0.25, -0.1, 0]] as never, reach: 1 };
    const round = (await form([...square, front(start)])).paths!;
    const apart = (await form([...square, front({ ...start, way: 'straight' })])).paths!;
    for (let i = 0; i < round.s.length; i++) {
      const [x, y] = at(round.positions, i);
      // Along the sides from a quarter of the first one, whichever way is shorter.
      const along = y < 1e-6 ? x : x > 1 - 1e-6 ? 1 + y : y > 1 - 1e-6 ? 3 - x : 4 - y;
      const turned = (along - 0.25 + 4) % 4;
      expect(round.named.distance.values[i]).toBeCloseTo(Math.min(turned, 4 - turned), 5);
      expect(round.named.tip.values[i]).toBeCloseTo(1 - round.named.distance.values[i], 5);
      expect(apart.named.distance.values[i]).toBeCloseTo(norm(x - 0.25, y + 0.1, 0), 5);
    }
    const shown = (await form([...square, front(start), newStep('reveal')])).paths!;
    let length = 0;
    for (let p = 0; p < pathCount(shown); p++)
      length += arcLengths(shown.positions, shown.offsets[p], shown.offsets[p + 1], false).at(-1) ?? 0;
    expect(length).toBeCloseTo(2, 4);
  });
});

describe('what goes by a front', () => {
  test('Reveal cuts along it, exactly, and before and behind make the whole', async () => {
    const steps = (invert: boolean): Step[] => [
      newStep('solid', { which: 'sheet', width: 2, height: 2, pieces: 60 }),
      front({ ...clicked, reach: 0.7 }),
      newStep('reveal', { invert }),
    ];
    const [shown, hidden] = [await mesh(steps(false)), await mesh(steps(true))];
    const [a, b] = [areaAndVolume(shown).area, areaAndVolume(hidden).area];
    expect(a + b).toBeCloseTo(4, 4);
    expect(Math.abs(a / (Math.PI * 0.49) - 1)).toBeLessThan(2e-3);
    const band = await mesh([...steps(false).slice(0, 2), newStep('reveal', { behind: 0.1, band: 0.2 })]);
    expect(Math.abs(areaAndVolume(band).area / (Math.PI * (0.36 - 0.16)) - 1)).toBeLessThan(2e-3);
  });

  test('dissolving comes from nothing to all over its width, and has a hot edge', async () => {
    const dissolved = (reach: number): Promise<Mesh> =>
      mesh([sheet(), front({ from: 'bottom', reach }), newStep('reveal', { dissolve: 0.8, grain: 0.15, glow: 2 })]);
    const [none, some, all] = [await dissolved(0), await dissolved(1.2), await dissolved(4)];
    expect(areaAndVolume(none).area).toBeLessThan(2e-3);
    expect(areaAndVolume(all).area).toBeCloseTo(4, 3);
    // Half of a run of 0.8 m and all behind it, about.
    expect(Math.abs(areaAndVolume(some).area / (2 * (0.4 + 0.4)) - 1)).toBeLessThan(0.15);
    expect(Math.max(...some.glow!)).toBeGreaterThan(1.5);
    expect(all.glow!.every((glow) => glow === 0)).toBe(true);
    expect(Object.keys(some.named).sort()).toEqual(['distance', 'front']);
  });

  test('paths grow from where it meets them, from both ends and from within, and are eaten from behind', async () => {
    const scene: Scene = sceneOf([
      newStep('edges', { growth: 'other', angle: 0, chain: false }),
      newStep('reveal', { behind: 0.05 }),
    ]);
    scene.growths.push({ ...newGrowth('Other', 1, [sheet(), front({ ...clicked, reach: 0.5 })]), id: 'other' });
    const { growths } = await testEvaluator().evaluate(scene, 1);
    expect(growths[0].notices).toEqual([]);
    const { paths } = growths[0].form!;
    expect(flaws(growths[0].form!)).toEqual([]);
    let there = 0;
    for (let p = 0; p < pathCount(paths!); p++) {
      for (let i = paths!.offsets[p]; i < paths!.offsets[p + 1]; i++)
        expect(norm(paths!.positions[3 * i], paths!.positions[3 * i + 1] - 1, 0)).toBeLessThan(0.452);
      if (paths!.offsets[p + 1] > paths!.offsets[p]) there++;
    }
    expect(there).toBeGreaterThan(500);

    // A line through a band: two pieces of it are there, on both sides of what is gone.
    const line = newStep('line', { fromX: -1, fromY: 0, toX: 1, toY: 0, points: 41 });
    const ends = await form([
      line,
      newStep('measure', {
        what: 'direction',
        scale: 'measured',
        name: 'x',
        shape: [
          { at: 0, value: 0 },
          { at: 1, value: 1 },
        ] as never,
      }),
      newStep('reveal', { by: 'attribute', attribute: 'x', level: 0.25 }),
    ]);
    expect([ends.paths!.positions[0], ends.paths!.positions.at(-3)]).toEqual([
      expect.closeTo(0.25, 5),
      expect.closeTo(1, 5),
    ]);
    const arch = newStep('arc', { radius: 1, sweep: 180, points: 181 } as never);
    const both = await form([
      arch,
      newStep('reveal', { by: 'attribute', attribute: 'height', level: 0.5, invert: true }),
    ]);
    const lengths = Array.from({ length: pathCount(both.paths!) }, (_, p) =>
      arcLengths(both.paths!.positions, both.paths!.offsets[p], both.paths!.offsets[p + 1], false).at(-1),
    );
    expect(new Set(both.paths!.ids).size).toBe(pathCount(both.paths!));
    expect(lengths.length).toBeGreaterThan(0);
  });

  test('Displace swells what it has passed by just that, and hard edges do not tear', async () => {
    const swollen = {
      base: 0,
      vary: {
        by: 'attribute',
        attribute: 'front',
        span: [0, 1],
        amount: 0.2,
        waves: 1,
        shape: [
          { at: 0, value: 0, shape: 'straight' },
          { at: 1, value: 1 },
        ],
      },
    };
    const made = await mesh([
      newStep('solid', { which: 'ball', radius: 1, sides: 48 }),
      front({ from: 'bottom', reach: 1 }),
      newStep('displace', { amount: swollen as never, noise: 0 }),
    ]);
    for (let i = 0; i < vertexCount(made); i++)
      expect(norm(...at(made.positions, i))).toBeCloseTo(made.named.front.values[i] === 1 ? 1.2 : 1, 3);
    const box = await mesh([
      newStep('solid', { which: 'box', width: 1, height: 1, depth: 1 }),
      newStep('displace', { amount: 0.1, noise: 0 }),
    ]);
    // Corners go along their mean normals, all three of each together.
    expect(
      new Set(
        Array.from({ length: 24 }, (_, i) =>
          at(box.positions, i)
            .map((x) => x.toFixed(4))
            .join(),
        ),
      ).size,
    ).toBe(8);
  });

  test('Scatter takes it along: copies come up as it passes, by falloff and by time offset', async () => {
    const steps = [
      sheet(),
      front({ ...clicked, reach: grows(0, 1) }),
      newStep('scatter', { by: 'spacing', spacing: 0.15 }),
      newStep('on-points', { growth: 'item' }),
      newStep('falloff', { shape: 'front', over: 0.5, ease: 'linear', invert: true, drives: 'size', factor: 0 }),
    ];
    const scene: Scene = sceneOf(steps);
    scene.growths.push(item([newStep('solid', { which: 'box' })]));
    const { growths } = await testEvaluator().evaluate(scene, 51);
    const { copies } = growths[0].form!;
    expect(copies!.ids.length).toBeGreaterThan(80);
    for (let k = 0; k < copies!.ids.length; k++) {
      const d = distance(at(copies!.positions, k), [0, 1, 0]);
      const since = (50 - 100 * d) / scene.fps;
      expect(Math.abs(copies!.sizes[3 * k] - Math.min(1, Math.max(0, since / 0.5)))).toBeLessThan(0.03);
    }
    const byAttribute = sceneOf([
      ...steps.slice(0, 4),
      newStep('falloff', {
        shape: 'attribute',
        attribute: 'distance',
        nothingAt: 0,
        allAt: 1,
        ease: 'linear',
        factor: 0,
      }),
    ]);
    byAttribute.growths.push(item([newStep('solid', { which: 'box' })]));
    const sized = (await testEvaluator().evaluate(byAttribute, 1)).growths[0].form!.copies!;
    for (let k = 0; k < sized.ids.length; k++)
      expect(Math.abs(sized.sizes[3 * k] - Math.max(0, 1 - distance(at(sized.positions, k), [0, 1, 0])))).toBeLessThan(
        0.02,
      );
  });
});
