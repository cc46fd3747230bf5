import type { Guide } from '../scene/owners';
import type { SceneFile } from '../scene/schema';
import type { Form, FormKind } from '../geometry/form';
import type { Stop } from '../geometry/gradient';
import type { Measures } from '../geometry/measures';
import type { ProfilePoint } from '../geometry/profile';
import type { Stroke } from '../geometry/maskStroke';
import type { Anchor, Corners, Vec3 } from '../geometry/vec';
import type { VariedNumber } from '../geometry/element';

/** What a number means. Shares are stored 0..1 and shown in percent. */
export type Unit = 'm' | 'deg' | 'share' | 'count' | 'turns' | 's' | 'frames' | 'per-second' | 'hz' | 'plain';

interface Common {
  label: string;
  help: string;
  /** Shown only when this holds for the step's other parameters. */
  shown?: (params: Resolved) => boolean;
}

/**
 * A number: its unit, its limits (inclusive, in that unit) and the range of its slider. `whole` rounds it; `varies` says over
 * which elements it may differ.
 */
export interface NumberParam extends Common {
  type: 'number';
  unit: Unit;
  default: number;
  /** Values outside are refused. */
  min: number;
  max: number;
  /** What the slider reaches, where that is less than what is allowed. */
  slider?: readonly [number, number];
  /** Whole numbers only. */
  whole?: boolean;
  /** Where a step is added, it is animated: from nothing over the range to the size of what is there. */
  grows?: boolean;
  /** Fields that belong together in one row share a group name. */
  group?: string;
  /** Whether it can differ from path to path, or along each path too. The step asks `context.varied` then. */
  varies?: 'path' | 'along';
}

/** A text, of a number of characters at most. */
export interface TextParam extends Common {
  type: 'text';
  default: string;
  most: number;
  /** Code, each line a row of its own, which is called so. */
  rows?: string;
  /** Its rows are put down by clicking in the view. */
  placed?: boolean;
}

/** A file of a kind, by the hash of its bytes or `shipped:NAME`; null for none. */
export interface FileParam extends Common {
  type: 'file';
  kind: SceneFile['kind'];
  /** Files that come with Uvrex, by the name that stands for them. */
  shipped: readonly { value: string; label: string }[];
  default: string | null;
}

/** A guide of the scene, or the growing tips of a growth. */
export interface GuideParam extends Common {
  type: 'guide';
  default: null;
}

/** One of several options, by their values. */
export interface ChoiceParam extends Common {
  type: 'choice';
  options: readonly { value: string; label: string }[];
  default: string;
}

/** On or off. */
export interface ToggleParam extends Common {
  type: 'toggle';
  default: boolean;
}

/** A colour, sRGB #rrggbb. */
export interface ColorParam extends Common {
  type: 'color';
  default: string;
}

/** Colours along 0..1. */
export interface GradientParam extends Common {
  type: 'gradient';
  default: readonly Stop[];
}

/** Values along 0..1. */
export interface ProfileParam extends Common {
  type: 'profile';
  default: readonly ProfilePoint[];
  /** Values the editor shows, from bottom to top; values outside are refused. */
  min: number;
  max: number;
}

/** Points of a drawn path, metres. */
export interface AnchorsParam extends Common {
  type: 'anchors';
  default: readonly Anchor[];
  /** Places on the skin that comes into the step, clicked one by one; else the course of a path. */
  onSkin?: boolean;
}

/** Strokes of a brush over the skin that comes into the step. */
export interface StrokesParam extends Common {
  type: 'strokes';
  default: readonly Stroke[];
}

/** The name of an attribute that what comes in knows; none where it is empty. */
export interface AttributeParam extends Common {
  type: 'attribute';
  default: string;
}

/** Another growth, by id; null for none. `fits` says which kinds of geometry it must have, `item` that it is copied. */
export interface GrowthParam extends Common {
  type: 'growth';
  default: null;
  /** Looked at as it stands at the last frame. */
  still?: boolean;
  /** It is copied: where there is none, one can be made. */
  item?: boolean;
  /** The step does without it: a new one leaves it empty. */
  optional?: boolean;
  /** Where the step is the first of its growth it takes one all the same. */
  neededFirst?: boolean;
  /** Kinds of geometry of which the growth must have one; any growth where left out. */
  fits?: readonly FormKind[];
}

/** A field of a step, by its type. */
export type ParamSpec =
  | NumberParam
  | ChoiceParam
  | ToggleParam
  | ColorParam
  | GradientParam
  | ProfileParam
  | AnchorsParam
  | GrowthParam
  | TextParam
  | FileParam
  | GuideParam
  | AttributeParam
  | StrokesParam;

/** The fields of a step by their names. */
export type ParamSpecs = Record<string, ParamSpec>;

/** The value that a parameter has at one frame. */
export type ParamConstant =
  number | string | boolean | null | readonly Stop[] | readonly ProfilePoint[] | readonly Anchor[] | readonly Stroke[];
/** Values of all fields at a frame. */
export type Resolved = Record<string, ParamConstant>;

type Plain<T> = T extends NumberParam
  ? number
  : T extends { type: 'choice'; options: readonly { value: infer V }[] }
    ? V
    : T extends ToggleParam
      ? boolean
      : T extends GradientParam
        ? readonly Stop[]
        : T extends ProfileParam
          ? readonly ProfilePoint[]
          : T extends AnchorsParam
            ? readonly Anchor[]
            : T extends StrokesParam
              ? readonly Stroke[]
              : T extends GrowthParam | FileParam | GuideParam
                ? string | null
                : string;

/** The resolved parameters of a step, as its `run` receives them. */
export type ParamsOf<S extends ParamSpecs> = { [K in keyof S]: Plain<S[K]> };

/** What steps leave behind only when a later one wants it: how long ago the front passed each point. */
export type Want = 'age';
/** What a later step needs that costs work to leave behind. */
export type Wants = ReadonlySet<Want>;

/**
 * What a step may ask of the evaluation it runs in. Whatever it asks becomes part of the key of what it makes; `frame`,
 * `sceneFrame`, `numberAt`, `inputAt` and `otherAt` are for steps that declare `moves`.
 */
export interface StepContext {
  /** Frame of this growth, after its shift. */
  frame: number;
  /** Frame of the scene. */
  sceneFrame: number;
  fps: number;
  /** First and last frame of the scene, both played. */
  range: readonly [number, number];
  /** Seed of this step: scene, growth and step mixed. */
  seed: number;
  /** Whether a later step wants something of this one that costs it work. */
  wanted(want: Want): boolean;
  /** Whether the paths that come in have the same course at all frames, however much of them has grown. Steps that place may ask. */
  readonly steady: boolean;
  /** Announces what is about to be made, and throws a Problem when it would pass a budget. */
  claim(kind: 'points' | 'faces' | 'copies', amount: number, lower: string): void;
  /** One of this step's numbers at another frame of this growth: for what runs staggered. */
  numberAt(param: string, frame: number): number;
  /** Whether one of this step's numbers differs from path to path. */
  varies(param: string): boolean;
  /** One of this step's numbers without its variation. */
  plain(param: string): number;
  /** One of this step's numbers at any path or point, with its variation. */
  varied(param: string): VariedNumber;
  /** Bytes of a file: one that the scene keeps, or one that comes with Uvrex. */
  file(id: string): Promise<Uint8Array>;
  /** The places that a guide parameter stands for: one for a guide, one a path for the tips of a growth. */
  places(param: string): Promise<Vec3[]>;
  /** The guide of the scene that a guide parameter stands for; null for the tips of a growth. */
  guide(param: string): Guide | null;
  /** The form of the growth that a parameter names: at this frame, or where the parameter says so at the last. */
  other(param: string): Promise<Form>;
  /** The measures of the growth that a parameter names, at the same frame; null while it has no shape. */
  measures(param: string): Promise<Measures | null>;
  /** Inner lengths of the growth that a parameter names, along each axis; see `holesOf`. */
  holes(param: string): Promise<(number | null)[]>;
  /** The room that any growth that copies show takes at the last frame; null where it has no surface. */
  room(growthId: string): Promise<Corners | null>;
  /** What comes into this step at another frame of this growth: for what remembers, trails or smears. */
  inputAt(frame: number): Promise<Form>;
  /**
   * What comes into this step so many frames before this one: for what is staggered. A result that asks nothing else of time repeats
   * whenever its input does, and need not declare that it moves.
   */
  inputBefore(frames: number): Promise<Form>;
  /** The form of the growth that a parameter names at another frame of the scene, or at its last one, which any step may ask. */
  otherAt(param: string, sceneFrame: number | 'last'): Promise<Form>;
  /** What comes into this step at the last frame of the scene: for what is laid out once, on all that there will be. */
  inputAtLast(): Promise<Form>;
  /**
   * Tells something of what is made that is good to know and no failure: what it is, and what to do about it.
   * @param fix numbers of the step that do it in one click
   */
  tell(what: string, advice: string, fix?: { label: string; set: Record<string, number> }): void;
  /** To be awaited between chunks of long work: lets messages in, and throws when the work is no longer wanted. */
  yieldNow(): Promise<void>;
}

/** What starts are for. */
export const USES = [
  'Curves',
  'Branches and webs',
  'Folds and heads',
  'Forms',
  'Letters and drawings',
  'From another growth',
] as const;

/** Where a step stands among the others in lists. */
export type Family = 'start' | 'shape' | 'grow' | 'skin' | 'place' | 'finish';

/** Values of a step to begin from. */
export interface StepPreset {
  label: string;
  params: Record<string, string | number>;
  /** What it comes to, drawn in a field of 100 × 100, as SVG path data. */
  picture: string;
}

/**
 * What a step is: its words, its fields, which geometry it takes and gives, and what it computes. Everything outside of the
 * engine reads it: panel, palette, help, validation, files.
 */
export interface StepDeclaration<S extends ParamSpecs = ParamSpecs> {
  kind: string;
  family: Family;
  label: string;
  /** Strokes on a field of 20 × 20, as SVG path data. */
  icon: string;
  help: string;
  /** What it is for, where a growth can begin with it. */
  use?: (typeof USES)[number];
  /** Kinds of geometry that must be there already. Steps that take nothing add to what is there. */
  takes: readonly FormKind[];
  /** Kinds of which one must be there, where a step works on any of them. */
  takesOne?: readonly FormKind[];
  gives: readonly FormKind[];
  /** Kinds that it gives besides, by its parameters as they stand in the document. */
  givesToo?: (params: Readonly<Record<string, unknown>>) => readonly FormKind[];
  params: S;
  /** Parameters that are seldom changed, by the name of the part of the panel that they fold away in. */
  parts?: Readonly<Record<string, readonly (keyof S & string)[]>>;
  /** How a new one begins, and among which steps it goes, in a growth without copies, where it acts on those elsewhere. */
  withoutCopies?: { family: Family; params: Record<string, string> };
  /** Its result may change from frame to frame while its own values stand still. Only then it may ask for the time. */
  moves?: boolean;
  /** It is taken hold of in the view, by what `steps/handles.ts` says. */
  held?: boolean;
  /** It has handles of its own in the view: for drawn anchors, a web's nodes and links, placed points, copies along a path, a falloff's shape. */
  handles?: 'anchors' | 'web' | 'nodes' | 'copies' | 'falloff';
  /** It makes many paths, or plain lines: a new growth begins with the lightest skin. */
  many?: boolean;
  /** Its paths branch: a new growth lets them thicken by what they carry, and grow together into one skin. */
  branches?: boolean;
  /** It makes a sheet that is seen from both sides: a new growth gives it this thickness, metres. */
  thin?: number;
  /** How a new growth of it is coloured, where its own green does not suit it. */
  dress?: { roughness: number; colors: readonly string[] };
  /** The parameter that says how far it has grown; a new growth on a start that has one animates that, and needs no Grow. */
  paced?: string;
  /** The parameter that says how many frames after one another its paths begin. */
  staggered?: string;
  /** By what its numbers are multiplied for a quick, coarse form of it, while something of it changes and that takes long. */
  coarse?: Readonly<Partial<Record<keyof S & string, number>>>;
  /** The sound that it goes by, as its parameters stand in the document; null where it goes by none. */
  hears?: (params: Readonly<Record<string, unknown>>) => { file: string; repeat: boolean } | null;
  /** The parameter that names the growth whose paths it takes over, with what later steps want of them. */
  heirOf?: string;
  /** Names of the attributes that it leaves on what it gives, for later steps to go by. */
  writes?: (params: ParamsOf<S>) => readonly string[];
  /** What it wants earlier steps to leave behind, where that costs them work. */
  wants?: (params: ParamsOf<S>) => readonly Want[];
  /** Ready values to begin from; made when they are asked for. */
  presets?: () => Promise<readonly StepPreset[]>;
  /** One line on what the step does now, for the stem. */
  summary(params: ParamsOf<S>): string;
  run(form: Form, params: ParamsOf<S>, context: StepContext): Form | Promise<Form>;
}

/** Declares a step; keeps the parameters' types for `run` and `summary`. */
export const defineStep = <const S extends ParamSpecs>(declaration: StepDeclaration<S>): StepDeclaration<S> =>
  declaration;

/** Which copies a step changes, of those that are there. */
export const scopeParam = {
  type: 'choice',
  label: 'Acts on',
  help: 'All copies that are there, or only those of the last step before it that places some.',
  options: [
    { value: 'all', label: 'All copies' },
    { value: 'last', label: 'The last placed' },
  ],
  default: 'all',
} as const satisfies ChoiceParam;

/** Three number fields in one row: a place, in metres. Names are `prefix` + X, Y, Z. */
export function place<P extends string>(
  prefix: P,
  label: string,
  help: string,
  [x, y, z]: Vec3,
): Record<`${P}X` | `${P}Y` | `${P}Z`, NumberParam> {
  const axis = (name: string, value: number): NumberParam => ({
    type: 'number',
    unit: 'm',
    label: name,
    help,
    default: value,
    min: -1000,
    max: 1000,
    slider: [-5, 5],
    group: label,
  });
  return { [`${prefix}X`]: axis('X', x), [`${prefix}Y`]: axis('Y', y), [`${prefix}Z`]: axis('Z', z) } as Record<
    `${P}X` | `${P}Y` | `${P}Z`,
    NumberParam
  >;
}

/** What number fields of a kind have in common; each then says what it is called, what it does and what it is at first. */
export const numberField =
  (common: Pick<NumberParam, 'unit' | 'min' | 'max'> & Partial<NumberParam>) =>
  (label: string, help: string, value: number, more: Partial<NumberParam> = {}): NumberParam => ({
    type: 'number',
    label,
    help,
    default: value,
    ...common,
    ...more,
  });

/** Whether a parameter has one of some values: for fields that show only then. */
export const is =
  (name: string, ...values: string[]) =>
  (p: Resolved): boolean =>
    values.includes(String(p[name]));

/** Fields that all show under the same condition. */
export const shownFor = <T extends Record<string, NumberParam>>(fields: T, shown: (p: Resolved) => boolean): T =>
  Object.fromEntries(Object.entries(fields).map(([name, spec]) => [name, { ...spec, shown }])) as T;

/** How many places there are, animated without moving any that stand; the last of a part of one comes up from nothing. */
export const placesParam = (value: number, shown?: (params: Resolved) => boolean): NumberParam => ({
  type: 'number',
  unit: 'plain',
  label: 'Count',
  help: 'How many there are; between whole numbers the newest one is coming up. Animated, it moves none that stand.',
  default: value,
  min: 0,
  max: 1_000_000,
  slider: [0, 2000],
  shown,
});

/** How many points a path is made of: the same field in every step that makes one. */
export const pointsParam = (value: number): NumberParam => ({
  type: 'number',
  unit: 'count',
  label: 'Points',
  help: 'How many points the path is made of, evenly spaced.',
  default: value,
  min: 2,
  max: 200000,
  slider: [2, 600],
  whole: true,
});
