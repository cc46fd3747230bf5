import { create } from 'zustand';
import { say, sayProblem } from '@/state/toasts';

/** Something that was deleted, and can be brought back. */
export interface Deleted {
  key: number;
  name: string;
  restore: () => Promise<void>;
}

/** What was deleted since the page was loaded, the last first. */
export const useDeleted = create<{ list: readonly Deleted[] }>(() => ({ list: [] }));

let count = 0;

/** Brings one back, and takes it off the list. */
export async function restoreDeleted({ key, restore }: Deleted): Promise<void> {
  await restore();
  useDeleted.setState(({ list }) => ({ list: list.filter((entry) => entry.key !== key) }));
}

/** Says that something is deleted, offers to bring it back, and keeps the way back in the list. */
export async function announceDeleted(name: string, deleting: Promise<() => Promise<void>>): Promise<void> {
  try {
    const entry: Deleted = { key: ++count, name, restore: await deleting };
    useDeleted.setState(({ list }) => ({ list: [entry, ...list] }));
    say({
      tone: 'info',
      text: `“${name}” is deleted.`,
      action: { label: 'Bring it back', run: () => void restoreDeleted(entry).catch(sayProblem) },
    });
  } catch (error) {
    sayProblem(error);
  }
}
