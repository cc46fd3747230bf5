import { Problem } from '@uvrex/core';
import type { FileTasks } from './fileTasks';

type Task = keyof FileTasks;
type Input<T extends Task> = Parameters<FileTasks[T]>[0];
type Result<T extends Task> = Awaited<ReturnType<FileTasks[T]>>;

export interface FileOrder {
  task: Task;
  input: unknown;
}

export type FileAnswer =
  { result: Result<Task> } | { problem: { message: string; advice: string; place: Problem['place'] } };

/** Thrown when the signal aborted. */
export class FileTaskAborted extends Error {}

/**
 * Runs a task of `fileTasks` in a worker of its own, which ends with it.
 * @throws Problem for what the task refuses, or when the worker cannot start or dies; FileTaskAborted when the signal aborts
 */
export async function runFileTask<T extends Task>(task: T, input: Input<T>, signal?: AbortSignal): Promise<Result<T>> {
  if (typeof Worker === 'undefined') {
    const { fileTasks } = await import('./fileTasks');
    return (fileTasks[task] as (input: Input<T>) => Promise<Result<T>>)(input);
  }
  const worker = new Worker(new URL('./files.worker.ts', import.meta.url), { type: 'module', name: 'uvrex-files' });
  try {
    return await new Promise<Result<T>>((resolve, reject) => {
      const died = (): void =>
        reject(
          new Problem(
            'The file could not be processed: its worker stopped.',
            'There may be too little memory. Close other tabs and try it again.',
          ),
        );
      worker.onmessage = ({ data }: MessageEvent<FileAnswer>) => {
        if ('result' in data) resolve(data.result as Result<T>);
        else reject(new Problem(data.problem.message, data.problem.advice, data.problem.place));
      };
      worker.onerror = died;
      worker.onmessageerror = died;
      signal?.addEventListener('abort', () => reject(new FileTaskAborted()), { once: true });
      worker.postMessage({ task, input } satisfies FileOrder);
    });
  } finally {
    worker.terminate();
  }
}
