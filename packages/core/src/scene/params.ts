import type * as z from 'zod/mini';
import { type BrushStroke, BRUSHES, type Stroke, strokeNumbers, WHOLES } from '../geometry/maskStroke';
import { DRIVABLE } from './vary';
import type { NumberParam, ParamSpec } from '../steps/declare';
import { figure } from '../format';
import { formulaFault } from '../time/formula';
import type { Track } from '../time/track';
import { firstIssue } from './issue';
import { LIMITS } from './limits';
import {
  baseOf,
  type Formula,
  formulaSchema,
  isFormula,
  isTrack,
  isVaried,
  type ParamValue,
  profilePointSchema,
  stopSchema,
  trackSchema,
  type Varied,
  variedSchema,
} from './schema';

/** Why a value does not fit, and where inside it. */
export interface ParamFault {
  path: PropertyKey[];
  reason: string;
}

const at = (reason: string | null, path: PropertyKey[] = []): ParamFault | null =>
  reason === null ? null : { path, reason };

const ofIssue = (error: z.core.$ZodError, before = ''): ParamFault => {
  const { message, path } = firstIssue(error);
  return { reason: before + message, path };
};

/** Says why a value does not fit a parameter, or null when it does. See `faultOfParam`. */
export const paramFault = (spec: ParamSpec, value: unknown): string | null => faultOfParam(spec, value)?.reason ?? null;

/**
 * Says why a value does not fit a parameter and where in the value, or null when it does.
 * Tracks are allowed on numbers only; each of their keys must fit.
 */
export function faultOfParam(spec: ParamSpec, value: unknown): ParamFault | null {
  switch (spec.type) {
    case 'number':
      return numberOrDriven(spec, value);
    case 'toggle':
      return at(typeof value === 'boolean' ? null : 'must be true or false');
    case 'choice':
      return at(
        spec.options.some((option) => option.value === value)
          ? null
          : `must be one of ${spec.options.map((option) => option.value).join(', ')}`,
      );
    case 'color':
      return at(typeof value === 'string' && /^#[0-9a-f]{6}$/i.test(value) ? null : 'must be a colour like #8fb84a');
    case 'text':
      if (typeof value !== 'string') return at('must be a text');
      return at(value.length <= spec.most ? null : `must be of ${spec.most} characters or fewer`);
    case 'attribute':
      return at(
        typeof value === 'string' && value.length <= LIMITS.attribute
          ? null
          : `must be the name of an attribute, of ${LIMITS.attribute} characters or fewer`,
      );
    case 'file':
      return at(isId(value) ? null : 'must be the id of a file, or null');
    case 'guide':
      return at(
        value === null || (typeof value === 'string' && /^(guide|tip):.{1,64}$/.test(value))
          ? null
          : 'must name a guide, or null',
      );
    case 'growth':
      return at(isId(value) ? null : 'must be the id of a growth, or null');
    case 'gradient':
      return listFault(value, 'a colour with its position', (entry) => stopSchema.safeParse(entry).success, [
        1,
        LIMITS.stops,
      ]);
    case 'profile':
      return listFault(
        value,
        `a position 0..1 with a value ${spec.min}..${spec.max}`,
        (entry) => {
          const point = profilePointSchema.safeParse(entry);
          return point.success && point.data.value >= spec.min && point.data.value <= spec.max;
        },
        [1, LIMITS.stops],
      );
    case 'anchors':
      return listFault(
        value,
        `three numbers in metres up to ${LIMITS.reach}, with size and lean where wanted`,
        isAnchor,
        [0, LIMITS.anchors],
      );
    case 'strokes':
      return strokesFault(value);
  }
}

function strokesFault(value: unknown): ParamFault | null {
  const fault = listFault(value, 'a stroke of a brush, fill or invert', isStroke, [0, LIMITS.strokes]);
  if (fault) return fault;
  return at(
    strokeNumbers(value as Stroke[]) <= LIMITS.strokeNumbers
      ? null
      : `holds ${LIMITS.strokeNumbers / 4} points of strokes at most`,
  );
}

const within = (value: unknown, low: number, high: number): boolean =>
  typeof value === 'number' && value >= low && value <= high;

/** Whether all of a list fit, holes among them, which `every` passes over. */
function all(list: readonly unknown[], fits: (value: unknown, i: number) => boolean): boolean {
  for (let i = 0; i < list.length; i++) if (!fits(list[i], i)) return false;
  return true;
}

function isStroke(entry: unknown): boolean {
  const stroke = entry as BrushStroke;
  const does: unknown = stroke?.does;
  if (WHOLES.some((name) => name === does)) return true;
  return (
    BRUSHES.some((name) => name === does) &&
    within(stroke.radius, 1e-6, LIMITS.brush) &&
    within(stroke.strength, 0, 1) &&
    within(stroke.soft, 0, 1) &&
    within(stroke.frame, -LIMITS.keyFrame, LIMITS.keyFrame) &&
    Array.isArray(stroke.points) &&
    stroke.points.length % 4 === 0 &&
    all(stroke.points, (x, i) => (i % 4 === 3 ? within(x, 0, 1) : within(x, -LIMITS.reach, LIMITS.reach)))
  );
}

const isId = (value: unknown): boolean =>
  value === null || (typeof value === 'string' && value.length > 0 && value.length <= 80);

/** What bounds each number of an anchor. */
const ANCHOR_BOUNDS = [
  [-LIMITS.reach, LIMITS.reach],
  [-LIMITS.reach, LIMITS.reach],
  [-LIMITS.reach, LIMITS.reach],
  [0, LIMITS.anchorSize],
  [-LIMITS.anchorLean, LIMITS.anchorLean],
] as const;

const isAnchor = (entry: unknown): boolean =>
  Array.isArray(entry) &&
  entry.length >= 3 &&
  entry.length <= 5 &&
  all(entry, (number, i) => within(number, ANCHOR_BOUNDS[i][0], ANCHOR_BOUNDS[i][1]));

function numberOrDriven(spec: NumberParam, value: unknown): ParamFault | null {
  if (typeof value === 'number') return at(numberFault(spec, value));
  const kind = value as ParamValue;
  if (isTrack(kind)) {
    const parsed = trackSchema.safeParse(value);
    if (!parsed.success) return ofIssue(parsed.error);
    for (const key of parsed.data.keys) {
      const fault = numberFault(spec, key.value);
      if (fault) return at(`at frame ${figure(key.frame)}: ${fault}`);
    }
    return null;
  }
  if (isFormula(kind)) {
    const parsed = formulaSchema.safeParse(value);
    if (!parsed.success) return ofIssue(parsed.error, 'the formula ');
    const fault = formulaFault((value as Formula).formula);
    return at(fault && `the formula ${fault}`);
  }
  if (isVaried(kind)) {
    if (!spec.varies) return at('cannot differ from path to path');
    const parsed = variedSchema.safeParse(value);
    if (!parsed.success) return ofIssue(parsed.error);
    const { base, vary } = value as Varied;
    if (vary.by === 'along' && spec.varies === 'path') return at('cannot differ along a path');
    if (vary.by === 'attribute') {
      if (vary.attribute === undefined) return at('must name the attribute that it goes by');
      if (spec.varies === 'path' && DRIVABLE[vary.attribute]?.domain === 'point')
        return at('cannot go by an attribute that differs along a path');
    }
    const fault = numberOrDriven(spec, base);
    return fault && { ...fault, path: ['base', ...fault.path] };
  }
  return at('must be a number, a track or a formula');
}

function numberFault(spec: NumberParam, value: number): string | null {
  if (!Number.isFinite(value)) return 'must be a number';
  const shown = (limit: number): string => (spec.unit === 'share' ? `${figure(100 * limit)} %` : figure(limit, 4));
  if (value < spec.min) return `must be ${shown(spec.min)} or more`;
  if (value > spec.max) return `must be ${shown(spec.max)} or less`;
  if (spec.whole && !Number.isInteger(value)) return 'must be a whole number';
  return null;
}

function listFault(
  value: unknown,
  each: string,
  fits: (entry: unknown) => boolean,
  [least, most]: readonly [number, number],
): ParamFault | null {
  if (!Array.isArray(value)) return at('must be a list');
  if (value.length < least) return at(`needs ${least} entry or more`);
  if (value.length > most) return at(`holds ${most} entries at most`);
  const wrong = value.findIndex((entry) => !fits(entry));
  return wrong < 0 ? null : at(`entry ${wrong + 1} must be ${each}`);
}

/** Within limits; what is no number, as damaged files have it, stays none. */
const clamp = (value: number, min: number, max: number): number =>
  typeof value === 'number' ? Math.min(max, Math.max(min, value)) : NaN;

/** A number within what a parameter allows, whole where it must be. */
export const fittedNumber = (spec: NumberParam, value: number): number => {
  const bounded = clamp(value, spec.min, spec.max);
  return spec.whole ? clamp(Math.round(bounded), Math.ceil(spec.min), Math.floor(spec.max)) : bounded;
};

/**
 * The value nearest to one that does not fit, where bringing numbers within their limits or cutting a text is all it takes:
 * what a hand that overshot meant. Undefined for everything else.
 */
export function fittedParam(spec: ParamSpec, value: unknown): ParamValue | undefined {
  if (!whole(value)) return undefined;
  const near = nearest(spec, value);
  return near !== undefined && faultOfParam(spec, near) === null ? near : undefined;
}

/** Whether lists in a value hold no holes to stumble over. */
const whole = (value: unknown): boolean => {
  if (value === null || value === undefined) return false;
  if (Array.isArray(value)) return value.every(whole);
  return typeof value !== 'object' || Object.values(value).every(whole);
};

function nearest(spec: ParamSpec, value: unknown): ParamValue | undefined {
  switch (spec.type) {
    case 'number':
      return nearestNumber(spec, value as ParamValue);
    case 'text':
      return typeof value === 'string' ? value.slice(0, spec.most) : undefined;
    case 'attribute':
      return typeof value === 'string' ? value.slice(0, LIMITS.attribute) : undefined;
    case 'profile':
      return Array.isArray(value)
        ? value.map((point: { at: number; value: number }) => ({
            ...point,
            at: clamp(point.at, 0, 1),
            value: clamp(point.value, spec.min, spec.max),
          }))
        : undefined;
    case 'gradient':
      return Array.isArray(value)
        ? value.map((stop: { at: number; color: string }) => ({ ...stop, at: clamp(stop.at, 0, 1) }))
        : undefined;
    case 'anchors':
      return Array.isArray(value)
        ? (value.map((anchor: unknown) =>
            Array.isArray(anchor)
              ? anchor.map((number: number, i) =>
                  i < 5 ? clamp(number, ANCHOR_BOUNDS[i][0], ANCHOR_BOUNDS[i][1]) : number,
                )
              : anchor,
          ) as ParamValue)
        : undefined;
    default:
      return undefined;
  }
}

function nearestNumber(spec: NumberParam, value: ParamValue): ParamValue | undefined {
  if (typeof value === 'number') return fittedNumber(spec, value);
  if (isVaried(value)) {
    const base = nearestNumber(spec, baseOf(value)!);
    const { vary } = value;
    return base === undefined
      ? undefined
      : ({ base, vary: { ...vary, amount: clamp(vary.amount, -LIMITS.vary, LIMITS.vary) } } as Varied);
  }
  if (!isTrack(value) || !Array.isArray(value.keys)) return undefined;
  const keys = new Map<number, Track['keys'][number]>();
  for (const key of value.keys) {
    const frame = clamp(key.frame, -LIMITS.keyFrame, LIMITS.keyFrame);
    keys.set(frame, { ...key, frame, value: fittedNumber(spec, key.value) });
  }
  return { ...value, keys: [...keys.values()].sort((a, b) => a.frame - b.frame) };
}
