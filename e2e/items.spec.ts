import { expect } from '@playwright/test';
import { Hands } from './hands';
import { copies, goTo, openStep } from './helpers';
import { test } from './test';

test('a stem with leaves from an empty scene in three actions: a line, Along the paths, and a look at it', async ({
  page,
}) => {
  const hands = new Hands(page);
  await hands.emptyScene('Stem');
  await hands.newGrowth('line');
  const along = await hands.addStep('Along the paths');
  // Nothing to copy was there: a leaf was made, hidden itself, set as leaves stand on a stem.
  await expect(along.getByRole('alert')).toHaveCount(0);
  await expect(along.getByRole('combobox', { name: 'Item', exact: true })).toHaveText('Leaf');
  await expect(page.getByRole('button', { name: 'Show Leaf', exact: true })).toBeVisible();
  // It is chosen by its picture, which is drawn when one is asked to choose.
  await along.getByRole('combobox', { name: 'Item', exact: true }).click();
  await expect(page.getByRole('option', { name: 'Leaf', exact: true }).locator('span[style*="blob:"]')).toBeVisible();
  await page.keyboard.press('Escape');
  await hands.closed();
  await goTo(page, 144);
  expect(await copies(page)).toBe(24);
  // One entry of undo takes both away again.
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Row of Leaf', exact: true })).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Show Leaf', exact: true })).toHaveCount(0);
});

test('what is copied is made where it is chosen, with what suits it', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Chain');
  await hands.newGrowth('catenary');
  await hands.addStep('Along the paths');
  await hands.set('Along the paths', { Item: 'Make a chain link' });
  const along = await openStep(page, 'Along the paths');
  await expect(along.getByRole('combobox', { name: 'Item', exact: true })).toHaveText('Link');
  await expect(along.getByLabel('Turns', { exact: true })).toHaveValue('0, 90');
  await goTo(page, 144);
  expect(await copies(page)).toBeGreaterThan(20);
  await expect(along.getByRole('alert')).toHaveCount(0);
});

test('a group is copied as one item: two growths together, and the copies rolled by a ring in the view', async ({
  page,
}) => {
  const hands = new Hands(page);
  await hands.emptyScene('Pier');
  await hands.newGrowth('solid');
  await hands.newGrowth('blade');
  const list = page.getByRole('region', { name: 'Growths', exact: true });
  const row = (name: string) => list.locator('[data-row]').filter({ hasText: name }).first();
  await row('Solid').click();
  await row('Blade').click({ modifiers: ['Shift'] });
  await page
    .getByRole('region', { name: '2 growths chosen' })
    .getByRole('button', { name: 'Group', exact: true })
    .click();
  await list.getByRole('button', { name: 'Hide Group' }).click();
  await hands.newGrowth('line');
  await hands.addStep('Along the paths');
  await hands.set('Along the paths', { Item: 'Group (group)', Spacing: 'By count', Count: '5' });
  const along = await openStep(page, 'Along the paths');
  await goTo(page, 144);
  await expect(along.getByRole('alert')).toHaveCount(0);
  expect(await copies(page)).toBe(5);
  const ring = page.getByRole('button', { name: 'Roll of Along the paths' });
  await ring.focus();
  await page.keyboard.press('Shift+ArrowRight');
  await expect(along.getByLabel('Roll', { exact: true })).toHaveValue('15');
  // It is still an item after a reload.
  await page.reload();
  await expect(along.getByRole('combobox', { name: 'Item', exact: true })).toHaveText('Group (group)');
  await expect(along.getByRole('alert')).toHaveCount(0);
});
