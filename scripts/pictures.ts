// Makes the pictures in docs/screenshots and the starters' own, from the built application and the demo data; with `docs`
// behind it only those in docs/screenshots, with names of starters only theirs.
import { spawn } from 'node:child_process';
import { chromium, type Page } from '@playwright/test';
import { unzipSync } from 'fflate';
import sharp from 'sharp';
import { STARTER_FRAMES } from '../examples/frames';

const { findChromium, freePort, root } = (await import('./lib.mjs' as string)) as {
  findChromium: () => string | null;
  freePort: (from: number) => Promise<number>;
  root: string;
};

const port = await freePort(4500);
const server = spawn('npx', ['next', 'start', '-p', String(port)], {
  cwd: `${root}/apps/studio`,
  stdio: 'ignore',
  detached: true,
});
const browser = await chromium.launch({
  executablePath: findChromium() ?? undefined,
  args: ['--no-sandbox', '--disable-quic', '--no-first-run', '--disable-background-networking'],
});

const still = async (page: Page, frame: number): Promise<void> => {
  const field = page.getByLabel('Frame', { exact: true });
  await field.fill(String(frame));
  await field.press('Enter');
  await page.locator(`canvas[data-frame="${frame}"][data-drawn="fine"]`).waitFor({ timeout: 60_000 });
};
const shot = async (page: Page, name: string): Promise<void> => {
  await page.mouse.move(700, 20);
  await page.waitForTimeout(700);
  await screenshot(page, name);
};
/** A picture of the page in a palette of 256 colours: a third of the bytes. */
const screenshot = async (page: Page, name: string): Promise<void> => {
  const png = await page.screenshot();
  await sharp(png).png({ palette: true, effort: 10 }).toFile(`${root}/docs/screenshots/${name}.png`);
};

/** The frames of a starter's shot as anyone would export them, in order. */
async function exportFrames(
  page: Page,
  size: readonly [number, number],
  range: readonly [number, number],
): Promise<Uint8Array[]> {
  await page.getByRole('button', { name: 'Export', exact: true }).click();
  await page.getByRole('radio', { name: /Picture sequence/ }).click();
  for (const [label, value] of [
    ['Width', size[0]],
    ['Height', size[1]],
    ['First frame', range[0]],
    ['Last frame', range[1]],
  ] as const) {
    await page.getByRole('dialog').getByLabel(label).fill(String(value));
  }
  const [download] = await Promise.all([
    page.waitForEvent('download', { timeout: 600_000 }),
    page.getByRole('button', { name: 'Make the file' }).click(),
  ]);
  const chunks: Buffer[] = [];
  for await (const chunk of await download.createReadStream()) chunks.push(chunk as Buffer);
  return Object.values(unzipSync(new Uint8Array(Buffer.concat(chunks))));
}

try {
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  for (let i = 0; i < 40; i++) {
    if (
      await page.goto(`http://localhost:${port}/`).then(
        () => true,
        () => false,
      )
    )
      break;
    await page.waitForTimeout(500);
  }
  const wanted = process.argv.slice(2);
  const starters = Object.entries(STARTER_FRAMES).filter(([id]) => wanted.length === 0 || wanted.includes(id));
  for (const [starter, { name, frame }] of starters) {
    await page.goto(`http://localhost:${port}/`);
    await page.getByRole('button', { name: `Open the starter ${name}`, exact: true }).click();
    await page.locator('canvas[data-drawn]').waitFor({ timeout: 60_000 });
    const [png] = await exportFrames(page, [640, 400], [frame, frame]);
    await sharp(png).webp({ quality: 84, effort: 6 }).toFile(`${root}/examples/pictures/${starter}.webp`);
  }

  await page.goto(`http://localhost:${port}/`);
  await page.getByRole('button', { name: 'Open the starter Kelp frond', exact: true }).click();
  await page.locator('canvas[data-drawn]').waitFor({ timeout: 60_000 });
  // README's moving picture: every sixth frame, as the browser that shows it waits.
  const frames = (await exportFrames(page, [480, 300], [2, 144])).filter((_, k) => k % 6 === 0);
  await sharp(frames.map(Buffer.from), { join: { animated: true } })
    .webp({ quality: 72, effort: 6, loop: 0, delay: frames.map((_, k) => (k === frames.length - 1 ? 1500 : 160)) })
    .toFile(`${root}/docs/screenshots/growth.webp`);
  await page.getByText('All frames ready').waitFor({ timeout: 120_000 });
  await page.getByRole('group', { name: 'Grow', exact: true }).locator('[aria-expanded]').click();
  await still(page, 92);
  await shot(page, 'studio');

  await page.getByRole('group', { name: 'Stem', exact: true }).locator('[aria-expanded]').click();
  await page.getByRole('button', { name: 'Paths', exact: true }).click();
  await still(page, 120);
  await shot(page, 'anchors');

  await page.getByRole('button', { name: 'Finished', exact: true }).click();
  await page.getByRole('button', { name: 'Key of Grow, To at frame 4', exact: true }).dblclick();
  await shot(page, 'easing');
  await page.keyboard.press('Escape');

  await page.getByRole('button', { name: 'Export', exact: true }).click();
  await shot(page, 'export');
  await page.getByRole('button', { name: 'Close', exact: true }).click();

  await page.getByRole('button', { name: 'Scene, light and camera' }).click();
  const light = page.getByRole('group', { name: 'Light', exact: true });
  await still(page, 60);
  for (const name of ['Turn', 'Strength'])
    await light.getByRole('button', { name: new RegExp(`^${name}: animate`) }).click();
  await still(page, 130);
  for (const [name, value] of Object.entries({ Turn: '-75', Strength: '190' })) {
    const field = light.getByRole('textbox', { name, exact: true });
    await field.fill(value);
    await field.press('Enter');
  }
  await still(page, 112);
  await shot(page, 'scene');

  await page.goto(`http://localhost:${port}/`);
  await page.getByRole('button', { name: 'Open the starter Lantern wreath', exact: true }).click();
  await page.getByText('All frames ready').waitFor({ timeout: 120_000 });
  await page.getByRole('button', { name: 'Checks', exact: true }).click();
  await page.getByRole('button', { name: 'Measure' }).click();
  await page.getByTestId('seam').waitFor();
  await page.getByRole('group', { name: 'Rolling star', exact: true }).locator('[aria-expanded]').click();
  await still(page, 30);
  await shot(page, 'checks');

  await page.goto(`http://localhost:${port}/`);
  await page.getByRole('button', { name: 'Open the starter Sea-lily', exact: true }).click();
  await page.locator('canvas[data-drawn="fine"]').waitFor({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Row of Petal' }).press('Enter');
  await page.getByRole('button', { name: 'Row of Petal' }).scrollIntoViewIfNeeded();
  await page.keyboard.press('Control+a');
  await still(page, 62);
  await shot(page, 'copies');

  await page.goto(`http://localhost:${port}/`);
  await page.getByRole('button', { name: 'Open the starter Mooring chain', exact: true }).click();
  await page.locator('canvas[data-drawn="fine"]').waitFor({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Checks', exact: true }).click();
  await page.getByRole('button', { name: 'Check the copies' }).click();
  await page.getByTestId('fit').getByRole('button').first().click({ timeout: 60_000 });
  await shot(page, 'fit');

  await page.goto(`http://localhost:${port}/`);
  await page.getByRole('button', { name: 'Open the starter Barnacle spread', exact: true }).click();
  await page.locator('canvas[data-drawn="fine"]').waitFor({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Row of Rock' }).press('Enter');
  await page.keyboard.press('t');
  const table = page.getByRole('region', { name: 'Attributes' });
  await table.getByRole('combobox', { name: 'Show as colours' }).click();
  await page.getByRole('option', { name: 'Front', exact: true }).click();
  await still(page, 52);
  await shot(page, 'attributes');

  await page.goto(`http://localhost:${port}/`);
  await page.getByRole('button', { name: 'New scene', exact: true }).click();
  await page.getByText('Nothing grows here yet').waitFor();
  await page.keyboard.press('Shift+N');
  await page.getByRole('option', { name: 'Bars that follow sound', exact: true }).hover();
  await page.waitForTimeout(1500);
  await screenshot(page, 'begin');
  await page.getByRole('option', { name: 'Stem with leaves', exact: true }).click();
  await page.locator('canvas[data-drawn="fine"]').waitFor({ timeout: 60_000 });
  await page.getByRole('group', { name: 'Helix', exact: true }).locator('[aria-expanded]').first().click();
  await still(page, 70);
  await shot(page, 'handles');
  await page.getByRole('button', { name: 'Add a step' }).click();
  await page.waitForTimeout(1500);
  await screenshot(page, 'planting');
  await page.keyboard.press('Escape');

  await page.goto(`http://localhost:${port}/`);
  await page.getByRole('button', { name: 'Open the starter Kelp frond', exact: true }).click();
  await page.locator('canvas[data-drawn="fine"]').waitFor({ timeout: 60_000 });
  const row = (name: string) =>
    page.locator('section[aria-label="Growths"] [data-row]').filter({ hasText: name }).first();
  await row('Second stem').click();
  await row('Curling tip').click({ modifiers: ['Shift'] });
  await page.getByRole('button', { name: 'Group', exact: true }).click();
  await page.keyboard.press('a');
  await still(page, 100);
  await shot(page, 'groups');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+s');
  await page.getByText('Kept as “Version 1”.').waitFor();
  await page.getByRole('button', { name: 'Hide Group' }).click();
  await page.keyboard.press('v');
  await page.getByRole('button', { name: 'Compare', exact: true }).click();
  await page.getByRole('button', { name: 'Wipe', exact: true }).click();
  await page.locator('[role=dialog] canvas[data-frame="99"]').nth(1).waitFor({ timeout: 60_000 });
  await page.waitForTimeout(1000);
  await screenshot(page, 'versions');
  await page.getByRole('button', { name: 'Close', exact: true }).click();

  await page.getByRole('button', { name: 'Lessons', exact: true }).click();
  await page.getByRole('button', { name: /^Plankton web/ }).click();
  const lesson = page.getByRole('region', { name: 'Lessons' });
  for (let i = 0; i < 2; i++) {
    await lesson.getByRole('button', { name: 'Do it for me' }).click();
    await page.waitForTimeout(1500);
  }
  await page.keyboard.press('Escape');
  await page.locator('canvas[data-rest="true"]').waitFor({ timeout: 60_000 });
  await still(page, 120);
  await shot(page, 'lesson');

  await page.goto(`http://localhost:${port}/`);
  await page.getByRole('group', { name: 'Kelp frond', exact: true }).locator('img').waitFor();
  await shot(page, 'library');
} finally {
  await browser.close();
  process.kill(-server.pid!);
}
