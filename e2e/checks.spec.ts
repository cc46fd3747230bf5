import { expect } from '@playwright/test';
import { openNamed } from './helpers';
import { test } from './test';

test('pace: an even growth is charted with its unevenness', async ({ page }) => {
  await openNamed(page, 'Brain coral');
  await page.getByRole('button', { name: 'Checks', exact: true }).click();
  await expect(page.getByTestId('pace')).toContainText(/Unevenness \d/, { timeout: 120_000 });
  await expect(
    page.getByRole('img', { name: 'Length, m over frames' }).locator('path.recharts-line-curve'),
  ).toBeVisible();
});

test('seam: the wreath closes by its symmetry; a longer range is brought back to the shortest loop in one click', async ({
  page,
}) => {
  await openNamed(page, 'Lantern wreath');
  await page.getByRole('button', { name: 'Checks', exact: true }).click();
  await page.getByRole('button', { name: 'Measure' }).click();
  await expect(page.getByTestId('seam')).toContainText(/Lantern wreath\s*0(\.0\d)? mm/);

  await page.getByLabel('Last frame').fill('100');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Measure' }).click();
  await expect(page.getByTestId('seam')).not.toContainText(/Lantern wreath\s*0(\.0\d)? mm/);
  await page.getByRole('button', { name: 'Find the shortest loop' }).click();
  await expect(page.getByText('Frames 1 to 72 close.')).toBeVisible({ timeout: 120_000 });
  await page.getByRole('button', { name: 'Use them' }).click();
  await expect(page.getByLabel('Last frame')).toHaveValue('72');
});
