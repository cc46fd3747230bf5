import { spawn, spawnSync } from 'node:child_process';
import { existsSync, statSync } from 'node:fs';
import { createServer } from 'node:net';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = join(dirname(fileURLToPath(import.meta.url)), '..');

const env = { ...process.env, NEXT_TELEMETRY_DISABLED: '1' };

/** Runs a command with its output shown; resolves to its exit code. */
export const run = (command, args, extra = {}) =>
  new Promise((done) => {
    const child = spawn(command, args, {
      cwd: root,
      stdio: ['ignore', 'inherit', 'inherit'],
      env: { ...env, ...extra },
    });
    child.on('error', () => done(127));
    child.on('close', (code) => done(code ?? 1));
  });

/** Installs the packages of the lock file, unless they are there already. */
export async function installPackages() {
  const mark = join(root, 'node_modules', '.package-lock.json');
  const fresh = existsSync(mark) && statSync(mark).mtimeMs >= statSync(join(root, 'package-lock.json')).mtimeMs;
  if (fresh) return 0;
  console.log('Installing packages …');
  return run('npm', ['ci', '--no-audit', '--no-fund']);
}

/** Where Chromium is, or null. */
export function findChromium() {
  const named = process.env.CHROMIUM;
  if (named && existsSync(named)) return named;
  // The shell without windows of its own, where there is one, takes an eighth less time.
  for (const name of [
    'chromium-headless-shell',
    'chromium',
    'chromium-browser',
    'google-chrome-stable',
    'google-chrome',
  ]) {
    const found = spawnSync('which', [name], { encoding: 'utf8' }).stdout.trim();
    if (found) return found;
  }
  return null;
}

/** The first free port from `from` on. */
export async function freePort(from) {
  for (let port = from; port < from + 100; port++) {
    const free = await new Promise((done) => {
      const server = createServer();
      server.once('error', () => done(false));
      server.listen(port, '127.0.0.1', () => server.close(() => done(true)));
    });
    if (free) return port;
  }
  throw new Error(`No free port from ${from} to ${from + 99}.`);
}
