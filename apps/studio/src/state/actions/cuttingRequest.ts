import { create } from 'zustand';

/** What is about to be kept as a cutting: growths, or steps of one of them. */
export interface Asked {
  growths: readonly string[];
  steps?: readonly string[];
}

/** The sheet that keeps cuttings: what it is open for, or null. */
export const useKeepAsked = create<{ asked: Asked | null }>(() => ({ asked: null }));

/** Asks what of these is kept as a cutting, and under which name. */
export const askToKeep = (asked: Asked): void => useKeepAsked.setState({ asked });
