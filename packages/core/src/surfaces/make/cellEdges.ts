import type { YieldNow } from '../../yieldNow';
import { chainEdges } from '../../geometry/topology/featureEdges';
import type { Mesh } from '../../geometry/mesh';
import { treeInTime } from '../../geometry/search/meshTree';
import { nearestPlace } from '../../geometry/search/nearest';
import { pathsFrom, type Paths } from '../../geometry/paths';
import { MeshMemo } from '../../geometry/meshMemo';
import { readPlaces, type SurfacePlaces } from '../../geometry/topology/surfacePlaces';
import { at, byAxis, distance, type Vec3 } from '../../geometry/vec';
import { pointAttributes } from '../edit/contourLines';
import { boxAround } from '../../geometry/box';

const { ceil, floor, max, min } = Math;

/** The most cells that a grid may have along all three axes, multiplied. */
export const MOST_CELLS = 4_000_000;

/** A grid of cubes round a form, and which of them it fills. */
interface Cells {
  origin: Vec3;
  counts: readonly [number, number, number];
  size: number;
  filled: Uint8Array;
}

/** How many cells a grid round a mesh has. */
export const cellCount = (mesh: Mesh, size: number): number =>
  gridOf(mesh, size).counts.reduce((product, count) => product * count, 1);

function gridOf({ positions }: Mesh, size: number): Omit<Cells, 'filled'> {
  const { low, high } = boxAround(positions);
  // The form lies in the middle of its grid.
  const counts = low.map((from, c) =>
    Math.max(1, Math.ceil((high[c] - from) / size - 1e-6)),
  ) as unknown as Cells['counts'];
  const origin = byAxis((c) => (low[c] + high[c] - counts[c] * size) / 2);
  return { origin, counts, size };
}

/** Fills the cells that the surface runs through, and those whose middle lies inside: a ray from it leaves the form an odd number of times. */
async function filledCells(mesh: Mesh, size: number, yieldNow: YieldNow): Promise<Cells> {
  const grid = gridOf(mesh, size);
  const { origin, counts } = grid;
  const [nx, ny, nz] = counts;
  const filled = new Uint8Array(nx * ny * nz);
  const cell = (place: number, from: number, count: number): number =>
    min(count - 1, max(0, floor((place - from) / size)));
  const number = (i: number, j: number, k: number): number => i + nx * (j + ny * k);
  /** Where lines through the middles of cells along X meet the surface. */
  const crossings = new Map<number, number[]>();
  for (let f = 0; f < mesh.indices.length; f += 3) {
    if (f % 3072 === 0) await yieldNow();
    const a = at(mesh.positions, mesh.indices[f]);
    const b = at(mesh.positions, mesh.indices[f + 1]);
    const c = at(mesh.positions, mesh.indices[f + 2]);
    const parts = max(1, ceil((2 * max(distance(a, b), distance(b, c), distance(c, a))) / size));
    for (let u = 0; u <= parts; u++)
      for (let v = 0; u + v <= parts; v++) {
        const w = parts - u - v;
        const i = cell((u * a[0] + v * b[0] + w * c[0]) / parts, origin[0], nx);
        const j = cell((u * a[1] + v * b[1] + w * c[1]) / parts, origin[1], ny);
        const k = cell((u * a[2] + v * b[2] + w * c[2]) / parts, origin[2], nz);
        filled[number(i, j, k)] = 1;
      }
    cross(grid, [a, b, c], crossings);
  }
  for (const [row, found] of crossings) {
    found.sort((p, q) => p - q);
    const [j, k] = [row % counts[1], Math.floor(row / counts[1])];
    for (let n = 0; n + 1 < found.length; n += 2)
      for (let i = 0; i < counts[0]; i++) {
        const x = origin[0] + (i + 0.5) * size;
        if (x > found[n] && x < found[n + 1]) filled[number(i, j, k)] = 1;
      }
  }
  return { ...grid, filled };
}

/** Notes where a triangle is met by the lines along X through the middles of cells. */
function cross(
  { origin, counts, size }: Omit<Cells, 'filled'>,
  [a, b, c]: readonly Vec3[],
  into: Map<number, number[]>,
): void {
  const span = (axis: 1 | 2): readonly [number, number] => {
    const [low, high] = [Math.min(a[axis], b[axis], c[axis]), Math.max(a[axis], b[axis], c[axis])];
    const first = Math.ceil((low - origin[axis]) / size - 0.5);
    return [Math.max(0, first), Math.min(counts[axis] - 1, Math.floor((high - origin[axis]) / size - 0.5))];
  };
  const [js, ks] = [span(1), span(2)];
  const det = (b[1] - a[1]) * (c[2] - a[2]) - (c[1] - a[1]) * (b[2] - a[2]);
  if (Math.abs(det) < 1e-18) return;
  for (let k = ks[0]; k <= ks[1]; k++)
    for (let j = js[0]; j <= js[1]; j++) {
      // A hair off the middle, so that no line goes through an edge that two triangles share.
      const y = origin[1] + (j + 0.5) * size + 1.7e-7 * size - a[1];
      const z = origin[2] + (k + 0.5) * size + 2.3e-7 * size - a[2];
      const u = (y * (c[2] - a[2]) - (c[1] - a[1]) * z) / det;
      const v = ((b[1] - a[1]) * z - y * (b[2] - a[2])) / det;
      if (u < 0 || v < 0 || u + v > 1) continue;
      const row = j + counts[1] * k;
      const x = a[0] + u * (b[0] - a[0]) + v * (c[0] - a[0]);
      const there = into.get(row);
      if (there) there.push(x);
      else into.set(row, [x]);
    }
}

/**
 * A form filled with cubes of one size, as the paths of their edges, each once: those where the outer side of the pile turns, of
 * all its outer faces, or of every cube. Their points know what the form's skin does where it is nearest.
 * @param mesh the form; it should be closed, else only what its surface runs through is filled for certain
 * @param claim is told of at least how many points there will be, before they are made
 */
export async function cellWire(
  mesh: Mesh,
  size: number,
  which: Which,
  yieldNow: YieldNow = () => Promise.resolve(),
  claim: (points: number) => void = () => {},
): Promise<Paths> {
  const { paths, places, sources } = await wires.get(mesh, `${size} ${which}`, () =>
    edgesOf(mesh, size, which, yieldNow, claim),
  );
  const named = pointAttributes({ ...mesh, ...readPlaces(mesh, places) }, sources);
  return { ...paths, named };
}

/** The edges of cells, and where on the form's skin each of their points is nearest. */
interface Wire {
  paths: Paths;
  places: SurfacePlaces;
  /** The place of each point: many lines meet at one corner. */
  sources: Uint32Array;
}

type Which = 'corners' | 'outer' | 'all';

const wires = new MeshMemo<Wire>();

async function edgesOf(
  mesh: Mesh,
  size: number,
  which: Which,
  yieldNow: YieldNow,
  claim: (points: number) => void,
): Promise<Wire> {
  const { origin, counts, filled } = await filledCells(mesh, size, yieldNow);
  const [nx, ny] = [counts[0] + 1, counts[1] + 1];
  // A row of empty cells round the grid, so that every corner has eight.
  const padded = new Uint8Array((nx + 1) * (ny + 1) * (counts[2] + 2));
  const [rowStep, layerStep] = [nx + 1, (nx + 1) * (ny + 1)];
  for (let k = 0, from = 0; k < counts[2]; k++)
    for (let j = 0; j < counts[1]; j++, from += counts[0])
      padded.set(filled.subarray(from, from + counts[0]), 1 + rowStep * (j + 1) + layerStep * (k + 1));
  // The four cells round an edge lie one back along either of the two other axes.
  const besides = [rowStep, layerStep, 1];
  const onward = [1, nx, nx * ny];
  const ends: number[] = [];
  for (let k = 0, n = 0; k <= counts[2]; k++) {
    await yieldNow();
    for (let j = 0; j <= counts[1]; j++)
      for (let i = 0; i <= counts[0]; i++, n++) {
        const cell = i + 1 + rowStep * (j + 1) + layerStep * (k + 1);
        for (let axis = 0; axis < 3; axis++) {
          const u = besides[axis];
          const v = besides[axis < 2 ? axis + 1 : 0];
          const across = padded[cell] + padded[cell - u - v];
          const sum = across + padded[cell - u] + padded[cell - v];
          // Two that lie side by side make a flat place, across from each other a corner.
          const flat = sum === 2 && across === 1;
          if (sum === 0 || (which !== 'all' && sum === 4) || (which === 'corners' && flat)) continue;
          ends.push(n, n + onward[axis]);
        }
      }
  }
  claim(ends.length / 2);
  await yieldNow();
  const place = (n: number): Vec3 => [
    origin[0] + size * (n % nx),
    origin[1] + size * (Math.floor(n / nx) % ny),
    origin[2] + size * Math.floor(n / (nx * ny)),
  ];
  const chains = chainEdges(ends);
  const numbers = Uint32Array.from(chains.flatMap(({ points }) => points));
  await yieldNow();
  const paths = pathsFrom(chains.map(({ points, closed }) => ({ positions: points.flatMap(place), closed })));
  await treeInTime(mesh, yieldNow);
  // Many lines meet at one corner: each is looked for once.
  const known = new Int32Array(nx * ny * (counts[2] + 1)).fill(-1);
  const sources = new Uint32Array(numbers.length);
  const faces: number[] = [];
  const weights: number[] = [];
  for (let i = 0; i < numbers.length; i++) {
    const n = numbers[i];
    if (known[n] < 0) {
      if (faces.length % 512 === 0) await yieldNow();
      const near = nearestPlace(mesh, place(n))!;
      known[n] = faces.length;
      faces.push(near.face);
      weights.push(near.weights[0], near.weights[1], near.weights[2]);
    }
    sources[i] = known[n];
  }
  return { paths, places: { faces: Uint32Array.from(faces), weights: Float32Array.from(weights) }, sources };
}
