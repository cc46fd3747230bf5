import { limitsOf, within } from './panelSizes';

test('parts leave the picture and its bars their room, in any window', () => {
  expect(limitsOf('panel', [1280, 800])).toEqual([300, 580]);
  expect(limitsOf('panel', [2560, 1440])).toEqual([300, 640]);
  // A narrow window is scrolled to the side: the panel keeps its least.
  expect(limitsOf('panel', [1000, 700])).toEqual([300, 300]);
  expect(limitsOf('timeline', [1280, 800])).toEqual([150, 534]);
  expect(limitsOf('list', [1280, 600])).toEqual([90, 300]);
});

test('what was drawn in a larger window gives way in a smaller one', () => {
  expect(within('panel', 640)).toBe('min(640px, max(300px, 100vw - 700px))');
  expect(within('timeline', 500)).toBe('min(500px, max(150px, 100vh - 266px))');
});
