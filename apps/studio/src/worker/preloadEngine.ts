let early: Worker | null = null;

const started = (): Worker =>
  new Worker(new URL('./engine.worker.ts', import.meta.url), { type: 'module', name: 'uvrex-engine' });

/**
 * Starts an engine's worker before there is a scene for it: it reads its script while the page reads its own. Nothing happens where
 * one stands ready already.
 */
export function startEarly(): void {
  if (early) return;
  const worker = (early = started());
  // One that cannot start is no use to anybody: the next one tells whoever waits.
  worker.addEventListener('error', () => {
    if (early === worker) early = null;
  });
}

/** The worker that stands ready, or a new one. */
export function takeWorker(): Worker {
  const worker = early ?? started();
  early = null;
  return worker;
}

/** Ends the worker that stands ready, where nobody has come to want it. */
export function endEarly(): void {
  early?.terminate();
  early = null;
}
