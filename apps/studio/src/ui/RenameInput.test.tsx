/** @jest-environment ./scripts/dom.mjs */
import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { RenameInput } from './RenameInput';
import { renderThemed } from './testing';

const asked: (string | null)[] = [];
beforeEach(() => void (asked.length = 0));

test.each([
  ['Enter takes it, without blanks about it', '  Kelp  {Enter}', 'Kelp'],
  ['leaving takes it', 'Kelp{Tab}', 'Kelp'],
  ['Escape drops it', 'Kelp{Escape}', null],
  ['nothing is no name', '{Backspace}{Enter}', null],
  ['blanks are no name', '   {Enter}', null],
  ['the same is no change', 'Frond{Enter}', null],
])('%s', async (_, typed, name) => {
  const user = userEvent.setup();
  const keys = jest.fn();
  renderThemed(
    <div onKeyDown={keys}>
      <RenameInput value="Frond" label="Name of Frond" done={(given) => asked.push(given)} />
    </div>,
  );
  // All of it is selected: what is typed takes its place.
  expect(document.activeElement).toBe(screen.getByRole('textbox', { name: 'Name of Frond' }));
  await user.keyboard(typed);
  expect(asked[0]).toBe(name);
  // Keys of the row that it stands in are not called by what is typed.
  expect(keys).not.toHaveBeenCalled();
});
