/** @jest-environment ./scripts/dom.mjs */
import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { type Entry, Picker, type Section } from './Picker';
import { renderThemed } from './testing';

const entry = (label: string, more: Partial<Entry> = {}): Entry => ({ id: label, label, run: () => {}, ...more });
/** Two rows of cards, four and two, and below them two rows with help. */
const SECTIONS: Section[] = [
  {
    title: 'Starts',
    as: 'cards',
    entries: ['Line', 'Arc', 'Helix', 'Text', 'Web', 'Maze'].map((label) => entry(label)),
  },
  {
    title: 'Commands',
    as: 'rows',
    entries: [entry('Undo'), entry('Paste', { off: 'Nothing is copied.', words: 'insert' })],
  },
];

let picked: string[] = [];
const show = (): ReturnType<typeof userEvent.setup> => {
  picked = [];
  renderThemed(
    <Picker
      label="Add"
      placeholder="Find"
      sections={SECTIONS}
      close={() => picked.push('closed')}
      pick={({ label }) => picked.push(label)}
    />,
  );
  return userEvent.setup();
};
/** What the keyboard stands on, for those who see it and for those who are told. */
const active = (): string => {
  const [selected, ...others] = screen.getAllByRole('option', { selected: true });
  expect(others).toEqual([]);
  expect(screen.getByRole('combobox', { name: 'Find' }).getAttribute('aria-activedescendant')).toBe(selected.id);
  return selected.id.replace('picker-', '');
};

test('keys go along a row of cards, from row to row as far along, and on into what stands below', async () => {
  const user = show();
  expect(active()).toBe('Line');
  const at = async (keys: string): Promise<string> => {
    await user.keyboard(keys);
    return active();
  };
  expect(await at('{ArrowRight}{ArrowRight}')).toBe('Helix');
  // There are two cards in the row below: the last is nearest.
  expect(await at('{ArrowDown}')).toBe('Maze');
  expect(await at('{ArrowDown}')).toBe('Undo');
  expect(await at('{ArrowDown}{ArrowDown}')).toBe('Paste');
  expect(await at('{ArrowUp}{ArrowUp}')).toBe('Maze');
  expect(await at('{ArrowUp}{ArrowUp}{ArrowLeft}{ArrowLeft}')).toBe('Line');
  await user.keyboard('{ArrowRight}{Enter}');
  expect(picked).toEqual(['Arc']);
});

test('what is typed finds among names and other words, and begins at the first; what cannot be had now is not picked', async () => {
  const user = show();
  await user.keyboard('{ArrowRight}{ArrowRight}');
  await user.keyboard('insert');
  expect(screen.getAllByRole('option')).toHaveLength(1);
  expect(active()).toBe('Paste');
  expect(within(screen.getByRole('option')).getByText('Nothing is copied.')).toBeTruthy();
  await user.keyboard('{Enter}');
  await user.click(screen.getByRole('option'));
  expect(picked).toEqual([]);
  await user.clear(screen.getByRole('combobox', { name: 'Find' }));
  await user.keyboard('nobody');
  expect(screen.queryAllByRole('option')).toEqual([]);
  expect(screen.getByText('Nothing is called that.')).toBeTruthy();
});

test('a click picks; Escape closes', async () => {
  const user = show();
  await user.click(screen.getByRole('option', { name: 'Web' }));
  await user.keyboard('{Escape}');
  expect(picked).toEqual(['Web', 'closed']);
});

test('what belongs together is told together', () => {
  show();
  expect(screen.getAllByRole('group').map((group) => group.getAttribute('aria-label'))).toEqual(['Starts', 'Commands']);
  expect(within(screen.getByRole('group', { name: 'Commands' })).getAllByRole('option')).toHaveLength(2);
});
