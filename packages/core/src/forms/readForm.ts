import type { Breathe } from '../breathe';
import { Problem } from '../problem';
import { damagedFile, FORM_LIMITS, type RawForm } from './rawForm';

/**
 * Reads a form of any kind that is known, told by what the file holds: PLY and GLB begin with their names, glTF is JSON, OBJ has
 * its words at the beginning of lines, and what is left is STL.
 * @throws Problem for what is none of these, and for damage
 */
export async function readForm(bytes: Uint8Array, breathe: Breathe = () => Promise.resolve()): Promise<RawForm> {
  if (bytes.length > FORM_LIMITS.bytes)
    throw new Problem(
      `The form is of ${Math.round(bytes.length / 1e6)} MB; ${FORM_LIMITS.bytes / 1e6} MB is the most.`,
      'Choose a smaller one.',
    );
  const raw = sound(await read(bytes, breathe));
  const wild = raw.positions.findIndex((value) => !(Math.abs(value) < 1e12));
  if (wild >= 0) throw damagedFile(`corner ${Math.floor(wild / 3) + 1} has no place`);
  return raw;
}

async function read(bytes: Uint8Array, breathe: Breathe): Promise<RawForm> {
  const head = String.fromCharCode(...bytes.subarray(0, 4096));
  if (/^ply\s/.test(head)) return (await import('./ply')).readPly(bytes, breathe);
  if (head.startsWith('glTF') || /^\s*\{/.test(head)) return (await import('./gltf')).readGltf(bytes, breathe);
  if (/^\s*solid/i.test(head)) return (await import('./stl')).readStl(bytes, breathe);
  if (/^\s*(#|v[nt]?\s|[ogs]\s|mtllib\s|usemtl\s)/m.test(head) && !head.includes('\0'))
    return (await import('./obj')).readObj(bytes, breathe);
  if (bytes.length >= 84) return (await import('./stl')).readStl(bytes, breathe);
  throw damagedFile('it is of no kind that is known');
}

/** Normals of length 1, or none at all where some have no direction. */
function sound(raw: RawForm): RawForm {
  const { normals } = raw;
  if (!normals) return raw;
  for (let i = 0; i < normals.length; i += 3) {
    const length = Math.hypot(normals[i], normals[i + 1], normals[i + 2]);
    if (!(length > 1e-12) || length === Infinity) return { ...raw, normals: null };
    for (let c = 0; c < 3; c++) normals[i + c] /= length;
  }
  return raw;
}
