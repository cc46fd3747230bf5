import { WebIO } from '@gltf-transform/core';
import { encode } from 'fast-png';
import { validateBytes } from 'gltf-validator';
import { emptyForm, Evaluator, newGrowth, newScene, newStep, pathsFrom, type Copies, type Mesh } from '@uvrex/core';
import { meshWith } from '../../core/src/geometry/mesh';
import { testEvaluator } from '../../core/src/testing';
import { type DressedPart, glbBytes } from './glb';
import { objText } from './obj';
import { partsOf } from './part';
import { geometryFormat } from './register';

const noFiles = (): Promise<Uint8Array> => Promise.reject(new Error('no file is asked for'));

// What is written, number by number: the file's own text, or its accessors as the reference implementation of glTF reads them.

/** So many triangles in a row, each with a place, a direction, a spot on a picture and a colour of its own. */
const triangles = (count: number): Mesh =>
  meshWith({
    positions: Float32Array.from({ length: 9 * count }, (_, i) => i / 8),
    normals: Float32Array.from({ length: 9 * count }, (_, i) => [0, 0.6, 0.8][i % 3]),
    uvs: Float32Array.from({ length: 6 * count }, (_, i) => i / 16),
    colors: Float32Array.from({ length: 9 * count }, (_, i) => (i % 5) / 4),
    indices: Uint32Array.from({ length: 3 * count }, (_, i) => i),
  });
const part = (name: string, more: Partial<DressedPart>): DressedPart => ({ name, ...emptyForm(), ...more });
const THREE_PATHS = pathsFrom([
  { positions: [0, 0, 0] },
  { positions: [0, 1, 0, 0, 2, 0] },
  { positions: [1, 0, 0, 1, 1, 0, 1, 1, 1], closed: true },
]);

describe('OBJ', () => {
  const linesOf = (parts: DressedPart[]): string[] => [...objText(parts)].join('').trim().split('\n');
  const those = (lines: string[], kind: string): string[] =>
    lines.filter((line) => line.startsWith(`${kind} `)).map((line) => line.slice(kind.length + 1));

  test.each([1, 5, 1500])('%d faces: every corner once, with its own numbers, to seven digits', (count) => {
    const mesh = { ...triangles(count), colors: null };
    const lines = linesOf([part('Reef', { mesh })]);
    const numbers = (kind: string): number[] => those(lines, kind).flatMap((line) => line.split(' ').map(Number));
    const short = (values: Float32Array): number[] => [...values].map((x) => Number(x.toPrecision(7)));
    expect(numbers('v')).toEqual(short(mesh.positions));
    expect(numbers('vt')).toEqual(short(mesh.uvs));
    expect(numbers('vn')).toEqual(short(mesh.normals));
    expect(those(lines, 'f')).toEqual(
      Array.from({ length: count }, (_, f) => [1, 2, 3].map((c) => `${3 * f + c}/${3 * f + c}/${3 * f + c}`).join(' ')),
    );
  });

  test('numbers go on from part to part, after skins and after paths', () => {
    const lines = linesOf([
      part('One', { mesh: triangles(1) }),
      part('Two lines', { paths: THREE_PATHS }),
      part('Three', { mesh: triangles(1) }),
    ]);
    expect(those(lines, 'o')).toEqual(['One', 'Two_lines', 'Three']);
    expect(those(lines, 'v')).toHaveLength(3 + 6 + 3);
    // A point alone is no line; a ring ends where it begins.
    expect(those(lines, 'l')).toEqual(['5 6', '7 8 9 7']);
    expect(those(lines, 'f')).toEqual(['1/1/1 2/2/2 3/3/3', '10/10/10 11/11/11 12/12/12']);
  });

  test('what has a skin is not written as paths too', () => {
    expect(those(linesOf([part('Both', { mesh: triangles(1), paths: THREE_PATHS })]), 'l')).toEqual([]);
  });
});

describe('GLB', () => {
  const read = async (parts: DressedPart[]) =>
    (await new WebIO().readBinary(await glbBytes(parts, 'Reef', noFiles))).getRoot();

  test('paths: each with more than one point is a line, rings closed, and the rest is left out', async () => {
    const root = await read([part('Lines', { paths: THREE_PATHS })]);
    const [mesh] = root.listMeshes();
    // 3 is LINE_STRIP and 2 LINE_LOOP (glTF 2.0, 5.24.4).
    expect(mesh.listPrimitives().map((p) => [p.getMode(), [...p.getAttribute('POSITION')!.getArray()!]])).toEqual([
      [3, [0, 1, 0, 0, 2, 0]],
      [2, [1, 0, 0, 1, 1, 0, 1, 1, 1]],
    ]);
  });

  test('skins: paths under them are not written; how rough they are, also where nobody said', async () => {
    const surface = { roughness: 0.25, glowColor: [1, 1, 1] as [number, number, number], glowReach: 0, picture: null };
    const root = await read([
      part('Said', { mesh: triangles(2), paths: THREE_PATHS, surface }),
      part('Not said', { mesh: triangles(2) }),
    ]);
    expect(root.listMeshes().map((mesh) => mesh.listPrimitives().length)).toEqual([1, 1]);
    expect(root.listMaterials().map((m) => [m.getRoughnessFactor(), m.getMetallicFactor()])).toEqual([
      [0.25, 0],
      [0.6, 0],
    ]);
  });

  test('copies: place, turn and size of each, in the order of the file; one mesh an item and tint', async () => {
    const half = Math.SQRT1_2;
    const mesh = triangles(1);
    const items = ['leaf', 'bud'].map((key) => ({ key, mesh, surface: null }));
    const copies = {
      items,
      item: Uint32Array.of(0, 1, 0, 0, 1),
      positions: Float32Array.from({ length: 15 }, (_, i) => i),
      turns: Float32Array.of(0, 0, 0, 1, half, 0, 0, half, 0, half, 0, half, 0, 0, half, half, 0, 0, 0, 1),
      sizes: Float32Array.of(1, 1, 1, 2, 3, 4, 0.5, 0.5, 0.5, 0, 0, 0, 1, 1, 1),
      ids: Uint32Array.of(0, 1, 2, 3, 4),
      rows: new Uint32Array(5),
      tints: Float32Array.of(1, 1, 1, 1, 1, 1, 0.5, 1, 0.25, 1, 1, 1, 0.5, 1, 0.25),
      named: {},
    } as unknown as Copies;
    const root = await read([part('Stem', { copies })]);
    const [stem] = root.listScenes()[0].listChildren();
    const nodes = stem.getName() === 'Stem' ? stem.listChildren() : stem.listChildren()[0].listChildren();
    expect(nodes.map((node) => node.getName())).toEqual(['Stem 1', 'Stem 2', 'Stem 3', 'Stem 5']);
    expect(nodes.map((node) => node.getTranslation())).toEqual([
      [0, 1, 2],
      [3, 4, 5],
      [6, 7, 8],
      [12, 13, 14],
    ]);
    const close = (found: number[][], wanted: number[][]): void =>
      found.forEach((row, i) => row.forEach((x, c) => expect(x).toBeCloseTo(wanted[i][c], 6)));
    // Quaternions x, y, z, w, as glTF has them (2.0, 5.25).
    close(
      nodes.map((node) => node.getRotation()),
      [
        [0, 0, 0, 1],
        [half, 0, 0, half],
        [0, half, 0, half],
        [0, 0, 0, 1],
      ],
    );
    expect(nodes.map((node) => node.getScale())).toEqual([
      [1, 1, 1],
      [2, 3, 4],
      [0.5, 0.5, 0.5],
      [1, 1, 1],
    ]);
    expect(nodes.map((node) => node.getMesh()!.getName())).toEqual([
      'Stem item 1',
      'Stem item 2',
      'Stem item 1 tint 3',
      'Stem item 2 tint 4',
    ]);
    expect(
      nodes.map((node) => node.getMesh()!.listPrimitives()[0].getMaterial()!.getBaseColorFactor().slice(0, 3)),
    ).toEqual([
      [1, 1, 1],
      [1, 1, 1],
      [0.5, 1, 0.25],
      [0.5, 1, 0.25],
    ]);
  });
});

test('parts: in the order of the scene, with what each took; one without a result is told by frame and name', async () => {
  const line = newGrowth('Line', 0, [newStep('line')]);
  const broken = newGrowth('Broken', 1, [newStep('line'), newStep('along', { growth: null })]);
  const scene = { ...newScene('Reef'), growths: [line, broken] };
  const { growths } = await testEvaluator().evaluate({ ...scene, growths: [line] }, 7);
  growths[0].costs = [
    { step: 'a', milliseconds: 3, kept: false },
    { step: 'b', milliseconds: 4, kept: false },
  ];
  const [made] = partsOf(scene, 7, growths);
  expect([made.name, made.milliseconds, made.paths]).toEqual(['Line', 7, growths[0].form!.paths]);
  const failed = (await testEvaluator().evaluate(scene, 7)).growths;
  expect(() => partsOf(scene, 7, failed)).toThrow(/^Frame 7, growth “Broken”: No item is chosen/);
});

describe('pictures on skins', () => {
  const png = encode({ width: 2, height: 2, channels: 4, depth: 8, data: new Uint8Array(16).fill(90) });
  const grown = async () => {
    const scene = newScene('Reef');
    scene.growths = ['Leaf', 'Twin'].map((name, i) => {
      const steps = [
        newStep('line'),
        newStep('tube', { sides: 4 }),
        newStep('skin-picture', { cutoff: i === 0 ? 0.3 : 0 }),
      ];
      return newGrowth(name, i, steps);
    });
    const shipped = async (): Promise<Uint8Array> => png;
    const evaluator = new Evaluator({ now: () => 0, shipped });
    const { growths } = await evaluator.evaluate(scene, scene.range[1]);
    const bytesOf = jest.fn((file: string) => evaluator.bytesOf(scene, file));
    const bytes = await geometryFormat('glb').write(1, partsOf(scene, 1, growths), scene, bytesOf);
    return { growths, bytes, bytesOf };
  };

  test('the file holds each once, cut out where they are transparent, and is valid', async () => {
    const { bytes, bytesOf } = await grown();
    const report = await validateBytes(bytes);
    expect(report.issues.messages.filter(({ severity }) => severity <= 1)).toEqual([]);
    const root = (await new WebIO().readBinary(bytes)).getRoot();
    const [texture, ...others] = root.listTextures();
    expect(others).toEqual([]);
    expect(bytesOf.mock.calls).toEqual([['shipped:reef-leaf']]);
    expect([...texture.getImage()!]).toEqual([...png]);
    expect(texture.getMimeType()).toBe('image/png');
    const materials = root.listMaterials();
    expect(materials.map((one) => one.getBaseColorTexture())).toEqual([texture, texture]);
    expect(materials.map((one) => [one.getAlphaMode(), one.getAlphaCutoff()])).toEqual([
      ['MASK', 0.3],
      ['OPAQUE', 0.5],
    ]);
  });

  test('texture coordinates count from the upper edge in glTF (2.0, 3.8.3), and come back as they were', async () => {
    const { growths, bytes } = await grown();
    const { uvs } = growths[0].form!.mesh!;
    const root = (await new WebIO().readBinary(bytes)).getRoot();
    const written = root.listMeshes()[0].listPrimitives()[0].getAttribute('TEXCOORD_0')!.getArray()!;
    expect([...written]).toEqual([...uvs].map((value, i) => (i % 2 === 1 ? expect.closeTo(1 - value, 6) : value)));
  });
});
