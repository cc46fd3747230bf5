import type { YieldNow } from '../yieldNow';
import { filled } from '../geometry/filled';
import { CHUNK, damagedFile, floats, type RawForm, within } from './rawForm';
import { TextReader } from './text';

/** Bytes before the triangles of a binary file, and of each of them. */
const [HEAD, EACH] = [84, 50];

/**
 * Reads an STL file, text or binary (3D Systems, StereoLithography Interface Specification, 1989). What begins with “solid” is
 * binary all the same where its length says so. Normals are left to be made anew.
 * @throws Problem that says where
 */
export async function readStl(bytes: Uint8Array, yieldNow: YieldNow): Promise<RawForm> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const count = bytes.length >= HEAD ? view.getUint32(80, true) : 0;
  const head = String.fromCharCode(...bytes.subarray(0, 1024));
  // A text has its first facet, or its end, soon after its name; a binary file may begin with “solid” and have bytes behind it.
  const text = /^\s*solid/i.test(head) && /\b(facet|endsolid)\b/i.test(head);
  if (!text || bytes.length === HEAD + EACH * count) return binary(view, count, yieldNow);
  return asText(bytes, yieldNow);
}

async function binary(view: DataView, count: number, yieldNow: YieldNow): Promise<RawForm> {
  if (view.byteLength < HEAD) throw damagedFile('it is too short for an STL file');
  const there = Math.floor((view.byteLength - HEAD) / EACH);
  if (there < count) throw damagedFile(`it ends after ${there} of ${count} triangles`);
  if (count === 0) throw damagedFile('it holds no triangles');
  within(count, 3 * count);
  const positions = new Float32Array(9 * count);
  for (let t = 0; t < count; t++) {
    if (t % CHUNK === CHUNK - 1) await yieldNow();
    const from = HEAD + EACH * t + 12;
    for (let i = 0; i < 9; i++) positions[9 * t + i] = view.getFloat32(from + 4 * i, true);
  }
  return loose(positions);
}

async function asText(bytes: Uint8Array, yieldNow: YieldNow): Promise<RawForm> {
  const text = new TextReader(bytes);
  const positions = floats();
  for (let lines = 0; !text.ended; text.nextLine()) {
    if (++lines % CHUNK === 0) await yieldNow();
    if (text.lineEnded) continue;
    if (text.word().toLowerCase() !== 'vertex') continue;
    for (let c = 0; c < 3; c++) {
      const value = text.number();
      if (Number.isNaN(value)) throw damagedFile(`line ${text.line}: a corner needs three numbers`);
      positions.push(value);
    }
    within(positions.length / 9, positions.length / 3);
  }
  if (positions.length === 0) throw damagedFile('it holds no triangles');
  if (positions.length % 9 !== 0) throw damagedFile('its last triangle lacks a corner');
  return loose(positions.done());
}

const loose = (positions: Float32Array): RawForm => ({
  positions,
  indices: filled(Uint32Array, positions.length / 3, (i) => i),
  normals: null,
  uvs: null,
  colors: null,
  parts: null,
  up: 'z',
});
