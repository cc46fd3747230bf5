import type { YieldNow } from '../yieldNow';
import { filled, mapped } from '../geometry/filled';
import { type Attribute, NO_NAMED } from '../geometry/attributes';
import { type Mesh, meshWith } from '../geometry/mesh';
import { keepTopology, topologyInTime, topologyOf } from '../geometry/topology/topology';
import { withSoftNormals } from '../surfaces/edit/smoothNormals';
import type { RawForm } from './rawForm';
import { boxAround, middleOf, sidesOf } from '../geometry/box';

/** How a form from a file is taken. */
export interface Taking {
  /** Which axis of the file is up. */
  up: 'y' | 'z' | 'x';
  /** Metres that one of the file's units is. */
  unit: number;
  /** Edges where faces meet at less than this are soft where the file has no normals, radians. */
  soft: number;
  /** Stands on the ground with its middle over the origin. */
  ground: boolean;
}

/** Forms upright in their own units, as they were last taken: only their size may be another. */
const uprights = new WeakMap<RawForm, { as: string; mesh: Mesh }>();

/** A form from a file as a mesh: doubled vertices made one, upright, in metres. */
export async function taken(raw: RawForm, { up, unit, soft, ground }: Taking, yieldNow: YieldNow): Promise<Mesh> {
  const as = `${up} ${soft}`;
  let known = uprights.get(raw);
  if (known?.as !== as) uprights.set(raw, (known = { as, mesh: await upright(raw, up, soft, yieldNow) }));
  const { mesh } = known;
  await topologyInTime(mesh, yieldNow);
  const positions = mapped(Float32Array, mesh.positions, (x) => unit * x);
  if (ground) stand(positions);
  keepTopology(mesh, positions);
  return { ...mesh, positions };
}

async function upright(raw: RawForm, up: Taking['up'], soft: number, yieldNow: YieldNow): Promise<Mesh> {
  const welded = raw.normals ? raw : weldedForm(raw);
  const turned = (flat: Float32Array): Float32Array => {
    const out = new Float32Array(flat.length);
    for (let i = 0; i < flat.length; i += 3) {
      const [x, y, z] = [flat[i], flat[i + 1], flat[i + 2]];
      // Turned, not mirrored.
      out.set(up === 'y' ? [x, y, z] : up === 'z' ? [x, z, -y] : [-y, x, z], i);
    }
    return out;
  };
  const positions = turned(welded.positions);
  const n = positions.length / 3;
  const part: Attribute | null = welded.parts && {
    domain: 'vertex',
    width: 1,
    blend: 'nearest',
    missing: 0,
    values: welded.parts,
  };
  const mesh = meshWith({
    positions,
    normals: welded.normals ? turned(welded.normals) : new Float32Array(3 * n),
    uvs: welded.uvs ?? new Float32Array(2 * n),
    indices: withoutNothing(welded.indices, positions),
    colors: welded.colors,
    u: heightShares(positions),
    named: part ? { part } : NO_NAMED,
  });
  return welded.normals ? mesh : withSoftNormals(mesh, soft, yieldNow);
}

/** Vertices that are the same in all they know, as one: files of loose triangles hold each corner many times. */
function weldedForm(raw: RawForm): RawForm {
  const { positions, uvs, colors, parts, indices } = raw;
  const n = positions.length / 3;
  const { of, first } = topologyOf({ positions, indices }).weld;
  // At each place the different ones one after another.
  const heads = new Int32Array(first.length).fill(-1);
  const next = new Int32Array(n).fill(-1);
  const number = new Uint32Array(n);
  const kept: number[] = [];
  const same = (i: number, j: number): boolean => {
    for (const [flat, width] of [
      [uvs, 2],
      [colors, 3],
      [parts, 1],
    ] as const)
      for (let c = 0; flat && c < width; c++) if (flat[width * i + c] !== flat[width * j + c]) return false;
    return true;
  };
  for (let i = 0; i < n; i++) {
    const place = of[i];
    let found = heads[place];
    while (found >= 0 && !same(kept[found], i)) found = next[found];
    if (found < 0) {
      found = kept.length;
      kept.push(i);
      next[found] = heads[place];
      heads[place] = found;
    }
    number[i] = found;
  }
  const only = (flat: Float32Array | null, width: number): Float32Array | null => {
    if (!flat) return null;
    const out = new Float32Array(width * kept.length);
    kept.forEach((i, k) => {
      for (let c = 0; c < width; c++) out[width * k + c] = flat[width * i + c];
    });
    return out;
  };
  return {
    ...raw,
    positions: only(positions, 3)!,
    uvs: only(uvs, 2),
    colors: only(colors, 3),
    parts: only(parts, 1),
    indices: indices.map((i) => number[i]),
  };
}

/** Faces whose corners are three places. */
function withoutNothing(indices: Uint32Array, positions: Float32Array): Uint32Array {
  const same = (i: number, j: number): boolean =>
    i === j || [0, 1, 2].every((c) => positions[3 * i + c] === positions[3 * j + c]);
  const kept: number[] = [];
  for (let f = 0; f < indices.length; f += 3)
    if (!same(indices[f], indices[f + 1]) && !same(indices[f + 1], indices[f + 2]) && !same(indices[f + 2], indices[f]))
      kept.push(f);
  if (3 * kept.length === indices.length) return indices;
  const out = new Uint32Array(3 * kept.length);
  kept.forEach((f, k) => out.set(indices.subarray(f, f + 3), 3 * k));
  return out;
}

/** What stands in the place of a rest coordinate: from the foot to the top. */
function heightShares(positions: Float32Array): Float32Array {
  let [low, high] = [Infinity, -Infinity];
  for (let i = 1; i < positions.length; i += 3) {
    low = Math.min(low, positions[i]);
    high = Math.max(high, positions[i]);
  }
  return filled(Float32Array, positions.length / 3, (i) =>
    high > low ? (positions[3 * i + 1] - low) / (high - low) : 0,
  );
}

function stand(positions: Float32Array): void {
  const box = boxAround(positions);
  const [x, , z] = middleOf(box);
  const by = [x, box.low[1], z];
  for (let i = 0; i < positions.length; i++) positions[i] -= by[i % 3];
}

/** Largest extent of a form along any axis, in the file's own unit. */
export function extentOf({ positions }: RawForm): number {
  return Math.max(...sidesOf(boxAround(positions)));
}
