import * as d3 from 'd3-ease';

/** Control points x1, y1, x2, y2 of a cubic Bézier from (0, 0) to (1, 1); x1 and x2 in 0..1. */
export type BezierEase = readonly [number, number, number, number];

/** The keywords of the CSS Easing Functions Level 1 recommendation, section 2, with the curves that it gives them. */
export const CSS_EASES = {
  ease: [0.25, 0.1, 0.25, 1],
  'ease-in': [0.42, 0, 1, 1],
  'ease-out': [0, 0, 0.58, 1],
  'ease-in-out': [0.42, 0, 0.58, 1],
} as const satisfies Record<string, BezierEase>;

/** The families that the trade names by their formula (after Robert Penner's easing equations). */
const FAMILIES = {
  'sine-in': d3.easeSinIn,
  'sine-out': d3.easeSinOut,
  'sine-in-out': d3.easeSinInOut,
  'quad-in': d3.easeQuadIn,
  'quad-out': d3.easeQuadOut,
  'quad-in-out': d3.easeQuadInOut,
  'cubic-in': d3.easeCubicIn,
  'cubic-out': d3.easeCubicOut,
  'cubic-in-out': d3.easeCubicInOut,
  'expo-in': d3.easeExpIn,
  'expo-out': d3.easeExpOut,
  'expo-in-out': d3.easeExpInOut,
  'circle-in': d3.easeCircleIn,
  'circle-out': d3.easeCircleOut,
  'circle-in-out': d3.easeCircleInOut,
  'back-in': d3.easeBackIn,
  'back-out': d3.easeBackOut,
  'back-in-out': d3.easeBackInOut,
  'elastic-in': d3.easeElasticIn,
  'elastic-out': d3.easeElasticOut,
  'elastic-in-out': d3.easeElasticInOut,
  'bounce-in': d3.easeBounceIn,
  'bounce-out': d3.easeBounceOut,
  'bounce-in-out': d3.easeBounceInOut,
} as const;

export type EaseName = 'linear' | 'hold' | keyof typeof CSS_EASES | keyof typeof FAMILIES;

/** How a value runs from one key to the next. */
export type Ease = EaseName | BezierEase;

/** Every name, in the order of a menu: plain ones first. */
export const EASE_NAMES = ['linear', 'hold', ...Object.keys(CSS_EASES), ...Object.keys(FAMILIES)] as EaseName[];

/**
 * Eased progress.
 * @param ease a name or a cubic Bézier
 * @param t linear progress 0..1
 * @returns eased progress: exactly 0 at 0 and 1 at 1; may leave 0..1 in between (back, elastic, steep Béziers)
 * @example
 * easeAt('linear', 0.25); // → 0.25
 * easeAt('hold', 0.99); // → 0
 */
export function easeAt(ease: Ease, t: number): number {
  if (t <= 0) return 0;
  if (t >= 1) return 1;
  if (typeof ease !== 'string') return cubicBezier(ease, t);
  if (ease === 'linear') return t;
  if (ease === 'hold') return 0;
  if (ease in CSS_EASES) return cubicBezier(CSS_EASES[ease as keyof typeof CSS_EASES], t);
  return FAMILIES[ease as keyof typeof FAMILIES](t);
}

/**
 * y of the cubic Bézier easing curve at x = t (CSS Easing Functions Level 1, section 2.3), to double precision:
 * Newton's method, with bisection where it would leave the bracket.
 */
export function cubicBezier([x1, y1, x2, y2]: BezierEase, t: number): number {
  let low = 0;
  let high = 1;
  let p = t;
  for (let round = 0; round < 64; round++) {
    const error = bezier(x1, x2, p) - t;
    if (Math.abs(error) < 1e-15) break;
    if (error > 0) high = p;
    else low = p;
    const slope = 3 * ((1 - p) * (1 - p) * x1 + 2 * (1 - p) * p * (x2 - x1) + p * p * (1 - x2));
    const next = p - error / slope;
    const step = next > low && next < high ? next : (low + high) / 2;
    if (step === p) break;
    p = step;
  }
  return bezier(y1, y2, p);
}

const bezier = (a: number, b: number, p: number): number =>
  3 * (1 - p) * (1 - p) * p * a + 3 * (1 - p) * p * p * b + p * p * p;
