import {
  type Growth,
  newGrowth,
  newScene,
  newStep,
  type ParamValue,
  type Scene,
  type Step,
  type Stroke,
} from '@uvrex/core';

/** Moments of each picture. */
export const FRAMES = 8;

export const blank = (): Scene => {
  const scene = newScene('Small picture');
  return { ...scene, seed: 5, fps: 1, range: [1, FRAMES + 1], lens: { ...scene.lens, fov: 30 } };
};

/** A number that goes from one value to another, and stays there for a moment. */
export const going = (from: number, to: number): ParamValue => ({
  keys: [
    { frame: 2, value: from, ease: 'ease-in-out' },
    { frame: FRAMES, value: to, ease: 'linear' },
  ],
  before: 'hold',
  after: 'hold',
});

export const course = (): Step => newStep('helix', { below: 0.14, above: 0.36, height: 1.7, turns: 1.6, points: 120 });
export const stalk = (): Step => newStep('line', { toY: 1.6, points: 120 });
export const blade = (): Step =>
  newStep('blade', { length: 1.6, width: 0.5, fold: 0, cup: 0, droop: 0, stalk: 0.02, rows: 60, thick: 0.02 });
export const plain = (): Step => newStep('finish', { glow: 0 });
export const skin = (radius = 0.035): Step[] => [newStep('tube', { radius }), plain()];
export const grows = (): Step => newStep('grow', { to: going(0, 1) });
export const tree = (): Step[] => [
  newStep('rules'),
  newStep('carry'),
  newStep('tube', { radius: 0.05, sides: 8 }),
  plain(),
];

export const item = (id: string, ...steps: Step[]): Growth => ({ ...newGrowth(id, 2, steps), id, visible: false });
export const dot = (): Growth => item('dot', newStep('solid', { radius: 0.045, sides: 16 }), plain());
const box = (): Growth =>
  item('box', newStep('solid', { which: 'box', width: 0.16, height: 0.16, depth: 0.16 }), plain());
export const spike = (): Growth =>
  item('spike', newStep('line', { toY: 0.5 }), grows(), newStep('tube', { radius: 0.03 }), plain());

export const own = (...steps: Step[]): Growth => ({ ...newGrowth('Growth', 0, steps), id: 'growth', seed: 3 });
export const pathed = (step: Step, path = course()): Growth[] => [own(path, step, ...skin())];
const leafy = (step: Step): Growth[] => [own(blade(), step, plain())];
export const row = (of: Growth, ...steps: Step[]): Growth[] => [
  own(
    newStep('arc', { radius: 0.5, sweep: 220, start: -20, lies: 'ground', middleY: 0, points: 120 }),
    newStep('along', { growth: of.id, by: 'count', count: 12, stands: 'origin', facing: 'upright' }),
    ...steps,
  ),
  of,
];
const studded = (scatter: Step, ...steps: Step[]): Growth[] => [
  own(newStep('rock'), scatter, newStep('on-points', { growth: 'dot' }), ...steps),
  { ...newGrowth('Rock', 3, [newStep('rock'), plain()]), id: 'rock', seed: 3 },
  dot(),
];

/** Half the outline of a vase, from its foot to its lip. */
const VASE = [
  [0, 0, 0],
  [0.3, 0, 0],
  [0.52, 0.5, 0],
  [0.2, 1.05, 0],
  [0.34, 1.4, 0],
] as never;
const SNOW = [
  { at: 0, color: '#f4f7f5' },
  { at: 0.55, color: '#b9c9c2' },
  { at: 0.75, color: '#3e5a52' },
  { at: 1, color: '#2c423d' },
];
export const PAINT = [
  { at: 0, color: '#2c423d' },
  { at: 1, color: '#d9825b' },
];
/** A ball with a winding line painted on the side that one sees. */
const painted = (): Step[] => {
  const points = Array.from({ length: 60 }, (_, i) => {
    const t = i / 59;
    const [x, y] = [1.1 * t - 0.55, 0.3 * Math.sin(2 * Math.PI * t)];
    const z = Math.sqrt(Math.max(0, 0.65 ** 2 - x * x - y * y));
    return [x, 0.7 + y, z, 1];
  });
  const stroke: Stroke = { does: 'paint', radius: 0.14, strength: 1, soft: 0.3, frame: 1, points: points.flat() };
  return [newStep('solid', { radius: 0.65, sides: 128, atY: 0.7 }), newStep('mask', { strokes: [stroke] as never })];
};

/** What shows best what each step does: growths in which one of its numbers moves, or growth itself. */
const SCENES: Readonly<Record<string, () => Growth[]>> = {
  respace: () => pathed(newStep('respace', { by: 'count', count: going(70, 6) })),
  smooth: () => [
    own(
      course(),
      newStep('noise', { amount: 0.3, size: 0.2 }),
      newStep('smooth', { rounds: going(0, 120) }),
      ...skin(),
    ),
  ],
  thin: () => pathed(newStep('thin', { within: going(0, 0.3) })),
  prune: () => [own(newStep('rules'), newStep('prune', { depth: going(5, 0) }), ...tree().slice(1))],
  noise: () => pathed(newStep('noise', { amount: going(0, 0.5), size: 0.7 })),
  wave: () => pathed(newStep('wave', { amount: going(0, 0.22), length: 0.5 }), stalk()),
  bend: () => pathed(newStep('bend', { angle: going(0, 170) }), stalk()),
  twist: () => leafy(newStep('twist', { turns: going(0, 1.5) })),
  'roll-up': () => leafy(newStep('roll-up', { amount: going(1, 0.1) })),
  fold: () => leafy(newStep('fold', { angle: going(0, 130) })),
  taper: () => [own(stalk(), newStep('tube', { radius: 0.22 }), newStep('taper', { amount: going(0, 1) }), plain())],
  stretch: () => [
    own(
      newStep('solid', { radius: 0.42, sides: 64, atY: 0.42 }),
      newStep('stretch', {
        by: {
          keys: [2, 3, 5, 6, FRAMES].map((frame, i) => ({
            frame,
            value: [1, 0.55, 1.3, 0.8, 1.5][i],
            ease: 'ease-in-out' as const,
          })),
          before: 'hold',
          after: 'hold',
        },
      }),
      plain(),
    ),
  ],
  carry: () => [own(newStep('rules'), newStep('carry', { tip: going(0.9, 0.06) }), ...tree().slice(2))],
  feel: () => [own(stalk(), grows(), newStep('feel', { length: 0.7, reach: 0.3, speed: 2 }), ...skin())],
  cup: () => leafy(newStep('cup', { angle: going(0, 220) })),
  transform: () => [
    own(
      newStep('rock'),
      newStep('transform', { turnY: going(0, 160), scale: going(0.5, 1.1), moveX: going(-0.8, 0.6) }),
      plain(),
    ),
  ],
  settle: () => [
    own(
      newStep('line', { fromX: -0.9, fromY: 1.4, toX: 0.9, toY: 1.4, points: 160 }),
      newStep('settle', { growth: 'rock', amount: going(0, 1), height: 0.03 }),
      ...skin(),
    ),
    { ...newGrowth('Rock', 3, [newStep('rock'), plain()]), id: 'rock' },
  ],
  displace: () => [
    own(newStep('solid', { radius: 0.6, sides: 96, atY: 0.7 }), newStep('displace', { noise: going(0, 0.3) }), plain()),
  ],
  blend: () => [
    own(stalk(), newStep('blend', { growth: 'other', amount: going(0, 1) }), ...skin()),
    item('other', course(), ...skin()),
  ],
  strands: () => [
    own(stalk(), newStep('strands', { as: 'bed', count: 40 }), grows(), newStep('wire', { radius: 0.012 }), plain()),
  ],
  ride: () => [
    own(
      newStep('volume', {
        by: 'packed',
        width: 0.5,
        height: 1.7,
        depth: 0.5,
        atY: 0.85,
        smallest: 0.03,
        largest: 0.09,
        count: 160,
      }),
      newStep('ride', { growth: 'stalk' }),
      newStep('on-points', { growth: 'dot', size: 9 }),
    ),
    item('stalk', stalk(), newStep('bend', { angle: going(-70, 0) })),
    dot(),
  ],
  mirror: () => [
    own(
      newStep('helix', { below: 0.1, above: 0.3, height: 1.5, turns: 1.2, baseX: 0.45, points: 100 }),
      grows(),
      newStep('mirror'),
      ...skin(),
    ),
  ],
  array: () => [
    own(
      newStep('blade', { length: 0.75, width: 0.3, cup: 0.3, droop: 40, fold: 0, stalk: 0.02 }),
      newStep('transform', { turnZ: -60, moveY: 0.5 }),
      newStep('array', { as: 'circle', count: going(1, 8) }),
      plain(),
    ),
  ],
  'follow-path': () => [
    own(
      newStep('line', { toY: 1.3, points: 80 }),
      newStep('tube', { radius: 0.15, swell: 0, start: 'round' }),
      newStep('follow-path', { growth: 'course', start: going(0, 0.55) }),
      plain(),
    ),
    item('course', course(), ...skin(0.006)),
  ],
  mask: () => [
    own(
      ...painted(),
      newStep('scatter', {
        count: going(0, 90),
        denser: 'attribute',
        attribute: 'mask',
        density: [
          { at: 0, value: 0 },
          { at: 1, value: 1 },
        ],
      }),
      newStep('on-points', { growth: 'dot' }),
    ),
    {
      ...newGrowth('Ball', 3, [
        ...painted(),
        newStep('finish', { by: 'attribute', attribute: 'mask', gradient: PAINT, glow: 0 }),
      ]),
      id: 'ball',
    },
    dot(),
  ],
  measure: () => [
    own(
      newStep('rock'),
      newStep('measure', { what: 'slope', scale: 'between', low: 0, high: going(1, 110) }),
      newStep('finish', { by: 'attribute', attribute: 'slope', gradient: SNOW, glow: 0 }),
    ),
  ],
  'table-values': () => [
    own(
      newStep('line', { toY: 1.2, points: 40 }),
      newStep('strands', { as: 'row', count: 24, apart: 0.08, vary: 0, turn: 0 }),
      newStep('table-values', { column: 'lanterns' }),
      newStep('grow', { to: going(0, 1), levels: 1, levelsBy: 'attribute', levelAttribute: 'value' }),
      newStep('tube', { radius: 0.03, swell: 0, along: [{ at: 0, value: 1 }] }),
      plain(),
    ),
  ],
  'picture-values': () => [
    own(
      newStep('terrain', { width: 1.6, depth: 1.6, relief: 0, pieces: 90 }),
      newStep('picture-values', { axis: 'y', high: going(0, 1) }),
      newStep('displace', {
        noise: 0,
        amount: {
          base: 0.02,
          vary: {
            ...{ by: 'attribute', attribute: 'picture', span: [0, 1], amount: 0.35, waves: 3 },
            shape: [
              { at: 0, value: 0 },
              { at: 1, value: 1 },
            ],
          },
        },
      }),
      newStep('finish', { glow: 0, by: 'attribute', attribute: 'height', lastAt: 0.35 }),
    ),
  ],
  'skin-picture': () => [
    own(
      newStep('blade', {
        ...{ length: 1.3, width: 1.3, stalk: 0, fold: 14, thick: 0.006, rows: 60, droop: going(360, 30) },
        outline: [{ at: 0, value: 1 }],
      }),
      newStep('skin-picture'),
    ),
  ],
  subdivide: () => [
    own(
      newStep('solid', { which: 'box', width: 0.9, height: 0.9, depth: 0.9, atY: 0.6 }),
      newStep('subdivide', { levels: going(1, 4) }),
      plain(),
    ),
  ],
  thicken: () => leafy(newStep('thicken', { thick: going(0.005, 0.16) })),
  'soft-normals': () => [
    own(
      newStep('solid', { which: 'dodecahedron', radius: 0.7, atY: 0.75 }),
      newStep('soft-normals', { angle: going(0, 150) }),
      plain(),
    ),
  ],
  grow: () => [own(course(), grows(), ...skin(), newStep('finish', { glow: 0.8 }))],
  front: () => [
    own(
      newStep('rock'),
      newStep('front', { reach: going(0, 1.8) }),
      newStep('reveal', { glow: 1, width: 0.1 }),
      plain(),
    ),
  ],
  reveal: () => [
    own(
      newStep('rock'),
      newStep('front', { reach: going(0, 1.8) }),
      newStep('reveal', { dissolve: 0.3, grain: 0.12, glow: 1 }),
      plain(),
    ),
  ],
  tube: () => [own(course(), newStep('tube', { radius: going(0.008, 0.11) }), plain())],
  sweep: () => [own(course(), newStep('sweep', { radius: going(0.01, 0.14), corners: 5 }), plain())],
  ribbon: () => [own(course(), newStep('ribbon', { radius: going(0.01, 0.16) }), plain())],
  wire: () => [
    own(stalk(), newStep('strands', { as: 'ring', count: 14 }), grows(), newStep('wire', { radius: 0.015 }), plain()),
  ],
  plate: () => [own(newStep('arc', { radius: 0.6 }), newStep('plate', { depth: going(0.02, 0.5) }), plain())],
  lathe: () => [
    own(
      newStep('drawn', { anchors: VASE, points: 120 }),
      newStep('lathe', { to: going(0, 360) }),
      newStep('thicken', { thick: 0.02 }),
      plain(),
    ),
  ],
  loft: () => [
    own(
      newStep('text', { text: 'OSB', size: 0.55 }),
      newStep('loft', { course: 'stalk', to: going(0, 1), points: 160 }),
      plain(),
    ),
    item('stalk', newStep('line', { fromX: -0.6, fromY: 0.7, fromZ: -0.9, toX: 0.3, toY: 0.7, toZ: 0.6, points: 60 })),
  ],
  finish: () => [
    own(course(), grows(), newStep('tube', { radius: 0.06 }), newStep('finish', { glow: 1.2, glowLength: 0.5 })),
  ],
  along: () => [own(course(), grows(), newStep('along', { growth: 'box', by: 'count', count: 20 })), box()],
  scatter: () => studded(newStep('scatter', { count: going(0, 400) })),
  'on-points': () => [
    own(
      newStep('phyllotaxis', { which: 'dome', radius: 0.6, height: 0.4, count: going(0, 140) }),
      newStep('on-points', { growth: 'dot' }),
    ),
    dot(),
  ],
  tips: () => [own(...tree().slice(0, 3), newStep('tips', { growth: 'dot', size: going(0, 2) }), plain()), dot()],
  offset: () => row(spike(), newStep('offset', { by: 'number', time: 0.25 })),
  falloff: () =>
    row(spike(), newStep('falloff', { shape: 'ball', atX: going(-0.7, 0.7), atY: 0.2, atZ: 0, radius: 0.6 })),
  clearance: () => studded(newStep('scatter', { count: 300 }), newStep('clearance', { room: going(0, 0.2) })),
};

/** A scene that shows what a step does. */
export const stepScene = (kind: string): Scene => ({ ...blank(), growths: SCENES[kind]() });

/** Kinds of steps that have a picture. */
export const PICTURED: readonly string[] = Object.keys(SCENES);
