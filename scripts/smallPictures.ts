// Makes the small moving pictures of what a growth can begin with, of what steps and some of their controls do, and of cuttings, in examples/small, from the built application.
import { spawn } from 'node:child_process';
import { mkdtemp, readdir, readFile, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { unzipSync } from 'fflate';
import sharp from 'sharp';
import {
  boundsOf,
  Evaluator,
  type GrowthResult,
  growingSteps,
  newGrowth,
  newStep,
  type Scene,
  STEPS,
  type Step,
} from '@uvrex/core';
import { CUTTINGS, plantIn } from '@uvrex/core/cuttings';
import { shipped } from '../packages/bake/src/shipped';
import { CONTROLS, controlPicture, controlScene, SHOWN_BY_STEPS } from './controlScenes';
import { blank, FRAMES, PICTURED, stepScene } from './stepScenes';

const { findChromium, freePort, root } = (await import('./lib.mjs' as string)) as {
  findChromium: () => string | null;
  freePort: (from: number) => Promise<number>;
  root: string;
};

/** Size of each picture. */
const [WIDTH, HEIGHT] = [216, 144];

/** What stands there for those that need another growth. */
const HOSTS: Record<string, () => Step[]> = {
  paths: () => [newStep('helix', { below: 0.12, above: 0.3, height: 1.9, turns: 1.6 })],
  mesh: () => growingSteps(newStep('rock'), [1, FRAMES + 1]),
  points: () => [newStep('phyllotaxis', { which: 'dome', count: 90, radius: 0.5, height: 0.4 })],
  copies: () => [newStep('helix', { below: 0.3, above: 0.5, turns: 2 })],
  moving: () => [
    newStep('line', { fromY: 0, toX: 0.6, toY: 0.4, points: 12 }),
    newStep('strands', { as: 'fan', count: 5, spread: 300, vary: 0.5 }),
    newStep('transform', { turnY: { formula: '32 * frame' }, moveY: { formula: '0.12 * frame' } }),
  ],
};
const NEEDS: Record<string, string> = { twine: 'paths', shared: 'paths', trail: 'moving' };
/** Values that suit the few moments of a picture. */
const SUITED: Record<string, Record<string, number>> = {
  trail: { frames: 5, smooth: 10 },
  'edge-paths': { count: 90, exponent: 6 },
};

/** A start as it is when one begins with it. */
function startScene(kind: string): Scene {
  const scene = blank();
  const params = { ...stepNeeds(kind), ...SUITED[kind] };
  if (Object.values(params).includes('host')) {
    const steps = HOSTS[NEEDS[kind] ?? 'mesh']();
    const worn = NEEDS[kind] ? [...steps, newStep('tube', { radius: 0.03 }), newStep('finish', { glow: 0 })] : steps;
    const shows = !['shared', 'skin-of'].includes(kind);
    scene.growths.push({ ...newGrowth('Host', 3, worn), id: 'host', seed: 1, visible: shows });
  }
  const steps = growingSteps({ ...newStep(kind, params), id: 'start' }, scene.range);
  // Points show by what stands on them.
  if (stepShows(kind) === 'points') {
    scene.growths.push({
      ...newGrowth('Dot', 2, [newStep('solid', { radius: 0.03, sides: 16 }), newStep('finish', { glow: 0 })]),
      ...{ id: 'dot', visible: false },
    });
    steps.push(newStep('on-points', { growth: 'dot' }));
    steps[0].params.count = {
      ...(growingSteps(newStep('line'), scene.range)[1].params.to as object),
      keys: [
        { frame: 1, value: 0, ease: 'linear' as const },
        { frame: FRAMES, value: Number(steps[0].params.count), ease: 'linear' as const },
      ],
    } as never;
  }
  scene.growths.unshift({ ...newGrowth('Growth', 0, steps), id: 'growth', seed: 3 });
  return scene;
}

const declarationOf = (kind: string) => STEPS.find((step) => step.kind === kind)!;
const stepShows = (kind: string): string => declarationOf(kind).gives[0];

/** The references that a start cannot do without. */
function stepNeeds(kind: string): Record<string, string> {
  const { params } = declarationOf(kind);
  return Object.fromEntries(
    Object.entries(params).flatMap(([name, spec]) => {
      if (spec.type === 'growth' && !spec.shown && spec.default === null) return [[name, 'host']];
      return spec.type === 'file' && kind === 'form' ? [[name, spec.shipped[0].value]] : [];
    }),
  );
}

/** A cutting as it is planted. */
function cuttingScene(id: string): Scene {
  const cutting = CUTTINGS.find((one) => one.id === id)!;
  const scene = blank();
  if (cutting.on) {
    const steps = HOSTS[cutting.on]();
    if (cutting.on === 'paths')
      steps.push(
        ...growingSteps(newStep('line'), scene.range).slice(1, 2),
        newStep('tube', { radius: 0.022 }),
        newStep('finish', { glow: 0.3 }),
      );
    if (cutting.on === 'copies') {
      steps.push(...growingSteps(newStep('line'), scene.range).slice(1, 2));
      steps.push(newStep('along', { growth: 'box', by: 'count', count: 22 }));
      scene.growths.push({
        ...newGrowth('Box', 4, [
          newStep('solid', { which: 'box', width: 0.16, height: 0.16, depth: 0.16 }),
          newStep('finish', { glow: 0 }),
        ]),
        ...{ id: 'box', visible: false },
      });
    }
    scene.growths.unshift({ ...newGrowth('Host', 0, steps), id: 'host', seed: 3 });
  }
  const host = scene.growths[0]?.id === 'host' ? scene.growths[0] : null;
  plantIn(scene, host?.id ?? null, cutting.plant({ scene, host, size: 2 }));
  return scene;
}

/** Brings all that there is at the last frame into the picture. */
async function framed(scene: Scene): Promise<Scene> {
  const evaluator = new Evaluator({ now: () => 0, shipped, file: async () => undefined });
  const [low, high] = [
    [Infinity, Infinity, Infinity],
    [-Infinity, -Infinity, -Infinity],
  ];
  const all: GrowthResult[] = [];
  for (let frame = 2; frame <= FRAMES + 1; frame++) all.push(...(await evaluator.evaluate(scene, frame)).growths);
  for (const { form, notices } of all) {
    const bad = notices.filter(({ level }) => level !== 'note');
    if (bad.length > 0)
      console.error(scene.growths.map(({ name }) => name).join(), bad.map(({ what }) => what).join(' '));
    const bounds = form && boundsOf(form);
    for (let c = 0; bounds && c < 3; c++) {
      low[c] = Math.min(low[c], bounds.min[c]);
      high[c] = Math.max(high[c], bounds.max[c]);
    }
  }
  const middle = low.map((x, c) => (x + high[c]) / 2);
  const radius = Math.hypot(...low.map((x, c) => high[c] - x)) / 2;
  const away = (0.92 * radius) / Math.sin((15 * Math.PI) / 180);
  const way = [0.42, 0.26, 0.87];
  const stands = middle.map((x, c) => x + away * way[c]);
  const named = (prefix: string, of: readonly number[]) =>
    Object.fromEntries(of.map((x, c) => [`${prefix}${'XYZ'[c]}`, Number(x.toFixed(4))]));
  return { ...scene, camera: { ...scene.camera, ...named('position', stands), ...named('target', middle) } };
}

/** The frames of a scene as the application exports them, side by side. */
async function strip(page: Page, scene: Scene, url: string, folder: string): Promise<Buffer> {
  const file = join(folder, 'scene.json');
  await writeFile(file, JSON.stringify(scene));
  await page.goto(url);
  await page.locator('input[type=file]').first().setInputFiles(file);
  await page.locator('canvas[data-drawn]').waitFor({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Export', exact: true }).click();
  await page.getByRole('radio', { name: /Picture sequence/ }).click();
  for (const [label, value] of [
    ['Width', 2 * WIDTH],
    ['Height', 2 * HEIGHT],
    ['First frame', 2],
    ['Last frame', FRAMES + 1],
  ] as const)
    await page.getByRole('dialog').getByLabel(label, { exact: true }).fill(String(value));
  const [download] = await Promise.all([
    page.waitForEvent('download', { timeout: 170_000 }),
    page.getByRole('button', { name: 'Make the file' }).click(),
  ]);
  const pictures = Object.entries(unzipSync(new Uint8Array(await readFile((await download.path())!))))
    .filter(([name]) => name.endsWith('.png'))
    .sort(([a], [b]) => (a < b ? -1 : 1));
  const tiles = await Promise.all(
    pictures.map(async ([, png], i) => ({
      input: await sharp(png).resize(WIDTH, HEIGHT).png().toBuffer(),
      left: i * WIDTH,
      top: 0,
    })),
  );
  return sharp({ create: { width: FRAMES * WIDTH, height: HEIGHT, channels: 3, background: '#000' } })
    .composite(tiles)
    .webp({ quality: 74, effort: 6 })
    .toBuffer();
}

const wanted = process.argv.slice(2);
const starts = STEPS.filter(({ family, kind }) => family === 'start' && kind !== 'vector').map(({ kind }) => kind);
const jobs: [name: string, scene: () => Scene][] = [
  ...starts.map((kind): [string, () => Scene] => [`start-${kind}`, () => startScene(kind)]),
  ...PICTURED.map((kind): [string, () => Scene] => [`step-${kind}`, () => stepScene(kind)]),
  ...CONTROLS.map((control): [string, () => Scene] => [controlPicture(control), () => controlScene(control)]),
  ...CUTTINGS.map(({ id }): [string, () => Scene] => [`cutting-${id}`, () => cuttingScene(id)]),
].filter(([name]) => wanted.length === 0 || wanted.some((part) => name.includes(part))) as never;

const port = await freePort(4600);
const server = spawn('npx', ['next', 'start', '-p', String(port)], {
  cwd: `${root}/apps/studio`,
  stdio: 'ignore',
  detached: true,
});
const browser = await chromium.launch({
  executablePath: findChromium() ?? undefined,
  args: ['--no-sandbox', '--disable-quic', '--no-first-run', '--disable-background-networking'],
});
const folder = await mkdtemp(join(tmpdir(), 'uvrex-small-'));
try {
  const page = await (await browser.newContext({ viewport: { width: 1000, height: 640 } })).newPage();
  const url = `http://localhost:${port}/`;
  for (let i = 0; i < 40; i++) {
    if (
      await page.goto(url).then(
        () => true,
        () => false,
      )
    )
      break;
    await page.waitForTimeout(500);
  }
  for (const [name, scene] of jobs) {
    try {
      await writeFile(`${root}/examples/small/${name}.webp`, await strip(page, await framed(scene()), url, folder));
      console.log(name);
    } catch (error) {
      console.error(name, String(error).split('\n')[0]);
    }
  }
  const made = (await readdir(`${root}/examples/small`)).filter((name) => name.endsWith('.webp')).sort();
  const variable = (name: string): string =>
    name.replace('.webp', '').replace(/-(\w)/g, (_, letter: string) => letter.toUpperCase());
  const lines = made.map((name) => `import ${variable(name)} from './${name}';`);
  const entries = made.map((name) => `  '${name.replace('.webp', '')}': ${variable(name)}.src,`);
  await writeFile(
    `${root}/examples/small/index.ts`,
    `// Written by scripts/smallPictures.ts.\n${lines.join('\n')}\n\n/** Moments of each, side by side. */\nexport const MOMENTS = ${FRAMES};\n\n/** Small moving pictures of starts, steps, controls and cuttings, by what they are of. */\nexport const SMALL: Readonly<Record<string, string>> = {\n${entries.join('\n')}\n};\n`,
  );
  const list = (controls: readonly string[]): string => `'${[...controls].sort().join(' ')}'.split(' ')`;
  await writeFile(
    `${root}/examples/small/controls.ts`,
    `// Written by scripts/smallPictures.ts.\n/** Controls whose help shows a small moving picture of their own: step and parameter, with a point between. */\nexport const OWN_PICTURES: readonly string[] = ${list(CONTROLS)};\n\n/** Controls whose help shows the picture of their step. */\nexport const STEP_PICTURES: readonly string[] = ${list(Object.keys(SHOWN_BY_STEPS))};\n`,
  );
} finally {
  await browser.close();
  process.kill(-server.pid!);
}
