/** @jest-environment ./scripts/dom.mjs */
import { act, fireEvent, screen } from '@testing-library/react';
import { HelpTooltip } from './HelpTooltip';
import { renderThemed } from './testing';

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

const help = () => screen.queryByRole('tooltip');
const wait = (milliseconds: number): void => act(() => jest.advanceTimersByTime(milliseconds));
const button = () => screen.getByRole('button', { name: 'Step' });
const show = (hidden = false) =>
  renderThemed(
    <HelpTooltip help="What it does" hidden={hidden}>
      <button aria-label="Step">Step</button>
    </HelpTooltip>,
  );

test('help comes after a rest, not at once', () => {
  show();
  fireEvent.mouseOver(button());
  wait(300);
  expect(help()).toBeNull();
  wait(600);
  expect(help()?.textContent).toBe('What it does');
});

test('a press closes it, and it does not come over what the press has opened', () => {
  show();
  fireEvent.mouseOver(button());
  wait(900);
  fireEvent.mouseDown(button());
  fireEvent.click(button());
  wait(3000);
  expect(help()).toBeNull();
});

test('what stands open, or is dragged, shows none', () => {
  show(true);
  fireEvent.mouseOver(button());
  wait(3000);
  expect(help()).toBeNull();
});
