import { type Scale, xOf } from '../state/document/timeScale';

/** Keys that one mark on the timeline stands for. */
export interface Mark {
  x: number;
  /** Numbers of the first key and past the last, in the order of their frames. */
  from: number;
  to: number;
}

/** So many keys can be told apart; more are drawn together where they are closer than a hand can take them. */
const APART = 300;
/** Pixels from one mark to the next when keys are drawn together. */
const NARROWEST = 7;

/**
 * The marks for keys at rising frames: those in sight, one each, or where there are very many of them one for all that lie too
 * close together, so that the timeline draws no more than there is room for.
 */
export function marksOf(frames: readonly number[], scale: Scale): Mark[] {
  const marks: Mark[] = [];
  const inSight = (x: number): boolean => x >= scale.left - 6 && x <= scale.right + 6;
  const places = frames.map((frame) => xOf(scale, frame));
  const together = places.filter(inSight).length > APART;
  places.forEach((x, k) => {
    if (!inSight(x)) return;
    const last = marks.at(-1);
    if (together && last && x - last.x < NARROWEST) last.to = k + 1;
    else marks.push({ x, from: k, to: k + 1 });
  });
  return marks;
}
