// Installs what is missing, then lints, checks types, builds, runs unit and end-to-end tests. The last line has the totals.
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { findChromium, freePort, installPackages, root, run } from './lib.mjs';

let passed = 0;
let failed = 0;
let skipped = 0;

/** Runs one stage; a stage that fails without tests of its own counts as one failure. */
async function stage(name, command, args, extra) {
  console.log(`\n— ${name} —`);
  const code = await run(command, args, extra);
  if (code !== 0) console.error(`${name} failed with exit code ${code}.`);
  return code === 0;
}

function end() {
  if (skipped > 0)
    console.log(
      `\n${skipped} skipped: lessons that are played among the unit tests; LESSONS=all npm run e2e plays them by hand`,
    );
  console.log(`\n${passed} passed, ${failed} failed`);
  process.exit(failed > 0 || passed === 0 ? 1 : 0);
}

const results = join(root, 'test-results');
rmSync(results, { recursive: true, force: true });
mkdirSync(results, { recursive: true });
const read = (file) => {
  try {
    return JSON.parse(readFileSync(join(results, file), 'utf8'));
  } catch {
    return null;
  }
};

if ((await installPackages()) !== 0) {
  console.error('The packages could not be installed.');
  failed++;
  end();
}
let chromium = findChromium();
if (!chromium) {
  console.log('\n— Chromium is missing: installing it through apt —');
  const sudo = process.getuid?.() === 0 ? [] : ['sudo', '-n'];
  const apt = [...sudo, 'apt-get'];
  await run(apt[0], [...apt.slice(1), 'update', '-qq'], { DEBIAN_FRONTEND: 'noninteractive' });
  // Some releases have no shell of its own.
  for (const name of ['chromium-headless-shell', 'chromium'])
    if (!findChromium())
      await run(apt[0], [...apt.slice(1), 'install', '-y', '-qq', name], { DEBIAN_FRONTEND: 'noninteractive' });
  chromium = findChromium();
}

// Lint knows the types and takes about as long as checking them and building together: one core each.
const types = stage('Types', 'npm', ['run', '-s', 'types']);
const [linted, typed, built] = await Promise.all([
  stage('Lint', 'npm', ['run', '-s', 'lint']),
  types,
  types.then(() => stage('Build', 'npm', ['run', '-s', 'build'])),
]);
failed += [linted, typed, built].filter((sound) => !sound).length;

const unit = await stage('Unit tests', 'npx', [
  'jest',
  '--json',
  `--outputFile=${join(results, 'unit.json')}`,
  '--silent',
  // Jest leaves one core free by itself, which of two is half.
  '--maxWorkers=100%',
]);
const jest = read('unit.json');
passed += jest?.numPassedTests ?? 0;
skipped += jest?.numPendingTests ?? 0;
failed += (jest?.numFailedTests ?? 0) + (jest?.numRuntimeErrorTestSuites ?? 0);
if (!unit && !(jest?.numFailedTests || jest?.numRuntimeErrorTestSuites)) failed++;

if (!chromium) {
  console.error(
    '\nThe end-to-end tests need Chromium, and it could not be installed here. Install it (on Debian: apt-get install chromium), or set CHROMIUM to its place, and run again.',
  );
  failed++;
} else if (built) {
  const port = await freePort(4400);
  const ok = await stage('End-to-end tests', 'npx', ['playwright', 'test'], {
    CHROMIUM: chromium,
    E2E_PORT: String(port),
  });
  const stats = read('e2e.json')?.stats;
  passed += stats?.expected ?? 0;
  skipped += stats?.skipped ?? 0;
  // What passes only when it is tried again has failed.
  const wrong = (stats?.unexpected ?? 0) + (stats?.flaky ?? 0);
  failed += wrong;
  if (!ok && wrong === 0) failed++;
}
end();
