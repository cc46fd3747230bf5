import { type Fault, faultOfScene, isObject, namedPlace, paramAt, shortenPath, writtenPath } from './faults';
import { LIMITS } from './limits';
import { newId, newScene } from './make';
import { declarationOf, SCENE_PARTS } from './owners';
import { fittedParam } from './params';
import type { Scene } from './schema';

type Json = Record<PropertyKey, unknown>;

/** One place that was mended. */
export interface Mended {
  /** The place as written: growths[0].steps[2].params.to. */
  path: string;
  /** The place as people know it, where it lies in a growth. */
  where: string | null;
  reason: string;
  /** What became of it, as a sentence's end: “is 10 now”. */
  done: string;
}

/** Another value for one place. */
export interface Change {
  path: PropertyKey[];
  /** Undefined takes the entry out. */
  value: unknown;
}

/** More places than any scene that is worth mending has. */
const MOST = 2000;

/**
 * Changes that bring what a hand overshot back within its limits: numbers too large or small, names too long. Null where a
 * document has other faults as well, or none.
 * @param sound the document before the change
 */
export function gentleChanges(document: Scene, sound?: Scene): Change[] | null {
  const changes: Change[] = [];
  let current: unknown = document;
  for (let i = 0; i < 50; i++) {
    const fault = faultOfScene(current, sound);
    if (!fault) return changes;
    const change = gentle(current, fault);
    if (!change) return null;
    changes.push(change);
    current = changed(current, change.path, change.value);
  }
  return null;
}

/**
 * Makes a sound scene of a damaged one of the present version: numbers are brought within their limits, broken values take
 * their defaults, what has no sense at all is left out. Told place by place.
 * @returns null where nothing can be saved
 */
export function mendScene(document: unknown): { scene: Scene; mended: Mended[] } | null {
  const mended: Mended[] = [];
  let current = document;
  for (let i = 0; i < MOST; i++) {
    const fault = faultOfScene(current);
    if (!fault) return { scene: current as Scene, mended };
    const change = gentle(current, fault) ?? rough(current, fault);
    if (!change) return null;
    mended.push({
      path: writtenPath(fault.path),
      where: namedPlace(current, fault.path),
      reason: fault.reason,
      done: change.value === undefined ? 'was left out' : `is ${shown(change.value)} now`,
    });
    current = changed(current, change.path, change.value);
  }
  return null;
}

const shown = (value: unknown): string =>
  typeof value === 'string' ? `“${shortenPath(value)}”` : shortenPath(JSON.stringify(value));

/** Brings a value within its limits; null where that is not what is wrong. */
function gentle(document: unknown, { path, issue }: Fault): Change | null {
  const spec = specAt(document, path);
  if (spec) {
    const { at } = paramAt(document, path)!;
    const value = fittedParam(spec, valueAt(document, at));
    return value === undefined ? null : { path: at, value };
  }
  const value = valueAt(document, path);
  if (path[0] === 'range') return rangeChange(document);
  if (!issue) return null;
  const { code, maximum, minimum, origin } = issue;
  if (typeof value === 'string' && code === 'too_big') return { path, value: value.slice(0, maximum) };
  if (typeof value !== 'number' || !Number.isFinite(value)) return null;
  if (code === 'too_big' && origin !== 'array') return { path, value: maximum };
  if (code === 'too_small' && origin !== 'array') return { path, value: minimum };
  return issue.expected === 'int' ? { path, value: Math.round(value) } : null;
}

/** First and last frame whole, within their limits and in order. */
function rangeChange(document: unknown): Change | null {
  const range = valueAt(document, ['range']);
  if (!Array.isArray(range) || range.length !== 2 || !range.every(Number.isFinite)) return null;
  const [first, last] = (range as number[]).map((frame) =>
    Math.min(LIMITS.frame, Math.max(-LIMITS.frame, Math.round(frame))),
  );
  const start = Math.min(first, LIMITS.frame - 1);
  return { path: ['range'], value: [start, Math.max(last, start + 1)] };
}

/** Puts a default in the place of what is broken, or leaves it out. */
function rough(document: unknown, { path, issue, reason }: Fault): Change | null {
  if (path.length === 0 && issue?.keys) return { path: [issue.keys[0]], value: undefined };
  if (issue?.code === 'unrecognized_keys' && issue.keys) return { path: [...path, issue.keys[0]], value: undefined };
  const spec = specAt(document, path);
  if (spec) return { path: paramAt(document, path)!.at, value: spec.default };
  if (path[0] === 'growths') {
    if (path.length === 1) {
      const list = valueAt(document, path);
      return { path, value: Array.isArray(list) ? list.slice(0, LIMITS.growths) : [] };
    }
    return roughInGrowth(document, path, reason);
  }
  const name = path[0];
  const fresh = newScene('Mended') as unknown as Json;
  if (!(name in fresh)) return path.length > 0 ? { path: [name], value: undefined } : null;
  // Entries of lists go; parts of the scene take what a new one has, the smallest part first.
  if (
    Array.isArray(fresh[name]) &&
    typeof path[1] === 'number' &&
    ['markers', 'guides', 'files', 'groups'].includes(String(name))
  ) {
    // A number that no guide has.
    if (path[2] === 'params' && path.length >= 4) return { path: path.slice(0, 4), value: undefined };
    return path[2] === 'id' && /twice/.test(reason)
      ? { path, value: newId() }
      : { path: path.slice(0, 2), value: undefined };
  }
  // A number that a part of the scene has not.
  if (path.length > 1 && isObject(valueAt(document, [name])) && SCENE_PARTS.some((part) => part === name))
    return { path: path.slice(0, 2), value: undefined };
  if (path.length > 1 && isObject(valueAt(document, [name])) && valueAt(fresh, path.slice(0, 2)) !== undefined)
    return { path: path.slice(0, 2), value: valueAt(fresh, path.slice(0, 2)) };
  return { path: [name], value: fresh[name] };
}

const GROWTH_DEFAULTS: Json = {
  name: 'Growth',
  hue: '#c9e86a',
  visible: true,
  seed: 1,
  shift: 0,
  place: {},
  group: null,
  locked: false,
  steps: [],
};
const STEP_DEFAULTS: Json = { name: '', on: true, params: {} };

function roughInGrowth(document: unknown, path: PropertyKey[], reason: string): Change | null {
  const [, , part, , field] = path;
  if (path.length === 2) return { path, value: undefined };
  if (part === 'id') return { path, value: newId() };
  // A number that no place has.
  if (part === 'place' && path.length >= 4) return { path: path.slice(0, 4), value: undefined };
  if (part !== 'steps')
    return part in GROWTH_DEFAULTS ? { path: path.slice(0, 3), value: GROWTH_DEFAULTS[part] } : null;
  if (path.length === 3) {
    const list = valueAt(document, path);
    return { path, value: Array.isArray(list) ? list.slice(0, LIMITS.steps) : [] };
  }
  if (field === 'id' && (/twice/.test(reason) || isObject(valueAt(document, path.slice(0, 4)))))
    return { path: path.slice(0, 5), value: newId() };
  // A parameter that its step has not.
  if (field === 'params' && path.length >= 6) return { path: path.slice(0, 6), value: undefined };
  if (field !== undefined && field in STEP_DEFAULTS) return { path: path.slice(0, 5), value: STEP_DEFAULTS[field] };
  return { path: path.slice(0, 4), value: undefined };
}

/** The declaration of the parameter that a place lies in. */
function specAt(document: unknown, path: readonly PropertyKey[]) {
  const owned = paramAt(document, path);
  const params = owned ? declarationOf(owned.kind)?.params : undefined;
  const name = String(owned?.at.at(-1));
  return params && Object.hasOwn(params, name) ? params[name] : undefined;
}

function valueAt(document: unknown, path: readonly PropertyKey[]): unknown {
  let value = document;
  for (const part of path) value = typeof value === 'object' && value !== null ? (value as Json)[part] : undefined;
  return value;
}

/** A copy with another value in one place; lists close up where an entry is taken out. */
function changed(document: unknown, [part, ...rest]: readonly PropertyKey[], value: unknown): unknown {
  const next = rest.length > 0 ? changed((document as Json | undefined)?.[part], rest, value) : value;
  if (Array.isArray(document)) {
    const list: unknown[] = [...(document as unknown[])];
    if (next === undefined) list.splice(Number(part), 1);
    else list[Number(part)] = next;
    return list;
  }
  const copy = { ...(isObject(document) ? document : {}) } as Json;
  if (next === undefined) Reflect.deleteProperty(copy, part);
  else copy[part] = next;
  return copy;
}

/** Sets the value in one place of a draft; parts on the way that are frozen, and may be others' too, are copied. */
export function putAt(draft: object, path: readonly PropertyKey[], value: unknown): void {
  let at = draft as Json;
  for (const part of path.slice(0, -1)) {
    const next = at[part] as Json;
    if (Object.isFrozen(next)) at[part] = Array.isArray(next) ? [...(next as unknown[])] : { ...next };
    at = at[part] as Json;
  }
  at[path.at(-1)!] = value;
}
