import { hash } from '../fields/random';
import { emptyColumns, NO_NAMED } from './attributes';
import { joinColumns } from './joinColumns';
import { COPIES, type Copies, type Form, type Item } from './form';
import { faceCount, MESH, type Mesh, meshWith, vertexCount } from './mesh';
import type { Seats } from './seats';
import { NO_TURN, type Turn, turnAt, turnedBy } from './turns';
import { at, unit, type Vec3 } from './vec';

/** A growth as some seats show it. */
export interface ShownItem {
  form: Form;
  key: string;
}

/** How many copies the seats come to, copies inside their items counted. @param group which of the items each seat shows */
export function countCopies(group: Uint32Array, shown: readonly ShownItem[]): number {
  const each = shown.map(({ form }) => (form.mesh ? 1 : 0) + (form.copies?.ids.length ?? 0));
  let sum = 0;
  for (let k = 0; k < group.length; k++) sum += each[group[k]];
  return sum;
}

/**
 * Copies of whole forms: of their meshes, and of the copies that they hold themselves, so that copies are always of
 * plain items.
 * @param group which of the items each seat shows
 */
export function copiesOfSeats(seats: Seats, group: Uint32Array, shown: readonly ShownItem[]): Copies {
  const items: Item[] = [];
  const numbers = new Map<string, number>();
  const numberOf = (item: Item): number => {
    let number = numbers.get(item.key);
    if (number === undefined) {
      numbers.set(item.key, (number = items.length));
      items.push(item);
    }
    return number;
  };
  const own = shown.map(({ form, key }) =>
    form.mesh ? numberOf({ key, mesh: form.mesh, surface: form.surface }) : null,
  );
  const inner = shown.map(({ form }) => (form.copies?.items ?? []).map(numberOf));
  // Plain items in every seat: copies stand where the seats do, in the very same arrays.
  if (own.every((item) => item !== null) && shown.every(({ form }) => !form.copies)) {
    const item = new Uint32Array(group.length);
    for (let s = 0; s < group.length; s++) item[s] = own[group[s]]!;
    const { positions, turns, sizes, ids, row: rows, tints, named } = seats;
    return { items, item, positions, turns, sizes, ids, rows, tints, named };
  }
  const tinted = seats.tints !== null || shown.some(({ form }) => form.copies?.tints);
  const copies = allocateCopies(items, countCopies(group, shown), tinted);
  let write = 0;
  for (let s = 0; s < group.length; s++) {
    const which = group[s];
    const item = own[which];
    if (item !== null) putSeat(copies, write++, item, seats, s);
    const { copies: nested } = shown[which].form;
    if (!nested) continue;
    putNested(copies, write, nested, inner[which], seats, s);
    write += nested.ids.length;
  }
  return copies;
}

/** Puts an item down where a seat stands. */
function putSeat(copies: Copies, write: number, item: number, seats: Seats, s: number): void {
  const { tints } = copies;
  copies.item[write] = item;
  copies.rows[write] = seats.row[s];
  copies.ids[write] = seats.ids[s];
  for (let c = 0; c < 3; c++) {
    copies.positions[3 * write + c] = seats.positions[3 * s + c];
    copies.sizes[3 * write + c] = seats.sizes[3 * s + c];
    if (tints) tints[3 * write + c] = seats.tints ? seats.tints[3 * s + c] : 1;
  }
  for (let c = 0; c < 4; c++) copies.turns[4 * write + c] = seats.turns[4 * s + c];
}

/**
 * Puts copies that stand on what a seat shows down with it.
 * @param numbers of their items among those of the whole
 */
function putNested(
  copies: Copies,
  first: number,
  nested: Copies,
  numbers: readonly number[],
  seats: Seats,
  s: number,
): void {
  const { item, positions, turns, sizes, rows, ids, tints } = copies;
  const { item: items, positions: places, turns: ways, sizes: factors, ids: own, tints: colors } = nested;
  const [x, y, z] = at(seats.positions, s);
  const [sx, sy, sz] = at(seats.sizes, s);
  const [qx, qy, qz, qw] = turnAt(seats.turns, s);
  const [r, g, b] = seats.tints ? at(seats.tints, s) : WHITE;
  const id = seats.ids[s];
  for (let k = 0; k < own.length; k++) {
    const write = first + k;
    const p = 3 * k;
    const q = 4 * k;
    const to = 3 * write;
    item[write] = numbers[items[k]];
    // Where a whole row is copied, its copies stand in rows no more.
    rows[write] = 0;
    // Numbers of nested copies come from their owner's and their own, so that each keeps its own.
    ids[write] = hash(id, own[k]);
    const px = sx * places[p];
    const py = sy * places[p + 1];
    const pz = sz * places[p + 2];
    const tx = 2 * (qy * pz - qz * py);
    const ty = 2 * (qz * px - qx * pz);
    const tz = 2 * (qx * py - qy * px);
    positions[to] = x + (px + qw * tx + qy * tz - qz * ty);
    positions[to + 1] = y + (py + qw * ty + qz * tx - qx * tz);
    positions[to + 2] = z + (pz + qw * tz + qx * ty - qy * tx);
    sizes[to] = sx * factors[p];
    sizes[to + 1] = sy * factors[p + 1];
    sizes[to + 2] = sz * factors[p + 2];
    const ax = ways[q];
    const ay = ways[q + 1];
    const az = ways[q + 2];
    const aw = ways[q + 3];
    turns[4 * write] = qw * ax + qx * aw + qy * az - qz * ay;
    turns[4 * write + 1] = qw * ay - qx * az + qy * aw + qz * ax;
    turns[4 * write + 2] = qw * az + qx * ay - qy * ax + qz * aw;
    turns[4 * write + 3] = qw * aw - qx * ax - qy * ay - qz * az;
    if (!tints) continue;
    tints[to] = r * (colors ? colors[p] : 1);
    tints[to + 1] = g * (colors ? colors[p + 1] : 1);
    tints[to + 2] = b * (colors ? colors[p + 2] : 1);
  }
}

const WHITE: Vec3 = [1, 1, 1];

const allocateCopies = (items: Item[], count: number, tinted: boolean): Copies => ({
  ...emptyColumns(COPIES, 'copy', count),
  items,
  tints: tinted ? new Float32Array(3 * count).fill(1) : null,
  named: NO_NAMED,
});

/** All of `a`, then all of `b`; ids of `b` follow those of `a`. */
export function joinCopies(a: Copies | null, b: Copies | null): Copies | null {
  if (!a || !b) return a ?? b;
  const count = a.ids.length;
  const both: Copies = {
    ...a,
    ...joinColumns(COPIES, 'copy', [
      { of: a, count },
      { of: b, count: b.ids.length },
    ]),
    items: [...a.items, ...b.items],
  };
  for (let k = count; k < both.item.length; k++) both.item[k] += a.items.length;
  return both;
}

/**
 * A form's mesh with all copies made real: for files, measures and steps that know no copies. Vertices and faces keep their
 * attributes; those of a copy, a front that has come to it among them, go to all its vertices.
 */
export function wholeMesh({ mesh, copies }: Pick<Form, 'mesh' | 'copies'>): Mesh | null {
  if (!copies || copies.ids.length === 0) return mesh;
  const meshes = Array.from(copies.item, (item) => copies.items[item].mesh);
  if (mesh) meshes.unshift(mesh);
  const vertices = joinColumns(
    MESH,
    'vertex',
    meshes.map((of) => ({ of, count: vertexCount(of) })),
    ['positions', 'normals'],
  );
  const faces = joinColumns(
    MESH,
    'face',
    meshes.map((of) => ({ of, count: faceCount(of) })),
  );
  const total = meshes.reduce((sum, of) => sum + vertexCount(of), 0);
  const whole = meshWith({
    uvs: new Float32Array(2 * total),
    ...vertices,
    named: { ...faces.named, ...vertices.named },
    positions: new Float32Array(3 * total),
    normals: new Float32Array(3 * total),
    indices: new Uint32Array(meshes.reduce((sum, of) => sum + of.indices.length, 0)),
  });
  const first = mesh ? vertexCount(mesh) : 0;
  for (const [name, { values, ...type }] of Object.entries(copies.named)) {
    const { width, missing } = type;
    // How far behind a front's edge things are is a column of meshes.
    const own = name === 'tip' ? whole.tip : whole.named[name]?.values;
    if (name !== 'tip' && own && (whole.named[name].domain !== 'vertex' || whole.named[name].width !== width)) continue;
    const spread = own ?? new Float32Array(width * total).fill(missing);
    let from = width * first;
    for (let k = 0; k < copies.ids.length; k++) {
      const end = from + width * vertexCount(copies.items[copies.item[k]].mesh);
      for (let i = from; i < end; i++) spread[i] = values[width * k + ((i - from) % width)];
      from = end;
    }
    if (name === 'tip') whole.tip = spread;
    else whole.named = { ...whole.named, [name]: { ...type, domain: 'vertex', values: spread } };
  }
  if (copies.tints) whole.colors ??= new Float32Array(3 * total).fill(1);
  let [vertex, index] = [0, 0];
  const put = (part: Mesh, position: Vec3, turn: Turn, size: Vec3, tint: Vec3): void => {
    const n = vertexCount(part);
    for (let i = 0; i < n; i++) {
      const [x, y, z] = at(part.positions, i);
      const place = turnedBy(turn, [size[0] * x, size[1] * y, size[2] * z]);
      whole.positions.set([place[0] + position[0], place[1] + position[1], place[2] + position[2]], 3 * (vertex + i));
      const [a, b, c] = at(part.normals, i);
      // Normals shrink where sizes grow, and need no more than their direction.
      const normal: Vec3 = [a * size[1] * size[2], b * size[0] * size[2], c * size[0] * size[1]];
      whole.normals.set(turnedBy(turn, unit(normal, [a, b, c])), 3 * (vertex + i));
    }
    if (tint !== WHITE)
      for (let i = 3 * vertex; i < 3 * (vertex + n); i++) whole.colors![i] *= tint[(i - 3 * vertex) % 3];
    for (let i = 0; i < part.indices.length; i++) whole.indices[index + i] = part.indices[i] + vertex;
    vertex += n;
    index += part.indices.length;
  };
  if (mesh) put(mesh, [0, 0, 0], NO_TURN, WHITE, WHITE);
  for (let k = 0; k < copies.ids.length; k++)
    put(
      copies.items[copies.item[k]].mesh,
      at(copies.positions, k),
      turnAt(copies.turns, k),
      at(copies.sizes, k),
      copies.tints ? at(copies.tints, k) : WHITE,
    );
  return whole;
}
