import type { YieldNow } from '../yieldNow';
import { polygonFaces } from './polygon';
import { CHUNK, cornersWithin, damagedFile, integers, PolygonPace, type RawForm, within } from './rawForm';
import { TextReader } from './text';
import { linearOf } from '../fields/srgb';

/** Numbers of a file: bytes of each, and how they are read. */
const TYPES: Record<
  string,
  { size: number; read: (view: DataView, at: number, little: boolean) => number; most: number }
> = (() => {
  const int8 = { size: 1, read: (v: DataView, at: number) => v.getInt8(at), most: 127 };
  const uint8 = { size: 1, read: (v: DataView, at: number) => v.getUint8(at), most: 255 };
  const int16 = { size: 2, read: (v: DataView, at: number, le: boolean) => v.getInt16(at, le), most: 32767 };
  const uint16 = { size: 2, read: (v: DataView, at: number, le: boolean) => v.getUint16(at, le), most: 65535 };
  const int32 = { size: 4, read: (v: DataView, at: number, le: boolean) => v.getInt32(at, le), most: 2147483647 };
  const uint32 = { size: 4, read: (v: DataView, at: number, le: boolean) => v.getUint32(at, le), most: 4294967295 };
  const float32 = { size: 4, read: (v: DataView, at: number, le: boolean) => v.getFloat32(at, le), most: 1 };
  const float64 = { size: 8, read: (v: DataView, at: number, le: boolean) => v.getFloat64(at, le), most: 1 };
  return {
    ...{ char: int8, int8, uchar: uint8, uint8, short: int16, int16, ushort: uint16, uint16 },
    ...{ int: int32, int32, uint: uint32, uint32, float: float32, float32, double: float64, float64 },
  };
})();

interface Property {
  name: string;
  type: string;
  /** Type of the number that says how many there are; null for one alone. */
  list: string | null;
}

interface Element {
  name: string;
  count: number;
  properties: Property[];
}

type Reader = (type: string) => number;

/** Names by which files call what vertices know. */
const NAMES: Record<string, readonly string[]> = {
  x: ['x'],
  y: ['y'],
  z: ['z'],
  nx: ['nx'],
  ny: ['ny'],
  nz: ['nz'],
  s: ['s', 'u', 'texture_u'],
  t: ['t', 'v', 'texture_v'],
  red: ['red', 'diffuse_red', 'r'],
  green: ['green', 'diffuse_green', 'g'],
  blue: ['blue', 'diffuse_blue', 'b'],
};

/**
 * Reads a PLY file, text or binary of either byte order (Turk, The PLY Polygon File Format, 1994): vertices with normals, texture
 * coordinates and colours, faces of any number of corners. Other elements and properties are passed over.
 * @throws Problem that says where
 */
export async function readPly(bytes: Uint8Array, yieldNow: YieldNow): Promise<RawForm> {
  const text = new TextReader(bytes);
  const { format, elements } = header(text);
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let at = text.at;
  const little = format === 'binary_little_endian';
  const read: Reader =
    format === 'ascii'
      ? () => {
          text.gaps();
          const value = text.number();
          if (Number.isNaN(value))
            throw damagedFile(
              text.ended ? 'it ends before its last number' : `line ${text.line}: there should be a number`,
            );
          return value;
        }
      : (type) => {
          const { size, read: from } = TYPES[type];
          if (at + size > bytes.length) throw damagedFile('it ends before its last number');
          const value = from(view, at, little);
          at += size;
          return value;
        };
  let found: RawForm | null = null;
  const indices = integers();
  for (const element of elements) {
    // Entries without properties take no room: there is nothing to read.
    if (element.properties.length === 0 && element.name !== 'vertex') continue;
    // Every other takes a byte at least: more than that is a lie.
    if (element.count > bytes.length) throw damagedFile(`it cannot hold ${element.count} of “${element.name}”`);
    if (element.name === 'vertex') found = await vertices(element, read, yieldNow);
    else await others(element, read, found, indices, yieldNow);
  }
  if (!found) throw damagedFile('it holds no vertices');
  if (indices.length === 0) throw damagedFile('it holds no faces');
  return { ...found, indices: indices.done() };
}

function header(text: TextReader): { format: string; elements: Element[] } {
  if (text.word() !== 'ply') throw damagedFile('it does not begin with “ply”');
  let format = '';
  const elements: Element[] = [];
  for (text.nextLine(); ; text.nextLine()) {
    if (text.ended || text.line > 10_000) throw damagedFile('its header has no end');
    const word = text.word();
    if (word === 'format') {
      format = text.word();
      if (!['ascii', 'binary_little_endian', 'binary_big_endian'].includes(format))
        throw damagedFile(`its format “${format}” is not known`);
    } else if (word === 'element') {
      const name = text.word();
      const count = text.number();
      if (!Number.isInteger(count) || count < 0)
        throw damagedFile(`line ${text.line}: how many of “${name}” there are is not said`);
      elements.push({ name, count, properties: [] });
    } else if (word === 'property') {
      const last = elements.at(-1);
      if (!last) throw damagedFile(`line ${text.line}: a property belongs to no element`);
      const type = text.word();
      const list = type === 'list' ? text.word() : null;
      const own = list === null ? type : text.word();
      for (const used of [own, ...(list === null ? [] : [list])])
        if (!Object.hasOwn(TYPES, used))
          throw damagedFile(`line ${text.line}: numbers of type “${used}” are not known`);
      last.properties.push({ name: text.word(), type: own, list });
    } else if (word === 'end_header') {
      text.nextLine();
      if (format === '') throw damagedFile('its format is not said');
      return { format, elements };
    }
  }
}

async function vertices({ count, properties }: Element, read: Reader, yieldNow: YieldNow): Promise<RawForm> {
  within(0, count);
  const columns = Object.fromEntries(
    Object.entries(NAMES).map(([name, known]) => [
      name,
      properties.findIndex((p) => p.list === null && known.includes(p.name.toLowerCase())),
    ]),
  );
  const have = (...names: string[]): boolean => names.every((name) => columns[name] >= 0);
  if (!have('x', 'y', 'z')) throw damagedFile('its vertices have no x, y and z');
  const positions = new Float32Array(3 * count);
  const normals = have('nx', 'ny', 'nz') ? new Float32Array(3 * count) : null;
  const uvs = have('s', 't') ? new Float32Array(2 * count) : null;
  const colors = have('red', 'green', 'blue') ? new Float32Array(3 * count) : null;
  const row = new Float64Array(properties.length);
  const scale = colors ? TYPES[properties[columns.red].type].most : 1;
  for (let i = 0; i < count; i++) {
    if (i % CHUNK === CHUNK - 1) await yieldNow();
    properties.forEach((property, k) => {
      if (property.list === null) row[k] = read(property.type);
      else for (let left = read(property.list); left > 0; left--) read(property.type);
    });
    ['x', 'y', 'z'].forEach((name, c) => (positions[3 * i + c] = row[columns[name]]));
    if (normals) ['nx', 'ny', 'nz'].forEach((name, c) => (normals[3 * i + c] = row[columns[name]]));
    if (uvs) ['s', 't'].forEach((name, c) => (uvs[2 * i + c] = row[columns[name]]));
    if (colors)
      ['red', 'green', 'blue'].forEach((name, c) => (colors[3 * i + c] = linearOf(row[columns[name]] / scale)));
  }
  return { positions, indices: new Uint32Array(0), normals, uvs, colors, parts: null, up: 'z' };
}

async function others(
  element: Element,
  read: Reader,
  found: RawForm | null,
  indices: ReturnType<typeof integers>,
  yieldNow: YieldNow,
): Promise<void> {
  const faces = element.name === 'face';
  if (faces && !found) throw damagedFile('its faces come before its vertices');
  const corners = faces
    ? element.properties.findIndex(({ name, list }) => list !== null && /^vertex_ind(ex|ices)$/.test(name))
    : -1;
  if (faces && corners < 0) throw damagedFile('its faces name no vertices');
  const n = found ? found.positions.length / 3 : 0;
  const pace = new PolygonPace();
  for (let i = 0; i < element.count; i++) {
    if (i % CHUNK === CHUNK - 1) await yieldNow();
    let sides = 0;
    element.properties.forEach((property, k) => {
      if (property.list === null) return void read(property.type);
      const count = read(property.list);
      if (!Number.isInteger(count) || count < 0) throw damagedFile(`face ${i + 1} has no number of corners`);
      if (k === corners) cornersWithin((sides = count));
      const ring: number[] = [];
      for (let left = count; left > 0; left--) {
        const value = read(property.type);
        if (k !== corners) continue;
        if (!Number.isInteger(value) || value < 0 || value >= n)
          throw damagedFile(`face ${i + 1} names corner ${value} of ${n}`);
        ring.push(value);
      }
      if (k !== corners || ring.length < 3) return;
      for (const corner of polygonFaces(found!.positions, ring)) indices.push(corner);
      within(indices.length / 3, n);
    });
    if (pace.add(sides)) await yieldNow();
  }
}
