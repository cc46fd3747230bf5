import fc from 'fast-check';
import type { Copies } from '../geometry/form';
import { boxesMeet, clearanceOf, meshesCut, meshGap, orientedBox, type Pose } from '../geometry/search/meshPairs';
import { nearestOn, triangleGap, type Triangle, trianglesCut } from '../geometry/search/triangles';
import { about, after } from '../geometry/turns';
import { distance, type Vec3 } from '../geometry/vec';
import { newGrowth, newStep } from '../scene/make';
import type { ParamValue, Step } from '../scene/schema';
import { ball, box, torus } from '../surfaces/make/solids';
import { CHAINS, sizesOf } from '../surfaces/make/chainStandards';
import { sceneOf, testEvaluator } from '../testing';
import { clashesOf, fitOf } from './fit';

const standing = (
  mesh: Pose['position'] extends never ? never : ReturnType<typeof box>,
  position: Vec3,
  more: Partial<Pose> = {},
) => ({
  mesh,
  position,
  turn: [0, 0, 0, 1] as const,
  size: [1, 1, 1] as Vec3,
  ...more,
});
const cube = box(1, 1, 1);
const round = ball(0.5, 48);

describe('triangles', () => {
  const flat: Triangle = [
    [0, 0, 0],
    [1, 0, 0],
    [0, 1, 0],
  ];

  test('the nearest point is inside, on an edge or at a corner', () => {
    expect(nearestOn([0.2, 0.2, 3], flat)).toEqual([0.2, 0.2, 0].map((x) => expect.closeTo(x, 12)));
    expect(nearestOn([0.5, -2, 0], flat)).toEqual([0.5, 0, 0]);
    expect(nearestOn([1, 1, 0], flat)).toEqual([0.5, 0.5, 0].map((x) => expect.closeTo(x, 12)));
    expect(nearestOn([-1, -1, 5], flat)).toEqual([0, 0, 0]);
  });

  test('crossing, parallel and apart', () => {
    const through: Triangle = [
      [0.2, 0.2, -1],
      [0.2, 0.2, 1],
      [0.3, 0.3, 1],
    ];
    expect(trianglesCut(flat, through)).toBe(true);
    const above = flat.map(([x, y]) => [x, y, 0.25]) as unknown as Triangle;
    expect(trianglesCut(flat, above)).toBe(false);
    expect(triangleGap(flat, above)).toBeCloseTo(0.0625, 12);
    // Two crossing edges a quarter apart.
    const cross: Triangle = [
      [0.5, -1, 0.25],
      [0.5, 1, 0.25],
      [0.5, 0, 2],
    ];
    expect(triangleGap(flat, cross)).toBeCloseTo(0.0625, 12);
  });
});

describe('meshes beside each other', () => {
  test('two cubes and two balls are as far apart as their sizes say', () => {
    expect(meshGap(standing(cube, [0, 0, 0]), standing(cube, [1.5, 0, 0]))).toBeCloseTo(0.5, 6);
    expect(meshGap(standing(cube, [0, 0, 0]), standing(cube, [2, 2, 0]))).toBeCloseTo(Math.SQRT2, 6);
    fc.assert(
      fc.property(
        fc.double({ min: 1.05, max: 4, noNaN: true }),
        fc.double({ min: 0, max: 6, noNaN: true }),
        (far, angle) => {
          const gap = meshGap(
            standing(round, [0, 0, 0]),
            standing(round, [far * Math.cos(angle), 0, far * Math.sin(angle)]),
          );
          // A ball of 48 sides lies inside the round one by less than a hundredth.
          expect(Math.abs(gap - (far - 1))).toBeLessThan(0.006);
        },
      ),
      { numRuns: 40 },
    );
  });

  test('sizes and turns count', () => {
    const quarter = about([0, 0, 1], Math.PI / 4);
    expect(
      meshGap(standing(cube, [0, 0, 0], { size: [2, 2, 2] }), standing(cube, [3, 0, 0], { turn: quarter })),
    ).toBeCloseTo(3 - 1 - Math.SQRT1_2, 5);
  });

  test('a ring round a rod, and linked rings, cut only where they touch', () => {
    const ring = torus(1, 0.2, 40);
    const turn = about([1, 0, 0], Math.PI / 2);
    expect(meshesCut(standing(ring, [0, 0, 0]), standing(ring, [1, 0, 0], { turn }))).toBe(false);
    // Linked rings of wire 0.2, the second with its wire through the middle of the first: 1 − 0.4 lies between.
    expect(meshGap(standing(ring, [0, 0, 0]), standing(ring, [1, 0, 0], { turn }))).toBeCloseTo(0.6, 1);
    expect(meshesCut(standing(ring, [0, 0, 0]), standing(ring, [0.3, 0, 0], { turn }))).toBe(true);
  });

  test('what overlaps is told by how far it must move', () => {
    expect(clearanceOf(standing(cube, [0, 0, 0]), standing(cube, [0.75, 0.01, 0.02]), [1, 0, 0])).toBeCloseTo(-0.25, 3);
  });
});

test('oriented boxes meet just where they do', () => {
  const turn = fc.tuple(fc.double({ min: -3, max: 3, noNaN: true }), fc.double({ min: -3, max: 3, noNaN: true }));
  fc.assert(
    fc.property(
      turn,
      turn,
      fc.double({ min: 0, max: 2.4, noNaN: true }),
      fc.double({ min: -1, max: 1, noNaN: true }),
      (s, t, x, y) => {
        const [a, b] = [s, t].map(([p, q]) => after(about([0, 1, 0], p), about([1, 0, 0], q)));
        const [one, two] = [standing(cube, [0, 0, 0], { turn: a }), standing(cube, [x, y, 0.3], { turn: b })];
        const meet = boxesMeet(orientedBox(one), orientedBox(two));
        // Two cubes whose middles are outside each other's inscribed ball meet as boxes just when their surfaces cut.
        const cut = meshesCut(one, two);
        if (cut) expect(meet).toBe(true);
        else if (distance(one.position, two.position) > 0.9) expect(meet).toBe(false);
      },
    ),
    { numRuns: 150 },
  );
});

async function chain(
  path: Step,
  params: Record<string, ParamValue>,
  link: Record<string, ParamValue>,
): Promise<Copies> {
  const scene = sceneOf([path, newStep('along', { growth: 'item', settle: 0, turns: '0, 90', ...params })]);
  scene.growths.push({
    ...newGrowth('Link', 1, [newStep('solid', { which: 'link', sides: 32, ...link })]),
    id: 'item',
    visible: false,
  });
  const { growths } = await testEvaluator().evaluate(scene, 1);
  expect(growths[0].notices).toEqual([]);
  return growths[0].form!.copies!;
}

// Chains by DIN 766, DIN 763 and ISO 20438 (sizes from memory): neighbours hang in each other without cutting.
describe('chains of published sizes', () => {
  test.each(CHAINS.slice(1).map(({ value }) => value))(
    '%s: neighbours touch without cutting, straight and curved',
    async (standard) => {
      const wire = sizesOf(standard, 0.01)?.wire ?? 0.01;
      const pitch = sizesOf(standard, 0.01)!.innerLength!;
      const line = newStep('line', { fromX: 0, fromY: 0, toX: 4.5 * pitch, toY: 0, points: 20 });
      const arc = newStep('arc', { radius: 12 * pitch, sweep: 22, points: 200 });
      for (const path of [line, arc]) {
        const fit = await fitOf(await chain(path, {}, { standard, wire: 0.01 }));
        expect(fit.length).toBeGreaterThanOrEqual(3);
        for (const { gap } of fit) {
          // They touch; facets lie inside the wires.
          expect(gap).toBeGreaterThan(0);
          expect(gap).toBeLessThan(0.05 * wire);
        }
      }
    },
  );
});

describe('what the checks find', () => {
  const bar = { which: 'box', width: 0.1, height: 0.1, depth: 0.1 };
  const row = (gap: number, more: Record<string, ParamValue> = {}) =>
    chain(
      newStep('line', { fromX: 0, fromY: 0, toX: 1, toY: 0, points: 20 }),
      { gap, rest: 'leave', turns: '0', ...more },
      bar,
    );

  test('the gap that was set is the gap that is found', async () => {
    for (const gap of [0.03, 0.11]) {
      const fit = await fitOf(await row(gap));
      expect(fit.length).toBeGreaterThanOrEqual(3);
      for (const pair of fit) expect(pair.gap).toBeCloseTo(gap, 4);
    }
    for (const pair of await fitOf(await row(-0.02))) expect(pair.gap).toBeCloseTo(-0.02, 3);
  });

  test('a closed row has one more pair than an open one: the last beside the first', async () => {
    const ring = await chain(newStep('arc', { radius: 0.5, points: 200 }), { by: 'count', count: 20, turns: '0' }, bar);
    const fit = await fitOf(ring);
    expect(fit).toHaveLength(20);
    expect(fit.at(-1)).toMatchObject({ a: 19, b: 0 });
  });

  test('clashes are those neighbours that overlap, and clearance takes them away', async () => {
    const copies = await row(-0.02);
    const { pairs, complete } = await clashesOf(copies);
    expect(complete).toBe(true);
    expect(pairs.map(({ a, b }) => b - a)).toEqual(pairs.map(() => 1));
    expect(pairs).toHaveLength(copies.ids.length - 1);
    expect((await clashesOf(await row(0.01))).pairs).toEqual([]);
    expect((await clashesOf(copies, undefined, 3)).complete).toBe(false);
  });

  test.each(['shrink', 'thin'])('clearance by %s leaves room between all', async (by) => {
    const scene = sceneOf([
      newStep('phyllotaxis', { count: 80, spacing: 0.1 }),
      newStep('on-points', { growth: 'item', vary: 0.6 }),
      newStep('clearance', { by, room: 0.01 }),
    ]);
    scene.growths.push({
      ...newGrowth('Item', 1, [newStep('solid', { which: 'box', width: 0.16, height: 0.1, depth: 0.16 })]),
      id: 'item',
      visible: false,
    });
    const copies = (await testEvaluator().evaluate(scene, 1)).growths[0].form!.copies!;
    expect(copies.ids.length).toBeGreaterThan(10);
    expect((await clashesOf(copies)).pairs).toEqual([]);
    if (by === 'thin') expect(copies.ids.length).toBeLessThan(80);
  });
});
