import { filled } from '../../geometry/filled';
import { oneNumber } from '../../geometry/attributes';
import { treeInTime } from '../../geometry/search/meshTree';
import { nearestPlace } from '../../geometry/search/nearest';
import { faceCount, type Mesh, vertexCount } from '../../geometry/mesh';
import { pinPlaces } from '../../geometry/topology/surfacePins';
import { type BrushStroke, isBrushed } from '../../geometry/maskStroke';
import type { SurfacePlaces } from '../../geometry/topology/surfacePlaces';
import { at, cross, sub, unit } from '../../geometry/vec';
import { type Dab, Painter } from '../../surfaces/edit/maskPainter';
import type { StepContext } from '../declare';
import { maskedAs, type MaskParams } from './mask';

/** A mesh that knows what has been painted on it. */
export async function runMask(mesh: Mesh, p: MaskParams, context: StepContext): Promise<Mesh> {
  const values = faceCount(mesh) === 0 ? new Float32Array(vertexCount(mesh)) : await valuesOn(mesh, p, context);
  return { ...mesh, named: { ...mesh.named, [maskedAs(p)]: oneNumber('vertex', values) } };
}

async function valuesOn(mesh: Mesh, p: MaskParams, context: StepContext): Promise<Float32Array> {
  // Painted on the form as it stands at the last frame, and carried from there to where it is now.
  const last = (await context.inputAtLast()).mesh;
  const rest = last && faceCount(last) > 0 ? last : mesh;
  const values = await painted(rest, p, context);
  if (rest === mesh || sameFaces(rest, mesh)) return values;
  const found = pinPlaces(placesOfVertices(mesh), mesh, rest);
  // On a form that is another one at each frame there is nothing to go by: it is painted anew.
  if (!found || found.places.length < vertexCount(mesh)) return painted(mesh, p, context);
  return filled(Float32Array, vertexCount(mesh), (i) => {
    let sum = 0;
    for (let c = 4 * i; c < 4 * i + 4; c++) sum += found.weights[c] * values[found.corners[c]];
    return sum;
  });
}

const sameFaces = (a: Mesh, b: Mesh): boolean => faceCount(a) === faceCount(b) && vertexCount(a) === vertexCount(b);

/** Every vertex as a corner of some face; what is in none is the first corner of the first. */
function placesOfVertices({ indices, positions }: Mesh): SurfacePlaces {
  const n = positions.length / 3;
  const faces = new Uint32Array(n);
  const corner = new Uint8Array(n);
  for (let i = 0; i < indices.length; i++) {
    faces[indices[i]] = Math.floor(i / 3);
    corner[indices[i]] = i % 3;
  }
  const weights = new Float32Array(3 * n);
  for (let i = 0; i < n; i++) weights[3 * i + corner[i]] = 1;
  return { faces, weights };
}

/** Masks that have been painted on a mesh, by what was done: other frames want the same one. */
const known = new WeakMap<Mesh, Map<string, Float32Array>>();
/** Masks kept of each mesh. */
const KEPT = 4;
/** Dabs between two yields. */
const CHUNK = 64;

async function painted(rest: Mesh, p: MaskParams, context: StepContext): Promise<Float32Array> {
  const courses: (Dab[] | null)[] = [];
  for (const stroke of p.strokes) courses.push(isBrushed(stroke) ? await courseOn(rest, stroke, context) : null);
  const key = JSON.stringify([p.mirror, p.plane, p.strokes, courses]);
  const of = known.get(rest) ?? new Map<string, Float32Array>();
  known.set(rest, of);
  const ready = of.get(key);
  if (ready) return ready;
  const painter = new Painter(rest);
  for (const [i, stroke] of p.strokes.entries()) {
    if (!isBrushed(stroke)) {
      painter.whole(stroke.does);
      continue;
    }
    painter.begin(stroke);
    for (const side of mirrored(courses[i]!, p)) {
      for (const [k, dab] of side.entries()) {
        painter.draw(side[Math.max(0, k - 1)], dab);
        if (k % CHUNK === CHUNK - 1) await context.yieldNow();
      }
    }
  }
  if (of.size >= KEPT) of.clear();
  of.set(key, painter.values);
  return painter.values;
}

/** Where a stroke passes on a mesh: on that of its own frame it is looked for by nearness, and goes with the faces from there. */
async function courseOn(rest: Mesh, { frame, points }: BrushStroke, context: StepContext): Promise<Dab[]> {
  const there = (await context.inputAt(frame)).mesh;
  const on = there && faceCount(there) > 0 ? there : rest;
  const found = on === rest ? null : pinPlaces(await nearestPlaces(on, points, context), on, rest);
  if (!found) return dabs(rest, await nearestPlaces(rest, points, context), points);
  return Array.from(found.places, (k, i): Dab => {
    const place = [0, 0, 0];
    const normal: [number, number, number] = [0, 0, 0];
    for (let c = 4 * i; c < 4 * i + 4; c++)
      for (let axis = 0; axis < 3; axis++) {
        place[axis] += found.weights[c] * rest.positions[3 * found.corners[c] + axis];
        normal[axis] += found.weights[c] * rest.normals[3 * found.corners[c] + axis];
      }
    return { place, normal: unit(normal), pressure: points[4 * k + 3] };
  });
}

async function nearestPlaces(on: Mesh, points: readonly number[], context: StepContext): Promise<SurfacePlaces> {
  const n = points.length / 4;
  const places: SurfacePlaces = { faces: new Uint32Array(n), weights: new Float32Array(3 * n) };
  await treeInTime(on, () => context.yieldNow());
  for (let k = 0; k < n; k++) {
    const near = nearestPlace(on, [points[4 * k], points[4 * k + 1], points[4 * k + 2]])!;
    places.faces[k] = near.face;
    places.weights.set(near.weights, 3 * k);
    if (k % CHUNK === CHUNK - 1) await context.yieldNow();
  }
  return places;
}

function dabs({ positions, indices }: Mesh, { faces, weights }: SurfacePlaces, points: readonly number[]): Dab[] {
  return Array.from(faces, (face, k): Dab => {
    const [a, b, c] = [0, 1, 2].map((corner) => at(positions, indices[3 * face + corner]));
    const place = a.map(
      (_, axis) => weights[3 * k] * a[axis] + weights[3 * k + 1] * b[axis] + weights[3 * k + 2] * c[axis],
    );
    return { place, normal: unit(cross(sub(b, a), sub(c, a))), pressure: points[4 * k + 3] };
  });
}

/** A course, and where it is mirrored its image. */
function mirrored(course: readonly Dab[], { mirror, plane }: MaskParams): readonly (readonly Dab[])[] {
  if (mirror === 'none') return [course];
  const axis = 'xyz'.indexOf(mirror);
  const turned = (of: readonly number[], flip: (x: number) => number): number[] =>
    of.map((x, c) => (c === axis ? flip(x) : x));
  return [
    course,
    course.map(({ place, normal, pressure }) => ({
      place: turned(place, (x) => 2 * plane - x),
      normal: turned(normal, (x) => -x),
      pressure,
    })),
  ];
}
