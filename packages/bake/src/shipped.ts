import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';

/** Where the files that come with Uvrex lie, from this folder. */
const SHIPPED: Record<string, string> = {
  bricolage: '../../../examples/assets/bricolage-grotesque-800.woff',
  'reef-rock': '../../../examples/assets/reef-rock.ply',
  propeller: '../../../examples/assets/propeller.ply',
  figurehead: '../../../examples/assets/figurehead.ply',
};

const read = new Map<string, Promise<Uint8Array>>();

/** Bytes of a file that comes with Uvrex; the same array each time, since what is made of it is kept by it. */
export function shipped(name: string): Promise<Uint8Array> {
  let file = read.get(name);
  if (!file)
    read.set(
      name,
      (file = readFile(fileURLToPath(new URL(SHIPPED[name], import.meta.url))).then((bytes) => new Uint8Array(bytes))),
    );
  return file;
}
