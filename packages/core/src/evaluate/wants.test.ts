import { newStep } from '../scene/make';
import type { ParamValue, Step } from '../scene/schema';
import { wantsAge } from './wants';

const varied = (by: 'random' | 'attribute', attribute: string): Step =>
  newStep('tube', {
    radius: {
      base: 0.1,
      vary: {
        by,
        amount: 0.3,
        waves: 2,
        attribute,
        span: [0, 1],
        shape: [
          { at: 0, value: 0 },
          { at: 1, value: 1 },
        ],
      },
    } as ParamValue,
  });

test('only a number that goes by the age of what has grown asks for it', () => {
  expect(wantsAge(varied('attribute', 'age'))).toBe(true);
  // What it would go by, were it not by chance.
  expect(wantsAge(varied('random', 'age'))).toBe(false);
  expect(wantsAge(varied('attribute', 'level'))).toBe(false);
  expect(wantsAge(newStep('tube'))).toBe(false);
});
