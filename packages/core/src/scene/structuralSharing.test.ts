import fc from 'fast-check';
import { shareStructure } from './structuralSharing';

const json = fc.jsonValue() as fc.Arbitrary<unknown>;
const copy = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

test('what comes again the same is the object that it was; what differs is new, with the rest shared', () => {
  const first = shareStructure(copy({ a: { b: [1, 2] }, c: [{ d: 1 }, { d: 2 }], e: null }));
  expect(shareStructure(copy(first), first)).toBe(first);
  const next = shareStructure({ ...copy(first), c: [{ d: 1 }, { d: 3 }] }, first);
  expect(next).toEqual({ ...first, c: [{ d: 1 }, { d: 3 }] });
  expect([next.a, next.c[0]]).toEqual([first.a, first.c[0]]);
  expect(next.a).toBe(first.a);
  expect(next.c[0]).toBe(first.c[0]);
  expect(next.c).not.toBe(first.c);
});

test('whatever came before, the value is what was given, and frozen through and through', () => {
  const frozen = (value: unknown): boolean =>
    typeof value !== 'object' || value === null || (Object.isFrozen(value) && Object.values(value).every(frozen));
  fc.assert(
    fc.property(json, json, (before, next) => {
      const made = shareStructure(copy(next), shareStructure(copy(before)));
      expect(made).toEqual(copy(next));
      expect(frozen(made)).toBe(true);
    }),
  );
});

test('a name that is gone, a list in an object’s place, and undefined are differences', () => {
  const before = shareStructure({ a: 1, b: undefined as number | undefined });
  expect(Object.keys(shareStructure<object>({ a: 1 }, before))).toEqual(['a']);
  expect(Object.keys(shareStructure<object>({ a: 1, c: undefined }, before))).toEqual(['a', 'c']);
  expect(shareStructure<unknown>([1], shareStructure<unknown>({ 0: 1 }))).toEqual([1]);
});
