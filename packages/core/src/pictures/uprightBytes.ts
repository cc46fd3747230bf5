import { encode } from 'fast-png';
import { jpegOrientation } from './orientation';
import { readPicture } from './readPicture';

/**
 * A picture's file for those who go by its pixels alone: as it is, or where a camera says how it was held, a PNG that stands so by
 * itself.
 * @throws Problem as `readPicture`
 */
export function uprightBytes(bytes: Uint8Array): Uint8Array {
  if (bytes[0] !== 0xff || jpegOrientation(bytes) === 1) return bytes;
  const { width, height, rgba } = readPicture(bytes);
  return encode({ width, height, data: rgba, channels: 4, depth: 8 });
}
