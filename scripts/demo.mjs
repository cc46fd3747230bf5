// Installs, builds and serves the studio on this machine, with the starters in its library.
import { spawn } from 'node:child_process';
import { freePort, installPackages, root, run } from './lib.mjs';

if ((await installPackages()) !== 0) {
  console.error('The packages could not be installed: see above.');
  process.exit(1);
}
console.log('Building …');
if ((await run('npm', ['run', 'build'])) !== 0) {
  console.error('The build failed: see above.');
  process.exit(1);
}
const port = await freePort(Number(process.env.PORT ?? 4300));
const server = spawn('npx', ['next', 'start', '-H', '127.0.0.1', '-p', String(port)], {
  cwd: `${root}/apps/studio`,
  stdio: ['ignore', 'pipe', 'inherit'],
  env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1' },
});
server.stdout.on('data', (text) => {
  if (String(text).includes('Ready')) console.log(`\nUvrex is at http://localhost:${port} (Ctrl+C ends it)`);
});
server.on('close', (code) => process.exit(code ?? 0));
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
