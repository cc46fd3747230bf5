import { create } from 'zustand';
import type { TrailTarget } from '@uvrex/core';
import { useDocument } from '@/state/document/document';
import { setView } from '@/state/document/view';
import { sayProblem } from '@/state/toasts';
import { Engine } from '@/worker/engine';

interface Following {
  target: TrailTarget | null;
  /** How far following is, 0..1; null when none is at work. */
  share: number | null;
}

/** The point that is followed. */
export const useFollowing = create<Following>(() => ({ target: null, share: null }));

let engine: Engine | null = null;

/** Follows a point over the range, and shows where it travels. */
export async function followPoint(target: TrailTarget): Promise<void> {
  engine?.cancel();
  engine ??= new Engine();
  engine.onProgress = (share) => useFollowing.setState({ share });
  engine.load(useDocument.getState().scene);
  useFollowing.setState({ target, share: 0 });
  setView({ trail: null });
  try {
    const trail = await engine.trail(target);
    if (trail && useFollowing.getState().target === target) setView({ trail });
  } catch (error) {
    sayProblem(error);
  } finally {
    if (useFollowing.getState().target === target) useFollowing.setState({ share: null });
  }
}

/** Forgets the point and its trail. */
export function stopFollowing(): void {
  engine?.dispose();
  engine = null;
  useFollowing.setState({ target: null, share: null });
  setView({ trail: null });
}
