import type { YieldNow } from '../yieldNow';
import { mapped } from '../geometry/filled';
import { Problem } from '../problem';
import { checkGltf, glbJson, type GltfJson } from './gltfCheck';
import { damagedFile, floats, FORM_LIMITS, integers, type RawForm, within } from './rawForm';

type Matrix = ArrayLike<number>;
/** How the corners of a primitive make triangles (glTF 2.0, section 3.7.2.1). */
const [TRIANGLES, STRIP, FAN] = [4, 5, 6];

/**
 * Reads the triangles of a glTF 2.0 file with what it embeds, or of a GLB (Khronos, glTF 2.0 specification), by
 * glTF Transform: node transforms applied, meshes of nodes as parts, base colours and colours of vertices kept. Buffers in files of their
 * own are not within reach.
 * @throws Problem that says what
 */
export async function readGltf(bytes: Uint8Array, yieldNow: YieldNow): Promise<RawForm> {
  const { Logger, WebIO } = await import('@gltf-transform/core');
  const io = new WebIO().setLogger(new Logger(Logger.Verbosity.SILENT));
  let document;
  try {
    if (bytes[0] === GLB) {
      checkGltf(glbJson(bytes));
      const file = await io.binaryToJSON(bytes);
      document = await io.readJSON({ ...file, json: withoutQuantization(file.json) });
    } else {
      const json = withoutQuantization(JSON.parse(new TextDecoder().decode(bytes)) as GltfJson);
      checkGltf(json);
      const uris = [...(json.buffers ?? []), ...(json.images ?? [])].flatMap(({ uri }) => uri ?? []);
      const outside = uris.find((uri) => !uri.startsWith('data:'));
      if (outside) throw damagedFile(`it needs the file “${outside.slice(0, 80)}” beside it: embed it, or save a GLB`);
      document = await io.readJSON({ json, resources: Object.fromEntries(uris.map((uri) => [uri, dataBytes(uri)])) });
    }
  } catch (error) {
    if (error instanceof Problem) throw error;
    throw damagedFile('it is no sound glTF file: it is cut off, or something that it names is not in it');
  }
  const [positions, normals, uvs, colors, parts] = [floats(), floats(), floats(), floats(), floats()];
  const indices = integers();
  let [anyNormal, anyUv, anyColor] = [true, true, false];
  let part = -1;
  const root = document.getRoot();
  const scene = root.getDefaultScene() ?? root.listScenes()[0];
  type Node = ReturnType<typeof root.listNodes>[number];
  const visit = async (node: Node, above: Matrix): Promise<void> => {
    const matrix = times(above, node.getMatrix());
    const mesh = node.getMesh();
    if (mesh) {
      part = Math.min(part + 1, FORM_LIMITS.parts);
      for (const primitive of mesh.listPrimitives()) {
        await yieldNow();
        const place = primitive.getAttribute('POSITION');
        if (!place || ![TRIANGLES, STRIP, FAN].includes(primitive.getMode())) continue;
        const first = positions.length / 3;
        const n = place.getCount();
        const order = primitive.getIndices();
        const count = order ? order.getCount() : n;
        within(indices.length / 3 + count / 3, first + n);
        const [turned, textured, painted] = ['NORMAL', 'TEXCOORD_0', 'COLOR_0'].map((name) =>
          primitive.getAttribute(name),
        );
        const base = primitive.getMaterial()?.getBaseColorFactor() ?? [1, 1, 1, 1];
        if (painted || base.some((value) => value !== 1)) anyColor = true;
        anyNormal &&= turned?.getCount() === n;
        anyUv &&= textured?.getCount() === n;
        const value: number[] = [];
        const normalMatrix = cofactors(matrix);
        for (let i = 0; i < n; i++) {
          place.getElement(i, value);
          const [x, y, z] = value;
          for (let c = 0; c < 3; c++)
            positions.push(matrix[c] * x + matrix[4 + c] * y + matrix[8 + c] * z + matrix[12 + c]);
          const normal = turned && i < turned.getCount() ? turned.getElement(i, [0, 0, 0]) : [0, 0, 0];
          for (let c = 0; c < 3; c++)
            normals.push(
              normalMatrix[c] * normal[0] + normalMatrix[3 + c] * normal[1] + normalMatrix[6 + c] * normal[2],
            );
          const uv = textured && i < textured.getCount() ? textured.getElement(i, [0, 0]) : [0, 0];
          // Texture coordinates of glTF run down from the top.
          uvs.push(uv[0]);
          uvs.push(1 - uv[1]);
          const color = painted && i < painted.getCount() ? painted.getElement(i, [1, 1, 1, 1]) : [1, 1, 1];
          for (let c = 0; c < 3; c++) colors.push(Math.min(1, Math.max(0, base[c] * color[c])));
          parts.push(part);
        }
        const at = (k: number): number => {
          const index = order ? order.getScalar(k) : k;
          if (index >= n) throw damagedFile(`a face names corner ${index} of ${n}`);
          return first + index;
        };
        const mirrored = determinant(matrix) < 0;
        const face = (a: number, b: number, c: number): void => {
          indices.push(a);
          indices.push(mirrored ? c : b);
          indices.push(mirrored ? b : c);
        };
        const mode = primitive.getMode();
        if (mode === TRIANGLES) for (let k = 0; k + 2 < count; k += 3) face(at(k), at(k + 1), at(k + 2));
        else
          for (let k = 0; k + 2 < count; k++)
            if (mode === FAN) face(at(0), at(k + 1), at(k + 2));
            else face(at(k), at(k + 1 + (k % 2)), at(k + 2 - (k % 2)));
      }
    }
    for (const child of node.listChildren()) await visit(child, matrix);
  };
  const identity = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1];
  const begun = scene ? scene.listChildren() : root.listNodes().filter((node) => !node.getParentNode());
  for (const node of begun) await visit(node, identity);
  if (indices.length === 0) throw damagedFile('it holds no triangles');
  return {
    positions: positions.done(),
    indices: indices.done(),
    normals: anyNormal ? normals.done() : null,
    uvs: anyUv ? uvs.done() : null,
    colors: anyColor ? colors.done() : null,
    parts: part > 0 ? parts.done() : null,
    up: 'y',
    ...(root.listTextures().length > 0 && { leftOut: 'Its pictures (textures)' }),
  };
}

const GLB = 0x67;

/**
 * Without the demand for KHR_mesh_quantization (Khronos extension, ratified): it only allows attributes of small integers, and these
 * are read in any case.
 */
function withoutQuantization<J extends { extensionsRequired?: string[] }>(json: J): J {
  return Array.isArray(json.extensionsRequired)
    ? { ...json, extensionsRequired: json.extensionsRequired.filter((name) => name !== 'KHR_mesh_quantization') }
    : json;
}

/** Bytes of a data URI (RFC 2397), in base64. */
function dataBytes(uri: string): Uint8Array<ArrayBuffer> {
  const comma = uri.indexOf(',');
  if (comma < 0 || !/;base64$/i.test(uri.slice(0, comma)))
    throw damagedFile('a part of it is embedded in an unknown way');
  let text: string;
  try {
    text = atob(uri.slice(comma + 1));
  } catch {
    throw damagedFile('a part of it that is embedded is damaged');
  }
  return mapped(Uint8Array, text, (letter) => letter.charCodeAt(0));
}

function times(a: Matrix, b: Matrix): number[] {
  const out = new Array<number>(16).fill(0);
  for (let column = 0; column < 4; column++)
    for (let row = 0; row < 4; row++)
      for (let k = 0; k < 4; k++) out[4 * column + row] += a[4 * k + row] * b[4 * column + k];
  return out;
}

const determinant = (m: Matrix): number =>
  m[0] * (m[5] * m[10] - m[6] * m[9]) - m[4] * (m[1] * m[10] - m[2] * m[9]) + m[8] * (m[1] * m[6] - m[2] * m[5]);

/** Cofactors of the upper three by three, column by column: what normals turn by. */
function cofactors(m: Matrix): number[] {
  const minor = (a: number, b: number, c: number, d: number): number => m[a] * m[d] - m[b] * m[c];
  const side = determinant(m) < 0 ? -1 : 1;
  return [
    ...[minor(5, 6, 9, 10), -minor(4, 6, 8, 10), minor(4, 5, 8, 9)],
    ...[-minor(1, 2, 9, 10), minor(0, 2, 8, 10), -minor(0, 1, 8, 9)],
    ...[minor(1, 2, 5, 6), -minor(0, 2, 4, 6), minor(0, 1, 4, 5)],
  ].map((value) => side * value);
}
