import type { YieldNow } from '../yieldNow';
import { Problem } from '../problem';
import type { FormFormatId } from './formFormats';
import { damagedFile, FORM_LIMITS, type RawForm } from './rawForm';

type Reader = (bytes: Uint8Array, yieldNow: YieldNow) => RawForm | Promise<RawForm>;

/** The reader of each format, loaded when it is needed. */
const READERS: Record<FormFormatId, () => Promise<Reader>> = {
  obj: async () => (await import('./obj')).readObj,
  ply: async () => (await import('./ply')).readPly,
  stl: async () => (await import('./stl')).readStl,
  gltf: async () => (await import('./gltf')).readGltf,
};

/**
 * Reads a form of any format of the register, told by what the file holds: PLY and GLB begin with their names, glTF is JSON, OBJ has
 * its words at the beginning of lines, and what is left is STL.
 * @throws Problem for what is none of these, and for damage
 */
export async function readForm(bytes: Uint8Array, yieldNow: YieldNow = () => Promise.resolve()): Promise<RawForm> {
  if (bytes.length > FORM_LIMITS.bytes)
    throw new Problem(
      `The form is of ${Math.round(bytes.length / 1e6)} MB; ${FORM_LIMITS.bytes / 1e6} MB is the most.`,
      'Choose a smaller one.',
    );
  const reader = await READERS[formatOf(bytes)]();
  const raw = unitNormals(await reader(bytes, yieldNow));
  const wild = raw.positions.findIndex((value) => !(Math.abs(value) < 1e12));
  if (wild >= 0) throw damagedFile(`corner ${Math.floor(wild / 3) + 1} has no place`);
  return raw;
}

/** @throws Problem where the bytes are of no format that is read */
function formatOf(bytes: Uint8Array): FormFormatId {
  const head = String.fromCharCode(...bytes.subarray(0, 4096));
  if (/^ply\s/.test(head)) return 'ply';
  if (head.startsWith('glTF') || /^\s*\{/.test(head)) return 'gltf';
  if (/^\s*solid/i.test(head)) return 'stl';
  if (/^\s*(#|v[nt]?\s|[ogs]\s|mtllib\s|usemtl\s)/m.test(head) && !head.includes('\0')) return 'obj';
  if (bytes.length >= 84) return 'stl';
  throw damagedFile('it is of no kind that is known');
}

/** Normals of length 1, or none at all where some have no direction. */
function unitNormals(raw: RawForm): RawForm {
  const { normals } = raw;
  if (!normals) return raw;
  for (let i = 0; i < normals.length; i += 3) {
    const length = Math.hypot(normals[i], normals[i + 1], normals[i + 2]);
    if (!(length > 1e-12) || length === Infinity) return { ...raw, normals: null };
    for (let c = 0; c < 3; c++) normals[i + c] /= length;
  }
  return raw;
}
