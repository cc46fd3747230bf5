import { readFile } from 'node:fs/promises';
import { SHIPPED_FILES, type ShippedId } from '@uvrex/core';

const ASSETS = new URL('../../../examples/assets/', import.meta.url);

const read = new Map<ShippedId, Promise<Uint8Array>>();

/** Bytes of a file that comes with Uvrex; the same array each time, since what is made of it is kept by it. */
export function shipped(id: ShippedId): Promise<Uint8Array> {
  let file = read.get(id);
  if (!file)
    read.set(id, (file = readFile(new URL(SHIPPED_FILES[id].file, ASSETS)).then((bytes) => new Uint8Array(bytes))));
  return file;
}
