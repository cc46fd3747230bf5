import { useProjection } from '@/state/director/projection';

/** Milliseconds after which it is done though no picture has come, as where none can be drawn. */
const AT_LAST = 10_000;

/** Does something so many milliseconds after the first picture, so that nothing comes before it. @returns what calls it off */
export function afterFirstPicture(work: () => void, wait: number): () => void {
  let timer = setTimeout(begin, AT_LAST);
  const stop = useProjection.subscribe(({ drawn }) => drawn > 0 && soon());
  if (useProjection.getState().drawn > 0) soon();
  function soon(): void {
    stop();
    clearTimeout(timer);
    timer = setTimeout(begin, wait);
  }
  function begin(): void {
    stop();
    work();
  }
  return () => {
    stop();
    clearTimeout(timer);
  };
}
