import type { StepContext } from '../declare';
import { smoothstep } from '../../fields/smoothstep';

/** Strength of a push at a rest coordinate: 0 at the base, 1 from `hold` on, smooth in between (smoothstep). */
export function held(u: number, hold: number): number {
  return u >= hold ? 1 : smoothstep(u / hold);
}

/** How far something that changes at a rate has come at a frame. */
export interface Progress {
  /** Changes since the first frame. */
  passed: number;
  /** Whole changes over the range when it is to loop, else 0: the state at `passed + period` is that at `passed`. */
  period: number;
}

/**
 * Progress of a steady change. When it loops, its rate is fitted so that a whole number of changes, one at least, fills
 * the range: the frame past the last is then exactly the first.
 * @param rate changes a second; negative ones run backwards
 */
export function progressOf(rate: number, loop: boolean, context: StepContext): Progress {
  // What does not change does not ask for the time, and is kept from frame to frame.
  if (rate === 0) return { passed: 0, period: 0 };
  const {
    frame,
    fps,
    range: [first, last],
  } = context;
  const frames = last - first + 1;
  if (!loop) return { passed: ((frame - first) / fps) * rate, period: 0 };
  const whole = Math.max(1, Math.round((Math.abs(rate) * frames) / fps));
  return { passed: Math.sign(rate) * ((frame - first) / frames) * whole, period: whole };
}
