/**
 * Awaited between pieces of long work: it yields to the event loop, so that messages come in, and throws when the work is no
 * longer wanted.
 */
export type YieldNow = () => Promise<void>;
