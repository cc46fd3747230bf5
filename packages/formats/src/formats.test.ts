import { validateBytes } from 'gltf-validator';
import {
  copiesOfSeats,
  emptyForm,
  helixPoints,
  type Mesh,
  NO_TURN,
  pathsFrom,
  SeatList,
  sweepTubes,
} from '@uvrex/core';
import { OBJLoader } from 'three/examples/jsm/loaders/OBJLoader.js';
import type { LineSegments, Mesh as ThreeMesh } from 'three';
import { WebIO } from '@gltf-transform/core';
import { glbBytes, type DressedPart } from './glb';
import { readForm } from '../../core/src/forms/readForm';
import { objText } from './obj';

const noFiles = (): Promise<Uint8Array> => Promise.reject(new Error('no file is asked for'));

const paths = pathsFrom([{ positions: helixPoints({ below: 0.5, above: 0.2, height: 1, turns: 2, start: 0 }, 40) }]);

async function tubePart(): Promise<DressedPart & { mesh: Mesh }> {
  const mesh = await sweepTubes(paths, {
    radius: 0.05,
    along: () => 1,
    follows: 'whole',
    swell: 0,
    sides: 6,
    start: 'flat',
    end: 'round',
  });
  mesh.colors = new Float32Array(mesh.positions.length).fill(0.25);
  return {
    name: 'Kelp stem',
    mesh,
    paths,
    copies: null,
    surface: { roughness: 0.4, glowColor: [1, 0.5, 0.2], glowReach: 0.2, picture: null },
  };
}

/** Three copies of the tube, one of them not come up yet. */
async function beads(): Promise<DressedPart> {
  const { mesh, surface } = await tubePart();
  const seats = new SeatList(['tube']);
  for (const id of [0, 1, 2])
    seats.add({
      ...{ growth: 0, id, dice: id, number: id, row: 0, position: [id, 0, 0], turn: NO_TURN, size: id / 2 },
      ...{ share: 0, age: Infinity, life: null, variant: 0 },
    });
  const shown = [{ form: { ...emptyForm(), mesh, surface }, key: 'tube' }];
  const copies = copiesOfSeats(seats.done(), new Uint32Array(3), shown);
  return { name: 'Beads', mesh: null, paths, surface, copies };
}

describe('GLB', () => {
  // The Khronos Group's own validator.
  test('passes gltf-validator without an error, with meshes, with paths alone, and empty', async () => {
    const part = await tubePart();
    const lines: DressedPart = { ...part, name: 'Lines', mesh: null };
    const closed: DressedPart = {
      ...lines,
      name: 'Ring',
      paths: pathsFrom([{ positions: [0, 0, 0, 1, 0, 0, 0, 1, 0], closed: true }]),
    };
    const empty: DressedPart = {
      name: 'Nothing yet',
      ...emptyForm(),
      mesh: { ...part.mesh, indices: new Uint32Array(0) },
    };
    for (const parts of [[part], [lines, closed], [part, lines, empty], [empty], [], [await beads(), part]]) {
      const report = await validateBytes(await glbBytes(parts, 'Reef', noFiles));
      expect(report.issues.messages.filter(({ severity }) => severity <= 1)).toEqual([]);
    }
  });

  test('copies are nodes that share one mesh; those without size are left out', async () => {
    const root = (await new WebIO().readBinary(await glbBytes([await beads()], 'Reef', noFiles))).getRoot();
    expect(root.listMeshes()).toHaveLength(1);
    const nodes = root.listNodes().filter((node) => node.getMesh());
    expect(nodes.map((node) => node.getTranslation())).toEqual([
      [1, 0, 0],
      [2, 0, 0],
    ]);
    expect(nodes.map((node) => node.getScale()[0])).toEqual([0.5, 1]);
  });

  test('tinted copies share their geometry, each under a material of its tint, and pass the validator', async () => {
    const part = await beads();
    part.copies!.tints = Float32Array.from([0, 0, 0, 0.5, 0.25, 1, 1, 1, 1]);
    const bytes = await glbBytes([part], 'Reef', noFiles);
    const report = await validateBytes(bytes);
    expect(report.issues.messages.filter(({ severity }) => severity <= 1)).toEqual([]);
    const root = (await new WebIO().readBinary(bytes)).getRoot();
    const shown = root.listNodes().filter((node) => node.getMesh());
    const primitives = shown.map((node) => node.getMesh()!.listPrimitives()[0]);
    expect(primitives.map((primitive) => primitive.getMaterial()!.getBaseColorFactor())).toEqual([
      [0.5, 0.25, 1, 1],
      [1, 1, 1, 1],
    ]);
    expect(primitives[0].getAttribute('POSITION')).toBe(primitives[1].getAttribute('POSITION'));
    expect(root.listMaterials()).toHaveLength(2);
  });

  test('read back it holds the same numbers', async () => {
    const part = await tubePart();
    const document = await new WebIO().readBinary(await glbBytes([part], 'Reef', noFiles));
    const [primitive] = document.getRoot().listMeshes()[0].listPrimitives();
    expect(primitive.getAttribute('POSITION')!.getArray()).toEqual(part.mesh.positions);
    expect(primitive.getIndices()!.getArray()).toEqual(part.mesh.indices);
    expect(primitive.getMaterial()!.getRoughnessFactor()).toBeCloseTo(0.4);
    expect(document.getRoot().listScenes()[0].listChildren()[0].listChildren()[0].getName()).toBe('Kelp stem');
  });
});

describe('OBJ', () => {
  // three's OBJLoader as an independent reader.
  test('is read by another reader with the same faces, part by part', async () => {
    const part = await tubePart();
    const second = { ...part, name: 'Second' };
    const group = new OBJLoader().parse([...objText([part, second])].join(''));
    expect(group.children.map(({ name }) => name)).toEqual(['Kelp_stem', 'Second']);
    const read = (group.children[1] as ThreeMesh).geometry;
    expect(read.getAttribute('position').count).toBe(part.mesh.indices.length);
    for (const corner of [0, 100, part.mesh.indices.length - 1]) {
      const v = part.mesh.indices[corner];
      expect(read.getAttribute('position').getY(corner)).toBeCloseTo(part.mesh.positions[3 * v + 1], 6);
      expect(read.getAttribute('normal').getX(corner)).toBeCloseTo(part.mesh.normals[3 * v], 6);
      expect(read.getAttribute('uv').getY(corner)).toBeCloseTo(part.mesh.uvs[2 * v + 1], 4);
    }
  });

  test('copies are written out, each with all its faces', async () => {
    const part = await beads();
    const { faces } = { faces: part.copies!.items[0].mesh.indices.length };
    const read = new OBJLoader().parse([...objText([part])].join('')).children[0] as ThreeMesh;
    expect(read.geometry.getAttribute('position').count).toBe(3 * faces);
  });

  test('paths without a skin become polylines', () => {
    const text = [
      ...objText([
        {
          name: 'Path',
          mesh: null,
          copies: null,
          paths: pathsFrom([{ positions: [0, 0, 0, 1, 0, 0, 0, 1, 0], closed: true }]),
        },
      ]),
    ].join('');
    expect(text).toContain('l 1 2 3 1\n');
    expect((new OBJLoader().parse(text).children[0] as LineSegments).isLineSegments).toBe(true);
  });
});

test('colours that are written to OBJ come back the same in linear light', async () => {
  const { mesh } = await tubePart();
  mesh.colors!.set([0.5, 0.214, 0.01]);
  const text = [...objText([{ name: 'Kelp', mesh, paths: null, copies: null }])].join('');
  const raw = await readForm(new TextEncoder().encode(text));
  // IEC 61966-2-1: 0.214 in linear light is 0.5 in sRGB.
  expect(text).toMatch(/^v \S+ \S+ \S+ 0\.735\d* 0\.499\d* 0\.0998\d*$/m);
  // The reader gives vertices in the order in which faces name them.
  const has = (value: number): boolean => raw.colors!.some((one) => Math.abs(one - value) < 1e-5);
  expect([0.5, 0.214, 0.01, 0.25].map(has)).toEqual([true, true, true, true]);
});
