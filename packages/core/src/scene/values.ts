import { Problem } from '../problem';
import type { ParamConstant, ParamSpec, Resolved, Unit } from '../steps/declare';
import { type DriveName, DRIVES, type Drives, UNDRIVEN } from '../geometry/drives';
import { figure } from '../format';
import { FormulaError, formulaValue } from '../time/formula';
import { valueAt } from '../time/track';
import { declarationOf, type OwnerDeclaration } from './owners';
import { baseOf, type Growth, isFormula, isTrack, type ParamValue, type Scene, type Step } from './schema';

/** What formulas may look at besides their own growth. */
export type Clock = Pick<Scene, 'fps' | 'range'>;

/** How many of what a field shows make one of what the document stores. */
export const shownFactor = (unit: Unit): number => (unit === 'share' ? 100 : 1);

/** The names by which formulas call the steps of a growth: sweep, noise, noise2 … */
export function stepNames(growth: Pick<Growth, 'steps'>): Map<string, Step> {
  const names = new Map<string, Step>();
  for (const step of growth.steps) {
    const base = identifier(step.name || (declarationOf(step.kind)?.label ?? step.kind));
    let name = base;
    for (let i = 2; names.has(name); i++) name = `${base}${i}`;
    names.set(name, step);
  }
  return names;
}

function identifier(title: string): string {
  const words = title.normalize('NFKD').match(/[A-Za-z0-9]+/g) ?? ['step'];
  const joined = words
    .map((word, i) => (i === 0 ? word.toLowerCase() : word[0].toUpperCase() + word.slice(1)))
    .join('');
  return /^\d/.test(joined) ? `step${joined}` : joined;
}

/** Values of one growth's parameters at one frame, formulas included; each is worked out once. */
export class GrowthValues {
  /** Fields whose formulas are being worked out, each inside the one before. */
  readonly #trail: { step: Step; name: string; called: string }[] = [];
  readonly #known = new Map<Step, Map<string, ParamConstant>>();
  #names: Map<string, Step> | null = null;

  constructor(
    readonly growth: Pick<Growth, 'steps'>,
    readonly clock: Clock,
    /** Frame of the growth, after its shift. */
    readonly frame: number,
    /** What the growth's copies are driven by. */
    readonly drives: Drives = UNDRIVEN,
  ) {}

  /** A step's parameters as constants; what the document leaves out takes its default. @throws Problem for a formula */
  of(declaration: OwnerDeclaration, step: Step): Resolved {
    const resolved: Resolved = {};
    for (const name of Object.keys(declaration.params)) resolved[name] = this.one(declaration, step, name);
    return resolved;
  }

  /** One parameter's value; of a varied number its base. @throws Problem for a formula */
  one(declaration: OwnerDeclaration, step: Step, name: string): ParamConstant {
    let known = this.#known.get(step);
    if (!known) this.#known.set(step, (known = new Map()));
    let value = known.get(name);
    if (value === undefined) known.set(name, (value = this.#worked(declaration, step, name)));
    return value;
  }

  #worked(declaration: OwnerDeclaration, step: Step, name: string): ParamConstant {
    const spec = declaration.params[name];
    const value = baseOf(step.params[name]);
    if (!isFormula(value)) return constantAt(spec, value, this.frame);
    const called = this.#called(declaration, step, spec);
    const seen = this.#trail.findIndex((entry) => entry.step === step && entry.name === name);
    if (seen >= 0)
      throw new Problem(
        `Formulas refer to each other in a circle: ${[...this.#trail.slice(seen).map((entry) => entry.called), called].join(' → ')}.`,
        'Give one of them a plain number.',
      );
    this.#trail.push({ step, name, called });
    try {
      const shown = formulaValue(value.formula, (key) => this.#named(step, key));
      return spec.type === 'number' ? within(spec, shown / shownFactor(spec.unit)) : shown;
    } catch (error) {
      if (!(error instanceof FormulaError)) throw error;
      throw new Problem(`The formula of ${called} ${error.message}.`, `Mend “= ${value.formula}”.`);
    } finally {
      this.#trail.pop();
    }
  }

  /** A field as people know it; with its name in formulas where two steps are called alike. */
  #called(declaration: OwnerDeclaration, step: Step, spec: ParamSpec): string {
    const title = (one: Step): string => one.name || (declarationOf(one.kind)?.label ?? one.kind);
    const alike = this.growth.steps.filter((one) => title(one) === title(step)).length > 1;
    const name = alike ? [...this.#stepNames()].find(([, one]) => one === step)?.[0] : undefined;
    return `${step.name || declaration.label}${name ? ` (${name})` : ''} ${spec.label}`;
  }

  #stepNames(): Map<string, Step> {
    return (this.#names ??= stepNames(this.growth));
  }

  /** What a name in a formula stands for, as its field shows it. */
  #named(step: Step, name: string): number | undefined {
    const { fps, range } = this.clock;
    switch (name) {
      case 'frame':
        return this.frame;
      case 'seconds':
        return (this.frame - range[0]) / fps;
      case 'fps':
        return fps;
      case 'first':
        return range[0];
      case 'last':
        return range[1];
    }
    const drive = DRIVES.indexOf(name as DriveName);
    if (drive >= 0) return this.drives[drive];
    const [owner, param] = name.includes('.') ? name.split('.') : [null, name];
    const of = owner === null ? step : this.#stepNames().get(owner);
    const declaration = of && declarationOf(of.kind);
    const spec = declaration && Object.hasOwn(declaration.params, param) ? declaration.params[param] : undefined;
    if (!of || !declaration || spec?.type !== 'number') return undefined;
    return (this.one(declaration, of, param) as number) * shownFactor(spec.unit);
  }
}

/** A constant's or a track's value at a frame; of what the document leaves out the default. */
export function constantAt(spec: ParamSpec, value: ParamValue | undefined, frame: number): ParamConstant {
  if (value === undefined) return spec.default as ParamConstant;
  if (!isTrack(value)) return value as ParamConstant;
  const raw = valueAt(value, frame);
  return spec.type === 'number' ? within(spec, raw) : raw;
}

/** Eased overshoot is kept within what the parameter allows; whole numbers are rounded. */
function within(spec: { min: number; max: number; whole?: boolean }, raw: number): number {
  const kept = Math.min(spec.max, Math.max(spec.min, raw));
  return spec.whole ? Math.round(kept) : kept;
}

/** The names that a formula of this step can use, for help beside the field. */
export function formulaNames(growth: Pick<Growth, 'steps'>, step: Step): string[] {
  const numbers = (of: Step): string[] =>
    Object.entries(declarationOf(of.kind)?.params ?? {}).flatMap(([name, spec]) =>
      spec.type === 'number' ? [name] : [],
    );
  const others = [...stepNames(growth)].flatMap(([called, of]) =>
    of.id === step.id ? [] : numbers(of).map((name) => `${called}.${name}`),
  );
  return ['frame', 'seconds', 'fps', 'first', 'last', ...DRIVES, ...numbers(step), ...others];
}

/** A value as its field shows it. */
export const shownNumber = (value: number, unit: Unit, decimals = 3): string =>
  figure(value * shownFactor(unit), decimals);
