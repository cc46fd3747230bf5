/** What a stroke does to a mask: the brush's three, and what is done to the whole. */
export const BRUSHES = ['paint', 'erase', 'soften'] as const;
export const WHOLES = ['fill', 'invert'] as const;

export type Brush = (typeof BRUSHES)[number];

/** One stroke of a brush over a form. */
export interface BrushStroke {
  does: Brush;
  /** Metres. */
  radius: number;
  /** Share 0..1 of the way to all, or nothing, that one stroke goes. */
  strength: number;
  /** Share 0..1 of the radius over which it fades towards its border. */
  soft: number;
  /** Frame of the growth at which it was made: the form may have moved since. */
  frame: number;
  /** 4 numbers a point: place in metres, in the growth's own space, and pressure 0..1. */
  points: readonly number[];
}

/** What masks are made of, in the order in which it was done. */
export type Stroke = BrushStroke | { does: (typeof WHOLES)[number] };

export const isBrushed = (stroke: Stroke): stroke is BrushStroke => 'points' in stroke;

/** Numbers that a list of strokes holds in points. */
export const strokeNumbers = (strokes: readonly Stroke[]): number =>
  strokes.reduce((sum, stroke) => sum + (isBrushed(stroke) ? stroke.points.length : 0), 0);
