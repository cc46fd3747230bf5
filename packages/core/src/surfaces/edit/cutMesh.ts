import type { YieldNow } from '../../yieldNow';
import earcut from 'earcut';
import { chainEdges } from '../../geometry/topology/featureEdges';
import { Carrier } from '../../geometry/carrier';
import { joinColumns } from '../../geometry/joinColumns';
import { NO_NAMED } from '../../geometry/attributes';
import { facesFrom } from '../../geometry/topology/faceAttributes';
import { faceCount, MESH, type Mesh, vertexCount } from '../../geometry/mesh';
import { add, at, cross, dot, perpendicular, sub, unit, type Vec3 } from '../../geometry/vec';
import { EdgeTable, weld } from '../../geometry/topology/weld';
import { CHUNK } from './smoothNormals';

/**
 * The part of a mesh where a field is not below 0, cut exactly along the line on which it is 0: new vertices stand on the
 * edges, with all attributes in between. The field runs straight between vertices.
 * @param values n, the field's value at each vertex
 * @param close whether the rims that the cut leaves are closed by faces of their own
 */
export async function cutMesh(
  mesh: Mesh,
  values: ArrayLike<number>,
  close = false,
  yieldNow: YieldNow = () => Promise.resolve(),
): Promise<Mesh> {
  const { indices } = mesh;
  const n = vertexCount(mesh);
  // Lines that go through a vertex leave rims that touch themselves: those that are closed pass beside it.
  const field = close ? besideVertices(mesh, values) : values;
  const inside = new Uint8Array(n);
  for (let i = 0; i < n; i++) inside[i] = field[i] >= 0 ? 1 : 0;
  const newNumber = new Int32Array(n).fill(-1);
  const kept = new Uint32Array(n);
  let keptCount = 0;
  let whole = 0;
  let crossing = 0;
  for (let i = 0; i < indices.length; i += 3) {
    const count = inside[indices[i]] + inside[indices[i + 1]] + inside[indices[i + 2]];
    if (count === 0) continue;
    if (count === 3) whole++;
    else crossing++;
    for (let k = i; k < i + 3; k++) {
      const vertex = indices[k];
      if (inside[vertex] === 0 || newNumber[vertex] >= 0) continue;
      newNumber[vertex] = keptCount;
      kept[keptCount++] = vertex;
    }
  }
  const cuts = new EdgeTable(2 * crossing);
  const most = whole + 2 * crossing;
  const faces = new Uint32Array(3 * most);
  /** The face that each is, or is cut from. */
  const sources = new Uint32Array(most);
  let made = 0;
  const put = (from: number, a: number, b: number, c: number): void => {
    sources[made] = from;
    faces[3 * made] = a;
    faces[3 * made + 1] = b;
    faces[3 * made++ + 2] = c;
  };
  /** Cut lines, from the first to the second vertex as the faces that stay run. */
  const rims: [number, number][] = [];
  for (let i = 0, f = 0; i < indices.length; i += 3, f++) {
    if (f % CHUNK === 0) await yieldNow();
    const within = inside[indices[i]] + inside[indices[i + 1]] + inside[indices[i + 2]];
    if (within === 0) continue;
    if (within === 3) {
      put(f, newNumber[indices[i]], newNumber[indices[i + 1]], newNumber[indices[i + 2]]);
      continue;
    }
    // Turned so that the corner that is alone on its side comes first.
    const alone = within === 1 ? 1 : 0;
    const lone = inside[indices[i]] === alone ? 0 : inside[indices[i + 1]] === alone ? 1 : 2;
    const a = indices[i + lone];
    const b = indices[i + ((lone + 1) % 3)];
    const c = indices[i + ((lone + 2) % 3)];
    const ab = keptCount + cuts.idOf(a, b);
    const ac = keptCount + cuts.idOf(a, c);
    if (alone === 1) put(f, newNumber[a], ab, ac);
    else {
      put(f, ab, newNumber[b], newNumber[c]);
      put(f, ab, newNumber[c], ac);
    }
    if (close) rims.push(alone === 1 ? [ab, ac] : [ac, ab]);
  }
  const rows = new Carrier(MESH, mesh, 'vertex', keptCount + cuts.count);
  rows.pick(kept.subarray(0, keptCount));
  const { ends } = cuts;
  const share = (e: number): number => field[ends[2 * e]] / (field[ends[2 * e]] - field[ends[2 * e + 1]]);
  rows.mixPairs(ends, cuts.count, share, keptCount);
  const cut = facesFrom(
    { ...mesh, ...rows.result(), indices: faces.slice(0, 3 * made), parts: null, level: null },
    sources.subarray(0, made),
  );
  return rims.length > 0 ? closed(cut, rims) : cut;
}

/** How near the line may come to a vertex, against what the field changes along its edges. */
const BESIDE = 1e-4;

/**
 * A field that is 0 at no vertex nor close to one: such vertices count as lying within it (Edelsbrunner and Mücke, Simulation of
 * simplicity, ACM Transactions on Graphics 9, 1990, with a perturbation that is carried out).
 */
function besideVertices({ indices }: Mesh, values: ArrayLike<number>): ArrayLike<number> {
  const spans = new Float64Array(values.length);
  for (let i = 0; i < indices.length; i++) {
    const [a, b] = [indices[i], indices[i % 3 === 2 ? i - 2 : i + 1]];
    const span = Math.abs(values[a] - values[b]);
    if (span > spans[a]) spans[a] = span;
    if (span > spans[b]) spans[b] = span;
  }
  const field = Float64Array.from(values);
  for (let i = 0; i < field.length; i++) if (Math.abs(field[i]) < BESIDE * spans[i]) field[i] = BESIDE * spans[i];
  return field;
}

/** A rim of a cut, as its cover runs along it: the other way round than the faces that it closes. */
interface Rim {
  /** Vertices of the mesh. */
  ring: number[];
  corners: Vec3[];
  /** Along its normal, as long as twice the area within it. */
  area: Vec3;
}

/**
 * A cut mesh with faces over its rims, flat as they lie (ear clipping with holes, by earcut): a rim that lies in another and runs
 * the other way round, as that of an inner wall does, is a hole in its cover.
 */
function closed(mesh: Mesh, rims: readonly (readonly [number, number])[]): Mesh {
  const { of, first } = weld(mesh);
  // Where the cut goes through a vertex, faces that touch it there alone have no line of their own.
  const lines = rims.map(([a, b]) => [of[a], of[b]] as const).filter(([a, b]) => a !== b);
  const loops = chainEdges(lines.flat()).filter(({ closed: whole }) => whole);
  const runs = new Set(lines.map(([a, b]) => `${a} ${b}`));
  const found = loops.map(({ points }): Rim => {
    const places = runs.has(`${points[0]} ${points[1]}`) ? [...points].reverse() : points;
    const ring = places.map((place) => first[place]);
    const corners = ring.map((vertex) => at(mesh.positions, vertex));
    return { ring, corners, area: areaOf(corners) };
  });
  const sources: number[] = [];
  const normals: number[] = [];
  const faces: number[] = [];
  const n = vertexCount(mesh);
  for (const { outer, holes } of withHoles(found)) {
    const normal = unit(outer.area);
    const rings = [outer, ...holes];
    const starts: number[] = [];
    let corner = 0;
    for (const { ring } of rings) {
      starts.push(corner);
      corner += ring.length;
    }
    const flat = rings.flatMap(({ corners }) => corners.flatMap((place) => inPlane(place, outer)));
    const base = n + sources.length;
    for (const index of earcut(flat, starts.slice(1))) faces.push(base + index);
    for (const { ring } of rings)
      for (const vertex of ring) {
        sources.push(vertex);
        normals.push(...normal);
      }
  }
  const rows = new Carrier(MESH, mesh, 'vertex', n + sources.length);
  rows.run(0, n, 0);
  rows.pick(sources, n);
  const covered = rows.result();
  // Covers are faces that were not there before: they know nothing yet.
  const known = joinColumns(MESH, 'face', [
    { of: mesh, count: faceCount(mesh) },
    { of: { ...mesh, named: NO_NAMED }, count: faces.length / 3 },
  ]);
  const all: Mesh = {
    ...mesh,
    ...covered,
    named: { ...covered.named, ...known.named },
    indices: Uint32Array.from([...mesh.indices, ...faces]),
  };
  all.normals.set(normals, 3 * n);
  return all;
}

/** Twice the area within a ring, along its normal (Newell). */
const areaOf = (corners: readonly Vec3[]): Vec3 =>
  corners.reduce<Vec3>((sum, corner, i) => add(sum, cross(corner, corners[(i + 1) % corners.length])), [0, 0, 0]);

/** Coordinates of a place in the plane of a rim. */
function inPlane(place: Vec3, { corners, area }: Rim): [number, number] {
  const normal = unit(area);
  const x = perpendicular(normal);
  const from = sub(place, corners[0]);
  return [dot(from, x), dot(from, cross(normal, x))];
}

/** Rims with those that are holes in them: whose nearest rim around runs the other way, and is no hole itself. */
function withHoles(rims: readonly Rim[]): { outer: Rim; holes: Rim[] }[] {
  const size = ({ area }: Rim): number => Math.hypot(...area);
  // Larger ones first: what runs round a rim is known before it.
  const order = [...rims].sort((a, b) => size(b) - size(a));
  const holes = new Map<Rim, Rim[]>();
  const within = new Set<Rim>();
  order.forEach((rim, k) => {
    const around = order.slice(0, k).findLast((other) => runsRound(other, rim));
    if (!around || within.has(around) || dot(rim.area, around.area) >= 0) return;
    within.add(rim);
    holes.set(around, [...(holes.get(around) ?? []), rim]);
  });
  return rims.filter((rim) => !within.has(rim)).map((outer) => ({ outer, holes: holes.get(outer) ?? [] }));
}

/** How far off the plane of a rim its hole may lie, against the root of the area within it. */
const FLAT = 0.5;

/** Whether a rim runs round another in its own plane (crossings of a ray, Jordan). */
function runsRound(outer: Rim, { corners: [place] }: Rim): boolean {
  const off = dot(sub(place, outer.corners[0]), unit(outer.area));
  if (Math.abs(off) > FLAT * Math.sqrt(Math.hypot(...outer.area))) return false;
  const [x, y] = inPlane(place, outer);
  const flat = outer.corners.map((corner) => inPlane(corner, outer));
  let inside = false;
  flat.forEach(([ax, ay], i) => {
    const [bx, by] = flat[(i + 1) % flat.length];
    if (ay > y !== by > y && x < ax + ((y - ay) * (bx - ax)) / (by - ay)) inside = !inside;
  });
  return inside;
}
