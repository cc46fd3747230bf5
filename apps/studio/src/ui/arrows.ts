import type { KeyboardEvent } from 'react';

const WAYS: Record<string, 1 | -1> = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 };

/**
 * Arrow keys within a group of radio buttons or options: the next one is chosen and has the focus, past the last the first
 * (WAI-ARIA Authoring Practices, radio group and listbox patterns). For the group's own key handler.
 */
export function chooseByArrows(event: KeyboardEvent<HTMLElement>): void {
  const way = WAYS[event.key];
  if (!way) return;
  const all = [...event.currentTarget.querySelectorAll<HTMLElement>('[role="radio"],[role="option"]')].filter(
    (one) => !(one instanceof HTMLButtonElement && one.disabled),
  );
  const at = all.indexOf(document.activeElement as HTMLElement);
  if (at < 0) return;
  const next = all[(at + way + all.length) % all.length];
  next.focus();
  next.click();
  event.preventDefault();
  event.stopPropagation();
}
