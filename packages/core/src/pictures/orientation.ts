import type { Picture } from './readPicture';

/** Tag of the orientation in the first directory of Exif data. */
const ORIENTATION = 0x0112;

/**
 * How a camera was held when it took a JPEG: 1 to 8 as Exif counts them (CIPA DC-008, tag Orientation), 1 where the file does not say
 * or what it says is damaged.
 */
export function jpegOrientation(bytes: Uint8Array): number {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  // Segments up to the picture's own data, each with its marker and its length.
  for (let at = 2; at + 10 <= bytes.length && bytes[at] === 0xff && bytes[at + 1] !== 0xda;) {
    const end = at + 2 + view.getUint16(at + 2);
    if (bytes[at + 1] === 0xe1 && view.getUint32(at + 4) === 0x45786966)
      return orientationIn(bytes.subarray(at + 10, Math.min(end, bytes.length)));
    at = end;
  }
  return 1;
}

/** The orientation in a TIFF header and its first directory: entries of 12 bytes (TIFF 6.0, section 2). */
function orientationIn(tiff: Uint8Array): number {
  if (tiff.length < 10) return 1;
  const view = new DataView(tiff.buffer, tiff.byteOffset, tiff.byteLength);
  const little = view.getUint16(0) === 0x4949;
  const first = view.getUint32(4, little);
  if (first + 2 > tiff.length) return 1;
  const count = view.getUint16(first, little);
  for (let k = 0; k < count && first + 14 + 12 * k <= tiff.length; k++) {
    const entry = first + 2 + 12 * k;
    if (view.getUint16(entry, little) !== ORIENTATION) continue;
    const orientation = view.getUint16(entry + 8, little);
    return orientation >= 1 && orientation <= 8 ? orientation : 1;
  }
  return 1;
}

/** A picture turned and mirrored so that it stands as it was seen. @param orientation 1 to 8, as `jpegOrientation` gives it */
export function uprightPicture(picture: Picture, orientation: number): Picture {
  if (orientation === 1) return picture;
  const { width, height, rgba, most } = picture;
  const lies = orientation > 4;
  // Where the first row and the first column of what is stored are seen.
  const bottom = [3, 4, 7, 8].includes(orientation);
  const right = [2, 3, 6, 7].includes(orientation);
  const [w, h] = lies ? [height, width] : [width, height];
  const out = rgba.slice();
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const [u, v] = [right ? w - 1 - x : x, bottom ? h - 1 - y : y];
      const from = 4 * (lies ? u * width + v : v * width + u);
      for (let c = 0; c < 4; c++) out[4 * (y * w + x) + c] = rgba[from + c];
    }
  return { width: w, height: h, rgba: out, most };
}
