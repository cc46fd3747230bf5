import { boundsOf } from '../../geometry/form';
import { areaAndVolume } from '../../geometry/mesh';
import { newStep } from '../../scene/make';
import type { Step } from '../../scene/schema';
import { form, line, paths } from '../../../test/paths';

/** A wave that stands still and has its full height everywhere. */
const wave = (amount: number, length: number, spin = false): Step =>
  newStep('wave', { amount, length, spin, speed: 0, hold: 0 });

// One round of a quarter, a half and a quarter keeps (1 + cos ω) / 2 of a wave of ω radians a point: Taubin, A signal processing
// approach to fair surface design, SIGGRAPH 1995, section 3.
test.each([
  [0.2, 20],
  [0.1, 5],
  [0.5, 60],
])('smoothing leaves of a wave of %f m what its transfer function says, after %d rounds', async (length, rounds) => {
  const course = () => line(4, 401);
  const [rough, smooth] = [
    await paths([course(), wave(0.02, length)]),
    await paths([course(), wave(0.02, length), newStep('smooth', { rounds })]),
  ];
  const kept = ((1 + Math.cos((2 * Math.PI * 0.01) / length)) / 2) ** rounds;
  // The ends are held where they are: further from them than there are rounds, nothing knows of it.
  for (let i = 100; i <= 300; i++)
    for (const c of [0, 2]) expect(smooth.positions[3 * i + c]).toBeCloseTo(kept * rough.positions[3 * i + c], 5);
});

// A circular helix of radius r and rise h a turn is √(h² + (2πr)²) long a turn: do Carmo, Differential Geometry of Curves and
// Surfaces, 1976, section 1-5, exercise 1.
test('a corkscrew round a line is a helix: as long as that, and everywhere as far from the line', async () => {
  const [r, h] = [0.15, 0.5];
  const { positions, whole } = await paths([line(4, 1601), wave(r, h, true)]);
  expect(whole[0] / (8 * Math.hypot(h, 2 * Math.PI * r))).toBeCloseTo(1, 3);
  for (let i = 0; i < positions.length; i += 3) expect(Math.hypot(positions[i], positions[i + 2])).toBeCloseTo(r, 5);
});

// A frustum of radii R and kR has (1 + k + k²) / 3 of the cylinder's volume: Bronshtein and Semendyayev, Handbook of
// Mathematics, section 3.3.
test.each([0.2, 0.5, 1.6])('tapered to %f of its width, a cylinder becomes the frustum of the handbook', async (k) => {
  const tube = newStep('tube', {
    radius: 0.3,
    swell: 0,
    sides: 32,
    along: [{ at: 0, value: 1 }],
    start: 'flat',
    end: 'flat',
  });
  const plain = areaAndVolume((await form([line(2, 41), tube])).mesh!).volume;
  const taper = newStep('taper', {
    profile: [
      { at: 0, value: 1 },
      { at: 1, value: k },
    ],
  });
  const tapered = areaAndVolume((await form([line(2, 41), tube, taper])).mesh!).volume;
  expect(tapered / plain / ((1 + k + k * k) / 3)).toBeCloseTo(1, 3);
});

// An ellipsoid of half axes a, b, c has the volume 4/3 π a b c: Bronshtein and Semendyayev, Handbook of Mathematics, section 3.3.
test.each([
  ['x', 0.5],
  ['y', 1.7],
  ['z', 3],
] as const)(
  'a ball stretched along %s to %d of its length is an ellipsoid, of its own volume or of the one asked for',
  async (axis, by) => {
    const ball = newStep('solid', { which: 'ball', radius: 0.4, sides: 48, atX: 0.3, atY: 1, atZ: -0.2 });
    const plain = areaAndVolume((await form([ball])).mesh!).volume;
    const along = ['x', 'y', 'z'].indexOf(axis);
    for (const from of ['low', 'middle', 'high', 'origin'])
      for (const keeps of [true, false]) {
        const made = await form([ball, newStep('stretch', { by, axis, from, keeps, across: 0.8 })]);
        expect(areaAndVolume(made.mesh!).volume / plain).toBeCloseTo(keeps ? 1 : by * 0.8 * 0.8, 5);
        const { min, max } = boundsOf(made)!;
        const other = keeps ? 1 / Math.sqrt(by) : 0.8;
        [0, 1, 2].forEach((c) => expect((max[c] - min[c]) / 0.8).toBeCloseTo(c === along ? by : other, 2));
        const at = [0.3, 1, -0.2][along];
        const still = { low: at - 0.4, middle: at, high: at + 0.4, origin: 0 }[from]!;
        const lies = {
          low: min[along],
          middle: (min[along] + max[along]) / 2,
          high: max[along],
          origin: min[along] - by * (at - 0.4),
        };
        expect(lies[from as 'low']).toBeCloseTo(still, 4);
      }
  },
);

test('a stretch that differs from path to path stretches each by its own', async () => {
  const shape = [0, 1].map((at) => ({ at, value: at }));
  const by = { base: 1, vary: { by: 'random', amount: 0.5, waves: 1, shape } } as never;
  const strands = [line(1, 5), newStep('strands', { count: 3, radius: 0.2 })];
  const plain = await paths(strands);
  const made = await paths([...strands, newStep('stretch', { by, keeps: false })]);
  const heights = [0, 1, 2].map(
    (p) => made.positions[3 * (made.offsets[p + 1] - 1) + 1] / plain.positions[3 * (plain.offsets[p + 1] - 1) + 1],
  );
  expect(new Set(heights.map((height) => height.toFixed(3))).size).toBe(3);
});
