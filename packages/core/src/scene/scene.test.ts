import { Problem } from '../problem';
import { STEPS, stepOf } from '../steps/index';
import { sceneOf } from '../testing';
import { newScene, newStep } from './make';
import { migrate, readScene, writeScene } from './read';
import { paramFault } from './params';
import type { Scene } from './schema';
import { GrowthValues } from './values';

/** JSON to be damaged in ways that no type allows. */
// oxlint-disable-next-line typescript/no-explicit-any
type Json = any;

const problemOf = (text: string): Problem => {
  try {
    readScene(text);
  } catch (error) {
    return error as Problem;
  }
  throw new Error('it was taken');
};

/** A sound scene with one thing changed in its JSON. */
const broken = (change: (scene: Json) => void): Problem => {
  const scene = JSON.parse(writeScene(sceneOf([newStep('line'), newStep('grow')])));
  change(scene);
  return problemOf(JSON.stringify(scene));
};

describe('scene files', () => {
  test('what is written is read back the same, for every step there is', () => {
    const scene = sceneOf(STEPS.map(({ kind }) => newStep(kind)));
    expect(readScene(writeScene(scene))).toEqual(scene);
    expect(readScene(writeScene(newScene('Empty')))).toMatchObject({ name: 'Empty', growths: [] });
  });

  test.each([
    ['text that is no JSON', 'kelp', /not a JSON file/, undefined],
    ['JSON of something else', '{"name": "x"}', /not a Uvrex scene/, 'format'],
    ['a newer version', '{"format": "uvrex-scene", "version": 99}', /version 99/, 'version'],
    ['no version', '{"format": "uvrex-scene"}', /version/, 'version'],
  ])('%s is refused', (_, text, reason, path) => {
    const problem = problemOf(text);
    expect(problem).toBeInstanceOf(Problem);
    expect(problem.message).toMatch(reason);
    expect(problem.place.path).toBe(path);
    expect(problem.advice).not.toBe('');
  });

  test.each<[string, (scene: Json) => void, string, RegExp]>([
    ['a missing part', (s) => delete s.camera, 'camera', /is missing, and must be of type object/],
    ['a wrong colour', (s) => (s.growths[0].hue = 'green'), 'growths[0].hue', /colour/],
    ['an unknown step', (s) => (s.growths[0].steps[0].kind = 'melt'), 'growths[0].steps[0].kind', /no step "melt"/],
    [
      'an unknown parameter',
      (s) => (s.growths[0].steps[0].params.wobble = 1),
      'growths[0].steps[0].params.wobble',
      /no parameter "wobble"/,
    ],
    [
      'a parameter named like part of every object',
      (s) => (s.growths[0].steps[0].params.constructor = 1),
      'growths[0].steps[0].params.constructor',
      /no parameter/,
    ],
    [
      'a value out of range',
      (s) => (s.growths[0].steps[1].params.to = 1.5),
      'growths[0].steps[1].params.to',
      /100 % or less/,
    ],
    [
      'a key out of range',
      (s) =>
        (s.growths[0].steps[1].params.to = {
          keys: [{ frame: 7, value: -1, ease: 'linear' }],
          before: 'hold',
          after: 'hold',
        }),
      'growths[0].steps[1].params.to',
      /at frame 7: must be 0 % or more/,
    ],
    [
      'keys out of order',
      (s) =>
        (s.growths[0].steps[1].params.to = {
          keys: [
            { frame: 7, value: 1, ease: 'linear' },
            { frame: 7, value: 1, ease: 'linear' },
          ],
          before: 'hold',
          after: 'hold',
        }),
      'growths[0].steps[1].params.to.keys',
      /rising/,
    ],
    [
      'a text for a number',
      (s) => (s.growths[0].steps[0].params.points = 'many'),
      'growths[0].steps[0].params.points',
      /number/,
    ],
    ['a range backwards', (s) => (s.range = [50, 10]), 'range', /after the first/],
    ['an id used twice', (s) => (s.growths[0].steps[1].id = 'step0'), 'growths[0].steps[1].id', /twice/],
    ['a part that does not belong', (s) => (s.extra = 1), '', /extra/],
  ])('%s is refused with its place', (_, change, path, reason) => {
    const problem = broken(change);
    expect(problem.place.path).toBe(path);
    expect(problem.message).toMatch(reason);
  });

  test('the message names the growth', () => {
    expect(broken((s) => (s.growths[0].steps[0].kind = 'melt')).message).toContain('“Frond”');
  });

  test('older versions are brought up one after another', () => {
    const migrations = { 1: (d: object) => ({ ...d, a: 1 }), 2: (d: object) => ({ ...d, b: 2 }) };
    expect(migrate({ version: 1 }, migrations, 3)).toEqual({ version: 3, a: 1, b: 2 });
    expect(migrate({ version: 2 }, migrations, 3)).toEqual({ version: 3, b: 2 });
    expect(() => migrate({ version: 1 }, {}, 2)).toThrow(/can no longer be read/);
  });
});

describe('parameters', () => {
  test("every declaration's default fits it, and every step explains itself", () => {
    for (const step of STEPS) {
      expect(step.help.length).toBeGreaterThan(20);
      for (const [name, spec] of Object.entries(step.params)) {
        expect([step.kind, name, paramFault(spec, spec.default)]).toEqual([step.kind, name, null]);
        expect(spec.help).not.toBe('');
      }
      expect(step.summary(newStep(step.kind).params as never)).not.toBe('');
    }
  });

  test('a track that overshoots is kept in range, and whole numbers stay whole', () => {
    const overshoot = {
      keys: [
        { frame: 0, value: 0, ease: 'back-out' as const },
        { frame: 10, value: 8, ease: 'linear' as const },
      ],
      before: 'hold' as const,
      after: 'hold' as const,
    };
    for (let frame = 0; frame <= 10; frame += 0.5) {
      const step = newStep('noise', { detail: overshoot });
      const values = new GrowthValues({ steps: [step] }, { fps: 24, range: [0, 10] }, frame);
      const value = values.one(stepOf('noise')!, step, 'detail') as number;
      expect(value).toBeLessThanOrEqual(8);
      expect(Number.isInteger(value)).toBe(true);
    }
    const bare = { ...newStep('noise'), params: {} };
    expect(
      new GrowthValues({ steps: [bare] }, { fps: 24, range: [0, 10] }, 3).one(stepOf('noise')!, bare, 'detail'),
    ).toBe(2);
  });

  test('tracks are refused where a value cannot be animated', () => {
    const track = { keys: [{ frame: 0, value: 0, ease: 'linear' }], before: 'hold', after: 'hold' };
    expect(paramFault({ type: 'toggle', label: '', help: '', default: true }, track)).not.toBeNull();
  });

  test('a new scene is sound', () => {
    const scene: Scene = newScene('Reef');
    expect(() => readScene(writeScene(scene))).not.toThrow();
  });
});
