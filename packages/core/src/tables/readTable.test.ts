import { columnOf, readTable } from './readTable';

const read = (text: string) => readTable(new TextEncoder().encode(text));

// RFC 4180, section 2: quoted fields, commas and line breaks in them, doubled quotes.
test('reads what RFC 4180 describes', () => {
  const table = read('name,"height, m",note\r\n"a ""b""",1.5,"two\r\nlines"\r\nc,2,\r\n');
  expect(table.names).toEqual(['name', 'height, m', 'note']);
  expect(table.rows).toBe(2);
  expect([...columnOf(table, 'height, m')]).toEqual([1.5, 2]);
  expect([...columnOf(table, 'NAME')]).toEqual([NaN, NaN]);
});

test.each([
  ['a;b\n1,5;2\n-3,25;4\n', [1.5, -3.25]],
  ['a\tb\n1,5\t2\n-3.25\t4\n', [1.5, -3.25]],
  ['1.5,2\n-3.25,4', [1.5, -3.25]],
  ['\uFEFFa,b\n1.5,x\n-3.25e0,', [1.5, -3.25]],
])('finds the separator, decimal commas and whether there is a header: %j', (text, first) => {
  const table = read(text);
  expect([...columnOf(table, '')]).toEqual(first);
  expect([...columnOf(table, '1')]).toEqual(first);
  expect(table.rows).toBe(2);
});

test('rows that are short or hold words have no number there; empty ones do not count', () => {
  const table = read('a,b\n1,2\n\n3\nx,4\n');
  expect([...columnOf(table, 'a')]).toEqual([1, 3, NaN]);
  expect([...columnOf(table, 'b')]).toEqual([2, NaN, 4]);
});

test('the first column with numbers is the one where none is asked for', () => {
  expect([...columnOf(read('name,value\na,7\nb,8'), '')]).toEqual([7, 8]);
});

test('says what it lacks', () => {
  expect(() => read('a,b\nc,d')).toThrow('The table holds no numbers.');
  expect(() => read('')).toThrow('The table holds no numbers.');
  expect(() => columnOf(read('a,b\n1,2'), 'd')).toThrow('The table has no column “d”.');
});
