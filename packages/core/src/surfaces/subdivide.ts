import { type Mesh, weld } from '../geometry/mesh';
import { add, at, cross, distance, dot, scale, sub, unit, type Vec3 } from '../geometry/vec';
import { angleBetween, type Mix, mixedMesh, ringNormal, withSoftNormals } from './softNormals';

/** Places and faces of any number of corners, each with the old vertices that its places come from. */
interface Polygons {
  places: Vec3[];
  mixes: Mix[];
  faces: number[][];
  /** Edges that stay sharp, by `edgeKey`. */
  sharp: Set<string>;
}

const edgeKey = (a: number, b: number): string => (a < b ? `${a},${b}` : `${b},${a}`);

/**
 * Subdivides a mesh by the rule of Catmull and Clark (Recursively generated B-spline surfaces on arbitrary topological
 * meshes, Computer-Aided Design 10, 1978); edges sharper than a limit, and open ones, stay creases (DeRose, Kass and
 * Truong, Subdivision surfaces in character animation, SIGGRAPH 1998).
 * @param levels how many times, 1 or more
 * @param crease radians; π keeps no crease but open edges
 */
export function subdivided(mesh: Mesh, levels: number, crease: number): Mesh {
  let polygons = polygonsOf(mesh, crease);
  for (let level = 0; level < levels; level++) polygons = refined(polygons);
  const { places, mixes, faces } = polygons;
  const flat = mixedMesh(mesh, mixes);
  flat.positions = new Float32Array(places.flat());
  flat.indices = Uint32Array.from(
    faces.flatMap((face) => face.slice(2).flatMap((corner, k) => [face[0], face[k + 1], corner])),
  );
  return withSoftNormals(flat, Math.min(crease, Math.PI));
}

/** The faces of a mesh, triangles put together to quadrangles where they were halves of one. */
function polygonsOf(mesh: Mesh, crease: number): Polygons {
  const { of, first } = weld(mesh);
  const places = Array.from(first, (i) => at(mesh.positions, i));
  const triangles: number[][] = [];
  for (let i = 0; i < mesh.indices.length; i += 3) {
    const face = [0, 1, 2].map((k) => of[mesh.indices[i + k]]);
    if (face[0] !== face[1] && face[1] !== face[2] && face[2] !== face[0]) triangles.push(face);
  }
  const faces = quadrangles(triangles, places);
  const sharp = new Set<string>();
  const normals = faces.map((face) => unit(ringNormal(face.map((corner) => places[corner]))));
  for (const [key, sides] of edgesOf(faces))
    if (sides.length !== 2 || angleBetween(normals[sides[0]], normals[sides[1]]) > crease) sharp.add(key);
  return { places, mixes: Array.from(first, (i) => [[i, 1]] as const), faces, sharp };
}

/** For each edge the faces that it lies in. */
function edgesOf(faces: readonly (readonly number[])[]): Map<string, number[]> {
  const edges = new Map<string, number[]>();
  faces.forEach((face, f) =>
    face.forEach((a, k) => {
      const key = edgeKey(a, face[(k + 1) % face.length]);
      const sides = edges.get(key);
      if (sides) sides.push(f);
      else edges.set(key, [f]);
    }),
  );
  return edges;
}

/** Puts pairs of triangles together that lie in one plane and share the longest side of both. */
function quadrangles(triangles: readonly number[][], places: readonly Vec3[]): number[][] {
  const normals = triangles.map((face) => unit(ringNormal(face.map((corner) => places[corner]))));
  const longest = triangles.map((face) =>
    Math.max(...face.map((a, k) => distance(places[a], places[face[(k + 1) % 3]]))),
  );
  const taken = new Uint8Array(triangles.length);
  const quads: number[][] = [];
  for (const [key, [f, g, ...more]] of edgesOf(triangles)) {
    if (g === undefined || more.length > 0 || taken[f] || taken[g] || dot(normals[f], normals[g]) < 0.98) continue;
    const [a, b] = key.split(',').map(Number);
    if (distance(places[a], places[b]) < (1 - 1e-6) * Math.max(longest[f], longest[g])) continue;
    const k = triangles[f].findIndex((corner) => corner !== a && corner !== b);
    const far = triangles[g].find((corner) => corner !== a && corner !== b)!;
    const [top, from, to] = [0, 1, 2].map((step) => triangles[f][(k + step) % 3]);
    taken[f] = taken[g] = 1;
    quads.push([top, from, far, to]);
  }
  return [...quads, ...triangles.filter((_, f) => !taken[f])];
}

/** One round of the rule. */
function refined({ places, mixes, faces, sharp }: Polygons): Polygons {
  const next: Polygons = { places: [], mixes: [], faces: [], sharp: new Set() };
  const put = (place: Vec3, of: readonly number[]): number => {
    next.mixes.push(mixOf(of.map((i) => mixes[i])));
    return next.places.push(place) - 1;
  };
  const mean = (list: readonly Vec3[]): Vec3 =>
    scale(
      list.reduce<Vec3>((sum, p) => add(sum, p), [0, 0, 0]),
      1 / list.length,
    );
  const centres = faces.map((face) => mean(face.map((corner) => places[corner])));
  const edges = edgesOf(faces);
  const around = places.map(() => ({ faces: [] as number[], middles: [] as Vec3[], creases: [] as number[] }));
  faces.forEach((face, f) => face.forEach((corner) => around[corner].faces.push(f)));
  const edgePoints = new Map<string, Vec3>();
  for (const [key, sides] of edges) {
    const [a, b] = key.split(',').map(Number);
    const middle = mean([places[a], places[b]]);
    for (const [corner, other] of [
      [a, b],
      [b, a],
    ]) {
      around[corner].middles.push(middle);
      if (sharp.has(key)) around[corner].creases.push(other);
    }
    edgePoints.set(key, sharp.has(key) ? middle : mean([places[a], places[b], ...sides.map((f) => centres[f])]));
  }
  const cornerAt = places.map((place, i) => {
    const { faces: near, middles, creases } = around[i];
    const n = middles.length;
    if (n === 0 || creases.length > 2) return put(place, [i]);
    if (creases.length === 2) {
      const [a, b] = creases.map((other) => places[other]);
      return put(scale(add(add(a, b), scale(place, 6)), 1 / 8), [i]);
    }
    const [q, r] = [mean(near.map((f) => centres[f])), mean(middles)];
    return put(scale(add(add(q, scale(r, 2)), scale(place, n - 3)), 1 / n), [i]);
  });
  const edgeAt = new Map<string, number>();
  for (const [key, point] of edgePoints) edgeAt.set(key, put(point, key.split(',').map(Number)));
  faces.forEach((face, f) => {
    const centre = put(centres[f], face);
    face.forEach((corner, k) => {
      const [before, after] = [face[(k + face.length - 1) % face.length], face[(k + 1) % face.length]];
      const [into, out] = [edgeKey(before, corner), edgeKey(corner, after)];
      next.faces.push([cornerAt[corner], edgeAt.get(out)!, centre, edgeAt.get(into)!]);
      if (sharp.has(out)) {
        next.sharp.add(edgeKey(cornerAt[corner], edgeAt.get(out)!));
        next.sharp.add(edgeKey(cornerAt[after], edgeAt.get(out)!));
      }
    });
  });
  return next;
}

/** Mixes in equal shares. */
function mixOf(parts: readonly Mix[]): Mix {
  if (parts.length === 1) return parts[0];
  const sum = new Map<number, number>();
  for (const part of parts)
    for (const [vertex, weight] of part) sum.set(vertex, (sum.get(vertex) ?? 0) + weight / parts.length);
  return [...sum];
}

/**
 * A mesh made thick: both its faces, moved apart along the normals, and rims where it is open. Closed meshes become
 * shells.
 * @param thick metres
 * @param side where the new face lies: 0 half on each side, 1 outside, −1 inside
 */
export function thickened(mesh: Mesh, thick: number, side: -1 | 0 | 1): Mesh {
  const { of, first } = weld(mesh);
  const m = first.length;
  const sums = Array.from({ length: m }, (): Vec3 => [0, 0, 0]);
  const lean = new Float64Array(m);
  const faces: number[][] = [];
  for (let i = 0; i < mesh.indices.length; i += 3) {
    const face = [0, 1, 2].map((k) => of[mesh.indices[i + k]]);
    if (face[0] === face[1] || face[1] === face[2] || face[2] === face[0]) continue;
    faces.push(face);
    const p = face.map((corner) => at(mesh.positions, first[corner]));
    const normal = unit(cross(sub(p[1], p[0]), sub(p[2], p[0])), [0, 0, 0]);
    face.forEach((corner, k) => {
      const weight = angleBetween(sub(p[(k + 1) % 3], p[k]), sub(p[(k + 2) % 3], p[k]));
      sums[corner] = add(sums[corner], scale(normal, weight));
      lean[corner] += weight;
    });
  }
  // Where faces lean apart, their corner goes further, so that the faces keep their distance; sharp points do not run off.
  const away = sums.map((sum, i) => {
    const flat = lean[i] > 0 ? Math.hypot(...sum) / lean[i] : 1;
    return scale(unit(sum), 1 / Math.max(0.35, flat));
  });
  const [outer, inner] = [((side + 1) / 2) * thick, ((side - 1) / 2) * thick];
  const mixes: Mix[] = [...first, ...first].map((i) => [[i, 1]] as const);
  const made = mixedMesh(mesh, mixes);
  away.forEach((normal, i) => {
    const place = at(mesh.positions, first[i]);
    made.positions.set(add(place, scale(normal, outer)), 3 * i);
    made.positions.set(add(place, scale(normal, inner)), 3 * (m + i));
  });
  const directed = new Set(faces.flatMap((face) => face.map((a, k) => `${a},${face[(k + 1) % 3]}`)));
  const indices: number[] = [];
  for (const [a, b, c] of faces) {
    indices.push(a, b, c, m + a, m + c, m + b);
    for (const [p, q] of [
      [a, b],
      [b, c],
      [c, a],
    ])
      if (!directed.has(`${q},${p}`)) indices.push(q, p, m + p, q, m + p, m + q);
  }
  made.indices = Uint32Array.from(indices);
  return withSoftNormals(made, Math.PI / 4);
}
