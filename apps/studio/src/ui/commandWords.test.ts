import { COMMANDS } from '@/state/actions/commands';
import { COMMAND_WORDS } from './commandWords';

test('every entry belongs to a command, and finds it by words that its label has not', () => {
  const labels = new Map(COMMANDS.map(({ id, label }) => [id, label.toLowerCase()]));
  for (const [id, words] of Object.entries(COMMAND_WORDS)) {
    expect(labels.has(id)).toBe(true);
    expect(words.split(' ').some((word) => !labels.get(id)!.includes(word))).toBe(true);
  }
});
