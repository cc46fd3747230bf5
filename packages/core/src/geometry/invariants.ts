import { type Attributed, columnsOf, type Domain, type Table } from './attributes';
import { COPIES, type Copies, type Form, POINTS, type Points } from './form';
import { MESH, type Mesh } from './mesh';
import { PATHS, type Paths } from './paths';
import { SEATS, type Seats } from './seats';
import { treeFlaws } from './tree';
import { add, at, cross, dot, norm, sub } from './vec';

/**
 * Checks what every form must satisfy, and says what does not hold: lengths that agree, finite numbers, unit vectors,
 * indices in range, offsets and rest coordinates that rise. An empty list means that the form is sound.
 */
export function flaws(form: Form): string[] {
  return [
    ...(form.paths ? pathFlaws(form.paths).map((flaw) => `paths: ${flaw}`) : []),
    ...(form.mesh ? meshFlaws(form.mesh).map((flaw) => `mesh: ${flaw}`) : []),
    ...(form.points ? pointFlaws(form.points).map((flaw) => `points: ${flaw}`) : []),
    ...(form.seats ? seatFlaws(form.seats).map((flaw) => `seats: ${flaw}`) : []),
    ...(form.copies ? copyFlaws(form.copies).map((flaw) => `copies: ${flaw}`) : []),
  ];
}

/** Lengths that agree with the table, finite numbers, directions and turns of length 1. */
function columnFlaws<T extends Table>(table: T, of: Attributed<T>, domain: Domain, count: number): string[] {
  const found: string[] = [];
  for (const { name, type, values } of columnsOf(table, of, domain)) {
    if (!values) continue;
    if (values.length !== type.width * count)
      found.push(`${name} has ${values.length} entries, not ${type.width * count}`);
    const wild = values.findIndex((value) => !Number.isFinite(value) && !ENDLESS.has(name));
    if (wild >= 0) found.push(`${name}[${wild}] is ${values[wild]}`);
    else if (type.blend === 'rotate') units(found, name, values, type.width);
  }
  return found;
}

/** Where infinity has a meaning: no growth has uncovered it. */
const ENDLESS = new Set(['age']);

function units(flaws: string[], name: string, array: ArrayLike<number> | null, width: number): void {
  for (let i = 0; array && i < array.length; i += width) {
    let sum = 0;
    for (let k = 0; k < width; k++) sum += array[i + k] ** 2;
    if (Math.abs(sum - 1) > 1e-3) {
      flaws.push(`${name} number ${i / width} has length ${Math.sqrt(sum)}, not 1`);
      return;
    }
  }
}

function pathFlaws(paths: Paths): string[] {
  const n = paths.s.length;
  const m = paths.offsets.length - 1;
  const found = [...columnFlaws(PATHS, paths, 'point', n), ...columnFlaws(PATHS, paths, 'path', m)];
  if (paths.offsets[0] !== 0 || paths.offsets[m] !== n) found.push('offsets do not run from 0 to the point count');
  for (let i = 0; paths.tangents && paths.normals && i < n; i++) {
    if (Math.abs(dot(at(paths.tangents, i), at(paths.normals, i))) > 1e-3) {
      found.push(`the normal of point ${i} is not square to the path`);
      break;
    }
  }
  if (new Set(paths.ids).size !== m) found.push('two paths share an id');
  for (let p = 0; p < m; p++) {
    if (paths.offsets[p + 1] < paths.offsets[p]) found.push(`offsets fall at path ${p}`);
    for (let i = paths.offsets[p] + 1; i < paths.offsets[p + 1]; i++) {
      const falls = (values: Float32Array | null): boolean => values !== null && values[i] < values[i - 1];
      if (falls(paths.u) || falls(paths.s) || falls(paths.arrival)) {
        found.push(`rest coordinates fall at point ${i}`);
        break;
      }
    }
  }
  return [...found, ...treeFlaws(paths)];
}

/** Share of the area that may face away from its normals: at extreme settings skins fold over, up to three quarters of them (measured). */
const MOST_AGAINST = 0.9;

/** Share of a mesh's area whose winding and normals disagree. */
function areaAgainstNormals({ positions, normals, indices }: Mesh): number {
  let [whole, against] = [0, 0];
  for (let i = 0; i < indices.length; i += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => at(positions, indices[i + k]));
    const across = cross(sub(b, a), sub(c, a));
    const area = norm(...across);
    const mean = add(add(at(normals, indices[i]), at(normals, indices[i + 1])), at(normals, indices[i + 2]));
    whole += area;
    if (dot(across, mean) < 0) against += area;
  }
  return whole > 0 ? against / whole : 0;
}

function meshFlaws(mesh: Mesh): string[] {
  const n = mesh.positions.length / 3;
  const parts = (mesh.parts?.length ?? 0) / 2;
  const found = [...columnFlaws(MESH, mesh, 'vertex', n), ...columnFlaws(MESH, mesh, 'path', parts)];
  found.push(...columnFlaws(MESH, mesh, 'face', mesh.indices.length / 3));
  if (mesh.parts) {
    for (let k = 0; k < mesh.parts.length; k += 2) {
      if (mesh.parts[k] > n || (k > 0 && mesh.parts[k] < mesh.parts[k - 2]))
        found.push(`part ${k / 2} begins at vertex ${mesh.parts[k]}`);
    }
  }
  if (mesh.indices.length % 3) found.push('indices are no whole number of triangles');
  const wild = mesh.indices.findIndex((index) => index >= n);
  if (wild >= 0) found.push(`indices[${wild}] is ${mesh.indices[wild]}, past the last of ${n} vertices`);
  const against = found.length === 0 ? areaAgainstNormals(mesh) : 0;
  if (against > MOST_AGAINST) found.push(`${Math.round(100 * against)} % of its area faces away from its normals`);
  return found;
}

function pointFlaws(points: Points): string[] {
  return [...columnFlaws(POINTS, points, 'point', points.ids.length), ...doubles(points.ids)];
}

function copyFlaws(copies: Copies): string[] {
  const found = [...columnFlaws(COPIES, copies, 'copy', copies.ids.length), ...doubles(copies.ids)];
  if (copies.item.some((item) => item >= copies.items.length)) found.push('a copy names an item that is not there');
  return found;
}

function seatFlaws(seats: Seats): string[] {
  const found = columnFlaws(SEATS, seats, 'copy', seats.ids.length);
  if (seats.growth.some((growth) => growth >= seats.growths.length))
    found.push('a seat names a growth that is not there');
  return found;
}

const doubles = (ids: Uint32Array): string[] => (new Set(ids).size === ids.length ? [] : ['two entries share an id']);
