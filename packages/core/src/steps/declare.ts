import { type Form, type FormKind } from '../geometry/form';
import { type Stop } from '../geometry/gradient';
import { type ProfilePoint } from '../geometry/profile';
import { type Vec3 } from '../geometry/vec';

/** What a number means. Shares are stored 0..1 and shown in percent. */
export type Unit = 'm' | 'deg' | 'share' | 'count' | 'turns' | 's' | 'per-second' | 'plain';

interface Common {
  label: string;
  help: string;
  /** Shown only when this holds for the step's other parameters. */
  shown?: (params: Resolved) => boolean;
}

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
  /** Fields that belong together in one row share a group name. */
  group?: string;
}

export interface ChoiceParam extends Common {
  type: 'choice';
  options: readonly { value: string; label: string }[];
  default: string;
}

export interface ToggleParam extends Common {
  type: 'toggle';
  default: boolean;
}

export interface ColorParam extends Common {
  type: 'color';
  default: string;
}

export interface GradientParam extends Common {
  type: 'gradient';
  default: readonly Stop[];
}

export interface ProfileParam extends Common {
  type: 'profile';
  default: readonly ProfilePoint[];
  /** Values the editor shows, from bottom to top; values outside are refused. */
  min: number;
  max: number;
}

export interface AnchorsParam extends Common {
  type: 'anchors';
  default: readonly Vec3[];
}

export interface GrowthParam extends Common {
  type: 'growth';
  default: null;
}

export type ParamSpec =
  NumberParam | ChoiceParam | ToggleParam | ColorParam | GradientParam | ProfileParam | AnchorsParam | GrowthParam;

export type ParamSpecs = Record<string, ParamSpec>;

/** The value that a parameter has at one frame. */
export type ParamConstant =
  number | string | boolean | null | readonly Stop[] | readonly ProfilePoint[] | readonly Vec3[];
export type Resolved = Record<string, ParamConstant>;

type Plain<T> = T extends NumberParam
  ? number
  : T extends ToggleParam
    ? boolean
    : T extends GradientParam
      ? readonly Stop[]
      : T extends ProfileParam
        ? readonly ProfilePoint[]
        : T extends AnchorsParam
          ? readonly Vec3[]
          : T extends GrowthParam
            ? string | null
            : string;

/** The resolved parameters of a step, as its `run` receives them. */
export type ParamsOf<S extends ParamSpecs> = { [K in keyof S]: Plain<S[K]> };

/** What a step may ask of the evaluation it runs in. */
export interface StepContext {
  /** Frame of this growth, after its shift. */
  frame: number;
  fps: number;
  /** First and last frame of the scene, both played. */
  range: readonly [number, number];
  /** Seed of this step: scene, growth and step mixed. */
  seed: number;
  /** Announces what is about to be made, and throws a Problem when it would pass a budget. */
  claim(kind: 'points' | 'faces' | 'copies', amount: number, lower: string): void;
  /** One of this step's numbers at another frame of this growth: for what runs staggered. */
  numberAt(param: string, frame: number): number;
  /** The form of another growth at this frame, as the evaluation has already made it. */
  other(growthId: string): Form;
  /** To be awaited between chunks of long work: lets messages in, and throws when the work is no longer wanted. */
  breathe(): Promise<void>;
}

export type Family = 'start' | 'shape' | 'grow' | 'skin' | 'finish';

export interface StepDeclaration<S extends ParamSpecs = ParamSpecs> {
  kind: string;
  family: Family;
  label: string;
  help: string;
  /** Kinds of geometry that must be there already. Steps that take nothing add to what is there. */
  takes: readonly FormKind[];
  gives: readonly FormKind[];
  params: S;
  /** True when the result depends on the frame beyond its parameters' values. */
  timed?: (params: ParamsOf<S>) => boolean;
  /** One line on what the step does now, for the stem. */
  summary(params: ParamsOf<S>): string;
  run(form: Form, params: ParamsOf<S>, context: StepContext): Form | Promise<Form>;
}

/** Declares a step; keeps the parameters' types for `run` and `summary`. */
export const defineStep = <S extends ParamSpecs>(declaration: StepDeclaration<S>): StepDeclaration<S> => declaration;

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
