import { baseOf, isFormula, isTrack, type Step } from '../scene/schema';
import { GrowthValues } from '../scene/values';
import { digest, digestOf } from '../digests/digest';
import type { Resolved, StepDeclaration } from '../steps/declare';

/** A step's values and a name for them. */
export interface NamedParams {
  params: Resolved;
  /** 128 bits over the kind and all values. */
  name: string;
}

/** The values of a step that are the same at every moment, and the parameters that have others from moment to moment. */
interface Standing extends NamedParams {
  moving: readonly string[];
}

const known = new WeakMap<Step, Standing>();

/** The values of a step that are the same at every moment, worked out once; null where one moves, or the step may still change. */
export function fixedParams(declaration: StepDeclaration, step: Step): NamedParams | null {
  if (!Object.isFrozen(step)) return null;
  const standing = standingOf(declaration, step);
  return standing.moving.length === 0 ? standing : null;
}

/** The values of a step at a moment, under a name; only those that move are worked out anew. @throws Problem for a formula */
export function paramsAt(declaration: StepDeclaration, step: Step, values: () => GrowthValues): NamedParams {
  const { params, name, moving } = standingOf(declaration, step);
  if (moving.length === 0) return { params, name };
  const now = values();
  const whole: Resolved = { ...params };
  for (const param of moving) whole[param] = now.one(declaration, step, param);
  return { params: whole, name: digest(`${name} ${JSON.stringify(moving.map((param) => whole[param]))}`) };
}

function standingOf(declaration: StepDeclaration, step: Step): Standing {
  const kept = known.get(step);
  if (kept) return kept;
  const anyTime = new GrowthValues({ steps: [] }, { fps: 1, range: [1, 1] }, 1);
  const params: Resolved = {};
  const moving: string[] = [];
  for (const param of Object.keys(declaration.params)) {
    const base = baseOf(step.params[param]);
    const moves = isTrack(base) || isFormula(base);
    if (moves) moving.push(param);
    // Every parameter in its place, so that what is made of the same values is the same object in shape.
    params[param] = moves ? 0 : anyTime.one(declaration, step, param);
  }
  const standing = { params: Object.freeze(params), moving, name: named(step.kind, params, moving) };
  if (Object.isFrozen(step)) known.set(step, standing);
  return standing;
}

/** A name for values; what is long is put by its digest. */
const named = (kind: string, params: Resolved, moving: readonly string[]): string =>
  digest(
    JSON.stringify([
      kind,
      moving,
      Object.entries(params).flatMap(([name, value]) => [
        name,
        typeof value === 'object' && value !== null ? digestOf(value) : value,
      ]),
    ]),
  );
