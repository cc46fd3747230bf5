import { mapped } from '../geometry/filled';
import { NO_PARENT, type Paths, pathsFrom } from '../geometry/paths';
import type { NodeTree } from './colonise';

/** How time runs through a tree. */
export type Running = 'even' | 'together' | 'birth';

/** How nodes are made into paths. */
export interface NodePaths {
  running: Running;
  /** Of the pipe model: a branch raised to this power is the sum of its children raised to it. */
  exponent: number;
}

/**
 * A tree of nodes as paths: each goes on into the child that carries most, others begin where they leave it, and name it as their
 * parent. Thickness is by the pipe model (Shinozaki and others, A quantitative analysis of plant form, 1964, with an
 * exponent after Murray, 1926), 1 at the thickest root. `arrival` says when the front comes: at an even pace, at all tips at once, or as
 * the nodes were born.
 */
export function nodePaths({ positions, parents, births }: NodeTree, { running, exponent }: NodePaths): Paths {
  const n = parents.length;
  const from = new Float64Array(n);
  const beyond = new Float64Array(n);
  const carried = new Float64Array(n);
  const main = new Int32Array(n).fill(-1);
  const between = (i: number, j: number): number =>
    Math.hypot(
      positions[3 * i] - positions[3 * j],
      positions[3 * i + 1] - positions[3 * j + 1],
      positions[3 * i + 2] - positions[3 * j + 2],
    );
  for (let i = 0; i < n; i++) if (parents[i] >= 0) from[i] = from[parents[i]] + between(i, parents[i]);
  // Children come after their parents: from the last to the first all of what a node carries is known when it is met.
  for (let i = n - 1; i >= 0; i--) {
    carried[i] ||= 1;
    const parent = parents[i];
    if (parent < 0) continue;
    carried[parent] += carried[i];
    beyond[parent] = Math.max(beyond[parent], beyond[i] + between(i, parent));
    if (main[parent] < 0 || carried[i] > carried[main[parent]]) main[parent] = i;
  }
  const longest = from.reduce((most, d) => Math.max(most, d), 1e-9);
  const last = births.reduce((most, birth) => Math.max(most, birth), 1);
  const arrivalOf = (i: number): number => {
    if (running === 'birth') return births[i] / last;
    return running === 'even' ? from[i] / longest : from[i] / Math.max(1e-9, from[i] + beyond[i]);
  };
  const most = carried.reduce((top, value, i) => (parents[i] < 0 ? Math.max(top, value) : top), 1);
  const thickness = (i: number): number => (carried[i] / most) ** (1 / exponent);

  /** Paths by their nodes; those that begin on another have its node first. */
  const runs: { nodes: number[]; parent: number }[] = [];
  const pathOf = new Int32Array(n);
  for (let i = 0; i < n; i++) {
    const parent = parents[i];
    if (parent >= 0 && main[parent] === i) continue;
    const run = { nodes: parent >= 0 ? [parent] : [], parent: parent >= 0 ? pathOf[parent] : -1 };
    for (let node = i; node >= 0; node = main[node]) {
      pathOf[node] = runs.length;
      run.nodes.push(node);
    }
    runs.push(run);
  }
  // A root that nothing grew from is no path.
  const number = new Int32Array(runs.length).fill(-1);
  const kept = runs.filter(({ nodes }) => nodes.length > 1);
  let numbered = 0;
  runs.forEach(({ nodes }, k) => {
    if (nodes.length > 1) number[k] = numbered++;
  });
  const paths = pathsFrom(
    kept.map(({ nodes, parent }, id) => ({
      id,
      positions: nodes.flatMap((i) => [positions[3 * i], positions[3 * i + 1], positions[3 * i + 2]]),
      // A branch is as thick where it begins as it is itself, not as what it leaves.
      size: nodes.map((i, k) => thickness(k === 0 && parent >= 0 ? nodes[1] : i)),
    })),
  );
  const rest = new Map<number, number>();
  kept.forEach(({ nodes, parent }, p) =>
    nodes.forEach((i, k) => {
      if (k > 0 || parent < 0) rest.set(i, paths.u[paths.offsets[p] + k]);
    }),
  );
  const arrival = Float32Array.from(kept.flatMap(({ nodes }) => nodes.map(arrivalOf)));
  return {
    ...paths,
    parent: mapped(Uint32Array, kept, ({ parent }) => (parent >= 0 ? number[parent] : NO_PARENT)),
    attach: mapped(Float32Array, kept, ({ nodes, parent }) => (parent >= 0 ? (rest.get(nodes[0]) ?? 0) : 0)),
    arrival,
  };
}
