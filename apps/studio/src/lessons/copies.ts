import type { Lesson } from './lesson';
import { colours, formula, profile, STEM, TETHER } from './values';

/** Lessons on copies in time; their texts are those of docs/lessons.md. */
export const COPIES: readonly Lesson[] = [
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
        text: 'Add **Along the paths**: Item _Blade_, Spacing _By count_, Count 24, Start 0.2, Turns `+137.508` (each leaf so much further round than the one before), Lean 62, Pivot _Its origin_, Rise time 1.4; Presets of Along: _Cone_.',
        moves: [
          { add: 'along', to: 'Drawn path' },
          {
            set: 'along',
            of: 'Drawn path',
            values: {
              growth: '@Blade',
              by: 'count',
              count: 24,
              start: 0.2,
              turns: '+137.508',
              lean: 62,
              stands: 'origin',
              settle: 1.4,
              profile: profile('Cone'),
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
    id: 'mooring-chain',
    title: 'Mooring chain',
    about: 'A chain that is fed along a path, another pulled in from both ends',
    steps: [
      {
        text: 'New growth: **solid**: Shape _Chain link_, Made to _Mooring chain, studless (ISO 20438)_, Wire 0.05. _Finish_: Colour _Pearl_. Hide it.',
        moves: [
          { begin: 'solid' },
          { set: 'solid', of: 'Solid', values: { which: 'link', standard: 'studless', wire: 0.05 } },
          { set: 'finish', of: 'Solid', values: { gradient: colours('Pearl') } },
          { hide: 'Solid' },
        ],
      },
      {
        text: 'Press D and draw the way of the chain. Delete _Tube_ and _Finish_. Add **Along the paths**: Item _Solid_, Turns `0, 90`, Remainder _Leave it_, Growth _Feeds them through_. The links hang in each other: their spacing is their inner length.',
        moves: [
          { begin: 'drawn', with: { anchors: TETHER } },
          { remove: 'tube', of: 'Drawn path' },
          { remove: 'finish', of: 'Drawn path' },
          { add: 'along', to: 'Drawn path' },
          {
            set: 'along',
            of: 'Drawn path',
            values: { growth: '@Solid', turns: '0, 90', rest: 'leave', reveal: 'feed' },
          },
        ],
      },
      {
        text: 'A hanging one: new growth **catenary**, without _Grow, Tube, Finish_. **Along the paths** as before, with Growth _Pulled in_, Enters _At both ends_, Pulled in `= clamp((frame - 1) / 100, 0, 1) * 100`: two trains meet in the middle.',
        moves: [
          { begin: 'catenary' },
          { remove: 'grow', of: 'Catenary' },
          { remove: 'tube', of: 'Catenary' },
          { remove: 'finish', of: 'Catenary' },
          { add: 'along', to: 'Catenary' },
          {
            set: 'along',
            of: 'Catenary',
            values: {
              growth: '@Solid',
              turns: '0, 90',
              rest: 'leave',
              reveal: 'pull',
              enters: 'both',
              fed: formula('clamp((frame - 1) / 100, 0, 1) * 100'),
            },
          },
        ],
      },
      {
        text: '**Checks**, _Check the copies_: the gap between every two neighbours in millimetres, the worst first. Click one, and it is marked in the picture.',
        moves: [],
      },
    ],
  },
  {
    id: 'sea-lily',
    title: 'Sea-lily',
    about: 'Petals are born, open, swell and go, for ever',
    steps: [
      {
        text: 'Last frame 96. The petal: new growth **blade**: Length 0.6, Width 0.24, Fold 10, Cup 45, Droop `= 1.4 * frame - 60`. Add **Roll up**: Rolled up `= 92 * clamp(1 - frame / 72, 0, 1)`, Stalk 0.1, Core 0.05, Turns apart 0.03. _Finish_: Colour _Anemone_. Hide it.',
        moves: [
          { last: 96 },
          { begin: 'blade' },
          {
            set: 'blade',
            of: 'Blade',
            values: { length: 0.6, width: 0.24, fold: 10, cup: 0.45, droop: formula('1.4 * frame - 60') },
          },
          { add: 'roll-up', to: 'Blade' },
          {
            set: 'roll-up',
            of: 'Blade',
            values: { amount: formula('92 * clamp(1 - frame / 72, 0, 1)'), exempt: 0.1, core: 0.05, apart: 0.03 },
          },
          { set: 'finish', of: 'Blade', values: { gradient: colours('Anemone') } },
          { hide: 'Blade' },
        ],
      },
      {
        text: 'New growth: **phyllotaxis**: Surface _Dome_, Count 60, New ones _Endless_, Radius 0.17, Height 0.16, Swell 18, Fade 9.',
        moves: [
          { begin: 'phyllotaxis' },
          {
            set: 'phyllotaxis',
            of: 'Phyllotaxis',
            values: { which: 'dome', count: 60, born: 'endless', radius: 0.17, height: 0.16, swell: 18, fade: 9 },
          },
        ],
      },
      {
        text: 'Add **On the points**: Item _Blade_, Lean 48; Presets of Size by place and of Lean by place: _Horn_.',
        moves: [
          { add: 'on-points', to: 'Phyllotaxis' },
          {
            set: 'on-points',
            of: 'Phyllotaxis',
            values: { growth: '@Blade', lean: 48, sizeAlong: profile('Horn'), leanAlong: profile('Horn') },
          },
        ],
      },
      {
        text: 'Add **Time offset**: Later by _Its life_. Each petal goes through the whole range between its birth and its end. Add **Move and turn**: Move Y 0.6. **Checks**, Measure: the seam is 0 mm.',
        moves: [
          { add: 'offset', to: 'Phyllotaxis' },
          { set: 'offset', of: 'Phyllotaxis', values: { by: 'life' } },
          { add: 'transform', to: 'Phyllotaxis' },
          { set: 'transform', of: 'Phyllotaxis', values: { moveY: 0.6 } },
        ],
      },
    ],
  },
  {
    id: 'urchin-head',
    title: 'Urchin head',
    about: 'Twelve hundred spines in golden spirals',
    steps: [
      {
        text: 'New growth: **solid**: Shape _Crystal_, Radius 0.016, Height 0.2, Point 86, Sides 6. _Finish_: Colour _Iris_. Hide it.',
        moves: [
          { begin: 'solid' },
          {
            set: 'solid',
            of: 'Solid',
            values: { which: 'crystal', radius: 0.016, height: 0.2, point: 0.86, sides: 6 },
          },
          { set: 'finish', of: 'Solid', values: { gradient: colours('Iris') } },
          { hide: 'Solid' },
        ],
      },
      {
        text: 'New growth: **phyllotaxis**: Surface _Dome_, Count `= 1200 * clamp((frame - 1) / 120, 0, 1) ^ 2`, As the count changes _Size held_, Radius 0.62, Height 0.56, Swell 9. The pattern stays while new points push the others outwards.',
        moves: [
          { begin: 'phyllotaxis' },
          {
            set: 'phyllotaxis',
            of: 'Phyllotaxis',
            values: {
              which: 'dome',
              count: formula('1200 * clamp((frame - 1) / 120, 0, 1) ^ 2'),
              room: 'held',
              radius: 0.62,
              height: 0.56,
              swell: 9,
            },
          },
        ],
      },
      {
        text: 'Add **On the points**: Item _Solid_, Lean 26, Vary size 16.',
        moves: [
          { add: 'on-points', to: 'Phyllotaxis' },
          { set: 'on-points', of: 'Phyllotaxis', values: { growth: '@Solid', lean: 26, vary: 0.16 } },
        ],
      },
    ],
  },
  {
    id: 'barnacle-rock',
    title: 'Barnacle rock',
    about: 'Barnacles come up over a boulder',
    steps: [
      {
        text: 'What comes up: new growth **line**: To Y 0.075, Points 5. Delete _Tube_ and _Finish_; add **Sweep**: Radius 0.05, Profile _Star_, Corners 9, Notch 80, Hard edges off; add **Finish**. Go to the last frame and hide it.',
        moves: [
          { begin: 'line' },
          { set: 'line', of: 'Line', values: { toY: 0.075, points: 5 } },
          { remove: 'tube', of: 'Line' },
          { add: 'sweep', to: 'Line' },
          { set: 'sweep', of: 'Line', values: { radius: 0.05, profile: 'star', corners: 9, inner: 0.8, hard: false } },
          { add: 'finish', to: 'Line' },
          { hide: 'Line' },
        ],
      },
      {
        text: 'New growth: **rock**: Width 1.8, Height 1.3.',
        moves: [{ begin: 'rock' }, { set: 'rock', of: 'Rock', values: { width: 1.8, height: 1.3 } }],
      },
      {
        text: 'Add **Scatter**: Count 760, Density by _Slope_, From height 30, Upright 10. However many there are, they are evenly spread, and more of them move none that stand.',
        moves: [
          { add: 'scatter', to: 'Rock' },
          { set: 'scatter', of: 'Rock', values: { count: 760, denser: 'slope', lowest: 0.3, upright: 0.1 } },
        ],
      },
      {
        text: 'Add **On the points**: Item _Line_, Vary size 74, Vary turn 180, Vary lean 12.',
        moves: [
          { add: 'on-points', to: 'Rock' },
          { set: 'on-points', of: 'Rock', values: { growth: '@Line', vary: 0.74, varyTurn: 180, varyLean: 12 } },
        ],
      },
      {
        text: 'Add **Falloff**: Driven by _Ball_, Place X -0.85, Y 0.55, Z 0.5, Radius `= 2.05 * clamp((frame - 6) / 120, 0, 1)`, Softness 0.5, Ease _back out_, Invert on, Changes _Size_, Size 0. They come up as it goes through the rock.',
        moves: [
          { add: 'falloff', to: 'Rock' },
          {
            set: 'falloff',
            of: 'Rock',
            values: {
              shape: 'ball',
              atX: -0.85,
              atY: 0.55,
              atZ: 0.5,
              radius: formula('2.05 * clamp((frame - 6) / 120, 0, 1)'),
              soft: 0.5,
              ease: 'back-out',
              invert: true,
              drives: 'size',
              factor: 0,
            },
          },
        ],
      },
    ],
  },
  {
    id: 'eel-run',
    title: 'Eel run',
    about: 'A creature of segments goes round',
    steps: [
      {
        text: 'New growth: **solid**: Radius 0.09, Sides 20. _Finish_: Colour _Ember_. Hide it.',
        moves: [
          { begin: 'solid' },
          { set: 'solid', of: 'Solid', values: { radius: 0.09, sides: 20 } },
          { set: 'finish', of: 'Solid', values: { gradient: colours('Ember') } },
          { hide: 'Solid' },
        ],
      },
      {
        text: 'New growth: **arc**: Radius 1.1, Plane _On the ground_, Points 400. Add **Noise**: Amount 0.25, Size 0.6, Hold base 0.',
        moves: [
          { begin: 'arc' },
          { set: 'arc', of: 'Arc', values: { radius: 1.1, lies: 'ground', points: 400 } },
          { add: 'noise', to: 'Arc' },
          { set: 'noise', of: 'Arc', values: { amount: 0.25, size: 0.6, hold: 0 } },
        ],
      },
      {
        text: 'Go to the last frame. In _Grow_, Shift-click the leaf of To and set it to 34; Travel `= (frame - 1) / 144 * 100`: a third of the ring goes once round. Delete _Tube_ and _Finish_.',
        moves: [
          { set: 'grow', of: 'Arc', values: { to: 0.34, travel: formula('(frame - 1) / 144 * 100') } },
          { remove: 'tube', of: 'Arc' },
          { remove: 'finish', of: 'Arc' },
        ],
      },
      {
        text: 'Add **Along the paths**: Item _Solid_, Spacing _By distance_, Distance 0.052, Vary size 24, Growth _Feeds them through_, Along follows _Grown part_; Presets of Along: _Horn_. Ctrl D makes a second one: add 50 to its Travel. The seam is 0 mm.',
        moves: [
          { add: 'along', to: 'Arc' },
          {
            set: 'along',
            of: 'Arc',
            values: {
              growth: '@Solid',
              by: 'distance',
              distance: 0.052,
              vary: 0.24,
              reveal: 'feed',
              follows: 'grown',
              profile: profile('Horn'),
            },
          },
        ],
      },
    ],
  },
  {
    id: 'pier-planks',
    title: 'Pier planks',
    about: 'Planks fall into a winding way',
    steps: [
      {
        text: 'New growth: **solid**: Shape _Box_, Width 0.78, Height 0.036, Depth 0.15. _Finish_: Colour _Rust_. Hide it.',
        moves: [
          { begin: 'solid' },
          { set: 'solid', of: 'Solid', values: { which: 'box', width: 0.78, height: 0.036, depth: 0.15 } },
          { set: 'finish', of: 'Solid', values: { gradient: colours('Rust') } },
          { hide: 'Solid' },
        ],
      },
      {
        text: 'New growth: **line**: From X -2, From Y 0.4, To X 2, To Y 0.4, To Z -0.6, Points 60. Add **Wave**: Amount 0.25, Wavelength 3. Delete _Tube_ and _Finish_.',
        moves: [
          { begin: 'line' },
          { set: 'line', of: 'Line', values: { fromX: -2, fromY: 0.4, toX: 2, toY: 0.4, toZ: -0.6, points: 60 } },
          { add: 'wave', to: 'Line' },
          { set: 'wave', of: 'Line', values: { amount: 0.25, length: 3 } },
          { remove: 'tube', of: 'Line' },
          { remove: 'finish', of: 'Line' },
        ],
      },
      {
        text: 'Add **Along the paths**: Item _Solid_, Gap 0.016, Forward _Z_, Facing _Upright_, Vary turn 2.',
        moves: [
          { add: 'along', to: 'Line' },
          {
            set: 'along',
            of: 'Line',
            values: { growth: '@Solid', gap: 0.016, forward: 'z', facing: 'upright', varyTurn: 2 },
          },
        ],
      },
      {
        text: 'Add **Falloff**: Over 1.1, Ease _bounce out_, Invert on, Changes _Place_, Moves by Y 1.5. A second one with Changes _Turn_ and a Delay of its own lets them tumble.',
        moves: [
          { add: 'falloff', to: 'Line' },
          {
            set: 'falloff',
            of: 'Line',
            values: { over: 1.1, ease: 'bounce-out', invert: true, drives: 'move', moveY: 1.5 },
          },
        ],
      },
      {
        text: '**Checks**, _Pick a point_, and click a plank: the line that it falls along is drawn, its speed and jerk are charted. **Ghosts** shows the frames around.',
        moves: [],
      },
    ],
  },
];
