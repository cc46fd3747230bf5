/**
 * Faces without those that lie back to back on the same three corners: collapsing edges leaves such fins where a thin part has
 * vanished, and edges of four faces with them.
 */
export function withoutFins(indices: Uint32Array): Uint32Array {
  const faces = new Map<string, number[]>();
  for (let f = 0; f < indices.length; f += 3) {
    const name = [indices[f], indices[f + 1], indices[f + 2]].sort((a, b) => a - b).join();
    const same = faces.get(name);
    if (same) same.push(f);
    else faces.set(name, [f]);
  }
  const gone = new Set<number>();
  for (const same of faces.values()) {
    const turned = same.filter((f) => way(indices, f) !== way(indices, same[0]));
    const straight = same.filter((f) => !turned.includes(f));
    for (let k = 0; k < Math.min(turned.length, straight.length); k++) gone.add(turned[k]).add(straight[k]);
  }
  if (gone.size === 0) return indices;
  return indices.filter((_, i) => !gone.has(i - (i % 3)));
}

/** Whether a face runs through its corners by rising numbers, but for where it begins. */
function way(indices: Uint32Array, f: number): boolean {
  const [a, b, c] = [indices[f], indices[f + 1], indices[f + 2]];
  return a < b === b < c ? a < b : a < b === c < a ? c < a : b < c;
}
