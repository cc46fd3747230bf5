import { strFromU8 } from 'fflate';
import { Problem } from '../problem';
import { type Clip, readClip, writeClip } from './clip';
import { LIMITS } from './limits';
import { type Files, readWithFiles, writeWithFiles } from './sceneFile';
import { isZip } from './zip';

const TEXT = 'cutting.json';

/**
 * The bytes of a cutting's file: plain JSON without files, a zip of `cutting.json` and `files/` with them.
 * @param bytesOf gives a file's bytes by its id
 * @throws Problem for a file that is not here
 */
export const writeClipFile = (
  clip: Clip,
  bytesOf: (id: string) => Promise<Uint8Array | undefined>,
): Promise<{ bytes: Uint8Array; ending: 'json' | 'zip' }> =>
  writeWithFiles(TEXT, writeClip(clip), clip.scene.files, bytesOf);

/**
 * Reads what `writeClipFile` wrote.
 * @returns null for bytes that hold no clip
 * @throws Problem for a clip that is damaged
 */
export async function readClipFile(bytes: Uint8Array): Promise<{ clip: Clip; files: Files } | null> {
  if (isZip(bytes)) {
    const { text, filesOf } = await readWithFiles(bytes, TEXT);
    const clip = readClip(text);
    return clip && { clip, files: filesOf(clip.scene.files) };
  }
  if (bytes.length > LIMITS.fileText)
    throw new Problem('The file is too large for a cutting.', 'Choose a file that was exported from your cuttings.');
  const clip = readClip(strFromU8(bytes));
  return clip && { clip, files: new Map() };
}
