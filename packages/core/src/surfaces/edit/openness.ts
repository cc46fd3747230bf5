import { mapped } from '../../geometry/filled';
import type { Mesh } from '../../geometry/mesh';
import { type Topology, topologyOf } from '../../geometry/topology/topology';
import { formatCount } from '../../format';

/** What was said of each topology: it is asked for after every change of a form's size. */
const said = new WeakMap<Topology, string | null>();

/** What keeps a mesh from being a closed solid, in words; null where nothing does. */
export function opennessOf(mesh: Pick<Mesh, 'positions' | 'indices'>): string | null {
  const topology = topologyOf(mesh);
  const known = said.get(topology);
  if (known !== undefined) return known;
  const told = opennessSaid(topology);
  said.set(topology, told);
  return told;
}

function opennessSaid({ weld, edges }: Topology): string | null {
  const { count, ends, there, back } = edges;
  // Open edges hang together in borders: places of one border have one head.
  const head = mapped(Int32Array, weld.first, (_, i) => i);
  const headOf = (place: number): number => {
    while (head[place] !== place) place = head[place] = head[head[place]];
    return place;
  };
  let shared = 0;
  const open: number[] = [];
  for (let e = 0; e < count; e++) {
    const faces = there[e] + back[e];
    if (faces > 2) shared++;
    if (faces !== 1) continue;
    open.push(ends[2 * e]);
    head[headOf(ends[2 * e])] = headOf(ends[2 * e + 1]);
  }
  const borders = new Set(open.map(headOf)).size;
  const parts = [
    borders > 0 ? formatCount(borders, 'open border') : '',
    shared > 0 ? `${formatCount(shared, 'edge')} where three faces or more meet` : '',
  ].filter((part) => part !== '');
  return parts.length > 0 ? `The form has ${parts.join(' and ')}.` : null;
}
