import fc from 'fast-check';
import type { StepContext } from '../declare';
import { held, progressOf } from './motion';

const at = (frame: number, range: [number, number] = [1, 144]) => ({ frame, fps: 24, range }) as unknown as StepContext;

test('looping: a whole number of changes, one at least, over any range', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.01, max: 9, noNaN: true }),
      fc.integer({ min: 2, max: 900 }),
      fc.boolean(),
      (rate, last, back) => {
        const signed = back ? -rate : rate;
        const { passed, period } = progressOf(signed, true, at(last + 1, [1, last]));
        expect(Math.abs(passed)).toBe(period);
        expect(period).toBeGreaterThanOrEqual(1);
        expect(Number.isInteger(period)).toBe(true);
        expect(progressOf(signed, true, at(1, [1, last])).passed + 0).toBe(0);
      },
    ),
  );
});

test('not looping: changes by the second', () => {
  expect(progressOf(0.5, false, at(49))).toEqual({ passed: 1, period: 0 });
  expect(progressOf(0, true, at(49))).toEqual({ passed: 0, period: 0 });
});

test('the hold is 0 at the base, 1 past it, and rises without a step', () => {
  expect([held(0, 0.2), held(0.1, 0.2), held(0.2, 0.2), held(0.9, 0.2), held(0, 0)]).toEqual([0, 0.5, 1, 1, 1]);
});
