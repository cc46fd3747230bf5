import { areaAndVolume, type Mesh, meshWith } from '../../geometry/mesh';
import { add, at, cross, dot, ringNormal, scale, sub, unit, type Vec3, perpendicular } from '../../geometry/vec';
import { fillOutline } from './fillOutline';
import type { Section } from './loftSections';
import type { SweepHooks } from './sweepTubes';

/** Where a row of a loft stands: a section's own x, y and z are turned to these axes and put at the origin. */
export interface LoftFrame {
  origin: Vec3;
  x: Vec3;
  y: Vec3;
}

/** How sections become a skin. */
export interface LoftShape {
  /** Rows of faces from one section to the next. */
  rows: number;
  /** The skin bends smoothly through the sections; else it goes straight from each to the next. */
  smooth: boolean;
  /** The last section is followed by the first. */
  loop: boolean;
  /** Closes both ends, where the sections are closed. */
  caps: boolean;
  /** The part that there is: shares 0..1 of the way from the first section to the last. */
  from: number;
  to: number;
  /** Where a share of the way stands; left out where sections stand where they are. */
  frameAt?: (share: number) => LoftFrame;
}

/**
 * A skin through sections in their order, each with the same contours of the same number of points. Smooth, each point runs along a
 * Catmull-Rom curve through its places in the sections. It faces outwards where it is closed.
 * @returns the mesh, its normals still 0
 */
export async function loftMesh(sections: readonly Section[], shape: LoftShape, hooks: SweepHooks = {}): Promise<Mesh> {
  const m = sections.length;
  const spans = shape.loop ? m : m - 1;
  const rows = rowsBetween(shape.from * spans, shape.to * spans, shape.rows);
  const contours = sections[0];
  const each = contours.reduce((sum, { positions }) => sum + positions.length / 3, 0);
  const whole = shape.loop && shape.from <= 0 && shape.to >= 1;
  const capped = shape.caps && !whole && contours.every(({ closed }) => closed) && rows.length > 1;
  const vertices = each * (rows.length + (capped ? 2 : 0));
  hooks.claim?.(vertices, 2 * each * Math.max(0, rows.length - 1) + (capped ? 2 * each : 0));
  const positions = new Float32Array(3 * vertices);
  const [uvs, u, tip] = [new Float32Array(2 * vertices), new Float32Array(vertices), new Float32Array(vertices)];
  /** Whether a contour of a row is a point. */
  const shrunk = rows.map(() => contours.map(() => false));
  const local = new Float64Array(3 * each);
  const flats: (readonly number[][])[] = [];
  let way = 0;
  let before: Vec3 | null = null;
  for (const [r, f] of rows.entries()) {
    await hooks.yieldNow?.();
    const k = Math.min(spans - 1, Math.floor(f));
    const t = f - k;
    const next = (k + 1) % m;
    mixSections(sections, k, t, shape, local);
    for (let c = 0; c < contours.length; c++)
      shrunk[r][c] = (t === 1 || sections[k][c].shrunk) && (t === 0 || sections[next][c].shrunk);
    const frame = shape.frameAt?.(f / spans);
    const z = frame && cross(frame.x, frame.y);
    let v = r * each;
    for (const contour of contours) {
      const n = contour.positions.length / 3;
      for (let i = 0; i < n; i++, v++) {
        const spot = at(local, v - r * each);
        const put = frame
          ? add(frame.origin, add(add(scale(frame.x, spot[0]), scale(frame.y, spot[1])), scale(z!, spot[2])))
          : spot;
        positions.set(put, 3 * v);
        uvs[2 * v] = i / (contour.closed ? n : n - 1);
        u[v] = f / spans;
      }
    }
    const middle = middleOfRow(positions, r * each, each);
    if (before) way += Math.hypot(...sub(middle, before));
    before = middle;
    for (let i = r * each; i < (r + 1) * each; i++) uvs[2 * i + 1] = tip[i] = way;
    if (capped && (r === 0 || r === rows.length - 1)) flats.push(flattened(positions, r * each, sections[0]));
  }
  for (let i = 0; i < each * rows.length; i++) tip[i] = way - tip[i];
  const indices: number[] = [];
  for (let r = 1; r < rows.length; r++) {
    if (r % 64 === 0) await hooks.yieldNow?.();
    let first = (r - 1) * each;
    for (const [c, { closed, positions: points }] of contours.entries()) {
      const n = points.length / 3;
      for (let i = 0; i < (closed ? n : n - 1); i++) {
        const j = (i + 1) % n;
        if (!shrunk[r - 1][c]) indices.push(first + i, first + j, first + each + j);
        if (!shrunk[r][c]) indices.push(first + i, first + each + j, first + each + i);
      }
      first += n;
    }
  }
  if (capped)
    for (const [end, flat] of flats.entries()) {
      const row = end * (rows.length - 1);
      const start = each * (rows.length + end);
      copyRow([positions, 3], row * each, start, each);
      for (const array of [u, tip]) copyRow([array, 1], row * each, start, each);
      const kept = contours.flatMap(({ positions: points }, c) =>
        shrunk[row][c] ? [] : [{ c, n: points.length / 3 }],
      );
      const firsts = contours.map((_, c) =>
        contours.slice(0, c).reduce((sum, { positions: p }) => sum + p.length / 3, 0),
      );
      const numbers = kept.flatMap(({ c, n }) => Array.from({ length: n }, (_, i) => start + firsts[c] + i));
      const triangles = fillOutline(kept.map(({ c }) => flat[c]));
      for (let i = 0; i < each; i++) uvs.set(flat.flat().slice(2 * i, 2 * i + 2), 2 * (start + i));
      for (let t = 0; t < triangles.length; t += 3) {
        const [a, b, c] = triangles.slice(t, t + 3).map((i) => numbers[i]);
        indices.push(...(end === 0 ? [a, c, b] : [a, b, c]));
      }
    }
  const mesh = meshWith({
    positions,
    normals: new Float32Array(3 * vertices),
    uvs,
    u,
    tip: whole ? null : tip,
    indices: Uint32Array.from(indices),
  });
  const closed = contours.every((contour) => contour.closed);
  if (
    closed &&
    rows.length > 1 &&
    (capped || whole ? areaAndVolume(mesh).volume < 0 : runsBack(positions, sections[0], each))
  )
    turnOver(mesh.indices);
  return mesh;
}

/** Places of rows: the ends of what there is, and what lies between of evenly many to each span, so that rows stay where they are. */
function rowsBetween(from: number, to: number, each: number): number[] {
  if (!(to > from)) return [];
  const rows = [from];
  for (let i = Math.floor(from * each) + 1; i / each < to; i++) if (i / each > from + 1e-9) rows.push(i / each);
  if (to - rows.at(-1)! > 1e-9) rows.push(to);
  return rows;
}

/** The contours between sections k and k + 1. @param out 3 numbers a point */
function mixSections(
  sections: readonly Section[],
  k: number,
  t: number,
  { smooth, loop }: LoftShape,
  out: Float64Array,
): void {
  const m = sections.length;
  const wrap = (i: number): number => (loop ? (i + m) % m : Math.max(0, Math.min(m - 1, i)));
  const near = [wrap(k - 1), wrap(k), wrap(k + 1), wrap(k + 2)].map((i) => sections[i]);
  // The uniform Catmull-Rom basis (Catmull and Rom, A class of local interpolating splines, 1974): sections are evenly apart.
  const bent = [
    t * (-0.5 + t * (1 - 0.5 * t)),
    1 + t * t * (-2.5 + 1.5 * t),
    t * (0.5 + t * (2 - 1.5 * t)),
    t * t * (-0.5 + 0.5 * t),
  ];
  // Past the ends of an open row of sections they go on evenly.
  const first = !loop && k === 0;
  const last = !loop && k === m - 2;
  let write = 0;
  for (let c = 0; c < sections[0].length; c++) {
    const [p0, p1, p2, p3] = near.map((section) => section[c].positions);
    // A hole that closes goes straight to its point: a curve would run through it and turn the hole inside out.
    const closes = near[1][c].shrunk || near[2][c].shrunk;
    const weights = smooth && !closes ? bent : [0, 1 - t, t, 0];
    for (let i = 0; i < p1.length; i++) {
      const a = first ? 2 * p1[i] - p2[i] : p0[i];
      const d = last ? 2 * p2[i] - p1[i] : p3[i];
      out[write++] = weights[0] * a + weights[1] * p1[i] + weights[2] * p2[i] + weights[3] * d;
    }
  }
}

function middleOfRow(positions: Float32Array, first: number, count: number): Vec3 {
  let sum: Vec3 = [0, 0, 0];
  for (let i = first; i < first + count; i++) sum = add(sum, at(positions, i));
  return scale(sum, 1 / count);
}

/** The contours of a row in the plane that its outer one lies in, as nearly as that goes. */
function flattened(positions: Float32Array, first: number, section: Section): number[][] {
  const outer = Array.from({ length: section[0].positions.length / 3 }, (_, i) => at(positions, first + i));
  const z = unit(ringNormal(outer));
  const x = perpendicular(z);
  const y = cross(z, x);
  let from = first;
  return section.map(({ positions: points }) => {
    const n = points.length / 3;
    const flat = Array.from({ length: n }, (_, i) => at(positions, from + i)).flatMap((spot) => [
      dot(spot, x),
      dot(spot, y),
    ]);
    from += n;
    return flat;
  });
}

/** Whether a loft's outer contours run clockwise seen from where it goes to. */
function runsBack(positions: Float32Array, section: Section, each: number): boolean {
  const outer = Array.from({ length: section[0].positions.length / 3 }, (_, i) => at(positions, i));
  return dot(ringNormal(outer), sub(middleOfRow(positions, each, each), middleOfRow(positions, 0, each))) < 0;
}

function copyRow([array, width]: readonly [Float32Array, number], from: number, to: number, count: number): void {
  array.copyWithin(width * to, width * from, width * (from + count));
}

function turnOver(indices: Uint32Array): void {
  for (let f = 0; f < indices.length; f += 3) [indices[f + 1], indices[f + 2]] = [indices[f + 2], indices[f + 1]];
}
