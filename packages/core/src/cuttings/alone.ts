import { newStep } from '../scene/make';
import type { Step } from '../scene/schema';
import { type Bed, type Cutting, finish, GREENS, growth, grows, oneGrowth, over, type Planting } from './cutting';
import { ON_FORMS } from './onForms';
import { ON_PATHS } from './onPaths';

const known = new Map([...ON_PATHS, ...ON_FORMS].map((cutting) => [cutting.id, cutting]));

/** A growth with cuttings planted on it, and what they bring. */
export function planted(
  bed: Bed,
  name: string,
  size: number,
  steps: readonly Step[],
  ...cuttings: readonly string[]
): Planting {
  const host = growth(bed, name, ...steps);
  const made = cuttings.map((id) => known.get(id)!.plant({ ...bed, host, size }));
  host.steps.push(...made.flatMap((one) => one.steps));
  return { steps: [], growths: [host, ...made.flatMap((one) => one.growths)] };
}

const stem = (bed: Bed): Step[] => [
  newStep('helix', { below: 0.06, above: 0.16, height: 1.9, turns: 1.3, points: 160 }),
  grows(bed),
  newStep('tube', { radius: 0.028, sides: 14 }),
  finish(0.55, GREENS, { glow: 0.4, glowLength: 0.12 }),
];

/** What begins by itself: the commonest jobs, whole. */
export const ALONE: readonly Cutting[] = [
  {
    id: 'plant',
    name: 'Stem with leaves',
    help: 'A stem that grows over the range, its leaves unfolding behind the tip.',
    words: 'plant leaf vine flower grow',
    on: null,
    plant: (bed) => planted(bed, 'Stem', 2, stem(bed), 'leaves'),
  },
  {
    id: 'blooming-head',
    name: 'Blooming head',
    help: 'A head of petals that come up one after another and open.',
    words: 'flower blossom rose dahlia petal open phyllotaxis',
    on: null,
    plant(bed) {
      const head = newStep('phyllotaxis', {
        ...{ which: 'dome', radius: 0.3, height: 0.3, swell: 14 },
        count: over(bed, 'ease-in-out', [0, 0], [0.8, 90]),
      });
      return planted(bed, 'Head', 1.4, [head], 'head-petals');
    },
  },
  {
    id: 'hanging-chain',
    name: 'Hanging chain',
    help: 'A chain that hangs between two places and is drawn across.',
    words: 'link metal mooring rope catenary',
    on: null,
    plant: (bed) => planted(bed, 'Chain', 3.4, [newStep('catenary', {}), grows(bed)], 'chain'),
  },
  {
    id: 'falling-pier',
    name: 'Pieces falling into place',
    help: 'Boards fall one after another and come to lie along a bend.',
    words: 'fall plank drop board pier bridge tile assemble build',
    on: null,
    plant(bed) {
      const bend = newStep('arc', { radius: 1.3, sweep: 220, start: -20, lies: 'ground', middleY: 0.1, points: 160 });
      return planted(bed, 'Pier', 3.4, [bend, grows(bed)], 'falling-planks');
    },
  },
  {
    id: 'growing-text',
    name: 'Text that grows',
    help: 'The outlines of a word grow as glowing tubes.',
    words: 'letters type lettering title word neon write',
    on: null,
    plant: (bed) =>
      oneGrowth(
        bed,
        'Text',
        newStep('text', { text: 'Reef' }),
        grows(bed, { stagger: 0.3 }),
        newStep('tube', { radius: 0.022, sides: 10, swell: 0, along: [{ at: 0, value: 1 }], start: 'round' }),
        finish(0.35, ['#ff8a5b', '#ffd9a0'], { glow: 1.2, glowLength: 0.3 }),
      ),
  },
  {
    id: 'creature',
    name: 'Creature of segments',
    help: 'A creature of overlapping segments that swims round a closed course for ever.',
    words: 'eel snake worm caterpillar creature swim loop',
    on: null,
    plant(bed) {
      const { range } = bed.scene;
      const course = newStep('arc', { radius: 1.1, lies: 'ground', middleY: 0.9, points: 260 });
      const sways = newStep('noise', { amount: 0.35, size: 0.9, detail: 1, evolve: 0.2 });
      const swims = newStep('grow', {
        to: 0.5,
        travel: {
          keys: [
            { frame: range[0], value: 0, ease: 'linear' },
            { frame: range[1] + 1, value: 1, ease: 'linear' },
          ],
          before: 'repeat-offset',
          after: 'repeat-offset',
        },
      });
      return planted(bed, 'Creature', 2.6, [course, sways, swims], 'vertebrae');
    },
  },
  {
    id: 'dancing-bars',
    name: 'Bars that follow sound',
    help: 'A row of bars, each as high as its part of the sound; choose a sound of your own.',
    words: 'music audio equaliser spectrum beat visualiser',
    on: null,
    plant: (bed) =>
      oneGrowth(
        bed,
        'Bars',
        newStep('line', { toY: 1.5, points: 40 }),
        newStep('strands', { as: 'row', count: 48, apart: 0.06 }),
        newStep('grow', { levels: 1, levelsBy: 'sound', low: 45, high: 7000 }),
        newStep('tube', { radius: 0.02, sides: 10, swell: 0, along: [{ at: 0, value: 1 }] }),
        finish(0.4, ['#1f8f8a', '#66d3c8', '#d8fff4'], { glow: 1.2, glowLength: 0.12, glowColor: '#8ff0dc' }),
      ),
  },
  {
    id: 'shell',
    name: 'Shell',
    help: 'A shell wound in a spiral that widens by a factor, growing from its point.',
    words: 'snail spiral nautilus turban horn conch',
    on: null,
    plant: (bed) =>
      oneGrowth(
        bed,
        'Shell',
        newStep('helix', {
          below: 0.62,
          above: 0.012,
          widens: 'by-factor',
          height: 1.22,
          turns: 6,
          baseY: 0.44,
          points: 520,
        }),
        newStep('grow', { from: over(bed, 'ease-in-out', [0, 0.98], [0.8, 0]) }),
        newStep('sweep', {
          ...{ profile: 'star', corners: 9, inner: 0.88, rounding: 0.85, radius: 0.47, follows: 'whole', swell: 0 },
          along: [
            { at: 0, value: 1 },
            { at: 1, value: 0.02 },
          ],
        }),
        finish(0.25, ['#fbeede', '#c8694a', '#8c3b4a', '#e3b46e', '#7e4a63', '#f6dcb0', '#a2574e', '#ffe9c9']),
      ),
  },
  {
    id: 'coral',
    name: 'Coral that branches',
    help: 'A coral that finds its way through a ball of places, its stems thickening as it grows.',
    words: 'tree branch reef fan vein space colonisation',
    on: null,
    plant: (bed) =>
      oneGrowth(
        bed,
        'Coral',
        newStep('colonise', {}),
        grows(bed),
        newStep('carry'),
        newStep('tube', { swell: 0, sides: 8, joints: 'grown', along: [{ at: 0, value: 1 }] }),
        finish(0.5, ['#6b2a3f', '#e0705f', '#ffd9a8'], { glow: 0.1 }),
      ),
  },
  {
    id: 'reef-rock',
    name: 'Rock with barnacles',
    help: 'A boulder that barnacles spread over.',
    words: 'stone boulder crust scatter cover',
    on: null,
    plant: (bed) =>
      planted(bed, 'Rock', 2, [newStep('rock'), finish(0.85, ['#2a3238', '#5b6660', '#a8a890'])], 'barnacles'),
  },
];
