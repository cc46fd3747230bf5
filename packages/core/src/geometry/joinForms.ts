import type { YieldNow } from '../yieldNow';
import { NO_NAMED } from './attributes';
import { pickColumns } from './carrier';
import { joinCopies } from './copies';
import { COPIES, type Form, POINTS } from './form';
import { joinColumns, joinedInTime } from './joinColumns';
import { faceCount, MESH, type Mesh, meshWith, vertexCount } from './mesh';
import { joinPaths } from './joinPaths';
import { joinPoints } from './joinPoints';
import { PATHS, type Paths } from './paths';
import { joinSeats, keptSeats, SEATS, type Seats } from './seats';

const present = <T>(list: readonly (T | null | undefined)[]): T[] =>
  list.filter((entry) => entry !== null && entry !== undefined);

/**
 * Forms as one, in their order: paths, skins, points and copies. Stable numbers of each follow those of the one before, of a
 * skin's parts as of its paths. What cannot be joined as one thing (how the surface takes the light) is the first one's.
 */
export async function joinForms(forms: readonly Form[], yieldNow: YieldNow): Promise<Form> {
  const shifts = idShifts(forms);
  const paths = present(forms.map((form) => form.paths));
  const points = present(forms.map((form) => form.points));
  const extents = present(forms.map(({ extent }) => extent));
  return {
    ...forms[0],
    paths: paths.length > 0 ? joinPaths(...paths) : null,
    extent: extents.length === forms.length ? joinPaths(...extents) : null,
    mesh: await joinMeshes(
      forms.flatMap(({ mesh }, k) => (mesh ? [{ mesh, shift: shifts[k] }] : [])),
      yieldNow,
    ),
    points: points.length > 0 ? joinPoints(...points) : null,
    copies: forms.reduce((joined: Form['copies'], { copies }) => joinCopies(joined, copies), null),
    seats: joinManySeats(present(forms.map(({ seats }) => seats))),
  };
}

/** A form of the same kinds of geometry with nothing in them. */
export function emptiedForm(form: Form): Form {
  const { paths, mesh, points, copies, seats, extent } = form;
  const noPaths = ({ uncut: _, ...of }: Paths): Paths => ({
    ...of,
    ...pickColumns(PATHS, of, 'point', []),
    ...pickColumns(PATHS, of, 'path', []),
    offsets: new Uint32Array(1),
    named: NO_NAMED,
  });
  return {
    ...form,
    paths: paths && noPaths(paths),
    extent: extent && noPaths(extent),
    mesh: mesh && {
      ...mesh,
      ...pickColumns(MESH, mesh, 'vertex', []),
      indices: new Uint32Array(0),
      parts: mesh.parts && new Uint32Array(0),
      level: mesh.level && new Float32Array(0),
      named: NO_NAMED,
    },
    points: points && { ...points, ...pickColumns(POINTS, points, 'point', []) },
    copies: copies && { ...copies, ...pickColumns(COPIES, copies, 'copy', []) },
    seats: seats && keptSeats(seats, []),
  };
}

/** By how much the numbers of each form's paths, and so of its skin's parts, rise. */
function idShifts(forms: readonly Form[]): number[] {
  let next = 0;
  return forms.map(({ paths, mesh }) => {
    const shift = next;
    const ids = [...(paths?.ids ?? []), ...(mesh?.parts?.filter((_, i) => i % 2 === 1) ?? [])];
    for (const id of ids) next = Math.max(next, shift + id + 1);
    return shift;
  });
}

/** Meshes as one, in their order; parts are kept where all have some. @param list each with what the path numbers of its parts rise by */
export async function joinMeshes(
  list: readonly { mesh: Mesh; shift: number }[],
  yieldNow: YieldNow,
): Promise<Mesh | null> {
  if (list.length < 2) return list[0]?.mesh ?? null;
  const joinedBy = (domain: 'vertex' | 'face' | 'path', countOf: (mesh: Mesh) => number) =>
    joinedInTime(
      MESH,
      domain,
      list.map(({ mesh }) => ({ of: mesh, count: countOf(mesh) })),
      yieldNow,
    );
  const vertices = await joinedBy('vertex', vertexCount);
  const faces = await joinedBy('face', faceCount);
  const parted = list.every(({ mesh }) => mesh.parts);
  const parts = parted ? await joinedBy('path', ({ parts: own }) => own!.length / 2) : { named: {}, level: null };
  const indices = new Uint32Array(list.reduce((sum, { mesh }) => sum + mesh.indices.length, 0));
  const numbers: number[] = [];
  let [vertex, index] = [0, 0];
  for (const { mesh, shift } of list) {
    await yieldNow();
    for (let i = 0; i < mesh.indices.length; i++) indices[index + i] = mesh.indices[i] + vertex;
    if (parted)
      for (let i = 0; i < mesh.parts!.length; i += 2) numbers.push(mesh.parts![i] + vertex, mesh.parts![i + 1] + shift);
    index += mesh.indices.length;
    vertex += vertexCount(mesh);
  }
  return meshWith({
    ...list[0].mesh,
    ...vertices,
    level: parts.level,
    indices,
    parts: parted ? Uint32Array.from(numbers) : null,
    named: { ...faces.named, ...vertices.named, ...parts.named },
  });
}

/** Seats of the same growths keep their numbers of these; rows and placements are each one's own. */
function joinManySeats(list: readonly Seats[]): Seats | null {
  if (list.length < 2) return list[0] ?? null;
  const [{ growths }] = list;
  const alike = list.every(
    (seats) => seats.growths.length === growths.length && seats.growths.every((id, k) => id === growths[k]),
  );
  if (!alike) return list.slice(1).reduce<Seats>((joined, seats) => joinSeats(joined, seats), list[0]);
  const joined: Seats = {
    ...list[0],
    ...joinColumns(
      SEATS,
      'copy',
      list.map((of) => ({ of, count: of.ids.length })),
    ),
  };
  let [first, rows] = [0, 0];
  for (const { ids, row } of list) {
    const top = row.reduce((most, own) => Math.max(most, own), 0);
    for (let k = 0; k < ids.length; k++) if (row[k] !== 0) joined.row[first + k] = row[k] + rows;
    // Odd rows are open, even ones closed: they rise by an even number.
    rows += 2 * Math.ceil(top / 2);
    first += ids.length;
  }
  return joined;
}
