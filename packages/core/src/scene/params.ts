import {
  type NumberParam,
  type ParamConstant,
  type ParamSpec,
  type Resolved,
  type StepDeclaration,
} from '../steps/declare';
import { valueAt } from '../time/track';
import { figure } from '../steps/format';
import { isTrack, type ParamValue, profilePointSchema, type Step, stopSchema, trackSchema, vec3Schema } from './schema';

/**
 * Says why a value does not fit a parameter, or null when it does.
 * Tracks are allowed on numbers only; each of their keys must fit.
 */
export function paramFault(spec: ParamSpec, value: unknown): string | null {
  switch (spec.type) {
    case 'number':
      if (typeof value === 'number') return numberFault(spec, value);
      if (trackSchema.safeParse(value).success) {
        for (const { frame, value: keyed } of (value as { keys: { frame: number; value: number }[] }).keys) {
          const fault = numberFault(spec, keyed);
          if (fault) return `at frame ${figure(frame)}: ${fault}`;
        }
        return null;
      }
      return 'must be a number or a track';
    case 'toggle':
      return typeof value === 'boolean' ? null : 'must be true or false';
    case 'choice':
      return spec.options.some((option) => option.value === value)
        ? null
        : `must be one of ${spec.options.map((option) => option.value).join(', ')}`;
    case 'color':
      return typeof value === 'string' && /^#[0-9a-f]{6}$/i.test(value) ? null : 'must be a colour like #8fb84a';
    case 'growth':
      return value === null || typeof value === 'string' ? null : 'must be the id of a growth, or null';
    case 'gradient':
      return listFault(value, 'a colour with its position', (entry) => stopSchema.safeParse(entry).success, 1);
    case 'profile':
      return listFault(
        value,
        `a position 0..1 with a value ${spec.min}..${spec.max}`,
        (entry) => {
          const point = profilePointSchema.safeParse(entry);
          return point.success && point.data.value >= spec.min && point.data.value <= spec.max;
        },
        1,
      );
    case 'anchors':
      return listFault(value, 'three numbers in metres', (entry) => vec3Schema.safeParse(entry).success, 0);
  }
}

function numberFault(spec: NumberParam, value: number): string | null {
  if (!Number.isFinite(value)) return 'must be a number';
  const shown = (limit: number): string => (spec.unit === 'share' ? `${figure(100 * limit)} %` : figure(limit, 4));
  if (value < spec.min) return `must be ${shown(spec.min)} or more`;
  if (value > spec.max) return `must be ${shown(spec.max)} or less`;
  if (spec.whole && !Number.isInteger(value)) return 'must be a whole number';
  return null;
}

function listFault(value: unknown, each: string, fits: (entry: unknown) => boolean, least: number): string | null {
  if (!Array.isArray(value)) return 'must be a list';
  if (value.length < least) return `needs ${least} entry or more`;
  const wrong = value.findIndex((entry) => !fits(entry));
  return wrong < 0 ? null : `entry ${wrong + 1} must be ${each}`;
}

/** A step's parameters as constants at one frame; what the document leaves out takes its default. */
export function resolveParams(declaration: StepDeclaration, step: Step, frame: number): Resolved {
  const resolved: Resolved = {};
  for (const [name, spec] of Object.entries(declaration.params))
    resolved[name] = resolveParam(spec, step.params[name], frame);
  return resolved;
}

/** One parameter's value at a frame. Eased overshoot is kept within what the parameter allows; whole numbers are rounded. */
export function resolveParam(spec: ParamSpec, value: ParamValue | undefined, frame: number): ParamConstant {
  if (value === undefined) return spec.default as ParamConstant;
  if (!isTrack(value)) return value;
  const raw = valueAt(value, frame);
  if (spec.type !== 'number') return raw;
  const within = Math.min(spec.max, Math.max(spec.min, raw));
  return spec.whole ? Math.round(within) : within;
}
