import { newStep } from '../scene/make';
import { Problem } from '../problem';
import { type Growth, isTrack, type Scene, type Step } from '../scene/schema';
import {
  type Bed,
  BONES,
  type Cutting,
  fallingIn,
  finish,
  GREENS,
  growth,
  item,
  LEAF_ROWS,
  over,
  type Planting,
  ROSES,
  round,
} from './cutting';

/** What is planted on growths that have points, a skin, or copies. */
export const ON_FORMS: readonly Cutting[] = [
  {
    id: 'head-petals',
    name: 'Petals on this head',
    help: 'A petal on every point, small and upright in the middle, long and open at the rim.',
    words: 'flower bloom blossom petal rose dahlia',
    on: 'points',
    plant(bed) {
      const length = round(0.32 * bed.size);
      const petal = item(
        bed,
        'Petal',
        newStep('blade', { length, width: round(0.42 * length), fold: 6, cup: 0.4, droop: 24, rows: LEAF_ROWS }),
        finish(0.5, ROSES),
      );
      return {
        growths: [petal],
        steps: [
          newStep('on-points', {
            ...{ growth: petal.id, lean: 24, vary: 0.12 },
            sizeAlong: [
              { at: 0, value: 0.25, shape: 'smooth' },
              { at: 1, value: 1 },
            ],
            leanAlong: [
              { at: 0, value: 0.1, shape: 'smooth' },
              { at: 1, value: 1 },
            ],
          }),
        ],
      };
    },
  },
  {
    id: 'head-spines',
    name: 'Spines on this head',
    help: 'A spine on every point, swaying in noise that closes with the range.',
    words: 'urchin thorn spike needle quill',
    on: 'points',
    plant(bed) {
      const height = round(0.2 * bed.size);
      const spine = item(
        bed,
        'Spine',
        newStep('solid', { which: 'crystal', radius: round(0.08 * height), height, point: 0.86, sides: 6 }),
        finish(0.3, ['#3d2a6b', '#8f7bd8', '#e6dcff']),
      );
      return {
        growths: [spine],
        steps: [
          newStep('on-points', { growth: spine.id, lean: 12, vary: 0.2, varyLean: 8 }),
          newStep('falloff', {
            ...{ shape: 'noise', grain: round(0.3 * bed.size), evolve: 0.15, ease: 'linear' },
            ...{ drives: 'turn', spinX: 22 },
          }),
        ],
      };
    },
  },
  {
    id: 'barnacles',
    name: 'Barnacles over this form',
    help: 'Barnacles of many sizes come up as a front spreads over the form.',
    words: 'scatter cover crust spread moss growth infect',
    on: 'mesh',
    plant(bed) {
      const radius = round(0.022 * bed.size);
      const cone = item(
        bed,
        'Barnacle',
        newStep('line', { toY: round(0.9 * radius), points: 4 }),
        newStep('sweep', {
          ...{ profile: 'star', corners: 9, inner: 0.82, rounding: 0, hard: false, radius, swell: 0 },
          along: [
            { at: 0, value: 1, shape: 'smooth' },
            { at: 1, value: 0.42 },
          ],
        }),
        finish(0.8, BONES),
      );
      const steps = [
        newStep('front', {
          from: 'random',
          count: 4,
          reach: over(bed, 'linear', [0, 0], [0.85, round(0.7 * bed.size)]),
          soft: round(0.04 * bed.size),
        }),
        newStep('scatter', { count: 420 }),
        newStep('on-points', { growth: cone.id, vary: 0.75, varyTurn: 180, varyLean: 10 }),
        newStep('falloff', { shape: 'attribute', attribute: 'front', invert: true, ease: 'back-out', factor: 0 }),
      ];
      return { growths: [cone], steps };
    },
  },
  {
    id: 'weeds',
    name: 'Weeds on this ground',
    help: 'Tall blades stand upright where the ground is not too steep, each in a size of its own.',
    words: 'grass field meadow scatter plant kelp forest lawn',
    on: 'mesh',
    plant(bed) {
      const length = round(0.16 * bed.size);
      const weed = item(
        bed,
        'Weed',
        newStep('blade', { length, width: round(0.14 * length), droop: 55, rows: LEAF_ROWS }),
        finish(0.55, GREENS),
      );
      const steps = [
        newStep('scatter', { count: 260, upright: 1, steepest: 60, sink: round(0.02 * length) }),
        newStep('on-points', { growth: weed.id, vary: 0.6, varyTurn: 180, varyLean: 12 }),
        newStep('falloff', {
          ...{ shape: 'noise', grain: round(0.25 * bed.size), evolve: 0.2, ease: 'linear', drives: 'turn', spinX: 24 },
        }),
      ];
      return { growths: [weed], steps };
    },
  },
  {
    id: 'appear',
    name: 'Appears behind a front',
    help: 'The form appears from one place on, cut exactly along a front with a hot edge.',
    words: 'reveal dissolve wipe materialise build transition',
    on: 'mesh',
    plant(bed) {
      const steps = [
        newStep('front', {
          ...{ reach: over(bed, 'ease-in-out', [0, 0], [0.8, round(1.1 * bed.size)]), soft: round(0.05 * bed.size) },
          ...{ rough: round(0.05 * bed.size), grain: round(0.1 * bed.size) },
        }),
        newStep('reveal', { glow: 1.6, width: round(0.02 * bed.size) }),
      ];
      const host = bed.host!;
      const solid = solidOf(bed.scene, host.id);
      if (solid)
        throw new Problem(`${host.name} appears behind its front already.`, `Change Reveal in “${solid.name}”.`);
      const wires = bed.scene.growths.filter((one) => isWireOf(one, host.id));
      return wires.length > 0 ? wireThenSolid(bed, steps, wires, []) : { growths: [], steps };
    },
  },
  {
    id: 'wire-cells',
    name: 'Wire running over it',
    help: 'Cells of wire run over the form from its lowest place.',
    words: 'net mesh lattice hologram scan cage wireframe',
    on: 'mesh',
    plant(bed) {
      const wire = growth(
        bed,
        'Wire',
        newStep('cells', { growth: bed.host!.id, size: round(0.07 * bed.size) }),
        newStep('front', {
          reach: over(bed, 'linear', [0, 0], [0.8, round(1.2 * bed.size)]),
          soft: round(0.1 * bed.size),
        }),
        newStep('reveal', {}),
        newStep('wire', { radius: round(0.0022 * bed.size) }),
        finish(0.4, ['#1f8f8a', '#66d3c8', '#d8fff4'], { glow: 0 }),
      );
      const { id, steps } = bed.host!;
      // The form that appears goes by its front already: one more wire joins in.
      if (solidOf(bed.scene, id)) return { growths: [onFrontOfHost(wire, bed)], steps: [] };
      const appears = steps.some(({ kind, on }) => kind === 'front' && on) ? steps.filter(revealsByFront) : [];
      return appears.length > 0 ? wireThenSolid(bed, appears, [], [wire]) : { growths: [wire], steps: [] };
    },
  },
  {
    id: 'swelling',
    name: 'Swells as a front passes',
    help: 'The skin rises behind a front that spreads over it.',
    words: 'bulge inflate grow wave displace grow thick',
    on: 'mesh',
    plant: (bed) => ({
      growths: [],
      steps: [
        newStep('front', {
          ...{ reach: over(bed, 'linear', [0, 0], [0.8, round(1.1 * bed.size)]), soft: round(0.25 * bed.size) },
        }),
        newStep('displace', {
          noise: 0,
          amount: {
            base: 0,
            vary: {
              ...{ by: 'attribute', attribute: 'front', span: [0, 1], amount: round(0.06 * bed.size), waves: 3 },
              shape: [
                { at: 0, value: 0, shape: 'smooth' },
                { at: 1, value: 1 },
              ],
            },
          },
        }),
      ],
    }),
  },
  {
    id: 'drop-in',
    name: 'Copies drop in',
    help: 'What is copied comes from above, tumbling, one after another.',
    words: 'fall assemble build piece land',
    on: 'copies',
    plant(bed) {
      return {
        growths: [],
        steps: [...fallingIn(0.5 * bed.size)],
      };
    },
  },
  {
    id: 'ripple',
    name: 'A ripple of size',
    help: 'Copies swell and shrink in noise that closes with the range.',
    words: 'pulse wave breathe noise animate scale',
    on: 'copies',
    plant: (bed) => ({
      growths: [],
      steps: [
        newStep('falloff', {
          ...{
            shape: 'noise',
            grain: round(0.3 * bed.size),
            evolve: 0.4,
            ease: 'linear',
            drives: 'size',
            factor: 0.35,
          },
        }),
      ],
    }),
  },
];

const revealsByFront = ({ kind, on, params }: Step): boolean =>
  kind === 'reveal' && on && (params.by ?? 'front') === 'front' && params.invert !== true;

/** Whether a growth is a wire of cells over another one. */
const isWireOf = (growth: Growth, host: string): boolean =>
  growth.steps.some(({ kind, on, params }) => kind === 'cells' && on && params.growth === host);

/** The growth that shows a form as it appears, where a wire runs ahead of it. */
const solidOf = ({ growths }: Scene, host: string): Growth | undefined =>
  growths.find(
    ({ steps }) =>
      steps.some(({ kind, on, params }) => kind === 'skin-of' && on && params.growth === host) &&
      steps.some(revealsByFront),
  );

/** How far the wire runs ahead of the form, metres. */
const leadOf = ({ size }: Bed): number => round(0.12 * size);

/** A wire that goes by the front of the form that it runs over, and is gone again behind it. */
function onFrontOfHost(wire: Growth, bed: Bed): Growth {
  const lead = leadOf(bed);
  const steps = wire.steps
    .filter(({ kind }) => kind !== 'front')
    .map((step) =>
      step.kind === 'reveal' ? { ...step, params: { ...step.params, band: 2 * lead, soft: round(lead / 4) } } : step,
    );
  return { ...wire, steps };
}

/**
 * One front for both: the wire runs ahead, and is gone where the form has come. Both go by the form as a whole, which stands by
 * hidden.
 * @param steps what the form appears by
 * @param wires those that there are, and those that are new
 */
function wireThenSolid(
  bed: Bed,
  steps: readonly Step[],
  wires: readonly Growth[],
  planted: readonly Growth[],
): Planting {
  const host = bed.host!;
  const lead = leadOf(bed);
  const led = (wire: Growth): Growth => onFrontOfHost(wire, bed);
  const reveals = steps
    .filter(({ kind }) => kind === 'reveal')
    .map((step) => newStep('reveal', { ...step.params, behind: lead }));
  const solid = growth(bed, `${host.name} solid`, newStep('skin-of', { growth: host.id }), ...reveals);
  return {
    growths: [solid, ...planted.map(led)],
    // The front has so much further to go as the form comes behind it, and the wire is gone after it.
    steps: steps.filter(({ kind }) => kind === 'front').map((step) => extendFront(step, 3 * lead)),
    changed: [
      ...wires.map(led),
      {
        ...host,
        visible: false,
        steps: host.steps
          .filter((step) => !revealsByFront(step))
          .map((step) => (step.kind === 'front' && step.on ? extendFront(step, 3 * lead) : step)),
      },
    ],
  };
}

/** A front that goes so much further. */
function extendFront(front: Step, by: number): Step {
  const { reach } = front.params;
  if (!isTrack(reach)) return front;
  const most = Math.max(...reach.keys.map(({ value }) => value));
  const keys = reach.keys.map((key) => (key.value === most ? { ...key, value: most + by } : key));
  return { ...front, params: { ...front.params, reach: { ...reach, keys } } };
}
