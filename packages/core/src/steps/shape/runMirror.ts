import { distancesFrom, mirroredForm, type MirrorPlane } from '../../curves/mirrorForm';
import { framedForm, turnOf } from '../../curves/moveForm';
import { pickColumns } from '../../geometry/carrier';
import { type Form, POINTS } from '../../geometry/form';
import { joinForms } from '../../geometry/joinForms';
import { faceCount, type Mesh, vertexCount } from '../../geometry/mesh';
import { pointCount } from '../../geometry/paths';
import { facesFrom } from '../../geometry/topology/faceAttributes';
import { keptSeats } from '../../geometry/seats';
import { turnedBy } from '../../geometry/turns';
import { scale } from '../../geometry/vec';
import { Problem } from '../../problem';
import { cutMesh } from '../../surfaces/edit/cutMesh';
import { axisOf } from '../axisParam';
import type { StepContext } from '../declare';
import type { MirrorParams } from './mirror';

/** Light runs on over the mirror where a skin meets its image at less than this, as the sine of half the angle. */
const SOFT = Math.sin(Math.PI / 6);

/** A form with its mirror image. */
export async function runMirror(form: Form, p: MirrorParams, context: StepContext): Promise<Form> {
  const yieldNow = (): Promise<void> => context.yieldNow();
  const plane = planeOf(p, context);
  const framed = framedForm(form);
  const half = p.side === 'both' ? framed : await oneSide(framed, plane, p.side === 'front' ? 1 : -1, yieldNow);
  if (!p.keep) return mirroredForm(half, plane);
  const { paths, mesh, points, seats } = half;
  context.claim(
    'points',
    2 * ((paths ? pointCount(paths) : 0) + (points?.ids.length ?? 0)),
    'the number of points before',
  );
  if (mesh) context.claim('faces', 2 * faceCount(mesh), 'the number of faces before');
  if (seats) context.claim('copies', 2 * seats.ids.length, 'the number of copies before');
  const met = mesh && p.join > 0 ? ontoPlane(mesh, plane, p.join) : null;
  const joined = met ? { ...half, mesh: met.mesh } : half;
  const image = mirroredForm(joined, plane);
  // To the last bit: what lies on the mirror is its own image.
  if (met) for (const i of met.onto) image.mesh!.positions.set(met.mesh.positions.subarray(3 * i, 3 * i + 3), 3 * i);
  return joinForms([joined, image], yieldNow);
}

function planeOf(p: MirrorParams, context: StepContext): MirrorPlane {
  if (p.plane !== 'guide') {
    const normal = axisOf(p.plane);
    return { origin: scale(normal, p.at), normal };
  }
  const guide = p.guide === null ? null : context.guide('guide');
  if (!guide) throw new Problem('No guide is chosen as the mirror.', 'Choose one, or an axis.');
  return { origin: guide.position, normal: turnedBy(turnOf(...guide.rotation), [0, 1, 0]) };
}

/** What lies on one side: skins are cut, points and copies left out; paths stay as they are. @param side 1 or −1 */
async function oneSide(form: Form, plane: MirrorPlane, side: 1 | -1, yieldNow: () => Promise<void>): Promise<Form> {
  const there = (positions: Float32Array): number[] =>
    [...distancesFrom(plane, positions).entries()].filter(([, d]) => side * d >= 0).map(([i]) => i);
  const { mesh, points, seats } = form;
  return {
    ...form,
    mesh:
      mesh &&
      (await cutMesh(
        mesh,
        distancesFrom(plane, mesh.positions).map((d) => side * d),
        false,
        yieldNow,
      )),
    points: points && { ...points, ...pickColumns(POINTS, points, 'point', there(points.positions)) },
    seats: seats && keptSeats(seats, there(seats.positions)),
  };
}

/**
 * A skin whose vertices near the mirror lie on it, so that they meet their images; faces that lie in it are left out, since they
 * would stand inside.
 * @returns the skin, and the vertices that lie on the mirror
 */
function ontoPlane(mesh: Mesh, plane: MirrorPlane, gap: number): { mesh: Mesh; onto: number[] } {
  const away = distancesFrom(plane, mesh.positions);
  const [positions, normals] = [mesh.positions.slice(), mesh.normals.slice()];
  const lies = new Uint8Array(vertexCount(mesh));
  const onto: number[] = [];
  for (let i = 0; i < lies.length; i++) {
    if (Math.abs(away[i]) > gap) continue;
    lies[i] = 1;
    onto.push(i);
    let upright = 0;
    for (let c = 0; c < 3; c++) {
      positions[3 * i + c] -= away[i] * plane.normal[c];
      upright += normals[3 * i + c] * plane.normal[c];
    }
    if (Math.abs(upright) > SOFT) continue;
    const rest = Math.sqrt(1 - upright * upright);
    for (let c = 0; c < 3; c++) normals[3 * i + c] = (normals[3 * i + c] - upright * plane.normal[c]) / rest;
  }
  const kept: number[] = [];
  const indices: number[] = [];
  for (let f = 0; f < mesh.indices.length; f += 3) {
    const [a, b, c] = mesh.indices.subarray(f, f + 3);
    if (lies[a] && lies[b] && lies[c]) continue;
    kept.push(f / 3);
    indices.push(a, b, c);
  }
  const moved: Mesh = { ...mesh, positions, normals, indices: Uint32Array.from(indices) };
  return { mesh: kept.length === faceCount(mesh) ? { ...moved, indices: mesh.indices } : facesFrom(moved, kept), onto };
}
