import { type Mesh, meshWith } from '../../geometry/mesh';
import { FAR, type Paths, pathCount } from '../../geometry/paths';
import { add, at, cross, distance, dot, perpendicular, scale, sub, unit, type Vec3 } from '../../geometry/vec';
import { doubleArea } from '../../outline/region';
import { fillOutline } from './fillOutline';
import type { SweepHooks } from './sweepTubes';
import { vertexAttributes } from './vertexAttributes';

const TAU = 2 * Math.PI;

/** How profiles are turned about an axis. */
export interface LatheShape {
  /** A point of the axis, metres. */
  origin: Vec3;
  /** Its direction, a unit vector. */
  axis: Vec3;
  /** Angle at which the skin of path p begins, and by how much it turns from there, radians. */
  turnOf: (p: number) => { from: number; turn: number };
  /** Way along the axis for each full turn, metres. */
  rise: number;
  /** Faces in a full turn. */
  sides: number;
  /** Corners of a profile that turn by more keep a hard edge, radians. */
  crease: number;
  /** Joins the ends of open profiles to the axis, square to it. */
  toAxis: boolean;
  /** Closes the cut faces, where a profile is closed or ends on the axis and lies in a plane with it. */
  caps: boolean;
}

/** A point of a profile. */
interface Corner {
  place: Vec3;
  /** From the axis to it, square to the axis; zero for a pole. */
  out: Vec3;
  radius: number;
  /** Along the axis from its origin, metres. */
  height: number;
  /** Its point of the path, for attributes. */
  point: number;
}

/** What a row of vertices is made of. */
interface Row extends Corner {
  /** Outward unit normal before it is turned. */
  normal: Vec3;
  /** Length along the profile, metres. */
  arc: number;
  /** Faces join it to the row before. */
  joined: boolean;
}

/** A profile that is turned. */
interface Turned {
  path: number;
  rows: Row[];
  from: number;
  turn: number;
  /** Faces in the turn; vertices stand in one column more. */
  steps: number;
  /** The last column stands where the first does. */
  sealed: boolean;
  /** The profile's own far end is a growing front. */
  grows: boolean;
  /** 1 where profile × turn about the axis points outwards, else −1. */
  side: number;
  /** Triangles over the rows that close a cut face, anticlockwise in the plane of radius and height; empty where none does. */
  cap: number[];
}

/**
 * Surfaces of revolution, or of a screw where there is a rise: each path is a profile that is turned about an axis. The skin
 * faces away from what it encloses, by the sign of the volume ∫ π r² dh, whichever way the profile is drawn. Points on the axis
 * are poles.
 */
export async function latheMesh(paths: Paths, shape: LatheShape, hooks: SweepHooks = {}): Promise<Mesh> {
  const list = Array.from({ length: pathCount(paths) }, (_, p) => turnedProfile(paths, p, shape)).filter(
    (turned) => turned !== null,
  );
  const vertices = list.reduce(
    (sum, { rows, steps, cap }) => sum + rows.length * (steps + (cap.length > 0 ? 3 : 1)),
    0,
  );
  const faces = list.reduce((sum, turned) => sum + facesOf(turned), 0);
  hooks.claim?.(vertices, faces);
  const mesh = meshWith({
    positions: new Float32Array(3 * vertices),
    normals: new Float32Array(3 * vertices),
    uvs: new Float32Array(2 * vertices),
    u: new Float32Array(vertices),
    tip: new Float32Array(vertices),
    age: paths.age && new Float32Array(vertices),
    level: paths.level && Float32Array.from(list, ({ path }) => paths.level![path]),
    parts: new Uint32Array(2 * list.length),
    indices: new Uint32Array(3 * faces),
  });
  const points = new Uint32Array(vertices);
  let [vertex, index] = [0, 0];
  for (const [k, turned] of list.entries()) {
    await hooks.yieldNow?.();
    mesh.parts!.set([vertex, paths.ids[turned.path]], 2 * k);
    writeRows(mesh, points, turned, shape, vertex);
    index = writeFaces(mesh, points, turned, shape, vertex, index);
    vertex += turned.rows.length * (turned.steps + (turned.cap.length > 0 ? 3 : 1));
  }
  for (let i = 0; i < vertices; i++) mesh.u![i] = paths.u[points[i]];
  if (mesh.age) for (let i = 0; i < vertices; i++) mesh.age[i] = paths.age![points[i]];
  const pathOf = list.map(({ path }) => path);
  return { ...mesh, named: vertexAttributes(paths, vertices, (rows) => rows.pick(points), pathOf) };
}

function facesOf({ rows, steps, cap }: Turned): number {
  let faces = (2 * cap.length) / 3;
  for (let r = 1; r < rows.length; r++)
    if (rows[r].joined) faces += steps * ((rows[r].radius > 0 ? 1 : 0) + (rows[r - 1].radius > 0 ? 1 : 0));
  return faces;
}

/** Lengths below this share of a profile's own size count as none. */
const TINY = 1e-7;

/** A path as a profile; null where it has no extent or no turn. */
function turnedProfile(paths: Paths, path: number, shape: LatheShape): Turned | null {
  const { from, turn: asked } = shape.turnOf(path);
  const closed = paths.closed[path] === 1;
  const corners = cornersOf(paths, path, shape);
  if (asked === 0 || corners.length < (closed ? 3 : 2)) return null;
  const side = sideOf(corners, closed);
  const rows = rowsOf(corners, closed, shape, side);
  const sealed = shape.rise === 0 && Math.abs(asked) >= TAU - 1e-9;
  const turn = sealed ? Math.sign(asked) * TAU : asked;
  const capped = shape.caps && !sealed && (closed || (corners[0].radius === 0 && corners.at(-1)!.radius === 0));
  return {
    path,
    rows,
    from,
    turn,
    steps: Math.max(1, Math.ceil((Math.abs(turn) / TAU) * shape.sides - 1e-9)),
    sealed,
    grows: !closed && (paths.fronts[path] & FAR) > 0,
    side,
    cap: capped ? capOf(rows, shape.axis) : [],
  };
}

/** The points of a path, each once; those that all but lie on the axis are put on it. */
function cornersOf(paths: Paths, path: number, { origin, axis, toAxis }: LatheShape): Corner[] {
  const [a, b] = [paths.offsets[path], paths.offsets[path + 1]];
  const closed = paths.closed[path] === 1;
  let size = 0;
  for (let i = a; i < b; i++) size = Math.max(size, distance(at(paths.positions, i), at(paths.positions, a)));
  const corner = (place: Vec3, point: number): Corner => {
    const away = sub(place, origin);
    const height = dot(away, axis);
    const foot = scale(axis, height);
    const out = sub(away, foot);
    const radius = Math.hypot(...out);
    return radius > TINY * size
      ? { place, out, radius, height, point }
      : { place: add(origin, foot), out: [0, 0, 0], radius: 0, height, point };
  };
  const corners: Corner[] = [];
  for (let i = a; i < b; i++) {
    const next = corner(at(paths.positions, i), i);
    if (corners.length === 0 || distance(next.place, corners.at(-1)!.place) > TINY * size) corners.push(next);
  }
  if (closed && corners.length > 1 && distance(corners[0].place, corners.at(-1)!.place) <= TINY * size) corners.pop();
  if (toAxis && !closed && corners.length > 0) {
    const pole = ({ height, point }: Corner): Corner => corner(add(origin, scale(axis, height)), point);
    if (corners[0].radius > 0) corners.unshift(pole(corners[0]));
    if (corners.at(-1)!.radius > 0) corners.push(pole(corners.at(-1)!));
  }
  return corners;
}

/** 1 where profile × turn about the axis points away from what is enclosed, else −1. */
function sideOf(corners: readonly Corner[], closed: boolean): number {
  let [volume, size] = [0, 0];
  for (let i = closed ? 0 : 1; i < corners.length; i++) {
    const [a, b] = [corners[(i + corners.length - 1) % corners.length], corners[i]];
    // The volume of a frustum of a cone, over π.
    const part = ((b.height - a.height) * (a.radius * a.radius + a.radius * b.radius + b.radius * b.radius)) / 3;
    volume += part;
    size += Math.abs(part);
  }
  if (Math.abs(volume) > 1e-9 * size) return volume > 0 ? -1 : 1;
  // A flat disc faces along the axis.
  return corners.at(-1)!.radius > corners[0].radius ? 1 : -1;
}

/** Rows of a profile: hard corners have two, each with the normal of its own side. */
function rowsOf(corners: readonly Corner[], closed: boolean, shape: LatheShape, side: number): Row[] {
  const { axis, rise, crease } = shape;
  const n = corners.length;
  const ways = corners.map(({ place }, i) => unit(sub(corners[(i + 1) % n].place, place)));
  const limit = Math.cos(crease);
  const rows: Row[] = [];
  let arc = 0;
  const put = (k: number, way: Vec3, joined: boolean): void => {
    const corner = corners[k];
    // A pole has the direction in which the profile leaves it.
    const beside = corners[k === 0 ? 1 : k - 1];
    const out = unit(corner.radius > 0 ? corner.out : beside.out, perpendicular(axis));
    const round = cross(axis, out);
    const across = add(scale(round, corner.radius), scale(axis, rise / TAU));
    let normal = scale(unit(cross(way, corner.radius > 0 ? across : round), out), side);
    // Beyond the axis a profile goes on as its mirror image: nearly square to the axis, the pole is smooth.
    if (corner.radius === 0 && 1 - 2 * dot(way, axis) ** 2 >= limit) normal = scale(axis, k === 0 ? side : -side);
    rows.push({ ...corner, normal, arc, joined });
  };
  const last = closed ? n : n - 1;
  for (let i = 0; i <= last; i++) {
    const k = i % n;
    if (i > 0) arc += distance(corners[i - 1].place, corners[k].place);
    const [before, after] = [ways[(k - 1 + n) % n], ways[k]];
    const end = !closed && (i === 0 || i === last);
    if (end) put(k, i === 0 ? after : before, i > 0);
    else if (dot(before, after) >= limit) put(k, unit(add(before, after)), i > 0);
    else {
      if (i > 0) put(k, before, true);
      if (i < last) put(k, after, false);
    }
  }
  return rows;
}

/** Share of a profile's radius by which it may leave the plane of a cut face. */
const FLAT = 1e-3;

/** Triangles over the rows of a profile that lies in a plane with the axis; none where it does not. */
function capOf(rows: readonly Row[], axis: Vec3): number[] {
  const widest = rows.reduce((best, row) => (row.radius > best.radius ? row : best));
  const out = unit(widest.out);
  const aside = cross(axis, out);
  const flat: number[] = [];
  const numbers: number[] = [];
  for (const [k, row] of rows.entries()) {
    if (Math.abs(dot(row.out, aside)) > FLAT * widest.radius) return [];
    // Of the rows in one place, the first.
    const repeated = k > 0 && distance(row.place, rows[k - 1].place) === 0;
    const returned = k === rows.length - 1 && distance(row.place, rows[0].place) === 0;
    if (repeated || returned) continue;
    flat.push(dot(row.out, out), row.height);
    numbers.push(k);
  }
  if (doubleArea(flat) > 0) return fillOutline([flat]).map((i) => numbers[i]);
  const back = flat.map((_, i) => flat[flat.length - 2 - i + 2 * (i % 2)]);
  return fillOutline([back]).map((i) => numbers[numbers.length - 1 - i]);
}

/** Writes the vertices of a profile, row after row, column after column; those of its cut faces follow. */
function writeRows(
  mesh: Mesh,
  points: Uint32Array,
  turned: Turned,
  { origin, axis, rise }: LatheShape,
  first: number,
): void {
  const { rows, from, turn, steps, sealed, grows } = turned;
  const { positions, normals, uvs, tip } = mesh;
  const widest = rows.reduce((most, { radius }) => Math.max(most, radius), 0) || 1;
  const rim = grows ? rows.at(-1)!.arc : rows.at(-1)!.arc + TAU * widest;
  const columns = steps + 1;
  const [cosines, sines, ups] = [new Float64Array(columns), new Float64Array(columns), new Float64Array(columns)];
  for (let j = 0; j < columns; j++) {
    const share = j / steps;
    const angle = from + turn * (sealed && j === steps ? 0 : share);
    cosines[j] = Math.cos(angle);
    sines[j] = Math.sin(angle);
    ups[j] = (rise * turn * share) / TAU;
  }
  const [ax, ay, az] = axis;
  let v = first;
  for (const { out, height, normal, arc, radius, point } of rows) {
    const [aside, beside, upright] = [cross(axis, out), cross(axis, normal), dot(axis, normal)];
    const [ox, oy, oz] = out;
    const [bx, by, bz] = aside;
    const [nx, ny, nz] = normal;
    const [mx, my, mz] = beside;
    const [x0, y0, z0] = add(origin, scale(axis, height));
    const away = rim - arc;
    const along = arc / (TAU * widest);
    const round = Math.abs(turn) * radius;
    for (let j = 0; j < columns; j++, v++) {
      // Rodrigues' formula.
      const c = cosines[j];
      const s = sines[j];
      const up = ups[j];
      const level = (1 - c) * upright;
      const w = 3 * v;
      positions[w] = x0 + c * ox + s * bx + up * ax;
      positions[w + 1] = y0 + c * oy + s * by + up * ay;
      positions[w + 2] = z0 + c * oz + s * bz + up * az;
      normals[w] = c * nx + s * mx + level * ax;
      normals[w + 1] = c * ny + s * my + level * ay;
      normals[w + 2] = c * nz + s * mz + level * az;
      uvs[2 * v] = (from + (turn * j) / steps) / TAU;
      uvs[2 * v + 1] = along;
      tip![v] = sealed ? away : Math.min(away, (1 - j / steps) * round);
      points[v] = point;
    }
  }
}

/** Writes the faces of a profile, and its cut faces with their vertices. @returns the index after the last */
function writeFaces(
  mesh: Mesh,
  points: Uint32Array,
  { rows, from, turn, steps, side, cap }: Turned,
  { axis }: LatheShape,
  first: number,
  index: number,
): number {
  const { indices, positions, normals, uvs, tip } = mesh;
  const columns = steps + 1;
  const forward = side * Math.sign(turn) > 0;
  const put = (a: number, b: number, c: number): void => {
    indices[index++] = a;
    indices[index++] = forward ? b : c;
    indices[index++] = forward ? c : b;
  };
  for (let r = 1; r < rows.length; r++) {
    if (!rows[r].joined) continue;
    for (let j = 0; j < steps; j++) {
      const [low, high] = [first + (r - 1) * columns + j, first + r * columns + j];
      if (rows[r].radius > 0) put(low, high, high + 1);
      if (rows[r - 1].radius > 0) put(low, high + 1, low + 1);
    }
  }
  if (cap.length === 0) return index;
  const widest = rows.reduce((best, row) => (row.radius > best.radius ? row : best));
  const round = cross(axis, unit(widest.out));
  for (const end of [0, 1]) {
    const start = first + rows.length * (columns + end);
    const angle = from + end * turn;
    const away = (end ? 1 : -1) * Math.sign(turn);
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    const facing = add(scale(round, c * away), scale(cross(axis, round), s * away));
    for (const [r, { radius, height, point }] of rows.entries()) {
      const from = first + r * columns + end * steps;
      positions.copyWithin(3 * (start + r), 3 * from, 3 * from + 3);
      normals.set(facing, 3 * (start + r));
      uvs.set([radius, height], 2 * (start + r));
      tip![start + r] = tip![from];
      points[start + r] = point;
    }
    // Anticlockwise over radius and height faces against the turn.
    for (let t = 0; t < cap.length; t += 3) {
      const [a, b, c] = [cap[t] + start, cap[t + 1] + start, cap[t + 2] + start];
      indices.set(away < 0 ? [a, b, c] : [a, c, b], index);
      index += 3;
    }
  }
  return index;
}
