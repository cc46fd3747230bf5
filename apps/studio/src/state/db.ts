import Dexie, { type EntityTable } from 'dexie';
import { type Scene } from '@uvrex/core';
import { type SavedView } from './view';

/** A scene on this device. */
export interface StoredScene {
  id: string;
  name: string;
  /** Milliseconds since 1970 of the last change. */
  changed: number;
  scene: Scene;
  /** Small picture of its last view, or null before the first. */
  picture: Blob | null;
}

/** How a scene was last looked at. */
export interface StoredView extends SavedView {
  id: string;
}

class Store extends Dexie {
  scenes!: EntityTable<StoredScene, 'id'>;
  views!: EntityTable<StoredView, 'id'>;

  constructor() {
    super('uvrex');
    this.version(1).stores({ scenes: 'id, changed', views: 'id' });
  }
}

/** The browser's store of scenes. */
export const db = new Store();
