/** @jest-environment ./scripts/dom.mjs */
import { fireEvent, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useSizes } from '@/state/storage/panelSizes';
import { Divider } from './Divider';
import { pointerOn, renderThemed } from './testing';

// After the pattern for window splitters: https://www.w3.org/WAI/ARIA/apg/patterns/windowsplitter/
const show = (part: 'panel' | 'timeline', edge: 'right' | 'top', size: number): HTMLElement => {
  useSizes.setState({ panel: null, list: null, timeline: null });
  const { container } = renderThemed(
    <div>
      <Divider part={part} label="Width of the steps" edge={edge} />
    </div>,
  );
  container.firstElementChild!.getBoundingClientRect = () => ({ width: size, height: size }) as DOMRect;
  return screen.getByRole('separator', { name: 'Width of the steps' });
};

test('is stepped by the arrow keys and goes to its ends by Home and End; Enter sets it back', async () => {
  const user = userEvent.setup();
  Object.assign(window, { innerWidth: 1280, innerHeight: 800 });
  const divider = show('panel', 'right', 356);
  expect(divider.getAttribute('aria-orientation')).toBe('vertical');
  expect(getComputedStyle(divider).cursor).toBe('col-resize');
  divider.focus();
  await user.keyboard('{ArrowRight}');
  expect(useSizes.getState().panel).toBe(372);
  expect(divider.getAttribute('aria-valuenow')).toBe('372');
  await user.keyboard('{ArrowLeft}');
  expect(useSizes.getState().panel).toBe(340);
  await user.keyboard('{End}');
  // What is left for the picture is 700 wide at least.
  expect(useSizes.getState().panel).toBe(580);
  expect(divider.getAttribute('aria-valuemax')).toBe('580');
  await user.keyboard('{Home}');
  expect(useSizes.getState().panel).toBe(300);
  await user.keyboard('{Enter}');
  expect(useSizes.getState().panel).toBeNull();
});

test('on the upper edge its box grows as it goes up; it is let go of where the pointer is taken away', () => {
  const divider = show('timeline', 'top', 236);
  pointerOn(divider).down(0, 500);
  pointerOn(divider).move(0, 460);
  expect(useSizes.getState().timeline).toBe(276);
  pointerOn(divider).cancel();
  pointerOn(divider).move(0, 400);
  expect(useSizes.getState().timeline).toBe(276);
  fireEvent.doubleClick(divider);
  expect(useSizes.getState().timeline).toBeNull();
});

test('is held by the main button alone', () => {
  const divider = show('panel', 'right', 356);
  pointerOn(divider).down(356, 0, { button: 2, buttons: 2 });
  pointerOn(divider).move(400);
  expect(useSizes.getState().panel).toBeNull();
});
