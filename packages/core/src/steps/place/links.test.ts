import { type Copies } from '../../geometry/form';
import { turnedBy } from '../../geometry/turns';
import { add, at, scale, sub, type Vec3, dot, norm } from '../../geometry/vec';
import { newStep } from '../../scene/make';
import { type Step } from '../../scene/schema';
import { placed, turnOf } from '../../../test/placing';

const WIRE = 0.05;
const PITCH = 0.2;
const BOW = (0.075 + WIRE) / 2;

/** The middle of a link's wire as a closed polyline, from where its copy stands: a way of its own, by many short pieces. */
function middleOf(copies: Copies, k: number): Vec3[] {
  const half = (PITCH + WIRE) / 2 - BOW;
  const turn = turnOf(copies, k);
  const bows = [1, -1].flatMap((way) =>
    Array.from({ length: 91 }, (_, i): Vec3 => {
      const angle = (Math.PI * i) / 90;
      return [way * BOW * Math.cos(angle), way * (half + BOW * Math.sin(angle)), 0];
    }),
  );
  return bows.map((place) => add(at(copies.positions, k), turnedBy(turn, place)));
}

/** Least distance of two pieces (Ericson, Real-Time Collision Detection, 2005, section 5.1.9). */
function pieces(p1: Vec3, q1: Vec3, p2: Vec3, q2: Vec3): number {
  const [d1, d2, r] = [sub(q1, p1), sub(q2, p2), sub(p1, p2)];
  const [a, e, f, c, b] = [dot(d1, d1), dot(d2, d2), dot(d2, r), dot(d1, r), dot(d1, d2)];
  const clamp = (x: number): number => Math.min(1, Math.max(0, x));
  const denominator = a * e - b * b;
  let s = denominator > 1e-18 ? clamp((b * f - c * e) / denominator) : 0;
  let t = (b * s + f) / e;
  if (t < 0 || t > 1) {
    t = clamp(t);
    s = clamp((b * t - c) / a);
  }
  const [x, y, z] = sub(add(p1, scale(d1, s)), add(p2, scale(d2, t)));
  return norm(x, y, z);
}

/** The room between the wires of two links, metres; below 0 they cut. */
function gapOf(copies: Copies, k: number): number {
  const [one, two] = [middleOf(copies, k), middleOf(copies, k + 1)];
  let least = Infinity;
  for (let i = 0; i < one.length; i++)
    for (let j = 0; j < two.length; j++)
      least = Math.min(least, pieces(one[i], one[(i + 1) % one.length], two[j], two[(j + 1) % two.length]));
  return least - WIRE;
}

const arc = (links: number): Step => newStep('arc', { radius: links * PITCH, sweep: 200, points: 900 });

describe('links that hang in each other', () => {
  test.each([
    ['a line', newStep('line', { fromY: 0, toY: 2, points: 20 })],
    ['a bend of 12 links', arc(12)],
    ['a bend of 5 links', arc(5)],
    ['a bend of 3 links', arc(3)],
    ['a helix', newStep('helix', { below: 0.9, above: 0.7, height: 1.5, turns: 1.5, points: 900 })],
    ['a hanging line', newStep('catenary', {})],
  ])('touch along %s: never a cut, no more than a five-hundredth of the wire apart', async (_, path) => {
    const { copies } = await placed([path], { turns: '0, 90', laid: 'now' });
    const last = Math.min(copies!.ids.length - 1, 7);
    expect(last).toBeGreaterThan(3);
    for (let k = 0; k < last; k++) {
      const gap = gapOf(copies!, k);
      expect(gap / WIRE).toBeGreaterThan(0);
      expect(gap / WIRE).toBeLessThan(0.002);
    }
  });

  test('touch on a path that noise moves, at every moment', async () => {
    for (const frame of [1, 40, 90]) {
      const { copies } = await placed(
        [newStep('line', { fromY: 0, toY: 2, points: 300 }), newStep('noise', { amount: 0.08, size: 1.5 })],
        { turns: '0, 90', laid: 'now' },
        undefined,
        frame,
      );
      for (let k = 0; k < Math.min(copies!.ids.length - 1, 6); k++) {
        const gap = gapOf(copies!, k);
        expect(gap / WIRE).toBeGreaterThan(0);
        expect(gap / WIRE).toBeLessThan(0.002);
      }
    }
  });

  test('a gap that is asked for is left between them', async () => {
    const { copies } = await placed([newStep('line', { fromY: 0, toY: 2, points: 20 })], {
      ...{ turns: '0, 90', laid: 'now', gap: -0.01 },
    });
    expect(gapOf(copies!, 1)).toBeCloseTo(0.01, 3);
  });
});
