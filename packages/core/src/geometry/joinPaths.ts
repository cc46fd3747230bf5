import { joinColumns } from './joinColumns';
import { FRAME_KEYS, NO_PARENT, PATHS, type Paths, pathCount, pointCount } from './paths';

/**
 * All paths of one or more geometries, in their order. Ids of each follow those of the one before, and parents with them. Frames are
 * kept where all have them; the uncut paths where all know theirs.
 */
export function joinPaths(...list: readonly Paths[]): Paths {
  if (list.length === 1) return list[0];
  const framed = list.every(({ normals }) => normals);
  const points = joinColumns(
    PATHS,
    'point',
    list.map((of) => ({ of, count: pointCount(of) })),
    framed ? [] : FRAME_KEYS,
  );
  const each = joinColumns(
    PATHS,
    'path',
    list.map((of) => ({ of, count: pathCount(of) })),
  );
  const total = list.reduce((sum, of) => sum + pathCount(of), 0);
  const offsets = new Uint32Array(total + 1);
  let [path, point] = [0, 0];
  for (const of of list) {
    const m = pathCount(of);
    // Parents go by ids, which have risen as those of their own paths have.
    const shift = m > 0 ? each.ids![path] - of.ids[0] : 0;
    for (let p = 0; p < m; p++) {
      offsets[path + p + 1] = point + of.offsets[p + 1];
      if (of.parent && of.parent[p] !== NO_PARENT) each.parent![path + p] = of.parent[p] + shift;
    }
    path += m;
    point += pointCount(of);
  }
  const { uncut: _, ...first } = list[0];
  const joined: Paths = { ...first, ...points, ...each, offsets, named: { ...points.named, ...each.named } };
  const wholes = list.map(({ uncut }) => uncut);
  if (wholes.every((whole) => whole === undefined)) return joined;
  const cut = list.map((of) => (of.uncut === undefined ? of : of.uncut));
  return { ...joined, uncut: cut.every((whole) => whole !== null) ? joinPaths(...cut) : null };
}
