import { Problem } from '@uvrex/core';
import { HELP, readArgs } from './args';
import { bake } from './bake';

/**
 * Bakes as the arguments say, tells how far it is, and sets the exit code.
 * @param thread the file that its threads load
 */
export async function runCommand(argv: readonly string[], thread: string): Promise<void> {
  if (argv.includes('--help') || argv.includes('-h')) {
    console.log(HELP);
    return;
  }
  try {
    const options = readArgs([...argv]);
    const started = performance.now();
    const files = await bake(options, thread, (done, total) => {
      const line = `${done} of ${total} frames`;
      if (process.stdout.isTTY) process.stdout.write(`\r${line}`);
      else if (done === total || done % Math.ceil(total / 10) === 0) console.log(line);
    });
    const seconds = ((performance.now() - started) / 1000).toFixed(1);
    console.log(
      `${process.stdout.isTTY ? '\n' : ''}Wrote ${files.length === 1 ? files[0] : `${files.length} files to ${options.out}`} in ${seconds} s.`,
    );
  } catch (error) {
    const problem = error as Partial<Problem>;
    console.error(error instanceof Problem ? `${problem.message} ${problem.advice}` : error);
    process.exitCode = 1;
  }
}
