import { workerData } from 'node:worker_threads';
import type { PackedScene } from '@uvrex/core';
import { FrameBaker, type FrameDone, type FrameJob } from './frame';

let baker: FrameBaker | null = null;

/** What the pool runs: one frame, its problem told as plain data since errors lose their class between threads. */
export async function bakeFrame(job: FrameJob): Promise<FrameDone | { problem: string; advice: string }> {
  try {
    const { scene, files } = workerData as PackedScene;
    return await (baker ??= new FrameBaker(scene, files)).bake(job);
  } catch (error) {
    return { problem: (error as Error).message, advice: (error as { advice?: string }).advice ?? '' };
  }
}
