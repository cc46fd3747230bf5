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
