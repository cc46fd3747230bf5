import fc from 'fast-check';
import { boxAround, middleOf, sidesOf } from './box';
import { at } from './vec';

const places = fc
  .array(fc.tuple(...[0, 1, 2].map(() => fc.float({ min: -1000, max: 1000, noNaN: true }))), { minLength: 1 })
  .map((list) => list.flat());

test('every place lies in the box, and each of its sides touches one', () => {
  fc.assert(
    fc.property(places, (positions) => {
      const { low, high } = boxAround(positions);
      for (let c = 0; c < 3; c++) {
        const own = positions.filter((_, i) => i % 3 === c);
        expect(own.every((x) => x >= low[c] && x <= high[c])).toBe(true);
        expect(own).toContain(low[c]);
        expect(own).toContain(high[c]);
      }
    }),
  );
});

test('a box round a box and more is the box round all', () => {
  fc.assert(
    fc.property(places, places, (a, b) => {
      expect(boxAround(b, boxAround(a))).toEqual(boxAround([...a, ...b]));
    }),
  );
});

test('of nothing, of one place, and of two', () => {
  expect(boxAround([]).low[0]).toBe(Infinity);
  expect(sidesOf(boxAround([]))[1]).toBeLessThan(0);
  expect(sidesOf(boxAround([1, 2, 3]))).toEqual([0, 0, 0]);
  const box = boxAround([1, -2, 3, 5, 4, -7]);
  expect(sidesOf(box)).toEqual([4, 6, 10]);
  expect(middleOf(box)).toEqual(at([3, 1, -2], 0));
});
