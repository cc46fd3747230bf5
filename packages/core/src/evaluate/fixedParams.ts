import { baseOf, isFormula, isTrack, type Step } from '../scene/schema';
import { GrowthValues } from '../scene/values';
import { digest, digestOf } from '../keys/digest';
import { type Resolved, type StepDeclaration } from '../steps/declare';

/** A step's values and a name for them. */
export interface NamedParams {
  params: Resolved;
  /** 128 bits over the kind and all values. */
  name: string;
}

/** A name for a step's values; what is long is put by its digest. */
export const named = (kind: string, params: Resolved): string =>
  digest(
    JSON.stringify([
      kind,
      Object.entries(params).flatMap(([name, value]) => [
        name,
        typeof value === 'object' && value !== null ? digestOf(value) : value,
      ]),
    ]),
  );

const known = new WeakMap<Step, NamedParams | null>();
const ANY_TIME = new GrowthValues({ steps: [] }, { fps: 1, range: [1, 1] }, 1);

/** The values of a step that are the same at every moment, worked out once; null where one moves, or the step may still change. */
export function fixedParams(declaration: StepDeclaration, step: Step): NamedParams | null {
  if (!Object.isFrozen(step)) return null;
  let fixed = known.get(step);
  if (fixed === undefined) known.set(step, (fixed = moves(step) ? null : workedOut(declaration, step)));
  return fixed;
}

const moves = (step: Step): boolean =>
  Object.values(step.params).some((value) => {
    const base = baseOf(value);
    return isTrack(base) || isFormula(base);
  });

function workedOut(declaration: StepDeclaration, step: Step): NamedParams {
  const params = Object.freeze(ANY_TIME.of(declaration, step));
  return { params, name: named(step.kind, params) };
}
