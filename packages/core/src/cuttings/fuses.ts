import { newStep } from '../scene/make';
import type { Growth, ParamValue, Step } from '../scene/schema';
import type { Anchor } from '../geometry/vec';
import { AMBERS, type Bed, type Cutting, finish, growth, item, over, STEELS } from './cutting';

/** A rope along a path that burns away over a part of the range, with an ember at the burning end. */
function fuse(bed: Bed, path: Step, [from, to]: readonly [number, number]): [rope: Growth, ember: Growth] {
  const ember = item(
    bed,
    'Ember',
    newStep('solid', { which: 'ball', radius: 0.05, sides: 20 }),
    newStep('displace', { amount: 0, noise: 0.005, size: 0.08, evolve: 1 }),
    finish(0.6, ['#ff5a1e', '#ffb04a', '#fff0c0'], { glow: 3, glowLength: 0.05, glowColor: '#ff8a3a' }),
  );
  const rope = growth(
    bed,
    'Fuse',
    path,
    newStep('grow', { from: over(bed, 'linear', [from, 0], [to, 1]) }),
    newStep('tube', { radius: 0.03, sides: 10, start: 'round', swell: 0, along: [{ at: 0, value: 1 }] }),
    finish(0.8, ['#6b5238', '#c9a46a'], { glow: 3, glowLength: 0.3, glowColor: '#ff7a2e' }),
    // It rides where the path is eaten: finished by itself, so that it keeps its own colours.
    newStep('tips', {
      growth: ember.id,
      size: { formula: '100 + 10 * sin(frame * 60) + 6 * sin(frame * 105)' },
    }),
  );
  return [rope, ember];
}

/** Over the ground to the side of the keg. */
const TO_THE_KEG: Anchor[] = [
  [-1.9, 0.04, 0.7],
  [-1.2, 0.04, 0.1],
  [-0.6, 0.04, 0.75],
  [0.1, 0.04, 0.15],
  [0.42, 0.16, 0],
  [0.66, 0.3, 0],
];
/** Where the keg stands, and how high it is. */
const KEG = { x: 0.95, height: 0.55 };

/** What burns away. */
export const FUSES: readonly Cutting[] = [
  {
    id: 'burning-line',
    name: 'Burning line',
    help: 'A line that is eaten away from its base, with an ember at the burning end.',
    words: 'fuse fire ember burn ash tether rope',
    moment: 3,
    on: null,
    plant: (bed) => ({
      steps: [],
      growths: fuse(
        bed,
        newStep('catenary', { fromX: -1.6, fromY: 1.2, toX: 1.6, toY: 1.5, sag: 0.6, points: 220 }),
        [0.05, 0.95],
      ),
    }),
  },
  {
    id: 'capped-fuse',
    name: 'Fuse with a cap',
    help: 'A fuse burns along the ground to a keg, whose cap flies off among sparks and comes to lie beside it.',
    words: 'fire burn explosion lid keg barrel spark pop rope',
    moment: 5,
    on: null,
    plant(bed) {
      const [rope, ember] = fuse(bed, newStep('drawn', { anchors: TO_THE_KEG as never, points: 260 }), [0.03, 0.62]);
      const keg = growth(
        bed,
        'Keg',
        newStep('solid', { which: 'cylinder', radius: 0.3, height: KEG.height, sides: 48, atX: KEG.x }),
        finish(0.7, ['#3a2c24', '#7a5a40']),
      );
      const way = (...keys: readonly (readonly [number, number])[]): ParamValue => over(bed, 'ease-out', ...keys);
      const cap: Growth = {
        ...growth(
          bed,
          'Cap',
          newStep('solid', { which: 'cylinder', radius: 0.33, height: 0.07, sides: 48 }),
          finish(0.4, STEELS),
        ),
        place: {
          moveX: way([0.62, KEG.x], [0.75, KEG.x + 0.35], [0.9, KEG.x + 0.78]),
          moveY: {
            ...over(bed, 'ease-in-out', [0.62, KEG.height], [0.75, 1.5], [0.9, 0.01]),
          },
          turnZ: way([0.62, 0], [0.9, -360]),
        },
      };
      const sparks = growth(
        bed,
        'Sparks',
        newStep('burst', {
          ...{ atX: KEG.x, atY: KEG.height, atZ: 0, count: 24, spread: 55, length: 0.75, generations: 2 },
          ...{ children: 3, droop: 0.35, ends: 'fade' },
        }),
        newStep('grow', {
          to: over(bed, 'ease-out', [0.62, 0], [0.82, 1]),
          from: over(bed, 'linear', [0.72, 0], [0.98, 1]),
        }),
        newStep('tube', { radius: 0.012, sides: 6, swell: 0 }),
        finish(0.5, AMBERS, { glow: 0.7, glowLength: 0.07, glowColor: '#ff9a4a' }),
      );
      return { steps: [], growths: [rope, keg, cap, sparks, ember] };
    },
  },
];
