import { Document, type Primitive, WebIO } from '@gltf-transform/core';
import { Euler, Matrix3, Matrix4, Quaternion, Vector3 } from 'three';
import { at } from '../geometry/vec';
import type { RawForm } from './rawForm';
import { readForm } from './readForm';
import { taken } from './repairForm';

// Files of a few numbers, written here, and what is to be read of each.

const utf8 = (text: string): Uint8Array => new TextEncoder().encode(text);
const yieldNow = () => Promise.resolve();

describe('glTF', () => {
  const SKIN = {
    positions: [0, 0, 0, 1, 0, 0.2, 0.1, 1, 0, 1, 1.2, 0.5, 2, 1, -0.3],
    normals: [0, 0, 1, 0, 0.6, 0.8, 0.6, 0, 0.8, 0, 1, 0, 1, 0, 0],
    uvs: [0, 0, 0.25, 0.5, 1, 0.75, 0.5, 0.5, 0.125, 1],
  };
  /** What is made of five places in a mode (glTF 2.0, 5.24.4). */
  async function read(
    mode: number,
    parts: (keyof typeof SKIN)[] = ['positions'],
    matrices: readonly Matrix4[] = [],
    change: (primitive: Primitive, document: Document) => void = () => undefined,
  ): Promise<RawForm> {
    const document = new Document();
    const block = document.createBuffer();
    const accessor = (values: number[], type: 'VEC2' | 'VEC3') =>
      document.createAccessor().setType(type).setArray(Float32Array.from(values)).setBuffer(block);
    const primitive = document.createPrimitive().setMode(mode as 4);
    primitive.setAttribute('POSITION', accessor(SKIN.positions, 'VEC3'));
    if (parts.includes('normals')) primitive.setAttribute('NORMAL', accessor(SKIN.normals, 'VEC3'));
    if (parts.includes('uvs')) primitive.setAttribute('TEXCOORD_0', accessor(SKIN.uvs, 'VEC2'));
    change(primitive, document);
    let node = document.createNode().setMesh(document.createMesh().addPrimitive(primitive));
    matrices.forEach((matrix, k) => {
      node.setMatrix(matrix.toArray() as never);
      if (k + 1 < matrices.length) node = document.createNode().addChild(node);
    });
    document.createScene().addChild(node);
    return readForm(await new WebIO().writeBinary(document));
  }

  test.each([
    ['triangles', 4, [0, 1, 2]],
    ['a strip: every other face the other way round', 5, [0, 1, 2, 1, 3, 2, 2, 3, 4]],
    ['a fan', 6, [0, 1, 2, 0, 2, 3, 0, 3, 4]],
  ])('%s', async (_, mode, faces) => {
    // Corners left over make no triangle.
    expect([...(await read(mode)).indices]).toEqual(faces);
  });

  test('normals stay square to their faces under nested, uneven and mirroring transforms', async () => {
    const place = (scale: [number, number, number], turn: [number, number, number]): Matrix4 =>
      new Matrix4().compose(
        new Vector3(...turn),
        new Quaternion().setFromEuler(new Euler(...turn)),
        new Vector3(...scale),
      );
    for (const matrices of [
      [place([2, 0.5, 3], [0.3, 1, -0.4])],
      [place([2, 0.5, 3], [0.3, 1, -0.4]), place([1, 4, 1], [1, 0.2, 0.7])],
      [place([2, -0.5, 3], [0.3, 1, -0.4]), place([1, 4, 1], [1, 0.2, 0.7])],
    ]) {
      const whole = matrices.reduce((sum, matrix) => matrix.clone().multiply(sum), new Matrix4());
      const raw = await read(4, ['positions', 'normals'], matrices);
      const normals = new Matrix3().getNormalMatrix(whole);
      for (let i = 0; i < 5; i++) {
        const here = new Vector3(...at(SKIN.positions, i)).applyMatrix4(whole);
        expect(new Vector3(...at(raw.positions, i)).distanceTo(here)).toBeLessThan(1e-5);
        const way = new Vector3(...at(SKIN.normals, i)).applyMatrix3(normals).normalize();
        expect(new Vector3(...at(raw.normals!, i)).normalize().distanceTo(way)).toBeLessThan(1e-5);
      }
      const mirrored = whole.determinant() < 0;
      expect([...raw.indices]).toEqual(mirrored ? [0, 2, 1] : [0, 1, 2]);
    }
  });

  test('what a file does not say is not there; pictures run from the bottom up', async () => {
    const bare = await read(5);
    expect([bare.normals, bare.uvs, bare.colors]).toEqual([null, null, null]);
    const all = await read(5, ['positions', 'normals', 'uvs']);
    expect([...all.normals!]).toEqual(SKIN.normals.map(Math.fround));
    expect([...all.uvs!]).toEqual(SKIN.uvs.map((x, i) => (i % 2 ? 1 - x : x)));
    expect(all.colors).toBeNull();
    const painted = await read(5, ['positions'], [], (primitive, document) =>
      primitive.setMaterial(document.createMaterial().setBaseColorFactor([1, 0.5, 0.25, 1])),
    );
    expect([...painted.colors!]).toEqual(Array.from({ length: 5 }, () => [1, 0.5, 0.25]).flat());
  });
});

describe('PLY', () => {
  const read = (header: string, rows: string): Promise<RawForm> =>
    readForm(utf8(`ply\nformat ascii 1.0\n${header}end_header\n${rows}`));

  test.each([
    ['uchar', 255],
    ['ushort', 65535],
    ['uint', 4294967295],
    ['char', 127],
    ['short', 32767],
    ['int', 2147483647],
    ['float', 1],
    ['double', 1],
  ])('colours of %s are full at %d', async (type, most) => {
    const colors = ['red', 'green', 'blue'].map((name) => `property ${type} ${name}\n`).join('');
    const raw = await read(
      `element vertex 3\nproperty float x\nproperty float y\nproperty float z\n${colors}element face 1\nproperty list uchar int vertex_indices\n`,
      `0 0 0 ${most} 0 ${most}\n1 0 0 0 0 0\n0 1 0 ${most} ${most} ${most}\n3 0 1 2\n`,
    );
    expect([...raw.colors!]).toEqual([1, 0, 1, 0, 0, 0, 1, 1, 1]);
  });

  test('lists among what vertices know are passed over, and part of a normal is none', async () => {
    const raw = await read(
      'element vertex 3\nproperty float nx\nproperty float x\nproperty list uchar int tags\nproperty float y\nproperty float z\nproperty float ny\nproperty float s\nproperty float t\nelement face 1\nproperty list uchar int vertex_index\n',
      '9 0 0 0 0 9 0.25 0.5\n9 1 3 7 7 7 0 0 9 0.75 1\n9 0 1 7 1 0 9 0 0\n3 2 1 0\n',
    );
    expect([...raw.positions]).toEqual([0, 0, 0, 1, 0, 0, 0, 1, 0]);
    expect([...raw.uvs!]).toEqual([0.25, 0.5, 0.75, 1, 0, 0]);
    expect([raw.normals, raw.colors]).toEqual([null, null]);
    expect([...raw.indices]).toEqual([2, 1, 0]);
  });
});

describe('vertices in one place', () => {
  /** Two triangles with an edge in common, its corners written twice. */
  const pair = (more: Partial<RawForm>): RawForm => ({
    positions: Float32Array.of(0, 0, 0, 1, 0, 0, 0, 0, 1, 1, 0, 0, 1, 0, 1, 0, 0, 1),
    indices: Uint32Array.of(0, 2, 1, 3, 5, 4),
    normals: null,
    uvs: null,
    colors: null,
    parts: null,
    up: 'y',
    ...more,
  });
  const count = async (more: Partial<RawForm>): Promise<number> => {
    const mesh = await taken(pair(more), { up: 'file', unit: 1, soft: 180, ground: false } as never, yieldNow);
    return mesh.positions.length / 3;
  };
  const filled = (width: number, value: (i: number, c: number) => number): Float32Array =>
    Float32Array.from({ length: 6 * width }, (_, k) => value(Math.floor(k / width), k % width));

  test('are one where all that is known of them is the same', async () => {
    expect(await count({})).toBe(4);
    expect(await count({ uvs: filled(2, () => 0.5), colors: filled(3, (_, c) => c / 3) })).toBe(4);
  });

  test.each([
    ['the second texture coordinate', { uvs: filled(2, (i, c) => (c === 1 && i > 2 ? 1 : 0)) }],
    ['the third colour', { colors: filled(3, (i, c) => (c === 2 && i > 2 ? 1 : 0)) }],
    ['the part', { parts: Uint16Array.of(0, 0, 0, 1, 1, 1) }],
  ])('are two where %s differs', async (_, more) => {
    expect(await count(more as never)).toBe(6);
  });
});
