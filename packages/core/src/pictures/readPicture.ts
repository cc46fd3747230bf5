import { decode as decodeJpeg } from 'jpeg-js';
import { type DecodedPng, decode as decodePng } from 'fast-png';
import { Problem } from '../problem';
import { jpegOrientation, uprightPicture } from './orientation';

/** RGBA pixels, rows from the top, as stored (sRGB unless the file says otherwise). */
export interface Picture {
  width: number;
  height: number;
  /** 4 · width · height values, 0 to `most`. */
  rgba: Uint8Array | Uint16Array;
  /** 255, or 65,535 at 16 bits a channel. */
  most: number;
}

/** Maximum number of pixels. */
export const MOST_PIXELS = 40e6;

/** Cache of decoded pictures, by their bytes. */
const known = new WeakMap<Uint8Array, Picture>();

const isPng = (bytes: Uint8Array): boolean => [0x89, 0x50, 0x4e, 0x47].every((byte, i) => bytes[i] === byte);
const isJpeg = (bytes: Uint8Array): boolean => bytes[0] === 0xff && bytes[1] === 0xd8;

/**
 * Decodes a PNG (ISO/IEC 15948, any depth and colour type) or a JPEG, with the same result on all machines, unlike browsers' decoders.
 * A JPEG stands as its camera was held (Exif).
 * @throws Problem where it is neither, damaged, or too large
 */
export function readPicture(bytes: Uint8Array): Picture {
  const before = known.get(bytes);
  if (before) return before;
  if (!isPng(bytes) && !isJpeg(bytes))
    throw new Problem('The file is no PNG or JPEG.', 'Choose a picture in one of these formats.');
  const size = sizeOf(bytes);
  if (size && size.width * size.height > MOST_PIXELS)
    throw new Problem(
      `The picture has ${size.width} × ${size.height} pixels; ${MOST_PIXELS / 1e6} million are the most.`,
      'Choose a smaller one.',
    );
  let made: Picture;
  try {
    made = isPng(bytes) ? ofPng(decodePng(bytes)) : ofJpeg(bytes);
  } catch (error) {
    throw new Problem(
      `The picture could not be read: ${error instanceof Error ? error.message : String(error)}.`,
      'It may be damaged; save it again, or choose another.',
    );
  }
  known.set(bytes, made);
  return made;
}

/** Width and height from the header; null where it is not found. */
function sizeOf(bytes: Uint8Array): { width: number; height: number } | null {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (isPng(bytes)) return bytes.length < 24 ? null : { width: view.getUint32(16), height: view.getUint32(20) };
  // Segments until that of the frame (ITU-T T.81, annex B): its marker is C0 to CF without C4, C8 and CC.
  for (let at = 2; at + 9 < bytes.length; at += 2 + view.getUint16(at + 2)) {
    const marker = bytes[at + 1];
    if (bytes[at] !== 0xff) return null;
    if (marker >= 0xc0 && marker <= 0xcf && ![0xc4, 0xc8, 0xcc].includes(marker))
      return { width: view.getUint16(at + 7), height: view.getUint16(at + 5) };
  }
  return null;
}

function ofJpeg(bytes: Uint8Array): Picture {
  const { width, height, data } = decodeJpeg(bytes, { useTArray: true, maxResolutionInMP: MOST_PIXELS / 1e6 });
  return uprightPicture({ width, height, rgba: data, most: 255 }, jpegOrientation(bytes));
}

function ofPng(png: DecodedPng): Picture {
  const { width, height, depth, channels, palette, transparency } = png;
  const data = depth < 8 ? unpacked(png) : png.data;
  const most = palette ? 255 : depth === 16 ? 65535 : 255;
  const rgba = depth === 16 ? new Uint16Array(4 * width * height) : new Uint8Array(4 * width * height);
  // Greys below 8 bits are scaled to 0..255.
  const scale = palette || depth >= 8 ? 1 : 255 / (2 ** depth - 1);
  for (let i = 0; i < width * height; i++) {
    if (palette) {
      const color = palette[data[i]] ?? [0, 0, 0];
      for (let c = 0; c < 4; c++) rgba[4 * i + c] = color[c] ?? 255;
      continue;
    }
    const grey = channels < 3;
    for (let c = 0; c < 3; c++) rgba[4 * i + c] = scale * data[channels * i + (grey ? 0 : c)];
    const opaque = channels === 2 || channels === 4 ? data[channels * i + channels - 1] : most;
    // Colour-key transparency (chunk tRNS).
    const keyed =
      transparency?.length && Array.from(transparency).every((value, c) => data[channels * i + c] === value);
    rgba[4 * i + 3] = keyed ? 0 : opaque;
  }
  return { width, height, rgba, most };
}

/** Unpacks samples below 8 bits; each row begins at a byte. */
function unpacked({ width, height, depth, data }: DecodedPng): Uint8Array {
  const row = Math.ceil((width * depth) / 8);
  const values = new Uint8Array(width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const bit = x * depth;
      values[y * width + x] = (data[y * row + (bit >> 3)] >> (8 - depth - (bit & 7))) & (2 ** depth - 1);
    }
  return values;
}
