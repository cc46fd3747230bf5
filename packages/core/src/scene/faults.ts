import type * as z from 'zod/mini';
import { stepOf } from '../steps/index';
import { firstIssue, type Issue } from './issue';
import { LIMITS } from './limits';
import { declarationOf, GUIDE, type OwnerDeclaration, SCENE_PARTS, type ScenePart } from './owners';
import { faultOfParam } from './params';
import { growthSchema, type Scene, sceneSchema, stepSchema } from './schema';

/** A place of a document that is not sound, and why. */
export interface Fault {
  path: PropertyKey[];
  reason: string;
  /** The schema's complaint, where it is one. */
  issue?: Issue;
}

type Json = Record<string, unknown>;

/**
 * The first fault of a document of the present version, or null where it is sound: what has no fault here can be saved and
 * opened again.
 * @param sound a document known to be sound: what both share is taken for granted
 */
export function faultOfScene(document: unknown, sound?: Scene): Fault | null {
  if (!isObject(document)) return { path: [], reason: 'must be an object' };
  const { growths, ...head } = document;
  return headFault(head, sound as Json | undefined) ?? growthsFault(growths, sound);
}

function headFault(head: Json, sound: Json | undefined): Fault | null {
  const names = new Set([...Object.keys(head), ...Object.keys(sceneSchema.shape)]);
  if (sound && [...names].every((name) => head[name] === sound[name])) return null;
  return (
    schemaFault([], sceneSchema, head) ??
    twice(['files'], head.files as { id: string }[]) ??
    twice(['guides'], head.guides as { id: string }[]) ??
    twice(['groups'], head.groups as { id: string }[]) ??
    ownersFault(head as unknown as Scene)
  );
}

/** Faults of the numbers of the scene's own parts. */
function ownersFault(head: Pick<Scene, ScenePart | 'guides'>): Fault | null {
  for (const part of SCENE_PARTS) {
    const found = paramsFault([part], declarationOf(part)!, head[part]);
    if (found) return found;
  }
  for (let g = 0; g < head.guides.length; g++) {
    const found = paramsFault(['guides', g, 'params'], GUIDE, head.guides[g].params);
    if (found) return found;
  }
  return null;
}

/** What no parameter of an owner is, or cannot be as it is. */
function paramsFault(path: PropertyKey[], declaration: OwnerDeclaration, params: Json): Fault | null {
  for (const [name, value] of Object.entries(params)) {
    const at = [...path, name];
    if (!Object.hasOwn(declaration.params, name))
      return { path: at, reason: `${declaration.label} has no parameter "${name}"` };
    const wrong = faultOfParam(declaration.params[name], value);
    if (wrong) return { path: [...at, ...wrong.path], reason: wrong.reason };
  }
  return null;
}

function growthsFault(growths: unknown, sound?: Scene): Fault | null {
  if (sound && growths === sound.growths) return null;
  const path = ['growths'];
  const fault = listFault(path, growths, LIMITS.growths, 'a scene holds', 'growths');
  if (fault) return fault;
  const list = growths as unknown[];
  const known = new Set<unknown>(sound?.growths);
  for (let g = 0; g < list.length; g++) {
    const found = known.has(list[g]) ? null : growthFault([...path, g], list[g], sound);
    if (found) return found;
  }
  return twice(path, list as { id: string }[]);
}

function growthFault(path: PropertyKey[], growth: unknown, sound?: Scene): Fault | null {
  if (!isObject(growth)) return { path, reason: 'must be an object' };
  const { steps, ...head } = growth;
  const stepsPath = [...path, 'steps'];
  const fault =
    schemaFault(path, growthSchema, head) ??
    paramsFault([...path, 'place'], declarationOf('place')!, head.place as Json) ??
    listFault(stepsPath, steps, LIMITS.steps, 'a growth holds', 'steps');
  if (fault) return fault;
  const list = steps as unknown[];
  const known = new Set<unknown>(sound?.growths.find(({ id }) => id === head.id)?.steps);
  for (let s = 0; s < list.length; s++) {
    const found = known.has(list[s]) ? null : stepFault([...stepsPath, s], list[s]);
    if (found) return found;
  }
  return twice(stepsPath, list as { id: string }[]);
}

function stepFault(path: PropertyKey[], step: unknown): Fault | null {
  const fault = schemaFault(path, stepSchema, step);
  if (fault) return fault;
  const { kind, params } = step as { kind: string; params: Json };
  const declaration = stepOf(kind);
  if (!declaration) return { path: [...path, 'kind'], reason: `there is no step "${kind}" in this Uvrex` };
  return paramsFault([...path, 'params'], declaration, params);
}

function schemaFault(path: PropertyKey[], schema: z.ZodMiniType, value: unknown): Fault | null {
  const parsed = schema.safeParse(value);
  if (parsed.success) return null;
  const issue = firstIssue(parsed.error);
  return { path: [...path, ...issue.path], reason: plain(issue), issue };
}

function listFault(path: PropertyKey[], list: unknown, most: number, holder: string, what: string): Fault | null {
  if (list === undefined) return { path, reason: 'it is missing, and must be of type array' };
  if (!Array.isArray(list)) return { path, reason: 'must be a list' };
  return list.length > most ? { path, reason: `${holder} ${most} ${what} at most` } : null;
}

function twice(path: PropertyKey[], entries: readonly { id: string }[]): Fault | null {
  const ids = entries.map(({ id }) => id);
  if (new Set(ids).size === ids.length) return null;
  const again = ids.findIndex((id, i) => ids.indexOf(id) !== i);
  return { path: [...path, again, 'id'], reason: `the id "${ids[again]}" is used twice` };
}

/** A schema's complaint in words that say what to mend. */
function plain({ message, code, origin, maximum, minimum }: Issue): string {
  const missing = /expected (\w+), received (\w+)/.exec(message);
  if (missing) {
    const type = missing[1] === 'record' ? 'object' : missing[1];
    return missing[2] === 'undefined' ? `it is missing, and must be of type ${type}` : `must be of type ${type}`;
  }
  // What the schema says in its own words stands as it is.
  if (!/^Too (big|small)/.test(message)) return message.replace(/\.$/, '');
  const [limit, few, many] = code === 'too_big' ? [maximum, 'fewer', 'less'] : [minimum, 'more', 'more'];
  if (origin === 'string') return `must be of ${limit} characters or ${few}`;
  return origin === 'array' ? `must hold ${limit} entries or ${few}` : `must be ${limit} or ${many}`;
}

export const isObject = (value: unknown): value is Json =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** A place as it is written: growths[0].steps[2].params.to. */
export const writtenPath = (path: readonly PropertyKey[]): string =>
  path.map((part, i) => (typeof part === 'number' ? `[${part}]` : `${i ? '.' : ''}${String(part)}`)).join('');

/** A name that fits a sentence. */
export const shortenPath = (name: string): string => (name.length > 40 ? `${name.slice(0, 39)}…` : name);

/** Where in a document a parameter stands that a place lies in: the path to it, and the kind of what owns it. */
export function paramAt(document: unknown, path: readonly PropertyKey[]): { at: PropertyKey[]; kind: string } | null {
  const [root, index, part, second, params] = path;
  if (SCENE_PARTS.some((name) => name === root))
    return path.length >= 2 ? { at: path.slice(0, 2), kind: String(root) } : null;
  if (root === 'guides')
    return part === 'params' && path.length >= 4 ? { at: path.slice(0, 4), kind: GUIDE.kind } : null;
  if (root !== 'growths') return null;
  if (part === 'place') return path.length >= 4 ? { at: path.slice(0, 4), kind: 'place' } : null;
  if (part !== 'steps' || params !== 'params' || path.length < 6) return null;
  const growth = (document as Partial<Scene>).growths?.[index as number];
  const kind: unknown = growth?.steps?.[second as number]?.kind;
  return typeof kind === 'string' ? { at: path.slice(0, 6), kind } : null;
}

/** A place as people know it: the growth, the step and the field of it, or the part of the scene; null elsewhere. */
export function namedPlace(document: unknown, path: readonly PropertyKey[]): string | null {
  const scene = document as Partial<Scene>;
  const owned = paramAt(document, path);
  const declaration = owned ? declarationOf(owned.kind) : undefined;
  const name = String(owned?.at.at(-1));
  const field = declaration && Object.hasOwn(declaration.params, name) ? `, ${declaration.params[name].label}` : '';
  if (path[0] === 'guides') {
    const guide = typeof path[1] === 'number' ? scene.guides?.[path[1]] : undefined;
    return typeof guide?.name === 'string' ? `guide “${shortenPath(guide.name)}”${field}` : null;
  }
  if (path[0] !== 'growths') return declaration ? `${declaration.label}${field}` : null;
  const growth = typeof path[1] === 'number' ? scene.growths?.[path[1]] : undefined;
  if (typeof growth?.name !== 'string') return null;
  const owner = `growth “${shortenPath(growth.name)}”`;
  if (path[2] === 'place') return `${owner}, place${field}`;
  const step = path[2] === 'steps' && typeof path[3] === 'number' ? growth.steps?.[path[3]] : undefined;
  const kind = typeof step?.kind === 'string' ? declarationOf(step.kind) : undefined;
  if (!step || !kind) return owner;
  const title = typeof step.name === 'string' && step.name !== '' ? step.name : kind.label;
  return `${owner}, step ${shortenPath(title)}${field}`;
}
