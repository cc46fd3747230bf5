import { expect, type Page } from '@playwright/test';
import { canvas, openEmpty, openStarter, openStep, saved, setNumber, step } from './helpers';
import { test } from './test';

/** Puts nonsense into the record of a scene, behind the studio's back. */
const damage = (page: Page, id: string): Promise<void> =>
  page.evaluate(
    (key) =>
      new Promise<void>((done, fail) => {
        const opening = indexedDB.open('uvrex');
        opening.onerror = () => fail(new Error('no store'));
        opening.onsuccess = () => {
          const store = opening.result.transaction('scenes', 'readwrite').objectStore('scenes');
          const getting = store.get(key);
          getting.onsuccess = () => {
            const { scene } = getting.result as {
              scene: { light: { strength: number }; growths: { steps: { params: { points: number } }[] }[] };
            };
            scene.light.strength = 99;
            scene.growths[0].steps[0].params.points = -5;
            store.put(getting.result).onsuccess = () => {
              opening.result.close();
              done();
            };
          };
        };
      }),
    id,
  );
const idOf = (page: Page): string => page.url().split('/').pop()!;

test('a label dragged to the left stops at the least, and the scene opens again', async ({ page }) => {
  await openEmpty(page);
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Find' }).fill('new growth: arc');
  await page.keyboard.press('Enter');
  const arc = await openStep(page, 'Arc');
  const label = (await arc.locator('label', { hasText: 'Radius' }).boundingBox())!;
  await page.mouse.move(label.x + 8, label.y + 8);
  await page.mouse.down();
  await page.mouse.move(label.x - 600, label.y + 8, { steps: 6 });
  await page.mouse.up();
  await expect(arc.getByLabel('Radius', { exact: true })).not.toHaveValue('1');
  await arc.getByLabel('Radius', { exact: true }).press('ArrowDown');
  await setNumber(page.getByLabel('Last frame', { exact: true }), '200000');
  await expect(page.getByText(/Brought within its limits/)).toBeVisible();
  await saved(page);
  await page.reload();
  await expect(step(page, 'Arc')).toBeVisible();
});

test('an edit right before a reload is not lost', async ({ page }) => {
  await openEmpty(page);
  for (const name of ['Deep water', 'Shallow water', 'Surf']) {
    await page.locator('header').getByRole('button').first().dblclick();
    await page.getByLabel('Name of the scene').fill(name);
    await page.keyboard.press('Enter');
    await page.reload();
    await expect(page.locator('header').getByText(name)).toBeVisible();
  }
});

test('a second tab is told; it can take over, and neither loses a stroke', async ({ page, context }) => {
  await openEmpty(page);
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Find' }).fill('new growth: line');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Add a step' })).toBeVisible();
  const other = await context.newPage();
  await other.goto(page.url());
  await expect(other.getByText('This scene is open in another tab.')).toBeVisible();
  await page.bringToFront();
  const line = await openStep(page, 'Line');
  await setNumber(line.getByLabel('To Y', { exact: true }), '2.75');
  await other.bringToFront();
  await other.getByRole('button', { name: 'Edit it here' }).click();
  await expect((await openStep(other, 'Line')).getByLabel('To Y', { exact: true })).toHaveValue('2.75');
  await expect(page.getByText('This scene is open in another tab.')).toBeVisible();
  // A rename in the library reaches the tab that has it open, and stays.
  const library = await context.newPage();
  await library.goto('/');
  await library.getByRole('button', { name: /^More for/ }).click();
  await library.getByRole('menuitem', { name: 'Rename' }).click();
  await library.getByLabel('Name of the scene').fill('Renamed reef');
  await library.keyboard.press('Enter');
  await expect(other.locator('header').getByText('Renamed reef')).toBeVisible();
  await setNumber((await openStep(other, 'Line')).getByLabel('To Y', { exact: true }), '3');
  await saved(other);
  await expect(library.getByRole('group', { name: 'Renamed reef' })).toBeVisible();
  // Deleted while it is open, it is said to be gone, and can be kept.
  await library.getByRole('button', { name: /^More for/ }).click();
  await library.getByRole('menuitem', { name: 'Delete' }).click();
  await expect(other.getByText(/Not on this device any more/)).toBeVisible();
  await other.getByRole('button', { name: 'Keep it' }).click();
  await saved(other);
  await expect(library.getByRole('group', { name: 'Renamed reef' })).toBeVisible();
});

test('a damaged scene opens in rescue: what is wrong and where, a mended copy, and its file', async ({ page }) => {
  await openStarter(page);
  await saved(page);
  const address = page.url();
  const id = idOf(page);
  await page.goto('/');
  await damage(page, id);
  await page.goto(address);
  await expect(page.getByText(/does not read as it is/)).toBeVisible();
  await expect(page.getByRole('list', { name: 'What is mended' })).toContainText('Points');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save the file as it is' }).click(),
  ]);
  expect(file.suggestedFilename()).toBe('scene-as-it-is.json');
  await page.getByRole('button', { name: 'Open a mended copy' }).click();
  await expect(page.locator('header').getByText(/, mended/)).toBeVisible();
  await expect(canvas(page)).toHaveAttribute('data-rest', 'true');
  await page.goto('/');
  await expect(page.getByRole('group', { name: 'Kelp frond', exact: true })).toBeVisible();
});

test('rows open by Enter and Space, and move by Alt with an arrow', async ({ page }) => {
  await openStarter(page);
  const tube = step(page, 'Tube').locator('[aria-expanded]').first();
  await tube.focus();
  await page.keyboard.press('Enter');
  await expect(tube).toHaveAttribute('aria-expanded', 'true');
  await page.keyboard.press('Space');
  await expect(tube).toHaveAttribute('aria-expanded', 'false');
  const names = (): Promise<string[]> =>
    page
      .locator('aside [role=group] [aria-expanded]')
      .evaluateAll((rows) => rows.map((row) => row.closest('[role=group]')!.getAttribute('aria-label')!));
  const before = await names();
  await page.keyboard.press('Alt+ArrowUp');
  const at = before.indexOf('Tube');
  await expect.poll(async () => (await names()).indexOf('Tube')).toBe(at - 1);
});

test('the focus never falls to the page: after the palette, a rename and a delete it is on the row at hand', async ({
  page,
}) => {
  await openStarter(page);
  const row = (name: string) => step(page, name).locator('[data-row]');
  await page.getByRole('button', { name: 'Add a step' }).click();
  await page.getByLabel('Find').fill('Respace');
  await page.getByLabel('Find').press('Enter');
  await expect(row('Respace')).toBeFocused();
  await row('Respace').dblclick();
  await page.getByLabel('Name of the step').fill('Even points');
  await page.getByLabel('Name of the step').press('Enter');
  await expect(row('Even points')).toBeFocused();
  await step(page, 'Even points').getByRole('button', { name: 'More for Even points' }).click();
  await page.getByRole('menuitem', { name: 'Delete' }).click();
  await expect(row('Even points')).toHaveCount(0);
  await expect(page.locator('aside [role=group] [data-row]:focus')).toHaveCount(1);
  await page.keyboard.press('Control+k');
  await page.getByLabel('Find').press('Escape');
  await expect(page.locator('aside [role=group] [data-row]:focus')).toHaveCount(1);
});

test('narrow windows can be scrolled to every part', async ({ page }) => {
  await openEmpty(page);
  await page.setViewportSize({ width: 640, height: 500 });
  const exporting = page.getByRole('button', { name: 'Export', exact: true });
  await exporting.scrollIntoViewIfNeeded();
  const box = (await exporting.boundingBox())!;
  expect(box.x + box.width).toBeLessThanOrEqual(640);
});

test('without WebGL, and without a store, there is a sentence that says what to do', async ({ browser }) => {
  const context = await browser.newContext();
  const page = await context.newPage();
  await page.addInitScript(() => {
    const get = HTMLCanvasElement.prototype.getContext;
    HTMLCanvasElement.prototype.getContext = function (this: HTMLCanvasElement, kind: string, ...rest: unknown[]) {
      return kind.startsWith('webgl') ? null : (get as (...all: unknown[]) => unknown).call(this, kind, ...rest);
    } as never;
  });
  await page.goto('/');
  await page.getByRole('button', { name: 'New scene', exact: true }).click();
  await expect(page.getByText(/This browser draws no 3D/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Export', exact: true })).toBeVisible();
  await context.close();
  const storeless = await browser.newContext();
  const library = await storeless.newPage();
  await library.addInitScript(() => {
    IDBFactory.prototype.open = () => {
      throw new DOMException('The operation is insecure.', 'SecurityError');
    };
  });
  await library.goto('/');
  await expect(library.getByText(/does not let Uvrex keep scenes/)).toBeVisible();
  await storeless.close();
});

test('every answer carries a policy, and says what it is', async ({ request, page }) => {
  await openEmpty(page);
  const script = await page.evaluate(
    () => performance.getEntriesByType('resource').find(({ name }) => /\.js/.test(name))!.name,
  );
  for (const address of ['/', '/studio/none', script]) {
    const headers = (await request.get(address)).headers();
    expect([address, headers['x-content-type-options']]).toEqual([address, 'nosniff']);
    expect(headers['content-security-policy']).toMatch(/default-src/);
  }
});
