import { sceneOf } from '../testing';
import { faultOfScene } from './faults';
import { LIMITS } from './limits';
import { newGrowth, newId, newScene, newStep } from './make';
import { gentleChanges, mendScene } from './repairScene';
import type { Scene } from './schema';

const scene = (): Scene => sceneOf([newStep('arc'), newStep('grow'), newStep('tube')]);
/** A sound scene and the same after a change. */
const after = (change: (scene: Scene) => void): { before: Scene; next: Scene } => {
  const before = scene();
  const next = structuredClone(before);
  change(next);
  return { before, next };
};

test.each<[string, (s: Scene) => void, (string | number)[], unknown]>([
  [
    'a radius of 0',
    (s) => (s.growths[0].steps[0].params.radius = 0),
    ['growths', 0, 'steps', 0, 'params', 'radius'],
    0.0001,
  ],
  ['a name of 130 letters', (s) => (s.growths[0].name = 'k'.repeat(130)), ['growths', 0, 'name'], 'k'.repeat(120)],
  ['a first frame of 200000', (s) => (s.range = [200_000, 200_001]), ['range'], [99_999, 100_000]],
  ['a range of one frame', (s) => (s.range = [7, 7]), ['range'], [7, 8]],
  ['a rate of 900', (s) => (s.fps = 900), ['fps'], 240],
  ['a light too strong', (s) => (s.light.strength = 11), ['light', 'strength'], 10],
])('%s is brought back within its limits', (_, change, path, value) => {
  const { before, next } = after(change);
  expect(faultOfScene(next, before)).not.toBeNull();
  expect(gentleChanges(next, before)).toEqual([{ path, value }]);
});

test('keys of a track that was pasted onto narrower limits come within them', () => {
  const { before, next } = after((s) => {
    s.growths[0].steps[1].params.to = {
      keys: [
        { frame: 1, value: -3, ease: 'linear' },
        { frame: 9, value: 4, ease: 'linear' },
      ],
      before: 'hold',
      after: 'hold',
    };
  });
  const [change] = gentleChanges(next, before)!;
  expect((change.value as { keys: { value: number }[] }).keys.map((key) => key.value)).toEqual([0, 1]);
});

test.each<[string, (s: Scene) => void, RegExp]>([
  [
    'growths',
    (s) => (s.growths = Array.from({ length: LIMITS.growths + 1 }, () => newGrowth('K', 0, []))),
    /500 growths/,
  ],
  ['steps', (s) => (s.growths[0].steps = Array.from({ length: LIMITS.steps + 1 }, () => newStep('tube'))), /200 steps/],
  ['markers', (s) => (s.markers = Array.from({ length: 1001 }, (_, frame) => ({ frame, name: '' }))), /1000 markers/],
  ['a formula', (s) => (s.growths[0].steps[0].params.radius = { formula: '1+'.repeat(300) + '1' }), /500 characters/],
  ['an unknown kind', (s) => (s.growths[0].steps[0].kind = 'melt'), /no step/],
  ['ids', (s) => (s.growths[0].steps[1].id = 'step0'), /twice/],
])('too much of %s is refused, not cut', (_, change, reason) => {
  const { before, next } = after(change);
  expect(faultOfScene(next, before)!.reason).toMatch(reason);
  expect(gentleChanges(next, before)).toBeNull();
});

test('what was sound before is not looked at again, what changed is', () => {
  const before = scene();
  const other = newGrowth('Other', 1, [newStep('line')]);
  const next = { ...before, growths: [...before.growths, other] };
  // Damage behind the back of the check, in a part that both share.
  (before.growths[0] as { hue: string }).hue = 'green';
  expect(faultOfScene(next, before)).toBeNull();
  expect(faultOfScene(next)!.path).toEqual(['growths', 0, 'hue']);
});

test('mending tells each place, and takes out only what has no sense', () => {
  const broken = scene() as never as Record<string, never> & Scene;
  broken.growths[0].steps[0].params.radius = 1e9;
  broken.growths[0].steps[1].kind = 'melt';
  broken.growths[0].steps[2].id = 'step0';
  (broken as unknown as { camera: unknown }).camera = 'gone';
  const { scene: whole, mended } = mendScene(broken)!;
  expect(whole.growths[0].steps.map(({ kind }) => kind)).toEqual(['arc', 'tube']);
  expect(whole.camera).toEqual(newScene('x').camera);
  expect(mended.map(({ path }) => path)).toEqual([
    'camera',
    'growths[0].steps[0].params.radius',
    'growths[0].steps[1].kind',
    'growths[0].steps[1].id',
  ]);
  expect(mended[1].where).toContain('Radius');
  expect(mended[1].done).toBe('is 1000 now');
});

test('anchors of any size come within reach; broken ones make the path empty', () => {
  const drawn = (anchors: unknown): Scene => sceneOf([newStep('drawn', { anchors: anchors as never })]);
  const far = drawn([
    [0, 0, 0],
    [1e300, 0, 0, 200, 40_000],
  ]);
  expect(gentleChanges(far)![0].value).toEqual([
    [0, 0, 0],
    [LIMITS.reach, 0, 0, 100, 36_000],
  ]);
  expect(gentleChanges(drawn([[0, NaN, 0]]))).toBeNull();
  expect(mendScene(drawn([[0, NaN, 0]]))!.mended).toHaveLength(1);
  expect(newId()).toHaveLength(12);
});
