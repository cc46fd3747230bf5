import { type Growth, isFormula, isTrack, isVaried, type ParamValue, type Scene } from '@uvrex/core';

/** One thing that is done in a lesson. Values are as the document holds them; `@Blade` stands for the growth called Blade. */
export type Move =
  /** A growth of a kind; `called` where there is one of that kind already. */
  | { begin: string; called?: string; with?: Record<string, ParamValue> }
  | { add: string; to: string }
  | { remove: string; of: string }
  | { set: string; of: string; values: Record<string, ParamValue> }
  /** Ready values of a step; what is animated goes up to them. */
  | { preset: string; of: string; values: Record<string, ParamValue> }
  /** What everybody does in a way of their own: any places, strokes or variation will do. */
  | { put: string; of: string; values: Record<string, ParamValue> }
  | { hide: string }
  | { last: number }
  /** Looked at by the guide itself: whether it has played. */
  | { play: true };

/** What a step of a lesson says, and the moves that do it. */
export interface LessonStep {
  /** In the few signs of Markdown that docs/lessons.md uses: bold, italic, code. */
  text: string;
  /** What must be so for it to be done; empty for what only a person can look at. */
  moves: readonly Move[];
}

/** A lesson: its steps, in order. */
export interface Lesson {
  id: string;
  title: string;
  /** What comes of it. */
  about: string;
  steps: readonly LessonStep[];
}

/** The growth of a name. */
export const called = (scene: Scene, name: string): Growth | undefined =>
  scene.growths.find((growth) => growth.name === name);

/** A value as the scene holds it: names of growths become their ids. */
export function resolveMoves(scene: Scene, value: ParamValue): ParamValue {
  if (typeof value !== 'string' || !value.startsWith('@')) return value;
  return called(scene, value.slice(1))?.id ?? null;
}

/** Whether a move's outcome stands in a scene. */
export function isDone(scene: Scene, move: Move, played = false): boolean {
  if ('play' in move) return played;
  if ('last' in move) return scene.range[1] === move.last;
  if ('begin' in move)
    return scene.growths.some(
      ({ name, steps }) => steps[0]?.kind === move.begin && (!move.called || name === move.called),
    );
  if ('hide' in move) return called(scene, move.hide)?.visible === false;
  const growth = called(scene, 'add' in move ? move.to : move.of);
  if (!growth) return false;
  if ('add' in move) return growth.steps.some(({ kind, on }) => on && kind === move.add);
  if ('remove' in move) return !growth.steps.some(({ kind, on }) => on && kind === move.remove);
  const step = growth.steps.find(({ kind }) => kind === kindOf(move));
  if ('preset' in move)
    return (
      step !== undefined &&
      Object.entries(move.values).every(([name, value]) => alike(mostOf(step.params[name]), value))
    );
  if ('put' in move) return step !== undefined && Object.keys(move.values).every((name) => isPut(step.params[name]));
  return (
    step !== undefined &&
    Object.entries(move.values).every(([name, value]) => alike(step.params[name], resolveMoves(scene, value)))
  );
}

/** The kind of step that a move is about. */
export const kindOf = (move: Extract<Move, { of: string }>): string =>
  'set' in move ? move.set : 'put' in move ? move.put : 'preset' in move ? move.preset : move.remove;

/** The greatest value of what is animated. */
const mostOf = (value: ParamValue | undefined): ParamValue | undefined =>
  isTrack(value) ? Math.max(...value.keys.map((key) => key.value)) : value;

/** Whether somebody has put something there. */
const isPut = (value: ParamValue | undefined): boolean => isVaried(value) || (Array.isArray(value) && value.length > 0);

/** Whether two values come to the same, however a formula is spaced. */
function alike(a: ParamValue | undefined, b: ParamValue): boolean {
  if (typeof a === 'number' && typeof b === 'number') return Math.abs(a - b) <= 1e-6 * Math.max(1, Math.abs(b));
  if (isVaried(a) && isVaried(b)) return alike(a.base, b.base) && alike(a.vary.amount, b.vary.amount);
  if (isFormula(a) && isFormula(b)) return a.formula.replace(/\s/g, '') === b.formula.replace(/\s/g, '');
  return JSON.stringify(a) === JSON.stringify(b);
}
