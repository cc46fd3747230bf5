import { formOf, sceneOf, shipForTests } from '../testing';
import { reefWav } from '../sound/reef';
import { newStep } from './make';
import { retimeScene } from './retimeScene';
import { readScene } from './read';
import type { Scene, Step } from './schema';

shipForTests(() => Promise.resolve(reefWav()));

const track = (...keys: [frame: number, value: number][]) => ({
  keys: keys.map(([frame, value]) => ({ frame, value, ease: 'ease-in-out' as const })),
  before: 'hold' as const,
  after: 'repeat' as const,
});

const timed = (...steps: Step[]): Scene => ({ ...sceneOf(steps), range: [1, 48], fps: 24 });

// Closed form: time is frames over rate. A scene at twice the rate shows at twice as many frames after its first what it
// showed before.
const cases: [string, Scene][] = [
  ['keys', timed(newStep('helix'), newStep('grow', { to: track([5, 0], [25, 1]) }))],
  [
    'a stagger',
    timed(
      newStep('burst', { count: 3, generations: 1 }),
      newStep('grow', { to: track([5, 0], [25, 1]), stagger: 1.5 }),
    ),
  ],
  ['a formula', timed(newStep('helix'), newStep('grow', { to: { formula: 'min(1, frame / last + 1 / fps)' } }))],
  [
    'levels by sound',
    timed(
      newStep('burst', { count: 3, generations: 1 }),
      newStep('grow', { levels: 1, levelsBy: 'sound', sound: 'shipped:reef-sounding' }),
    ),
  ],
  [
    'a number that varies',
    timed(
      newStep('burst', { count: 3, generations: 1 }),
      newStep('grow', { to: track([5, 0], [25, 1]) }),
      newStep('tube', {
        radius: {
          base: track([1, 0.01], [30, 0.06]),
          vary: { by: 'index', amount: 0.01, waves: 1, shape: [{ at: 0, value: 1 }] },
        },
      }),
    ),
  ],
];

test.each(cases)('at another rate all keeps its seconds: %s', async (_, scene) => {
  for (const fps of [48, 60]) {
    const other = readScene(JSON.stringify(retimeScene(scene, fps)));
    for (const seconds of [0, 0.25, 0.5, 1.25]) {
      const [then, now] = [await formOf(scene, 1 + 24 * seconds), await formOf(other, 1 + fps * seconds)];
      for (const part of ['paths', 'mesh'] as const) {
        const [a, b] = [then[part]?.positions ?? [], now[part]?.positions ?? []];
        expect(b).toHaveLength(a.length);
        for (let k = 0; k < a.length; k++) expect(b[k]).toBeCloseTo(a[k], 5);
      }
    }
  }
});

test('range, markers and delays keep their seconds; there and back is the same scene', () => {
  const scene = timed(newStep('helix'), newStep('grow', { to: track([5, 0], [25, 1]) }));
  scene.markers = [{ frame: 13, name: 'Half a second' }];
  scene.growths[0].shift = 6;
  const double = retimeScene(scene, 48);
  expect(double.range).toEqual([1, 96]);
  expect(double.markers[0].frame).toBe(25);
  expect(double.growths[0].shift).toBe(12);
  expect(retimeScene(double, 24)).toEqual(scene);
});

test('a formula that would grow too long is refused by name', () => {
  const formula = Array.from({ length: 60 }, () => 'frame').join(' + ');
  expect(() => retimeScene(timed(newStep('helix', { turns: { formula } })), 48)).toThrow('too long');
});
