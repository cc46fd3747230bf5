/** What a device gives to engines and to the pictures that the page holds. */
export interface Room {
  /** Engines besides that of the hand, for frames ahead. */
  helpers: number;
  /** Bytes of results that each engine keeps. */
  cacheBytes: number;
  /** Bytes of geometry that the page keeps. */
  pictureBytes: number;
}

const GB = 2 ** 30;
/** An engine keeps at least so much, or it computes everything anew. */
const LEAST = GB / 8;
/** More than these gain nothing: what they send has to be taken by one page. */
const MOST = 6;

/**
 * A core stays with the page and one with the engine of the hand; an eighth of the memory goes to what engines keep together, and as
 * much to pictures.
 * @param cores that the device says it has
 * @param memory gigabytes; browsers say at most 8, some nothing
 */
export function roomOf(cores: number, memory: number): Room {
  const bytes = Math.min(GB, Math.max(GB / 4, (memory * GB) / 8));
  const helpers = Math.max(0, Math.min(MOST, cores - 2, Math.floor(bytes / LEAST) - 1));
  return { helpers, cacheBytes: Math.floor(bytes / (helpers + 1)), pictureBytes: Math.max(GB / 2, bytes) };
}

/** The room on this device. */
export const deviceRoom = (): Room =>
  roomOf(navigator.hardwareConcurrency || 2, (navigator as { deviceMemory?: number }).deviceMemory ?? 4);
