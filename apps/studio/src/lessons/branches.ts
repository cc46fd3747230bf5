import type { Lesson } from './lesson';
import { FAN, SEA_FERN } from './values';

/** Lessons on branches; their texts are those of docs/lessons.md. */
export const BRANCHES: readonly Lesson[] = [
  {
    id: 'sea-fern',
    title: 'Sea fern',
    about: 'A fern that branches by rules',
    steps: [
      {
        text: 'New growth **branching rules**; **Begin from a preset**: _Sea fern_. The rules have a time of their own: Generations has keys from 0 to 20. Thickness ratio 100.',
        moves: [
          { begin: 'rules' },
          { preset: 'rules', of: 'Branching rules', values: SEA_FERN },
          { set: 'rules', of: 'Branching rules', values: { thinner: 1 } },
        ],
      },
      {
        text: 'Add **Branch thickness**: Tips 16, Comes up over 0.1, Flares over 0.05. Stems thicken as what they carry comes up.',
        moves: [
          { add: 'carry', to: 'Branching rules' },
          { set: 'carry', of: 'Branching rules', values: { tip: 0.16, over: 0.1, flare: 0.05 } },
        ],
      },
      {
        text: 'Delete _Wire_; add **Tube**: Radius 0.05, Sides 8, Joints _Grown together_. In _Finish_ choose Colour by _An attribute_, _generation_, Last at 20. A **Noise** before the tube, Amount 0.16, Hold base 90, lets it sway: every branch keeps its joint and turns with it.',
        moves: [
          { remove: 'wire', of: 'Branching rules' },
          { add: 'tube', to: 'Branching rules' },
          { set: 'tube', of: 'Branching rules', values: { radius: 0.05, sides: 8, joints: 'grown' } },
          { set: 'finish', of: 'Branching rules', values: { by: 'attribute', attribute: 'generation', lastAt: 20 } },
          { add: 'noise', to: 'Branching rules' },
          { set: 'noise', of: 'Branching rules', values: { amount: 0.16, hold: 0.9 } },
        ],
      },
    ],
  },
  {
    id: 'lantern-vine',
    title: 'Lantern vine',
    about: 'Tendrils twine up a mooring post',
    steps: [
      {
        text: 'The leaf: new growth **blade**: Length 0.2, Width 0.08. Hide it. The post: new growth **line**: To Y 2.3. Delete _Grow_; _Tube_: Radius 0.1, Swell 0.',
        moves: [
          { begin: 'blade' },
          { set: 'blade', of: 'Blade', values: { length: 0.2, width: 0.08 } },
          { hide: 'Blade' },
          { begin: 'line' },
          { set: 'line', of: 'Line', values: { toY: 2.3 } },
          { remove: 'grow', of: 'Line' },
          { set: 'tube', of: 'Line', values: { radius: 0.1, swell: 0 } },
        ],
      },
      {
        text: 'New growth **twining tendrils** (they begin on the post, which is selected): Pitch 0.6. _Tube_: Radius 0.02. Add **Feeling tips** below _Grow_: the ends look for a hold, and what has grown on lies on the post.',
        moves: [
          { begin: 'twine', with: { growth: '@Line' } },
          { set: 'twine', of: 'Twining tendrils', values: { pitch: 0.6 } },
          { set: 'tube', of: 'Twining tendrils', values: { radius: 0.02 } },
          { add: 'feel', to: 'Twining tendrils' },
        ],
      },
      {
        text: 'Add **Along the paths**: Item _Blade_, Spacing _By count_, Count 18, Turns `+137.5`, Lean 58, and **Time offset**: leaves unroll behind the tips. A second growth of tendrils that winds _To the left_, thinner and later, keeps off the post by a clearance of its own.',
        moves: [
          { add: 'along', to: 'Twining tendrils' },
          {
            set: 'along',
            of: 'Twining tendrils',
            values: { growth: '@Blade', by: 'count', count: 18, turns: '+137.5', lean: 58 },
          },
          { add: 'offset', to: 'Twining tendrils' },
        ],
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
        text: 'New growth **web**: Count 70, Maximum length 0.9, Hub Y 1.2, Drift 0.12, Shape _Curved_. It grows out by itself, and its nodes swell as the front comes; links follow them while they drift.',
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
    id: 'fan-coral',
    title: 'Fan coral',
    about: 'Branches that have grown into a drawn fan',
    steps: [
      {
        text: 'The fan: draw its outline in the view, upright, from the ground up and round, and switch _Closed_ on. Hide it: only its outline counts, as it is when it has grown.',
        moves: [
          { begin: 'drawn', with: { anchors: FAN } },
          { set: 'drawn', of: 'Drawn path', values: { closed: true } },
          { hide: 'Drawn path' },
        ],
      },
      {
        text: 'New growth **space colonisation**: Places in _An outline_, Growth _Drawn path_, Depth 0.14, Places 1200, Spread _Blue noise_, Reach 0.26, Reached at 0.06, Segment length 0.03, Thickness 10. It has brought _Branch thickness_: Exponent 3, Comes up over 0.03. Stems thicken as what they carry comes up.',
        moves: [
          { begin: 'colonise' },
          {
            set: 'colonise',
            of: 'Space colonisation',
            values: {
              where: 'outline',
              growth: '@Drawn path',
              depth: 0.14,
              count: 1200,
              spread: 'even',
              reach: 0.26,
              reached: 0.06,
              step: 0.03,
              exponent: 10,
            },
          },
          { set: 'carry', of: 'Space colonisation', values: { exponent: 3, over: 0.03 } },
        ],
      },
      {
        text: '_Tube_: Radius 0.006, Swell 0.02; its joints are grown together. The polyp: new growth **solid**, Radius 0.02, with keys on its size in **Place** from 0 to 1 late in the range; hide it. On the fan add **At the tips**: Growth _Solid_. They come out last.',
        moves: [
          { set: 'tube', of: 'Space colonisation', values: { radius: 0.006, swell: 0.02 } },
          { begin: 'solid' },
          { set: 'solid', of: 'Solid', values: { radius: 0.02 } },
          { hide: 'Solid' },
          { add: 'tips', to: 'Space colonisation' },
          { set: 'tips', of: 'Space colonisation', values: { growth: '@Solid' } },
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
              base: 'spiral',
              radius: 0.36,
              turns: 1.7,
              height: 0.6,
              ruffle: 4.6,
              rim: 1.7,
              fold: 0.13,
              open: 24,
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
