import AxeBuilder from '@axe-core/playwright';
import { expect, type Locator } from '@playwright/test';
import { openStarter } from './helpers';
import { test } from './test';

test('the policy forbids inline scripts and foreign origins, and no page breaks it', async ({ page }) => {
  const complaints: string[] = [];
  page.on('console', (message) => {
    if (/content security policy/i.test(message.text())) complaints.push(message.text());
  });
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

test('axe finds nothing serious in the library, the studio and its sheets', async ({ page }) => {
  const serious = async (sheet?: Locator) => {
    if (sheet) await expect(sheet).toBeVisible();
    // What is still fading in has not its own contrast yet.
    await page.waitForFunction(
      () =>
        document.getAnimations().every(({ playState }) => playState !== 'running') &&
        [...document.querySelectorAll('.MuiDialog-container')].every((box) => getComputedStyle(box).opacity === '1'),
    );
    return (await new AxeBuilder({ page }).analyze()).violations
      .filter(({ impact }) => impact === 'serious' || impact === 'critical')
      .map(({ id, nodes }) => [id, nodes.map(({ html }) => html.slice(0, 160))]);
  };
  await page.goto('/');
  await expect(page.getByText('None yet.')).toBeVisible();
  expect(await serious()).toEqual([]);
  await openStarter(page);
  for (const name of ['Tube', 'Finish', 'Sway'])
    await page.getByRole('group', { name, exact: true }).locator('[aria-expanded]').click();
  expect(await serious()).toEqual([]);
  await page.getByRole('button', { name: 'Scene, light and camera' }).click();
  expect(await serious()).toEqual([]);
  await page.getByRole('button', { name: 'Commands' }).click();
  expect(await serious(page.getByRole('dialog'))).toEqual([]);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Export', exact: true }).click();
  expect(await serious(page.getByRole('dialog', { name: 'Export' }))).toEqual([]);
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
