import { expect } from '@playwright/test';
import { Hands } from './hands';
import { canvas, goTo, openNamed, openStarter, picture, setNumber, step } from './helpers';
import { test } from './test';

const scenePanel = 'Scene, light and camera';

test('light and shot take keys, which are rows of the timeline and move the picture, and are there after a reload', async ({
  page,
}) => {
  await openStarter(page);
  await goTo(page, 40);
  await page.getByRole('button', { name: scenePanel }).click();
  const light = page.getByRole('group', { name: 'Light', exact: true });
  await light.getByRole('button', { name: /^Strength: animate/ }).click();
  await goTo(page, 41);
  const next = await picture(page);
  await goTo(page, 40);
  const before = await picture(page);
  await goTo(page, 100);
  await setNumber(light.getByLabel('Strength', { exact: true }), '300');
  const timeline = page.getByRole('region', { name: 'Timeline' });
  await expect(timeline.getByRole('button', { name: 'Row of Light, Strength' })).toBeVisible();
  await expect(timeline.getByRole('button', { name: /^Key of Light, Strength at frame/ })).toHaveCount(2);
  await goTo(page, 41);
  // Two keys now: a frame after the first it has changed; on the first it is as it was, reached back by a jump.
  await expect.poll(async () => (await picture(page)).equals(next)).toBe(false);
  await goTo(page, 40);
  await expect.poll(async () => (await picture(page)).equals(before)).toBe(true);

  // The shot: looked through, it travels.
  const camera = page.getByRole('group', { name: 'Camera', exact: true });
  await camera
    .getByRole('button', { name: /^Stands at X: animate/ })
    .first()
    .click();
  const standsAt = camera.getByRole('textbox', { name: 'Stands at X', exact: true });
  const from = Number(await standsAt.inputValue());
  await goTo(page, 100);
  await setNumber(standsAt, '-3');
  await expect(timeline.getByRole('button', { name: 'Row of Camera, Stands at X' })).toBeVisible();
  await goTo(page, 70);
  await page.reload();
  await expect(canvas(page)).toHaveAttribute('data-frame', '70', { timeout: 60_000 });
  await page.getByRole('button', { name: scenePanel }).click();
  // Halfway between two keys with an even ease.
  await expect(standsAt).toBeVisible();
  expect(Number(await standsAt.inputValue())).toBeCloseTo((from - 3) / 2, 2);
  await expect(timeline.getByRole('button', { name: 'Row of Camera, Stands at X' })).toBeVisible();
});

test('a growth is moved as a whole with its copies, keyed on its own clock, and linked by a formula', async ({
  page,
}) => {
  const hands = new Hands(page);
  await openNamed(page, 'Mooring chain');
  await page.getByRole('region', { name: 'Growths' }).locator('[data-row], button').first().waitFor();
  await page.getByRole('region', { name: 'Growths' }).getByRole('button', { name: /chain/i }).first().click();
  const place = step(page, 'Place');
  await place.scrollIntoViewIfNeeded();
  await expect(place).toContainText('as it is');
  const before = await picture(page);
  await hands.set('Place', { Scale: '50' });
  await expect(place).toContainText('50 %');
  await expect.poll(async () => (await picture(page)).equals(before)).toBe(false);
  await page.keyboard.press('Escape');
  await hands.set('Place', { 'Move Y': '= frame / 100' });
  await expect(place).toContainText('moved');
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(place).toContainText('as it is');
  // Its handles go with its fields.
  await place.locator('[aria-expanded]').first().click();
  await expect(page.getByRole('group', { name: /^Place, turn and size of/ })).toHaveCount(0);
  await expect(canvas(page)).toHaveAttribute('data-rest', 'true');
  await expect.poll(async () => (await picture(page)).equals(before), { timeout: 60_000 }).toBe(true);
});

test('the leaf beside a guide sets keys where it stands, and dragging it sets the next', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Keyed guide');
  await hands.newGrowth('line');
  await page.getByRole('button', { name: scenePanel }).click();
  await page.getByRole('button', { name: '+ Guide' }).click();
  await goTo(page, 10);
  await page.getByRole('button', { name: 'Set keys of Guide here' }).click();
  await goTo(page, 60);
  const handle = (await page.getByRole('button', { name: 'Middle of Guide' }).boundingBox())!;
  await page.mouse.move(handle.x + handle.width / 2, handle.y + handle.height / 2);
  await page.mouse.down();
  await page.mouse.move(handle.x + 90, handle.y - 30, { steps: 5 });
  await page.mouse.up();
  await expect(page.getByRole('button', { name: 'Take the keys of Guide here' })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Key of Guide, Place X at frame/ })).toHaveCount(2);
  const across = page.getByRole('group', { name: 'Guide', exact: true }).getByLabel('Place X', { exact: true });
  const there = Number(await across.inputValue());
  await goTo(page, 35);
  expect(Number(await across.inputValue())).toBeCloseTo(there / 2, 1);
});
