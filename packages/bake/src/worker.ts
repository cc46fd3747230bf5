import { workerData } from 'node:worker_threads';
import { type Scene } from '@uvrex/core';
import { FrameBaker, type FrameJob } from './frame';

const baker = new FrameBaker((workerData as { scene: Scene }).scene);

/** What the pool runs: one frame, its problem told as plain data since errors lose their class between threads. */
export default async function bakeFrame(
  job: FrameJob,
): Promise<{ rows: string[] } | { problem: string; advice: string }> {
  try {
    return { rows: await baker.bake(job) };
  } catch (error) {
    return { problem: (error as Error).message, advice: (error as { advice?: string }).advice ?? '' };
  }
}
