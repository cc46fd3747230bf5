import { Problem, type Scene, type SceneFile, stepOf } from '@uvrex/core';
import { edit, joinEdits, sceneNow, useDocument } from '../document/document';
import { say, sayProblem } from '../toasts';
import { FILE_KINDS, storeFile } from './files';
import { setWatcher, useWatched } from './watched';

/** A file on this machine that a scene's file was read from. */
interface Source {
  kind: SceneFile['kind'];
  handle: FileSystemFileHandle;
  /** By which it is known to have changed. */
  seen: string;
}

/** How often files are looked at while the page is seen, milliseconds. */
const EVERY = 1500;

const sources = new Map<string, Source>();
const stampOf = ({ lastModified, size }: File): string => `${lastModified} ${size}`;

/** Watches the file that a scene's file was read from. @param id of the scene's file */
export function watchFile(id: string, kind: SceneFile['kind'], handle: FileSystemFileHandle, file: File): void {
  if (sources.size === 0) setWatcher(startWatching());
  sources.set(id, { kind, handle, seen: stampOf(file) });
  useWatched.setState({ ids: new Set(sources.keys()) });
}

function unwatch(id: string): void {
  sources.delete(id);
  useWatched.setState({ ids: new Set(sources.keys()) });
}

type Picker = (options: {
  types: { description: string; accept: Record<string, string[]> }[];
}) => Promise<FileSystemFileHandle[]>;

/** The browser's own chooser of files that can be watched; undefined where it has none. */
export const filePicker = (): Picker | undefined =>
  (globalThis as { showOpenFilePicker?: Picker }).showOpenFilePicker?.bind(globalThis);

/**
 * Lets a file of a kind be chosen, takes it into the scene and watches it.
 * @returns the id by which steps refer to it; null where none was chosen
 * @throws Problem when it is too large, or cannot be read or kept
 */
export async function pickFile(kind: SceneFile['kind'], pick: Picker): Promise<string | null> {
  const { accept, word } = FILE_KINDS[kind];
  const endings = accept.split(',').filter((part) => part.startsWith('.'));
  let handle: FileSystemFileHandle;
  try {
    [handle] = await pick({
      types: [{ description: `${word} file`, accept: { 'application/octet-stream': endings } }],
    });
  } catch (error) {
    if ((error as DOMException).name === 'AbortError') return null;
    throw new Problem(`No file could be chosen: ${(error as Error).message}`, 'Drop it into the view instead.');
  }
  const file = await handle.getFile();
  const { id, add } = await storeFile(kind, file);
  add();
  watchFile(id, kind, handle, file);
  return id;
}

/** Looks whether watched files of the scene have changed, and reads those again. */
export async function lookAtFiles(): Promise<void> {
  const inUse = new Set(sceneNow().files.map(({ id }) => id));
  for (const [id, source] of [...sources].filter(([of]) => inUse.has(of) && isNamed(sceneNow(), of))) {
    let file: File;
    try {
      file = await source.handle.getFile();
    } catch {
      // Moved, deleted or no longer allowed: what was read stays.
      unwatch(id);
      continue;
    }
    if (stampOf(file) === source.seen) continue;
    source.seen = stampOf(file);
    try {
      await readAgain(id, source, file);
    } catch (error) {
      sayProblem(error);
    }
  }
}

async function readAgain(id: string, { kind, handle }: Source, file: File): Promise<void> {
  const stored = await storeFile(kind, file);
  // Written anew with the same bytes.
  if (stored.id === id) return;
  const end = joinEdits();
  stored.add();
  edit(`Read ${file.name} again`, (draft) => {
    for (const [params, name] of namings(draft, id)) params[name] = stored.id;
  });
  end();
  // Undone, the scene has the former one again, which is as old as it is: only the next change is read.
  watchFile(stored.id, kind, handle, file);
  say({ tone: 'info', text: `“${file.name}” has changed and was read again.` });
}

/** Where steps name a file. */
function namings(
  scene: Scene,
  id: string,
): [params: Scene['growths'][number]['steps'][number]['params'], name: string][] {
  return scene.growths.flatMap(({ steps }) =>
    steps.flatMap(({ kind, params }) =>
      Object.entries(stepOf(kind)?.params ?? {}).flatMap(([name, spec]) =>
        spec.type === 'file' && params[name] === id ? [[params, name] as [typeof params, string]] : [],
      ),
    ),
  );
}

const isNamed = (scene: Scene, id: string): boolean => namings(scene, id).length > 0;

/** Looks at files again and again while the page is seen. @returns what ends it, and forgets them */
function startWatching(): () => void {
  let busy = false;
  const look = (): void => {
    if (busy || sources.size === 0 || document.visibilityState === 'hidden' || useDocument.getState().readOnly) return;
    busy = true;
    void lookAtFiles().finally(() => (busy = false));
  };
  const timer = setInterval(look, EVERY);
  globalThis.addEventListener('focus', look);
  return () => {
    sources.clear();
    clearInterval(timer);
    globalThis.removeEventListener('focus', look);
  };
}
