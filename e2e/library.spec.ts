import { expect } from '@playwright/test';
import { unzipSync } from 'fflate';
import { newGrowth, newScene } from '@uvrex/core';
import { canvas, downloaded, drop, openEmpty, openNamed, openStarter, saved, storedIn } from './helpers';
import { test } from './test';

test('scenes are kept with a picture; renamed, duplicated, deleted and brought back', async ({ page }) => {
  await openStarter(page);
  await page.getByRole('button', { name: 'Kelp frond', exact: true }).first().click();
  await saved(page);
  await page.goto('/');
  const card = page.getByRole('group', { name: 'Kelp frond', exact: true });
  await expect(card.locator('img')).toBeVisible();

  await card.getByRole('button', { name: 'More for Kelp frond' }).click();
  await page.getByRole('menuitem', { name: 'Rename' }).click();
  await page.getByLabel('Name of the scene').fill('Opening shot');
  await page.keyboard.press('Enter');
  const renamed = page.getByRole('group', { name: 'Opening shot', exact: true });
  await expect(renamed).toBeVisible();

  await renamed.getByRole('button', { name: 'More for Opening shot' }).click();
  await page.getByRole('menuitem', { name: 'Duplicate' }).click();
  await expect(page.getByRole('group', { name: 'Opening shot 2', exact: true })).toBeVisible();

  await renamed.getByRole('button', { name: 'More for Opening shot' }).click();
  await page.getByRole('menuitem', { name: 'Delete' }).click();
  await expect(renamed).toHaveCount(0);
  await page.getByRole('button', { name: 'Bring it back' }).click();
  await expect(renamed).toBeVisible();

  await renamed.getByRole('button', { name: 'Open Opening shot' }).click();
  await expect(page.getByRole('banner')).toContainText('Opening shot');
});

test('a broken file is refused with the place and the reason, and nothing is stored', async ({ page }) => {
  await page.goto('/');
  const broken = { ...newScene('Bad'), growths: [{ ...newGrowth('Stem', 0, []), hue: 'green' }] };
  await page
    .getByTestId('import')
    .setInputFiles({ name: 'bad.json', mimeType: 'application/json', buffer: Buffer.from(JSON.stringify(broken)) });
  const message = page.getByRole('alert').filter({ hasText: 'not sound' });
  await expect(message).toContainText('growths[0].hue');
  await expect(message).toContainText('Nothing was changed');
  await page
    .getByTestId('import')
    .setInputFiles({ name: 'notes.txt', mimeType: 'text/plain', buffer: Buffer.from('kelp') });
  await expect(page.getByRole('alert').filter({ hasText: 'not a JSON file' })).toBeVisible();
  await expect(page.getByText('None yet.')).toBeVisible();
});

test('a file dropped on the library opens', async ({ page }) => {
  await openEmpty(page);
  const [kept] = await storedIn<{ scene: object }>(page, 'scenes');
  const scene = JSON.stringify({ ...kept.scene, name: 'Dropped reef' });
  await page.goto('/');
  const data = await page.evaluateHandle((text) => {
    const transfer = new DataTransfer();
    transfer.items.add(new File([text], 'reef.json', { type: 'application/json' }));
    return transfer;
  }, scene);
  await page.locator('main').dispatchEvent('drop', { dataTransfer: data });
  await expect(page.getByRole('banner')).toContainText('Dropped reef');
});

test('an address that names no scene says so and leads back', async ({ page }) => {
  await page.goto('/studio/nothing-here');
  await page.getByRole('link', { name: 'Go to the library' }).click();
  await expect(page.getByRole('heading', { name: 'Make it grow.' })).toBeVisible();
});

test('what is new is told once to who has worked here before, and not to who is new', async ({ page }) => {
  const news = page.getByRole('region', { name: 'What is new' });
  await openEmpty(page);
  await page.goto('/');
  await expect(page.getByRole('region', { name: 'Your scenes' })).toContainText('Untitled reef');
  await expect(news).toHaveCount(0);
  // As if it had last been looked at before an update.
  await page.evaluate(() => localStorage.removeItem('uvrex-seen'));
  await page.reload();
  await expect(news).toContainText('Versions.');
  await news.getByRole('button', { name: 'Close what is new' }).click();
  await page.reload();
  await expect(page.getByRole('region', { name: 'Your scenes' })).toContainText('Untitled reef');
  await expect(news).toHaveCount(0);
});

test('a starter clicked while the page is still loading is opened', async ({ page }) => {
  await openEmpty(page);
  await page.route(/\.js$/, async (route) => {
    await new Promise((done) => setTimeout(done, 700));
    await route.continue();
  });
  await page.goto('/', { waitUntil: 'commit' });
  await page.getByRole('button', { name: 'Open the starter Mooring chain', exact: true }).click();
  await expect(canvas(page)).toBeVisible();
});

test('an address begins a scene: an empty one or that of a starter; an unknown one says so', async ({ page }) => {
  await openNamed(page, 'Sonar bars');
  await expect(page).toHaveURL(/\/studio\/\w+$/);
  await page.goto('/new/sonar-bar');
  await expect(page.getByRole('heading', { name: 'There is no starter “sonar-bar”.' })).toBeVisible();
  await openEmpty(page);
  await page.goto('/');
  await expect(page.getByRole('group', { name: 'Sonar bars', exact: true })).toHaveCount(1);
  await expect(page.getByRole('group', { name: 'Untitled reef', exact: true })).toHaveCount(1);
});

/** An OBJ of a ball, 2 MB and more: zip packages treat small and large entries differently. */
function largeForm(): Buffer {
  const [rows, columns] = [120, 260];
  const lines: string[] = [];
  for (let i = 0; i <= rows; i++)
    for (let j = 0; j < columns; j++) {
      const [a, b] = [(Math.PI * i) / rows, (2 * Math.PI * j) / columns];
      lines.push(`v ${Math.sin(a) * Math.cos(b)} ${Math.cos(a)} ${Math.sin(a) * Math.sin(b)}`);
    }
  for (let i = 0; i < rows; i++)
    for (let j = 0; j < columns; j++) {
      const at = (row: number, column: number): number => row * columns + (column % columns) + 1;
      lines.push(`f ${at(i, j)} ${at(i, j + 1)} ${at(i + 1, j + 1)} ${at(i + 1, j)}`);
    }
  return Buffer.from(`${lines.join('\n')}\n`);
}

test('scenes with a form of 2 MB and more are exported and imported again, alone and together', async ({ page }) => {
  const form = largeForm();
  expect(form.length).toBeGreaterThan(2_000_000);
  await openEmpty(page);
  await drop(page, 'boulder.obj', form.toString());
  await expect(page.getByTestId('statistics')).toContainText('faces');
  await saved(page);

  await page.getByRole('button', { name: 'Export', exact: true }).click();
  await page.getByRole('radio', { name: /Scene file/ }).click();
  const scene = await downloaded(page, () => page.getByRole('button', { name: 'Make the file' }).click());
  expect(scene.name).toMatch(/\.uvrex\.zip$/);
  const holds = (bytes: Buffer): boolean =>
    Object.values(unzipSync(new Uint8Array(bytes))).some((entry) => form.equals(entry));
  expect(holds(scene.bytes)).toBe(true);

  await page.goto('/');
  const take = (file: { name: string; bytes: Buffer }): Promise<void> =>
    page.getByTestId('import').setInputFiles({ name: file.name, mimeType: 'application/zip', buffer: file.bytes });
  await take(scene);
  await expect(page.getByTestId('statistics')).toContainText('faces');

  await page.goto('/');
  const boxes = page.getByRole('checkbox');
  await expect(boxes).toHaveCount(2);
  for (const box of await boxes.all()) await box.check();
  const both = await downloaded(page, () => page.getByRole('button', { name: 'Export as a zip' }).click());
  const scenes = Object.values(unzipSync(new Uint8Array(both.bytes)));
  expect(scenes).toHaveLength(2);
  for (const one of scenes) expect(holds(Buffer.from(one))).toBe(true);
  await take(both);
  await expect(page.getByText('2 scenes are among yours now.')).toBeVisible();
});

test('a cutting with a form of 2 MB and more goes out as a zip, comes in again, and begins a scene with its form', async ({
  page,
}) => {
  const form = largeForm();
  await openEmpty(page);
  await drop(page, 'boulder.obj', form.toString());
  await expect(page.getByTestId('statistics')).toContainText(/\dk faces/);
  const faces = (await page.getByTestId('statistics').textContent())!.split(' faces')[0];
  const growths = page.getByRole('region', { name: 'Growths', exact: true });
  await growths.getByRole('button', { name: /^More for/ }).click();
  await page.getByRole('menuitem', { name: 'Keep as a cutting' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText(/is kept among your cuttings/)).toBeVisible();
  await page.goto('/');
  const shelf = page.getByRole('region', { name: 'Your cuttings' });
  const more = async (what: string): Promise<void> => {
    await shelf.getByRole('button', { name: /^More for/ }).click();
    await page.getByRole('menuitem', { name: what }).click();
  };
  const cutting = await downloaded(page, () => more('Export'));
  expect(cutting.name).toMatch(/\.cutting\.zip$/);
  const entries = Object.values(unzipSync(new Uint8Array(cutting.bytes)));
  expect(entries.some((entry) => form.equals(entry))).toBe(true);
  await more('Delete');
  await expect(shelf).toHaveCount(0);
  await page
    .getByTestId('import')
    .setInputFiles({ name: cutting.name, mimeType: 'application/zip', buffer: cutting.bytes });
  await shelf.getByRole('button', { name: /^New scene with/ }).click();
  await expect(page.getByTestId('statistics')).toContainText(`${faces} faces`);
});
