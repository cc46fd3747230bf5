import { anchorsOf } from './anchorRows';

test('rows of a sheet: tabs, spaces or semicolons, decimal commas, size and lean where they are', () => {
  expect(anchorsOf('0\t1\t2\n3 4 5')).toEqual([
    [0, 1, 2],
    [3, 4, 5],
  ]);
  expect(anchorsOf('0,5; 1; 2; 150; 30')).toEqual([[0.5, 1, 2, 1.5, 30]]);
  expect(anchorsOf('0 0 0 100 0')).toEqual([[0, 0, 0]]);
});

test('anything else is not taken', () => {
  for (const text of ['', 'some words here', '1 2', '1 2 3 4 5 6', '1 2 x', '0 0 0 -5'])
    expect(anchorsOf(text)).toBeNull();
});
