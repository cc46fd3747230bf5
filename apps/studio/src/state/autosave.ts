import { create } from 'zustand';
import { type Scene } from '@uvrex/core';
import { sayProblem } from '@/ui/Toasts';
import { db } from './db';
import { useDocument } from './document';
import { savedView, useView } from './view';

type Saving = 'saved' | 'saving' | 'failed';

/** Whether what is on the table is kept on this device. */
export const useSaving = create<{ state: Saving }>(() => ({ state: 'saved' }));

/** Takes the small picture of the scene; set by the viewport while it stands. */
let takePicture: (() => Promise<Blob | null>) | null = null;
export const setPictureTaker = (taker: typeof takePicture): void => {
  takePicture = taker;
};

const SCENE_DELAY = 400;
const VIEW_DELAY = 300;
const PICTURE_DELAY = 1500;

/** Keeps the open scene and how it is looked at, shortly after each change; returns how to stop it. */
export function startAutosave(id: string): () => void {
  let saved: Scene = useDocument.getState().scene;
  let viewTimer: ReturnType<typeof setTimeout> | undefined;
  let sceneTimer: ReturnType<typeof setTimeout> | undefined;
  let pictureTimer: ReturnType<typeof setTimeout> | undefined;

  const savePicture = async (): Promise<void> => {
    const picture = await takePicture?.();
    if (picture) await db.scenes.update(id, { picture });
  };
  const pictureSoon = (): void => {
    clearTimeout(pictureTimer);
    pictureTimer = setTimeout(() => void savePicture().catch(() => undefined), PICTURE_DELAY);
  };
  const saveView = (): void => {
    db.views.put({ id, ...savedView(useView.getState()) }).catch(sayProblem);
    pictureSoon();
  };
  const saveScene = async (): Promise<void> => {
    const { scene } = useDocument.getState();
    try {
      await db.scenes.update(id, { scene, name: scene.name, changed: Date.now() });
      saved = scene;
      useSaving.setState({ state: useDocument.getState().scene === scene ? 'saved' : 'saving' });
      pictureSoon();
    } catch (error) {
      useSaving.setState({ state: 'failed' });
      sayProblem(error);
    }
  };

  const stops = [
    useDocument.subscribe((now, before) => {
      if (now.scene === before.scene || now.id !== id) return;
      useSaving.setState({ state: 'saving' });
      clearTimeout(sceneTimer);
      sceneTimer = setTimeout(() => void saveScene(), SCENE_DELAY);
    }),
    useView.subscribe((now, before) => {
      const [a, b] = [savedView(now), savedView(before)];
      if (now.playing || (Object.keys(a) as (keyof typeof a)[]).every((key) => a[key] === b[key])) return;
      clearTimeout(viewTimer);
      viewTimer = setTimeout(saveView, VIEW_DELAY);
    }),
  ];
  const flush = (): void => {
    if (useDocument.getState().scene !== saved) void saveScene();
    saveView();
  };
  window.addEventListener('pagehide', flush);
  return () => {
    flush();
    for (const stop of stops) stop();
    for (const timer of [viewTimer, sceneTimer, pictureTimer]) clearTimeout(timer);
    window.removeEventListener('pagehide', flush);
  };
}
