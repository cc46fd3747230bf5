// What large scenes are like to work in: `npm run bench:large -- [name …]`, from the built application. Each is put into the browser's
// store and opened; then everyday actions follow, and the longest piece of work of the page's own thread in each is counted. Without a
// graphics card drawing is the processor's work too: scenes show little.
import { setTimeout as wait } from 'node:timers/promises';
import { chromium, type Page } from '@playwright/test';
import { newGrowth, newScene, newStep, type Scene, type Step } from '@uvrex/core';
import { serve } from './serve';

const { findChromium } = (await import('./lib.mjs' as string)) as { findChromium: () => string | null };

interface Large {
  scene: Scene;
  files?: { id: string; bytes: Uint8Array }[];
}

const line = (): Step[] => [newStep('line', { points: 20 }), newStep('tube', { sides: 4 })];

function manyGrowths(): Scene {
  const scene = newScene('500 growths');
  for (let k = 0; k < 500; k++)
    scene.growths.push({ ...newGrowth(`Stem ${k + 1}`, k, line()), id: `g${k}`, visible: k < 5 });
  return scene;
}

function manySteps(): Scene {
  const scene = newScene('200 steps');
  const bends = Array.from({ length: 197 }, () => newStep('bend', { angle: 1 }));
  scene.growths.push({ ...newGrowth('Stem', 0, [...line(), ...bends, newStep('finish')]), id: 'g' });
  return scene;
}

function manyKeys(): Scene {
  const scene = newScene('10,000 keys');
  scene.range = [1, 2000];
  for (let k = 0; k < 10; k++) {
    const keys = Array.from({ length: 1000 }, (_, i) => ({
      frame: 1 + 2 * i,
      value: (i % 10) / 10,
      ease: 'linear' as const,
    }));
    const to = { keys, before: 'hold' as const, after: 'hold' as const };
    scene.growths.push({
      ...newGrowth(`Stem ${k + 1}`, k, [newStep('line'), newStep('grow', { to }), newStep('tube', { sides: 4 })]),
      id: `g${k}`,
    });
  }
  return scene;
}

/** A binary STL of a sheet of waves: 50 bytes a face. */
function largeForm(): Large {
  const side = 708;
  const faces = 2 * side * side;
  const bytes = new Uint8Array(84 + 50 * faces);
  const view = new DataView(bytes.buffer);
  view.setUint32(80, faces, true);
  const place = (i: number, j: number): number[] => [i / side, 0.05 * Math.sin(i / 9) * Math.cos(j / 11), j / side];
  let at = 84;
  const face = (...corners: number[][]): void => {
    at += 12;
    for (const corner of corners)
      for (const x of corner) {
        view.setFloat32(at, x, true);
        at += 4;
      }
    at += 2;
  };
  for (let i = 0; i < side; i++)
    for (let j = 0; j < side; j++) {
      face(place(i, j), place(i, j + 1), place(i + 1, j));
      face(place(i + 1, j), place(i, j + 1), place(i + 1, j + 1));
    }
  const scene = newScene('A form of 50 MB');
  scene.files = [{ id: 'sheet', name: 'sheet.stl', kind: 'form' }];
  scene.growths.push({ ...newGrowth('Sheet', 0, [newStep('form', { file: 'sheet' })]), id: 'g' });
  return { scene, files: [{ id: 'sheet', bytes }] };
}

function manyFrames(): Scene {
  const scene = newScene('5,000 frames');
  scene.range = [1, 5000];
  scene.growths.push({ ...newGrowth('Stem', 0, [newStep('line'), newStep('noise'), newStep('tube')]), id: 'g' });
  return scene;
}

const SCENES: Record<string, () => Large> = {
  growths: () => ({ scene: manyGrowths() }),
  steps: () => ({ scene: manySteps() }),
  keys: () => ({ scene: manyKeys() }),
  form: largeForm,
  frames: () => ({ scene: manyFrames() }),
};

/** Puts a scene with its files into the browser's store. */
async function put(page: Page, { scene, files = [] }: Large): Promise<void> {
  await page.evaluate(
    async ({ given, texts }) => {
      const opening = indexedDB.open('uvrex');
      const db = await new Promise<IDBDatabase>((done, fail) => {
        opening.onsuccess = () => done(opening.result);
        opening.onerror = () => fail(new Error('no store'));
      });
      const work = db.transaction(['scenes', 'files'], 'readwrite');
      work
        .objectStore('scenes')
        .put({ id: 'large', name: given.name, changed: Date.now(), scene: given, picture: null });
      for (const { id, text } of texts)
        work
          .objectStore('files')
          .put({ id, bytes: Uint8Array.from(atob(text), (c) => c.charCodeAt(0)), taken: Date.now() });
      await new Promise<void>((done) => (work.oncomplete = () => done()));
      db.close();
    },
    { given: scene, texts: files.map(({ id, bytes }) => ({ id, text: Buffer.from(bytes).toString('base64') })) },
  );
}

const WATCH = `
  window.longest = [];
  new PerformanceObserver((list) => window.longest.push(...list.getEntries().map(({ duration }) => duration)))
    .observe({ type: 'longtask' });
  localStorage.setItem('uvrex-greeted', 'yes');
  localStorage.setItem('uvrex-ahead', 'no');
  localStorage.setItem('uvrex-quality', 'draft');
`;

/** Milliseconds of the longest piece of work of the page while something is done, and a moment after it. */
async function longest(page: Page, act: () => Promise<void>): Promise<number> {
  await wait(700);
  await page.evaluate('window.longest.length = 0');
  await act();
  await wait(900);
  return Math.round(await page.evaluate<number>('Math.max(0, ...window.longest)'));
}

const wanted = process.argv.slice(2);
const { url, stop } = await serve();
const browser = await chromium.launch({ executablePath: findChromium() ?? undefined, args: ['--no-sandbox'] });
const rows: Record<string, unknown>[] = [];
try {
  for (const [name, make] of Object.entries(SCENES)) {
    if (wanted.length > 0 && !wanted.includes(name)) continue;
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce' });
    const page = await context.newPage();
    await page.addInitScript(WATCH);
    await page.goto(url);
    await page.getByText('None yet.').waitFor();
    const large = make();
    await put(page, large);
    const began = Date.now();
    await page.goto(`${url}/studio/large`);
    await page.locator('canvas[data-rest="true"]').first().waitFor({ timeout: 180_000 });
    const opened = Date.now() - began;
    const last = large.scene.growths.at(-1)!.name;
    const row = page.locator('[data-row]').filter({ hasText: last }).first();
    const frame = page.getByLabel('Frame', { exact: true });
    rows.push({
      scene: large.scene.name,
      'first picture, s': Number((opened / 1000).toFixed(1)),
      'select, ms': await longest(page, async () => {
        await row.scrollIntoViewIfNeeded();
        await row.click();
      }),
      'hide and show': await longest(page, async () => {
        await page
          .getByRole('button', { name: `Hide ${last}`, exact: true })
          .or(page.getByRole('button', { name: `Show ${last}`, exact: true }))
          .first()
          .click();
      }),
      undo: await longest(page, () => page.keyboard.press('Control+z')),
      'go to a frame': await longest(page, async () => {
        await frame.fill('7');
        await frame.press('Enter');
      }),
      palette: await longest(page, async () => {
        await page.locator('header').click();
        await page.keyboard.press('Control+k');
        await page.getByRole('combobox', { name: 'Find' }).fill('noise');
        await page.keyboard.press('Escape');
      }),
      duplicate: await longest(page, async () => {
        await page.locator('header').click();
        await page.keyboard.press('Control+d');
      }),
    });
    await context.close();
  }
} finally {
  await browser.close();
  stop();
}
console.table(rows);
