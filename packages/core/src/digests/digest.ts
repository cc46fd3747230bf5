import { blake3 } from '@noble/hashes/blake3.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import { arraysOf, emptyForm, type Form, kindsOf } from '../geometry/form';
import type { Mesh } from '../geometry/mesh';
import { murmur128 } from './murmur';

const encoder = new TextEncoder();
/** Where texts are put as bytes, one after the other. */
let room = new Uint8Array(1024);
const PAIRS = Array.from({ length: 256 }, (_, byte) => byte.toString(16).padStart(2, '0'));

const inHex = (word: number): string =>
  PAIRS[word >>> 24] + PAIRS[(word >>> 16) & 255] + PAIRS[(word >>> 8) & 255] + PAIRS[word & 255];

/** 128 bits over a text, in hexadecimal: keys of results. */
export function digest(text: string): string {
  // At most three bytes stand for each of a text's sixteen-bit units.
  if (room.length < 3 * text.length) room = new Uint8Array(6 * text.length);
  const [a, b, c, d] = murmur128(room.subarray(0, encoder.encodeInto(text, room).written));
  return inHex(a) + inHex(b) + inHex(c) + inHex(d);
}

/** Digests of what cannot change any more. */
const digests = new WeakMap<object, string>();

/** 128 bits over a value as JSON; of frozen values, which is what documents are made of, worked out once. */
export function digestOf(value: unknown): string {
  if (typeof value !== 'object' || value === null || !Object.isFrozen(value)) return digest(JSON.stringify(value));
  let known = digests.get(value);
  if (known === undefined) digests.set(value, (known = digest(JSON.stringify(value))));
  return known;
}

/** What bytes are hashed by. */
interface Hasher {
  update(bytes: Uint8Array): unknown;
  digest(): Uint8Array;
}

/**
 * A hash over the bytes of all of a form's arrays, what each is called, and how the surface is dressed: two forms with one hash
 * are the same to the bit.
 * @param create what hashes: BLAKE3 of 128 bits, unless it never leaves where it is made
 */
export function formHash(form: Form, create: () => Hasher = () => blake3.create({ dkLen: 16 })): string {
  const hasher = create();
  hasher.update(utf8ToBytes(kindsOf(form).join()));
  hasher.update(utf8ToBytes(JSON.stringify([form.surface, form.pitch])));
  for (const part of [form.paths, form.mesh, form.points, form.copies, form.seats]) {
    const there = Object.entries(part ?? {}).filter(([, value]) => ArrayBuffer.isView(value));
    // In one order, whichever step has put them in.
    hasher.update(
      utf8ToBytes(
        `;${there
          .map(([name]) => name)
          .sort()
          .join()}`,
      ),
    );
    for (const [name, { domain, width }] of Object.entries(part?.named ?? {}))
      hasher.update(utf8ToBytes(`;${domain} ${width} ${name}`));
  }
  for (const array of arraysOf(form)) {
    hasher.update(utf8ToBytes(`;${array.byteLength};`));
    hasher.update(new Uint8Array(array.buffer, array.byteOffset, array.byteLength));
  }
  for (const { mesh, surface } of form.copies?.items ?? [])
    hasher.update(utf8ToBytes(formHash({ ...emptyForm(), mesh, surface }, create)));
  return bytesToHex(hasher.digest());
}

/** Hashes of meshes, which never change once they are made. */
const meshes = new WeakMap<Mesh, string>();

/** The same over a mesh alone, worked out once. */
export function meshHash(mesh: Mesh): string {
  let known = meshes.get(mesh);
  if (known === undefined) meshes.set(mesh, (known = formHash({ ...emptyForm(), mesh })));
  return known;
}
