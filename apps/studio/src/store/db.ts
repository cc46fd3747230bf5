import Dexie, { type EntityTable } from 'dexie';
import type { Scene } from '@uvrex/core';
import type { SavedView } from './savedView';

/** A scene on this device. */
export interface StoredScene {
  id: string;
  name: string;
  /** Milliseconds since 1970 of the last change. */
  changed: number;
  scene: Scene;
  /** Small picture of its last view, or null before the first. */
  picture: Blob | null;
  /** The folder of the library that it lies in; none where it is left out. */
  folder?: string;
}

/** How a scene was last looked at. */
export interface StoredView extends SavedView {
  id: string;
}

/** A file that scenes use, once for all of them, under the hash of its bytes. */
export interface StoredFile {
  id: string;
  bytes: Uint8Array;
  /** Milliseconds since 1970 when it was last taken in. */
  taken: number;
}

/** Growths or a step that are kept to be planted again. */
export interface StoredCutting {
  id: string;
  name: string;
  /** Milliseconds since 1970 when it was kept. */
  made: number;
  /** A whole growth with what it needs, or steps. */
  of: 'growths' | 'steps';
  /** As on the clipboard. */
  text: string;
  picture: Blob | null;
}

/** A state of a scene that was kept under a name. */
export interface StoredVersion {
  id: string;
  /** Id of the scene. */
  of: string;
  name: string;
  /** Milliseconds since 1970 when it was kept. */
  made: number;
  scene: Scene;
  picture: Blob | null;
}

/** Which tab may write a scene: what another one still has to write does not come to lie over it. */
export interface StoredHold {
  /** Id of the scene. */
  id: string;
  tab: string;
}

class Store extends Dexie {
  scenes!: EntityTable<StoredScene, 'id'>;
  views!: EntityTable<StoredView, 'id'>;
  files!: EntityTable<StoredFile, 'id'>;
  cuttings!: EntityTable<StoredCutting, 'id'>;
  versions!: EntityTable<StoredVersion, 'id'>;
  holds!: EntityTable<StoredHold, 'id'>;

  constructor() {
    super('uvrex');
    this.version(1).stores({ scenes: 'id, changed', views: 'id' });
    this.version(2)
      .stores({ files: 'id' })
      .upgrade(async (transaction) => {
        // Files move out of the scenes that held them; a scene that cannot be read so stays as it is, for its rescue.
        const { unpackScene } = await Dexie.waitFor(import('@uvrex/core/files'));
        const scenes = transaction.table<StoredScene>('scenes');
        for (const stored of await scenes.toArray()) {
          try {
            const { document, files } = unpackScene(stored.scene);
            for (const [id, bytes] of files) await transaction.table('files').put({ id, bytes, taken: Date.now() });
            if (files.size > 0) await scenes.put({ ...stored, scene: document as Scene });
          } catch {
            continue;
          }
        }
      });
    this.version(3).stores({ cuttings: 'id, made' });
    this.version(4).stores({ versions: 'id, of' });
    this.version(5).stores({ holds: 'id' });
  }
}

/** The browser's store of scenes and their files. */
export const db = new Store();

/** Bytes of a file on this device; undefined where it is not here. */
export const storedBytes = async (id: string): Promise<Uint8Array | undefined> => (await db.files.get(id))?.bytes;
