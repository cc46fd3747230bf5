import { Unzip, type UnzipFile, UnzipInflate, zipSync } from 'fflate';
import { Problem } from '../problem';
import { LIMITS } from './limits';

/** Compressed bytes that are inflated at once: one piece gives at most 17 MB (DEFLATE, RFC 1951, expands up to 1032 times). */
const PIECE = 16_384;

/** Whether bytes begin as a zip does (APPNOTE.TXT 4.3.7: local file header signature). */
export const isZip = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b;

const megabytes = (bytes: number): number => Math.ceil(bytes / 1e6);

/** Bytes that a zip may hold: of texts, which are parsed as a whole, of other entries, and of all together. */
export interface ZipLimits {
  fileText: number;
  fileBytes: number;
  zipBytes: number;
}

/** Refuses entries that are too large, and too many bytes in all. */
class Budget {
  #sum = 0;

  constructor(readonly limits: ZipLimits) {}

  /** @throws Problem for an entry of so many bytes that is too large */
  check(name: string, bytes: number): void {
    const most = name.endsWith('.json') ? this.limits.fileText : this.limits.fileBytes;
    if (bytes > most)
      throw new Problem(
        `“${name}” in the zip holds ${megabytes(bytes)} MB; ${most / 1e6} MB is the most for one entry.`,
        'Use a smaller file.',
        { path: name },
      );
  }

  /** Counts bytes of an entry; `held` is what that entry has in all. @throws Problem */
  add(name: string, bytes: number, held: number): void {
    this.#sum += bytes;
    this.check(name, held);
    if (this.#sum > this.limits.zipBytes)
      throw new Problem(
        `The entries of the zip come to ${megabytes(this.#sum)} MB; ${this.limits.zipBytes / 1e6} MB is the most.`,
        'Use smaller files, or divide the scenes among several zips.',
      );
  }
}

/**
 * Packs entries into a zip. It holds the same limits as `unzipped`, so that what is written can be read.
 * @param entries bytes by name
 * @throws Problem for an entry that is too large, or too many bytes in all
 */
export function zipFiles(entries: Readonly<Record<string, Uint8Array>>, limits: ZipLimits = LIMITS): Uint8Array {
  const budget = new Budget(limits);
  for (const [name, { length }] of Object.entries(entries)) budget.add(name, length, length);
  return zipSync(
    // What is compressed already does not become smaller.
    Object.fromEntries(
      Object.entries(entries).map(([name, bytes]) => [name, [bytes, { level: isZip(bytes) ? 0 : 6 }]]),
    ),
  );
}

/**
 * Unpacks the wanted entries of a zip piece by piece. It counts what comes out, not what the zip claims, and stops at the limit.
 * @returns bytes by name
 * @throws Problem for a zip that is damaged, that claims a wrong size, or whose entries are too large
 */
export function unzipFiles(
  bytes: Uint8Array,
  wanted: (name: string) => boolean,
  limits: ZipLimits = LIMITS,
): Record<string, Uint8Array> {
  const budget = new Budget(limits);
  const entries: Record<string, Uint8Array> = {};
  const open = new Set<string>();
  const unzip = new Unzip((file) => {
    if (!wanted(file.name)) return;
    budget.check(file.name, file.originalSize ?? 0);
    open.add(file.name);
    readEntry(file, budget, (whole) => {
      entries[file.name] = whole;
      open.delete(file.name);
    });
  });
  unzip.register(UnzipInflate);
  try {
    for (let at = 0; at < bytes.length; at += PIECE)
      unzip.push(bytes.subarray(at, at + PIECE), at + PIECE >= bytes.length);
  } catch (error) {
    if (error instanceof Problem) throw error;
    throw damaged();
  }
  if (open.size > 0 || !hasDirectory(bytes)) throw damaged();
  return entries;
}

function readEntry(file: UnzipFile, budget: Budget, done: (whole: Uint8Array) => void): void {
  const pieces: Uint8Array[] = [];
  let held = 0;
  file.ondata = (error, piece, final) => {
    if (error) throw error;
    held += piece.length;
    budget.add(file.name, piece.length, held);
    if (file.originalSize !== undefined && held > file.originalSize)
      throw new Problem(
        `“${file.name}” in the zip unpacks to more than the zip says.`,
        'Do not trust this file: choose one that Uvrex saved.',
        { path: file.name },
      );
    pieces.push(piece);
    if (final) done(joined(pieces, held));
  };
  file.start();
}

function joined(pieces: readonly Uint8Array[], length: number): Uint8Array {
  const whole = new Uint8Array(length);
  let at = 0;
  for (const piece of pieces) {
    whole.set(piece, at);
    at += piece.length;
  }
  return whole;
}

/** Whether a zip ends with its directory (APPNOTE.TXT 4.3.16), and is not cut off. */
function hasDirectory(bytes: Uint8Array): boolean {
  const least = Math.max(0, bytes.length - 22 - 65_535);
  for (let at = bytes.length - 22; at >= least; at--)
    if (bytes[at] === 0x50 && bytes[at + 1] === 0x4b && bytes[at + 2] === 5 && bytes[at + 3] === 6) return true;
  return false;
}

const damaged = (): Problem =>
  new Problem('The zip cannot be read: it is damaged or cut off.', 'Choose a scene file that Uvrex saved.');
