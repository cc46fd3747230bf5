import { create } from 'zustand';
import { Problem } from '@uvrex/core';

export interface Toast {
  tone: 'info' | 'success' | 'error';
  text: string;
  /** What to do about it. */
  advice?: string;
  action?: { label: string; run: () => void };
  /** Stays until another takes its place or it is closed. */
  lasting?: boolean;
}

/** The message at the foot of the page. */
export const useToasts = create<{ current: (Toast & { key: number }) | null }>(() => ({ current: null }));

let count = 0;

/** Shows a message at the foot of the page; a new one takes the place of the old. */
export const say = (toast: Toast): void => useToasts.setState({ current: { ...toast, key: ++count } });

/** Shows what went wrong and what to do. */
export function sayProblem(error: unknown): void {
  if (error instanceof Problem) return say({ tone: 'error', text: error.message, advice: error.advice });
  // Words for all other errors are loaded when there is one.
  void import('../state/asProblem').then(({ asProblem }) => sayProblem(asProblem(error)));
}

/** Milliseconds of work before progress is shown. */
const SHOW_AFTER = 500;

/**
 * Does work that may take long: past half a second a message says so and offers to cancel it.
 * @returns null when it was cancelled
 */
export async function withProgress<T>(text: string, work: (signal: AbortSignal) => Promise<T>): Promise<T | null> {
  const abort = new AbortController();
  const key = count + 1;
  const timer = setTimeout(
    () => say({ tone: 'info', text, lasting: true, action: { label: 'Cancel', run: () => abort.abort() } }),
    SHOW_AFTER,
  );
  try {
    return await work(abort.signal);
  } catch (error) {
    if (abort.signal.aborted) return null;
    throw error;
  } finally {
    clearTimeout(timer);
    useToasts.setState(({ current }) => (current?.text === text && current.key >= key ? { current: null } : {}));
  }
}
