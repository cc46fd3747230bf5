import { create } from 'zustand';
import { type Command, COMMANDS } from '../actions/commands';

const KEPT = 'uvrex-keys';

/** Keys that commands have here instead of those they come with, by their ids; an empty text for none. */
type Own = Readonly<Record<string, string>>;

function kept(): Own {
  try {
    const told = JSON.parse(localStorage.getItem(KEPT) ?? '{}') as Record<string, unknown>;
    const known = COMMANDS.flatMap(({ id }) => {
      const keys = told[id];
      return typeof keys === 'string' ? [[id, keys] as const] : [];
    });
    return Object.fromEntries(known);
  } catch {
    // As they come, then.
    return {};
  }
}

/** The keys of one's own choice, on this device. */
export const useKeys = create<{ own: Own }>(() => ({ own: kept() }));

const keep = (own: Own): void => {
  useKeys.setState({ own });
  try {
    localStorage.setItem(KEPT, JSON.stringify(own));
  } catch {
    // They hold until the page is left.
  }
};

/** The keys that call a command, in the notation of react-hotkeys-hook; none where it is empty. */
export const keysOf = ({ id, keys = '' }: Pick<Command, 'id' | 'keys'>, own: Own = useKeys.getState().own): string =>
  own[id] ?? keys;

/** What the browser, or every dialog, keeps for itself. */
const TAKEN = [
  'mod+w',
  'mod+t',
  'mod+n',
  'mod+q',
  'mod+r',
  'mod+c',
  'mod+v',
  'mod+x',
  'mod+l',
  'tab',
  'shift+tab',
  'enter',
];

/**
 * Gives a command other keys; another that had them has them no longer.
 * @returns why they cannot be had, or null
 */
export function giveKeys(id: string, keys: string): string | null {
  if (TAKEN.includes(keys)) return 'The browser keeps these keys for itself: choose others.';
  const { own } = useKeys.getState();
  const next: Record<string, string> = { ...own, [id]: keys };
  for (const command of COMMANDS) {
    if (command.id === id) continue;
    const all = keysOf(command, own).split(', ');
    if (all.includes(keys)) next[command.id] = all.filter((one) => one !== keys).join(', ');
  }
  keep(next);
  return null;
}

/** Gives a command, or all of them, the keys that they come with. */
export function resetKeys(): void {
  keep({});
}

const NAMED: Readonly<Record<string, string>> = {
  ...{ ArrowLeft: 'left', ArrowRight: 'right', ArrowUp: 'up', ArrowDown: 'down', Space: 'space', Comma: 'comma' },
  ...{ Period: 'period', Slash: 'slash', Semicolon: 'semicolon', Quote: 'quote', Minus: 'minus', Equal: 'equal' },
  ...{ BracketLeft: 'bracketleft', BracketRight: 'bracketright', Backslash: 'backslash', Backquote: 'backquote' },
  ...{ Home: 'home', End: 'end', PageUp: 'pageup', PageDown: 'pagedown', Insert: 'insert', Delete: 'delete' },
  ...{ Backspace: 'backspace', Tab: 'tab', Enter: 'enter' },
};

/** The keys of an event in the notation of react-hotkeys-hook; null while only Shift or the like are held. */
export function keysPressed(
  event: Pick<KeyboardEvent, 'code' | 'ctrlKey' | 'metaKey' | 'altKey' | 'shiftKey'>,
): string | null {
  const plain =
    /^(?:Key|Digit)(.)$/.exec(event.code)?.[1].toLowerCase() ?? /^F\d+$/.exec(event.code)?.[0].toLowerCase();
  const key = plain ?? NAMED[event.code];
  if (!key) return null;
  const held = [
    ...(event.ctrlKey || event.metaKey ? ['mod'] : []),
    ...(event.altKey ? ['alt'] : []),
    ...(event.shiftKey ? ['shift'] : []),
  ];
  return [...held, key].join('+');
}
