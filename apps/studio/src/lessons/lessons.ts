import { type ParamValue, type ProfilePoint, type Stop } from '@uvrex/core';
import { evenly, GRADIENT_PRESETS, PROFILE_PRESETS } from '@/ui/presetLists';
import { type Lesson } from './lesson';

const profile = (name: string): ProfilePoint[] => PROFILE_PRESETS.find((preset) => preset.name === name)!.points;
const colours = (name: string): Stop[] => evenly(GRADIENT_PRESETS.find((preset) => preset.name === name)!.colors);
const formula = (text: string): ParamValue => ({ formula: text });

/** 0.34, and up to 0.14 more or less from path to path. */
const APART: ParamValue = {
  base: 0.34,
  vary: {
    by: 'random',
    amount: 0.14,
    waves: 3,
    shape: [
      { at: 0, value: 0, shape: 'straight' },
      { at: 1, value: 1 },
    ],
  },
};

/** A stem from the ground up, a little bent. */
const STEM: ParamValue = [
  [0, 0, 0],
  [-0.12, 0.6, 0.02],
  [0.1, 1.25, 0.05],
  [-0.02, 2, 0],
];

/** The first growth of somebody who has never been here. */
export const FIRST_GROWTH: Lesson = {
  id: 'first-growth',
  title: 'First growth',
  about: 'A coil that leaves come out of',
  steps: [
    {
      text: 'Press **Shift N**, and choose **Helix** among the curves: it grows over the range.',
      moves: [{ begin: 'helix' }],
    },
    {
      text: 'On the left, click the step _Helix_ and set Radius above to 0.1: the coil narrows as it rises.',
      moves: [{ set: 'helix', of: 'Helix', values: { above: 0.1 } }],
    },
    {
      text: 'Click **Add a step** and choose **Along the paths**: it makes a leaf to copy, and sets it along the coil.',
      moves: [{ add: 'along', to: 'Helix' }],
    },
    { text: 'Press **Space**: it plays. Everything you see can be changed at any time.', moves: [{ play: true }] },
  ],
};

/** Lessons that the studio goes through; their texts are those of docs/lessons.md. */
export const LESSONS: readonly Lesson[] = [
  FIRST_GROWTH,
  {
    id: 'anemone-sway',
    title: 'Anemone sway',
    about: 'A bed of arms that sways and comes round',
    steps: [
      {
        text: 'New growth: **line**. In _Line_: To Y `= 0.95 + 0.15 * sin((frame - 1) * 2.5)` (144 frames times 2.5° is a full turn, so it loops), Points 24. Delete _Grow_.',
        moves: [
          { begin: 'line' },
          { set: 'line', of: 'Line', values: { toY: formula('0.95 + 0.15 * sin((frame - 1) * 2.5)'), points: 24 } },
          { remove: 'grow', of: 'Line' },
        ],
      },
      {
        text: 'Add **Strands**: Count 90, Apart 0.055, Lean 60. Add **Respace**: By _Points per metre_, Per metre 46, Remainder _Keep a shorter last_. The arms lengthen and shorten, their points stay as dense.',
        moves: [
          { add: 'strands', to: 'Line' },
          { set: 'strands', of: 'Line', values: { count: 90, apart: 0.055, lean: 60 } },
          { add: 'respace', to: 'Line' },
          { set: 'respace', of: 'Line', values: { by: 'density', density: 46, rest: 'keep' } },
        ],
      },
      {
        text: 'Add **Noise**: Amount 0.34, Size 0.75, Evolution 0.5, Hold base 90. Click the three bars behind Amount and set By to 0.14: no two arms sway alike.',
        moves: [
          { add: 'noise', to: 'Line' },
          { set: 'noise', of: 'Line', values: { amount: APART, size: 0.75, evolve: 0.5, hold: 0.9 } },
        ],
      },
      {
        text: '_Tube_: Radius 0.03, Start _Open_; Presets of Along: _Tendril_. _Finish_: Presets of Colour: _Anemone_.',
        moves: [
          { set: 'tube', of: 'Line', values: { radius: 0.03, start: 'open', along: profile('Tendril') } },
          { set: 'finish', of: 'Line', values: { gradient: colours('Anemone') } },
        ],
      },
      { text: '**Checks**, Measure: the seam is 0 mm.', moves: [] },
    ],
  },
  {
    id: 'turban-shell',
    title: 'Turban shell',
    about: 'A shell that rolls onto itself',
    steps: [
      {
        text: 'Last frame 96. New growth: **helix**: Radius below 0.62, Radius above 0.012, Radius changes _By a factor_, Height 1.22, Turns 6, Base Y 0.44, Points 400. Delete _Grow_ and _Tube_.',
        moves: [
          { last: 96 },
          { begin: 'helix' },
          {
            set: 'helix',
            of: 'Helix',
            values: {
              below: 0.62,
              above: 0.012,
              widens: 'by-factor',
              height: 1.22,
              turns: 6,
              baseY: 0.44,
              points: 400,
            },
          },
          { remove: 'grow', of: 'Helix' },
          { remove: 'tube', of: 'Helix' },
        ],
      },
      {
        text: 'Add **Sweep**: Corners 9, Notch 86, Rounding 85, Radius 0.47, Swell 0, Follows _Whole path_, Start and End _Round_; Presets of Along: _Cone_.',
        moves: [
          { add: 'sweep', to: 'Helix' },
          {
            set: 'sweep',
            of: 'Helix',
            values: {
              ...{ corners: 9, inner: 0.86, rounding: 0.85, radius: 0.47, swell: 0 },
              ...{ follows: 'whole', start: 'round', end: 'round', along: profile('Cone') },
            },
          },
        ],
      },
      {
        text: 'Roll `= (frame - first) / (last + 1 - first) * 360 / corners`: a ninth of a turn over the range.',
        moves: [
          {
            set: 'sweep',
            of: 'Helix',
            values: { roll: formula('(frame - first) / (last + 1 - first) * 360 / corners') },
          },
        ],
      },
      {
        text: '_Finish_: Presets of Colour: _Lantern_, Roughness 25, Glow 0. **Checks**, Measure: nine points come back onto themselves, 0 mm.',
        moves: [{ set: 'finish', of: 'Helix', values: { gradient: colours('Lantern'), roughness: 0.25, glow: 0 } }],
      },
      {
        text: 'Now set Profile to _Letter_ and type one. A letter has no symmetry: let it roll by 360 instead, or let the checks find the range that closes.',
        moves: [],
      },
    ],
  },
  {
    id: 'kelp-frond',
    title: 'Kelp frond',
    about: 'Leaves swell and unroll behind the growing tip',
    steps: [
      {
        text: 'The leaf: new growth **blade**: Length 0.7, Width 0.17, Droop `= 50 * clamp((frame - 20) / 30, 0, 1)`. Add **Roll up**: Rolled up `= 100 * clamp(1 - (frame - 1) / 50, 0, 1)`, Stalk 0.06, Core 0.03. Play it: it unrolls in two seconds. Hide it.',
        moves: [
          { begin: 'blade' },
          {
            set: 'blade',
            of: 'Blade',
            values: { length: 0.7, width: 0.17, droop: formula('50 * clamp((frame - 20) / 30, 0, 1)') },
          },
          { add: 'roll-up', to: 'Blade' },
          {
            set: 'roll-up',
            of: 'Blade',
            values: { amount: formula('100 * clamp(1 - (frame - 1) / 50, 0, 1)'), exempt: 0.06, core: 0.03 },
          },
          { hide: 'Blade' },
        ],
      },
      {
        text: 'Press D and draw the stem from the bottom up. _Tube_: Presets of Along: _Tendril_.',
        moves: [
          { begin: 'drawn', with: { anchors: STEM } },
          { set: 'tube', of: 'Drawn path', values: { along: profile('Tendril') } },
        ],
      },
      {
        text: 'Add **Along the paths**: Item _Blade_, Spacing _By count_, Count 24, Start 0.2, Turns `+137.508` (each leaf so much further round than the one before), Lean 62, Stands by _Its origin_, Settle 1.4; Presets of Along: _Cone_.',
        moves: [
          { add: 'along', to: 'Drawn path' },
          {
            set: 'along',
            of: 'Drawn path',
            values: {
              ...{ growth: '@Blade', by: 'count', count: 24, start: 0.2, turns: '+137.508' },
              ...{ lean: 62, stands: 'origin', settle: 1.4, profile: profile('Cone') },
            },
          },
        ],
      },
      {
        text: 'Add **Time offset**: it is set to _When uncovered_. Every leaf plays from its first frame as the tip passes.',
        moves: [{ add: 'offset', to: 'Drawn path' }],
      },
    ],
  },
  {
    id: 'plankton-web',
    title: 'Plankton web',
    about: 'A net of nodes grows out from its hub',
    steps: [
      {
        text: 'What the nodes are: new growth **solid**: Radius 0.05, Sides 20. Hide it.',
        moves: [
          { begin: 'solid' },
          { set: 'solid', of: 'Solid', values: { radius: 0.05, sides: 20 } },
          { hide: 'Solid' },
        ],
      },
      {
        text: 'New growth **web**: Count 70, No longer than 0.9, Hub Y 1.2, Drift 0.12, Shape _Curved_. It grows out by itself, and its nodes swell as the front comes; links follow them while they drift.',
        moves: [
          { begin: 'web' },
          { set: 'web', of: 'Web', values: { count: 70, longest: 0.9, hubY: 1.2, drift: 0.12, shape: 'bow' } },
        ],
      },
      {
        text: 'Add **On the points**: Item _Solid_, Vary size 50. _Finish_: Colour by _An attribute_, _hub_. In **Place**, keys on Turn Y let the whole of it turn.',
        moves: [
          { add: 'on-points', to: 'Web' },
          { set: 'on-points', of: 'Web', values: { growth: '@Solid', vary: 0.5 } },
          { set: 'finish', of: 'Web', values: { by: 'attribute', attribute: 'hub' } },
        ],
      },
    ],
  },
  {
    id: 'lettuce-coral',
    title: 'Lettuce coral',
    about: 'Sheets whose rims have folded into ruffles',
    steps: [
      {
        text: "New growth **frill**: Base _A spiral_, Radius 0.36, Turns 1.7, Height 0.6, Rim 4.6, Near the rim 1.7, Folds 0.13, Opens 24. It grows by itself; a piece of 0.024 is as fine as the starter's.",
        moves: [
          { begin: 'frill' },
          {
            set: 'frill',
            of: 'Frill',
            values: {
              ...{ base: 'spiral', radius: 0.36, turns: 1.7, height: 0.6, ruffle: 4.6 },
              ...{ rim: 1.7, fold: 0.13, open: 24 },
            },
          },
        ],
      },
      {
        text: '_Thicken_: Thickness 0.011. In _Finish_ choose Colour by _An attribute_, _rim_. A **Noise** before it, Amount 0.035, Size 0.8, Hold base 100, lets it sway.',
        moves: [
          { set: 'thicken', of: 'Frill', values: { thick: 0.011 } },
          { set: 'finish', of: 'Frill', values: { by: 'attribute', attribute: 'rim' } },
          { add: 'noise', to: 'Frill' },
          { set: 'noise', of: 'Frill', values: { amount: 0.035, size: 0.8, hold: 1 } },
        ],
      },
      {
        text: 'More of them, of other seeds, sizes and colours: duplicate the growth, and move and turn the copies in **Place**.',
        moves: [],
      },
    ],
  },
];
