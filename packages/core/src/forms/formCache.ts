import type { YieldNow } from '../yieldNow';
import type { RawForm } from './rawForm';
import { readForm } from './readForm';

/** Forms that have been read, by the id of their file, which is the hash of its bytes; the longest unused goes first. */
const known = new Map<string, RawForm>();
const KEPT = 4;

/** The form that a file holds, read once. */
export async function formOfFile(id: string, bytes: () => Promise<Uint8Array>, yieldNow: YieldNow): Promise<RawForm> {
  const found = known.get(id) ?? (await readForm(await bytes(), yieldNow));
  known.delete(id);
  known.set(id, found);
  for (const old of known.keys()) {
    if (known.size <= KEPT) break;
    known.delete(old);
  }
  return found;
}
