/** Limits on workers and memory, by what the device has. */
export interface Room {
  /** Background engines, for frames ahead of the playhead. */
  helpers: number;
  /** Bytes of results that each engine keeps. */
  cacheBytes: number;
  /** Bytes of geometry that the page keeps. */
  pictureBytes: number;
}

const GB = 2 ** 30;
/** Smallest cache of an engine that is of use, bytes. */
const LEAST = GB / 8;
/** Most background engines: the main thread has to receive all that they send. */
const MOST = 6;

/**
 * One core is left to the main thread and one to the interactive engine. The engines' caches share an eighth of the memory; geometry on
 * the page takes as much again.
 * @param cores that the device says it has
 * @param memory gigabytes; browsers say at most 8, some nothing
 */
export function roomOf(cores: number, memory: number): Room {
  const bytes = Math.min(GB, Math.max(GB / 4, (memory * GB) / 8));
  const helpers = Math.max(0, Math.min(MOST, cores - 2, Math.floor(bytes / LEAST) - 1));
  return { helpers, cacheBytes: Math.floor(bytes / (helpers + 1)), pictureBytes: Math.max(GB / 2, bytes) };
}

/** The limits on this device. */
export const deviceRoom = (): Room =>
  roomOf(navigator.hardwareConcurrency || 2, (navigator as { deviceMemory?: number }).deviceMemory ?? 4);
