import fc from 'fast-check';
import { pathsFrom, type FramedPaths } from '../geometry/paths';
import { at, cross, dot, type Vec3 } from '../geometry/vec';
import { movedForm, turnOf } from './moveForm';
import { emptyForm } from '../geometry/form';
import { turnedBy } from '../geometry/turns';
import { cutPaths } from './cut';
import { firstNormal } from './frames';
import { movedPaths, withFrames } from './pathFrames';

const angle = (a: Vec3, b: Vec3): number => Math.acos(Math.min(1, Math.max(-1, dot(a, b))));

/** Waves that move a path: amplitude, how often along it, how often in time, phase, of each axis. */
const waves = fc.array(
  fc.record({
    axis: fc.constantFrom(0, 1, 2),
    size: fc.double({ min: 0.01, max: 0.25, noNaN: true }),
    along: fc.integer({ min: 0, max: 3 }),
    rate: fc.constantFrom(-1, 1, 2),
    phase: fc.double({ min: 0, max: 6.28, noNaN: true }),
  }),
  { minLength: 1, maxLength: 4 },
);
type Waves = typeof waves extends fc.Arbitrary<infer T> ? T : never;

const N = 80;
const resting = (closed: boolean) =>
  pathsFrom([
    {
      closed,
      positions: Array.from({ length: N }, (_, i) => {
        const a = (2 * Math.PI * i) / N;
        return closed ? [Math.cos(a), 0.4 * Math.sin(2 * a), Math.sin(a)] : [0, (2 * i) / N, 0];
      }).flat(),
    },
  ]);

/** A path in motion at a moment 0..1. */
async function inMotion(rest: ReturnType<typeof resting>, by: Waves, moment: number): Promise<FramedPaths> {
  const positions = new Float32Array(rest.positions);
  for (let i = 0; i < N; i++)
    for (const { axis, size, along, rate, phase } of by)
      positions[3 * i + axis] += size * Math.sin(2 * Math.PI * ((along * i) / N + rate * moment) + phase);
  return (await movedPaths(rest, positions)) as FramedPaths;
}

/** Total curvature of a path's points, radians. */
function curvature({ tangents }: FramedPaths): number {
  let sum = 0;
  for (let i = 1; i < N; i++) sum += angle(at(tangents, i - 1), at(tangents, i));
  return sum;
}

describe('frames of moving paths', () => {
  // The area that a curve's tangents sweep bounds the roll of a frame without twist: Fuller, PNAS 75, 1978, equation 6.2. On a
  // closed path it is counted twice, once on the way and once where what is left over is spread.
  test.each([
    ['open', false, 1],
    ['closed', true, 2],
  ] as const)(
    'of %s ones turn no more than the path does, times its total curvature and one',
    async (_, closed, rounds) => {
      const rest = resting(closed);
      await fc.assert(
        fc.asyncProperty(waves, async (by) => {
          let a = await inMotion(rest, by, 0);
          for (let moment = 1; moment <= 16; moment++) {
            const b = await inMotion(rest, by, moment / 160);
            let [path, frame] = [0, 0];
            for (let i = 0; i < N; i++) {
              path = Math.max(path, angle(at(a.tangents, i), at(b.tangents, i)));
              frame = Math.max(frame, angle(at(a.normals, i), at(b.normals, i)));
            }
            const bent = Math.max(curvature(a), curvature(b));
            expect(frame).toBeLessThanOrEqual(1.1 * path * (1 + rounds * bent) + 2e-3);
            a = b;
          }
        }),
        { numRuns: 150 },
      );
    },
  );

  test('are at rest what they were made as, twist that was spread included', async () => {
    for (const closed of [false, true]) {
      const rest = withFrames(resting(closed));
      const moved = await movedPaths(rest, rest.positions.slice());
      for (let i = 0; i < 3 * N; i++) expect(moved.normals![i]).toBeCloseTo(rest.normals[i], 5);
    }
  });

  test('a ring that has been cut keeps the twist of the whole one', async () => {
    const cut = cutPaths(withFrames(resting(true)), () => [0.2, 0.7]);
    const moved = await movedPaths(cut, cut.positions.slice());
    for (let i = 0; i < cut.s.length; i++) expect(angle(at(moved.normals!, i), at(cut.normals!, i))).toBeLessThan(0.03);
  });

  test('a ring whose frame comes round by more than half a turn counts whole turns', async () => {
    // Wound more and more about its own course: what is left over passes half a turn on the way.
    const rest = resting(true);
    const wound = async (much: number): Promise<FramedPaths> => {
      const positions = new Float32Array(rest.positions);
      for (let i = 0; i < N; i++) {
        const a = (2 * Math.PI * i) / N;
        positions[3 * i + 1] += much * Math.cos(5 * a);
        positions[3 * i] *= 1 + much * Math.sin(5 * a);
        positions[3 * i + 2] *= 1 + much * Math.sin(5 * a);
      }
      return (await movedPaths(rest, positions)) as FramedPaths;
    };
    let before = await wound(0);
    for (let much = 0.002; much < 0.5; much += 0.002) {
      const now = await wound(much);
      for (let i = 0; i < N; i++) expect(angle(at(before.normals, i), at(now.normals, i))).toBeLessThan(0.25);
      // It closes as well: over the seam it turns as it does anywhere.
      const hops = Array.from({ length: N }, (_, i) => angle(at(now.normals, i), at(now.normals, (i + 1) % N)));
      expect(hops[N - 1]).toBeLessThan(1.5 * Math.max(...hops.slice(0, -1)) + 0.01);
      before = now;
    }
  });

  test('stay square and of unit length, whatever moves', async () => {
    await fc.assert(
      fc.asyncProperty(waves, fc.boolean(), async (by, closed) => {
        const { tangents, normals } = await inMotion(resting(closed), by, 0.3);
        for (let i = 0; i < N; i++) {
          expect(Math.hypot(...at(normals, i))).toBeCloseTo(1, 5);
          expect(dot(at(normals, i), at(tangents, i))).toBeCloseTo(0, 5);
        }
      }),
      { numRuns: 40 },
    );
  });

  test('go along with a rigid turn as part of the whole', () => {
    const rest = withFrames(resting(false));
    const turn = turnOf(170, 20, -140);
    const { paths } = movedForm({ ...emptyForm(), paths: resting(false) }, { turn, size: 2, move: [1, 2, 3] });
    for (let i = 0; i < N; i += 7) {
      const wanted = turnedBy(turn, at(rest.normals, i));
      for (const c of [0, 1, 2]) expect(at(paths!.normals!, i)[c]).toBeCloseTo(wanted[c], 5);
    }
    expect(paths!.whole[0]).toBeCloseTo(2 * rest.whole[0], 4);
  });
});

test('the first normal goes along with the tangent, and is forward in the plane of the screen', () => {
  for (let a = 0; a < 360; a += 5) {
    const t: Vec3 = [Math.cos((a * Math.PI) / 180), Math.sin((a * Math.PI) / 180), 0];
    firstNormal(t).forEach((value, c) => expect(value).toBeCloseTo(c === 2 ? 1 : 0, 9));
  }
  // Round a circle that keeps away from the left: no faster than twice the tangent, and square to it.
  let before = firstNormal([0, 0, 1]);
  for (let a = 1; a <= 360; a++) {
    const [c, s] = [Math.cos((a * Math.PI) / 180), Math.sin((a * Math.PI) / 180)];
    const now = firstNormal([0, s, c]);
    expect(angle(before, now)).toBeLessThan((2.01 * Math.PI) / 180);
    expect(dot(now, [0, s, c])).toBeCloseTo(0, 9);
    expect(Math.hypot(...cross(now, [0, s, c]))).toBeCloseTo(1, 9);
    before = now;
  }
});
