import bezierEasing from 'bezier-easing';
import fc from 'fast-check';
import { cubicBezier, CSS_EASES, EASE_NAMES, easeAt } from './easing';
import { type Cycle, type Track, valueAt, withKey, withKeysMoved, withKeysPut } from './track';

const unit = fc.double({ min: 0, max: 1, noNaN: true });

describe('easing', () => {
  test('a cubic Bézier agrees with the bezier-easing package', () => {
    fc.assert(
      fc.property(
        unit,
        fc.double({ min: -2, max: 3, noNaN: true }),
        unit,
        fc.double({ min: -2, max: 3, noNaN: true }),
        unit,
        (x1, y1, x2, y2, t) => {
          // Where x hardly rises the package's early stop shows in y; the test after next holds those against the curve.
          const ours = cubicBezier([x1, y1, x2, y2], t);
          const theirs = bezierEasing(x1, y1, x2, y2)(t);
          const steep = Math.min(x1, 1 - x2, Math.abs(x2 - x1)) < 0.05 || x1 > x2;
          if (!steep) expect(ours).toBeCloseTo(theirs, 4);
        },
      ),
      { numRuns: 500 },
    );
  });

  // CSS Easing Functions Level 1, section 2: the keywords' control points.
  test('the CSS keywords are the curves that the specification gives them', () => {
    expect(CSS_EASES).toEqual({
      ease: [0.25, 0.1, 0.25, 1],
      'ease-in': [0.42, 0, 1, 1],
      'ease-out': [0, 0, 0.58, 1],
      'ease-in-out': [0.42, 0, 0.58, 1],
    });
    for (const name of ['ease', 'ease-in', 'ease-out', 'ease-in-out'] as const) {
      for (const t of [0.1, 0.35, 0.5, 0.8])
        expect(easeAt(name, t)).toBeCloseTo(
          bezierEasing(...(CSS_EASES[name] as [number, number, number, number]))(t),
          6,
        );
    }
  });

  test('solves for x to double precision: points of the curve itself', () => {
    fc.assert(
      fc.property(unit, unit, unit, unit, fc.double({ min: 0.01, max: 0.99, noNaN: true }), (x1, y1, x2, y2, p) => {
        const on = (a: number, b: number) => 3 * (1 - p) ** 2 * p * a + 3 * (1 - p) * p * p * b + p ** 3;
        const slope = 3 * ((1 - p) ** 2 * x1 + 2 * (1 - p) * p * (x2 - x1) + p * p * (1 - x2));
        fc.pre(slope > 0.01);
        expect(cubicBezier([x1, y1, x2, y2], on(x1, x2))).toBeCloseTo(on(y1, y2), 9);
      }),
    );
  });

  test('every family begins at exactly 0 and ends at exactly 1', () => {
    for (const name of EASE_NAMES) expect([easeAt(name, 0), easeAt(name, 1)]).toEqual([0, 1]);
  });

  test('in and out mirror each other', () => {
    for (const family of ['sine', 'quad', 'cubic', 'expo', 'circle', 'back', 'elastic', 'bounce'] as const) {
      for (const t of [0.15, 0.4, 0.85])
        expect(easeAt(`${family}-in`, t)).toBeCloseTo(1 - easeAt(`${family}-out`, 1 - t), 9);
    }
  });
});

const track = (before: Cycle, after: Cycle): Track => ({
  keys: [
    { frame: 10, value: 1, ease: 'linear' },
    { frame: 14, value: 3, ease: 'ease-in' },
    { frame: 20, value: 2, ease: 'linear' },
  ],
  before,
  after,
});

describe('tracks', () => {
  test('are exact on keys, and linear between them where the ease says so', () => {
    const t = track('hold', 'hold');
    expect([10, 14, 20].map((frame) => valueAt(t, frame))).toEqual([1, 3, 2]);
    expect(valueAt(t, 11.5)).toBe(1.75);
  });

  test('hold their end values', () => {
    const t = track('hold', 'hold');
    expect([-500, 9.99, 20.01, 1e6].map((frame) => valueAt(t, frame))).toEqual([1, 1, 2, 2]);
  });

  test('repeat: any whole number of rounds away is the same value', () => {
    const t = track('repeat', 'repeat');
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 39 }), fc.integer({ min: -1000, max: 1000 }), (quarter, rounds) => {
        // The first key too, where one round ends and the next begins.
        const frame = 10 + quarter / 4;
        expect(valueAt(t, frame + 10 * rounds)).toBe(valueAt(t, frame));
      }),
    );
  });

  test('repeat: lengths that no number holds exactly fall to neither side of a seam', () => {
    for (const length of [0.1, 0.7, 1 / 3, 1.1]) {
      const keys: Track['keys'] = [
        { frame: 1, value: 0, ease: 'linear' },
        { frame: 1 + length, value: 1, ease: 'linear' },
      ];
      const t: Track = { keys, before: 'repeat', after: 'repeat' };
      for (let rounds = -300; rounds <= 300; rounds++) expect(valueAt(t, 1 + rounds * length)).toBe(0);
    }
  });

  test('ping-pong: mirrored about both ends, period twice the length', () => {
    const t = track('ping-pong', 'ping-pong');
    for (const d of [0.5, 1, 3.25, 9]) {
      expect(valueAt(t, 20 + d)).toBe(valueAt(t, 20 - d));
      expect(valueAt(t, 10 - d)).toBe(valueAt(t, 10 + d));
      expect(valueAt(t, 10 + d + 200)).toBe(valueAt(t, 10 + d));
    }
  });

  test('repeat with offset: every round begins where the last one ended', () => {
    const t = track('repeat-offset', 'repeat-offset');
    for (const d of [0.5, 1, 3.25, 9]) {
      expect(valueAt(t, 10 + d + 30)).toBeCloseTo(valueAt(t, 10 + d) + 3, 12);
      expect(valueAt(t, 10 + d - 20)).toBeCloseTo(valueAt(t, 10 + d) - 2, 12);
    }
    expect(valueAt(t, 30)).toBe(3);
  });

  test('before and after have cycles of their own, and one key alone is a constant', () => {
    expect(valueAt(track('hold', 'repeat'), 5)).toBe(1);
    expect(valueAt(track('hold', 'repeat'), 21.5)).toBe(1.75);
    const single: Track = { keys: [{ frame: 3, value: 8, ease: 'linear' }], before: 'repeat', after: 'ping-pong' };
    expect([0, 3, 50].map((frame) => valueAt(single, frame))).toEqual([8, 8, 8]);
  });

  test('hold easing steps on the next key', () => {
    const t: Track = {
      keys: [
        { frame: 0, value: 0, ease: 'hold' },
        { frame: 2, value: 1, ease: 'hold' },
      ],
      before: 'hold',
      after: 'hold',
    };
    expect([1.999, 2].map((frame) => valueAt(t, frame))).toEqual([0, 1]);
  });

  test('setting and moving keys keeps frames rising and loses no other key', () => {
    const t = track('hold', 'hold');
    expect(withKey(t, 12, 9).keys.map(({ frame, value, ease }) => [frame, value, ease])).toEqual([
      [10, 1, 'linear'],
      [12, 9, 'linear'],
      [14, 3, 'ease-in'],
      [20, 2, 'linear'],
    ]);
    expect(withKey(t, 14, 9).keys[1]).toEqual({ frame: 14, value: 9, ease: 'ease-in' });
    expect(withKeysMoved(t, new Map([[10, 16]])).keys.map(({ frame, value }) => [frame, value])).toEqual([
      [14, 3],
      [16, 1],
      [20, 2],
    ]);
    expect(withKeysMoved(t, new Map([[10, 20]])).keys.map(({ frame, value }) => [frame, value])).toEqual([
      [14, 3],
      [20, 1],
    ]);
    // Several at once, past each other.
    expect(
      withKeysMoved(
        t,
        new Map([
          [10, 14],
          [14, 10],
        ]),
      ).keys.map(({ frame, value }) => [frame, value]),
    ).toEqual([
      [10, 3],
      [14, 1],
      [20, 2],
    ]);
  });

  test('keys put in later take the places they land on', () => {
    const t = track('hold', 'hold');
    expect(withKeysPut(t, t.keys.slice(0, 2), 6).keys.map(({ frame, value }) => [frame, value])).toEqual([
      [10, 1],
      [14, 3],
      [16, 1],
      [20, 3],
    ]);
  });
});
