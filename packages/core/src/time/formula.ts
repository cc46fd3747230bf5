import { type Expression, Parser, type Value } from 'expr-eval-fork';
import { noise3 } from '../fields/noise';
import { random } from '../fields/random';
import { smoothstep } from '../fields/smoothstep';

const DEGREE = Math.PI / 180;

/** Functions that formulas can call besides + − * / % ^, comparisons and `a ? b : c`. Angles are in degrees. */
const FUNCTIONS: Record<string, (...args: number[]) => number> = {
  sin: (a) => Math.sin(a * DEGREE),
  cos: (a) => Math.cos(a * DEGREE),
  tan: (a) => Math.tan(a * DEGREE),
  asin: (x) => Math.asin(x) / DEGREE,
  acos: (x) => Math.acos(x) / DEGREE,
  atan: (x) => Math.atan(x) / DEGREE,
  atan2: (y, x) => Math.atan2(y, x) / DEGREE,
  sqrt: Math.sqrt,
  abs: Math.abs,
  floor: Math.floor,
  ceil: Math.ceil,
  round: Math.round,
  sign: Math.sign,
  exp: Math.exp,
  ln: Math.log,
  log10: Math.log10,
  min: Math.min,
  max: Math.max,
  pow: Math.pow,
  hypot: Math.hypot,
  clamp: (x, low, high) => Math.min(high, Math.max(low, x)),
  mix: (a, b, t) => a + (b - a) * t,
  ease: (from, to, x) => smoothstep((x - from) / (to - from)),
  random: (n) => random(0, Math.round(n), 1),
  wander: (x) => {
    const out = new Float64Array(1);
    noise3(x, 0.5, 0.5, 0, { detail: 1, roughness: 0.5, seed: 0, period: 0 }, out);
    return out[0];
  },
};

export const FORMULA_FUNCTIONS: readonly string[] = Object.keys(FUNCTIONS);

const parser = new Parser({
  allowMemberAccess: true,
  operators: { assignment: false, fndef: false, in: false, concatenate: false, length: false, random: false },
});
// Only what is listed above: the library's own functions measure angles in radians.
parser.unaryOps = Object.fromEntries(
  Object.entries(parser.unaryOps as Record<string, unknown>).filter(([name]) => ['-', '+', 'not', '!'].includes(name)),
);
parser.functions = FUNCTIONS;
parser.consts = { pi: Math.PI, true: true, false: false };

/** Expressions that have been met: a formula is worked out at every frame. */
const known = new Map<string, Expression>();

function parsed(formula: string): Expression {
  let expression = known.get(formula);
  if (!expression) {
    expression = parser.parse(formula);
    if (known.size > 1000) known.clear();
    known.set(formula, expression);
  }
  return expression;
}

/** Why a text is no formula, or null when it is one. */
export function formulaFault(formula: string): string | null {
  try {
    parsed(formula);
    return null;
  } catch (error) {
    return `cannot be read: ${parseReason((error as Error).message)}`;
  }
}

/** Why a formula cannot be read, from what the parser says: where it is and what it met there. */
function parseReason(message: string): string {
  const [, column] = /\[\d+:(\d+)\]/.exec(message) ?? [];
  const where = column ? ` near character ${column}` : '';
  const [, unknown] = /Unknown character "(.*)"$/.exec(message) ?? [];
  if (unknown) return `“${unknown}”${where} has no meaning here`;
  const [, met] = /unexpected T\w+: (.*)$/.exec(message) ?? [];
  if (met && met !== 'EOF') return `“${met}”${where} is not expected there`;
  const [, wanted] = /Expected (\S+)$/.exec(message) ?? [];
  if (wanted === 'TNAME') return `a name is missing${where}`;
  if (wanted === 'EOF') return `an operator is missing, or a bracket is too many${where}`;
  if (wanted) return `“${wanted}” is missing${where}`;
  return 'it ends too soon, or something of it is missing';
}

/** A formula that is worked out many times over: the names that it uses, and its value for theirs (NaN where it has none). */
export interface WorkedFormula {
  names: readonly string[];
  value: (values: Record<string, number>) => number;
}

/** @throws FormulaError when it cannot be read */
export function workedFormula(formula: string): WorkedFormula {
  const fault = formulaFault(formula);
  if (fault) throw new FormulaError(fault);
  const expression = parsed(formula);
  const names = expression.variables({ withMembers: true }).filter((name) => !(name in FUNCTIONS));
  if (names.length === 0) {
    const fixed = Number(expression.evaluate({}));
    return { names, value: () => fixed };
  }
  return {
    names,
    value: (values) => {
      try {
        return Number(expression.evaluate(values));
      } catch {
        return NaN;
      }
    },
  };
}

/** Thrown when a formula has no value; the message completes "The formula …". */
export class FormulaError extends Error {}

/**
 * Works a formula out.
 * @param value gives what a name stands for (`frame`, `count`, `sweep.radius`), or undefined when it is unknown
 * @throws FormulaError when it cannot be read, names something unknown, or has no finite value
 * @example
 * formulaValue('2 * frame + 1', (name) => (name === 'frame' ? 12 : undefined)); // → 25
 */
export function formulaValue(formula: string, value: (name: string) => number | undefined): number {
  const fault = formulaFault(formula);
  if (fault) throw new FormulaError(fault);
  const expression = parsed(formula);
  const values: Record<string, Value> = {};
  for (const name of expression.variables({ withMembers: true })) {
    if (name in FUNCTIONS) continue;
    const found = value(name);
    if (found === undefined) throw new FormulaError(`uses “${name}”, and there is no value of that name`);
    const dot = name.indexOf('.');
    if (dot < 0) values[name] = found;
    else {
      const owner = (values[name.slice(0, dot)] ??= {}) as Record<string, Value>;
      owner[name.slice(dot + 1)] = found;
    }
  }
  let result: unknown;
  try {
    result = expression.evaluate(values);
  } catch {
    throw new FormulaError('cannot be worked out: a function of it does not take these values');
  }
  const number = typeof result === 'boolean' ? Number(result) : result;
  if (typeof number !== 'number' || !Number.isFinite(number)) throw new FormulaError('gives no finite number here');
  return number;
}
