import { expect, type Page } from '@playwright/test';
import { WebIO } from '@gltf-transform/core';
import { validateBytes } from 'gltf-validator';
import sharp from 'sharp';
import { Hands } from './hands';
import { downloaded, drop, picture, step } from './helpers';
import { test } from './test';

/** A PNG of one colour, whose right half is transparent where it says so; with noise as blue, so that it is as large as a real one. */
function png(side: number, [red, green]: readonly [number, number], half = false): Promise<Buffer> {
  let state = 1;
  const data = Buffer.alloc(4 * side * side);
  for (let i = 0; i < data.length; i += 4) {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    data[i] = red;
    data[i + 1] = green;
    data[i + 2] = half ? state >>> 26 : 0;
    data[i + 3] = half && (i / 4) % side >= side / 2 ? 0 : 255;
  }
  return sharp(data, { raw: { width: side, height: side, channels: 4 } })
    .png({ compressionLevel: half ? 0 : 6 })
    .toBuffer();
}

/** How many pixels of the view are clearly red, and clearly green. */
async function counted(page: Page): Promise<{ red: number; green: number }> {
  const pixels = await sharp(await picture(page))
    .removeAlpha()
    .raw()
    .toBuffer();
  const found = { red: 0, green: 0 };
  for (let i = 0; i < pixels.length; i += 3) {
    const [r, g, b] = pixels.subarray(i, i + 3);
    if (r > 60 && r > 1.8 * g && r > 1.8 * b) found.red++;
    if (g > 60 && g > 1.8 * r && g > 1.5 * b) found.green++;
  }
  return found;
}

const shows = (page: Page, color: 'red' | 'green', pixels: number): Promise<void> =>
  expect.poll(async () => (await counted(page))[color]).toBeGreaterThan(pixels);

test('a picture that is dropped colours the selected skin and cuts it out; a second takes its place; files take it along', async ({
  page,
}) => {
  test.slow();
  const large = await png(1200, [20, 220], true);
  expect(large.length).toBeGreaterThan(5e6);
  const hands = new Hands(page);
  await hands.emptyScene('Pictured');
  await drop(page, 'red.png', await png(64, [230, 10]));
  await expect(page.getByText('No growth is selected.')).toBeVisible();

  await hands.newGrowth('blade');
  await hands.set('Blade', { Length: '1.6', Width: '1.6', Stalk: '0', Droop: '0', Fold: '0' });
  await drop(page, 'red.png', await png(64, [230, 10]));
  await expect(step(page, 'Picture on the skin')).toHaveCount(1);
  await shows(page, 'red', 3000);
  const whole = (await counted(page)).red;

  await drop(page, 'green.png', large);
  await shows(page, 'green', 0.25 * whole);
  await expect(step(page, 'Picture on the skin')).toHaveCount(1);
  const half = await counted(page);
  expect(half.red).toBe(0);
  expect(half.green).toBeLessThan(0.75 * whole);
  // It comes and goes with its file.
  await page.getByRole('button', { name: /^Undo/ }).click();
  await shows(page, 'red', 0.95 * whole);
  await page.getByRole('button', { name: /^Redo/ }).click();
  await shows(page, 'green', 0.25 * whole);

  await page.getByRole('button', { name: 'Export', exact: true }).click();
  await page.getByRole('radio', { name: /^GLB/ }).click();
  const make = (): Promise<void> => page.getByRole('button', { name: 'Make the file' }).click();
  const glb = new Uint8Array((await downloaded(page, make)).bytes);
  const report = await validateBytes(glb);
  expect(report.issues.messages.filter(({ severity }) => severity <= 1)).toEqual([]);
  const [texture] = (await new WebIO().readBinary(glb)).getRoot().listTextures();
  expect(Buffer.from(texture.getImage()!).equals(large)).toBe(true);

  await page.getByRole('button', { name: 'Export', exact: true }).click();
  await page.getByRole('radio', { name: /Scene file/ }).click();
  const scene = await downloaded(page, make);
  await page.goto('/');
  await page
    .getByTestId('import')
    .setInputFiles({ name: scene.name, mimeType: 'application/zip', buffer: scene.bytes });
  await shows(page, 'green', 0.25 * whole);
});

test('copies show the pictures of their items; a picture that cannot be read says so', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Copies');
  await hands.newGrowth('blade');
  await hands.set('Blade', { Length: '0.5', Width: '0.5' });
  await drop(page, 'red.png', await png(64, [230, 10]));
  await shows(page, 'red', 100);
  const one = (await counted(page)).red;
  await hands.newGrowth('points in a volume');
  await hands.addStep('On the points');
  await hands.set('On the points', { Item: 'Blade' });
  await shows(page, 'red', 4 * one);
  await page.getByRole('button', { name: 'Blade', exact: true }).first().click();
  await drop(page, 'broken.png', (await png(64, [230, 10])).subarray(0, 90));
  await expect(page.locator('aside [role=alert]').getByText(/The picture could not be read/)).toBeVisible();
});
