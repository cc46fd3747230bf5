import type { Growth } from '../scene/schema';
import { newStep } from '../scene/make';
import {
  AMBERS,
  BONES,
  type Cutting,
  fallingIn,
  finish,
  GREENS,
  growth,
  item,
  LEAF_ROWS,
  over,
  ROSES,
  round,
  STEELS,
  SPIRAL,
} from './cutting';

/** What is planted on growths that have paths. */
export const ON_PATHS: readonly Cutting[] = [
  {
    id: 'leaves',
    name: 'Leaves on this stem',
    help: 'Leaves in a spiral that unfold as the tip passes, smaller towards it.',
    words: 'leaf foliage plant stem vine',
    on: 'paths',
    plant(bed) {
      const length = round(0.16 * bed.size);
      const leaf = item(
        bed,
        'Leaf',
        newStep('blade', { length, width: round(0.3 * length), rows: LEAF_ROWS }),
        finish(0.55, GREENS),
      );
      return {
        growths: [leaf],
        steps: [
          newStep('along', {
            ...{ growth: leaf.id, by: 'count', count: 26, start: round(0.08 * bed.size), stands: 'origin' },
            ...{ turns: SPIRAL, lean: 58, vary: 0.25, varyTurn: 14, settle: 1.2, ease: 'back-out' },
            profile: [
              { at: 0, value: 0.75, shape: 'smooth' },
              { at: 0.35, value: 1.1, shape: 'smooth' },
              { at: 1, value: 0.3 },
            ],
          }),
        ],
      };
    },
  },
  {
    id: 'leaf-pairs',
    name: 'Leaves in pairs',
    help: 'Two leaves across from each other, each pair turned square to the one below.',
    words: 'leaf opposite decussate plant stem',
    on: 'paths',
    plant(bed) {
      const length = round(0.14 * bed.size);
      const leaf = item(
        bed,
        'Paired leaf',
        newStep('blade', { length, width: round(0.42 * length), droop: 25, rows: LEAF_ROWS }),
        finish(0.5, ['#1f4d4a', '#58a487', '#d3f2c6']),
      );
      return {
        growths: [leaf],
        steps: [
          newStep('along', {
            ...{ growth: leaf.id, by: 'count', count: 11, whorl: 2, start: round(0.1 * bed.size), stands: 'origin' },
            ...{ turns: '+90', lean: 62, settle: 1, vary: 0.1 },
            profile: [
              { at: 0, value: 1, shape: 'smooth' },
              { at: 1, value: 0.35 },
            ],
          }),
        ],
      };
    },
  },
  {
    id: 'pictured-leaves',
    name: 'Leaves from pictures',
    help: 'Two kinds of leaves that pictures colour and cut out, in turn up the stem; choose your own in their items.',
    words: 'leaf image texture alpha sheet foliage plant stem photo',
    on: 'paths',
    plant(bed) {
      const length = round(0.2 * bed.size);
      const leaf = (name: string, cell: number): Growth =>
        item(
          bed,
          name,
          newStep('blade', {
            ...{ length, width: length, stalk: 0, fold: 10, droop: 30, rows: LEAF_ROWS },
            ...{ thick: round(0.008 * length), outline: [{ at: 0, value: 1 }] },
          }),
          newStep('skin-picture', { file: 'shipped:reef-leaves', columns: 2, rows: 2, cell }),
        );
      const [broad, disc] = [leaf('Broad leaf', 1), leaf('Round leaf', 3)];
      return {
        growths: [broad, disc],
        steps: [
          newStep('along', {
            ...{ growth: broad.id, second: disc.id, pattern: '1 2', by: 'count', count: 18, stands: 'origin' },
            ...{ start: round(0.1 * bed.size), turns: SPIRAL, lean: 62, vary: 0.2, varyTurn: 12 },
            ...{ settle: 1.2, ease: 'back-out' },
            profile: [
              { at: 0, value: 1, shape: 'smooth' },
              { at: 1, value: 0.4 },
            ],
          }),
        ],
      };
    },
  },
  {
    id: 'tip-blossoms',
    name: 'Blossoms at the tips',
    help: 'A blossom of many petals rides at every growing tip.',
    words: 'flower bloom petal head end',
    on: 'paths',
    plant(bed) {
      const length = round(0.09 * bed.size);
      const petal = item(
        bed,
        'Petal',
        newStep('blade', { length, width: round(0.5 * length), fold: 6, cup: 0.4, droop: 24, rows: LEAF_ROWS }),
        finish(0.5, ROSES),
      );
      const head = item(
        bed,
        'Blossom',
        newStep('phyllotaxis', { which: 'dome', count: 21, radius: round(0.22 * length), height: round(0.2 * length) }),
        newStep('on-points', {
          ...{ growth: petal.id, lean: 40, vary: 0.15 },
          sizeAlong: [
            { at: 0, value: 0.45, shape: 'smooth' },
            { at: 1, value: 1 },
          ],
        }),
      );
      return { growths: [head, petal], steps: [newStep('tips', { growth: head.id })] };
    },
  },
  {
    id: 'buds',
    name: 'Buds along it',
    help: 'Round buds that swell one after another behind the tip.',
    words: 'berry bud dot bulb beads stem',
    on: 'paths',
    plant(bed) {
      const bud = item(
        bed,
        'Bud',
        newStep('solid', { which: 'ball', radius: round(0.018 * bed.size), sides: 18 }),
        finish(0.35, AMBERS),
      );
      return {
        growths: [bud],
        steps: [
          newStep('along', {
            ...{ growth: bud.id, by: 'count', count: 36, vary: 0.55, varyPlace: round(0.02 * bed.size) },
            ...{ settle: 1.6, ease: 'elastic-out' },
          }),
        ],
      };
    },
  },
  {
    id: 'chain',
    name: 'Chain along it',
    help: 'Links that hang in each other, drawn on as the path grows.',
    words: 'link metal mooring rope',
    on: 'paths',
    plant(bed) {
      const wire = round(0.011 * bed.size);
      const link = item(
        bed,
        'Link',
        newStep('solid', { which: 'link', wire, innerLength: 4 * wire, innerWidth: 1.5 * wire, sides: 9 }),
        finish(0.28, STEELS),
      );
      return {
        replacesSkin: true,
        growths: [link],
        steps: [newStep('along', { growth: link.id, turns: '0, 90', settle: 0.3 })],
      };
    },
  },
  {
    id: 'spines',
    name: 'Spines along it',
    help: 'Thorns all round that shoot out behind the tip.',
    words: 'thorn spike needle crystal quill',
    on: 'paths',
    plant(bed) {
      const height = round(0.08 * bed.size);
      const spine = item(
        bed,
        'Spine',
        newStep('solid', { which: 'crystal', radius: round(0.09 * height), height, point: 0.85, sides: 6 }),
        finish(0.3, ['#3d2a6b', '#8f7bd8', '#e6dcff']),
      );
      return {
        growths: [spine],
        steps: [
          newStep('along', {
            ...{ growth: spine.id, by: 'count', count: 120, stands: 'origin', turns: SPIRAL, lean: 68 },
            ...{ vary: 0.5, varyTurn: 20, settle: 0.7 },
          }),
        ],
      };
    },
  },
  {
    id: 'falling-planks',
    name: 'Planks falling into place',
    help: 'Boards fall from above, tumbling, and come to lie along the path one after another.',
    words: 'fall drop board pier bridge tile piece assemble',
    on: 'paths',
    plant(bed) {
      const width = round(0.13 * bed.size);
      const plank = item(
        bed,
        'Plank',
        newStep('solid', { which: 'box', width, height: round(0.05 * width), depth: round(0.2 * width) }),
        finish(0.75, ['#4a3327', '#9a6b4a', '#d9b08a']),
      );
      return {
        replacesSkin: true,
        growths: [plank],
        steps: [
          newStep('along', {
            ...{ growth: plank.id, forward: 'z', facing: 'upright', gap: round(0.02 * width), rest: 'spread' },
            ...{ settle: 0.2, ease: 'sine-out', vary: 0.06, varyTurn: 3 },
          }),
          ...fallingIn(0.4 * bed.size),
        ],
      };
    },
  },
  {
    id: 'ember',
    name: 'Ember at the front',
    help: 'A glowing ember that flickers at the growing tip.',
    words: 'fire burn glow spark light tip',
    on: 'paths',
    plant(bed) {
      const radius = round(0.03 * bed.size);
      const ember = item(
        bed,
        'Ember',
        newStep('solid', { which: 'ball', radius, sides: 20 }),
        newStep('displace', { amount: 0, noise: round(0.5 * radius), size: radius, evolve: 2 }),
        finish(0.6, ['#ff5a1e', '#ffb04a', '#fff0c0'], { glow: 3, glowLength: radius, glowColor: '#ff8a3a' }),
      );
      return {
        growths: [ember],
        steps: [
          newStep('tips', { growth: ember.id, size: { formula: '100 + 14 * sin(frame * 60) + 8 * sin(frame * 105)' } }),
        ],
      };
    },
  },
  {
    id: 'bubbles',
    name: 'Bubbles running along',
    help: 'Bubbles are born at the base and run along without end, equally fast on all paths; once all of the path is there, the range closes.',
    words: 'endless loop particles stream flow run',
    on: 'paths',
    plant(bed) {
      const bubble = item(
        bed,
        'Bubble',
        newStep('solid', { which: 'ball', radius: round(0.014 * bed.size), sides: 20 }),
        finish(0.12, ['#bfeff0', '#e8fffb']),
      );
      return {
        growths: [bubble],
        steps: [
          newStep('along', {
            ...{ growth: bubble.id, by: 'distance', distance: round(bed.size / 40), rest: 'spread' },
            ...{ reveal: 'endless', births: 40 },
            ...{ vary: 0.7, varyPlace: round(0.045 * bed.size) },
          }),
        ],
      };
    },
  },
  {
    id: 'twining',
    name: 'Tendrils twining round',
    help: 'Two tendrils climb it, winding round its skin, and move with it.',
    words: 'vine climb ivy helix wind spiral twist',
    on: 'paths',
    plant(bed) {
      const radius = round(0.008 * bed.size);
      const tendril = growth(
        bed,
        'Tendrils',
        newStep('twine', {
          ...{ growth: bed.host!.id, count: 2, pitch: round(0.2 * bed.size), clearance: radius },
        }),
        newStep('grow', { to: over(bed, 'ease-in-out', [0.1, 0], [0.95, 1]) }),
        newStep('tube', { radius, sides: 10 }),
        finish(0.5, ['#6b2f4a', '#e08a9a', '#ffe0d0'], { glow: 0.3, glowLength: 0.1 }),
      );
      return { growths: [tendril], steps: [] };
    },
  },
  {
    id: 'vertebrae',
    name: 'Segments of a creature',
    help: 'Overlapping segments from a thick head to a thin tail, pulled along with the path.',
    words: 'snake eel worm body scales creature caterpillar',
    on: 'paths',
    plant(bed) {
      const radius = round(0.05 * bed.size);
      const segment = item(
        bed,
        'Segment',
        newStep('solid', { which: 'ball', radius, sides: 18 }),
        finish(0.28, ['#2c5a6b', '#5fa7a8', '#f2d9a0']),
      );
      return {
        replacesSkin: true,
        growths: [segment],
        steps: [
          newStep('along', {
            ...{ growth: segment.id, by: 'distance', distance: round(0.6 * radius), rest: 'spread', forward: 'y' },
            ...{ reveal: 'feed', follows: 'grown', vary: 0.12 },
            profile: [
              { at: 0, value: 0.12, shape: 'smooth' },
              { at: 0.75, value: 1, shape: 'smooth' },
              { at: 1, value: 0.7 },
            ],
          }),
        ],
      };
    },
  },
  {
    id: 'rings',
    name: 'Rings round it',
    help: 'Rings threaded on the path, each turned a little from the one before.',
    words: 'hoop torus coil array repeat radial thread',
    on: 'paths',
    plant(bed) {
      const ring = item(
        bed,
        'Ring',
        newStep('solid', { which: 'ring', radius: round(0.06 * bed.size), thick: round(0.009 * bed.size), sides: 20 }),
        finish(0.3, BONES),
      );
      return {
        growths: [ring],
        steps: [
          newStep('along', {
            ...{ growth: ring.id, by: 'count', count: 22, forward: 'y', turns: '+12', lean: 12, settle: 0.8 },
            profile: [
              { at: 0, value: 1, shape: 'smooth' },
              { at: 1, value: 0.3 },
            ],
          }),
        ],
      };
    },
  },
];
