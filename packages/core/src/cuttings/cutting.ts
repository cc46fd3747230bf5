import type { FormKind } from '../geometry/form';
import { newGrowth, newStep, unusedName } from '../scene/make';
import type { Growth, ParamValue, Scene, Step } from '../scene/schema';
import type { EaseName } from '../time/easing';
import type { Track } from '../time/track';

/** What a cutting is planted into. */
export interface Bed {
  scene: Scene;
  /** The growth that it is planted on; null in the open. */
  host: Growth | null;
  /** How large that one is: length of its longest path, or else of its diagonal, metres. */
  size: number;
}

/** What comes of planting one. */
export interface Planting {
  /** Its copies stand in the place of the host's own skin on its paths, which is switched off. */
  replacesSkin?: boolean;
  /** Steps that the host gets. */
  steps: Step[];
  /** Growths that the scene gets, the one to be looked at first. */
  growths: Growth[];
  /** Growths of the scene that are not the same afterwards, as they are then. */
  changed?: Growth[];
}

/** A ready piece that is planted in one go, as ordinary growths and steps. */
export interface Cutting {
  id: string;
  /** What it is called. */
  name: string;
  /** What it does, in a sentence. */
  help: string;
  /** Other words that it is looked for by. */
  words: string;
  /** The moment of eight that its small picture shows at rest, counted from 0, where the last shows nothing of it. */
  moment?: number;
  /** What its host must have; null for one that is planted in the open. */
  on: FormKind | null;
  plant: (bed: Bed) => Planting;
}

type Params = Record<string, ParamValue>;

/** Rounded as a person would type it. */
export const round = (value: number): number => Number(value.toPrecision(2));

/** Stops of these colours, evenly spaced. */
export const gradient = (...colors: readonly string[]): ParamValue =>
  colors.map((color, i) => ({ at: i / (colors.length - 1), color }));

/** Keys at shares of the scene's range. */
export function over(
  { scene }: Bed,
  ease: EaseName,
  ...keys: readonly (readonly [share: number, value: number])[]
): Track {
  const [first, last] = scene.range;
  return {
    keys: keys.map(([share, value]) => ({ frame: Math.round(first + share * (last - first)), value, ease })),
    before: 'hold',
    after: 'hold',
  };
}

/** A growth that others copy, hidden itself. */
export const item = (bed: Bed, name: string, ...steps: Step[]): Growth => ({
  ...growth(bed, name, ...steps),
  visible: false,
});

/** A growth with a name of its own in the scene. */
export const growth = ({ scene }: Bed, name: string, ...steps: Step[]): Growth =>
  newGrowth(unusedName(name, new Set(scene.growths.map((other) => other.name))), scene.growths.length, steps);

/** A Finish in these colours. */
export const finish = (roughness: number, colors: readonly string[], more: Params = {}): Step =>
  newStep('finish', { glow: 0, roughness, gradient: gradient(...colors), ...more });

/** What is planted where it is one growth and nothing else. */
export const oneGrowth = (bed: Bed, name: string, ...steps: Step[]): Planting => ({
  steps: [],
  growths: [growth(bed, name, ...steps)],
});

/** Grows over most of the range. */
export const grows = (bed: Bed, more: Params = {}): Step =>
  newStep('grow', { to: over(bed, 'linear', [0, 0], [0.8, 1]), ...more });

/** Copies fall into their places from a height, tumbling, one after another behind the front. */
export function fallingIn(height: number): Step[] {
  const falls = { shape: 'front', over: 1.1, invert: true };
  return [
    newStep('falloff', { ...falls, ease: 'bounce-out', drives: 'move', moveY: round(height) }),
    newStep('falloff', { ...falls, ease: 'cubic-out', drives: 'turn', spinX: 75, spinY: 40, spinZ: 25 }),
  ];
}

/** Pieces along a leaf that is copied many times: some hundred faces. */
export const LEAF_ROWS = 8;

/** Colours of what ships, from the Lantern Reef. */
export const GREENS = ['#2f5d3a', '#8fb84a', '#e3f29a'] as const;
/** Petals. */
export const ROSES = ['#7d1f4f', '#e0567f', '#ffd0c2'] as const;
/** Metal. */
export const STEELS = ['#8d9a9c', '#cfd8d6', '#ffffff'] as const;
/** Lanterns. */
export const AMBERS = ['#c4622d', '#f2b45c', '#fff0c9'] as const;
/** Shell and bone. */
export const BONES = ['#5c5348', '#b9a98a', '#f3e8cf'] as const;

/** Leaves spring from a stem in the spiral of most plants (Vogel, A better way to construct the sunflower head, 1979). */
export const SPIRAL = '+137.508';
