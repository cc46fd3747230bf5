import { falloffWeight, type FalloffShape } from '../../fields/falloff';
import { noise3 } from '../../fields/noise';
import { linearRgb } from '../../geometry/gradient';
import type { DriveName } from '../../geometry/drives';
import type { Seats } from '../../geometry/seats';
import { about, after, turnAt, turnedBy } from '../../geometry/turns';
import { at, type Vec3 } from '../../geometry/vec';
import { Problem } from '../../problem';
import type { StepContext } from '../declare';
import { progressOf } from '../shape/motion';
import type { FalloffParams } from './falloff';

/** What can have weight: so many places, and what is known of them. */
export interface Weighed {
  count: number;
  /** 3 · count, metres. */
  positions: Float32Array;
  /** Seconds since a front passed; null where no growth tells. */
  age: ArrayLike<number> | null;
  /** How far along their path they are, 0..1; null where they are on none. */
  share: ArrayLike<number> | null;
  /** An attribute by its name, one number a place; null where there is none. */
  values: (name: string) => ArrayLike<number> | null;
}

/** Weight 0..1 of each place, before easing. */
export async function weightOf(
  p: FalloffParams,
  { positions, age, share, values }: Weighed,
  context: StepContext,
): Promise<(k: number) => number> {
  const clamp = (w: number): number => Math.min(1, Math.max(0, w));
  switch (p.shape) {
    case 'front':
      // What no front tells of has long been there.
      if (!age) return () => 1;
      return (k) => (p.over > 0 ? clamp((age[k] - p.delay) / p.over) : age[k] >= p.delay ? 1 : 0);
    case 'along':
      if (!share)
        throw new Problem(
          'What is there is on no path.',
          'Choose something else under Driven by, or put Falloff on what is made of paths.',
        );
      return (k) => (p.softShare > 0 ? clamp(0.5 + (p.reach - share[k]) / p.softShare) : share[k] <= p.reach ? 1 : 0);
    case 'noise': {
      const { passed, period } = progressOf(p.evolve, true, context);
      const shape = { detail: 2, roughness: 0.5, seed: context.seed, period };
      const out = new Float64Array(1);
      return (k) => {
        const [x, y, z] = at(positions, k);
        noise3(x / p.grain, y / p.grain, z / p.grain, passed, shape, out);
        return clamp(0.5 + out[0]);
      };
    }
    case 'attribute': {
      const own = values(p.attribute);
      if (!own)
        throw new Problem(
          `There is no attribute “${p.attribute}” here.`,
          'Choose another, or add Measure or a front before it, or before the copies are placed.',
        );
      const run = p.allAt - p.nothingAt;
      return (k) => (run === 0 ? (own[k] >= p.allAt ? 1 : 0) : clamp((own[k] - p.nothingAt) / run));
    }
    case 'guide': {
      if (p.guide === null) throw new Problem('No guide is chosen.', 'Choose a guide or the tips of a growth.');
      const guide = context.guide('guide');
      const shapes: FalloffShape[] =
        guide && guide.kind !== 'point'
          ? [
              {
                which: guide.kind,
                centre: guide.position,
                rotation: guide.rotation,
                size: guide.size,
                soft: p.soft,
                shift: p.shift,
              },
            ]
          : (await context.places('guide')).map((centre) => ball(centre, p));
      const weighs = shapes.map(falloffWeight);
      return (k) => {
        const place = at(positions, k);
        return weighs.reduce((most, weigh) => Math.max(most, weigh(place)), 0);
      };
    }
    default: {
      const centre: Vec3 = [p.atX, p.atY, p.atZ];
      const weigh = falloffWeight(
        p.shape === 'ball'
          ? ball(centre, p)
          : {
              which: p.shape as FalloffShape['which'],
              centre,
              rotation: [p.turnX, p.turnY, p.turnZ],
              size: [p.sizeX, p.sizeY, p.sizeZ],
              soft: p.soft,
              shift: p.shift,
            },
      );
      return (k) => weigh(at(positions, k));
    }
  }
}

const ball = (centre: Vec3, { radius, soft, shift }: FalloffParams): FalloffShape => ({
  which: 'ball',
  centre,
  rotation: [0, 0, 0],
  size: [2 * radius, 0, 0],
  soft,
  shift,
});

/** The seats with the weights put to use. */
export function driven(p: FalloffParams, seats: Seats, weight: Float32Array, fps: number): Seats {
  switch (p.drives) {
    case 'size':
      return { ...seats, sizes: seats.sizes.map((size, i) => size * (1 + (p.factor - 1) * weight[Math.floor(i / 3)])) };
    case 'turn': {
      const turns = new Float32Array(seats.turns);
      const rad = Math.PI / 180;
      weight.forEach((w, k) => {
        const spin = after(
          about([0, 1, 0], p.spinY * w * rad),
          after(about([1, 0, 0], p.spinX * w * rad), about([0, 0, 1], p.spinZ * w * rad)),
        );
        turns.set(after(turnAt(seats.turns, k), spin), 4 * k);
      });
      return { ...seats, turns };
    }
    case 'move': {
      const positions = new Float32Array(seats.positions);
      weight.forEach((w, k) => {
        const by: Vec3 = [p.moveX * w, p.moveY * w, p.moveZ * w];
        const moved = p.frame === 'own' ? turnedBy(turnAt(seats.turns, k), by) : by;
        for (let c = 0; c < 3; c++) positions[3 * k + c] += moved[c];
      });
      return { ...seats, positions };
    }
    case 'color': {
      const color = linearRgb(p.color);
      const tints = new Float32Array(3 * weight.length);
      for (let i = 0; i < tints.length; i++)
        tints[i] = (seats.tints?.[i] ?? 1) * (1 + (color[i % 3] - 1) * weight[Math.floor(i / 3)]);
      return { ...seats, tints };
    }
    case 'time': {
      return { ...seats, late: weight.map((w, k) => (seats.late?.[k] ?? 0) + p.late * w * fps) };
    }
    case 'drive': {
      const slot = p.slot as DriveName;
      const before = seats[slot];
      return { ...seats, [slot]: weight.map((w, k) => Math.min(1, Math.max(0, (before?.[k] ?? 0) + p.amount * w))) };
    }
    default:
      return seats;
  }
}
