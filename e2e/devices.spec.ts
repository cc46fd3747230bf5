import AxeBuilder from '@axe-core/playwright';
import { expect, type Page, test } from '@playwright/test';
import { canvas, copies, goTo, openEmpty, openNamed, openStep, pictureAt } from './helpers';
import { Hands } from './hands';

// Other windows, other hands: small screens, fingers, the keyboard alone.

/** Buttons and fields that lie beyond the left or right edge of the window. */
const cutOff = (page: Page): Promise<string[]> =>
  page.evaluate(() =>
    [...document.querySelectorAll('button, input, [role=slider]')].flatMap((part) => {
      const { left, right, width } = part.getBoundingClientRect();
      const out = width > 0 && (right > window.innerWidth + 1 || left < -1);
      return out ? [part.getAttribute('aria-label') ?? part.textContent ?? part.tagName] : [];
    }),
  );

test.describe('a window of 1024 × 700', () => {
  test.use({ viewport: { width: 1024, height: 700 } });

  test('holds the whole studio: nothing is cut off, nor where steps are open and keys chosen', async ({ page }) => {
    await openNamed(page, 'Kelp frond');
    await page.keyboard.press('1');
    await page.keyboard.press('Control+a');
    await expect(page.getByRole('button', { name: /^Easing of/ })).toBeVisible();
    expect(await cutOff(page)).toEqual([]);
    await openStep(page, 'Tube');
    await page.getByRole('button', { name: 'Lessons', exact: true }).click();
    expect(await cutOff(page)).toEqual([]);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(1024);
  });
});

test.describe('a phone', () => {
  test.use({ viewport: { width: 390, height: 780 }, hasTouch: true, isMobile: true });

  test('shows a scene and plays it, and says where it can be edited', async ({ page }) => {
    await openNamed(page, 'Mooring chain');
    await expect(page.getByText('To edit it, open it on a larger screen.')).toBeVisible();
    expect((await new AxeBuilder({ page }).analyze()).violations.map(({ id }) => id)).toEqual([]);
    await expect(page.getByRole('button', { name: 'Add a step' })).toHaveCount(0);
    const before = await canvas(page).getAttribute('data-frame');
    await page.getByRole('button', { name: 'Play' }).tap();
    await expect(canvas(page)).not.toHaveAttribute('data-frame', before!);
    await page.getByRole('button', { name: 'Stop' }).tap();
  });
});

test.describe('fingers on a large screen', () => {
  test.use({ hasTouch: true });

  test('choose a growth, and take hold of its ends', async ({ page }) => {
    const hands = new Hands(page);
    await hands.emptyScene('Reef');
    await hands.newGrowth('line');
    await openStep(page, 'Line');
    const end = page.getByRole('button', { name: 'To of Line' });
    const box = (await end.boundingBox())!;
    const field = page.getByRole('group', { name: 'Line', exact: true }).getByLabel('To X', { exact: true });
    const before = Number(await field.inputValue());
    const cdp = await page.context().newCDPSession(page);
    const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', by = 0): Promise<unknown> =>
      cdp.send('Input.dispatchTouchEvent', {
        type,
        touchPoints: type === 'touchEnd' ? [] : [{ x: box.x + box.width / 2 + by, y: box.y + box.height / 2 }],
      });
    await touch('touchStart');
    for (const by of [10, 30, 60]) await touch('touchMove', by);
    await touch('touchEnd');
    await expect.poll(async () => Number(await field.inputValue())).not.toBe(before);
  });
});

test('the keyboard alone makes a stem with leaves, and plays it', async ({ page }) => {
  await openEmpty(page);
  const keys = page.keyboard;
  // A start, found and taken.
  await keys.press('Shift+N');
  await expect(page.getByRole('combobox', { name: 'Find' })).toBeFocused();
  await keys.type('helix');
  await expect(page.getByRole('option', { selected: true })).toHaveAccessibleName('Helix');
  await keys.press('Enter');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  // Leaves along it: with nothing to copy yet a leaf is made.
  await keys.press('n');
  await expect(page.getByRole('combobox', { name: 'Find' })).toBeFocused();
  await keys.type('along the paths');
  await expect(page.getByRole('option', { selected: true })).toHaveAccessibleName(/^Along the paths/);
  await keys.press('Enter');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  // A value: tabbed to, typed, taken.
  const count = page.getByRole('group', { name: 'Along the paths', exact: true }).locator('input').first();
  await expect(count).toBeAttached();
  for (let i = 0; i < 80; i++) {
    await keys.press('Tab');
    const label = await page.evaluate(() =>
      document.activeElement?.closest('[role=group]')?.getAttribute('aria-label'),
    );
    const isField = await page.evaluate(() => document.activeElement?.tagName === 'INPUT');
    if (label === 'Along the paths' && isField) break;
  }
  expect(await page.evaluate(() => document.activeElement?.closest('[role=group]')?.getAttribute('aria-label'))).toBe(
    'Along the paths',
  );
  await keys.press('Escape');
  await goTo(page, 144);
  expect(await copies(page)).toBeGreaterThan(3);
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await keys.press('Home');
  await pictureAt(page, 1);
  await keys.press('Space');
  await expect(canvas(page)).not.toHaveAttribute('data-frame', '1');
});
