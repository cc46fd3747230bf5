import { isMainThread } from 'node:worker_threads';
import { runCommand } from './cli';

// One file for both: the command, and what its threads run.
export { bakeFrame as default } from './worker';

if (isMainThread) await runCommand(process.argv.slice(2), import.meta.url);
