import { EASE_NAMES } from '../../time/easing';
import { defineStep, type ParamsOf, numberField } from '../declare';
import { figure, metres } from '../../format';
import { itemParams, itemsOf, sizeParam, varyParam } from './items';

const metresField = numberField({ unit: 'm', min: 0, max: 1000, slider: [0, 1] });

export const along = defineStep({
  kind: 'along',
  handles: 'copies',
  family: 'place',
  label: 'Along the paths',
  icon: 'M3 13C7 3 13 17 17 7M3 13H3.01M7 9.2H7.01M11.5 11.5H11.51M17 7H17.01M4.2 15.5 2 11M18.2 9.5 16 5',
  help: "Copies of another growth along the paths. Places are laid out on the whole path once; growth uncovers them, or feeds them through like a pulled chain. Spacing comes from the item's own size; for a chain link that is its inner length, so that links hang together.",
  takes: ['paths'],
  gives: ['copies'],
  parts: {
    'Laying out': ['rest', 'laid', 'whorl'],
    Standing: ['forward', 'lean', 'stands'],
    'Size by place': ['profile', 'follows'],
    Variation: ['variants', 'vary', 'varyTurn', 'varyLean', 'varyPlace'],
    'As it grows': ['reveal', 'fed', 'enters', 'births', 'fade', 'settle', 'ease'],
  },
  params: {
    ...itemParams,
    by: {
      type: 'choice',
      label: 'Spacing',
      help: "By the item's own length along its forward axis, by a distance, by a number of copies, or one at each point of the path.",
      options: [
        { value: 'item', label: 'By the item' },
        { value: 'distance', label: 'By distance' },
        { value: 'count', label: 'By count' },
        { value: 'points', label: "At the path's points" },
      ],
      default: 'item',
    },
    gap: metresField('Gap', 'Room between neighbours besides their own length; negative lets them overlap.', 0, {
      min: -100,
      max: 100,
      slider: [-0.2, 0.5],
      shown: (p) => p.by === 'item',
    }),
    hang: {
      type: 'toggle',
      label: 'Hang in each other',
      help: 'Links of a chain do by themselves; so do rings, letters and other items with a hole through their middle here, turned across in turn.',
      default: false,
      shown: (p) => p.by === 'item' && p.facing === 'path',
    },
    distance: metresField('Distance', 'From one to the next.', 0.2, {
      min: 0.0001,
      slider: [0.01, 1],
      shown: (p) => p.by === 'distance',
    }),
    count: {
      type: 'number',
      unit: 'count',
      label: 'Count',
      help: 'Copies on each path.',
      default: 12,
      min: 1,
      max: 100000,
      slider: [1, 200],
      whole: true,
      shown: (p) => p.by === 'count',
    },
    rest: {
      type: 'choice',
      label: 'Remainder',
      help: 'Where the length is no whole number of places: left free at the end, spread between all, or taken up by the size of the copies. A ring always closes; links hang loose there and where they are spread, one or a few more than would just reach, or exactly in each other where their size is fitted.',
      options: [
        { value: 'leave', label: 'Leave it' },
        { value: 'spread', label: 'Spread it' },
        { value: 'fit', label: 'Fit the size' },
      ],
      default: 'leave',
      shown: (p) => p.by !== 'count' && p.by !== 'points',
    },
    laid: {
      type: 'choice',
      label: 'Length used',
      help: 'The length that the path had when it was made, so that no copy jumps while noise or a blend moves it; or its length at each frame, so that the spacing stays exact; by the item with the remainder left, rigid pieces then touch round bends too. Automatic is exact on paths that keep their course, and at rest on those that move; but links hang in each other by contact at every frame, still, fed or moved, and as many as at rest.',
      options: [
        { value: 'auto', label: 'Automatic' },
        { value: 'rest', label: 'Its length at rest' },
        { value: 'now', label: 'Its length now' },
      ],
      default: 'auto',
      shown: (p) => p.by !== 'points',
    },
    whorl: {
      type: 'number',
      unit: 'count',
      label: 'Copies per place',
      help: 'Copies evenly round the path at each place: 1 alternate, 2 opposite, 3 and more in whorls.',
      default: 1,
      min: 1,
      max: 200,
      slider: [1, 12],
      whole: true,
    },
    start: metresField('Start', 'Length left free at the base of open paths.', 0),
    end: metresField('End', 'Length left free at the far end of open paths.', 0),
    forward: {
      type: 'choice',
      label: 'Forward',
      help: "The item's axis that runs along the path; found from its shape, it is its longest.",
      options: [
        { value: 'auto', label: 'Automatic' },
        { value: 'x', label: 'X' },
        { value: 'y', label: 'Y' },
        { value: 'z', label: 'Z' },
      ],
      default: 'auto',
    },
    facing: {
      type: 'choice',
      label: 'Facing',
      help: 'Turned with the path; upright, with only the heading of its forward axis from the path; or pointing at a guide.',
      options: [
        { value: 'path', label: 'Along the path' },
        { value: 'upright', label: 'Upright' },
        { value: 'guide', label: 'At a guide' },
      ],
      default: 'path',
    },
    toward: {
      type: 'guide',
      label: 'Guide',
      help: 'What the forward axis of each copy points at.',
      default: null,
      shown: (p) => p.facing === 'guide',
    },
    turns: {
      type: 'text',
      label: 'Turns',
      help: 'Degrees about the path, one copy after another: 0, 90 for chains, 137.508 more each time with “+137.508”.',
      default: '0',
      most: 200,
    },
    roll: {
      type: 'number',
      unit: 'deg',
      label: 'Roll',
      help: 'Turns all copies about the path besides: animate it, and they roll; links stay hung in each other.',
      default: 0,
      min: -36000,
      max: 36000,
      slider: [-180, 180],
    },
    lean: {
      type: 'number',
      unit: 'deg',
      label: 'Lean',
      help: 'Tilts each copy away from the path, after its turn about it: leaves off a stem.',
      default: 0,
      min: -360,
      max: 360,
      slider: [-120, 120],
    },
    stands: {
      type: 'choice',
      label: 'Pivot',
      help: "What of the item comes to lie on the path: the middle of its length, its centre on all axes, or its own origin, which is a leaf's foot. What hangs in each other is centred.",
      options: [
        { value: 'middle', label: 'Its middle' },
        { value: 'centre', label: 'Its centre' },
        { value: 'origin', label: 'Its origin' },
      ],
      default: 'middle',
    },
    size: sizeParam,
    profile: {
      type: 'profile',
      label: 'Along',
      help: 'Factor on the size, from base to tip of the whole path.',
      min: 0,
      max: 2,
      default: [{ at: 0, value: 1 }],
    },
    follows: {
      type: 'choice',
      label: 'Along follows',
      help: 'The whole path, so that sizes belong to places; or the grown part, so that a train that travels is shaped from tail to head.',
      options: [
        { value: 'whole', label: 'Whole path' },
        { value: 'grown', label: 'Grown part' },
      ],
      default: 'whole',
    },
    vary: varyParam,
    varyTurn: {
      type: 'number',
      unit: 'deg',
      label: 'Vary turn',
      help: 'Turns each copy about the path by up to so much, at random.',
      default: 0,
      min: 0,
      max: 360,
    },
    varyLean: {
      type: 'number',
      unit: 'deg',
      label: 'Vary lean',
      help: 'Tilts each copy by up to so much more or less, at random.',
      default: 0,
      min: 0,
      max: 90,
    },
    varyPlace: metresField('Vary place', 'Moves each copy by up to so much, at random.', 0, { slider: [0, 0.5] }),
    reveal: {
      type: 'choice',
      label: 'Growth',
      help: 'Whether the growing front uncovers places; the train is fed in behind the front, and out at the far end where its base is eaten; it is pulled in over the path as it is; or it runs on for ever, copies born at the base and gone at the far end.',
      options: [
        { value: 'appear', label: 'Uncovers places' },
        { value: 'feed', label: 'Feeds them through' },
        { value: 'pull', label: 'Pulled in' },
        { value: 'endless', label: 'Endless' },
      ],
      default: 'appear',
    },
    fed: {
      type: 'number',
      unit: 'share',
      label: 'Pulled in',
      help: 'How much of the train is in; animate it from 0 to 100 %.',
      default: 1,
      min: 0,
      max: 1,
      shown: (p) => p.reveal === 'pull',
    },
    enters: {
      type: 'choice',
      label: 'Enters',
      help: 'At which end; from both, the two halves meet in the middle.',
      options: [
        { value: 'base', label: 'At the base' },
        { value: 'end', label: 'At the far end' },
        { value: 'both', label: 'At both ends' },
      ],
      default: 'base',
      shown: (p) => p.reveal === 'pull',
    },
    births: {
      type: 'number',
      unit: 'count',
      label: 'Births',
      help: 'How many new copies come in over the range, in whole patterns, so that it closes. Below 0 they run backwards.',
      default: 6,
      min: -10000,
      max: 10000,
      slider: [-60, 60],
      whole: true,
      shown: (p) => p.reveal === 'endless',
    },
    fade: {
      type: 'number',
      unit: 'share',
      label: 'Fade',
      help: 'Share of an open path over which endless copies come up from nothing at its base, and go again at its end.',
      default: 0.12,
      min: 0,
      max: 0.5,
      shown: (p) => p.reveal === 'endless',
    },
    settle: {
      type: 'number',
      unit: 's',
      label: 'Rise time',
      help: 'Seconds in which an uncovered copy comes up to its size.',
      default: 0.5,
      min: 0,
      max: 100,
      slider: [0, 3],
      shown: (p) => p.reveal === 'appear',
    },
    ease: {
      type: 'choice',
      label: 'Ease',
      help: 'How it comes up.',
      options: EASE_NAMES.filter((name) => name !== 'hold').map((name) => ({
        value: name,
        label: name.replaceAll('-', ' '),
      })),
      default: 'back-out',
      shown: (p) => p.reveal === 'appear' && Number(p.settle) > 0,
    },
  },
  wants: (p) => (p.reveal === 'appear' && p.settle > 0 ? ['age'] : []),
  moves: true,
  summary: (p) =>
    p.growth === null
      ? 'no item chosen'
      : {
          item: `item by item${p.gap !== 0 ? `, ${metres(p.gap)} apart` : ''}`,
          distance: `every ${metres(p.distance)}`,
          count: `${figure(p.count)} a path`,
          points: 'one a point',
        }[p.by],
  async run(form, p, context) {
    const items = await itemsOf(p, context);
    // While the item itself is too young to have a shape, there is nothing to copy.
    if (!items) return form;
    const { seatsAlong } = await import('./runAlong');
    const { withFrames } = await import('../../curves/pathFrames');
    const { joinSeats } = await import('../../geometry/seats');
    const seats = await seatsAlong(withFrames(form.paths!), p, items, context);
    return { ...form, seats: joinSeats(form.seats, seats) };
  },
});

/** The values of its fields at a frame. */
export type AlongParams = ParamsOf<typeof along.params>;
