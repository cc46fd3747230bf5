import { visibleLength } from '../../curves/pathFrames';
import { pathCount } from '../../geometry/paths';
import { at } from '../../geometry/vec';
import { newStep } from '../../scene/make';
import type { ParamValue } from '../../scene/schema';
import { formOf, sceneOf } from '../../testing';

const linear = (first: number, last: number): ParamValue => ({
  keys: [
    { frame: first, value: 0, ease: 'linear' },
    { frame: last, value: 1, ease: 'linear' },
  ],
  before: 'hold',
  after: 'hold',
});

/** Shares grown of a row of upright paths, 2 m each (`second` m every other one). */
async function shares(params: Record<string, ParamValue>, frame: number, count = 5): Promise<number[]> {
  const scene = sceneOf([
    newStep('line', { points: 41 }),
    newStep('strands', { as: 'row', count, vary: 0, turn: 0 }),
    newStep('grow', params),
  ]);
  const { paths } = await formOf(scene, frame);
  return Array.from({ length: pathCount(paths!) }, (_, p) =>
    Number((visibleLength(paths!, p) / paths!.whole[p]).toFixed(4)),
  );
}

describe('staggered growth', () => {
  test('each path runs the same track, so many frames later', async () => {
    expect(await shares({ to: linear(1, 11), stagger: 2 }, 9)).toEqual([0.8, 0.6, 0.4, 0.2, 0]);
    expect(await shares({ to: linear(1, 11), stagger: 2, order: 'reverse' }, 9)).toEqual([0, 0.2, 0.4, 0.6, 0.8]);
  });

  test('from the centre: by the distance of the base', async () => {
    // The row stands at 0, +1, −1, +2, −2 times its spacing.
    const found = await shares({ to: linear(1, 11), stagger: 2, order: 'centre' }, 9);
    expect(found[0]).toBe(0.8);
    expect(Math.min(found[1], found[2])).toBeGreaterThan(Math.max(found[3], found[4]));
  });

  test('at random: the same paths in another order', async () => {
    const found = await shares({ to: linear(1, 21), stagger: 1, order: 'random' }, 16, 8);
    expect([...found].sort()).toEqual([...(await shares({ to: linear(1, 21), stagger: 1 }, 16, 8))].sort());
    expect(found).not.toEqual(await shares({ to: linear(1, 21), stagger: 1 }, 16, 8));
  });
});

describe('where and how', () => {
  const grown = async (params: Record<string, ParamValue>) =>
    (await formOf(sceneOf([newStep('line', { points: 41 }), newStep('grow', params)]))).paths!;

  test('from the tip and from the middle', async () => {
    const tip = await grown({ to: 0.25, begins: 'tip' });
    expect(at(tip.positions, 0)[1]).toBeCloseTo(1.5, 5);
    expect(at(tip.positions, tip.s.length - 1)[1]).toBe(2);
    const middle = await grown({ to: 0.5, begins: 'middle' });
    expect(
      [at(middle.positions, 0)[1], at(middle.positions, middle.s.length - 1)[1]].map((v) => Number(v.toFixed(5))),
    ).toEqual([0.5, 1.5]);
  });

  test('whole pieces: the front stands on a point of the path, never between', async () => {
    for (const to of [0.024, 0.026, 0.31, 0.5, 0.999, 1]) {
      const paths = await grown({ to, whole: true });
      const pieces = visibleLength(paths, 0) / 0.05;
      expect(Math.abs(pieces - Math.round(pieces))).toBeLessThan(1e-3);
      expect(Math.round(pieces)).toBe(Math.floor(to * 40 + 1e-6));
    }
  });

  test('the soft tip is thin at the front and full a length behind it', async () => {
    const paths = await grown({ to: 0.5, soft: 0.2 });
    const n = paths.s.length;
    expect(paths.size[n - 1]).toBe(0);
    for (let i = 0; i < n; i++) if (paths.positions[3 * i + 1] < 0.8) expect(paths.size[i]).toBe(1);
    for (let i = 1; i < n; i++) expect(paths.size[i]).toBeLessThanOrEqual(paths.size[i - 1]);
  });

  test('equal speed: a shorter path is done earlier, all fronts at the same height before', async () => {
    const scene = sceneOf([
      newStep('line', { toY: 2, points: 41 }),
      newStep('line', { fromX: 1, toX: 1, toY: 1, points: 41 }),
      newStep('grow', { to: 0.3, pace: 'speed' }),
    ]);
    const { paths } = await formOf(scene);
    expect([visibleLength(paths!, 0), visibleLength(paths!, 1)].map((v) => Number(v.toFixed(4)))).toEqual([0.6, 0.6]);
  });

  test('levels differ from path to path, keep within To, and close over the range', async () => {
    const found = await shares({ to: 0.8, levels: 1, change: 1 }, 1, 24);
    expect(new Set(found).size).toBeGreaterThan(10);
    for (const share of found) expect(share).toBeLessThanOrEqual(0.8);
    expect(await shares({ to: 0.8, levels: 1, change: 1 }, 145, 24)).toEqual(found);
    expect(await shares({ to: 0.8, levels: 1, change: 1 }, 40, 24)).not.toEqual(found);
  });
});
