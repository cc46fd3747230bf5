import { useEffect, useRef, useState } from 'react';
import { useDocument } from '@/state/document/document';
import { sayProblem } from '@/state/toasts';
import { Engine } from '@/worker/engine';

/** An engine of a check's own, so that the studio stays free while it works. */
export function useOwnEngine<What extends string>() {
  const engine = useRef<Engine | null>(null);
  const [busy, setBusy] = useState<What | null>(null);
  const [share, setShare] = useState(0);
  useEffect(() => () => engine.current?.dispose(), []);

  const run = async <T>(
    what: What,
    work: (engine: Engine) => Promise<T | null>,
    take: (result: T) => void,
  ): Promise<void> => {
    engine.current ??= new Engine();
    engine.current.onProgress = setShare;
    engine.current.load(useDocument.getState().scene);
    setBusy(what);
    setShare(0);
    try {
      const result = await work(engine.current);
      if (result !== null) take(result);
    } catch (error) {
      sayProblem(error);
    } finally {
      setBusy(null);
    }
  };
  return { busy, share, run, cancel: () => engine.current?.cancel() };
}
