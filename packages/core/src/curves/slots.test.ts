import fc from 'fast-check';
import { slotsAlong } from '../curves/slots';

describe('slots', () => {
  const rule = { pitch: 0.3, count: null, start: 0, end: 0, rest: 'leave' as const, pattern: 1 };

  test('a remainder is left, spread, or taken up by the size', () => {
    const left = slotsAlong(1, false, rule);
    expect(left.at).toHaveLength(3);
    expect(left.at[0]).toBeCloseTo(0.15, 12);
    expect(left.at[2] + 0.15).toBeCloseTo(0.9, 12);
    const spread = slotsAlong(1, false, { ...rule, rest: 'spread' });
    expect([spread.at[0], spread.at[2], spread.size]).toEqual([expect.closeTo(1 / 6, 9), expect.closeTo(5 / 6, 9), 1]);
    expect(slotsAlong(1, false, { ...rule, rest: 'fit' }).size).toBeCloseTo(1 / 0.9, 12);
  });

  test('margins, counts, and whole patterns on closed paths', () => {
    const margins = slotsAlong(2, false, { ...rule, start: 0.4, end: 0.7 });
    expect(margins.at).toHaveLength(3);
    expect(margins.at[0]).toBeCloseTo(0.55, 12);
    expect(slotsAlong(2, false, { ...rule, count: 5 }).at).toHaveLength(5);
    for (const length of [1.9, 2, 2.3, 5])
      expect(slotsAlong(length, true, { ...rule, pattern: 2 }).at.length % 2).toBe(0);
    expect(slotsAlong(0.1, false, rule).at).toHaveLength(0);
    expect(slotsAlong(0.1, true, { ...rule, pattern: 4 }).at).toHaveLength(4);
  });

  test('a length of whole places gives them all, in spite of rounding', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 400 }), fc.double({ min: 0.001, max: 3, noNaN: true }), (n, pitch) => {
        expect(slotsAlong(n * pitch, false, { ...rule, pitch }).at).toHaveLength(n);
      }),
    );
  });
});
