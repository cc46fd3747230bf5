import { unzlibSync } from 'fflate';
import { Problem } from '../problem';

/** Tables that outlines and widths need; the rest (shaping rules, bitmaps, signatures) is left behind. */
const NEEDED = new Set([
  ...['cmap', 'head', 'hhea', 'hmtx', 'maxp', 'name', 'post', 'OS/2'],
  ...['loca', 'glyf', 'CFF ', 'kern', 'GPOS'],
]);
const MOST_TABLE = 32e6;

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
  const tables = (woff ? woffTables(bytes, view) : sfntTables(bytes, view)).filter(({ tag }) => NEEDED.has(tag));
  for (const table of tables)
    if (checksumOf(table) !== table.checksum)
      throw damaged(`its table ${table.tag.trim()} does not match its checksum`);
  for (const tag of ['cmap', 'head', 'hhea', 'hmtx', 'maxp'])
    if (!tables.some((table) => table.tag === tag)) throw damaged(`it has no table ${tag}`);
  return written(flavor, tables);
}

const text = (bytes: Uint8Array, at: number): string => String.fromCharCode(...bytes.subarray(at, at + 4));

function sfntTables(bytes: Uint8Array, view: DataView): Table[] {
  const count = view.getUint16(4);
  if (12 + 16 * count > bytes.length) throw damaged('its list of tables is cut off');
  return Array.from({ length: count }, (_, i) => {
    const at = 12 + 16 * i;
    return {
      tag: text(bytes, at),
      checksum: view.getUint32(at + 4),
      bytes: slice(bytes, view.getUint32(at + 8), view.getUint32(at + 12)),
    };
  });
}

function woffTables(bytes: Uint8Array, view: DataView): Table[] {
  if (bytes.length < 44) throw damaged('its header is cut off');
  const count = view.getUint16(12);
  if (44 + 20 * count > bytes.length) throw damaged('its list of tables is cut off');
  return Array.from({ length: count }, (_, i) => {
    const at = 44 + 20 * i;
    const [packed, size] = [view.getUint32(at + 8), view.getUint32(at + 12)];
    const tag = text(bytes, at);
    const raw = slice(bytes, view.getUint32(at + 4), packed);
    return {
      tag,
      checksum: view.getUint32(at + 16),
      bytes: packed === size || !NEEDED.has(tag) ? raw : inflated(raw, size),
    };
  });
}

function slice(bytes: Uint8Array, offset: number, length: number): Uint8Array {
  if (offset + length > bytes.length) throw damaged('a table reaches past its end');
  return bytes.subarray(offset, offset + length);
}

function inflated(packed: Uint8Array, size: number): Uint8Array {
  if (size > MOST_TABLE) throw damaged('a table is larger than 32 MB');
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
