import { useSyncExternalStore } from 'react';

/** A phone: narrow, and touched. A narrow window, or a page that is zoomed, is scrolled instead. */
const PHONE = '(max-width: 760px) and (pointer: coarse)';

const subscribe = (told: () => void): (() => void) => {
  const query = window.matchMedia(PHONE);
  query.addEventListener('change', told);
  return () => query.removeEventListener('change', told);
};

/** Whether the screen is too small to edit on. */
export const useSmallScreen = (): boolean => useSyncExternalStore(subscribe, () => window.matchMedia(PHONE).matches);
