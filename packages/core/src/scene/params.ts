import { type NumberParam, type ParamSpec } from '../steps/declare';
import { figure } from '../steps/format';
import { formulaFault } from '../time/formula';
import {
  anchorSchema,
  type Formula,
  formulaSchema,
  profilePointSchema,
  stopSchema,
  trackSchema,
  type Varied,
  variedSchema,
} from './schema';

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
      if (formulaSchema.safeParse(value).success) {
        const fault = formulaFault((value as Formula).formula);
        return fault && `the formula ${fault}`;
      }
      if (variedSchema.safeParse(value).success) {
        if (!spec.varies) return 'cannot differ from path to path';
        const { base, vary } = value as Varied;
        if (vary.by === 'along' && spec.varies === 'path') return 'cannot differ along a path';
        return paramFault(spec, base);
      }
      return 'must be a number, a track or a formula';
    case 'toggle':
      return typeof value === 'boolean' ? null : 'must be true or false';
    case 'choice':
      return spec.options.some((option) => option.value === value)
        ? null
        : `must be one of ${spec.options.map((option) => option.value).join(', ')}`;
    case 'color':
      return typeof value === 'string' && /^#[0-9a-f]{6}$/i.test(value) ? null : 'must be a colour like #8fb84a';
    case 'text':
      if (typeof value !== 'string') return 'must be a text';
      return value.length <= spec.most ? null : `must be of ${spec.most} characters or fewer`;
    case 'asset':
      return value === null || typeof value === 'string' ? null : 'must be the id of a file, or null';
    case 'guide':
      return value === null || (typeof value === 'string' && /^(guide|tip):./.test(value))
        ? null
        : 'must name a guide, or null';
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
      return listFault(
        value,
        'three numbers in metres, with size and lean where wanted',
        (entry) => anchorSchema.safeParse(entry).success,
        0,
      );
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
