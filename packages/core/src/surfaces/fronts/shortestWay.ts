import type { Mesh } from '../../geometry/mesh';
import { at, distance, partWay, type Vec3 } from '../../geometry/vec';
import { cornerWeights } from '../../geometry/topology/surfacePlaces';
import { between, CHUNK, type Ground, groundOf } from './walkGraph';
import { Wave } from '../../geometry/search/dijkstra';
import { distancesAlong } from './wavefront';

/** A place on a mesh. */
export interface WayEnd {
  face: number;
  position: Vec3;
}

type Flat = readonly [x: number, y: number];

/** Faces from one end to the other, and the corner of each at which the edge begins that leads into the next. */
interface Strip {
  faces: number[];
  exits: number[];
}

/** Where a pulled-tight way bends: about a place on one side of the strip. */
interface Bend {
  place: number;
  side: 'left' | 'right';
  /** First and last of the strip's edges that end there. */
  first: number;
  last: number;
  /** How far it bends, radians. */
  turn: number;
}

/** Rounds of mending at most. */
const TRIES = 500;
/** What turns less than this about a place is straight, radians. */
const STRAIGHT = 1e-9;

/**
 * The shortest way over a mesh from one place to another. A strip of faces goes down the distances that a wave from the
 * beginning has left (`distancesAlong`); it is unfolded into the plane and pulled tight there (the funnel of Lee and Preparata,
 * Euclidean shortest paths in the presence of rectilinear barriers, 1984). Where the way bends about a place and the other
 * side of it is less than half a turn, the strip is led round that side, until none is (Xin and Wang, Efficiently determining
 * a locally exact shortest path on polyhedral surfaces, 2007).
 * @returns 3k numbers, both ends among them, metres; null where no way leads there
 */
export async function shortestWay(
  mesh: Mesh,
  from: WayEnd,
  to: WayEnd,
  yieldNow: () => Promise<void> = () => Promise.resolve(),
): Promise<number[] | null> {
  const ground = await groundOf(mesh, yieldNow);
  const [first, last] = [ground.faceOf[from.face], ground.faceOf[to.face]];
  if (first < 0 || last < 0) return null;
  if (first === last) return [...from.position, ...to.position];
  const places = {
    faces: Uint32Array.of(from.face),
    weights: Float32Array.from(cornerWeights(mesh, from.face, from.position)),
  };
  const distances = await distancesAlong(mesh, { places }, {}, yieldNow);
  await yieldNow();
  const found =
    stripDown(ground, first, last, distances, to.position) ?? (await stripOver(ground, first, last, yieldNow));
  await yieldNow();
  if (!found) return null;
  let strip: Strip = found;
  for (let k = 0; ; k++) {
    const { points, bends } = pulled(ground, strip, from.position, to.position);
    const other: Strip | null = k < TRIES ? ledRound(ground, strip, bends) : null;
    if (!other) return points;
    strip = other;
    await yieldNow();
  }
}

/** How evenly a place on an edge is looked for. */
const HALVINGS = 40;
/** A place on an edge that is nearer to its end than this share of it is the end. */
const END = 1e-4;

/** The place on an edge that is quickest to go over on the way down: the share from its first end on, and what it takes. */
function quickest(
  from: Vec3,
  a: Vec3,
  b: Vec3,
  da: number,
  db: number,
  open: boolean,
): readonly [t: number, takes: number] {
  const takes = (t: number): number =>
    Math.hypot(
      a[0] + (b[0] - a[0]) * t - from[0],
      a[1] + (b[1] - a[1]) * t - from[1],
      a[2] + (b[2] - a[2]) * t - from[2],
    ) +
    da +
    (db - da) * t;
  let [low, high] = [0, 1];
  if (open) {
    // What it takes is convex: the sum of a distance to a point of a line and of something even.
    for (let k = 0; k < HALVINGS; k++) {
      const [p, q] = [low + (high - low) * 0.45, low + (high - low) * 0.55];
      if (takes(p) <= takes(q)) high = q;
      else low = p;
    }
  }
  const t = open ? (low + high) / 2 : takes(0) <= takes(1) ? 0 : 1;
  return t < END ? [0, takes(0)] : t > 1 - END ? [1, takes(1)] : [t, takes(t)];
}

/** Where the next edge is left over, seen from one place. */
interface Next {
  corner: number;
  t: number;
  takes: number;
  /** What is left from there. */
  left: number;
}

/** Down the distances that a wave from the first face has left: the strip from there to the last; null where they lead nowhere. */
function stripDown(ground: Ground, first: number, last: number, distances: Float64Array, end: Vec3): Strip | null {
  const { places, across, topology } = ground;
  const { corners, edges } = topology;
  const next = (c: number): number => c - (c % 3) + ((c + 1) % 3);
  const over = (from: Vec3, c: number): Next => {
    const [a, b] = [corners[c], corners[next(c)]];
    const [t, takes] = quickest(from, at(places, a), at(places, b), distances[a], distances[b], across[c] >= 0);
    return { corner: c, t, takes, left: distances[a] + (distances[b] - distances[a]) * t };
  };
  const best = (found: readonly Next[]): Next => found.reduce((one, other) => (other.takes < one.takes ? other : one));
  // Gone backwards, from the end, and turned round.
  const way: Strip = { faces: [last], exits: [] };
  let here = end;
  let entered = -1;
  let left = Infinity;
  for (;;) {
    const face = way.faces[way.faces.length - 1];
    if (face === first) break;
    const own = [3 * face, 3 * face + 1, 3 * face + 2].filter((c) => edges.of[c] !== entered);
    let step = best(own.map((c) => over(here, c)));
    // Always nearer: else it would go round in circles.
    if (!(step.left < left)) return null;
    left = step.left;
    // Over an end of an edge: on through whichever face about it is quickest.
    while (step.t === 0 || step.t === 1) {
      const place = step.t === 0 ? corners[step.corner] : corners[next(step.corner)];
      here = at(places, place);
      const around = way.faces[way.faces.length - 1];
      const about = facesAbout(ground, place, around);
      const opposite = (f: number): Next =>
        over(
          here,
          [3 * f, 3 * f + 1, 3 * f + 2].find((c) => corners[c] !== place && corners[next(c)] !== place)!,
        );
      const goal = about.includes(first) ? null : best(about.map(opposite));
      const to = goal ? Math.floor(goal.corner / 3) : first;
      const fans = [1, 0]
        .map((turn) => fan(ground, place, around, turn as 0 | 1, (f) => f === to))
        .filter((f) => f !== null);
      if (fans.length === 0 || (goal && !(goal.left < left))) return null;
      const [shorter] = fans.sort((a, b) => a.faces.length - b.faces.length);
      way.faces.push(...shorter.faces);
      way.exits.push(...shorter.exits);
      if (!goal) break;
      step = goal;
      left = goal.left;
    }
    if (way.faces[way.faces.length - 1] === first) break;
    const [a, b] = [at(places, corners[step.corner]), at(places, corners[next(step.corner)])];
    here = partWay(a, b, step.t);
    entered = edges.of[step.corner];
    way.exits.push(step.corner);
    way.faces.push(across[step.corner]);
  }
  if (way.faces[way.faces.length - 1] !== first) return null;
  const faces = way.faces.reverse();
  // The edge that led out of a face backwards leads into it forwards: it is the one that begins elsewhere.
  const exits = way.exits.reverse().map((exit, i) => twin(ground, exit, faces[i]));
  return withoutLoops({ faces, exits });
}

/** The faces about a place that can be come to from one of them without leaving it. */
function facesAbout(ground: Ground, place: number, from: number): number[] {
  const found = [from];
  for (const way of [0, 1] as const) {
    let face = from;
    for (;;) {
      const own = [0, 1, 2].find((k) => ground.topology.corners[3 * face + k] === place)!;
      face = ground.across[3 * face + (way === 1 ? own : (own + 2) % 3)];
      if (face < 0 || found.includes(face)) break;
      found.push(face);
    }
  }
  return found;
}

/** Over the middles of faces, where distances lead nowhere: a longer way, but one (Dijkstra). */
async function stripOver(
  { across, places, topology }: Ground,
  first: number,
  last: number,
  yieldNow: () => Promise<void>,
): Promise<Strip | null> {
  const { corners } = topology;
  const middles = new Float64Array(across.length);
  for (let c = 0; c < corners.length; c++)
    for (let axis = 0; axis < 3; axis++) middles[c - (c % 3) + axis] += places[3 * corners[c] + axis] / 3;
  const wave = new Wave(across.length / 3);
  wave.lower(first, 0, -1);
  let visited = 0;
  for (let face = wave.next(); face >= 0 && face !== last; face = wave.next()) {
    if (visited++ % CHUNK === 0) await yieldNow();
    for (let c = 3 * face; c < 3 * face + 3; c++)
      if (across[c] >= 0) wave.lower(across[c], wave.distances[face] + between(middles, 3 * face, 3 * across[c]), c);
  }
  if (wave.distances[last] === Infinity) return null;
  const strip: Strip = { faces: [last], exits: [] };
  for (let face = last; face !== first;) {
    const corner = wave.origins[face];
    face = Math.floor(corner / 3);
    strip.faces.push(face);
    strip.exits.push(corner);
  }
  strip.faces.reverse();
  strip.exits.reverse();
  return strip;
}

/** The corner of a face at which the edge begins that is another's, seen from across. */
function twin({ topology: { edges } }: Ground, corner: number, face: number): number {
  const e = edges.of[corner];
  return [3 * face, 3 * face + 1, 3 * face + 2].find((c) => edges.of[c] === e)!;
}

/** Faces round a place from one of them on, anticlockwise (0) or clockwise (1), up to one that will do; null where none comes. */
function fan(
  { across, topology: { corners } }: Ground,
  place: number,
  from: number,
  way: 0 | 1,
  until: (face: number) => boolean,
): Strip | null {
  const found: Strip = { faces: [], exits: [] };
  let face = from;
  while (!until(face)) {
    const own = [0, 1, 2].find((k) => corners[3 * face + k] === place)!;
    const exit = 3 * face + (way === 1 ? own : (own + 2) % 3);
    face = across[exit];
    if (face < 0 || face === from) return null;
    found.exits.push(exit);
    found.faces.push(face);
  }
  return found;
}

/** The way in a strip, pulled tight, and where it bends. */
function pulled(ground: Ground, { faces, exits }: Strip, from: Vec3, to: Vec3): { points: number[]; bends: Bend[] } {
  const { places, topology } = ground;
  const { corners } = topology;
  if (exits.length === 0) return { points: [...from, ...to], bends: [] };
  // Seen by who walks: an edge of a face runs from its right to its left end as one leaves over it.
  const rights = exits.map((c) => corners[c]);
  const lefts = exits.map((c) => corners[c - (c % 3) + ((c + 1) % 3)]);
  const flat = unfolded(ground, faces, exits, lefts, rights, from, to);
  const corner = funnel(flat.start, flat.left, flat.right, flat.goal, lefts, rights);
  const points: number[] = [...from];
  const push = (p: Vec3): void => {
    const n = points.length - 3;
    if (Math.hypot(points[n] - p[0], points[n + 1] - p[1], points[n + 2] - p[2]) > 1e-12) points.push(...p);
  };
  for (let k = 0; k + 1 < corner.length; k++) {
    const [a, b] = [corner[k], corner[k + 1]];
    for (let i = a.portal + 1; i <= Math.min(b.portal, exits.length - 1); i++) {
      const [l, r] = [flat.left[i], flat.right[i]];
      const [sl, sr] = [side(a.point, b.point, l), side(a.point, b.point, r)];
      const t = Math.min(1, Math.max(0, sl - sr !== 0 ? sl / (sl - sr) : 0.5));
      const [p, q] = [at(places, lefts[i]), at(places, rights[i])];
      push([p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t, p[2] + (q[2] - p[2]) * t]);
    }
  }
  push(to);
  const bends = corner.slice(1, -1).flatMap(({ point, portal, side: which }, k): Bend[] => {
    const [before, after] = [corner[k].point, corner[k + 2].point];
    const [u, v] = [sub(point, before), sub(after, point)];
    const turn = Math.abs(Math.atan2(u[0] * v[1] - u[1] * v[0], u[0] * v[0] + u[1] * v[1]));
    if (!which || turn < STRAIGHT) return [];
    const ends = which === 'left' ? lefts : rights;
    const place = ends[portal];
    let [first, last] = [portal, portal];
    while (first > 0 && ends[first - 1] === place) first--;
    while (last + 1 < ends.length && ends[last + 1] === place) last++;
    return [{ place, side: which, first, last, turn }];
  });
  return { points, bends };
}

const sub = (a: Flat, b: Flat): Flat => [a[0] - b[0], a[1] - b[1]];
/** Above 0 where c lies to the left of the way from a to b. */
const side = (a: Flat, b: Flat, c: Flat): number => (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);

/** The edges of a strip laid into the plane, with both ends. */
function unfolded(
  { places, topology: { corners } }: Ground,
  faces: readonly number[],
  exits: readonly number[],
  lefts: readonly number[],
  rights: readonly number[],
  from: Vec3,
  to: Vec3,
): { left: Flat[]; right: Flat[]; start: Flat; goal: Flat } {
  const place = (i: number): Vec3 => at(places, i);
  /** A point beside the way from p to q, by its distances from both. */
  const beside = (p: Flat, q: Flat, toP: number, toQ: number, way: 1 | -1): Flat => {
    const [x, y] = sub(q, p);
    const length = Math.hypot(x, y);
    if (length === 0) return [p[0] + toP, p[1]];
    const along = (toP * toP - toQ * toQ + length * length) / (2 * length);
    const off = way * Math.sqrt(Math.max(0, toP * toP - along * along));
    return [p[0] + (along * x - off * y) / length, p[1] + (along * y + off * x) / length];
  };
  const right: Flat[] = [[0, 0]];
  const left: Flat[] = [[0, distance(place(lefts[0]), place(rights[0]))]];
  // The first face lies to the left of its edge, from the right to the left end: behind who walks.
  const start = beside(right[0], left[0], distance(from, place(rights[0])), distance(from, place(lefts[0])), 1);
  const third = (face: number, a: number, b: number): number =>
    [0, 1, 2].map((k) => corners[3 * face + k]).find((corner) => corner !== a && corner !== b)!;
  for (let i = 1; i < exits.length; i++) {
    const [l, r] = [lefts[i - 1], rights[i - 1]];
    const ahead = third(faces[i], l, r);
    const [toR, toL] = [distance(place(ahead), place(r)), distance(place(ahead), place(l))];
    const point = beside(right[i - 1], left[i - 1], toR, toL, -1);
    left.push(lefts[i] === l ? left[i - 1] : point);
    right.push(rights[i] === r ? right[i - 1] : point);
  }
  const n = exits.length - 1;
  const goal = beside(right[n], left[n], distance(to, place(rights[n])), distance(to, place(lefts[n])), -1);
  return { left, right, start, goal };
}

/** Where a way turns: at the end of an edge, or at its own ends. */
interface Corner {
  point: Flat;
  /** The edge; −1 at the start, one past the last at the goal. */
  portal: number;
  side: 'left' | 'right' | null;
}

/** The shortest way between the ends of a row of edges. */
function funnel(
  start: Flat,
  left: readonly Flat[],
  right: readonly Flat[],
  goal: Flat,
  lefts: readonly number[],
  rights: readonly number[],
): Corner[] {
  const n = left.length;
  const found: Corner[] = [{ point: start, portal: -1, side: null }];
  const [leftAt, rightAt] = [left, right].map(
    (of) =>
      (i: number): Flat =>
        i < n ? of[i] : goal,
  );
  let apex = start;
  let [l, r] = [0, 0];
  // The apex is an end of the edge: nothing is to be seen past it on that side.
  const atApex = (point: Flat): boolean => point[0] === apex[0] && point[1] === apex[1];
  const turnAt = (portal: number, which: 'left' | 'right'): number => {
    const ids = which === 'left' ? lefts : rights;
    let end = portal;
    while (end + 1 < n && ids[end + 1] === ids[portal]) end++;
    apex = which === 'left' ? left[portal] : right[portal];
    found.push({ point: apex, portal: end, side: which });
    l = r = Math.min(n, end + 1);
    return l;
  };
  for (let i = 1; i <= n; i++) {
    const [p, q] = [rightAt(i), leftAt(i)];
    if (atApex(rightAt(r)) || side(apex, rightAt(r), p) >= 0) {
      if (atApex(leftAt(l)) || side(apex, leftAt(l), p) <= 0) r = i;
      else {
        i = turnAt(l, 'left');
        continue;
      }
    }
    if (atApex(leftAt(l)) || side(apex, leftAt(l), q) <= 0) {
      if (atApex(rightAt(r)) || side(apex, rightAt(r), q) >= 0) l = i;
      else {
        i = turnAt(r, 'right');
        continue;
      }
    }
  }
  found.push({ point: goal, portal: n, side: null });
  return found;
}

/** The strip led round the other side of its bends; null where that is nowhere shorter. */
function ledRound(ground: Ground, { faces, exits }: Strip, bends: readonly Bend[]): Strip | null {
  const made: Strip = { faces: [...faces], exits: [...exits] };
  let led = Infinity;
  // From the last on, so that the numbers of those before stay.
  for (const { place, side: which, first, last, turn } of [...bends].reverse()) {
    // What the strip has about the place is half a turn and what it bends more; the rest is on the other side.
    if (ground.around[place] - Math.PI - turn > Math.PI - STRAIGHT) continue;
    // One that shares edges with the one after it waits for the next round.
    if (last >= led) continue;
    // With the place on the left one has come anticlockwise about it: the other way is clockwise.
    const other = fan(ground, place, faces[first], which === 'left' ? 1 : 0, (face) => face === faces[last + 1]);
    if (!other) continue;
    made.faces.splice(first + 1, last + 1 - first, ...other.faces);
    made.exits.splice(first, last + 1 - first, ...other.exits);
    led = first;
  }
  return led < Infinity ? withoutLoops(made) : null;
}

/** A strip that comes to no face twice. */
function withoutLoops({ faces, exits }: Strip): Strip {
  const when = new Map<number, number>();
  const made: Strip = { faces: [], exits: [] };
  faces.forEach((face, i) => {
    const before = when.get(face);
    if (before !== undefined) {
      for (const gone of made.faces.slice(before + 1)) when.delete(gone);
      made.faces.length = before + 1;
      made.exits.length = before;
    } else {
      when.set(face, made.faces.length);
      made.faces.push(face);
    }
    if (i < exits.length) made.exits.push(exits[i]);
  });
  made.exits.length = made.faces.length - 1;
  return made;
}
