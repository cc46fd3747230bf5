import { turnPattern } from './turnPattern';

const degrees = (radians: number): number => (radians * 180) / Math.PI;

test('a list begins again after its last turn, and comes to nothing over any number', () => {
  const list = turnPattern(' 0, 90; 45 ');
  expect(list.length).toBe(3);
  expect([0, 1, 2, 3, -1].map((k) => Math.round(degrees(list.at(k))))).toEqual([0, 90, 45, 0, 45]);
  expect(list.over(7)).toBe(0);
  expect(list.closing(7)).toBe(list);
});

test('an angle that goes on begins anew with every copy, and is fitted by as little as it takes to close', () => {
  const on = turnPattern('+50');
  expect(on.length).toBe(1);
  expect([0, 1, 2, 8].map((k) => Math.round(degrees(on.at(k))))).toEqual([0, 50, 100, 40]);
  // 7 · 50 is ten less than a whole turn, 8 · 50 forty more.
  expect(degrees(on.over(7))).toBeCloseTo(-10, 9);
  expect(degrees(on.over(8))).toBeCloseTo(40, 9);
  const closed = on.closing(7);
  expect(degrees(closed.at(1))).toBeCloseTo(360 / 7, 9);
  expect(degrees(closed.over(7))).toBeCloseTo(0, 9);
});

test('what is no list of turns is refused by its own words', () => {
  for (const text of ['', 'left', '+', '1, x'])
    expect(() => turnPattern(text)).toThrow(`“${text}” is no list of turns.`);
});
