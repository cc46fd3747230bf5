import { encode } from 'fast-png';
import { linearOf } from '../../fields/srgb';
import { newGrowth, newStep } from '../../scene/make';
import type { ParamValue, Scene, Step } from '../../scene/schema';
import { formHash } from '../../digests/digest';
import { putBytes, sceneOf, testEvaluator } from '../../testing';
import { circle, form, grows, line } from '../../../test/paths';

type Params = Record<string, ParamValue>;

/** A grey that rises from 0 at the left to 240 at the right, in 16 columns of one colour; 4 rows, the lowest transparent. */
const RAMP = encode({
  width: 16,
  height: 4,
  channels: 4,
  depth: 8,
  data: Uint8Array.from({ length: 4 * 64 }, (_, i) =>
    i % 4 === 3 ? (i >= 4 * 48 ? 0 : 255) : 16 * (Math.floor(i / 4) % 16),
  ),
});
/** Red above, blue below. */
const TWO = encode({
  ...{ width: 1, height: 2, channels: 4, depth: 8 },
  data: Uint8Array.of(255, 0, 0, 255, 0, 0, 255, 255),
});
const withPictures = (scene: Scene): void => {
  putBytes(scene, 'ramp', 'picture', RAMP);
  putBytes(scene, 'two', 'picture', TWO);
};
const read = (params: Params = {}): Step => newStep('picture-values', { file: 'ramp', fit: false, ...params });
/** A row of 17 points from x = −1 to 1, a metre up. */
const row = newStep('line', { fromX: -1, toX: 1, fromY: 1, toY: 1, points: 17 });
/** What the ramp holds at a share of its width. */
const ramp = (share: number): number => (16 / 255) * Math.min(15, Math.max(0, 16 * share - 0.5));

test('projected from the front: each point reads the picture where it stands', async () => {
  const { paths } = await form([row, read({ atX: 0, atY: 1, width: 2, height: 1 })], 1, withPictures);
  expect([...paths!.named.picture.values]).toEqual(
    Array.from({ length: 17 }, (_, i) => expect.closeTo(ramp(i / 16), 5)),
  );
  expect(paths!.named.picture.domain).toBe('point');
});

test('fitted it spans all that there is at the last frame: what is there keeps its values while it grows', async () => {
  const steps = [row, newStep('grow', { to: grows(0.25, 1) }), read({ fit: true, channel: 'brightness' })];
  const [early, late] = [await form(steps, 1, withPictures), await form(steps, 101, withPictures)];
  const value = (of: typeof late, x: number): number => {
    const { positions, named } = of.paths!;
    const k = Array.from(named.picture.values).findIndex((_, i) => Math.abs(positions[3 * i] - x) < 1e-6);
    return named.picture.values[k];
  };
  expect(value(late, 0.5)).toBeCloseTo(ramp(0.75), 5);
  expect(value(early, -0.75)).toBeCloseTo(ramp(0.125), 5);
  expect(value(late, -0.75)).toBeCloseTo(ramp(0.125), 5);
});

test.each([
  // To the right and up, as one sees it who looks along the axis.
  ['x', [0, 1, -0.5], 0.75],
  ['y', [0.5, 1, 0], 0.75],
  ['z', [0.5, 1, 0], 0.75],
  ['y', [-0.5, 1, -0.4], 0.25],
] as const)('along %s', async (axis, [x, y, z], share) => {
  const point = newStep('line', { fromX: x, fromY: y, fromZ: z, toX: x, toY: y, toZ: z + 1e-3, points: 2 });
  const { paths } = await form([point, read({ axis, atX: 0, atY: 1, width: 2, height: 2 })], 1, withPictures);
  expect(paths!.named.picture.values[0]).toBeCloseTo(ramp(share), 2);
});

test('turned by a right angle anticlockwise, what was at its right is above', async () => {
  const { paths } = await form(
    [
      newStep('line', { fromY: 0, toY: 2, points: 9 }),
      read({ atX: 0, atY: 1, width: 2, height: 2, turn: 90, beyond: 'edge' }),
    ],
    1,
    withPictures,
  );
  expect([...paths!.named.picture.values]).toEqual(Array.from({ length: 9 }, (_, i) => expect.closeTo(ramp(i / 8), 5)));
});

test('turned, what stood above the middle stands to its left', async () => {
  const level = newStep('line', { fromX: -1, toX: 1, fromY: 1, toY: 1, points: 5 });
  const { paths } = await form(
    [level, read({ file: 'two', channel: 'red', atX: 0, atY: 1, width: 2, height: 2, turn: 90 })],
    1,
    withPictures,
  );
  // Red is above: turned anticlockwise by a right angle, it is on the left.
  expect([...paths!.named.picture.values]).toEqual([1, 1, 0.5, 0, 0].map((x) => expect.closeTo(x, 5)));
});

test('fitted to what changes its shape, the picture lies as it does at the last frame', async () => {
  const stretching = newStep('line', { fromX: 0, toX: grows(1, 2), fromY: 1, toY: 1, points: 3 });
  const early = await form([stretching, read({ fit: true })], 1, (scene) => {
    withPictures(scene);
    scene.range = [1, 101];
  });
  // At first it reaches to the middle of the picture.
  expect([...early.paths!.named.picture.values]).toEqual([0, 0.25, 0.5].map((x) => expect.closeTo(ramp(x), 5)));
});

test('outside: nothing, the edge, or the picture again; low and high are the ends of what is read', async () => {
  const at3 = newStep('line', { fromX: 3.25, toX: 3.5, fromY: 1, toY: 1, points: 2 });
  const value = async (params: Params): Promise<number> =>
    (await form([at3, read({ atX: 0, atY: 1, width: 2, height: 2, ...params })], 1, withPictures)).paths!.named.depth
      .values[0];
  expect(await value({ beyond: 'nothing', name: 'depth', low: 5, high: 7 })).toBe(5);
  expect(await value({ beyond: 'edge', name: 'depth', low: 5, high: 7 })).toBeCloseTo(5 + 2 * (240 / 255), 5);
  expect(await value({ beyond: 'repeat', name: 'depth', low: -1, high: 0 })).toBeCloseTo(ramp(0.125) - 1, 5);
});

test('opacity and single colours are read as they are', async () => {
  const upright = newStep('line', { fromY: 0, toY: 2, points: 3 });
  const values = async (params: Params): Promise<number[]> => {
    const made = await form([upright, read({ atX: 0, atY: 1, width: 2, height: 2, ...params })], 1, withPictures);
    return [...made.paths!.named.picture.values];
  };
  expect(await values({ channel: 'opacity' })).toEqual([0, 1, 1]);
  expect(await values({ file: 'two', channel: 'red' })).toEqual([0, 0.5, 1]);
  expect(await values({ file: 'two', channel: 'blue' })).toEqual([1, 0.5, 0]);
});

test('path by path: the first at the left, the last at the right, each from the bottom up', async () => {
  const many = [line(1, 5), newStep('strands', { as: 'row', count: 4, apart: 1, vary: 0, turn: 0 })];
  const { paths } = await form([...many, read({ mapping: 'paths' })], 1, withPictures);
  for (let path = 0; path < 4; path++) {
    const own = paths!.named.picture.values.slice(paths!.offsets[path], paths!.offsets[path + 1]);
    // The lowest row is transparent: nothing bleeds from it.
    expect(own[4]).toBeCloseTo(ramp((path + 0.5) / 4), 5);
  }
});

test('along the skin: around it from left to right, from its beginning to its end from the bottom up', async () => {
  const tube = [line(1, 9), newStep('tube', { sides: 8, radius: 0.1, start: 'open', end: 'open' })];
  const { mesh } = await form([...tube, read({ file: 'two', mapping: 'skin', channel: 'red' })], 1, withPictures);
  for (let i = 0; i < mesh!.positions.length / 3; i++)
    expect(mesh!.named.picture.values[i]).toBeCloseTo(Math.min(1, Math.max(0, 2 * mesh!.u![i] - 0.5)), 5);
});

test('colours: skins take them, copies are tinted, both linear; what is transparent leaves them as they were', async () => {
  const sheet = newStep('plate', { thick: 0.02, bevel: 0 });
  const skin = await form([circle(24), sheet, read({ file: 'two', fit: true, tint: true })], 1, withPictures);
  const { positions, colors } = skin.mesh!;
  const heights = positions.filter((_, i) => i % 3 === 1);
  const [low, high] = [Math.min(...heights), Math.max(...heights)];
  for (let i = 0; i < heights.length; i++) {
    const share = Math.min(1, Math.max(0, (2 * (heights[i] - low)) / (high - low) - 0.5));
    expect(colors![3 * i]).toBeCloseTo(linearOf(share), 3);
    expect(colors![3 * i + 2]).toBeCloseTo(linearOf(1 - share), 3);
  }
  const copies = await form(
    [
      line(2, 9),
      newStep('along', { growth: 'dot', by: 'count', count: 3 }),
      read({ atX: 5, atY: 1, width: 2, height: 2, tint: true, beyond: 'edge' }),
    ],
    1,
    (scene) => {
      withPictures(scene);
      scene.growths.push({ ...newGrowth('Dot', 1, [newStep('solid', { radius: 0.1, sides: 6 })]), id: 'dot' });
    },
  );
  // All at the left edge, black; the lowest row of four is transparent, down from the middle of the next.
  const { positions: places, tints } = copies.copies!;
  const opaque = Array.from(
    places.filter((_, i) => i % 3 === 1),
    (y) => Math.min(1, Math.max(0, 2 * y - 0.5)),
  );
  expect(opaque[0]).toBeLessThan(0.5);
  opaque.forEach((share, k) => expect(tints![3 * k]).toBeCloseTo(1 - share, 5));
});

test('what lacks what the mapping goes by is told; so is a step without a picture', async () => {
  const told = async (params: Params, steps: Step[] = [line(1)]): Promise<string[]> => {
    const scene = sceneOf([...steps, read(params)]);
    withPictures(scene);
    return (await testEvaluator().evaluate(scene, 1)).growths[0].notices.map(({ what }) => what);
  };
  expect(await told({ mapping: 'skin' })).toEqual(['There is no skin here.']);
  expect(await told({ mapping: 'paths' }, [newStep('solid')])).toEqual(['There are no paths here.']);
  expect(await told({ file: null })).toEqual(['No picture is chosen.']);
});

test('later steps go by it: Displace raises a sheet as high as the picture is bright, the same at any frame', async () => {
  const sheet = newStep('terrain', { relief: 0, width: 2, depth: 2, pieces: 40 });
  const raised = newStep('displace', {
    noise: 0,
    amount: {
      base: 0,
      vary: {
        ...{ by: 'attribute', amount: 0.5, waves: 3, attribute: 'picture', span: [0, 1] },
        shape: [
          { at: 0, value: 0 },
          { at: 1, value: 1 },
        ],
      },
    },
  });
  const steps = [sheet, read({ axis: 'y', fit: true }), raised];
  const made = await form(steps, 1, withPictures);
  expect(formHash(await form(steps, 7, withPictures))).toBe(formHash(made));
  const { positions } = made.mesh!;
  for (let i = 0; i < positions.length; i += 3)
    if (positions[i + 2] < 0.4) expect(positions[i + 1]).toBeCloseTo(0.5 * ramp(positions[i] / 2 + 0.5), 5);
});
