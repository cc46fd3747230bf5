/**
 * Gives the focus to a row of the lists, by the id of its growth or step, once it stands there: after what had it is gone. What
 * has taken it in the meantime keeps it.
 */
export function focusRow(id: string | undefined, otherwise?: Element | null): void {
  whenFree(() => {
    const row = id === undefined ? null : document.querySelector<HTMLElement>(`[data-row="${window.CSS.escape(id)}"]`);
    if (row) row.focus();
    else if (otherwise instanceof HTMLElement && otherwise.isConnected) otherwise.focus();
  });
}

/** Gives the focus to the first thing in an element that can have it, after what had it in there is gone. */
export function focusFirstIn(element: Element | null): void {
  whenFree(() => element?.querySelector<HTMLElement>('button, a[href], [tabindex="0"]')?.focus());
}

/** Does it when nothing has the focus: one frame for what is gone to go, one for what comes to stand. */
function whenFree(act: () => void): void {
  requestAnimationFrame(() =>
    requestAnimationFrame(() => {
      const { activeElement } = document;
      if (!activeElement || activeElement === document.body) act();
    }),
  );
}

/** The id of the row that takes the place of one that goes: the one after it, or before it at the end. */
export function rowBeside(rows: readonly { id: string }[], id: string): string | undefined {
  const at = rows.findIndex((row) => row.id === id);
  return (rows[at + 1] ?? rows[at - 1])?.id;
}
