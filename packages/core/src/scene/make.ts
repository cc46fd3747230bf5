import type { ParamSpec } from '../steps/declare';
import { Problem } from '../problem';
import { stepOf } from '../steps/index';
import type { EaseName } from '../time/easing';
import type { Track } from '../time/track';
import { LIMITS } from './limits';
import { BACKDROP, CAMERA, LENS, LIGHT, type OwnerDeclaration } from './owners';
import { SCENE_FORMAT, SCENE_VERSION, type Growth, type ParamValue, type Scene, type Step } from './schema';

/** Hues that growths take in turn: the same in list, timeline and overlay. */
export const HUES = ['#c9e86a', '#66d3c8', '#f3a6c8', '#f2d06b', '#a99bff', '#7fb4ff'] as const;

/** A new identifier: 12 random letters and digits. */
export function newId(): string {
  return Array.from({ length: 12 }, () => Math.floor(Math.random() * 36).toString(36)).join('');
}

/**
 * A name that none of those taken is: Kelp, Kelp 2, Kelp 3 …, cut where it would be too long. One that has a number is counted on.
 *
 * @example
 * unusedName('Kelp', new Set(['Kelp', 'Kelp 2'])); // → 'Kelp 3'
 * @example
 * unusedName('Kelp 2', new Set(['Kelp 2'])); // → 'Kelp 3'
 */
export function unusedName(base: string, taken: ReadonlySet<string>): string {
  const whole = base.slice(0, LIMITS.name);
  if (!taken.has(whole)) return whole;
  const [, stem, counted] = /^(.*\S) (\d{1,6})$/.exec(whole) ?? [null, whole, '1'];
  for (let i = Number(counted) + 1; ; i++) {
    const end = ` ${i}`;
    const name = `${stem.slice(0, LIMITS.name - end.length)}${end}`;
    if (!taken.has(name)) return name;
  }
}

/** An empty scene: six seconds at 24 frames a second under the default light. */
export function newScene(name: string): Scene {
  return {
    format: SCENE_FORMAT,
    version: SCENE_VERSION,
    name,
    seed: Math.floor(Math.random() * 10000),
    fps: 24,
    range: [1, 144],
    loop: true,
    markers: [],
    growths: [],
    groups: [],
    guides: [],
    files: [],
    finish: {
      palette: ['#c9e86a', '#66d3c8', '#f3a6c8', '#f2d06b', '#a99bff', '#7fb4ff', '#ff8a5b', '#e9efe8'],
    },
    light: defaultsOf(LIGHT),
    backdrop: defaultsOf(BACKDROP),
    lens: defaultsOf(LENS),
    camera: { ...defaultsOf(CAMERA), travel: 'orbit' },
  };
}

/** A step of a kind with all parameters at their defaults, but for those given. */
export function newStep(kind: string, params: Record<string, ParamValue> = {}): Step {
  const declaration = stepOf(kind);
  if (!declaration) throw new Problem(`There is no step "${kind}".`, 'Choose one from the palette.');
  return { id: newId(), kind, name: '', on: true, params: { ...defaultsOf(declaration), ...params } };
}

/** Copies of a declaration's defaults, ready for a document. */
export function defaultsOf(declaration: OwnerDeclaration): Record<string, ParamValue> {
  return Object.fromEntries(
    Object.entries(declaration.params).map(([name, spec]: [string, ParamSpec]) => [
      name,
      JSON.parse(JSON.stringify(spec.default)) as ParamValue,
    ]),
  );
}

/** A growth of the given steps; its hue follows from how many there are already. */
export function newGrowth(name: string, existing: number, steps: Step[]): Growth {
  return {
    id: newId(),
    name,
    hue: HUES[existing % HUES.length],
    visible: true,
    seed: Math.floor(Math.random() * 10000),
    shift: 0,
    place: {},
    group: null,
    locked: false,
    steps,
  };
}

/** A skin of branches: as thick as they are told to be, all the way. */
const BRANCHED: Step['params'] = {
  along: [
    { at: 0, value: 1 },
    { at: 1, value: 1 },
  ],
  swell: 0,
  sides: 8,
  joints: 'grown',
};

/** The steps that a start needs to be seen: of a path, growing over the range, with a skin; colour in any case. */
export function growingSteps(start: Step, [first, last]: readonly [number, number]): Step[] {
  const { gives = [], many = false, branches = false, paced, thin, dress } = stepOf(start.kind) ?? {};
  const dressed: Step['params'] = dress
    ? {
        roughness: dress.roughness,
        gradient: dress.colors.map((color, i) => ({ at: i / (dress.colors.length - 1), color })),
      }
    : {};
  const begun: Step = paced
    ? {
        ...start,
        params: { ...start.params, [paced]: growingTo(Number(start.params[paced]), [first, last], 'linear') },
      }
    : start;
  if (!gives.includes('paths'))
    return gives.includes('mesh')
      ? [begun, ...(thin ? [newStep('thicken', { thick: thin })] : []), newStep('finish', { glow: 0, ...dressed })]
      : [begun];
  return [
    begun,
    ...(paced ? [] : [newStep('grow', { to: growingTo(1, [first, last], 'linear') })]),
    ...(branches ? [newStep('carry'), newStep('tube', BRANCHED)] : [newStep(many ? 'wire' : 'tube')]),
    // Hundreds of glowing tips would outshine everything.
    newStep('finish', many || branches ? { glow: 0.08 } : {}),
  ];
}

/** Keys from nothing to a value over most of the range. */
export const growingTo = (value: number, [first, last]: readonly [number, number], ease: EaseName): Track => ({
  keys: [
    { frame: first, value: 0, ease },
    { frame: first + Math.round(0.8 * (last - first)), value, ease },
  ],
  before: 'hold',
  after: 'hold',
});
