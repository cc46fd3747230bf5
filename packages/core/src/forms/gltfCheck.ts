import type { GLTF } from '@gltf-transform/core';
import { damagedFile, FORM_LIMITS } from './rawForm';

export type GltfJson = GLTF.IGLTF;

const MOST_DEPTH = 500;
/** Type of the chunk that holds the JSON of a GLB (glTF 2.0, section 4.4.3). */
const JSON_CHUNK = 0x4e4f534a;

/** The JSON of a GLB. @throws Problem where it is cut off or no JSON */
export function glbJson(bytes: Uint8Array): GltfJson {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const length = bytes.length >= 20 && view.getUint32(16, true) === JSON_CHUNK ? view.getUint32(12, true) : -1;
  if (length < 0 || 20 + length > bytes.length) throw damagedFile('it is no sound GLB file: it is cut off');
  return JSON.parse(new TextDecoder().decode(bytes.subarray(20, 20 + length))) as GltfJson;
}

/**
 * Checks what a file claims before memory is taken for it: how many numbers it holds, and that its nodes are trees.
 * @throws Problem that says what
 */
export function checkGltf({ accessors, nodes }: GltfJson): void {
  let numbers = 0;
  (Array.isArray(accessors) ? accessors : []).forEach(({ count, sparse }, i) => {
    for (const [claimed, what] of [
      [count, 'elements'],
      [sparse?.count ?? 0, 'sparse elements'],
    ] as const) {
      if (!Number.isInteger(claimed) || claimed < 0) throw damagedFile(`accessor ${i} has no number of ${what}`);
      numbers += claimed;
    }
    if (sparse && sparse.count > count)
      throw damagedFile(`accessor ${i} has ${sparse.count} sparse elements, more than the ${count} that it has at all`);
  });
  if (numbers > 8 * FORM_LIMITS.vertices)
    throw damagedFile(`it says that it holds ${Math.round(numbers / 1e6)} million elements`);
  if (Array.isArray(nodes)) checkNodes(nodes);
}

/** Nodes are trees (glTF 2.0, section 3.5.1): each hangs under one other at most, and none under itself. */
function checkNodes(nodes: readonly GLTF.INode[]): void {
  if (nodes.length > FORM_LIMITS.nodes)
    throw damagedFile(`it has ${nodes.length} nodes; ${FORM_LIMITS.nodes} are the most`);
  const above = new Int32Array(nodes.length).fill(-1);
  nodes.forEach(({ children }, i) =>
    (Array.isArray(children) ? children : []).forEach((child) => {
      if (!Number.isInteger(child) || child < 0 || child >= nodes.length)
        throw damagedFile(`node ${i} names the node ${child}, and there are ${nodes.length}`);
      if (above[child] >= 0) throw damagedFile(`node ${child} hangs under two others`);
      above[child] = i;
    }),
  );
  // Depths by walking up, each node once.
  const depths = new Int32Array(nodes.length).fill(-1);
  const way: number[] = [];
  for (let i = 0; i < nodes.length; i++) {
    let node = i;
    while (node >= 0 && depths[node] < 0) {
      way.push(node);
      if (way.length > nodes.length) throw damagedFile('its nodes hang in a circle');
      node = above[node];
    }
    let depth = node < 0 ? 0 : depths[node];
    while (way.length > 0) depths[way.pop()!] = ++depth;
    if (depth > MOST_DEPTH) throw damagedFile(`its nodes are nested more than ${MOST_DEPTH} deep`);
  }
}
