import { unzlibSync } from 'fflate';
import { Problem } from '../problem';
import { kerningFault } from './gpos';

/** Tables that outlines and widths need; the rest (shaping rules, bitmaps, signatures) is left behind. */
const NEEDED = new Set([
  ...['cmap', 'head', 'hhea', 'hmtx', 'maxp', 'name', 'post', 'OS/2'],
  ...['loca', 'glyf', 'CFF ', 'kern', 'GPOS'],
]);
/** Bytes that all tables together may unpack to. */
const MOST_UNPACKED = 48e6;
/** Letters that a font may map: Unicode has room for so many (U+10FFFF). */
const MOST_LETTERS = 0x110000;

const damaged = (what: string): Problem =>
  new Problem(`The font is damaged: ${what}.`, 'Choose a sound TTF, OTF or WOFF file.');

interface Table {
  tag: string;
  checksum: number;
  bytes: Uint8Array;
}

/**
 * A font file cut down to the tables that its outlines need, each checked against its checksum: damage is told here,
 * before a parser walks into it. OpenType specification 1.9, "OpenType font file"; WOFF File Format 1.0, W3C 2012.
 * @param bytes TrueType, OpenType or WOFF
 * @throws Problem for anything else, and for damage
 */
export function soundFont(bytes: Uint8Array): ArrayBuffer {
  if (bytes.length < 12) throw damaged('it is too short');
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const woff = text(bytes, 0) === 'wOFF';
  const flavor = woff ? view.getUint32(4) : view.getUint32(0);
  const known = [0x00010000, 0x4f54544f, 0x74727565].includes(flavor);
  if (!known) {
    throw new Problem(
      'This is no TrueType, OpenType or WOFF font.',
      'Choose a TTF, OTF or WOFF file; unpack collections and WOFF2 first.',
    );
  }
  const tables = woff ? woffTables(bytes, view) : sfntTables(bytes, view);
  for (const table of tables)
    if (checksumOf(table) !== table.checksum)
      throw damaged(`its table ${table.tag.trim()} does not match its checksum`);
  for (const tag of ['cmap', 'head', 'hhea', 'hmtx', 'maxp'])
    if (!tables.some((table) => table.tag === tag)) throw damaged(`it has no table ${tag}`);
  checkLetters(tables.find(({ tag }) => tag === 'cmap')!.bytes);
  const kerning = tables.find(({ tag }) => tag === 'GPOS');
  const fault = kerning && kerningFault(kerning.bytes);
  if (fault) throw damaged(fault);
  return written(flavor, tables);
}

/** Refuses letter maps that claim more letters than there are: parsers write each of them down. OpenType 1.9, "cmap". */
function checkLetters(bytes: Uint8Array): void {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const within = (at: number, length: number): void => {
    if (at + length > bytes.length) throw damaged('its letter map is cut off');
  };
  within(0, 4);
  const count = view.getUint16(2);
  within(4, 8 * count);
  let letters = 0;
  const take = (first: number, last: number): void => {
    letters += Math.max(0, last - first + 1);
    if (letters > MOST_LETTERS * Math.max(1, count)) throw damaged('its letter map claims more letters than there are');
  };
  for (let i = 0; i < count; i++) {
    const at = view.getUint32(8 + 8 * i);
    within(at, 16);
    const format = view.getUint16(at);
    if (format === 4) {
      const segments = view.getUint16(at + 6) / 2;
      within(at + 14, 8 * segments + 2);
      for (let s = 0; s < segments; s++)
        take(view.getUint16(at + 16 + 2 * segments + 2 * s), view.getUint16(at + 14 + 2 * s));
    } else if (format === 12 || format === 13) {
      const groups = view.getUint32(at + 12);
      within(at + 16, 12 * groups);
      for (let g = 0; g < groups; g++) take(view.getUint32(at + 16 + 12 * g), view.getUint32(at + 20 + 12 * g));
    }
  }
}

const text = (bytes: Uint8Array, at: number): string => String.fromCharCode(...bytes.subarray(at, at + 4));

function sfntTables(bytes: Uint8Array, view: DataView): Table[] {
  const count = view.getUint16(4);
  if (12 + 16 * count > bytes.length) throw damaged('its list of tables is cut off');
  return needed(count, (i) => text(bytes, 12 + 16 * i)).map(([i, tag]) => {
    const at = 12 + 16 * i;
    return {
      tag,
      checksum: view.getUint32(at + 4),
      bytes: slice(bytes, view.getUint32(at + 8), view.getUint32(at + 12)),
    };
  });
}

/** The entries of tables that are needed, each once: doubles would be unpacked again and again. */
function needed(count: number, tagOf: (i: number) => string): [number, string][] {
  const tags = Array.from({ length: count }, (_, i): [number, string] => [i, tagOf(i)]).filter(([, tag]) =>
    NEEDED.has(tag),
  );
  if (new Set(tags.map(([, tag]) => tag)).size < tags.length) throw damaged('it lists a table twice');
  return tags;
}

function woffTables(bytes: Uint8Array, view: DataView): Table[] {
  if (bytes.length < 44) throw damaged('its header is cut off');
  const count = view.getUint16(12);
  if (44 + 20 * count > bytes.length) throw damaged('its list of tables is cut off');
  const entries = needed(count, (i) => text(bytes, 44 + 20 * i));
  const sum = entries.reduce((all, [i]) => all + view.getUint32(44 + 20 * i + 12), 0);
  if (sum > MOST_UNPACKED) throw damaged(`its tables unpack to more than ${MOST_UNPACKED / 1e6} MB`);
  return entries.map(([i, tag]) => {
    const at = 44 + 20 * i;
    const [packed, size] = [view.getUint32(at + 8), view.getUint32(at + 12)];
    const raw = slice(bytes, view.getUint32(at + 4), packed);
    return {
      tag,
      checksum: view.getUint32(at + 16),
      bytes: packed === size ? raw : inflated(raw, size),
    };
  });
}

function slice(bytes: Uint8Array, offset: number, length: number): Uint8Array {
  if (offset + length > bytes.length) throw damaged('a table reaches past its end');
  return bytes.subarray(offset, offset + length);
}

function inflated(packed: Uint8Array, size: number): Uint8Array {
  let out: Uint8Array;
  try {
    out = unzlibSync(packed, { out: new Uint8Array(size) });
  } catch {
    throw damaged('a table cannot be unpacked');
  }
  if (out.length !== size) throw damaged('a table unpacks to another size than it says');
  return out;
}

/** Sum of the table's 32-bit words; of the head table without its own adjustment. */
function checksumOf({ tag, bytes }: Table): number {
  let sum = 0;
  for (let i = 0; i < bytes.length; i += 4) {
    if (tag === 'head' && i === 8) continue;
    const [a, b = 0, c = 0, d = 0] = bytes.subarray(i, i + 4);
    sum = (sum + (((a << 24) | (b << 16) | (c << 8) | d) >>> 0)) >>> 0;
  }
  return sum;
}

function written(flavor: number, tables: readonly Table[]): ArrayBuffer {
  const padded = (length: number): number => Math.ceil(length / 4) * 4;
  const head = 12 + 16 * tables.length;
  const out = new Uint8Array(tables.reduce((sum, { bytes }) => sum + padded(bytes.length), head));
  const view = new DataView(out.buffer);
  view.setUint32(0, flavor);
  view.setUint16(4, tables.length);
  let at = head;
  tables.forEach(({ tag, checksum, bytes }, i) => {
    const entry = 12 + 16 * i;
    [...tag].forEach((c, k) => (out[entry + k] = c.charCodeAt(0)));
    view.setUint32(entry + 4, checksum);
    view.setUint32(entry + 8, at);
    view.setUint32(entry + 12, bytes.length);
    out.set(bytes, at);
    at += padded(bytes.length);
  });
  return out.buffer;
}
