import { paramFault, stepOf } from '@uvrex/core';
import { evenly, GRADIENT_PRESETS, PROFILE_PRESETS } from './presetLists';

test('every preset is a value that its parameter takes', () => {
  for (const { points } of PROFILE_PRESETS) expect(paramFault(stepOf('tube')!.params.along, points)).toBeNull();
  for (const { colors } of GRADIENT_PRESETS)
    expect(paramFault(stepOf('finish')!.params.gradient, evenly(colors))).toBeNull();
});

test('colours are spread evenly from end to end; one stands at the beginning', () => {
  expect(evenly(['#000000', '#111111', '#222222']).map(({ at }) => at)).toEqual([0, 0.5, 1]);
  expect(evenly(['#000000'])).toEqual([{ at: 0, color: '#000000' }]);
});
