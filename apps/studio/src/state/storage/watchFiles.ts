import { Problem, type Scene, type SceneFile, stepOf } from '@uvrex/core';
import { edit, joinEdits, sceneNow, useDocument } from '../document/document';
import { say, sayProblem } from '../toasts';
import { FILE_KINDS, storeFile } from './files';
import { endWatching, setWatcher, useWatched } from './watched';

/** The file on disk from which a file of the scene was read. */
interface Source {
  kind: SceneFile['kind'];
  handle: FileSystemFileHandle;
  /** Time of modification and size when it was last read. */
  stamp: string;
}

/** Polling interval while the page is visible, milliseconds. */
const INTERVAL = 1500;

const sources = new Map<string, Source>();
const stampOf = ({ lastModified, size }: File): string => `${lastModified} ${size}`;

/** Watches the file from which a file of the scene was read. @param id of the scene's file */
export function watchFile(id: string, kind: SceneFile['kind'], handle: FileSystemFileHandle, file: File): void {
  if (sources.size === 0) setWatcher(startWatching());
  sources.set(id, { kind, handle, stamp: stampOf(file) });
  useWatched.setState({ ids: new Set(sources.keys()) });
}

function unwatch(id: string): void {
  sources.delete(id);
  if (sources.size === 0) endWatching();
  useWatched.setState({ ids: new Set(sources.keys()) });
}

type Picker = (options: {
  types: { description: string; accept: Record<string, string[]> }[];
}) => Promise<FileSystemFileHandle[]>;

/** The browser's file picker with handles (File System Access); undefined where it has none. */
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

/** Reloads the watched files of the scene that have changed on disk. */
export async function checkFiles(): Promise<void> {
  const inUse = new Set(sceneNow().files.map(({ id }) => id));
  for (const [id, source] of [...sources].filter(([of]) => inUse.has(of) && isUsed(sceneNow(), of))) {
    let file: File;
    try {
      file = await source.handle.getFile();
    } catch {
      // Moved, deleted or no longer allowed: what was read stays.
      unwatch(id);
      continue;
    }
    if (stampOf(file) === source.stamp) continue;
    source.stamp = stampOf(file);
    try {
      await reload(id, source, file);
    } catch (error) {
      sayProblem(error);
    }
  }
}

async function reload(id: string, { kind, handle }: Source, file: File): Promise<void> {
  const stored = await storeFile(kind, file);
  // Rewritten with the same bytes, or the scene was closed meanwhile.
  if (stored.id === id || !sources.has(id)) return;
  const end = joinEdits();
  stored.add();
  edit(`Reload ${file.name}`, (draft) => {
    for (const [params, name] of referencesTo(draft, id)) params[name] = stored.id;
  });
  end();
  // After undo the scene has the former file; only the next change on disk reloads it.
  watchFile(stored.id, kind, handle, file);
  say({ tone: 'info', text: `“${file.name}” has changed and was reloaded.` });
}

/** Parameters that refer to a file. */
function referencesTo(
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

const isUsed = (scene: Scene, id: string): boolean => referencesTo(scene, id).length > 0;

/** Polls files while the page is visible. @returns how to stop */
function startWatching(): () => void {
  let busy = false;
  const poll = (): void => {
    if (busy || sources.size === 0 || document.visibilityState === 'hidden' || useDocument.getState().readOnly) return;
    busy = true;
    void checkFiles().finally(() => (busy = false));
  };
  const timer = setInterval(poll, INTERVAL);
  globalThis.addEventListener('focus', poll);
  return () => {
    sources.clear();
    clearInterval(timer);
    globalThis.removeEventListener('focus', poll);
  };
}
