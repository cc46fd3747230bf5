import type { Lesson } from './lesson';
import { byAttribute, formula, PATCH } from './values';

/** Lessons on surfaces; their texts are those of docs/lessons.md. */
export const SURFACES: readonly Lesson[] = [
  {
    id: 'wreck-reveal',
    title: 'Wreck reveal',
    about: 'A propeller runs over with wire, metal dissolving in behind',
    steps: [
      {
        text: 'New growth **form**: File _Propeller_, Size 2; press **See all**. Add **Front**: Starts from _At clicked places_; press **Place**, click on the hub, press **Done**. Shift-click the leaf of Reach, then Reach `= 4 * clamp((frame - 4) / 120, 0, 1)`; Rough edge 0.06. Hide it.',
        moves: [
          { begin: 'form' },
          { set: 'form', of: 'Form', values: { file: 'shipped:propeller', size: 2 } },
          { add: 'front', to: 'Form' },
          {
            set: 'front',
            of: 'Form',
            values: { from: 'clicked', reach: formula('4 * clamp((frame - 4) / 120, 0, 1)'), rough: 0.06 },
          },
          { put: 'front', of: 'Form', values: { places: [[0, 1, 0.1]] } },
          { hide: 'Form' },
        ],
      },
      {
        text: 'New growth **cell wire** (it begins on the form, which is selected): delete _Grow_; Cell 0.08. Add **Reveal**: Visible length 0.62, Soft tips 0.16. It stands before _Wire_: paths are cut before they get a skin. _Wire_: Radius 0.003. _Finish_: Glow 0.',
        moves: [
          { begin: 'cells', with: { growth: '@Form' } },
          { remove: 'grow', of: 'Cell wire' },
          { set: 'cells', of: 'Cell wire', values: { size: 0.08 } },
          { add: 'reveal', to: 'Cell wire' },
          { set: 'reveal', of: 'Cell wire', values: { band: 0.62, soft: 0.16 } },
          { set: 'wire', of: 'Cell wire', values: { radius: 0.003 } },
          { set: 'finish', of: 'Cell wire', values: { glow: 0 } },
        ],
      },
      {
        text: 'Select the form. New growth **skin of a growth**. Add **Reveal**: Behind 0.34, Dissolve 0.26, Grain 0.07, Edge glow 300, Glow width 0.035.',
        moves: [
          { begin: 'skin-of', with: { growth: '@Form' } },
          { add: 'reveal', to: 'Skin of a growth' },
          {
            set: 'reveal',
            of: 'Skin of a growth',
            values: { behind: 0.34, dissolve: 0.26, grain: 0.07, glow: 3, width: 0.035 },
          },
        ],
      },
    ],
  },
  {
    id: 'barnacle-spread',
    title: 'Barnacle spread',
    about: 'Barnacles come up over a rock, none in the bare patch',
    steps: [
      {
        text: 'What comes up: new growth **solid**: Shape _Cone_, Radius 0.05, Height 0.08, Sides 8. Hide it.',
        moves: [
          { begin: 'solid' },
          { set: 'solid', of: 'Solid', values: { which: 'cone', radius: 0.05, height: 0.08, sides: 8 } },
          { hide: 'Solid' },
        ],
      },
      {
        text: 'New growth **form**: Size 2.1; press **See all**. Add **Mask**: Attribute name `bare`; press **Paint on the form**, drag a patch over the rock, press **Done**.',
        moves: [
          { begin: 'form' },
          { set: 'form', of: 'Form', values: { size: 2.1 } },
          { add: 'mask', to: 'Form' },
          { set: 'mask', of: 'Form', values: { name: 'bare' } },
          { put: 'mask', of: 'Form', values: { strokes: PATCH } },
        ],
      },
      {
        text: 'Add **Front**: Starts from _At clicked places_; place one on the rock. Shift-click the leaf of Reach, then Reach `= 3 * clamp((frame - 8) / 90, 0, 1)`; Soft edge 0.3, Slowed by _bare_: it goes round what is bare.',
        moves: [
          { add: 'front', to: 'Form' },
          {
            set: 'front',
            of: 'Form',
            values: { from: 'clicked', reach: formula('3 * clamp((frame - 8) / 90, 0, 1)'), soft: 0.3, slowBy: 'bare' },
          },
          { put: 'front', of: 'Form', values: { places: [[-0.62, 0.5, 0.72]] } },
        ],
      },
      {
        text: 'Add **Displace**: Noise 0. The three bars behind Amount: Varies _By an attribute_, Attribute _Front_: the rock swells where it has passed.',
        moves: [
          { add: 'displace', to: 'Form' },
          { set: 'displace', of: 'Form', values: { noise: 0 } },
          { put: 'displace', of: 'Form', values: { amount: byAttribute('front', 0.03) } },
        ],
      },
      {
        text: 'Add **Scatter**: Places _By distance_, Distance 0.14, **On the points**: Item _Solid_, Vary size 70, and **Falloff**: Driven by _An attribute_, Attribute _Front_, Invert on. A second **Front** below the first whose Combine is _Subtract_, some frames later, takes them off again.',
        moves: [
          { add: 'scatter', to: 'Form' },
          { set: 'scatter', of: 'Form', values: { by: 'spacing', spacing: 0.14 } },
          { add: 'on-points', to: 'Form' },
          { set: 'on-points', of: 'Form', values: { growth: '@Solid', vary: 0.7 } },
          { add: 'falloff', to: 'Form' },
          { set: 'falloff', of: 'Form', values: { shape: 'attribute', attribute: 'front', invert: true } },
        ],
      },
    ],
  },
  {
    id: 'kelp-forest',
    title: 'Kelp forest',
    about: 'Weeds on hilly ground, each in its own time',
    steps: [
      {
        text: 'A weed: new growth **line**: From Y 0, To Y 1.6, Points 9. Add **Noise**: Amount 0.12, Size 1.2, Detail 1. Delete _Tube_; add **Ribbon**: Half width 0.03. Hide it.',
        moves: [
          { begin: 'line' },
          { set: 'line', of: 'Line', values: { fromY: 0, toY: 1.6, points: 9 } },
          { add: 'noise', to: 'Line' },
          { set: 'noise', of: 'Line', values: { amount: 0.12, size: 1.2, detail: 1 } },
          { remove: 'tube', of: 'Line' },
          { add: 'ribbon', to: 'Line' },
          { set: 'ribbon', of: 'Line', values: { radius: 0.03 } },
          { hide: 'Line' },
        ],
      },
      {
        text: 'New growth **terrain**: Width 8, Depth 7, Relief 0.7. Add **Scatter**: Places _By distance_, Distance 0.55, To slope 45, Upright 100, Sink 0.02.',
        moves: [
          { begin: 'terrain' },
          { set: 'terrain', of: 'Terrain', values: { width: 8, depth: 7, relief: 0.7 } },
          { add: 'scatter', to: 'Terrain' },
          {
            set: 'scatter',
            of: 'Terrain',
            values: { by: 'spacing', spacing: 0.55, steepest: 45, upright: 1, sink: 0.02 },
          },
        ],
      },
      {
        text: 'Add **On the points**: Item _Line_, Vary size 40, Vary turn 180; **Clearance**; **Time offset**: Later by _Its distance_, Seconds 0.4. Each weed grows in its own time.',
        moves: [
          { add: 'on-points', to: 'Terrain' },
          { set: 'on-points', of: 'Terrain', values: { growth: '@Line', vary: 0.4, varyTurn: 180 } },
          { add: 'clearance', to: 'Terrain' },
          { add: 'offset', to: 'Terrain' },
          { set: 'offset', of: 'Terrain', values: { by: 'distance', time: 0.4 } },
        ],
      },
    ],
  },
  {
    id: 'overgrown-figurehead',
    title: 'Overgrown figurehead',
    about: 'Plants come up from head to foot',
    steps: [
      {
        text: 'Two plants: new growth **solid**: Shape _Cone_, Radius 0.012, Height 0.05, Sides 6. Hide it; another with Radius 0.02, Height 0.02.',
        moves: [
          { begin: 'solid' },
          { set: 'solid', of: 'Solid', values: { which: 'cone', radius: 0.012, height: 0.05, sides: 6 } },
          { hide: 'Solid' },
          { begin: 'solid', called: 'Solid 2' },
          { set: 'solid', of: 'Solid 2', values: { radius: 0.02, height: 0.02 } },
        ],
      },
      {
        text: 'New growth **form**: File _Figurehead_, Size 2. Add **Front**: Starts from _At the top_, Spreads _Straight_, Soft edge 0.3, Rough edge 0.15.',
        moves: [
          { begin: 'form' },
          { set: 'form', of: 'Form', values: { file: 'shipped:figurehead', size: 2 } },
          { add: 'front', to: 'Form' },
          { set: 'front', of: 'Form', values: { from: 'top', way: 'straight', soft: 0.3, rough: 0.15 } },
        ],
      },
      {
        text: 'Add **Scatter** and **On the points**: Item _Solid_, Second item _Solid 2_, Mix _By odds_, Odds `3 1`, Vary size 60. Add **Falloff**: Invert on: they come up once the front has passed. At last Count 4000 in _Scatter_.',
        moves: [
          { add: 'scatter', to: 'Form' },
          { add: 'on-points', to: 'Form' },
          {
            set: 'on-points',
            of: 'Form',
            values: { growth: '@Solid', second: '@Solid 2', mix: 'odds', odds: '3 1', vary: 0.6 },
          },
          { add: 'falloff', to: 'Form' },
          { set: 'falloff', of: 'Form', values: { invert: true } },
          { set: 'scatter', of: 'Form', values: { count: 4000 } },
        ],
      },
    ],
  },
];
