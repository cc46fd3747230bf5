import { DRIVES } from '../../geometry/drives';
import { EASE_NAMES } from '../../time/easing';
import {
  defineStep,
  is,
  shownFor,
  type NumberParam,
  type ParamSpecs,
  type ParamsOf,
  place,
  scopeParam,
} from '../declare';
import { metres, percent } from '../../format';

const space = is('shape', 'plane', 'ball', 'box');
const soft = is('shape', 'plane', 'ball', 'box', 'guide');

const number = (
  unit: NumberParam['unit'],
  label: string,
  help: string,
  value: number,
  [min, max]: readonly [number, number],
  slider: readonly [number, number],
  more: Partial<NumberParam> = {},
): NumberParam => ({ type: 'number', unit, label, help, default: value, min, max, slider, ...more });

const axes = <P extends string>(
  prefix: P,
  label: string,
  help: string,
  unit: 'deg' | 'm',
): Record<`${P}X` | `${P}Y` | `${P}Z`, NumberParam> => {
  const turns = unit === 'deg';
  const axis = (name: string): NumberParam =>
    number(unit, name, help, turns ? 0 : 1, turns ? [-36000, 36000] : [0.0001, 1000], turns ? [-180, 180] : [0.05, 5], {
      group: label,
    });
  return { [`${prefix}X`]: axis('X'), [`${prefix}Y`]: axis('Y'), [`${prefix}Z`]: axis('Z') } as Record<
    `${P}X` | `${P}Y` | `${P}Z`,
    NumberParam
  >;
};

/** Turns of copies, called after what they do. */
function spins() {
  const { spinX, spinY, spinZ } = axes('spin', 'Turns by', 'At full weight.', 'deg');
  return {
    spinX: {
      ...spinX,
      label: 'Off surface',
      help: 'At full weight, about its X axis: it tilts off what it stands on.',
    },
    spinY: { ...spinY, label: 'Along itself', help: 'At full weight, about its Y axis, along its length: it spins.' },
    spinZ: { ...spinZ, label: 'Sideways', help: 'At full weight, about its Z axis: it leans to a side.' },
  };
}

/** What the choice of ease says where the curve is drawn. */
export const DRAWN = 'drawn';

const params = {
  shape: {
    type: 'choice',
    label: 'Driven by',
    help: 'What gives each place its weight between 0 and 100 %.',
    options: [
      { value: 'front', label: 'Time since front' },
      { value: 'plane', label: 'Plane' },
      { value: 'ball', label: 'Ball' },
      { value: 'box', label: 'Box' },
      { value: 'guide', label: 'A guide' },
      { value: 'along', label: 'Along the path' },
      { value: 'noise', label: 'Noise' },
      { value: 'attribute', label: 'An attribute' },
    ],
    default: 'front',
  },
  attribute: {
    type: 'attribute',
    label: 'Attribute',
    help: 'What is known of the places: how far a front has come there, what has been measured.',
    default: 'front',
    shown: is('shape', 'attribute'),
  },
  nothingAt: number('plain', '0 % at', 'Value of the attribute without weight.', 0, [-1e6, 1e6], [0, 1], {
    shown: is('shape', 'attribute'),
  }),
  allAt: number('plain', '100 % at', 'Value of the attribute with full weight.', 1, [-1e6, 1e6], [0, 1], {
    shown: is('shape', 'attribute'),
  }),
  guide: {
    type: 'guide',
    label: 'Guide',
    help: 'A guide of the scene, which several falloffs can share, or the growing tips of a growth, which carry a ball along.',
    default: null,
    shown: is('shape', 'guide'),
  },
  ...shownFor(place('at', 'Place', 'Where the shape stands; drag it in the view too.', [0, 1, 0]), space),
  ...shownFor(
    axes('turn', 'Turned', 'Turns the shape. The plane weighs what lies behind its upper side.', 'deg'),
    is('shape', 'plane', 'box'),
  ),
  radius: number(
    'm',
    'Radius',
    'Of the ball; of one about each place where the guide is a point or tips.',
    0.5,
    [0.0001, 1000],
    [0.05, 4],
    {
      shown: is('shape', 'ball', 'guide'),
    },
  ),
  ...shownFor(axes('size', 'Box', 'Width, height and depth.', 'm'), is('shape', 'box')),
  soft: number('m', 'Softness', 'Over how much the weight goes from all to nothing.', 0.5, [0, 1000], [0, 3], {
    shown: soft,
  }),
  shift: number(
    'm',
    'Shift',
    'How much further out the border lies for this falloff alone: several that share a guide act one ahead of another.',
    0,
    [-1000, 1000],
    [-2, 2],
    { shown: soft },
  ),
  reach: number('share', 'Reaches to', 'Up to where along the path copies have weight.', 0.5, [-1, 2], [0, 1], {
    shown: is('shape', 'along'),
  }),
  softShare: number('share', 'Softness', 'Share of the path over which it fades.', 0.2, [0, 2], [0, 1], {
    shown: is('shape', 'along'),
  }),
  grain: number('m', 'Grain', 'Size of the noise.', 0.5, [0.001, 1000], [0.05, 3], { shown: is('shape', 'noise') }),
  evolve: number(
    'per-second',
    'Evolution',
    'Changes a second, fitted to the range so that it closes.',
    0.3,
    [0, 100],
    [0, 3],
    {
      shown: is('shape', 'noise'),
    },
  ),
  delay: number('s', 'Delay', 'After the front has uncovered it.', 0, [0, 1000], [0, 4], {
    shown: is('shape', 'front'),
  }),
  over: number('s', 'Over', 'In which the weight rises to all.', 1, [0, 1000], [0, 4], {
    shown: is('shape', 'front'),
  }),
  ease: {
    type: 'choice',
    label: 'Ease',
    help: 'How the weight runs between nothing and all: as easing of keys does, or as a curve that you draw.',
    options: [
      ...EASE_NAMES.filter((name) => name !== 'hold').map((name) => ({
        value: name,
        label: name.replaceAll('-', ' '),
      })),
      { value: DRAWN, label: 'Drawn curve' },
    ],
    default: 'cubic-out',
  },
  curve: {
    type: 'profile',
    label: 'Curve',
    help: 'The weight, from where there is none at the left to where there is all at the right.',
    min: 0,
    max: 1,
    default: [
      { at: 0, value: 0 },
      { at: 1, value: 1 },
    ],
    shown: is('ease', DRAWN),
  },
  invert: { type: 'toggle', label: 'Invert', help: 'All becomes nothing, nothing all.', default: false },
  least: number('share', 'Minimum weight', 'The least weight that this falloff gives to any place.', 0, [0, 1], [0, 1]),
  combine: {
    type: 'choice',
    label: 'Combine',
    help: 'How this weight goes with that of the falloff before it; of attributes, with the one of the same name.',
    options: [
      { value: 'own', label: 'Replace' },
      { value: 'times', label: 'Multiply' },
      { value: 'plus', label: 'Add' },
      { value: 'larger', label: 'Maximum' },
    ],
    default: 'own',
  },
  drives: {
    type: 'choice',
    label: 'Changes',
    help: 'What the weight acts on. Copies change in all of these; where there are none yet, paths, skins and points are moved, paths and points sized, skins tinted, points turned. Or it is kept as an attribute of all that is there, for later steps to go by.',
    options: [
      { value: 'size', label: 'Size' },
      { value: 'turn', label: 'Turn' },
      { value: 'move', label: 'Place' },
      { value: 'color', label: 'Colour' },
      { value: 'time', label: 'Time' },
      { value: 'drive', label: 'Drive of item' },
      { value: 'attribute', label: 'An attribute' },
      { value: 'nothing', label: 'Nothing by itself' },
    ],
    default: 'size',
  },
  factor: number('share', 'Size', 'Size at full weight; at none they stay as they are.', 0, [0, 100], [0, 3], {
    shown: is('drives', 'size'),
  }),
  ...shownFor(spins(), is('drives', 'turn')),
  ...shownFor(place('move', 'Moves by', 'At full weight.', [0, 1, 0]), is('drives', 'move')),
  frame: {
    type: 'choice',
    label: 'Along',
    help: 'Whether it moves along the axes of the world or its own.',
    options: [
      { value: 'world', label: 'The axes of the world' },
      { value: 'own', label: 'Its own axes' },
    ],
    default: 'world',
    shown: is('drives', 'move'),
  },
  color: {
    type: 'color',
    label: 'Colour',
    help: 'Its own colours are tinted with this one.',
    default: '#ff8a5b',
    shown: is('drives', 'color'),
  },
  late: number('s', 'Later by', 'At full weight.', 1, [-1000, 1000], [-4, 4], { shown: is('drives', 'time') }),
  slot: {
    type: 'choice',
    label: 'Drive',
    help: 'The name by which formulas of the item know it: several falloffs can drive several things, each with a timing of its own.',
    options: DRIVES.map((name) => ({ value: name, label: name })),
    default: 'drive',
    shown: is('drives', 'drive'),
  },
  amount: number(
    'share',
    'Drives by',
    'What formulas of the item see at full weight: = 360 * drive in its Roll-up, say.',
    1,
    [-1, 1],
    [0, 1],
    { shown: is('drives', 'drive') },
  ),
  scope: scopeParam,
  name: {
    type: 'text',
    label: 'Attribute name',
    help: 'Name of the attribute; “falloff” where it is empty.',
    default: '',
    most: 40,
    shown: is('drives', 'attribute'),
  },
} as const satisfies ParamSpecs;

/** The name under which the weight is kept. */
export const weightKeptAs = (p: { name: string }): string => p.name.trim() || 'falloff';

export const falloff = defineStep({
  kind: 'falloff',
  handles: 'falloff',
  family: 'place',
  label: 'Falloff',
  icon: 'M3 15H6C9 15 10 5 13 5H17M3 18H17',
  help: 'Changes copies by how far they are inside a shape, along the path, in noise, or behind the growing front: their size, turn, place, colour, time, or what drives their item. Several act one after another, each with a delay or shift of its own. Before copies are placed it moves the points of paths and skins one after another, or keeps the weight as an attribute.',
  takes: [],
  takesOne: ['copies', 'mesh', 'paths', 'points'],
  gives: [],
  params,
  moves: true,
  withoutCopies: { family: 'shape', params: { drives: 'move', shape: 'ball' } },
  wants: (p) => (p.shape === 'front' ? ['age'] : []),
  writes: (p) => (p.drives === 'attribute' ? [weightKeptAs(p)] : []),
  summary: (p) =>
    ({
      size: `size to ${percent(p.factor)}`,
      turn: 'turns',
      move: `moves ${metres(Math.hypot(p.moveX, p.moveY, p.moveZ))}`,
      color: 'tints',
      time: 'later',
      drive: p.slot === 'drive' ? 'drives the item' : `drives the item as ${p.slot}`,
      attribute: `as ${weightKeptAs(p)}`,
      nothing: 'weighs',
    })[p.drives] ?? '',
  async run(form, p, context) {
    const { runFalloff } = await import('./runFalloff');
    return runFalloff(form, p, context);
  },
});

/** The values of its fields at a frame. */
export type FalloffParams = ParamsOf<typeof params>;
