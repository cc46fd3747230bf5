import { filled } from '../../geometry/filled';
import { withFrames } from '../../curves/pathFrames';
import type { Mesh } from '../../geometry/mesh';
import type { Paths } from '../../geometry/paths';
import { add, cross, dot, norm, scale, sub, unit, type Vec3 } from '../../geometry/vec';
import { type Limb, limbsOf, type Place, placeOn, rollRing } from './limbs';
import { type Cap, POINT_HEIGHT, type TubeShape } from '../sweep/rings';
import { type Ring, roundAt, type Round, type Size, SkinMaking, vertexOf } from './skinArrays';
import type { SweepHooks } from '../sweep/sweepTubes';
import { layWhorls, reachAround, type Sprout, warpedAngles, type Whorl, whorlsOf } from './whorls';

const { cos, sin, floor, max, min, round, PI } = Math;

/** Rings between the edge of a hole and the first ring of what comes out of it. */
const COLLAR_RINGS = 4;
/** Length of a control arm that bends a curve by a quarter turn like a circle, as a share of the chord. */
const ARM = 0.39;
/** Where a hole's first corner lies as seen along what comes out of it: down and to the left. */
const CORNER = (-3 * PI) / 4;

/** A limb with its rows laid. */
interface Skin {
  limb: Limb;
  whorls: Whorl[];
  /** Points that have a row of their own, in the order of the limb. */
  kept: number[];
  /** Arc length at which its rows begin, metres. */
  from: number;
  /** How far it has come out of its carrier, and where it does. */
  out: number;
  mouth: Vec3;
  /** The carrier, and where among its whorls this comes out. */
  carrier: Skin | null;
  place: { whorl: Whorl; row: number; sprout: Sprout } | null;
  /** The rows of each of its whorls. */
  rows: Ring[][];
}

/**
 * One closed skin over branched paths: tubes whose joints are grown together. Where a limb comes out of another, that one's skin has
 * a hole of as many corners as the limb has sides, laid around the place where it comes through; a collar runs from the hole's
 * edge over the skin and up along the limb. Which rows and columns a hole takes hangs on the paths alone, not on thickness: so the
 * numbering stays while only that changes. A limb that has not yet come through lies flat in the skin.
 *
 * @param shape sides are rounded up to a multiple of four, eight at least
 * @param collar how far the skin bends out before a limb, as a share of the limb's radius
 */
export async function treeSkin(input: Paths, shape: TubeShape, collar: number, hooks: SweepHooks = {}): Promise<Mesh> {
  const yieldNow = hooks.yieldNow ?? (() => Promise.resolve());
  const paths = withFrames(input);
  await yieldNow();
  const sides = max(8, 4 * Math.ceil(shape.sides / 4));
  const limbs = await limbsOf(paths, shape, yieldNow);
  await yieldNow();
  const skins = planned(limbs, sides);
  await yieldNow();
  const caps = capSizes(shape, sides);
  const total: Size = { vertices: 0, faces: 0, rings: 0 };
  for (const skin of skins) {
    const size = sizeOf(skin, sides, caps);
    for (const name of ['vertices', 'faces', 'rings'] as const) total[name] += size[name];
  }
  hooks.claim?.(total.vertices, total.faces);
  const making = new SkinMaking(paths, sides, total, shape.radius);
  const even = evenly(sides);
  for (const skin of skins) {
    await yieldNow();
    lay(skin, collar);
    draw(making, skin, shape, even);
  }
  return making.mesh(hooks);
}

const evenly = (sides: number): Round => roundAt(filled(Float64Array, sides, (k) => (2 * PI * k) / sides));

/** What is known of limbs before their thickness. */
function planned(limbs: readonly Limb[], sides: number): Skin[] {
  const skins = new Map<Limb, Skin>();
  const places = new Map<Limb, NonNullable<Skin['place']>>();
  for (const limb of limbs) {
    const whorls = whorlsOf(limb, sides);
    const n = limb.points.length;
    const kept: number[] = [];
    let next = 0;
    for (let k = 0; k < n; k++) {
      // A point at which something comes out gives way to that: its rows lie there.
      while (next < whorls.length && whorls[next].arc < limb.arcs[k] - 1e-5 * limb.length) next++;
      const taken = next < whorls.length && whorls[next].arc <= limb.arcs[k] + 1e-5 * limb.length;
      if (k === 0 || (k === n - 1 && !limb.closed) || !taken) kept.push(k);
    }
    const carrier = limb.root ? skins.get(limb.root.limb)! : null;
    const place = places.get(limb) ?? null;
    whorls.forEach((whorl, row) => whorl.sprouts.forEach((sprout) => places.set(sprout.limb, { whorl, row, sprout })));
    skins.set(limb, { limb, whorls, kept, from: 0, out: 1, mouth: [0, 0, 0], carrier, place, rows: [] });
  }
  return [...skins.values()];
}

/** What a limb is like at an arc length, as far as it has come out of its carrier. */
function placeIn({ limb, out, mouth }: Skin, s: number): Place {
  const place = placeOn(limb, s);
  if (out >= 1) return place;
  return {
    ...place,
    position: add(mouth, scale(sub(place.position, mouth), out)),
    radius: out * place.radius,
  };
}

function outwards({ normal, side }: Place, angle: number): Vec3 {
  const c = cos(angle);
  const s = sin(angle);
  return [normal[0] * c + side[0] * s, normal[1] * c + side[1] * s, normal[2] * c + side[2] * s];
}

/** `by` metres from a place in a direction. */
const off = (from: Vec3, way: Vec3, by: number): Vec3 => [
  from[0] + by * way[0],
  from[1] + by * way[1],
  from[2] + by * way[2],
];

const onSkin = (place: Place, angle: number): Vec3 => off(place.position, outwards(place, angle), place.radius);

/** Lays a limb's rows by its thickness: its own begin where it stands free of its carrier, turned to the corners of the hole. */
function lay(skin: Skin, collar: number): void {
  const { limb, carrier, place } = skin;
  if (carrier && place) {
    const { whorl, sprout } = place;
    const middle = placeIn(carrier, (whorl.low + whorl.high) / 2);
    skin.mouth = add(middle.position, scale(outwards(middle, sprout.angle), middle.radius));
    skin.out = sprout.out * carrier.out;
    skin.from = sprout.free;
    const { tangent, normal, side } = placeOn(limb, skin.from);
    const flat = (v: Vec3): Vec3 => sub(v, scale(tangent, dot(v, tangent)));
    const sideways = flat(outwards(middle, sprout.angle + PI / 2));
    // Where it leaves sideways, up and down are the better guide.
    const x = norm(...sideways) > 0.3 ? unit(sideways) : cross(unit(flat(middle.tangent), normal), tangent);
    const first = add(scale(x, cos(CORNER)), scale(cross(tangent, x), sin(CORNER)));
    rollRing(limb, Math.atan2(dot(first, side), dot(first, normal)));
  }
  layWhorls(skin.whorls, limb, skin.from, collar, (s) => placeIn(skin, s));
}

interface CapSizes {
  start: Size;
  end: Size;
}
const NOTHING: Size = { vertices: 0, faces: 0, rings: 0 };

function capSizes({ start, end }: TubeShape, sides: number): CapSizes {
  const of = (cap: Cap): Size => {
    if (cap === 'open') return NOTHING;
    const rings = cap === 'round' ? max(2, round(sides / 4)) - 1 : 1;
    const strips = cap === 'round' ? rings : 0;
    return { vertices: rings * sides + 1, faces: 2 * sides * strips + sides, rings: rings + 1 };
  };
  return { start: of(start), end: of(end) };
}

/** How many vertices, faces and rings a limb comes to. */
function sizeOf({ limb, whorls, kept, carrier }: Skin, sides: number, caps: CapSizes): Size {
  const width = sides / 4;
  const rows = kept.length + whorls.length * (width + 1);
  const sprouts = whorls.reduce((sum, whorl) => sum + whorl.sprouts.length, 0);
  const holes = sprouts * width * width;
  const spare = sprouts * (width - 1) ** 2;
  const start = limb.closed || carrier ? NOTHING : caps.start;
  const end = limb.closed ? NOTHING : caps.end;
  const collar = carrier ? COLLAR_RINGS : 0;
  const strips = rows - (limb.closed ? 0 : 1) + (carrier ? COLLAR_RINGS + 1 : 0);
  return {
    vertices: (rows + collar) * sides - spare + start.vertices + end.vertices,
    faces: 2 * (strips * sides - holes) + start.faces + end.faces,
    rings: rows + collar + start.rings + end.rings,
  };
}

/** Draws a limb: its collar or start, its rows, its end. */
function draw(making: SkinMaking, skin: Skin, shape: TubeShape, even: Round): void {
  const { limb, whorls, kept, carrier, from } = skin;
  const { sides } = making;
  making.begin(limb.points[0]);
  let last = carrier
    ? drawCollar(making, skin)
    : limb.closed
      ? null
      : drawCap(making, placeIn(skin, 0), shape.start, -1, null, even);
  let first: Ring | null = null;
  const row = (s: number, directions: Round, open: Uint8Array | null, hole: Uint8Array | null): Ring => {
    const ring = making.ring(placeIn(skin, s), directions, s, hole);
    if (last) making.strip(last, ring, open);
    first ??= ring;
    last = ring;
    return ring;
  };
  let point = 0;
  for (let k = 0; k <= whorls.length; k++) {
    const whorl = whorls[k] as Whorl | undefined;
    const before = k > 0 ? whorls[k - 1] : null;
    const [a, at] = before ? [before.arc, before.high] : [0, from];
    const [b, to] = whorl ? [whorl.arc, whorl.low] : [limb.length, limb.length];
    for (; point < kept.length; point++) {
      const s = limb.arcs[kept[point]];
      const isFirst = kept[point] === 0;
      const isLast = !limb.closed && kept[point] === limb.points.length - 1;
      if (whorl && !isFirst && (isLast || s >= whorl.arc)) break;
      making.begin(limb.points[kept[point]]);
      row(b > a ? at + ((to - at) * (s - a)) / (b - a) : isLast ? to : at, even, null, null);
    }
    if (!whorl) break;
    const directions = roundAt(warpedAngles(whorl, sides));
    const [open, hole] = [columnsOf(whorl, sides, 0), columnsOf(whorl, sides, 1)];
    const width = sides / 4;
    const rows: Ring[] = [];
    for (let i = 0; i <= width; i++) {
      const s = whorl.low + ((whorl.high - whorl.low) * i) / width;
      rows.push(row(s, directions, i > 0 ? open : null, i > 0 && i < width ? hole : null));
    }
    skin.rows.push(rows);
  }
  if (limb.closed) making.strip(last!, first!);
  else drawCap(making, placeIn(skin, limb.length), shape.end, 1, last, even);
}

/** A column by its number, however often round. */
const around = (column: number, sides: number): number => ((column % sides) + sides) % sides;

/** 1 for each column of faces that a limb takes the place of; from 1 on, of vertices within its hole. */
function columnsOf({ sprouts }: Whorl, sides: number, from: 0 | 1): Uint8Array {
  const marked = new Uint8Array(sides);
  for (const { column } of sprouts) for (let k = from; k < sides / 4; k++) marked[around(column + k, sides)] = 1;
  return marked;
}

/** The collar of a limb, from the edge of the hole in its carrier on; returns its last ring. */
function drawCollar(making: SkinMaking, skin: Skin): Ring {
  const carrier = skin.carrier!;
  const { whorl, row: which, sprout } = skin.place!;
  const { sides } = making;
  const width = sides / 4;
  const rows = carrier.rows[which];
  const middle = (whorl.low + whorl.high) / 2;
  const on = placeIn(carrier, middle);
  const free = placeIn(skin, skin.from);
  const wide = min(0.92 * sprout.half, reachAround(sprout.foot, on.radius));
  const along = min(0.46 * (whorl.high - whorl.low), sprout.foot / sprout.steep);
  const edge: number[] = [];
  const rings: Vec3[][] = Array.from({ length: COLLAR_RINGS }, () => []);
  for (let k = 0; k < sides; k++) {
    const i = k % width;
    const side = floor(k / width);
    const column = side === 0 ? i : side === 1 ? width : side === 2 ? width - i : 0;
    const row = side === 0 ? 0 : side === 1 ? i : side === 2 ? width : width - i;
    edge.push(vertexOf(rows[row], around(sprout.column + column, sides)));
    const phase = CORNER + (2 * PI * k) / sides;
    const angle = sprout.angle + wide * cos(phase);
    const s = middle + along * sin(phase);
    const edgeAngle = sprout.angle + sprout.half * ((2 * column) / width - 1);
    const edgeAt = whorl.low + ((whorl.high - whorl.low) * row) / width;
    const under = placeIn(carrier, s);
    const foot = onSkin(under, angle);
    const up = outwards(under, angle);
    const end = onSkin(free, (2 * PI * k) / sides);
    const inwards = sub(skin.mouth, foot);
    const slope = unit(off(inwards, up, -dot(inwards, up)), free.tangent);
    const arm = ARM * norm(end[0] - foot[0], end[1] - foot[1], end[2] - foot[2]);
    const one = off(foot, slope, arm);
    const two = off(end, free.tangent, -arm);
    rings[0].push(onSkin(placeIn(carrier, (s + edgeAt) / 2), (angle + edgeAngle) / 2));
    rings[1].push(foot);
    rings[2].push(bezier(foot, one, two, end, 1 / 3));
    rings[3].push(bezier(foot, one, two, end, 2 / 3));
  }
  let last: Ring | null = null;
  for (const [k, places] of rings.entries()) {
    const ring = making.places(places, k < 2 ? on : free, k < 2 ? 0 : skin.from, free.tangent);
    if (last) making.strip(last, ring);
    else making.rim(edge, ring);
    last = ring;
  }
  return last!;
}

function bezier(a: Vec3, b: Vec3, c: Vec3, d: Vec3, t: number): Vec3 {
  const u = 1 - t;
  const p = u * u * u;
  const q = 3 * t * u * u;
  const r = 3 * t * t * u;
  const s = t * t * t;
  return [
    p * a[0] + q * b[0] + r * c[0] + s * d[0],
    p * a[1] + q * b[1] + r * c[1] + s * d[1],
    p * a[2] + q * b[2] + r * c[2] + s * d[2],
  ];
}

/**
 * An end of a limb.
 * @param way 1 at its tip, −1 at its base
 * @param edge the last row before it, at the tip
 * @returns the ring that goes on from it at the base; null where none does, since a hard edge or nothing is there
 */
function drawCap(making: SkinMaking, place: Place, cap: Cap, way: 1 | -1, edge: Ring | null, even: Round): Ring | null {
  if (cap === 'open') return null;
  const { radius } = place;
  const moved = (shift: number, r: number): Place => ({
    ...place,
    position: add(place.position, scale(place.tangent, way * shift)),
    radius: r,
  });
  const steps = max(2, round(making.sides / 4));
  const rings: Place[] = [];
  if (cap === 'round')
    for (let q = 1; q < steps; q++) {
      const a = (q / steps) * (PI / 2);
      rings.push(moved(radius * sin(a), radius * cos(a)));
    }
  // A hard edge: the rim once more, for the light.
  else rings.push(moved(0, radius));
  const height = cap === 'round' ? radius : cap === 'pointed' ? POINT_HEIGHT * radius : 0;
  if (way < 0) {
    const pole = making.pole(moved(height, 0), way, 0);
    let last: Ring | null = null;
    for (const ring of rings.reverse()) {
      const drawn = making.ring(ring, even, 0);
      if (last) making.strip(last, drawn);
      else making.fan(drawn, pole, way);
      last = drawn;
    }
    return cap === 'round' ? last : null;
  }
  let last = cap === 'round' ? edge : null;
  for (const ring of rings) {
    const drawn = making.ring(ring, even, 0);
    if (last) making.strip(last, drawn);
    last = drawn;
  }
  making.fan(last!, making.pole(moved(height, 0), way, 0), way);
  return null;
}
