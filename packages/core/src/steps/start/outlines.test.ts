import { putFile } from '../../testing';
import { arcLengths, totalLength } from '../../curves/arclength';
import { grownLength, visibleLength } from '../../curves/pathFrames';
import { redrawPart } from '../../curves/redraw';
import { pathCount } from '../../geometry/paths';
import { type Anchor, at } from '../../geometry/vec';
import { newGrowth, newStep } from '../../scene/make';
import type { ParamValue } from '../../scene/schema';
import { paths, withShipped } from '../../../test/paths';

withShipped();

describe('paths of outlines', () => {
  test('a text stands on the ground, as high as is said, its letters closed', async () => {
    const made = await paths([newStep('text', { text: 'HI', size: 2 })]);
    expect(Array.from(made.closed)).toEqual([1, 1]);
    const heights = made.positions.filter((_, i) => i % 3 === 1);
    expect(Math.min(...heights)).toBeCloseTo(0, 5);
    // The capitals' height is the font's own (OS/2 sCapHeight), in em.
    expect(Math.max(...heights) / 2).toBeGreaterThan(0.6);
    expect(Math.max(...heights) / 2).toBeLessThan(0.8);
  });

  test("an SVG file is scaled by its longer side, or by its unit; 'on the ground' lies flat", async () => {
    const made = (more: Record<string, ParamValue>) =>
      paths([newStep('vector', { drawing: 'd', ...more })], 1, (scene) =>
        putFile(scene, 'd', 'svg', '<svg><rect width="40" height="10"/></svg>'),
      );
    expect(visibleLength(await made({ by: 'size', size: 2 }), 0)).toBeCloseTo(5, 5);
    expect(visibleLength(await made({ by: 'unit', size: 0.001 }), 0)).toBeCloseTo(0.1, 6);
    const flat = await made({ lies: 'ground' });
    expect(flat.positions.filter((_, i) => i % 3 === 1).every((y) => y === 0)).toBe(true);
  });

  test('edges of a mesh: a square prism has twelve at right angles, none softer', async () => {
    const made = (angle: number, chain: boolean) =>
      paths([newStep('edges', { growth: 'box', angle, chain })], 1, (scene) =>
        scene.growths.push({
          ...newGrowth('Box', 1, [
            newStep('line', { fromY: 0, toY: 1, points: 2 }),
            newStep('sweep', {
              profile: 'polygon',
              corners: 4,
              radius: Math.SQRT1_2,
              swell: 0,
              along: [{ at: 0, value: 1 }],
              start: 'flat',
              end: 'flat',
            }),
          ]),
          id: 'box',
        }),
      );
    const edges = await made(80, false);
    expect(pathCount(edges)).toBe(12);
    expect(grownLength(edges)).toBeCloseTo(12, 4);
    expect(grownLength(await made(80, true))).toBeCloseTo(12, 4);
    await expect(made(95, false)).rejects.toThrow(/No edge/);
  });
});

describe('drawn paths', () => {
  const anchors: Anchor[] = [
    [0, 0, 0],
    [0, 1, 0, 2],
    [0, 2, 0, 2, 90],
    [0, 3, 0],
  ];

  test('anchors carry their size and lean, eased from one to the next', async () => {
    const made = await paths([newStep('drawn', { anchors, points: 301 })]);
    const near = (y: number) =>
      Array.from(made.positions.filter((_, i) => i % 3 === 1)).findIndex((v) => v >= y - 1e-4);
    expect(made.size[near(0)]).toBeCloseTo(1, 3);
    expect(made.size[near(1)]).toBeCloseTo(2, 2);
    expect(made.lean![near(2)]).toBeCloseTo(Math.PI / 2, 2);
    expect(made.lean![near(0.5)]).toBeCloseTo(0, 2);
    for (let i = 1; i < 301; i++) expect(Math.abs(made.size[i] - made.size[i - 1])).toBeLessThan(0.02);
  });

  test('on a skin it takes the shortest way from anchor to anchor, and carries their sizes', async () => {
    // A quarter of a great circle and another, over a ball of radius 1.
    const over: Anchor[] = [
      [1, 0, 0],
      [0, 1, 0, 3],
      [0, 0, 1],
    ];
    const rock = { ...newGrowth('Ball', 1, [newStep('solid', { which: 'ball', radius: 1, sides: 96 })]), id: 'rock' };
    const made = await paths([newStep('drawn', { anchors: over, skin: 'rock', points: 201 })], 1, (scene) =>
      scene.growths.push(rock),
    );
    for (let i = 0; i < 201; i++) expect(Math.hypot(...at(made.positions, i))).toBeCloseTo(1, 2);
    expect(grownLength(made)).toBeCloseTo(Math.PI, 2);
    expect(made.size[100]).toBeCloseTo(3, 2);
    expect(made.size[0]).toBeCloseTo(1, 2);
    expect(Math.abs(made.positions[3 * 50 + 2])).toBeLessThan(0.02);
    // Without a skin there is nothing to follow, and it says so.
    await expect(
      paths([newStep('drawn', { anchors: over, skin: 'rock' })], 1, (scene) =>
        scene.growths.push({ ...rock, steps: [newStep('line')] }),
      ),
    ).rejects.toThrow(/no skin/);
  });

  test('a stroke takes the place of the part that it lies along, whichever way it was drawn', () => {
    const stroke: Anchor[] = [
      [0.1, 1, 0],
      [0.5, 1.5, 0],
      [0.1, 2, 0],
    ];
    const there = redrawPart(anchors, stroke);
    expect(there).toHaveLength(5);
    expect(there[0]).toEqual([0, 0, 0]);
    expect(there[2]).toEqual([0.5, 1.5, 0, 2]);
    expect(there[4]).toEqual([0, 3, 0]);
    expect(redrawPart(anchors, [...stroke].reverse())).toEqual(there);
  });

  test('a shell spiral keeps its angle: the radius falls by one factor each turn, height with it', async () => {
    const made = await paths([
      newStep('helix', { below: 1, above: 1 / 16, widens: 'by-factor', turns: 4, height: 15, points: 4000 }),
    ]);
    const radiusAt = (height: number) => {
      const i = Array.from({ length: 4000 }, (_, k) => k).find((k) => made.positions[3 * k + 1] >= height)!;
      return Math.hypot(made.positions[3 * i], made.positions[3 * i + 2]);
    };
    // On the cone r = 1 − y / 16, whatever the turn.
    for (const height of [0, 4, 8, 12]) expect(radiusAt(height)).toBeCloseTo(1 - height / 16, 2);
    const table = arcLengths(made.positions, 0, 4000, false);
    // A logarithmic spiral on a cone of slope m: length = √(1 + m² + (1/b)²) (r₀ − r₁) with r = e^(−bθ) (from memory).
    const b = Math.log(16) / (8 * Math.PI);
    expect(totalLength(table) / (Math.sqrt(1 + 16 ** 2 + 1 / b ** 2) * (15 / 16))).toBeCloseTo(1, 3);
  });
});
