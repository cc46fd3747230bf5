import { Problem } from '@uvrex/core';
import { type FileTasks, fileTasks } from './fileTasks';
import type { FileAnswer, FileOrder } from './runFileTask';

declare const self: DedicatedWorkerGlobalScope;

const send = (answer: FileAnswer, buffers: Transferable[] = []): void => self.postMessage(answer, buffers);

self.onmessage = async ({ data: { task, input } }: MessageEvent<FileOrder>) => {
  try {
    const run = fileTasks[task] as (input: unknown) => ReturnType<FileTasks[keyof FileTasks]>;
    const result = await run(input);
    const buffers = result && 'bytes' in result ? [result.bytes.buffer as ArrayBuffer] : [];
    send({ result }, buffers);
  } catch (error) {
    const { message } = error as Error;
    send(
      error instanceof Problem
        ? { problem: { message, advice: error.advice, place: error.place } }
        : { problem: { message: `The file could not be processed: ${message}.`, advice: 'Try it again.', place: {} } },
    );
  }
};
