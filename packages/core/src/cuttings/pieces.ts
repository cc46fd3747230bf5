import { newStep } from '../scene/make';
import type { Growth } from '../scene/schema';
import { planted } from './alone';
import {
  AMBERS,
  type Bed,
  type Cutting,
  finish,
  GREENS,
  growth,
  oneGrowth,
  grows,
  item,
  LEAF_ROWS,
  over,
  ROSES,
  round,
  SPIRAL,
} from './cutting';
import { ON_FORMS } from './onForms';
import { plantIn } from './plant';

/** What is added to a form that is not in the scene yet, one after another: each finds what the one before has left. */
function dressed(bed: Bed, host: Growth, size: number, ...cuttings: readonly string[]): Growth[] {
  const scene = { ...bed.scene, growths: [...bed.scene.growths, host] };
  for (const id of cuttings) {
    const cutting = ON_FORMS.find((one) => one.id === id)!;
    plantIn(scene, host.id, cutting.plant({ scene, host, size }));
  }
  return scene.growths.filter(({ id }) => !bed.scene.growths.some((other) => other.id === id));
}

/** A vase from its foot to its lip, beside its axis, metres. */
const VASE = [
  [0.001, 0, 0],
  [0.3, 0.01, 0],
  [0.5, 0.42, 0],
  [0.2, 0.98, 0],
  [0.33, 1.3, 0],
] as never;

/** A course that comes towards the viewer, metres. */
const TOWARDS = [
  [-1.1, 0.75, -1.4],
  [-0.75, 0.6, -0.6],
  [-0.25, 0.8, 0.1],
  [0.4, 0.7, 0.9],
] as never;

/** More whole pieces that begin by themselves. */
export const PIECES: readonly Cutting[] = [
  {
    id: 'endless-blossom',
    name: 'Blossom without end',
    help: 'Petals are born in the middle, open, swell and go at the rim, for ever; the range closes.',
    words: 'flower bloom loop endless petal rose lily phyllotaxis infinite',
    on: null,
    plant(bed) {
      const petal = item(
        bed,
        'Petal',
        newStep('blade', {
          ...{ length: 0.62, width: 0.25, fold: 10, cup: 0.45, stalk: 0.04, thick: 0.006, rows: 20 },
          droop: over(bed, 'ease-in-out', [0, 0], [0.3, -62], [0.64, -18], [0.87, 46], [1, 75]),
        }),
        newStep('roll-up', {
          ...{ exempt: 0.1, core: 0.05, apart: 0.03 },
          amount: over(bed, 'ease-in-out', [0, 0.92], [0.4, 0.42], [0.68, 0.04], [0.8, 0], [1, 0]),
        }),
        finish(0.5, ['#ffe8a6', '#f9a7a0', '#e0598f', '#c23b86', '#f7c4dd']),
      );
      const head = growth(
        bed,
        'Blossom',
        newStep('phyllotaxis', {
          ...{ which: 'dome', count: 60, born: 'endless', births: 21, radius: 0.17, height: 0.16, swell: 18, fade: 9 },
        }),
        newStep('on-points', {
          ...{ growth: petal.id, lean: 44 },
          sizeAlong: [
            { at: 0, value: 0.3 },
            { at: 0.35, value: 0.72 },
            { at: 0.8, value: 1 },
            { at: 1, value: 0.92 },
          ],
          leanAlong: [
            { at: 0, value: 0 },
            { at: 0.5, value: 0.2 },
            { at: 1, value: 1 },
          ],
        }),
        newStep('offset', { by: 'life' }),
        newStep('transform', { moveY: 0.6 }),
      );
      return { steps: [], growths: [head, petal] };
    },
  },
  {
    id: 'unrolling-stem',
    name: 'Stem whose leaves unroll',
    help: 'A stem that grows over the range; behind the tip its leaves unroll as fern fronds do, one after another.',
    words: 'fern unfurl leaf plant curl fiddlehead grow vine',
    on: null,
    plant(bed) {
      const frond = item(
        bed,
        'Frond',
        newStep('blade', { length: 0.52, width: 0.15, fold: 8, rows: 2 * LEAF_ROWS, thick: 0.006 }),
        newStep('roll-up', {
          ...{ exempt: 0.06, core: 0.035, apart: 0.018 },
          amount: over(bed, 'ease-in-out', [0, 0.97], [0.4, 0]),
        }),
        finish(0.55, GREENS),
      );
      const stem = growth(
        bed,
        'Stem',
        newStep('helix', { below: 0.05, above: 0.2, height: 1.8, turns: 0.8, points: 160 }),
        grows(bed),
        newStep('tube', { radius: 0.032, sides: 14 }),
        finish(0.55, GREENS, { glow: 0.3, glowLength: 0.1 }),
        newStep('along', {
          ...{
            growth: frond.id,
            by: 'count',
            count: 18,
            start: 0.2,
            stands: 'origin',
            turns: SPIRAL,
          },
          ...{ lean: 52, vary: 0.15, varyTurn: 10, settle: 0.8, ease: 'back-out' },
          profile: [
            { at: 0, value: 1, shape: 'smooth' },
            { at: 1, value: 0.4 },
          ],
        }),
        newStep('offset', { by: 'front' }),
      );
      return { steps: [], growths: [stem, frond] };
    },
  },
  {
    id: 'wire-then-solid',
    name: 'Wire, then solid',
    help: 'A wire runs over a form and the form follows it, cut along one front with a hot edge.',
    words: 'hologram scan build reveal wireframe materialise cells',
    on: null,
    plant(bed) {
      const form = growth(bed, 'Form', newStep('form', { size: 1.8 }), finish(0.6, ['#33434a', '#7d8f8c', '#d9d4c2']));
      return { steps: [], growths: dressed(bed, form, 2, 'wire-cells', 'appear') };
    },
  },
  {
    id: 'meeting-chains',
    name: 'Chains from both sides',
    help: 'Two chains come from both sides and meet in the middle: one is built, a mirror makes the other.',
    words: 'link metal mirror meet join symmetric rope',
    on: null,
    plant(bed) {
      const half = newStep('catenary', { fromX: -1.7, fromY: 1.5, toX: -0.02, toY: 0.8, sag: 0.12 });
      const { growths } = planted(bed, 'Chains', 2.8, [half, grows(bed)], 'chain');
      growths[0].steps.push(newStep('mirror', {}));
      return { steps: [], growths };
    },
  },
  {
    id: 'rising-forest',
    name: 'Forest that comes up',
    help: 'Stalks of kelp come up one after another as a front runs over the ground, each growing by itself.',
    words: 'kelp trees grass field landscape crowd plants grow one by one',
    on: null,
    plant(bed) {
      const kelp = item(
        bed,
        'Kelp',
        newStep('line', { toY: 1.3, points: 34 }),
        newStep('noise', { amount: 0.2, size: 0.5, hold: 0.4, evolve: 0.25 }),
        newStep('grow', { to: over(bed, 'ease-out', [0, 0], [0.5, 1]) }),
        newStep('ribbon', {
          ...{ radius: 0.06, thick: 0.006, twist: 1.5, swell: 0.3 },
          along: [
            { at: 0, value: 0.4, shape: 'smooth' },
            { at: 0.4, value: 1, shape: 'smooth' },
            { at: 1, value: 0.15 },
          ],
        }),
        finish(0.5, ['#2f6b3f', '#9cc24f', '#f0f3a4']),
      );
      const ground = growth(
        bed,
        'Forest',
        newStep('terrain', { width: 2.4, depth: 2.4, relief: 0.35 }),
        finish(0.9, ['#33484c', '#6a7a6d', '#a9a384']),
        newStep('front', { reach: over(bed, 'linear', [0, 0], [0.7, 3]), soft: 0.2 }),
        newStep('scatter', { count: 105, upright: 1, steepest: 50 }),
        newStep('on-points', { growth: kelp.id, vary: 0.45, varyTurn: 180, varyLean: 8 }),
        newStep('offset', { by: 'front' }),
      );
      return { steps: [], growths: [ground, kelp] };
    },
  },
  {
    id: 'turning-letters',
    name: 'Letters that turn into others',
    help: 'One skin runs along a path from letter to letter, and grows; choose a word of your own.',
    words: 'loft morph type text title blend logo extrude letter',
    on: null,
    plant(bed) {
      const course = item(bed, 'Course', newStep('drawn', { anchors: TOWARDS, points: 160 }));
      const letters = growth(
        bed,
        'Letters',
        newStep('text', { text: 'REEF', size: 0.55 }),
        newStep('loft', {
          course: course.id,
          to: over(bed, 'ease-in-out', [0, 0.002], [0.85, 1]),
          points: 180,
          rows: 40,
        }),
        finish(0.35, ['#c4374f', '#f2994a', '#ffe2a8', '#7fc8b8']),
      );
      return { steps: [], growths: [letters, course] };
    },
  },
  {
    id: 'turned-vase',
    name: 'Vase on the wheel',
    help: 'A drawn profile is turned about an axis until the vase is closed; change the profile in the view.',
    words: 'lathe pot revolve pottery bell bowl spin',
    on: null,
    plant: (bed) =>
      oneGrowth(
        bed,
        'Vase',
        newStep('drawn', { anchors: VASE, points: 160 }),
        newStep('lathe', { sides: 96, to: over(bed, 'ease-in-out', [0, 2], [0.85, 360]) }),
        newStep('thicken', { thick: 0.02 }),
        finish(0.25, ['#1b4d5a', '#2f8f86', '#e9e0bd', '#d98a4e']),
      ),
  },
  {
    id: 'foam',
    name: 'Foam of bubbles',
    help: 'Bubbles of all sizes fill a ball one after another and touch neither each other nor its skin.',
    words: 'bubbles packing spheres fill volume froth spawn',
    on: null,
    plant(bed) {
      const bubble = item(
        bed,
        'Bubble',
        newStep('solid', { which: 'ball', radius: 0.48, sides: 20, atY: 0 }),
        finish(0.12, ['#2c6f8f', '#8fd6e0', '#f4ffff']),
      );
      const foam = growth(
        bed,
        'Foam',
        newStep('volume', {
          ...{ by: 'packed', smallest: 0.03, largest: 0.2, atY: 1, width: 1.7, height: 1.7, depth: 1.7 },
          count: over(bed, 'ease-in-out', [0, 0], [0.85, 420]),
        }),
        newStep('on-points', { growth: bubble.id }),
      );
      return { steps: [], growths: [foam, bubble] };
    },
  },
  {
    id: 'light-trails',
    name: 'Sparks with trails',
    help: 'Sparks circle on tilted rings for ever and draw trails of light behind them.',
    words: 'streak trace orbit atom electron motion path comet',
    on: null,
    plant(bed) {
      const [first, last] = bed.scene.range;
      const spark = item(
        bed,
        'Spark',
        newStep('solid', { which: 'ball', radius: 0.032, sides: 20, atY: 0 }),
        finish(0.4, AMBERS, { glow: 0.8, glowLength: 0.2, glowColor: '#ffb35a' }),
      );
      const orbits = growth(
        bed,
        'Sparks',
        newStep('line', { fromX: 0.35, fromY: 0, toX: 1, toY: 0, points: 12 }),
        newStep('along', { growth: spark.id, by: 'count', count: 5, settle: 0 }),
        newStep('transform', {
          turnY: {
            keys: [
              { frame: first, value: 0, ease: 'linear' },
              { frame: last + 1, value: 360, ease: 'linear' },
            ],
            before: 'repeat-offset',
            after: 'repeat-offset',
          },
        }),
        newStep('array', { as: 'circle', axis: 'x', count: 3 }),
        newStep('transform', { moveY: 1 }),
      );
      const trails = growth(
        bed,
        'Trails',
        newStep('trail', { growth: orbits.id, of: 'copies', frames: Math.round((last - first) / 5) }),
        newStep('tube', {
          ...{ radius: 0.014, sides: 6, swell: 0 },
          along: [
            { at: 0, value: 0 },
            { at: 1, value: 1 },
          ],
        }),
        finish(0.5, ['#3a1f4f', '#c4622d', '#ffd9a0'], { glow: 0.5, glowLength: 0.4, glowColor: '#ff9a4a' }),
      );
      return { steps: [], growths: [orbits, trails, spark] };
    },
  },
  {
    id: 'petal-wheel',
    name: 'Wheel of petals',
    help: 'One petal unrolls, and an array repeats it in a circle, each a moment later than the one before.',
    words: 'radial array mandala flower symmetry kaleidoscope circle',
    on: null,
    plant: (bed) =>
      oneGrowth(
        bed,
        'Wheel',
        newStep('blade', { length: 0.9, width: 0.34, fold: 12, cup: 0.3, droop: 30, rows: 24, thick: 0.008 }),
        newStep('roll-up', {
          amount: over(bed, 'ease-in-out', [0, 0.96], [0.45, 0]),
          exempt: 0.05,
          core: 0.05,
          apart: 0.03,
        }),
        newStep('transform', { turnZ: -62, moveX: 0.12, moveY: 0.25 }),
        finish(0.5, ROSES),
        newStep('array', {
          as: 'circle',
          count: 13,
          delay: round((bed.scene.range[1] - bed.scene.range[0]) / 32),
        }),
      ),
  },
];

/** What grows on forms along their edges. */
export const VEINS: Cutting = {
  id: 'veins',
  name: 'Veins over this form',
  help: 'Veins run over the form from its lowest place along the shortest ways, and branch.',
  words: 'roots branches cracks lightning network vein edges crawl',
  on: 'mesh',
  plant: (bed) =>
    oneGrowth(
      bed,
      'Veins',
      newStep('edge-paths', { growth: bed.host!.id, count: 70, fromY: -1000, wander: 0.4, exponent: 3 }),
      newStep('smooth', { rounds: 3 }),
      grows(bed),
      newStep('tube', {
        ...{ radius: round(0.013 * bed.size), sides: 6, swell: 0 },
        along: [{ at: 0, value: 1 }],
      }),
      finish(0.5, ['#7a2f4a', '#e0705f', '#ffd9a8'], { glow: 0.3 }),
    ),
};
