import { type InstancedMesh, Matrix4, type MeshStandardMaterial, type Object3D, Points } from 'three';
import type { OnScreen } from '@/state/director/results';
import type { Shown } from '@/worker/protocol';
import { CopySet } from './copySet';
import { Materials } from './materials';
import type { Rendering } from './rendering';

const FINE: Rendering = { quality: 'fine' };

const item = (size: number, roughness = 0.5): Shown =>
  ({
    mesh: {
      positions: Float32Array.of(0, 0, 0, size, 0, 0, 0, size, 0),
      normals: Float32Array.of(0, 0, 1, 0, 0, 1, 0, 0, 1),
      indices: Uint32Array.of(0, 1, 2),
      colors: null,
      glow: null,
      uvs: null,
    },
    surface: { roughness, glowColor: [1, 1, 1], glowReach: 0 },
    copies: [],
  }) as unknown as Shown;

/** So many copies of an item, each a metre above the one before. */
const row = (name: string, count: number, tinted = false): Shown['copies'][number] => {
  const matrices = new Float32Array(16 * count);
  for (let k = 0; k < count; k++) new Matrix4().makeTranslation(0, k, 0).toArray(matrices, 16 * k);
  const ids = Uint32Array.from({ length: count }, (_, k) => 100 + k);
  return { item: name, matrices, ids, tints: tinted ? new Float32Array(3 * count).fill(0.5) : null };
};

const screen = (copies: Shown['copies'], items: Record<string, Shown>): OnScreen => ({
  id: 'bed',
  hue: '#88aa66',
  key: 'key',
  shown: { copies } as unknown as Shown,
  items: new Map(Object.entries(items)),
});

const set = (): CopySet => new CopySet(new Materials());
const visible = (copies: CopySet): InstancedMesh[] =>
  copies.group.children.filter((object) => object.visible) as InstancedMesh[];
const heightOf = (object: InstancedMesh, k: number): number => {
  const matrix = new Matrix4();
  object.getMatrixAt(k, matrix);
  return matrix.elements[13];
};

test('an object an item, with its copies where they stand, in its own surface', () => {
  const copies = set();
  copies.show(screen([row('leaf', 5), row('bud', 3)], { leaf: item(1, 0.3), bud: item(2, 0.8) }), FINE);
  const objects = visible(copies);
  expect(objects.map(({ count }) => count)).toEqual([5, 3]);
  expect(objects.map((object) => (object.material as MeshStandardMaterial).roughness)).toEqual([0.3, 0.8]);
  expect([0, 1, 4].map((k) => heightOf(objects[0], k))).toEqual([0, 1, 4]);
  expect(objects.every(({ castShadow, receiveShadow }) => castShadow && receiveShadow)).toBe(true);
  expect(objects[0].geometry.getAttribute('position').getX(1)).toBe(1);
});

test('a part of them is a part of each, and the parts make up the whole', () => {
  const copies = set();
  const all = screen([row('leaf', 10)], { leaf: item(1) });
  const seen: number[] = [];
  for (const [from, to] of [
    [0, 0.25],
    [0.25, 0.5],
    [0.5, 1],
  ]) {
    copies.show(all, { ...FINE, copies: { from, to } });
    const [object] = visible(copies);
    for (let k = 0; k < object.count; k++) seen.push(heightOf(object, k));
    // What is met by a line of sight is told by its own number.
    expect((object.userData.ids as Uint32Array)[0]).toBe(100 + heightOf(object, 0));
  }
  expect(seen).toEqual(Array.from({ length: 10 }, (_, k) => k));
});

test('what other frames show is kept, unseen; more copies than there is room for have a larger object over the same geometry', () => {
  const copies = set();
  const items = { young: item(1), old: item(2) };
  copies.show(screen([row('young', 4)], items), FINE);
  const [young] = visible(copies);
  copies.show(screen([row('old', 4)], items), FINE);
  expect(visible(copies)).toHaveLength(1);
  expect(visible(copies)[0]).not.toBe(young);
  copies.show(screen([row('young', 3)], items), FINE);
  expect(visible(copies)).toEqual([young]);
  expect(young.count).toBe(3);
  copies.show(screen([row('young', 9)], items), FINE);
  const [larger] = visible(copies);
  expect(larger).not.toBe(young);
  expect(larger.geometry).toBe(young.geometry);
  expect(larger.count).toBe(9);
});

test('there is room for what there is, and for an eighth more where more keep coming', () => {
  const copies = set();
  const items = { leaf: item(1) };
  const roomFor = (count: number): number => {
    copies.show(screen([row('leaf', count)], items), FINE);
    return visible(copies)[0].instanceMatrix.count;
  };
  expect([roomFor(600), roomFor(601), roomFor(660), roomFor(800)]).toEqual([600, 677, 677, 900]);
});

test('the same copies are not handed over again; others are', () => {
  const copies = set();
  const leaves = row('leaf', 4);
  copies.show(screen([leaves], { leaf: item(1) }), FINE);
  const [object] = visible(copies);
  const { version } = object.instanceMatrix;
  copies.show(screen([leaves], { leaf: item(1) }), { quality: 'draft' });
  expect(object.instanceMatrix.version).toBe(version);
  expect(object.castShadow).toBe(false);
  copies.show(screen([row('leaf', 4)], { leaf: item(1) }), FINE);
  expect(object.instanceMatrix.version).toBeGreaterThan(version);
});

test('where only tints are others, only they are handed over, and numbers go with what is shown', () => {
  const copies = set();
  const leaves = row('leaf', 2, true);
  copies.show(screen([leaves], { leaf: item(1) }), FINE);
  const [object] = visible(copies);
  const { version } = object.instanceMatrix;
  const other = { ...leaves, tints: new Float32Array(6).fill(0.25), ids: Uint32Array.of(7, 8) };
  copies.show(screen([other], { leaf: item(1) }), FINE);
  expect(object.instanceMatrix.version).toBe(version);
  expect(Array.from(object.instanceColor!.array.slice(0, 6))).toEqual(Array.from(other.tints));
  expect(Array.from(object.userData.ids as Uint32Array)).toEqual([7, 8]);
});

test('specks are made anew where what they stand for has another look in the same places', async () => {
  const copies = set();
  const light: Rendering = { quality: 'draft', light: 1 };
  const leaves = row('leaf', 2, true);
  const shownOf = (one: typeof leaves, size: number): Object3D => {
    copies.show(screen([one], { [one.item]: item(size) }), light);
    const shown = copies.group.children.filter((object) => object.visible);
    expect(shown).toHaveLength(1);
    return shown[0];
  };
  // Until what makes them is there, all are drawn as they are.
  expect(shownOf(leaves, 1)).not.toBeInstanceOf(Points);
  await import('./copySorter');
  copies.hide();
  const specks = shownOf(leaves, 1);
  expect(specks).toBeInstanceOf(Points);
  expect(shownOf(leaves, 1)).toBe(specks);
  const tinted = shownOf({ ...leaves, tints: new Float32Array(6) }, 1);
  expect(tinted).not.toBe(specks);
  expect(shownOf({ ...leaves, item: 'bud' }, 2)).not.toBe(tinted);
});

test('specks of an item with a picture have its mean colour, where it is opaque', async () => {
  await import('./copySorter');
  // Half red, half transparent green.
  const rgba = Uint8Array.of(255, 0, 0, 255, 0, 255, 0, 0);
  const leaf = item(1);
  const pictured: Shown = {
    ...leaf,
    mesh: { ...leaf.mesh!, colors: new Float32Array(9).fill(1), uvs: new Float32Array(6) },
    picture: { width: 2, height: 1, rgba },
  };
  const copies = set();
  copies.show(screen([row('leaf', 2)], { leaf: pictured }), { quality: 'draft', light: 1 });
  const [specks] = copies.group.children.filter((object) => object.visible) as Points[];
  expect([...specks.geometry.getAttribute('color').array]).toEqual([1, 0, 0, 1, 0, 0].map((x) => expect.closeTo(x, 5)));
});

test('tinted copies have colours of their own, and those of one surface share a material', () => {
  const copies = set();
  const items = { leaf: item(1), bud: item(2) };
  copies.show(screen([row('leaf', 2, true), row('bud', 2)], items), FINE);
  const [leaf, bud] = visible(copies);
  expect(Array.from(leaf.instanceColor!.array.slice(0, 6))).toEqual([0.5, 0.5, 0.5, 0.5, 0.5, 0.5]);
  expect(bud.instanceColor).toBeNull();
  expect(leaf.material).not.toBe(bud.material);
  copies.show(screen([row('leaf', 2), row('bud', 2)], items), FINE);
  const [plain, other] = visible(copies);
  expect(plain.material).toBe(other.material);
});

test('hidden, nothing shows; what has no surface is no object', () => {
  const copies = set();
  const bare = { ...item(1), mesh: null };
  copies.show(screen([row('leaf', 2), row('bare', 2)], { leaf: item(1), bare }), FINE);
  expect(visible(copies)).toHaveLength(1);
  copies.hide();
  expect(visible(copies)).toHaveLength(0);
  copies.dispose();
  expect(copies.group.children).toHaveLength(0);
});

describe('seen from somewhere', () => {
  /** A grid of 60 × 60 vertices in the unit square: 10,562 vertices and faces. */
  const cloth = (): Shown => {
    const side = 60;
    const positions = new Float32Array(3 * side * side);
    const indices: number[] = [];
    for (let i = 0; i < side * side; i++) {
      const [x, y] = [i % side, Math.floor(i / side)];
      positions.set([x / (side - 1), y / (side - 1), 0], 3 * i);
      if (x < side - 1 && y < side - 1) indices.push(i, i + 1, i + side, i + 1, i + side + 1, i + side);
    }
    const normals = new Float32Array(positions.length).map((_, i) => (i % 3 === 2 ? 1 : 0));
    return {
      ...item(1),
      mesh: { positions, normals, indices: Uint32Array.from(indices), colors: null, glow: null, uvs: null },
    } as unknown as Shown;
  };
  const finestFirst = (copies: CopySet): InstancedMesh[] =>
    visible(copies).sort((a, b) => b.geometry.getIndex()!.count - a.geometry.getIndex()!.count);
  const view = (y: number): Rendering => ({ quality: 'fine', viewpoint: { eye: [0, y, 3], pixels: 500 } });

  test('what is small is drawn from lighter forms, each copy once and where it stands', async () => {
    const copies = set();
    const bed = screen([row('cloth', 400, true)], { cloth: cloth() });
    copies.show(bed, view(0));
    // Lighter forms are made by what is loaded when first wanted.
    await import('./copySorter');
    copies.show(bed, view(0));
    const objects = finestFirst(copies);
    expect(objects.length).toBeGreaterThan(1);
    expect(objects.reduce((sum, { count }) => sum + count, 0)).toBe(400);
    const ids = objects.flatMap((object) => [...(object.userData.ids as Uint32Array)]);
    expect(ids.sort((a, b) => a - b)).toEqual(Array.from({ length: 400 }, (_, k) => 100 + k));
    for (const object of objects)
      for (let k = 0; k < object.count; k++)
        expect(heightOf(object, k)).toBe((object.userData.ids as Uint32Array)[k] - 100);
    // The nearest are the finest.
    expect(heightOf(objects[0], 0)).toBe(0);
  });

  test('from another place others are fine; from the same nothing is handed over again', async () => {
    const copies = set();
    const bed = screen([row('cloth', 400)], { cloth: cloth() });
    await import('./copySorter');
    copies.show(bed, view(0));
    const versions = () => visible(copies).map(({ instanceMatrix }) => instanceMatrix.version);
    const before = versions();
    copies.show(bed, view(0));
    expect(versions()).toEqual(before);
    copies.show(bed, view(399));
    const [finest] = finestFirst(copies);
    const heights = Array.from({ length: finest.count }, (_, k) => heightOf(finest, k));
    expect(Math.max(...heights)).toBe(399);
    expect(Math.min(...heights)).toBeGreaterThan(200);
    copies.show(bed, FINE);
    expect(visible(copies).map(({ count }) => count)).toEqual([400]);
  });

  test('few copies, and light items, are drawn as they are', async () => {
    const copies = set();
    await import('./copySorter');
    copies.show(screen([row('cloth', 10)], { cloth: cloth() }), view(0));
    expect(visible(copies).map(({ count }) => count)).toEqual([10]);
    copies.show(screen([row('leaf', 4000)], { leaf: item(1) }), view(0));
    expect(visible(copies).map(({ count }) => count)).toEqual([4000]);
  });
});
