import { nodePaths } from '../../curves/nodePaths';
import { random } from '../../fields/random';
import { wholeMesh } from '../../geometry/copies';
import { type Mesh, vertexCount } from '../../geometry/mesh';
import { type Paths, pathsFrom } from '../../geometry/paths';
import { topologyInTime } from '../../geometry/topology/topology';
import type { Vec3 } from '../../geometry/vec';
import { pointAttributes } from '../../surfaces/edit/contourLines';
import { edgeTree, edgeWalks, nearestVertex } from '../../surfaces/fronts/edgeWays';
import type { StepContext } from '../declare';
import type { EdgePathsParams } from './edgePaths';
import { skinIn } from './others';

/** Paths along the edges of a skin; null where none leads anywhere. */
export async function runEdgePaths(p: EdgePathsParams, context: StepContext): Promise<Paths | null> {
  const yieldNow = (): Promise<void> => context.yieldNow();
  const mesh = await skinIn(context, 'growth', p.growth);
  // Found on the skin as it is at the last frame, so that they do not leap from edge to edge while it moves.
  const last = wholeMesh(await context.otherAt('growth', 'last'));
  const rest = last && vertexCount(last) === vertexCount(mesh) ? last : mesh;
  const topology = await topologyInTime(rest, yieldNow);
  await topology.findEdges(yieldNow);
  const { neighbours, weld } = topology;
  const placesOn = ({ positions }: Mesh): Float64Array =>
    Float64Array.from({ length: 3 * weld.first.length }, (_, i) => positions[3 * weld.first[(i / 3) | 0] + (i % 3)]);
  const places = placesOn(rest);
  const now = rest === mesh ? places : placesOn(mesh);
  const towards = p.target === null ? ([p.endX, p.endY, p.endZ] as Vec3) : (await context.places('target'))[0];
  if (p.way === 'walk') {
    const { seed } = context;
    const { count, length, straight, pull } = p;
    const walks = await edgeWalks(
      places,
      neighbours,
      { count, length, straight, pull, towards: towards ?? [0, 0, 0], seed },
      yieldNow,
    );
    context.claim(
      'points',
      walks.reduce((sum, walk) => sum + walk.length, 0),
      'Count or Length',
    );
    const sources = walks.map((walk) => ({
      positions: walk.flatMap((i) => [now[3 * i], now[3 * i + 1], now[3 * i + 2]]),
    }));
    return {
      ...pathsFrom(sources),
      named: pointAttributes(
        mesh,
        walks.flat().map((i) => weld.first[i]),
      ),
    };
  }
  const begin = p.start === null ? ([p.fromX, p.fromY, p.fromZ] as Vec3) : (await context.places('start'))[0];
  const root = begin ? nearestVertex(places, neighbours, begin) : -1;
  if (root < 0) return null;
  const ends =
    p.to === 'place'
      ? towards
        ? [nearestVertex(places, neighbours, towards)]
        : []
      : chosen(neighbours.starts, p.count, context.seed);
  const found = await edgeTree(places, neighbours, { root, ends, wander: p.wander, seed: context.seed }, yieldNow);
  if (found.tree.parents.length < 2) return null;
  context.claim('points', found.tree.parents.length, 'Count');
  const positions = Float32Array.from(
    { length: 3 * found.places.length },
    (_, i) => now[3 * found.places[(i / 3) | 0] + (i % 3)],
  );
  return nodePaths({ ...found.tree, positions }, { running: p.running, exponent: p.exponent });
}

/** So many places that edges lead to, by chance; more of them leave out none of these. */
function chosen(starts: Uint32Array, count: number, seed: number): number[] {
  const all = [...Array(starts.length - 1).keys()].filter((i) => starts[i + 1] > starts[i]);
  const order = new Float64Array(starts.length);
  for (const i of all) order[i] = random(seed, i, 3);
  return all.sort((a, b) => order[a] - order[b]).slice(0, count);
}
