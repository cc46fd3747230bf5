import { mapped } from '../geometry/filled';
import { arcLengths, totalLength } from './arclength';
import { random } from '../fields/random';
import { oneNumber } from '../geometry/attributes';
import { NO_PARENT, type Paths, pathsFrom } from '../geometry/paths';
import { add, cross, dot, perpendicular, scale, sub, unit, type Vec3 } from '../geometry/vec';

const { abs, acos, cos, max, PI, round, sin, sqrt } = Math;

/** So many points between two yields. */
const CHUNK = 4096;

/** How members burst. */
export interface Bursting {
  /** How many burst at once, and by which share that differs. */
  count: number;
  varyCount: number;
  /** How far they spread about the way they burst, radians: π all round. */
  spread: number;
  /** The same for what bursts from a member's end, and how many that are. */
  childSpread: number;
  children: number;
  generations: number;
  /** Length of the first, metres, by which share lengths differ, and how long the next are against those before. */
  length: number;
  varyLength: number;
  shorter: number;
  /** How far a member hangs down at its end, of its length; below 0 it rises. */
  droop: number;
  /** How far it bows to a side, of its length. */
  curve: number;
  /** Members thin out to nothing at their ends, or stay as thick. */
  fades: boolean;
  /** How thick the next are against those before. */
  thinner: number;
  /** Points of a member. */
  points: number;
  seed: number;
  /** The most members that there may be. */
  most: number;
}

/** Where something bursts, and which way. */
export interface Burst {
  place: Vec3;
  way: Vec3;
}

interface Member {
  positions: number[];
  size: number[];
  parent: number;
  generation: number;
  /** Lengths of way from the root to its base and to its tip, metres. */
  from: number;
  to: number;
}

/**
 * Members that burst from places and burst again at their ends, as paths that grow from one another; ways are spread evenly over the
 * cap of a sphere in a golden spiral (González, Measurement of areas on a sphere using Fibonacci and latitude–longitude lattices,
 * 2010), each shifted by chance. `arrival` runs at an even pace along every way; `generation` counts bursts from 0.
 * @returns null where there would be more members than there may be
 */
export async function burst(
  places: readonly Burst[],
  how: Bursting,
  yieldNow: () => Promise<void> = () => Promise.resolve(),
): Promise<Paths | null> {
  // What is sure to be too much is not begun.
  let [expected, again] = [0, places.length * how.count];
  for (let generation = 0; generation < how.generations; generation++, again *= how.children) expected += again;
  if (expected > 1.5 * how.most) return null;
  const members: Member[] = [];
  let drawn = 0;
  const spring = async (at: Burst, parent: number, generation: number, from: number, key: number): Promise<boolean> => {
    const asked = generation === 0 ? how.count : how.children;
    const by = 1 + how.varyCount * (2 * random(how.seed, key, 1) - 1);
    const count = max(generation === 0 ? 1 : 0, round(asked * by));
    const turn = 2 * PI * random(how.seed, key, 2);
    for (let k = 0; k < count; k++) {
      if (members.length >= how.most) return false;
      if ((drawn += how.points) > CHUNK) {
        drawn = 0;
        await yieldNow();
      }
      const spread = generation === 0 ? how.spread : how.childSpread;
      const way = within(at.way, spread, k, count, turn, how.seed, key);
      const own = key * 31 + k + 1;
      const length = how.length * how.shorter ** generation * (1 + how.varyLength * (2 * random(how.seed, own, 3) - 1));
      const member = memberOf(at.place, way, length, generation, own, how);
      const { positions } = member;
      const to = from + totalLength(arcLengths(Float64Array.from(positions), 0, positions.length / 3, false));
      members.push({ ...member, parent, generation, from, to });
      if (generation + 1 >= how.generations) continue;
      const last = member.positions.slice(-6);
      const place: Vec3 = [last[3], last[4], last[5]];
      const ahead = unit(sub(place, [last[0], last[1], last[2]]), way);
      if (!(await spring({ place, way: ahead }, members.length - 1, generation + 1, to, own))) return false;
    }
    return true;
  };
  for (const [k, place] of places.entries()) if (!(await spring(place, -1, 0, 0, 7919 * (k + 1)))) return null;
  await yieldNow();
  return pathsOf(members);
}

/** The way of one of so many, spread over a cap about an axis. */
function within(axis: Vec3, spread: number, k: number, count: number, turn: number, seed: number, key: number): Vec3 {
  // Of equal areas: heights are evenly spaced, and turn on by the golden angle.
  const shift = 0.6 * (random(seed, key * 17 + k, 4) - 0.5);
  const share = count > 1 ? (k + 0.5 + shift) / count : 0.5 * random(seed, key, 5);
  const tilt = acos(max(-1, 1 - share * (1 - cos(spread))));
  const angle = turn + k * PI * (3 - sqrt(5)) + shift;
  const side = perpendicular(axis);
  const across = add(scale(side, cos(angle)), scale(cross(axis, side), sin(angle)));
  return unit(add(scale(axis, cos(tilt)), scale(across, sin(tilt))), axis);
}

function memberOf(
  place: Vec3,
  way: Vec3,
  length: number,
  generation: number,
  key: number,
  { droop, curve, fades, thinner, points, seed }: Bursting,
): Pick<Member, 'positions' | 'size'> {
  // What points straight down has no side of its own to hang to, and needs none.
  const side = perpendicular(abs(dot(way, [0, 1, 0])) < 0.999 ? unit(cross(way, [0, 1, 0])) : way);
  const turn = 2 * PI * random(seed, key, 6);
  const bow = add(scale(side, cos(turn)), scale(cross(way, side), sin(turn)));
  const positions: number[] = [];
  const size: number[] = [];
  for (let i = 0; i < points; i++) {
    const t = i / (points - 1);
    const off = add(scale([0, -1, 0], droop * t * t), scale(bow, curve * t * t));
    positions.push(...add(place, scale(add(scale(way, t), off), length)));
    size.push(thinner ** generation * (fades ? 1 - t : 1));
  }
  return { positions, size };
}

function pathsOf(members: readonly Member[]): Paths {
  const paths = pathsFrom(members.map(({ positions, size }, id) => ({ id, positions, size })));
  const furthest = members.reduce((most, { to }) => max(most, to), 1e-9);
  const arrival = new Float32Array(paths.s.length);
  const values = new Float32Array(paths.s.length);
  members.forEach(({ from, generation }, p) => {
    for (let i = paths.offsets[p]; i < paths.offsets[p + 1]; i++) {
      arrival[i] = (from + paths.s[i]) / furthest;
      values[i] = generation;
    }
  });
  return {
    ...paths,
    parent: mapped(Uint32Array, members, ({ parent }) => (parent < 0 ? NO_PARENT : parent)),
    attach: mapped(Float32Array, members, ({ parent }) => (parent < 0 ? 0 : 1)),
    arrival,
    named: { generation: oneNumber('point', values) },
  };
}
