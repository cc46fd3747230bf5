import { create } from 'zustand';
import type { Scene } from '@uvrex/core';
import { isQuota } from '@/state/isQuota';
import { sayProblem } from '../toasts';
import { db, type StoredScene } from '../../store/db';
import { useDocument } from '../document/document';
import { forgetLastWords, writeLastWords } from './unloadBackup';
import { savedView, useView } from '../document/view';

interface Saving {
  /** `gone`: the scene was deleted from this device while it is open. `taken`: another tab has it now. */
  state: 'saved' | 'saving' | 'failed' | 'gone' | 'taken';
  /** What to do about a failure. */
  advice: string;
}

/** Whether what is on the table is kept on this device. */
export const useSaving = create<Saving>(() => ({ state: 'saved', advice: '' }));

/** Puts the open scene back where it was deleted; there while one is open. */
let keeper: (() => Promise<void>) | null = null;
export const setKeeper = (keep: () => Promise<void>): (() => void) => {
  keeper = keep;
  return () => void (keeper = null);
};
export const keepScene = (): void => void keeper?.().catch(sayProblem);

/** Takes the small picture of the scene; set by the viewport while it stands. */
let takePicture: (() => Promise<Blob | null>) | null = null;
export const setPictureTaker = (taker: typeof takePicture): void => {
  takePicture = taker;
};

/** The small picture of the scene as it stands; null where there is none. */
export const smallPicture = async (): Promise<Blob | null> => (await takePicture?.()) ?? null;

/** Milliseconds after a change; and while changes go on, from the first of them. */
const SCENE_DELAY = 400;
const SCENE_MOST = 900;
const VIEW_DELAY = 300;
const PICTURE_DELAY = 1500;
/** After a failure it is tried again so often, milliseconds. */
const AGAIN = 4000;

/** Saves a scene while it is edited. */
export interface Autosave {
  /** Keeps now what is not kept yet. */
  flush: () => Promise<void>;
  /** Puts a scene back that was deleted while it is open. */
  keep: () => Promise<void>;
  /** @param silently leaves what is not kept alone: it is another tab's now */
  stop: (silently?: boolean) => void;
}

/**
 * Makes a tab the one that writes a scene, and reads the scene as it is then: what the tab before has begun to write is in it.
 * @returns whether the tab could be written down (not where there is no room), and the scene; undefined where it is not there
 */
export async function claimScene(id: string, tab: string): Promise<{ claimed: boolean; stored?: StoredScene }> {
  try {
    const stored = await db.transaction('rw', db.scenes, db.holds, async () => {
      await db.holds.put({ id, tab });
      return db.scenes.get(id);
    });
    return { claimed: true, stored };
  } catch (error) {
    if (!isQuota(error)) throw error;
    return { claimed: false, stored: await db.scenes.get(id) };
  }
}

/**
 * Keeps the open scene and how it is looked at, shortly after each change and at least every second while changes go on.
 * @param tab this tab: where another has claimed the scene nothing is written
 * @param claimed whether this tab could claim it; it is tried again until it can
 */
export function startAutosave(id: string, tab: string, claimed = true): Autosave {
  // What could not be written down at the opening is unsaved from the beginning.
  let saved: Scene | null = claimed ? useDocument.getState().scene : null;
  let since: number | null = null;
  let viewTimer: ReturnType<typeof setTimeout> | undefined;
  let sceneTimer: ReturnType<typeof setTimeout> | undefined;
  let pictureTimer: ReturnType<typeof setTimeout> | undefined;
  let writing: Promise<void> | null = null;
  let stopped = false;
  const unsaved = (): boolean => useDocument.getState().scene !== saved;

  const savePicture = async (): Promise<void> => {
    const picture = await takePicture?.();
    if (picture) await db.scenes.update(id, { picture });
  };
  const pictureSoon = (): void => {
    clearTimeout(pictureTimer);
    // What is drawn from then on may be another scene.
    if (stopped) return;
    pictureTimer = setTimeout(() => {
      pictureTimer = undefined;
      // Attributes shown as colours are no picture of the scene: it is taken when they are gone.
      if (useView.getState().shade) pictureSoon();
      else void savePicture().catch(() => undefined);
    }, PICTURE_DELAY);
  };
  /** Reading a picture back holds the page: one that is due waits until nothing moves any more. */
  const pictureLater = (): void => {
    if (pictureTimer !== undefined) pictureSoon();
  };
  const saveView = (): void => {
    db.views.put({ id, ...savedView(useView.getState()) }).catch(() => undefined);
    pictureSoon();
  };

  const write = async (): Promise<void> => {
    const { scene } = useDocument.getState();
    since = null;
    clearTimeout(sceneTimer);
    try {
      const there = await db.transaction('rw', db.scenes, db.holds, async () => {
        const hold = await db.holds.get(id);
        if (hold && hold.tab !== tab && claimed) return 'taken';
        if ((await db.scenes.where('id').equals(id).count()) === 0) return 'gone';
        if (!hold || hold.tab !== tab) await db.holds.put({ id, tab });
        await db.scenes.update(id, { scene, name: scene.name, changed: Date.now() });
        return 'saved';
      });
      if (there === 'taken') {
        useSaving.setState({ state: 'taken', advice: '' });
        return;
      }
      if (there === 'gone') {
        useSaving.setState({ state: 'gone', advice: 'It was deleted from this device.' });
        return;
      }
      claimed = true;
      useDocument.setState({ readOnly: false });
      saved = scene;
      forgetLastWords(id);
      useSaving.setState({ state: unsaved() ? 'saving' : 'saved', advice: '' });
      pictureSoon();
    } catch (error) {
      if (useSaving.getState().state !== 'failed') sayProblem(error);
      useSaving.setState({ state: 'failed', advice: adviceFor(error) });
      retrySoon();
    }
  };
  const retrySoon = (): void => {
    clearTimeout(sceneTimer);
    if (!stopped) sceneTimer = setTimeout(() => void save(), AGAIN);
  };
  /** Writes one after another, so that an older state never comes to lie over a newer one. */
  const save = (): Promise<void> => {
    writing = (writing ?? Promise.resolve()).then(() => (unsaved() ? write() : undefined));
    return writing;
  };
  const saveSoon = (): void => {
    const now = Date.now();
    since ??= now;
    clearTimeout(sceneTimer);
    sceneTimer = setTimeout(() => void save(), Math.max(0, Math.min(SCENE_DELAY, since + SCENE_MOST - now)));
  };

  const stops = [
    useDocument.subscribe((now, before) => {
      if (now.scene === before.scene || now.id !== id) return;
      if (useSaving.getState().state !== 'gone') useSaving.setState({ state: 'saving' });
      pictureLater();
      saveSoon();
    }),
    useView.subscribe((now, before) => {
      const [a, b] = [savedView(now), savedView(before)];
      if (now.playing || (Object.keys(a) as (keyof typeof a)[]).every((key) => a[key] === b[key])) return;
      pictureLater();
      clearTimeout(viewTimer);
      viewTimer = setTimeout(saveView, VIEW_DELAY);
    }),
  ];
  const flush = async (): Promise<void> => {
    saveView();
    await save();
  };
  /** A value that is typed and not confirmed yet is taken when its field loses the focus. */
  const confirmTyped = (): void => {
    const { activeElement } = document as { activeElement?: Element | null };
    if (activeElement && 'blur' in activeElement) (activeElement as HTMLElement).blur();
  };
  const onGo = (): void => {
    confirmTyped();
    onLeave();
  };
  const onLeave = (): void => {
    // The database may not come to write any more; what is written down here is taken up at the next opening.
    if (unsaved()) writeLastWords(id, useDocument.getState().scene);
    void flush();
  };
  const onHidden = (): void => {
    if (document.visibilityState === 'hidden') onLeave();
  };
  const onBeforeLeave = (event: BeforeUnloadEvent): void => {
    confirmTyped();
    if (unsaved() && !writeLastWords(id, useDocument.getState().scene)) event.preventDefault();
  };
  window.addEventListener('pagehide', onGo);
  window.addEventListener('beforeunload', onBeforeLeave);
  document.addEventListener('visibilitychange', onHidden);
  useSaving.setState({ state: 'saved', advice: '' });
  if (!claimed) {
    useSaving.setState({ state: 'failed', advice: READ_ONLY });
    retrySoon();
  }
  return {
    flush,
    keep: async () => {
      const { scene } = useDocument.getState();
      await db.scenes.put({ id, name: scene.name, changed: Date.now(), scene, picture: null });
      saved = null;
      await flush();
    },
    stop: (silently = false) => {
      stopped = true;
      if (!silently) void flush();
      for (const stop of stops) stop();
      for (const timer of [viewTimer, sceneTimer, pictureTimer]) clearTimeout(timer);
      window.removeEventListener('pagehide', onGo);
      window.removeEventListener('beforeunload', onBeforeLeave);
      document.removeEventListener('visibilitychange', onHidden);
    },
  };
}

const READ_ONLY =
  'There is no room left on this device, and this scene can only be looked at and exported. Delete other scenes: it is tried again every few seconds.';

const adviceFor = (error: unknown): string =>
  isQuota(error)
    ? 'There is no room left: export the scene, delete others, and it is tried again.'
    : 'It is tried again every few seconds: export the scene before you leave.';
