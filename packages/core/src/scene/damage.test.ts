import fc from 'fast-check';
import { Problem } from '../problem';
import { STEPS } from '../steps/index';
import { sceneOf, testEvaluator } from '../testing';
import { newStep } from './make';
import { mendScene } from './repairScene';
import { checkScene, readScene, writeScene } from './read';

/** What would take long, made small. */
const SMALL: Record<string, Record<string, number>> = {
  burst: { generations: 1 },
  wander: { count: 2 },
  ruffle: { piece: 0.1, factor: 2 },
  frill: { piece: 0.1 },
};
const sound = (): unknown => JSON.parse(writeScene(sceneOf(STEPS.map(({ kind }) => newStep(kind, SMALL[kind])))));

/** Every place in a JSON value, as a list of keys. */
function placesIn(value: unknown, trail: (string | number)[] = []): (string | number)[][] {
  if (typeof value !== 'object' || value === null) return [trail];
  return [
    trail,
    ...Object.entries(value).flatMap(([key, inner]) =>
      placesIn(inner, [...trail, Array.isArray(value) ? Number(key) : key]),
    ),
  ];
}

const PLACES = placesIn(sound()).filter((place) => place.length > 0);

function damaged(place: (string | number)[], put: unknown): unknown {
  const json = sound() as Record<string, unknown>;
  let at = json as never as Record<string | number, unknown>;
  for (const key of place.slice(0, -1)) at = at[key] as never;
  const last = place.at(-1)!;
  if (put === undefined) Reflect.deleteProperty(at, last);
  else at[last] = put;
  return json;
}

const rubbish = fc.oneof(
  fc.constant(undefined),
  fc.constant(null),
  fc.integer(),
  fc.double(),
  fc.string(),
  fc.boolean(),
  fc.array(fc.integer(), { maxLength: 4 }),
  fc.dictionary(fc.constantFrom('keys', '__proto__', 'at', 'value', 'x'), fc.jsonValue(), { maxKeys: 3 }),
);

test('whatever is put in whatever place, the file is taken whole or refused with a place and advice', () => {
  fc.assert(
    fc.property(fc.constantFrom(...PLACES), rubbish, (place, put) => {
      try {
        checkScene(damaged(place, put));
      } catch (error) {
        expect(error).toBeInstanceOf(Problem);
        const { message, advice, place: where } = error as Problem;
        expect(message).not.toBe('');
        expect(advice).not.toBe('');
        expect(where.path).toBeDefined();
      }
    }),
    { numRuns: 600 },
  );
});

test('whatever is damaged below the root, a scene can be mended, and everything that was sound in it stays', () => {
  const whole = sound() as { growths: { steps: { id: string; params: object }[] }[] };
  fc.assert(
    fc.property(fc.constantFrom(...PLACES.filter(({ length }) => length > 1)), rubbish, (place, put) => {
      const mended = mendScene(damaged(place, put));
      expect(mended).not.toBeNull();
      expect(() => checkScene(JSON.parse(JSON.stringify(mended!.scene)))).not.toThrow();
      // Steps that the damage did not touch are as they were.
      if (place[0] === 'growths' && place.length < 5) return;
      const touched = place[0] === 'growths' ? place[3] : -1;
      const kept = new Map(mended!.scene.growths[0].steps.map((step) => [step.id, step]));
      const untouched = whole.growths[0].steps.filter((_, i) => i !== touched);
      expect(untouched.map(({ id }) => kept.get(id))).toEqual(untouched);
    }),
    { numRuns: 150 },
  );
});

test('a damaged scene that is taken can be evaluated: problems are notices, never crashes', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.constantFrom(...PLACES.filter((place) => place.includes('params'))),
      rubbish,
      async (place, put) => {
        let scene;
        try {
          scene = checkScene(damaged(place, put));
        } catch {
          return;
        }
        const { growths } = await testEvaluator({ points: 20_000, faces: 40_000 }).evaluate(scene, 10);
        for (const { form, notices } of growths)
          if (!form) expect(notices.some(({ level }) => level === 'error')).toBe(true);
      },
    ),
    { numRuns: 60 },
  );
});

test('any text that is no JSON is refused', () => {
  fc.assert(
    fc.property(fc.string(), (text) => {
      expect(() => readScene(text)).toThrow(Problem);
    }),
  );
});
