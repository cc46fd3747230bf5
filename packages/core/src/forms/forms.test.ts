import { topologyOf } from '../geometry/topology/topology';
import { Document, WebIO } from '@gltf-transform/core';
import fc from 'fast-check';
import { BufferAttribute, type BufferGeometry, Mesh as ThreeMesh, TorusKnotGeometry } from 'three';
import { OBJExporter } from 'three/examples/jsm/exporters/OBJExporter.js';
import { PLYExporter } from 'three/examples/jsm/exporters/PLYExporter.js';
import { STLExporter } from 'three/examples/jsm/exporters/STLExporter.js';
import { OBJLoader } from 'three/examples/jsm/loaders/OBJLoader.js';
import { PLYLoader } from 'three/examples/jsm/loaders/PLYLoader.js';
import { STLLoader } from 'three/examples/jsm/loaders/STLLoader.js';
import { areaAndVolume, type Mesh, meshWith } from '../geometry/mesh';
import { nearestPlace } from '../geometry/search/nearest';
import { topologyCounts } from '../geometry/topology/topology';
import { at } from '../geometry/vec';
import { Problem } from '../problem';
import { ball } from '../surfaces/make/solids';
import { extentOf, taken } from './repairForm';
import type { RawForm } from './rawForm';
import { readForm } from './readForm';
import { reduceMesh } from './reduce';

// three's writer of PLY calls back in a later picture; there are none here.
globalThis.requestAnimationFrame ??= () => 0;

const utf8 = (text: string): Uint8Array => new TextEncoder().encode(text);
const knot = (): ThreeMesh => new ThreeMesh(new TorusKnotGeometry(1, 0.3, 60, 8));
const asMesh = ({ positions, indices }: Pick<RawForm, 'positions' | 'indices'>): Mesh =>
  meshWith({ positions, normals: positions, uvs: new Float32Array((2 * positions.length) / 3), indices });
/** Corners of all faces in order: what a reader makes of a file, however it shares vertices. */
const soup = ({ positions, indices }: Pick<RawForm, 'positions' | 'indices'>): number[] =>
  Array.from(indices).flatMap((i) => Array.from(positions.subarray(3 * i, 3 * i + 3)));
const threeSoup = (geometry: BufferGeometry): number[] => {
  const plain = geometry.index ? geometry.toNonIndexed() : geometry;
  return Array.from(plain.getAttribute('position').array);
};
const expectAlike = (mine: number[], theirs: number[]): void => {
  expect(mine).toHaveLength(theirs.length);
  mine.forEach((value, i) => {
    if (Math.abs(value - theirs[i]) > 1e-6) expect([i, value]).toEqual([i, theirs[i]]);
  });
};
const buffer = (bytes: Uint8Array): ArrayBuffer => bytes.slice().buffer;

// Files that three's exporters wrote, read as three's loaders read them.
describe('forms are read as other readers read them', () => {
  test('OBJ', async () => {
    const text = new OBJExporter().parse(knot());
    const raw = await readForm(utf8(text));
    const [theirs] = new OBJLoader().parse(text).children as ThreeMesh[];
    expectAlike(soup(raw), threeSoup(theirs.geometry));
    expect(raw.normals).not.toBeNull();
    expect(raw.uvs).not.toBeNull();
    const two = await readForm(utf8('v 0 0 0\nv 1 0 0\nv 0 1 0\no hull\nf 1 2 3\no keel\ng\nf 1 3 2\n'));
    expect(Array.from(two.parts!)).toEqual([0, 0, 0, 1, 1, 1]);
  });

  test.each(['text', 'little', 'big'])('PLY, %s', async (kind) => {
    const options = { binary: kind !== 'text', littleEndian: kind === 'little' };
    const mesh = knot();
    const n = mesh.geometry.getAttribute('position').count;
    mesh.geometry.setAttribute(
      'color',
      new BufferAttribute(
        Float32Array.from({ length: 3 * n }, (_, i) => (i % 7) / 7),
        3,
      ),
    );
    const written = new PLYExporter().parse(mesh, () => undefined, options) as unknown as string | ArrayBuffer;
    const bytes = typeof written === 'string' ? utf8(written) : new Uint8Array(written);
    const raw = await readForm(bytes);
    const theirs = new PLYLoader().parse(buffer(bytes));
    expectAlike(soup(raw), threeSoup(theirs));
    expect(raw.colors).not.toBeNull();
    Array.from(theirs.getAttribute('color').array).forEach((value, i) => expect(raw.colors![i]).toBeCloseTo(value, 4));
    Array.from(theirs.getAttribute('uv').array).forEach((value, i) => expect(raw.uvs![i]).toBeCloseTo(value, 5));
  });

  test.each([true, false])('STL, binary: %s', async (binary) => {
    const written = new STLExporter().parse(knot(), { binary } as never) as unknown as string | DataView;
    const bytes = typeof written === 'string' ? utf8(written) : new Uint8Array(written.buffer);
    const raw = await readForm(bytes);
    expectAlike(soup(raw), threeSoup(new STLLoader().parse(buffer(bytes))));
    // Loose triangles are welded: a closed form again, soft where its faces meet softly.
    const mesh = await taken(raw, { up: 'z', unit: 1, soft: Math.PI / 3, ground: false }, async () => undefined);
    expect(topologyCounts(mesh)).toMatchObject({ openEdges: 0, euler: 0 });
    expect(mesh.positions.length).toBeLessThan(raw.positions.length / 4);
  });

  // glTF 2.0, section 3.5.2: node transforms multiply from the root down.
  test('glTF and GLB, with the transforms of their nodes, parts and base colours', async () => {
    const document = new Document();
    const block = document.createBuffer();
    const { positions, indices } = ball(1, 12);
    const primitive = document
      .createPrimitive()
      .setAttribute(
        'POSITION',
        document.createAccessor().setType('VEC3').setArray(new Float32Array(positions)).setBuffer(block),
      )
      .setIndices(document.createAccessor().setArray(new Uint32Array(indices)).setBuffer(block))
      .setMaterial(document.createMaterial().setBaseColorFactor([0.5, 0.25, 1, 1]));
    const mesh = document.createMesh().addPrimitive(primitive);
    const [outer, inner, mirrored] = [0, 1, 2].map(() => document.createNode());
    const half = Math.SQRT1_2;
    outer
      .setTranslation([5, 0, 0])
      .setRotation([0, 0, half, half])
      .addChild(inner.setScale([2, 1, 1]).setMesh(mesh));
    mirrored.setScale([-1, 1, 1]).setTranslation([-5, 0, 0]).setMesh(mesh);
    document.createScene().addChild(outer).addChild(mirrored);
    const bytes = await new WebIO().writeBinary(document);
    const { json, resources } = await new WebIO().writeJSON(document);
    const [uri] = Object.keys(resources);
    json.buffers![0].uri = `data:application/octet-stream;base64,${Buffer.from(resources[uri]).toString('base64')}`;
    for (const raw of [await readForm(bytes), await readForm(utf8(JSON.stringify(json)))]) {
      expect(raw.positions.length).toBe(2 * positions.length);
      for (let i = 0; i < positions.length / 3; i += 5) {
        const [x, y, z] = at(positions, i);
        // Twice as wide, turned by a quarter about Z, moved; and the mirror image.
        [5 - y, 2 * x, z].forEach((value, c) => expect(raw.positions[3 * i + c]).toBeCloseTo(value, 5));
        [-5 - x, y, z].forEach((value, c) => expect(raw.positions[positions.length + 3 * i + c]).toBeCloseTo(value, 5));
      }
      expect(Array.from(raw.colors!.subarray(0, 3))).toEqual([0.5, 0.25, 1]);
      expect(new Set(raw.parts)).toEqual(new Set([0, 1]));
      // Faces look outwards still, those of the mirror image too.
      const { volume } = areaAndVolume(asMesh(raw));
      expect(volume / areaAndVolume(ball(1, 12)).volume).toBeCloseTo(3, 4);
    }
  });
});

describe('OBJ by its own rules', () => {
  const faces = async (text: string): Promise<number[][]> => {
    const raw = await readForm(utf8(text));
    return Array.from({ length: raw.indices.length / 3 }, (_, f) =>
      soup({ ...raw, indices: raw.indices.subarray(3 * f, 3 * f + 3) }),
    );
  };
  const square = 'v 0 0 0\nv 1 0 0\nv 1 1 0\nv 0 1 0\n';

  test('numbers below 0 count back, lines go on behind a backslash, figures may be written in any way', async () => {
    const [a] = await faces(`# made by hand\n${square}f -4 -3 \\\n -2\n`);
    const [b] = await faces('v 0. .0 0e0\r\nv +1.0E+0 0 0\r\nv 10e-1 100000000000000000000e-20 0\r\nf 1 2 3\r\n');
    expect(a).toEqual([0, 0, 0, 1, 0, 0, 1, 1, 0]);
    expect(b).toEqual(a);
  });

  test('polygons keep their area, hollow ones too', async () => {
    const area = async (ring: number[][]): Promise<number> => {
      const raw = await readForm(
        utf8(`${ring.map(([x, y]) => `v ${x} ${y} 0`).join('\n')}\nf ${ring.map((_, i) => i + 1).join(' ')}\n`),
      );
      return areaAndVolume(asMesh(raw)).area;
    };
    expect(
      await area([
        [0, 0],
        [4, 0],
        [1, 1],
        [0, 4],
      ]),
    ).toBeCloseTo(4, 5);
    expect(
      await area([
        [0, 0],
        [3, 0],
        [3, 3],
        [2, 3],
        [2, 1],
        [1, 1],
        [1, 3],
        [0, 3],
      ]),
    ).toBeCloseTo(7, 5);
  });

  test('says which line is wrong', async () => {
    await expect(readForm(utf8(`${square}f 1 2 9\n`))).rejects.toThrow('line 5: there is no corner 9');
    await expect(readForm(utf8('v 0 0 0\nv 1 x 0\nf 1 1 1\n'))).rejects.toThrow('line 2: a corner needs three numbers');
    await expect(readForm(utf8(square))).rejects.toThrow('it holds no faces');
  });
});

test('numbers are read as the language itself reads them', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.double({ noNaN: true, noDefaultInfinity: true, min: -1e6, max: 1e6 }), {
        minLength: 9,
        maxLength: 9,
      }),
      async (values) => {
        const [a, b, c] = [0, 3, 6].map((k) => `v ${values.slice(k, k + 3).join(' ')}`);
        const raw = await readForm(utf8(`${a}\n${b}\n${c}\nf 1 2 3\n`));
        soup(raw).forEach((value, i) =>
          expect(Math.abs(value - values[i])).toBeLessThanOrEqual(1e-7 * Math.abs(values[i]) + 1e-40),
        );
      },
    ),
  );
});

test('a form in another unit with another axis up stands on the ground, as large as is said, unmirrored', async () => {
  const raw = await readForm(utf8(new OBJExporter().parse(knot())));
  const { volume } = areaAndVolume(asMesh(raw));
  for (const up of ['x', 'y', 'z'] as const) {
    const mesh = await taken(raw, { up, unit: 2 / extentOf(raw), soft: 1, ground: true }, async () => undefined);
    const side = (c: number): number[] => Array.from(mesh.positions).filter((_, i) => i % 3 === c);
    expect(Math.min(...side(1))).toBeCloseTo(0, 5);
    expect(Math.max(...[0, 1, 2].map((c) => Math.max(...side(c)) - Math.min(...side(c))))).toBeCloseTo(2, 4);
    expect(areaAndVolume(mesh).volume / (volume * (2 / extentOf(raw)) ** 3)).toBeCloseTo(1, 3);
  }
});

test('taken again in another size it is the same form, with what is known of its faces; in another way it is another', async () => {
  const raw = { ...(await readForm(utf8(new OBJExporter().parse(knot())))), normals: null };
  const as = (unit: number, soft: number, up: 'x' | 'y' = 'y') =>
    taken(raw, { up, unit, soft, ground: false }, async () => undefined);
  const [small, large] = [await as(1, 1), await as(3, 1)];
  expect(Array.from(large.positions)).toEqual(Array.from(small.positions, (x) => Math.fround(3 * x)));
  expect(large.normals).toBe(small.normals);
  expect(topologyOf(large)).toBe(topologyOf(small));
  const hard = await as(1, 0);
  expect(hard.positions.length).toBeGreaterThan(small.positions.length);
  const over = await as(1, 1, 'x');
  expect(over.positions[1]).toBeCloseTo(small.positions[0], 6);
});

/** Largest distance from points spread over a mesh to another (Monte Carlo, with the numbers of mulberry32). */
function farthest(from: Mesh, to: Mesh, samples = 6000): number {
  let state = 7;
  const random = (): number => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
  let most = 0;
  for (let i = 0; i < samples; i++) {
    const f = 3 * Math.floor((random() * from.indices.length) / 3);
    const [a, b, c] = [0, 1, 2].map((k) => at(from.positions, from.indices[f + k]));
    const [u, v] = [Math.sqrt(random()), random()];
    const place = a.map((x, k) => x * (1 - u) + b[k] * u * (1 - v) + c[k] * u * v) as unknown as typeof a;
    most = Math.max(most, nearestPlace(to, place)!.distance);
  }
  return most;
}

const knotMesh = async (): Promise<Mesh> =>
  taken(
    await readForm(utf8(new OBJExporter().parse(new ThreeMesh(new TorusKnotGeometry(1, 0.3, 200, 24))))),
    { up: 'y', unit: 1, soft: 1, ground: false },
    async () => undefined,
  );

test.each([0.002, 0.01, 0.05])(
  'reduced within %d m, form and whole lie nowhere further apart, both ways',
  async (bound) => {
    for (const whole of [ball(1, 96), await knotMesh()]) {
      const few = await reduceMesh(whole, bound);
      expect(few.indices.length).toBeLessThan(whole.indices.length * (bound < 0.01 ? 1 : 0.7));
      expect(Math.max(farthest(few, whole), farthest(whole, few))).toBeLessThanOrEqual(bound);
      const { count, there, back } = topologyOf(few).edges;
      expect(Array.from({ length: count }, (_, e) => there[e] + back[e]).filter((faces) => faces > 2)).toEqual([]);
    }
  },
);

describe('files as they are found', () => {
  test('OBJ: faces may stand before the places that they name', async () => {
    const [before, after] = [
      await readForm(utf8('f 1 2 3\nv 0 0 0\nv 1 0 0\nv 0 1 0\n')),
      await readForm(utf8('v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 3\n')),
    ];
    expect(before).toEqual(after);
    await expect(readForm(utf8('f 1 2 4\nv 0 0 0\nv 1 0 0\nv 0 1 0\n'))).rejects.toThrow(
      'line 1: there is no corner 4',
    );
  });

  test('OBJ: colours up to 255 are those up to 1; corners before the first colour are white', async () => {
    const text = (most: number): string => `v 0 0 0\nv 1 0 0 ${most} ${most / 2} 0\nv 0 1 0 0 0 0\nf 1 2 3\n`;
    const [unit, byte] = [await readForm(utf8(text(1))), await readForm(utf8(text(255)))];
    expect(byte.colors).toEqual(unit.colors);
    expect(Array.from(unit.colors!.subarray(0, 3))).toEqual([1, 1, 1]);
    // IEC 61966-2-1: half in sRGB is 0.2140 in linear light.
    expect(unit.colors![4]).toBeCloseTo(0.214, 3);
  });

  test('faces of thousands of corners are read in pieces, and those of more are refused', async () => {
    const ring = (n: number): string => {
      const turn = (i: number): number => (2 * Math.PI * i) / n;
      const corners = Array.from({ length: n }, (_, i) => `v ${Math.cos(turn(i))} ${Math.sin(turn(i))} 0`);
      return `${corners.join('\n')}\n${`f ${Array.from({ length: n }, (_, i) => i + 1).join(' ')}\n`.repeat(20)}`;
    };
    let yields = 0;
    await readForm(utf8(ring(2000)), async () => void yields++);
    expect(yields).toBeGreaterThanOrEqual(20);
    await expect(readForm(utf8(ring(5000)))).rejects.toThrow('a face has 5000 corners, and 4096 are the most');
  });

  test('PLY: an element without properties takes no time, however many it says there are', async () => {
    const head = 'ply\nformat ascii 1.0\nelement nothing 4000000000\nelement vertex 3\n';
    const rest = ['x', 'y', 'z'].map((name) => `property float ${name}\n`).join('');
    const faces = 'element face 1\nproperty list uchar int vertex_indices\nend_header\n';
    const raw = await readForm(utf8(`${head}${rest}${faces}0 0 0\n1 0 0\n0 1 0\n3 0 1 2\n`));
    expect(raw.indices).toHaveLength(3);
  });

  test('STL: text in capitals, and binary that begins with “solid” and has bytes behind it', async () => {
    const text = new STLExporter().parse(knot()) as unknown as string;
    const capitals = await readForm(utf8(text.toUpperCase()));
    expect(capitals.positions).toEqual((await readForm(utf8(text))).positions);
    const plain = new Uint8Array((new STLExporter().parse(knot(), { binary: true }) as unknown as DataView).buffer);
    const bytes = new Uint8Array(plain.length + 7);
    bytes.set(plain);
    bytes.set(utf8('solid knot'));
    expect((await readForm(bytes)).positions).toEqual((await readForm(plain)).positions);
  });
});

describe('glTF that claims too much', () => {
  const gltf = (parts: object): Uint8Array => utf8(JSON.stringify({ asset: { version: '2.0' }, ...parts }));

  test('counts are checked before memory is taken for them', async () => {
    const sparse = { count: 1e9, indices: { bufferView: 0, componentType: 5125 }, values: { bufferView: 0 } };
    const accessor = { componentType: 5126, type: 'VEC3', count: 3 };
    await expect(readForm(gltf({ accessors: [{ ...accessor, sparse }] }))).rejects.toThrow(
      '1000000000 sparse elements',
    );
    await expect(readForm(gltf({ accessors: [{ ...accessor, count: 1e9 }] }))).rejects.toThrow('1000 million elements');
  });

  test('long chains, circles and nodes under two others are told apart', async () => {
    const chain = Array.from({ length: 20_000 }, (_, i) => (i < 19_999 ? { children: [i + 1] } : {}));
    await expect(readForm(gltf({ nodes: chain }))).rejects.toThrow('nested more than 500 deep');
    await expect(readForm(gltf({ nodes: [{ children: [1] }, { children: [0] }] }))).rejects.toThrow('in a circle');
    await expect(readForm(gltf({ nodes: [{ children: [2] }, { children: [2] }, {}] }))).rejects.toThrow(
      'under two others',
    );
  });

  test('quantised attributes are read, required extension and all', async () => {
    const document = new Document();
    const block = document.createBuffer();
    const places = new Int16Array([0, 0, 0, 32767, 0, 0, 0, 32767, 0]);
    const attribute = document.createAccessor().setType('VEC3').setArray(places).setNormalized(true).setBuffer(block);
    const primitive = document.createPrimitive().setAttribute('POSITION', attribute);
    document.createScene().addChild(document.createNode().setMesh(document.createMesh().addPrimitive(primitive)));
    const { json, resources } = await new WebIO().writeJSON(document);
    const [uri] = Object.keys(resources);
    json.buffers![0].uri = `data:application/octet-stream;base64,${Buffer.from(resources[uri]).toString('base64')}`;
    json.extensionsUsed = json.extensionsRequired = ['KHR_mesh_quantization'];
    const raw = await readForm(utf8(JSON.stringify(json)));
    expect(Array.from(raw.positions)).toEqual([0, 0, 0, 1, 0, 0, 0, 1, 0]);
    expect(raw.leftOut).toBeUndefined();
    const picture = document
      .createTexture()
      .setImage(new Uint8Array([137, 80]))
      .setMimeType('image/png');
    primitive.setMaterial(document.createMaterial().setBaseColorTexture(picture));
    expect((await readForm(await new WebIO().writeBinary(document))).leftOut).toMatch(/pictures/);
  });
});

describe('damaged files', () => {
  const sound = async (): Promise<Uint8Array[]> => {
    const mesh = new ThreeMesh(new TorusKnotGeometry(1, 0.3, 8, 3));
    const document = new Document();
    const block = document.createBuffer();
    const { positions, indices } = ball(1, 6);
    const primitive = document
      .createPrimitive()
      .setAttribute(
        'POSITION',
        document.createAccessor().setType('VEC3').setArray(new Float32Array(positions)).setBuffer(block),
      )
      .setIndices(document.createAccessor().setArray(new Uint16Array(indices)).setBuffer(block));
    document.createScene().addChild(document.createNode().setMesh(document.createMesh().addPrimitive(primitive)));
    return [
      utf8(new OBJExporter().parse(mesh)),
      utf8(new PLYExporter().parse(mesh, () => undefined, {}) as unknown as string),
      new Uint8Array(new PLYExporter().parse(mesh, () => undefined, { binary: true }) as unknown as ArrayBuffer),
      utf8(new STLExporter().parse(mesh) as unknown as string),
      new Uint8Array((new STLExporter().parse(mesh, { binary: true }) as unknown as DataView).buffer),
      await new WebIO().writeBinary(document),
    ];
  };

  /** Series of damaged files a reader; more are tried by setting FORM_FUZZ. */
  const RUNS = Number(process.env.FORM_FUZZ ?? 300);

  test('give a sentence or a form, never anything else, and come to an end', async () => {
    for (const bytes of await sound()) {
      await fc.assert(
        fc.asyncProperty(
          fc.array(fc.tuple(fc.nat(bytes.length - 1), fc.nat(255)), { maxLength: 12 }),
          fc.nat(bytes.length),
          fc.boolean(),
          async (changes, end, cut) => {
            const damaged = bytes.slice(0, cut ? end : bytes.length);
            for (const [where, value] of changes) if (where < damaged.length) damaged[where] = value;
            try {
              const raw = await readForm(damaged);
              expect(raw.indices.every((i) => 3 * i < raw.positions.length)).toBe(true);
              expect(raw.positions.every((value) => Number.isFinite(value))).toBe(true);
            } catch (error) {
              if (!(error instanceof Problem)) throw error;
              expect(error.message.length).toBeGreaterThan(20);
            }
          },
        ),
        { numRuns: RUNS },
      );
    }
  });

  test('what claims to hold more than it can is refused before room is made for it', async () => {
    const head = (count: number): Uint8Array =>
      utf8(
        `ply\nformat ascii 1.0\nelement vertex ${count}\nproperty float x\nproperty float y\nproperty float z\nelement face 1\nproperty list uchar int vertex_index\nend_header\n`,
      );
    await expect(readForm(head(4_000_000_000))).rejects.toThrow('cannot hold');
    const stl = new Uint8Array(84);
    new DataView(stl.buffer).setUint32(80, 4_000_000_000, true);
    await expect(readForm(stl)).rejects.toThrow('ends after 0 of 4000000000');
    await expect(readForm(utf8('nothing of the kind'))).rejects.toThrow('no kind that is known');
    await expect(
      readForm(utf8('{"asset":{"version":"2.0"},"buffers":[{"uri":"rock.bin","byteLength":4}]}')),
    ).rejects.toThrow('rock.bin');
  });
});
