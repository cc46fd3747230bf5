import type { Clip, Files, Scene } from '@uvrex/core';
import { readClipFile, writeClipFile } from '@uvrex/core/clip-files';
import { packScenes, type PackedScene, readSceneFiles, writeSceneFile } from '@uvrex/core/files';
import { storedBytes } from '@/store/db';

/** What a file of one scene or cutting consists of. */
export interface WrittenFile {
  bytes: Uint8Array;
  ending: 'json' | 'zip';
}

/** Reading and writing of files that Uvrex saves, off the main thread: they may hold hundreds of megabytes. */
export const fileTasks = {
  readScenes: async (file: Blob): Promise<PackedScene[]> => readSceneFiles(await bytesIn(file)),
  writeScene: (scene: Scene): Promise<WrittenFile> => writeSceneFile(scene, storedBytes),
  writeScenes: async (scenes: readonly Scene[]): Promise<WrittenFile> => ({
    bytes: await packScenes(scenes, storedBytes),
    ending: 'zip',
  }),
  readCutting: async (file: Blob): Promise<{ clip: Clip; files: Files } | null> => readClipFile(await bytesIn(file)),
  writeCutting: (clip: Clip): Promise<WrittenFile> => writeClipFile(clip, storedBytes),
};

export type FileTasks = typeof fileTasks;

const bytesIn = async (file: Blob): Promise<Uint8Array> => new Uint8Array(await file.arrayBuffer());
