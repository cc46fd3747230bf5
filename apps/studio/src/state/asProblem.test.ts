import { Problem } from '@uvrex/core';
import { asProblem } from './asProblem';

beforeEach(() => void jest.spyOn(console, 'error').mockImplementation(() => undefined));
afterEach(() => jest.restoreAllMocks());

test.each([
  [new DOMException('The quota has been exceeded.', 'QuotaExceededError'), /no room left/],
  [Object.assign(new Error('Some text https://x.test'), { name: 'OpenFailedError' }), /storage could not be used/],
  [Object.assign(new Error('Loading chunk 12 failed'), { name: 'ChunkLoadError' }), /could not be loaded/],
  [new TypeError("Cannot read properties of undefined (reading 'x')"), /unexpected/],
  ['a text', /unexpected/],
  [undefined, /unexpected/],
])('%s is told in our words, with what to do', (error, words) => {
  const problem = asProblem(error);
  expect(problem.message).toMatch(words);
  expect(problem.advice).toMatch(/\w+/);
  expect(`${problem.message} ${problem.advice}`).not.toMatch(/https?:|QuotaExceeded|properties of|chunk/i);
});

test('a problem stays what it is, from a worker too', () => {
  const own = new Problem('Too many points.', 'Lower Count.');
  expect(asProblem(own)).toBe(own);
  expect(asProblem(Object.assign(new Error('Too many points.'), { name: 'Problem' })).message).toBe('Too many points.');
});
