import { tips } from './tips';

test('by what riders are mixed is asked only where there are several', () => {
  const { shown } = tips.params.mix;
  expect(shown!({ growth: 'bud', second: 'leaf' })).toBe(true);
  expect(shown!({ growth: 'bud', second: null })).toBe(false);
  expect(shown!({ growth: null, second: 'leaf' })).toBe(false);
});
