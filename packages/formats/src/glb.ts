import {
  type Accessor,
  Document,
  type Material,
  type Mesh as GltfMesh,
  type Node as GltfNode,
  type Primitive,
  type Texture,
  WebIO,
} from '@gltf-transform/core';
import type { Copies, Mesh, Surface } from '@uvrex/core';
import { uprightBytes } from '@uvrex/core/pictures';
import type { Part } from './obj';

/** A part with what its surface is like; `surface` null gives a plain one. */
export interface DressedPart extends Part {
  surface: Surface | null;
}

/** Primitive modes of the specification, section 3.7.2.1. */
const LINE_LOOP = 2;
const LINE_STRIP = 3;

/**
 * Writes binary glTF 2.0 (Khronos Group, ISO/IEC 12113:2022): a node and mesh for each part, colours as linear vertex
 * colours; the light of glowing tips is not part of the base specification's vertex data and is left out. Copies
 * are nodes that share their item's mesh, one for each tint. Paths become line strips where a part has neither.
 */
export async function glbBytes(
  parts: readonly DressedPart[],
  sceneName: string,
  bytesOf: (file: string) => Promise<Uint8Array>,
): Promise<Uint8Array> {
  const document = new Document();
  const pictures = await picturesOf(parts, document, bytesOf);
  document.getRoot().getAsset().generator = 'Uvrex';
  const buffer = document.createBuffer();
  const scene = document.createScene(sceneName);
  document.getRoot().setDefaultScene(scene);
  const root = document.createNode(sceneName);
  scene.addChild(root);
  const accessor = (type: 'SCALAR' | 'VEC2' | 'VEC3', array: Float32Array | Uint32Array): Accessor =>
    document
      .createAccessor()
      .setType(type)
      .setArray(array as Float32Array<ArrayBuffer>)
      .setBuffer(buffer);

  const primitiveOf = (name: string, mesh: Mesh, surface: Surface | null): Primitive => {
    const primitive = document
      .createPrimitive()
      .setIndices(accessor('SCALAR', mesh.indices))
      .setAttribute('POSITION', accessor('VEC3', mesh.positions))
      .setAttribute('NORMAL', accessor('VEC3', mesh.normals))
      .setAttribute('TEXCOORD_0', accessor('VEC2', fromTop(mesh.uvs)))
      .setMaterial(materialOf(document, name, surface, pictures));
    if (mesh.colors) primitive.setAttribute('COLOR_0', accessor('VEC3', mesh.colors));
    return primitive;
  };
  /** A node for each copy, all of one item on one mesh. */
  const addCopies = (parent: GltfNode, name: string, { items, item, positions, turns, sizes, tints }: Copies): void => {
    const plain = items.map(({ mesh, surface }, i) =>
      mesh.indices.length > 0 ? primitiveOf(`${name} item ${i + 1}`, mesh, surface) : null,
    );
    const meshes = new Map<string, GltfMesh>();
    /** An item in a tint: the same geometry, under a material whose colour multiplies the vertices'. */
    const meshOf = (i: number, tint: readonly number[]): GltfMesh | null => {
      const primitive = plain[i];
      if (!primitive) return null;
      const key = [i, ...tint].join();
      let mesh = meshes.get(key);
      if (!mesh) {
        const title = `${name} item ${i + 1}${tint.every((x) => x === 1) ? '' : ` tint ${meshes.size + 1}`}`;
        const tinted = primitive.clone().setMaterial(primitive.getMaterial()!.clone().setName(title));
        tinted.getMaterial()!.setBaseColorFactor([tint[0], tint[1], tint[2], 1]);
        meshes.set(key, (mesh = document.createMesh(title).addPrimitive(tinted)));
      }
      return mesh;
    };
    const three = (of: Float32Array, k: number): [number, number, number] => [of[3 * k], of[3 * k + 1], of[3 * k + 2]];
    for (let k = 0; k < item.length; k++) {
      // A copy that has not come up yet has no size, and a node of none is not sound.
      if (sizes[3 * k] === 0) continue;
      const mesh = meshOf(item[k], tints ? three(tints, k).map(inSteps) : WHITE);
      if (!mesh) continue;
      const turn = turns.subarray(4 * k, 4 * k + 4);
      const node = document
        .createNode(`${name} ${k + 1}`)
        .setMesh(mesh)
        .setTranslation(three(positions, k))
        .setRotation([turn[0], turn[1], turn[2], turn[3]])
        .setScale(three(sizes, k));
      parent.addChild(node);
    }
    for (const primitive of plain) {
      primitive?.getMaterial()?.dispose();
      primitive?.dispose();
    }
  };

  for (const { name, mesh, paths, surface, copies } of parts) {
    const made = document.createMesh(name);
    if (mesh && mesh.indices.length > 0) {
      made.addPrimitive(primitiveOf(name, mesh, surface));
    } else if (!mesh && !copies && paths) {
      for (let p = 0; p < paths.offsets.length - 1; p++) {
        const [a, b] = [paths.offsets[p], paths.offsets[p + 1]];
        if (b - a < 2) continue;
        made.addPrimitive(
          document
            .createPrimitive()
            .setMode(paths.closed[p] ? LINE_LOOP : LINE_STRIP)
            .setAttribute('POSITION', accessor('VEC3', paths.positions.slice(3 * a, 3 * b))),
        );
      }
    }
    // A part that has not begun to grow keeps its node; the specification allows no mesh without primitives.
    const node = document.createNode(name);
    if (made.listPrimitives().length > 0) node.setMesh(made);
    else made.dispose();
    if (copies) addCopies(node, name, copies);
    root.addChild(node);
  }
  if (document.getRoot().listAccessors().length === 0) buffer.dispose();
  return new WebIO().writeBinary(document);
}

const WHITE = [1, 1, 1];

/** Tints in steps that are not seen, so that like ones share a material. */
const inSteps = (value: number): number => Math.round(Math.min(1, Math.max(0, value)) * 64) / 64;

function materialOf(
  document: Document,
  name: string,
  surface: Surface | null,
  pictures: ReadonlyMap<string, Texture>,
): Material {
  const material = document
    .createMaterial(name)
    .setMetallicFactor(0)
    .setRoughnessFactor(surface?.roughness ?? 0.6);
  if (!surface?.picture) return material;
  const { file, cutoff } = surface.picture;
  material.setBaseColorTexture(pictures.get(file)!);
  return cutoff > 0 ? material.setAlphaMode('MASK').setAlphaCutoff(cutoff) : material;
}

/** The pictures of all skins, each once, by their files. */
async function picturesOf(
  parts: readonly DressedPart[],
  document: Document,
  bytesOf: (file: string) => Promise<Uint8Array>,
): Promise<Map<string, Texture>> {
  const made = new Map<string, Texture>();
  const surfaces = parts.flatMap(({ surface, copies }) => [
    surface,
    ...(copies?.items ?? []).map((item) => item.surface),
  ]);
  for (const surface of surfaces) {
    const file = surface?.picture?.file;
    if (file === undefined || made.has(file)) continue;
    // Readers of glTF go by pixels alone.
    const bytes = uprightBytes(await bytesOf(file));
    const texture = document
      .createTexture(`Picture ${made.size + 1}`)
      .setImage(bytes as Uint8Array<ArrayBuffer>)
      // A JPEG begins with FF D8.
      .setMimeType(bytes[0] === 0xff ? 'image/jpeg' : 'image/png');
    made.set(file, texture);
  }
  return made;
}

/** Texture coordinates as glTF counts them: from the upper edge down (2.0, 3.8.3), where Uvrex counts from the lower one up. */
const fromTop = (uvs: Float32Array): Float32Array => uvs.map((value, i) => (i % 2 === 1 ? 1 - value : value));
