/** @jest-environment ./scripts/dom.mjs */
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { act, fireEvent } from '@testing-library/react';
import { renderThemed } from './testing';

/** A list that is pressed open at a place, on a page that is too busy to take the release before a second has gone. */
function pressed() {
  jest.useFakeTimers();
  const chosen: string[] = [];
  const { getByRole, queryByRole } = renderThemed(
    <Select value="leaf" onChange={(event) => chosen.push(event.target.value)}>
      <MenuItem value="leaf">Leaf</MenuItem>
      <MenuItem value="petal">Petal</MenuItem>
    </Select>,
  );
  fireEvent.mouseDown(getByRole('combobox'), { clientX: 200, clientY: 480 });
  act(() => {
    jest.advanceTimersByTime(1000);
  });
  const release = (clientY: number): void =>
    void fireEvent.mouseUp(getByRole('option', { name: 'Petal' }), { clientX: 201, clientY });
  return { chosen, release, isOpen: () => queryByRole('listbox') !== null };
}

afterEach(() => jest.useRealTimers());

test('a release where the press was chooses nothing, however late it comes: the list stands over its field', () => {
  const { chosen, release, isOpen } = pressed();
  release(482);
  expect(chosen).toEqual([]);
  expect(isOpen()).toBe(true);
});

test('a press that is drawn to an option and let go there chooses it', () => {
  const { chosen, release } = pressed();
  release(520);
  expect(chosen).toEqual(['petal']);
});

test('an option that is clicked is chosen, and so is one at the place of the press', () => {
  const { chosen, release } = pressed();
  release(480);
  const option = document.querySelectorAll('[role=option]')[1];
  fireEvent.mouseDown(option, { clientX: 200, clientY: 480 });
  fireEvent.mouseUp(option, { clientX: 200, clientY: 480 });
  fireEvent.click(option);
  expect(chosen).toEqual(['petal']);
});
