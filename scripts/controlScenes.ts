import { type Growth, isTrack, newGrowth, newStep, type ParamValue, type Scene, type Step, STEPS } from '@uvrex/core';
import {
  blade,
  blank,
  course,
  dot,
  going,
  grows,
  item,
  own,
  PAINT,
  pathed,
  PICTURED,
  plain,
  row,
  skin,
  spike,
  stalk,
  stepScene,
  tree,
} from './stepScenes';

/** A start whose number moves, with what makes it seen. */
const begins = (kind: string, params: Record<string, ParamValue>, ...steps: Step[]): Growth[] => [
  own(newStep(kind, params), ...steps),
];
const lined = (kind: string, params: Record<string, ParamValue>): Growth[] => begins(kind, params, ...skin());
const bodied = (kind: string, params: Record<string, ParamValue>): Growth[] => begins(kind, params, plain());
const burst = (params: Record<string, ParamValue>): Growth[] =>
  begins('burst', { count: 28, generations: 1, spread: 80, atY: 0.1, ...params }, ...skin(0.02));
const wander = (params: Record<string, ParamValue>): Growth[] =>
  begins('wander', { count: 10, length: 1.6, atY: 0.05, rise: 0.3, ...params }, ...skin(0.025));
const leaf = (params: Record<string, ParamValue>): Growth[] => {
  const step = blade();
  return [own({ ...step, params: { ...step.params, ...params } }, plain())];
};
const bed = (params: Record<string, ParamValue>, ...steps: Step[]): Growth[] => [
  own(
    newStep('line', { toY: 0.9, points: 60 }),
    newStep('strands', { as: 'bed', count: 30, spread: 0, ...params }),
    ...steps,
    newStep('wire', { radius: 0.03 }),
    plain(),
  ),
];
const fronted = (params: Record<string, ParamValue>): Growth[] => [
  own(
    newStep('rock'),
    newStep('front', { reach: 0.9, ...params }),
    newStep('finish', { by: 'attribute', attribute: 'front', gradient: PAINT, glow: 0 }),
  ),
];
const revealed = (params: Record<string, ParamValue>): Growth[] => [
  own(newStep('rock'), newStep('front', { reach: 1.1 }), newStep('reveal', params), plain()),
];
const spiked = (params: Record<string, ParamValue>): Growth[] => [
  own(newStep('rock'), newStep('scatter', { count: 160, ...params }), newStep('on-points', { growth: 'thorn' })),
  { ...newGrowth('Rock', 3, [newStep('rock'), plain()]), id: 'rock', seed: 3 },
  thorn(),
];
const thorn = (): Growth =>
  item('thorn', newStep('solid', { which: 'cone', radius: 0.03, height: 0.22, sides: 16 }), plain());
const ridden = (params: Record<string, ParamValue>): Growth[] => [
  own(stalk(), newStep('along', { growth: 'thorn', by: 'count', count: 9, stands: 'origin', ...params })),
  { ...newGrowth('Stalk', 3, [stalk(), ...skin(0.025)]), id: 'stalk' },
  thorn(),
];
const placed = (params: Record<string, ParamValue>): Growth[] => [
  own(
    newStep('phyllotaxis', { which: 'dome', radius: 0.6, height: 0.4, count: 110 }),
    newStep('on-points', { growth: 'thorn', ...params }),
  ),
  thorn(),
];
const twined = (params: Record<string, ParamValue>): Growth[] => [
  own(newStep('twine', { growth: 'host', ...params }), ...skin(0.02)),
  { ...newGrowth('Host', 3, [stalk(), ...skin(0.09)]), id: 'host' },
];
const webbed = (params: Record<string, ParamValue>): Growth[] => [
  own(newStep('web', { count: 24, ...params }), newStep('on-points', { growth: 'dot' })),
  { ...newGrowth('Links', 3, [newStep('web', { count: 24, ...params }), ...skin(0.012)]), id: 'links', seed: 3 },
  dot(),
];

/**
 * What shows best what a control does that is hard to put into words: growths in which it is turned up, or in which it makes what moves
 * move so. By step and parameter.
 */
const SCENES: Readonly<Record<string, () => Growth[]>> = {
  'arc.sweep': () => lined('arc', { sweep: going(30, 360) }),
  'helix.turns': () => lined('helix', { turns: going(0.4, 5) }),
  'helix.above': () => lined('helix', { below: 0.3, above: going(0.02, 0.9), turns: 3, points: 300 }),
  'catenary.sag': () => lined('catenary', { by: 'sag', sag: going(0.05, 1.4) }),
  'fractal.round': () => lined('fractal', { order: 2, round: going(0, 1) }),
  'rules.angle': () => begins('rules', { angle: going(6, 55) }, ...tree().slice(1)),
  'rules.shorter': () => begins('rules', { shorter: going(1, 0.82) }, ...tree().slice(1)),
  'twine.pitch': () => twined({ pitch: going(1.2, 0.18) }),
  'twine.clearance': () => twined({ clearance: going(0, 0.2) }),
  'burst.spread': () => burst({ spread: going(10, 110) }),
  'burst.droop': () => burst({ droop: going(-0.3, 0.5) }),
  'burst.curve': () => burst({ curve: going(0, 0.8) }),
  'wander.turning': () => wander({ turning: going(0, 1.2) }),
  'wander.rise': () => wander({ rise: going(0, 0.8) }),
  'web.bow': () => webbed({ shape: 'sag', bow: going(0, 0.3) }),
  'web.drift': () => webbed({ drift: 0.3, rate: 0.3 }),
  'terrain.ridges': () => bodied('terrain', { ridges: going(0, 1), relief: 1.2, pieces: 90 }),
  'terrain.rim': () => bodied('terrain', { rim: going(0, 1), relief: 1.2, pieces: 90 }),
  'rock.edges': () => bodied('rock', { edges: going(0, 1), sides: 14 }),
  'rock.lumps': () => bodied('rock', { lumps: going(0, 0.5) }),
  'rock.base': () => bodied('rock', { base: going(0, 0.45) }),
  'blade.fold': () => leaf({ fold: going(0, 80) }),
  'blade.cup': () => leaf({ cup: going(-0.6, 0.9) }),
  'blade.droop': () => leaf({ droop: going(0, 150) }),
  'phyllotaxis.angle': () => [
    own(
      newStep('phyllotaxis', { which: 'dome', count: 140, radius: 0.6, height: 0.3, angle: going(120, 137.508) }),
      newStep('on-points', { growth: 'dot' }),
    ),
    dot(),
  ],
  'noise.size': () => pathed(newStep('noise', { amount: 0.2, evolve: 0, size: going(0.1, 1.4) })),
  'noise.hold': () => pathed(newStep('noise', { amount: 0.5, size: 0.5, evolve: 0, hold: going(0, 1) }), stalk()),
  'noise.evolve': () => pathed(newStep('noise', { amount: 0.35, size: 0.6, evolve: 0.35 }), stalk()),
  'wave.length': () => pathed(newStep('wave', { amount: 0.12, length: going(1.6, 0.2) }), stalk()),
  'wave.speed': () => pathed(newStep('wave', { amount: 0.14, length: 0.7, speed: 0.25 }), stalk()),
  'bend.over': () => pathed(newStep('bend', { angle: 80, over: going(1.6, 0.1) }), stalk()),
  'fold.soft': () => [own(blade(), newStep('fold', { angle: 100, soft: going(0, 1) }), plain())],
  'stretch.across': () => [
    own(
      newStep('solid', { radius: 0.42, sides: 64, atY: 0.42 }),
      newStep('stretch', { by: 1.3, keeps: false, across: going(0.4, 1.4) }),
      plain(),
    ),
  ],
  'carry.exponent': () => [own(newStep('rules'), newStep('carry', { exponent: going(1.2, 3.6) }), ...tree().slice(2))],
  'feel.reach': () => [own(stalk(), newStep('feel', { length: 0.9, reach: going(0, 0.5), speed: 0.3 }), ...skin())],
  'settle.height': () => [
    own(
      newStep('line', { fromX: -0.9, fromY: 1.4, toX: 0.9, toY: 1.4, points: 160 }),
      newStep('settle', { growth: 'rock', height: going(0.03, 0.6) }),
      ...skin(),
    ),
    { ...newGrowth('Rock', 3, [newStep('rock'), plain()]), id: 'rock' },
  ],
  'displace.size': () => [
    own(
      newStep('solid', { radius: 0.6, sides: 96, atY: 0.7 }),
      newStep('displace', { noise: 0.15, size: going(0.9, 0.08) }),
      plain(),
    ),
  ],
  'strands.apart': () => [
    own(
      stalk(),
      newStep('strands', { as: 'ring', count: 12, apart: going(0.02, 0.3) }),
      newStep('wire', { radius: 0.02 }),
      plain(),
    ),
  ],
  'strands.lean': () => bed({ lean: going(0, 60) }),
  'grow.soft': () => [
    own(course(), newStep('grow', { to: 0.8, soft: going(0, 1.8) }), newStep('tube', { radius: 0.07 }), plain()),
  ],
  'grow.stagger': () => bed({}, newStep('grow', { to: going(0, 1), stagger: 0.8 })),
  'grow.levels': () => bed({}, newStep('grow', { to: 1, levels: going(0, 1) })),
  'grow.from': () => [own(course(), newStep('grow', { from: going(0, 0.9), to: 1 }), ...skin())],
  'tube.swell': () => [own(course(), grows(), newStep('tube', { radius: 0.09, swell: 1.6 }), plain())],
  'sweep.twist': () => [own(stalk(), newStep('sweep', { radius: 0.16, profile: 'star', twist: going(0, 2) }), plain())],
  'ribbon.twist': () => [own(stalk(), newStep('ribbon', { radius: 0.16, twist: going(0, 2) }), plain())],
  'ribbon.roll': () => [own(course(), newStep('ribbon', { radius: 0.1, roll: going(0, 180) }), plain())],
  'front.soft': () => fronted({ soft: going(0, 1.2) }),
  'front.rough': () => fronted({ rough: going(0, 0.5) }),
  'reveal.dissolve': () => revealed({ dissolve: going(0, 0.7), grain: 0.1, glow: 0.8 }),
  'reveal.width': () => revealed({ glow: 1.2, width: going(0.01, 0.5) }),
  'finish.glowLength': () => [
    own(
      course(),
      newStep('grow', { to: 0.9 }),
      newStep('tube', { radius: 0.06 }),
      newStep('finish', { glow: 1.2, glowLength: going(0.05, 1.6) }),
    ),
  ],
  'along.whorl': () => ridden({ whorl: going(1, 7), lean: 60 }),
  'along.lean': () => ridden({ whorl: 5, lean: going(0, 70) }),
  'along.vary': () => ridden({ whorl: 4, lean: 60, vary: going(0, 1) }),
  'scatter.upright': () => spiked({ upright: going(0, 1) }),
  'scatter.steepest': () => spiked({ steepest: going(180, 30) }),
  'scatter.sink': () => spiked({ sink: going(0, 0.2) }),
  'on-points.lean': () => placed({ lean: going(0, 80) }),
  'on-points.vary': () => placed({ vary: going(0, 1) }),
  'tips.ahead': () => [
    own(...tree().slice(0, 3), newStep('tips', { growth: 'dot', ahead: going(0, 0.3) }), plain()),
    dot(),
  ],
  'falloff.soft': () =>
    row(
      spike(),
      newStep('falloff', { shape: 'ball', atX: 0.35, atY: 0.2, atZ: 0.3, radius: 0.45, soft: going(0, 0.7) }),
    ),
};

/** Controls that have a picture of their own. */
export const CONTROLS: readonly string[] = Object.keys(SCENES);

/** The name of a control's picture. */
export const controlPicture = (control: string): string => `control-${control.replace('.', '-')}`;

/** A scene that shows what a control does. @param control step and parameter, with a point between */
export const controlScene = (control: string): Scene => ({ ...blank(), growths: SCENES[control]() });

/** Controls that a step's own picture shows, being what moves in it. */
export const SHOWN_BY_STEPS: Readonly<Record<string, string>> = Object.fromEntries(
  PICTURED.flatMap((kind): [string, string][] => {
    const { params } = STEPS.find((step) => step.kind === kind)!;
    const step = stepScene(kind)
      .growths.flatMap(({ steps }) => steps)
      .find((one) => one.kind === kind)!;
    const moving = Object.keys(params).filter((name) => isTrack(step.params[name]));
    return moving.length === 1 && !CONTROLS.includes(`${kind}.${moving[0]}`)
      ? [[`${kind}.${moving[0]}`, `step-${kind}`]]
      : [];
  }),
);
