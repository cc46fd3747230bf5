import { COMMANDS } from '../actions/commands';
import { giveKeys, keysOf, keysPressed, resetKeys, useKeys } from './shortcuts';

const command = (id: string) => COMMANDS.find((entry) => entry.id === id)!;

beforeEach(() => resetKeys());

const pressed = (code: string, ...held: ('ctrlKey' | 'metaKey' | 'altKey' | 'shiftKey')[]): string | null =>
  keysPressed({
    ...{ code, ctrlKey: false, metaKey: false, altKey: false, shiftKey: false },
    ...Object.fromEntries(held.map((key) => [key, true])),
  });

test('keys are told by where they lie, with what is held', () => {
  expect(pressed('KeyG')).toBe('g');
  expect(pressed('Digit3', 'shiftKey')).toBe('shift+3');
  expect(pressed('ArrowLeft', 'ctrlKey', 'altKey')).toBe('mod+alt+left');
  expect(pressed('KeyZ', 'metaKey', 'shiftKey')).toBe('mod+shift+z');
  expect(pressed('ShiftLeft', 'shiftKey')).toBeNull();
});

test('a command gets other keys, and who had them has them no longer', () => {
  expect(giveKeys('grid', 'g')).toBeNull();
  expect(keysOf(command('grid'))).toBe('g');
  expect(keysOf(command('align'))).toBe('');
  expect(giveKeys('measure', 'backspace')).toBeNull();
  // One of two.
  expect(keysOf(command('remove'))).toBe('delete');
  const all = COMMANDS.flatMap((entry) => keysOf(entry).split(', ').filter(Boolean));
  expect(new Set(all).size).toBe(all.length);
  resetKeys();
  expect(keysOf(command('align'))).toBe('g');
});

test('what the browser keeps for itself is refused', () => {
  expect(giveKeys('grid', 'mod+w')).toMatch(/browser/);
  expect(useKeys.getState().own).toEqual({});
});
