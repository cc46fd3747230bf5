// Work on large forms in pieces: it comes to the same, lets others in now and then, and ends where it is given up.
import { ball, torus } from '../surfaces/make/solids';
import { joinColumns, joinedInTime } from './joinColumns';
import { withRiders } from './joinMeshes';
import { MESH, type Mesh } from './mesh';
import { treeInTime, treeOf } from './search/meshTree';
import { movedMesh } from './moveMesh';

const large = torus(1, 0.3, 400);
const fresh = (): Mesh => ({ ...large, indices: large.indices.slice(), positions: large.positions.slice() });

/** Counts yields, and breaks off at one of them. */
function lungs(last = Infinity) {
  const yields = { count: 0 };
  const yieldNow = async (): Promise<void> => {
    if (++yields.count > last) throw new Error('no longer wanted');
  };
  return { yields, yieldNow };
}

const sameBytes = (a: ArrayBufferView, b: ArrayBufferView): boolean =>
  Buffer.from(a.buffer, a.byteOffset, a.byteLength).equals(Buffer.from(b.buffer, b.byteOffset, b.byteLength));

test('a tree of faces is the same, made at once or in time; what is given up is made anew', async () => {
  const { yields, yieldNow } = lungs();
  const mesh = fresh();
  await expect(treeInTime(mesh, lungs(3).yieldNow)).rejects.toThrow('no longer wanted');
  const inTime = await treeInTime(mesh, yieldNow);
  const atOnce = treeOf(fresh());
  for (const name of ['boxes', 'left', 'from', 'to', 'order'] as const)
    expect([name, sameBytes(inTime[name], atOnce[name])]).toEqual([name, true]);
  // Each face is looked at once a level, of which there are some fifteen; a yield every 32,768.
  expect(yields.count).toBeGreaterThan((10 * large.indices.length) / 3 / 32768);
  expect(treeOf(mesh)).toBe(inTime);
});

test('a skin is moved with a yield every few hundred vertices', async () => {
  const { yields, yieldNow } = lungs();
  const up = ([x, y, z]: readonly [number, number, number], _: number, slopes: Float64Array) => {
    slopes.set([1, 0, 0, 0, 1, 0, 0, 0, 1]);
    return [x, y + 1, z] as [number, number, number];
  };
  const moved = await movedMesh(large, up, yieldNow);
  expect(yields.count).toBeGreaterThanOrEqual(large.positions.length / 3 / 256);
  expect(moved.positions[1]).toBeCloseTo(large.positions[1] + 1, 6);
  // A shift turns nothing.
  expect(moved.normals.reduce((most, x, i) => Math.max(most, Math.abs(x - large.normals[i])), 0)).toBeLessThan(1e-6);
  await expect(movedMesh(large, up, lungs(5).yieldNow)).rejects.toThrow('no longer wanted');
});

test('attributes are joined one by one to the same', async () => {
  const parts = [large, ball(1, 60), large].map((of) => ({ of, count: of.positions.length / 3 }));
  const { yields, yieldNow } = lungs();
  const [atOnce, inTime] = [joinColumns(MESH, 'vertex', parts), await joinedInTime(MESH, 'vertex', parts, yieldNow)];
  expect(Object.keys(inTime)).toEqual(Object.keys(atOnce));
  for (const name of ['positions', 'normals', 'uvs', 'u'] as const)
    expect(sameBytes(inTime[name]!, atOnce[name]!)).toBe(true);
  expect(yields.count).toBeGreaterThan(4);
});

test('a rider of many vertices is put on in pieces, where its placement says', async () => {
  const { yields, yieldNow } = lungs();
  const made = await withRiders(large, large, [{ origin: [0, 5, 0], x: [0, 0, -1], y: [0, 1, 0], size: 2 }], yieldNow);
  const n = large.positions.length;
  for (const i of [0, 3 * 70_000, n - 3]) {
    const [x, y, z] = large.positions.subarray(i, i + 3);
    // Its x looks back, and its z to the right.
    const [a, b, c] = made.positions.subarray(n + i, n + i + 3);
    expect([a, b, c].map((value) => value.toFixed(4))).toEqual(
      [2 * z, 5 + 2 * y, -2 * x].map((v) => (v + 0).toFixed(4)),
    );
  }
  expect(yields.count).toBeGreaterThan(n / 3 / 65536);
});
