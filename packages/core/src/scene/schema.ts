import * as z from 'zod';
import { type Stop } from '../geometry/gradient';
import { PROFILE_SHAPES, type ProfilePoint } from '../geometry/profile';
import { type Anchor } from '../geometry/vec';
import { EASE_NAMES } from '../time/easing';
import { CYCLES, type Track } from '../time/track';
import { LIMITS } from './limits';
import { VARIATIONS, type VariationKind } from './vary';

// Compiling validators at run time needs eval, which the studio's content security policy forbids.
z.config({ jitless: true });

export const SCENE_FORMAT = 'uvrex-scene';
export const SCENE_VERSION = 5;

const finite = z.number();
const color = z.string().regex(/^#[0-9a-f]{6}$/i, 'must be a colour like #8fb84a');
const id = z.string().min(1).max(64);
const name = z.string().min(1).max(LIMITS.name);
const seed = z.int().min(0).max(0xffffffff);
const between = (limit: number) => finite.min(-limit).max(limit);
const frameNumber = z.int().min(-LIMITS.frame).max(LIMITS.frame);

const easeSchema = z.union([
  z.enum(EASE_NAMES as [string, ...string[]]),
  z.tuple([finite.min(0).max(1), between(LIMITS.easeReach), finite.min(0).max(1), between(LIMITS.easeReach)]),
]);

const keySchema = z.strictObject({ frame: between(LIMITS.keyFrame), value: finite, ease: easeSchema });

const cycle = z.enum(CYCLES as unknown as [string, ...string[]]);

export const trackSchema = z.strictObject({
  keys: z
    .array(keySchema)
    .min(1, 'a track needs one key or more')
    .max(LIMITS.keys, `a track holds ${LIMITS.keys} keys at most`)
    .refine(
      (keys) => keys.every((key, i) => i === 0 || keys[i - 1].frame < key.frame),
      'keys must stand at rising frames',
    ),
  before: cycle,
  after: cycle,
});

export const stopSchema = z.strictObject({ at: finite.min(0).max(1), color });
export const profilePointSchema = z.strictObject({
  at: finite.min(0).max(1),
  value: finite,
  shape: z.enum(PROFILE_SHAPES).optional(),
});

/** A value worked out at every frame; see `time/formula.ts`. */
export const formulaSchema = z.strictObject({
  formula: z.string().min(1).max(LIMITS.formula, `must be of ${LIMITS.formula} characters or fewer`),
});

/** How a number differs from path to path, or along each. */
export const variationSchema = z.strictObject({
  by: z.enum(VARIATIONS as unknown as [string, ...string[]]),
  /** Largest difference, in the parameter's own unit. */
  amount: between(LIMITS.vary),
  /** Changes of the noise along a whole path. */
  waves: finite.min(0).max(LIMITS.waves),
  /** What the amount is multiplied by, from the first path to the last, or from base to tip. */
  shape: z.array(profilePointSchema).min(1).max(LIMITS.stops),
  /** The attribute that it goes by, and which of its values stand at the shape's two ends. */
  attribute: z.string().min(1).max(LIMITS.name).optional(),
  span: z.tuple([between(LIMITS.vary), between(LIMITS.vary)]).optional(),
});

const drivenSchema = z.union([finite, trackSchema, formulaSchema]);

/** A number that is not the same for all: what it is about, and by how much it differs. */
export const variedSchema = z.strictObject({ base: drivenSchema, vary: variationSchema });

/** Values by the names of fields. */
const paramsSchema = z.record(z.string(), z.unknown());

export const stepSchema = z.strictObject({
  id,
  kind: z.string().min(1).max(40),
  /** Own name; the kind's label where it is empty. */
  name: z.string().max(LIMITS.name),
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
});

export const guideSchema = z.strictObject({
  id,
  name,
  /** Checked against the declaration of a guide; see `owners.ts`. */
  params: paramsSchema,
});

/** A file that the scene uses: what it was called, and what it is. Its id is the hash of its bytes, which lie beside the scene. */
export const fileSchema = z.strictObject({ id, name, kind: z.enum(['svg', 'font', 'sound']) });

/** A scene, its growths left aside: they are checked one by one. */
export const sceneSchema = z.strictObject({
  format: z.literal(SCENE_FORMAT),
  version: z.literal(SCENE_VERSION),
  name,
  seed,
  fps: finite.min(LIMITS.fps[0]).max(LIMITS.fps[1]),
  /** First and last frame, both played. */
  range: z
    .tuple([frameNumber, frameNumber])
    .refine(([first, last]) => first < last, 'the last frame must come after the first'),
  loop: z.boolean(),
  /** Moments with a name, in rising order. */
  markers: z
    .array(z.strictObject({ frame: frameNumber, name: z.string().max(LIMITS.name) }))
    .max(LIMITS.markers, `a scene holds ${LIMITS.markers} markers at most`),
  guides: z.array(guideSchema).max(LIMITS.guides, `a scene holds ${LIMITS.guides} guides at most`),
  files: z.array(fileSchema).max(LIMITS.files, `a scene holds ${LIMITS.files} files at most`),
  /** Colours offered first when choosing one. */
  finish: z.strictObject({ palette: z.array(color).max(LIMITS.palette) }),
  /** Parts that own numbers, each checked against its declaration; see `owners.ts`. */
  light: paramsSchema,
  backdrop: paramsSchema,
  lens: paramsSchema,
  camera: paramsSchema,
});

type Schema = z.infer<typeof sceneSchema>;

export type SceneFile = Schema['files'][number];
export interface SceneGuide extends Omit<Schema['guides'][number], 'params'> {
  params: Params;
}

export interface Formula {
  formula: string;
}

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

export interface Varied {
  base: Driven;
  vary: Variation;
}

/** The value of a parameter in the document. */
export type ParamValue = Driven | Varied | string | boolean | null | Anchor[] | Stop[] | ProfilePoint[];

/** Values of fields by their names; what is left out is at its default. */
export type Params = Record<string, ParamValue>;

/** What has numbers of its own that can have keys and formulas: a step, a growth's place, a light, a guide … */
export interface Owner {
  id: string;
  kind: string;
  name: string;
  params: Params;
}

export interface Step extends Omit<z.infer<typeof stepSchema>, 'params'>, Owner {
  params: Params;
}

export interface Growth extends Omit<z.infer<typeof growthSchema>, 'place'> {
  place: Params;
  steps: Step[];
}

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
