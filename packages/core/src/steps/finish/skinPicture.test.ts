import { encode } from 'fast-png';
import type { Mesh } from '../../geometry/mesh';
import { newStep } from '../../scene/make';
import type { ParamValue, Scene, Step } from '../../scene/schema';
import { putBytes, sceneOf, testEvaluator } from '../../testing';
import { circle, form, grows, line } from '../../../test/paths';

/** Twice as wide as high. */
const WIDE = encode({ width: 8, height: 4, channels: 4, depth: 8, data: new Uint8Array(8 * 4 * 4).fill(200) });
const withPicture = (scene: Scene): void => putBytes(scene, 'wide', 'picture', WIDE);
type Params = Record<string, ParamValue>;
const put = (params: Params = {}): Step => newStep('skin-picture', { file: 'wide', ...params });
const tube = (params: Params = {}): Step =>
  newStep('tube', { sides: 8, radius: 0.1, start: 'open', end: 'open', ...params });
const skinned = async (steps: Step[], frame = 1) => form(steps, frame, withPicture);
const uv = ({ uvs }: Mesh, i: number): [number, number] => [uvs[2 * i], uvs[2 * i + 1]];

test('once over the skin: around from 0 to 1, along by the rest coordinate, so that it stays while the path grows', async () => {
  const steps = [line(2, 21), newStep('grow', { to: grows(0.5, 1) }), tube(), put()];
  const [early, late] = [await skinned(steps, 1), await skinned(steps, 101)];
  for (const { mesh } of [early, late])
    for (let i = 0; i < mesh!.positions.length / 3; i++) {
      const [x, y] = uv(mesh!, i);
      expect(y).toBeCloseTo(mesh!.positions[3 * i + 1] / 2, 5);
      expect(x).toBeGreaterThanOrEqual(0);
      expect(x).toBeLessThanOrEqual(1);
    }
  expect(late.surface!.picture).toEqual({ file: 'wide', cutoff: 0.5 });
});

test('repeated it keeps its proportions: on a tube as long as its girth, twice as high as wide is half as often', async () => {
  // Around eight sides, each the chord of 45°.
  const girth = 8 * 2 * 0.1 * Math.sin(Math.PI / 8);
  const steps = (params: Params): Step[] => [line(girth, 5), tube(), put({ mapping: 'repeat', ...params })];
  const spread = async (params: Params): Promise<number[][]> => {
    const { mesh } = await skinned(steps(params));
    const ways = [0, 1].map((way) => mesh!.uvs.filter((_, i) => i % 2 === way));
    return ways.map((values) => [Math.min(...values), Math.max(...values)]);
  };
  const [[x0, x1], [y0, y1]] = await spread({ around: 3 });
  expect([x0, x1]).toEqual([0, 3]);
  // Three times around, each as wide as a third of the girth and half as high: six along it.
  expect(y1 - y0).toBeCloseTo(6, 4);
  const [, [slid]] = await spread({ around: 3, slide: 0.25 });
  expect(slid).toBeCloseTo(y0 - 0.25, 5);
});

test('projected from the front it lies on the form as it would hang before it', async () => {
  const { mesh } = await skinned([
    circle(24),
    newStep('plate', { thick: 0.02, bevel: 0 }),
    put({ mapping: 'flat', axis: 'y', fit: false, atX: 0, atY: 0, atZ: 0, width: 4, height: 2 }),
  ]);
  for (let i = 0; i < mesh!.positions.length / 3; i++) {
    const [x, , z] = mesh!.positions.subarray(3 * i, 3 * i + 3);
    expect(uv(mesh!, i)).toEqual([expect.closeTo(x / 4 + 0.5, 5), expect.closeTo(-z / 2 + 0.5, 5)]);
  }
});

describe('a sheet', () => {
  const rows = [line(1, 5), newStep('strands', { as: 'row', count: 12, apart: 1, vary: 0, turn: 0 }), tube()];
  /** The picture of the sheet, from 1, that each path shows, of three columns and two rows. */
  const cells = async (params: Params, steps = rows): Promise<number[]> => {
    const { mesh } = await skinned([...steps, put({ columns: 3, rows: 2, ...params })]);
    const { parts, uvs, positions } = mesh!;
    return Array.from({ length: parts!.length / 2 }, (_, part) => {
      const end = parts![2 * part + 2] ?? positions.length / 3;
      const [low, high] = [
        [Infinity, Infinity],
        [-Infinity, -Infinity],
      ];
      for (let i = 2 * parts![2 * part]; i < 2 * end; i++) {
        low[i & 1] = Math.min(low[i & 1], uvs[i]);
        high[i & 1] = Math.max(high[i & 1], uvs[i]);
      }
      // All of one cell, and nothing of another.
      expect([high[0] - low[0], high[1] - low[1]]).toEqual([expect.closeTo(1 / 3, 5), expect.closeTo(1 / 2, 5)]);
      return 1 + Math.round(3 * low[0]) + 3 * Math.round(2 * (1 - high[1]));
    });
  };

  test('one of its pictures, counted row by row from the upper left; past the last it begins again', async () => {
    expect(new Set(await cells({ cell: 1 }))).toEqual(new Set([1]));
    expect(new Set(await cells({ cell: 5 }))).toEqual(new Set([5]));
    expect(new Set(await cells({ cell: 8 }))).toEqual(new Set([2]));
  });

  test('it stands in its cell as it does alone: its foot at the foot of the path', async () => {
    const { mesh } = await skinned([line(1, 5), tube(), put({ columns: 3, rows: 2, cell: 4 })]);
    for (let i = 0; i < mesh!.positions.length / 3; i++)
      expect(uv(mesh!, i)[1]).toBeCloseTo(mesh!.positions[3 * i + 1] / 2, 5);
  });

  test('each path the next, or one at random that it keeps when others go', async () => {
    expect(await cells({ pick: 'turn', cell: 6 })).toEqual([6, 1, 2, 3, 4, 5, 6, 1, 2, 3, 4, 5]);
    const random = await cells({ pick: 'random' });
    expect(new Set(random).size).toBeGreaterThan(2);
    const fewer = [rows[0], { ...rows[1], params: { ...rows[1].params, count: 7 } }, rows[2]];
    expect(await cells({ pick: 'random' }, fewer)).toEqual(random.slice(0, 7));
  });
});

test('the picture alone colours the skin, or it is multiplied by the colours that are there; Finish keeps it', async () => {
  const finish = newStep('finish', { gradient: [{ at: 0, color: '#ff0000' }], glow: 0, roughness: 0.3 });
  const plain = await skinned([line(1, 5), tube(), finish, put()]);
  expect(new Set(plain.mesh!.colors)).toEqual(new Set([1]));
  expect(plain.surface!.roughness).toBe(0.3);
  const tinted = await skinned([line(1, 5), tube(), finish, put({ tinted: true })]);
  expect([...tinted.mesh!.colors!.slice(0, 3)]).toEqual([1, 0, 0]);
  const before = await skinned([line(1, 5), tube(), put({ cutoff: 0.2 }), finish]);
  expect(before.surface).toMatchObject({ roughness: 0.3, picture: { file: 'wide', cutoff: 0.2 } });
});

test('without a picture, or with one that cannot be read, it says so', async () => {
  const told = async (params: Params): Promise<string[]> => {
    const scene = sceneOf([line(1), tube(), put(params)]);
    putBytes(scene, 'broken', 'picture', WIDE.slice(0, 40));
    return (await testEvaluator().evaluate(scene, 1)).growths[0].notices.map(({ what }) => what);
  };
  expect(await told({ file: null })).toEqual(['No picture is chosen.']);
  expect((await told({ file: 'broken' }))[0]).toMatch(/^The picture could not be read/);
});
