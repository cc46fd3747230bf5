import { type Copies, type Form, type Points } from './form';
import { type Mesh } from './mesh';
import { FRAME_KEYS, type Paths } from './paths';
import { at, dot } from './vec';

/**
 * Checks what every form must satisfy, and says what does not hold: lengths that agree, finite numbers, unit vectors,
 * indices in range, offsets and rest coordinates that rise. An empty list means that the form is sound.
 */
export function flaws(form: Form): string[] {
  return [
    ...(form.paths ? pathFlaws(form.paths).map((flaw) => `paths: ${flaw}`) : []),
    ...(form.mesh ? meshFlaws(form.mesh).map((flaw) => `mesh: ${flaw}`) : []),
    ...(form.points ? placedFlaws(form.points).map((flaw) => `points: ${flaw}`) : []),
    ...(form.copies ? copyFlaws(form.copies).map((flaw) => `copies: ${flaw}`) : []),
  ];
}

function sized(flaws: string[], name: string, array: ArrayLike<number> | null, length: number): void {
  if (array && array.length !== length) flaws.push(`${name} has ${array.length} entries, not ${length}`);
}

function finite(flaws: string[], name: string, array: ArrayLike<number> | null): void {
  for (let i = 0; array && i < array.length; i++) {
    if (!Number.isFinite(array[i])) {
      flaws.push(`${name}[${i}] is ${array[i]}`);
      return;
    }
  }
}

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
  const found: string[] = [];
  const n = paths.s.length;
  const m = paths.offsets.length - 1;
  sized(found, 'positions', paths.positions, 3 * n);
  for (const key of FRAME_KEYS) sized(found, key, paths[key], 3 * n);
  for (const key of ['u', 'size', 'lean', 'age'] as const) sized(found, key, paths[key], n);
  sized(found, 'level', paths.level, m);
  for (const key of ['closed', 'ids', 'whole', 'cutFrom', 'parent', 'attach', 'depth', 'birth', 'fronts'] as const) {
    sized(found, key, paths[key], m);
  }
  if (paths.offsets[0] !== 0 || paths.offsets[m] !== n) found.push('offsets do not run from 0 to the point count');
  for (const key of [
    'positions',
    's',
    'u',
    'size',
    'tangents',
    'normals',
    'whole',
    'cutFrom',
    'lean',
    'age',
    'level',
  ] as const)
    finite(found, key, paths[key]);
  for (const key of FRAME_KEYS) units(found, key, paths[key], 3);
  for (let i = 0; paths.tangents && paths.normals && i < n; i++) {
    if (Math.abs(dot(at(paths.tangents, i), at(paths.normals, i))) > 1e-3) {
      found.push(`the normal of point ${i} is not square to the path`);
      break;
    }
  }
  if (new Set(paths.ids).size !== m) found.push('two paths share an id');
  for (let p = 0; p < m; p++) {
    if (paths.offsets[p + 1] < paths.offsets[p]) found.push(`offsets fall at path ${p}`);
    if (paths.parent[p] >= m) found.push(`path ${p} names a parent that is not there`);
    for (let i = paths.offsets[p] + 1; i < paths.offsets[p + 1]; i++) {
      if (paths.u[i] < paths.u[i - 1] || paths.s[i] < paths.s[i - 1]) {
        found.push(`rest coordinates fall at point ${i}`);
        break;
      }
    }
  }
  return found;
}

function meshFlaws(mesh: Mesh): string[] {
  const found: string[] = [];
  const n = mesh.positions.length / 3;
  sized(found, 'normals', mesh.normals, 3 * n);
  sized(found, 'uvs', mesh.uvs, 2 * n);
  sized(found, 'colors', mesh.colors, 3 * n);
  for (const key of ['u', 'tip', 'glow', 'age'] as const) sized(found, key, mesh[key], n);
  for (const key of ['positions', 'normals', 'uvs', 'colors', 'u', 'tip', 'glow', 'age', 'levels'] as const)
    finite(found, key, mesh[key]);
  units(found, 'normals', mesh.normals, 3);
  sized(found, 'levels', mesh.levels, (mesh.parts?.length ?? 0) / 2);
  if (mesh.parts) {
    for (let k = 0; k < mesh.parts.length; k += 2) {
      if (mesh.parts[k] > n || (k > 0 && mesh.parts[k] < mesh.parts[k - 2]))
        found.push(`part ${k / 2} begins at vertex ${mesh.parts[k]}`);
    }
  }
  if (mesh.indices.length % 3) found.push('indices are no whole number of triangles');
  const wild = mesh.indices.findIndex((index) => index >= n);
  if (wild >= 0) found.push(`indices[${wild}] is ${mesh.indices[wild]}, past the last of ${n} vertices`);
  return found;
}

function placedFlaws(points: Points | Copies): string[] {
  const found: string[] = [];
  const k = points.ids.length;
  sized(found, 'positions', points.positions, 3 * k);
  sized(found, 'turns', points.turns, 4 * k);
  finite(found, 'positions', points.positions);
  units(found, 'turns', points.turns, 4);
  if (new Set(points.ids).size !== k) found.push('two entries share an id');
  return found;
}

function copyFlaws(copies: Copies): string[] {
  const found = placedFlaws(copies);
  sized(found, 'item', copies.item, copies.ids.length);
  sized(found, 'sizes', copies.sizes, 3 * copies.ids.length);
  finite(found, 'sizes', copies.sizes);
  if (copies.item.some((item) => item >= copies.items.length)) found.push('a copy names an item that is not there');
  return found;
}
