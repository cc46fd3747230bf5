import type { Lesson } from './lesson';
import { byChance, colours, formula, profile, TETHER } from './values';

/** Lessons on curves; their texts are those of docs/lessons.md. */
export const CURVES: readonly Lesson[] = [
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
          { set: 'noise', of: 'Line', values: { amount: byChance(0.34, 0.14), size: 0.75, evolve: 0.5, hold: 0.9 } },
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
        text: 'Last frame 96. New growth: **helix**: Base radius 0.62, Top radius 0.012, Radius changes _By a factor_, Height 1.22, Turns 6, Base Y 0.44, Points 400. Delete _Grow_ and _Tube_.',
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
              corners: 9,
              inner: 0.86,
              rounding: 0.85,
              radius: 0.47,
              swell: 0,
              follows: 'whole',
              start: 'round',
              end: 'round',
              along: profile('Cone'),
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
    id: 'sonar-bars',
    title: 'Sonar bars',
    about: 'A hundred bars driven by a sound',
    steps: [
      {
        text: 'New growth: **line**: To Y 1.7, Points 2. Add **Strands**: Arrangement _Row_, Count 100, Apart 0.046, Vary size and Vary turn 0. Add **Respace**: Count 31, which are thirty pieces.',
        moves: [
          { begin: 'line' },
          { set: 'line', of: 'Line', values: { toY: 1.7, points: 2 } },
          { add: 'strands', to: 'Line' },
          { set: 'strands', of: 'Line', values: { as: 'row', count: 100, apart: 0.046, vary: 0, turn: 0 } },
          { add: 'respace', to: 'Line' },
          { set: 'respace', of: 'Line', values: { count: 31 } },
        ],
      },
      {
        text: 'Go to the last frame. In _Grow_, Shift-click the leaf of To: it stays at 100 %. Whole pieces on, Levels 100, Levels by _Sound_. The sound is the one that comes with Uvrex; _Load a WAV file…_ takes your own. The lowest band moves the first bar, in the middle of the row.',
        moves: [{ set: 'grow', of: 'Line', values: { to: 1, whole: true, levels: 1, levelsBy: 'sound' } }],
      },
      {
        text: 'Delete _Tube_, add **Ribbon**: Half width 0.0165, Thickness 0.022, Roll 90, End _Round_.',
        moves: [
          { remove: 'tube', of: 'Line' },
          { add: 'ribbon', to: 'Line' },
          { set: 'ribbon', of: 'Line', values: { radius: 0.0165, thick: 0.022, roll: 90, end: 'round' } },
        ],
      },
      {
        text: '_Finish_: Presets of Colour: _Lagoon_, Glow 140, Glow length 0.14. Colours lie on the whole path: they stay put while the bars jump. **See all**, and Space.',
        moves: [{ set: 'finish', of: 'Line', values: { gradient: colours('Lagoon'), glow: 1.4, glowLength: 0.14 } }],
      },
    ],
  },
  {
    id: 'tether-burn',
    title: 'Tether burn',
    about: 'A drawn line burns from its start',
    steps: [
      {
        text: 'First what rides: new growth **line**: From Y -0.05, To Y 0.2, Points 16. Delete _Grow_ and _Tube_, add **Sweep**: Corners 7, Notch 62, Rounding 50, Radius 0.085, Swell 0; Along: _Spindle_. _Finish_: Colour _Ember_, Glow 400. Hide it with its eye: it will still ride.',
        moves: [
          { begin: 'line' },
          { set: 'line', of: 'Line', values: { fromY: -0.05, toY: 0.2, points: 16 } },
          { remove: 'grow', of: 'Line' },
          { remove: 'tube', of: 'Line' },
          { add: 'sweep', to: 'Line' },
          {
            set: 'sweep',
            of: 'Line',
            values: { corners: 7, inner: 0.62, rounding: 0.5, radius: 0.085, swell: 0, along: profile('Spindle') },
          },
          { set: 'finish', of: 'Line', values: { gradient: colours('Ember'), glow: 4 } },
          { hide: 'Line' },
        ],
      },
      {
        text: 'Press D and draw the tether over the view. Go to the last frame; in _Grow_ Shift-click the leaf of To, and set From to `= 99 * clamp((frame - 8) / 128, 0, 1)`: it is eaten from its start, at an even pace.',
        moves: [
          { begin: 'drawn', with: { anchors: TETHER } },
          { set: 'grow', of: 'Drawn path', values: { to: 1, from: formula('99 * clamp((frame - 8) / 128, 0, 1)') } },
        ],
      },
      {
        text: '_Tube_: Radius 0.045, Swell 0, Start _Round_; Along: _Even_. _Finish_: Colour _Rust_, Glow 320, Glow length 0.4.',
        moves: [
          {
            set: 'tube',
            of: 'Drawn path',
            values: { radius: 0.045, swell: 0, start: 'round', along: profile('Even') },
          },
          { set: 'finish', of: 'Drawn path', values: { gradient: colours('Rust'), glow: 3.2, glowLength: 0.4 } },
        ],
      },
      {
        text: 'Add **At the tips**: Growth _Line_, Size `= 100 + 14 * sin(frame * 60)`. It sits on whichever end is growing or being eaten, along the path. **Checks** charts the pace. Other growths can set out by their distance from these tips: _Grow_, Stagger, Order _By distance from a guide_, Guide _Tips of …_.',
        moves: [
          { add: 'tips', to: 'Drawn path' },
          { set: 'tips', of: 'Drawn path', values: { growth: '@Line', size: formula('100 + 14 * sin(frame * 60)') } },
        ],
      },
    ],
  },
  {
    id: 'brain-coral',
    title: 'Brain coral',
    about: 'A space-filling path grows',
    steps: [
      {
        text: 'New growth: **fractal path**: Curve _Hilbert, solid_, Order 3, Size 1.45, Rounding 100. Add **Respace**: Count 1800.',
        moves: [
          { begin: 'fractal' },
          { set: 'fractal', of: 'Fractal path', values: { which: 'hilbert-3d', order: 3, size: 1.45, round: 1 } },
          { add: 'respace', to: 'Fractal path' },
          { set: 'respace', of: 'Fractal path', values: { count: 1800 } },
        ],
      },
      {
        text: '_Tube_: Radius 0.072, Follows _Whole path_, Start _Round_; Along: _Even_. _Finish_: Colour _Ember_. **See all**, Space.',
        moves: [
          {
            set: 'tube',
            of: 'Fractal path',
            values: { radius: 0.072, follows: 'whole', start: 'round', along: profile('Even') },
          },
          { set: 'finish', of: 'Fractal path', values: { gradient: colours('Ember') } },
        ],
      },
    ],
  },
];
