import { type NumberParam, type ParamSpecs, place, type Resolved, type StepDeclaration } from '../steps/declare';
import { stepOf } from '../steps/index';
import { growthPlace } from '../steps/shape/growthPlace';
import { groupMember } from '../steps/start/groupMember';
import type { Vec3 } from '../geometry/vec';
import type { Growth, Scene, SceneGuide, Step } from './schema';

/** What an owner of numbers has: what it is called, and its fields. Steps declare more. */
export type OwnerDeclaration = Pick<StepDeclaration, 'kind' | 'label' | 'help' | 'params'>;

/** What stands in the place of a growth's id where the scene's own numbers are meant. */
export const SCENE_ID = 'scene';

const share = (label: string, help: string, value: number, more: Partial<NumberParam> = {}): NumberParam => ({
  type: 'number',
  unit: 'share',
  label,
  help,
  default: value,
  min: 0,
  max: 1,
  ...more,
});
const degrees = (label: string, help: string, value: number, more: Partial<NumberParam>): NumberParam => ({
  ...share(label, help, value),
  unit: 'deg',
  min: -36000,
  max: 36000,
  slider: [-180, 180],
  ...more,
});
const color = (label: string, help: string, value: string) => ({ type: 'color', label, help, default: value }) as const;

/** The numbers of the main light. */
export const LIGHT = {
  kind: 'light',
  label: 'Light',
  help: 'The main light.',
  params: {
    turn: degrees('Turn', 'Where the main light stands, about the vertical.', 40, {}),
    height: degrees('Height', 'How high it stands.', 52, { min: -90, max: 90, slider: [0, 90] }),
    strength: share('Strength', 'Of all light.', 1, { max: 10, slider: [0, 3] }),
    color: color('Light colour', 'Of the main light.', '#fff2dc'),
  },
} satisfies OwnerDeclaration;

/** The numbers of the water all round. */
export const BACKDROP = {
  kind: 'backdrop',
  label: 'Backdrop',
  help: 'The water all round.',
  params: {
    above: color('Above', 'Colour of the water where the light comes from.', '#1d4450'),
    below: color('Below', 'Colour of the deep.', '#091418'),
    ground: { type: 'toggle', label: 'Ground', help: 'A floor at height 0 that takes shadows.', default: true },
    haze: share('Haze', 'How soon things fade into the distance.', 0.35),
    motes: share('Motes', 'Specks drifting in the water.', 0.4),
  },
} satisfies OwnerDeclaration;

/** The numbers of the picture: exposure and field of view. */
export const LENS = {
  kind: 'lens',
  label: 'Picture',
  help: 'How the picture is taken.',
  params: {
    exposure: share('Exposure', 'Brightness of the whole picture.', 1, { min: 0.05, max: 8, slider: [0.2, 3] }),
    fov: degrees('Field of view', 'Of the shot and of this view, from bottom to top.', 36, {
      min: 5,
      max: 120,
      slider: [12, 80],
    }),
  },
} satisfies OwnerDeclaration;

/** The numbers of the camera, metres. */
export const CAMERA = {
  kind: 'camera',
  label: 'Camera',
  help: 'Where the shot is taken from, and what it looks at.',
  params: {
    ...place('position', 'Stands at', 'Where the camera stands.', [2.6, 1.7, 4.4]),
    ...place('target', 'Looks at', 'What the camera looks at.', [0, 1.15, 0]),
    travel: {
      type: 'choice',
      label: 'Between keys',
      help: 'Where its place has keys: it goes straight from one to the next, or round what it looks at, at an even turn.',
      options: [
        { value: 'straight', label: 'Straight' },
        { value: 'orbit', label: 'Round the target' },
      ],
      default: 'straight',
    },
  },
} satisfies OwnerDeclaration;

const of =
  (...kinds: string[]) =>
  (p: Resolved): boolean =>
    kinds.includes(p.which as string);
const shownFor = <P extends ParamSpecs>(params: P, shown: (p: Resolved) => boolean): P =>
  Object.fromEntries(Object.entries(params).map(([name, spec]) => [name, { ...spec, shown }])) as unknown as P;
const length = (label: string, help: string, value: number, group?: string): NumberParam => ({
  type: 'number',
  unit: 'm',
  label,
  help,
  default: value,
  min: 0.0001,
  max: 1000,
  slider: [0.05, 5],
  ...(group && { group }),
});

/** The fields of a guide. */
export const GUIDE = {
  kind: 'guide',
  label: 'Guide',
  help: 'A point or a shape that growths refer to.',
  params: {
    which: {
      type: 'choice',
      label: 'Kind',
      help: 'A point, or a shape that falloffs weigh by.',
      options: [
        { value: 'point', label: 'Point' },
        { value: 'plane', label: 'Plane' },
        { value: 'ball', label: 'Ball' },
        { value: 'box', label: 'Box' },
      ],
      default: 'point',
    },
    ...place('position', 'Place', 'Where the guide stands; drag it in the view too.', [0, 1, 0]),
    ...shownFor(
      Object.fromEntries(
        (['X', 'Y', 'Z'] as const).map((axis) => [
          `turn${axis}`,
          degrees(axis, 'Turns the shape. A plane weighs what lies behind its upper side.', 0, { group: 'Turned' }),
        ]),
      ) as Record<'turnX' | 'turnY' | 'turnZ', NumberParam>,
      of('plane', 'box'),
    ),
    ...shownFor({ radius: length('Radius', 'Of the ball; drag its rim in the view too.', 0.5) }, of('ball')),
    ...shownFor(
      {
        sizeX: length('Width', 'Of the box; drag its corner in the view too.', 1),
        sizeY: length('Height', 'Of the box; drag its corner in the view too.', 1),
        sizeZ: length('Depth', 'Of the box; drag its corner in the view too.', 1),
      },
      of('box'),
    ),
  },
} satisfies OwnerDeclaration;

const OWNERS: readonly OwnerDeclaration[] = [LIGHT, BACKDROP, LENS, CAMERA, GUIDE, growthPlace as never];
const byKind = new Map(OWNERS.map((owner) => [owner.kind, owner]));

/** What the numbers of a kind of owner are: a step's, or those of what is no step. */
export const declarationOf = (kind: string): OwnerDeclaration | undefined => stepOf(kind) ?? byKind.get(kind);

/** Steps that no scene holds: a growth's place counts as its last step, a group that is copied as a growth of its members. */
const UNLISTED = new Map([growthPlace, groupMember].map((step) => [step.kind, step as unknown as StepDeclaration]));

/** The step that a kind stands for when a growth is evaluated. */
export const runnableOf = (kind: string): StepDeclaration | undefined => stepOf(kind) ?? UNLISTED.get(kind);

/** The parts of a scene that own numbers, under the names that they stand under in it. */
export const SCENE_PARTS = ['light', 'backdrop', 'lens', 'camera'] as const;
/** A part of a scene that owns numbers. */
export type ScenePart = (typeof SCENE_PARTS)[number];

/** A growth's place as an owner. What is written into its `params` is written into the growth. */
export const placeOwner = (growth: Growth): Step => ({
  id: growthPlace.kind,
  kind: growthPlace.kind,
  name: '',
  on: true,
  params: growth.place,
});

/** All owners of numbers in a scene itself, its guides among them. */
export const sceneOwners = (scene: Pick<Scene, ScenePart | 'guides'>): Step[] => [
  ...SCENE_PARTS.map((part): Step => ({ id: part, kind: part, name: '', on: true, params: scene[part] })),
  ...scene.guides.map(({ id, name, params }): Step => ({ id, kind: GUIDE.kind, name, on: true, params })),
];

/** All owners of numbers of a growth, in the order in which they count, or those of the scene itself. */
export function ownersOf(scene: Scene, holder: string | null): Step[] {
  if (holder === SCENE_ID) return sceneOwners(scene);
  const growth = scene.growths.find(({ id }) => id === holder);
  return growth ? [...growth.steps, placeOwner(growth)] : [];
}

/** An owner of numbers within a scene or a draft of one: what is written into its `params` is written there. */
export const ownerIn = (scene: Scene, holder: string, id: string): Step | undefined =>
  ownersOf(scene, holder).find((owner) => owner.id === id);

const standing = new WeakMap<Growth, Growth>();

/** A growth with its place as its last step, where it has been moved at all: as it is worked out. */
export function withPlace(growth: Growth): Growth {
  if (Object.keys(growth.place).length === 0) return growth;
  let whole = standing.get(growth);
  if (!whole || whole.steps.length !== growth.steps.length + 1 || !Object.isFrozen(growth)) {
    const place = placeOwner(growth);
    // Of a growth that cannot change its place cannot either, so that what is known of it holds.
    if (Object.isFrozen(growth)) Object.freeze(place);
    whole = { ...growth, steps: [...growth.steps, place] };
    if (Object.isFrozen(growth)) standing.set(growth, whole);
  }
  return whole;
}

/** A guide as it stands at a frame. */
export interface Guide {
  id: string;
  name: string;
  kind: 'point' | 'plane' | 'ball' | 'box';
  position: Vec3;
  /** Turns about X, Y, Z, degrees. */
  rotation: Vec3;
  /** Of a box; of a ball its diameter three times, metres. */
  size: Vec3;
}

/** Fields as they are at first. */
export const defaultValues = ({ params }: OwnerDeclaration): Resolved =>
  Object.fromEntries(Object.entries(params).map(([name, spec]) => [name, spec.default])) as Resolved;

/** A new guide of a kind. */
export const newGuide = (
  id: string,
  name: string,
  which: Guide['kind'],
  params: SceneGuide['params'] = {},
): SceneGuide => ({
  id,
  name,
  params: { ...(defaultValues(GUIDE) as SceneGuide['params']), which, ...params },
});
