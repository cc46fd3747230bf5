import fc from 'fast-check';
import { newStep } from '../scene/make';
import type { ParamValue } from '../scene/schema';
import { sceneOf, testEvaluator } from '../testing';
import { setDistance } from './distance';
import { paceOf } from './pace';
import { measureSeam, shortestLoop } from './seam';

describe('pace', () => {
  test('an even growth has unevenness 0 and its speed in metres a second', () => {
    const { speed, unevenness } = paceOf([0, 0, 0.1, 0.2, 0.3, 0.3], 24);
    expect([...speed].map((v) => Number(v.toFixed(9)))).toEqual([0, 2.4, 2.4, 2.4, 0]);
    expect(unevenness).toBeCloseTo(0, 9);
  });

  // Speeds 1, 2, 3, …, n: mean (n + 1)/2, variance (n² − 1)/12 (uniform distribution).
  test('a steadily rising pace has the unevenness of its closed form', () => {
    const n = 30;
    const lengths = Array.from({ length: n + 1 }, (_, i) => (i * (i + 1)) / 2);
    expect(paceOf(lengths, 1).unevenness).toBeCloseTo(Math.sqrt((n * n - 1) / 12) / ((n + 1) / 2), 9);
  });

  test('swaying before it sets out counts for nothing', () => {
    expect(paceOf([0, 0.002, 0.001, 0.001, 0.201, 0.401, 0.601], 24).unevenness).toBeCloseTo(0, 9);
  });

  test('nothing that moves gives no figure', () => {
    expect(paceOf([1, 1, 1], 24).unevenness).toBeNull();
    expect(paceOf([], 24).unevenness).toBeNull();
  });
});

describe('distance of two sets of points', () => {
  const cloud = fc
    .array(fc.float({ min: -5, max: 5, noNaN: true }), { minLength: 3, maxLength: 120 })
    .map((list) => Float32Array.from(list.slice(0, 3 * Math.floor(list.length / 3))));

  /** Hausdorff's definition, every point against every other. */
  function plainly(a: Float32Array, b: Float32Array): number {
    const oneWay = (p: Float32Array, q: Float32Array): number => {
      let worst = 0;
      for (let i = 0; i < p.length; i += 3) {
        let best = Infinity;
        for (let j = 0; j < q.length; j += 3)
          best = Math.min(best, Math.hypot(p[i] - q[j], p[i + 1] - q[j + 1], p[i + 2] - q[j + 2]));
        worst = Math.max(worst, best);
      }
      return worst;
    };
    return Math.max(oneWay(a, b), oneWay(b, a));
  }

  test('agrees with the definition', () => {
    fc.assert(
      fc.property(cloud, cloud, (a, b) => expect(setDistance(a, b)).toBeCloseTo(plainly(a, b), 5)),
      { numRuns: 300 },
    );
  });

  test('far apart, empty and equal sets', () => {
    expect(setDistance(Float32Array.of(0, 0, 0), Float32Array.of(1000, 0, 0))).toBe(1000);
    expect(setDistance(new Float32Array(), new Float32Array())).toBe(0);
    expect(setDistance(new Float32Array(), Float32Array.of(1, 2, 3))).toBe(Infinity);
  });
});

const rolling = (degrees: number, frames: number): ParamValue => ({
  keys: [
    { frame: 1, value: 0, ease: 'linear' },
    { frame: 1 + frames, value: degrees, ease: 'linear' },
  ],
  before: 'repeat-offset',
  after: 'repeat-offset',
});

describe('seam', () => {
  const star = (roll: ParamValue) =>
    sceneOf([
      newStep('line', { points: 12 }),
      newStep('sweep', { profile: 'star', corners: 5, roll, end: 'flat', swell: 0 }),
    ]);

  test('noise that loops closes exactly, and so does its motion; noise that does not, does not', async () => {
    const closed = sceneOf([
      newStep('line', { points: 40 }),
      newStep('noise', { evolve: 0.4 }),
      newStep('tube', { sides: 5 }),
    ]);
    const { growths } = await measureSeam(testEvaluator(), closed);
    expect(growths[0]).toMatchObject({ gap: 0, jolt: 0 });
    closed.growths[0].steps[1].params.loop = false;
    expect((await measureSeam(testEvaluator(), closed)).growths[0].gap).toBeGreaterThan(0.001);
  });

  test("a profile's own symmetry is recognised: a five-pointed star closes after a fifth of a turn", async () => {
    const fifth = await measureSeam(testEvaluator(), star(rolling(72, 144)));
    expect(fifth.growths[0].gap).toBeLessThan(1e-6);
    const quarter = await measureSeam(testEvaluator(), star(rolling(90, 144)));
    expect(quarter.growths[0].gap).toBeGreaterThan(1e-3);
  });

  test('the shortest range that closes is found: a full turn in 100 frames closes after 20', async () => {
    const scene = star(rolling(360, 100));
    expect(await shortestLoop(testEvaluator(), scene)).toBe(20);
    // Applied, its seam is closed.
    scene.range = [1, 20];
    expect((await measureSeam(testEvaluator(), scene)).growths[0].gap).toBeLessThan(1e-6);
  });

  test('no loop is claimed for a growth that ends elsewhere, nor for one that stands still', async () => {
    const growing = sceneOf([
      newStep('line'),
      newStep('grow', {
        to: {
          keys: [
            { frame: 1, value: 0.1, ease: 'linear' },
            { frame: 144, value: 1, ease: 'linear' },
          ],
          before: 'hold',
          after: 'hold',
        },
      }),
    ]);
    expect(await shortestLoop(testEvaluator(), growing)).toBeNull();
    expect(await shortestLoop(testEvaluator(), sceneOf([newStep('line')]))).toBeNull();
  });
});
