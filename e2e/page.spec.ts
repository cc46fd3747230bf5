import AxeBuilder from '@axe-core/playwright';
import { expect, type Locator, type Page } from '@playwright/test';
import { openStarter, openStep } from './helpers';
import { test } from './test';

test('the policy forbids inline scripts and foreign origins, and no page breaks it', async ({ page }) => {
  const complaints: string[] = [];
  page.on('pageerror', (error) => complaints.push(error.message));
  const foreign: string[] = [];
  page.on('request', (request) => {
    const url = new URL(request.url());
    if (!['localhost', ''].includes(url.hostname)) foreign.push(request.url());
  });
  const response = await page.goto('/');
  const policy = response!.headers()['content-security-policy'];
  expect(policy).toContain("default-src 'self'");
  expect(/script-src ([^;]*)/.exec(policy)![1]).not.toMatch(/unsafe|http|\*/);
  await openStarter(page);
  await page.getByRole('button', { name: 'Export', exact: true }).click();
  await expect(page.getByRole('dialog')).toBeVisible();
  expect(complaints).toEqual([]);
  expect(foreign).toEqual([]);
});

test('a colour is chosen in a field of colours, beside the palette and its figures', async ({ page }) => {
  await openStarter(page);
  const finish = await openStep(page, 'Finish');
  await finish.getByRole('button', { name: 'Colour, chosen stop' }).click();
  const field = page.getByRole('slider', { name: 'Color' });
  const { x, y, width, height } = (await field.boundingBox())!;
  expect(Math.min(width, height)).toBeGreaterThan(100);
  // Whole, though the swatch is near the lower edge of the window.
  const sheet = (await page.locator('.MuiPopover-paper').boundingBox())!;
  expect(sheet.y + sheet.height).toBeLessThanOrEqual(page.viewportSize()!.height);
  const figures = page.getByRole('textbox', { name: 'Colour, chosen stop in hexadecimal' });
  const before = await figures.inputValue();
  await page.mouse.click(x + 0.9 * width, y + 0.1 * height);
  await expect(figures).not.toHaveValue(before);
  // Full and bright there, whatever the hue.
  const parts = (await figures.inputValue()).match(/[0-9a-f]{2}/gi)!.map((part) => parseInt(part, 16));
  expect(Math.max(...parts)).toBeGreaterThan(200);
  expect(Math.min(...parts)).toBeLessThan(60);
});

/** What axe finds on a page, or on a sheet once it is there. */
async function violationsOf(page: Page, sheet?: Locator): Promise<unknown[]> {
  if (sheet) await expect(sheet).toBeVisible();
  // What is still fading in has not its own contrast yet.
  await page.waitForFunction(
    () =>
      document.getAnimations().every(({ playState }) => playState !== 'running') &&
      [...document.querySelectorAll('.MuiDialog-container')].every((box) => getComputedStyle(box).opacity === '1'),
  );
  // Menus and help float over the page and belong to no landmark of it. What is under a sheet has been looked at before.
  const builder = new AxeBuilder({ page }).options({ resultTypes: ['violations'] }).disableRules('region');
  if (sheet) builder.include((await sheet.getAttribute('role')) === 'menu' ? '.MuiPopover-root' : '.MuiDialog-root');
  const { violations } = await builder.analyze();
  return violations.map(({ id, nodes }) => [id, nodes.map(({ html }) => html.slice(0, 160))]);
}

test('axe finds nothing in the library, in the studio, or in any of its sheets', async ({ page }) => {
  const found = (sheet?: Locator) => violationsOf(page, sheet);
  const button = (name: string) => page.getByRole('button', { name, exact: true });
  await page.goto('/');
  await expect(page.getByText('None yet.')).toBeVisible();
  expect(await found()).toEqual([]);
  await openStarter(page);
  for (const name of ['Stem', 'Sway', 'Grow', 'Tube', 'Finish'])
    await page.getByRole('group', { name, exact: true }).locator('[aria-expanded]').first().click();
  expect(await found()).toEqual([]);
  await page.getByRole('button', { name: 'Scene, light and camera' }).click();
  expect(await found()).toEqual([]);
  for (const name of ['Commands', 'Export', 'Versions', 'Add a step']) {
    if (name === 'Add a step') await page.locator('[data-row]').filter({ hasText: 'Kelp frond' }).first().click();
    await button(name).click();
    // Entries are made alike: hundreds of them would take axe half a minute.
    const find = page.getByRole('combobox', { name: 'Find' });
    if (await find.isVisible()) await find.fill('line');
    expect([name, await found(page.getByRole('dialog'))]).toEqual([name, []]);
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog')).toHaveCount(0);
  }
});

test('axe finds nothing in what keys and menus open, nor beside the picture', async ({ page }) => {
  const found = (sheet?: Locator) => violationsOf(page, sheet);
  const button = (name: string) => page.getByRole('button', { name, exact: true });
  await openStarter(page);
  await page.keyboard.press('Shift+N');
  expect(await found(page.getByRole('dialog'))).toEqual([]);
  await page.keyboard.press('Escape');
  await page.keyboard.press('?');
  expect(await found(page.getByRole('dialog'))).toEqual([]);
  await page.keyboard.press('Escape');
  await button('More for Kelp frond').click();
  expect(await found(page.getByRole('menu'))).toEqual([]);
  // Hues are items of it, which arrow keys come to: upwards from the first to the last.
  await page.keyboard.press('ArrowUp');
  await expect(page.getByRole('menuitemradio').last()).toBeFocused();
  await page.keyboard.press('Escape');
  for (const name of ['Lessons', 'Checks', 'Paths']) {
    await button(name).click();
    expect([name, await found()]).toEqual([name, []]);
  }
});

test("the studio's script is under 600 kB compressed", async ({ page }) => {
  await openStarter(page);
  await page.reload();
  await expect(page.locator('canvas')).toBeVisible();
  const bytes = await page.evaluate(() =>
    (performance.getEntriesByType('resource') as PerformanceResourceTiming[])
      .filter(({ name }) => /\.js/.test(name))
      .reduce((sum, { encodedBodySize }) => sum + encodedBodySize, 0),
  );
  expect(bytes).toBeGreaterThan(100_000);
  expect(bytes).toBeLessThan(600_000);
});
