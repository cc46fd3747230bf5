import { placeIn } from '../../curves/elements';
import { noise3 } from '../../fields/noise';
import { faceCount, MESH, type Mesh, vertexCount } from '../../geometry/mesh';
import { at } from '../../geometry/vec';
import { followedNormals, weldedNormals } from '../../surfaces/edit/updateNormals';
import type { StepContext } from '../declare';
import type { DisplaceParams } from './displace';
import { progressOf } from './motion';

const CHUNK = 8192;

/** The noise at its place in the family that it belongs to, −1..1 about. */
const FAMILIES: Record<string, (noise: number) => number> = {
  soft: (noise) => noise,
  // Musgrave's ridges (Ebert and others, Texturing and Modeling, 2003, chapter 16): 1 where the noise goes through nothing.
  ridges: (noise) => 1 - 2 * Math.min(1, 2 * Math.abs(noise)),
  swellings: (noise) => 2 * Math.min(1, 2 * Math.abs(noise)) - 1,
};

/** A mesh raised and sunk along its normals, with the normals that it has then. */
export async function runDisplace(mesh: Mesh, p: DisplaceParams, context: StepContext): Promise<Mesh> {
  const n = vertexCount(mesh);
  const { passed, period } =
    p.noise > 0 || context.varies('noise') ? progressOf(p.evolve, true, context) : { passed: 0, period: 0 };
  // What moves before it keeps its noise: that goes by where things are on the form as it stands at the last frame.
  const last = (await context.inputAtLast()).mesh;
  const rest = last && vertexCount(last) === n && faceCount(last) === faceCount(mesh) ? last : mesh;
  const [amount, strength] = [context.varied('amount'), context.varied('noise')];
  const element = placeIn(MESH, mesh, 'vertex', 1);
  const ways = await weldedNormals(mesh, () => context.yieldNow());
  const positions = new Float32Array(3 * n);
  const out = new Float64Array(1);
  const shape = { detail: p.detail, roughness: p.roughness, seed: context.seed, period };
  const family = FAMILIES[p.family];
  for (let i = 0; i < n; i++) {
    if (i % CHUNK === CHUNK - 1) await context.yieldNow();
    element.at = i;
    element.u = mesh.u ? Math.min(1, mesh.u[i]) : 0;
    const k = strength(element);
    let by = amount(element);
    if (k !== 0) {
      const [x, y, z] = at(rest.positions, i);
      noise3(x / p.size, y / p.size, z / p.size, passed, shape, out);
      by += k * family(out[0]);
    }
    for (let c = 0; c < 3; c++) positions[3 * i + c] = mesh.positions[3 * i + c] + by * ways[3 * i + c];
  }
  return { ...mesh, positions, normals: await followedNormals(mesh, positions, () => context.yieldNow()) };
}
