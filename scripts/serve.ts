import { spawn } from 'node:child_process';
import { setTimeout as wait } from 'node:timers/promises';

const { freePort, root } = (await import('./lib.mjs' as string)) as {
  freePort: (from: number) => Promise<number>;
  root: string;
};

/** Serves the built application on a free port. */
export async function serve(): Promise<{ url: string; stop: () => void }> {
  const port = await freePort(4700);
  const server = spawn('npx', ['next', 'start', '-p', String(port)], {
    cwd: `${root}/apps/studio`,
    detached: true,
    stdio: 'ignore',
  });
  const url = `http://localhost:${port}`;
  const answers = (): Promise<boolean> =>
    fetch(url).then(
      () => true,
      () => false,
    );
  for (let tries = 0; tries < 100 && !(await answers()); tries++) await wait(200);
  return { url, stop: () => void process.kill(-server.pid!) };
}
