import en from 'zod/v4/locales/en.js';
import * as z from 'zod/mini';
import type { Stop } from '../geometry/gradient';
import { PROFILE_SHAPES, type ProfilePoint } from '../geometry/profile';
import type { Stroke } from '../geometry/maskStroke';
import type { Anchor } from '../geometry/vec';
import { EASE_NAMES } from '../time/easing';
import { CYCLES, type Track } from '../time/track';
import { LIMITS } from './limits';
import { VARIATIONS, type VariationKind } from './vary';

// Compiling validators at run time needs eval, which the studio's content security policy forbids.
z.config({ jitless: true, ...en() });

/** What `format` says in every scene file. */
export const SCENE_FORMAT = 'uvrex-scene';
/** The version that is written; older ones are migrated by `read.ts`. */
export const SCENE_VERSION = 7;

const finite = z.number();
const within = (low: number, high: number) => finite.check(z.gte(low), z.lte(high));
const between = (limit: number) => within(-limit, limit);
const whole = (low: number, high: number) => z.int().check(z.gte(low), z.lte(high));
/** A text of so many characters. @param longer what is said of a longer one */
const text = (least: number, most: number, longer?: string) =>
  z.string().check(z.minLength(least), z.maxLength(most, longer));
/** A list of so many entries. */
const list = <T extends z.ZodMiniType>(of: T, least: number, most: number, more?: string, fewer?: string) =>
  z.array(of).check(z.minLength(least, fewer), z.maxLength(most, more));

const color = z.string().check(z.regex(/^#[0-9a-f]{6}$/i, 'must be a colour like #8fb84a'));
const id = text(1, 64);
const name = text(1, LIMITS.name);
const seed = whole(0, 0xffffffff);
const frameNumber = whole(-LIMITS.frame, LIMITS.frame);

const easeSchema = z.union([
  z.enum(EASE_NAMES as [string, ...string[]]),
  z.tuple([within(0, 1), between(LIMITS.easeReach), within(0, 1), between(LIMITS.easeReach)]),
]);

const keySchema = z.strictObject({ frame: between(LIMITS.keyFrame), value: finite, ease: easeSchema });

const cycle = z.enum(CYCLES as unknown as [string, ...string[]]);

/** Keys at rising frames, and what holds before the first and after the last. */
export const trackSchema = z.strictObject({
  keys: list(
    keySchema,
    1,
    LIMITS.keys,
    `a track holds ${LIMITS.keys} keys at most`,
    'a track needs one key or more',
  ).check(
    z.refine(
      (keys) => keys.every((key, i) => i === 0 || keys[i - 1].frame < key.frame),
      'keys must stand at rising frames',
    ),
  ),
  before: cycle,
  after: cycle,
});

/** A stop of a gradient: share 0..1, sRGB colour #rrggbb. */
export const stopSchema = z.strictObject({ at: within(0, 1), color });
/** A point of a profile: share 0..1, its value, and how it goes on to the next. */
export const profilePointSchema = z.strictObject({
  at: within(0, 1),
  value: finite,
  shape: z.optional(z.enum(PROFILE_SHAPES)),
});

/** A value worked out at every frame; see `time/formula.ts`. */
export const formulaSchema = z.strictObject({
  formula: text(1, LIMITS.formula, `must be of ${LIMITS.formula} characters or fewer`),
});

/** How a number differs from path to path, or along each. */
export const variationSchema = z.strictObject({
  by: z.enum(VARIATIONS as unknown as [string, ...string[]]),
  /** Largest difference, in the parameter's own unit. */
  amount: between(LIMITS.vary),
  /** Changes of the noise along a whole path. */
  waves: within(0, LIMITS.waves),
  /** What the amount is multiplied by, from the first path to the last, or from base to tip. */
  shape: list(profilePointSchema, 1, LIMITS.stops),
  /** The attribute that it goes by, and which of its values stand at the shape's two ends. */
  attribute: z.optional(name),
  span: z.optional(z.tuple([between(LIMITS.vary), between(LIMITS.vary)])),
});

const drivenSchema = z.union([finite, trackSchema, formulaSchema]);

/** A number that is not the same for all: what it is about, and by how much it differs. */
export const variedSchema = z.strictObject({ base: drivenSchema, vary: variationSchema });

/** Values by the names of fields. */
const paramsSchema = z.record(z.string(), z.unknown());

/** One operation of a growth. */
export const stepSchema = z.strictObject({
  id,
  kind: text(1, 40),
  /** Own name; the kind's label where it is empty. */
  name: text(0, LIMITS.name),
  on: z.boolean(),
  /** Checked against the declaration of the kind; see `params.ts`. */
  params: paramsSchema,
});

/** A growth, its steps left aside: they are checked one by one. */
export const growthSchema = z.strictObject({
  id,
  name,
  hue: color,
  visible: z.boolean(),
  seed,
  /** Frames by which the growth runs late. */
  shift: between(LIMITS.frame),
  /** Where it stands as a whole; checked against the declaration of a place. Empty where it has never been moved. */
  place: paramsSchema,
  /** The group that it is in. */
  group: z.nullable(id),
  /** Whether it is kept from being changed by mistake. */
  locked: z.boolean(),
});

/** Growths that stand together in the list. */
export const groupSchema = z.strictObject({
  id,
  name,
  hue: color,
  visible: z.boolean(),
  /** Frames by which all of it runs late, on top of what its growths have of their own. */
  shift: between(LIMITS.frame),
});

/** A point, plane, ball or box that steps refer to. */
export const guideSchema = z.strictObject({
  id,
  name,
  /** Checked against the declaration of a guide; see `owners.ts`. */
  params: paramsSchema,
});

/** A file that the scene uses: what it was called, and what it is. Its id is the hash of its bytes, which lie beside the scene. */
export const fileSchema = z.strictObject({
  id,
  name,
  kind: z.enum(['svg', 'font', 'sound', 'form', 'table', 'picture']),
});

/** A scene, its growths left aside: they are checked one by one. */
export const sceneSchema = z.strictObject({
  format: z.literal(SCENE_FORMAT),
  version: z.literal(SCENE_VERSION),
  name,
  seed,
  fps: within(LIMITS.fps[0], LIMITS.fps[1]),
  /** First and last frame, both played. */
  range: z
    .tuple([frameNumber, frameNumber])
    .check(z.refine(([first, last]) => first < last, 'the last frame must come after the first')),
  loop: z.boolean(),
  /** Moments with a name, in rising order. */
  markers: list(
    z.strictObject({ frame: frameNumber, name: text(0, LIMITS.name) }),
    0,
    LIMITS.markers,
    `a scene holds ${LIMITS.markers} markers at most`,
  ),
  groups: list(groupSchema, 0, LIMITS.groups, `a scene holds ${LIMITS.groups} groups at most`),
  guides: list(guideSchema, 0, LIMITS.guides, `a scene holds ${LIMITS.guides} guides at most`),
  files: list(fileSchema, 0, LIMITS.files, `a scene holds ${LIMITS.files} files at most`),
  /** Colours offered first when choosing one. */
  finish: z.strictObject({ palette: list(color, 0, LIMITS.palette) }),
  /** Parts that own numbers, each checked against its declaration; see `owners.ts`. */
  light: paramsSchema,
  backdrop: paramsSchema,
  lens: paramsSchema,
  camera: paramsSchema,
});

type Schema = z.infer<typeof sceneSchema>;

/** A file that the scene uses, by the hash of its bytes. */
export type SceneFile = Schema['files'][number];
/** Growths that stand together in the list, hidden and delayed together. */
export type GrowthGroup = Schema['groups'][number];
/** A guide with its values. */
export interface SceneGuide extends Omit<Schema['guides'][number], 'params'> {
  params: Params;
}

/** A number computed at every frame; the names it may use are those of `values.ts`. */
export interface Formula {
  formula: string;
}

/** How a number differs from element to element: by chance, noise, index, along a path, or by an attribute. */
export interface Variation {
  by: VariationKind;
  amount: number;
  waves: number;
  shape: ProfilePoint[];
  attribute?: string;
  span?: [number, number];
}

/** A number in the document: constant, track or formula. */
export type Driven = number | Track | Formula;

/** A number with a variation: a base at each frame, and what each element adds. */
export interface Varied {
  base: Driven;
  vary: Variation;
}

/** The value of a parameter in the document. */
export type ParamValue = Driven | Varied | string | boolean | null | Anchor[] | Stop[] | ProfilePoint[] | Stroke[];

/** Values of fields by their names; what is left out is at its default. */
export type Params = Record<string, ParamValue>;

/** What has numbers of its own that can have keys and formulas: a step, a growth's place, a light, a guide … */
export interface Owner {
  id: string;
  kind: string;
  name: string;
  params: Params;
}

/** One operation of a growth: its kind (see `steps/index.ts`), whether it is on, and its values. */
export interface Step extends Omit<z.infer<typeof stepSchema>, 'params'>, Owner {
  params: Params;
}

/**
 * A list of steps that makes geometry over time. `shift` delays all of it, frames; `place` moves, turns and scales it; `group`
 * is the id of its group, or null.
 */
export interface Growth extends Omit<z.infer<typeof growthSchema>, 'place'> {
  place: Params;
  steps: Step[];
}

/**
 * The whole document. Frames are whole and counted from any first one; `fps` is frames per second; lengths are metres, angles
 * degrees. Growths refer to each other, to guides and to files by id.
 */
export interface Scene extends Omit<Schema, 'guides' | 'light' | 'backdrop' | 'lens' | 'camera'> {
  growths: Growth[];
  guides: SceneGuide[];
  light: Params;
  backdrop: Params;
  lens: Params;
  camera: Params;
}

const holds = (value: ParamValue | undefined, key: string): boolean =>
  typeof value === 'object' && value !== null && !Array.isArray(value) && key in value;

/** Whether a parameter value has keys of its own. */
export const isTrack = (value: ParamValue | undefined): value is Track => holds(value, 'keys');

/** Whether a parameter value is a formula. */
export const isFormula = (value: ParamValue | undefined): value is Formula => holds(value, 'formula');

/** Whether a parameter value differs from path to path. */
export const isVaried = (value: ParamValue | undefined): value is Varied => holds(value, 'vary');

/** What drives a number, its variation left aside. */
export const baseOf = (value: ParamValue | undefined): ParamValue | undefined => (isVaried(value) ? value.base : value);

/** The same value with another base. */
export const withBase = (value: ParamValue | undefined, base: ParamValue): ParamValue =>
  isVaried(value) ? { ...value, base: base as Driven } : base;
