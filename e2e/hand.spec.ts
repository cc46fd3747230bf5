import { expect, type Page } from '@playwright/test';
import {
  canvas,
  copies,
  goTo,
  openEmpty,
  openNamed,
  openStarter,
  openStep,
  picture,
  pictureAt,
  saved,
  step,
  viewKept,
} from './helpers';
import { Hands } from './hands';
import { test } from './test';

// What is at hand round the work: groups, several growths at once, the view as a place to work, versions, lessons.

const list = (page: Page) => page.getByRole('region', { name: 'Growths', exact: true });
const row = (page: Page, name: string) => list(page).locator('[data-row]').filter({ hasText: name }).first();
const chosen = (page: Page, count: number) => page.getByRole('region', { name: `${count} growths chosen` });

async function threeGrowths(page: Page): Promise<void> {
  const hands = new Hands(page);
  await hands.emptyScene('Reef');
  for (const start of ['line', 'helix', 'arc']) await hands.newGrowth(start);
}

test('several growths are chosen, grouped, run late together, fold away, and part again', async ({ page }) => {
  await threeGrowths(page);
  await row(page, 'Helix').click();
  await row(page, 'Arc').click({ modifiers: ['Shift'] });
  await chosen(page, 2).getByRole('button', { name: 'Group', exact: true }).click();
  await expect(row(page, 'Group')).toContainText('2 growths');
  await page.keyboard.press('Home');
  await pictureAt(page, 1);
  // Late as one: on top of what each has of its own.
  const late = chosen(page, 2).getByLabel('Group start delay', { exact: true });
  await late.fill('30');
  await late.press('Enter');
  const each = chosen(page, 2).getByLabel('Stagger', { exact: true });
  await each.fill('10');
  await each.press('Enter');
  await row(page, 'Arc').click();
  await expect(page.getByLabel('Start delay', { exact: true })).toHaveValue('10');
  // Folded in list and timeline, and still so when the scene is opened again.
  await list(page).getByRole('button', { name: 'Fold Group' }).click();
  await expect(row(page, 'Helix')).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Row of Helix' })).toHaveCount(0);
  await saved(page);
  await viewKept(page, { folded: [expect.any(String)] });
  await page.reload();
  await expect(row(page, 'Group')).toBeVisible();
  await expect(row(page, 'Helix')).toHaveCount(0);
  // Hidden as one.
  await goTo(page, 144);
  const before = await picture(page);
  await list(page).getByRole('button', { name: 'Hide Group' }).click();
  await expect.poll(async () => (await picture(page)).equals(before)).toBe(false);
  await list(page).getByRole('button', { name: 'More for Group' }).click();
  await page.getByRole('menuitem', { name: 'Ungroup' }).click();
  await expect(list(page).getByRole('button', { name: 'Show Helix' })).toBeVisible();
  await row(page, 'Helix').click();
  await expect(page.getByLabel('Start delay', { exact: true })).toHaveValue('30');
});

test('a row is dragged into a group and moved by keys; growths are found by name and by step', async ({ page }) => {
  await threeGrowths(page);
  await row(page, 'Line').click();
  await row(page, 'Helix').click({ modifiers: ['Control'] });
  await page.keyboard.press('Control+g');
  await expect(row(page, 'Group')).toBeVisible();
  // Dragging is loaded when the studio has been open for a moment.
  await expect(row(page, 'Arc')).toHaveAttribute('aria-roledescription', 'sortable');
  const [from, to] = [(await row(page, 'Arc').boundingBox())!, (await row(page, 'Helix').boundingBox())!];
  await page.mouse.move(from.x + 20, from.y + 10);
  await page.mouse.down();
  await page.mouse.move(to.x + 20, to.y + 12, { steps: 8 });
  await page.mouse.up();
  await expect(row(page, 'Group')).toContainText('3 growths');
  const order = (): Promise<string[]> => list(page).locator('[data-row] > span:first-child').allTextContents();
  expect(await order()).toEqual(['Group', 'Line', 'Arc', 'Helix']);
  await row(page, 'Helix').focus();
  await page.keyboard.press('Alt+ArrowUp');
  await expect.poll(order).toEqual(['Group', 'Line', 'Helix', 'Arc']);

  await list(page).getByRole('button', { name: 'Search growths by name or step' }).click();
  await page.getByLabel('Search growths').fill('hel');
  await expect.poll(order).toEqual(['Group', 'Helix']);
  await page.getByLabel('Search growths').fill('whale');
  await expect(list(page)).toContainText('No growth is called so.');
  await page.keyboard.press('Escape');
  await expect.poll(order).toHaveLength(4);
});

test('what is locked cannot be changed until it is unlocked; alone, all others are faint', async ({ page }) => {
  await threeGrowths(page);
  await goTo(page, 144);
  await row(page, 'Helix').click();
  await canvas(page).page().keyboard.press('a');
  await expect(page.getByRole('button', { name: 'Isolate', exact: true })).toHaveAttribute('aria-pressed', 'true');
  const alone = await picture(page);
  await row(page, 'Line').click();
  await expect.poll(async () => (await picture(page)).equals(alone)).toBe(false);
  await page.keyboard.press('a');

  await list(page).getByRole('button', { name: 'More for Line' }).click();
  await page.getByRole('menuitem', { name: 'Lock' }).click();
  await expect(page.getByText('Locked, so that nothing of it is changed by mistake.')).toBeVisible();
  await list(page).getByRole('button', { name: 'More for Line' }).click();
  await page.getByRole('menuitem', { name: 'Delete' }).click();
  await expect(page.getByText('Line is locked.')).toBeVisible();
  await expect(row(page, 'Line')).toBeVisible();
  await list(page).getByRole('button', { name: 'Unlock Line' }).click();
  await page.getByRole('button', { name: 'Switch Grow off' }).click();
  await expect(page.getByRole('button', { name: 'Switch Grow on' })).toBeVisible();
});

test('a growth is moved, turned and sized by hand; seen from its sides; distances are told', async ({ page }) => {
  await threeGrowths(page);
  await row(page, 'Helix').click();
  await page.keyboard.press('1');
  await expect(page.getByRole('button', { name: 'Set camera to view' })).toBeVisible();
  await page.keyboard.press('h');
  const place = page.getByRole('button', { name: 'Place of Helix', exact: true });
  const box = (await place.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + 90, box.y - 40, { steps: 6 });
  await page.mouse.up();
  const value = async (name: string): Promise<number> =>
    Number(await page.getByLabel(name, { exact: true }).first().inputValue());
  // From the front, right is X and up is Y.
  await expect.poll(() => value('Move X')).toBeGreaterThan(0.1);
  expect(await value('Move Y')).toBeGreaterThan(0.02);
  expect(Math.abs(await value('Move Z'))).toBeLessThan(0.05);
  await page.getByRole('button', { name: 'Turn about Z of Helix' }).focus();
  await page.keyboard.press('Shift+ArrowRight');
  await expect.poll(() => value('Turn Z')).toBe(15);
  await page.getByRole('button', { name: 'Size of Helix' }).focus();
  await page.keyboard.press('Shift+ArrowUp');
  await expect.poll(() => value('Scale')).toBe(110);
  // One drag is one entry of undo.
  for (let i = 0; i < 3; i++) await page.getByRole('button', { name: 'Undo' }).click();
  expect(await value('Move X')).toBe(0);
  await page.keyboard.press('h');

  await page.keyboard.press('x');
  await expect(page.getByRole('img', { name: /^Grid: a square is/ })).toBeVisible();
  await page.keyboard.press('3');
  await page.keyboard.press('r');
  const layer = page.getByTestId('measure-layer');
  await layer.click({ position: { x: 60, y: 420 } });
  await layer.click({ position: { x: 860, y: 420 } });
  // Both on the ground: no height between them.
  await expect(page.getByTestId('measured')).toContainText(/m/);
  await expect(page.getByTestId('measured')).toContainText(/ Y 0 /);
  await page.keyboard.press('Escape');
  await expect(layer).toHaveCount(0);
});

test('copies are held by their ends and their number; the end of a line snaps to that of another', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Handles');
  await hands.newGrowth('line');
  const along = await hands.addStep('Along the paths');
  await hands.set('Along the paths', { Spacing: 'By count' });
  const value = async (name: string): Promise<number> =>
    Number(await along.getByLabel(name, { exact: true }).inputValue());
  const knob = (name: string) => page.getByRole('button', { name: `${name} of Along the paths` });
  await knob('Start').focus();
  await page.keyboard.press('Shift+ArrowUp');
  await page.keyboard.press('ArrowUp');
  await expect.poll(() => value('Start')).toBe(0.11);
  const count = await value('Count');
  await knob('Count').focus();
  await page.keyboard.press('ArrowDown');
  await expect.poll(() => value('Count')).toBe(count + 1);
  // The far end is dragged to the middle between both: so much of the line is left free there.
  const middle = async (name: string): Promise<{ x: number; y: number }> => {
    const box = (await knob(name).boundingBox())!;
    return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  };
  const [low, high] = [await middle('Start'), await middle('End')];
  await page.mouse.move(high.x, high.y);
  await page.mouse.down();
  await page.mouse.move((low.x + high.x) / 2, (low.y + high.y) / 2, { steps: 5 });
  await expect(page.getByText(/^End\s*\d/)).toBeVisible();
  await page.mouse.up();
  const half = await value('End');
  expect(half).toBeGreaterThan(0.2);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(() => value('End')).toBe(0);

  await openStep(page, 'Line');
  const to = page.getByRole('button', { name: 'To of Line' });
  const there = (await to.boundingBox())!;
  const first = await step(page, 'Line').getByLabel('To Y', { exact: true }).inputValue();
  await hands.newGrowth('line');
  await hands.set('Line', { 'To X': '0.9', 'To Y': '0.4' });
  const own = (await to.boundingBox())!;
  await page.mouse.move(own.x + own.width / 2, own.y + own.height / 2);
  await page.mouse.down();
  await page.mouse.move(there.x + there.width / 2 + 4, there.y + there.height / 2 + 4, { steps: 6 });
  await expect(page.getByText(/on an end of Line$/)).toBeVisible();
  await page.mouse.up();
  await expect(step(page, 'Line').getByLabel('To X', { exact: true })).toHaveValue('0');
  await expect(step(page, 'Line').getByLabel('To Y', { exact: true })).toHaveValue(first);
});

test('a version is kept, gone back to, and played beside what came of it', async ({ page }) => {
  await openStarter(page);
  await page.keyboard.press('Control+s');
  await expect(page.getByText('Kept as “Version 1”.')).toBeVisible();
  await list(page).locator('[data-row]').first().click();
  await list(page).getByRole('button', { name: 'More for Kelp frond' }).click();
  await page.getByRole('menuitem', { name: 'Delete' }).click();
  await expect(row(page, 'Kelp frond')).toHaveCount(0);
  await goTo(page, 144);
  await page.keyboard.press('v');
  const sheet = page.getByRole('dialog', { name: 'Versions' });
  await sheet.getByRole('button', { name: 'Compare' }).click();
  const sides = page.getByRole('dialog').locator('canvas');
  await expect(sides).toHaveCount(2);
  for (const side of [0, 1]) await expect(sides.nth(side)).toHaveAttribute('data-frame', /\d+/, { timeout: 60_000 });
  const pixels = (side: number): Promise<string> => sides.nth(side).evaluate((c: HTMLCanvasElement) => c.toDataURL());
  expect((await pixels(0)) === (await pixels(1))).toBe(false);
  await page.getByRole('button', { name: 'Wipe', exact: true }).click();
  await expect(page.getByRole('slider', { name: 'Where one is wiped over the other' })).toBeVisible();
  await page.getByRole('button', { name: 'Back to all versions' }).click();
  await sheet.getByRole('button', { name: 'Go back to it' }).click();
  await expect(row(page, 'Kelp frond')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(row(page, 'Kelp frond')).toHaveCount(0);
});

test('scenes are found, put into folders, and go out together as a zip and come back', async ({ page }) => {
  for (let i = 0; i < 2; i++) await openEmpty(page);
  await page.goto('/');
  const own = page.getByRole('region', { name: 'Your scenes' });
  for (const name of ['Untitled reef', 'Untitled reef 2'])
    await own.getByLabel(`Choose ${name}`, { exact: true }).check();
  await own.getByRole('button', { name: 'Into a folder' }).click();
  await page.getByRole('textbox', { name: 'Folder' }).fill('Opening');
  await page.getByRole('button', { name: 'Put in' }).click();
  await expect(own.getByRole('button', { name: 'Opening', exact: true })).toBeVisible();
  await own.getByLabel('Find scenes').fill('2');
  await expect(own.getByRole('group', { name: /^Untitled reef/ })).toHaveCount(1);
  await own.getByLabel('Find scenes').fill('');
  for (const name of ['Untitled reef', 'Untitled reef 2'])
    await own.getByLabel(`Choose ${name}`, { exact: true }).check();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    own.getByRole('button', { name: 'Export as a zip' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('Uvrex scenes.zip');
  await page.getByTestId('import').setInputFiles(await download.path());
  await expect(own.getByRole('group', { name: 'Untitled reef 4', exact: true })).toBeVisible();
  await expect(own.getByTestId('storage')).toContainText('used on this device');
});

test.describe('somebody who has never been here', () => {
  test.use({ storageState: { cookies: [], origins: [] } });

  test('is led to a first growth in four steps, each checked off, and never asked again', async ({ page }) => {
    await openEmpty(page);
    const guide = page.getByRole('region', { name: 'Lessons' });
    await expect(guide).toContainText('First growth');
    const done = guide.locator('li[data-done=true]');
    // By hand …
    await page.keyboard.press('Shift+N');
    await page.getByRole('combobox', { name: 'Find' }).fill('helix');
    await page.getByRole('option', { name: 'Helix', exact: true }).click();
    await expect(done).toHaveCount(1);
    // … or done for one.
    for (const count of [2, 3, 4]) {
      await guide.getByRole('button', { name: 'Do it for me' }).click();
      await expect(done).toHaveCount(count);
    }
    await expect(guide).toContainText('That is all of it.');
    await page.keyboard.press('Space');
    await page.keyboard.press('Escape');
    await expect(guide).toHaveCount(0);
    await openEmpty(page);
    await expect(guide).toHaveCount(0);
  });
});

test('a lesson stands beside the work and is there after a reload', async ({ page }) => {
  await openNamed(page, 'Kelp frond');
  await page.getByRole('button', { name: 'Lessons', exact: true }).click();
  const guide = page.getByRole('region', { name: 'Lessons' });
  await guide.getByRole('button', { name: /^Turban shell/ }).click();
  await expect(page.getByRole('banner')).toContainText('Turban shell');
  for (const count of [1, 2]) {
    await guide.getByRole('button', { name: 'Do it for me' }).click();
    await expect(guide.locator('li[data-done=true]')).toHaveCount(count);
  }
  await saved(page);
  await viewKept(page, { lesson: expect.objectContaining({ done: [0, 1] }) });
  await page.reload();
  await expect(guide.locator('li[data-done=true]')).toHaveCount(2);
});

test('the wheel steps a focused number; several are dragged at once; a command is given other keys, which hold after a reload', async ({
  page,
}) => {
  const hands = new Hands(page);
  await hands.emptyScene('Reef');
  await hands.newGrowth('helix');
  await page.getByRole('group', { name: 'Helix', exact: true }).locator('[aria-expanded]').first().click();
  const turns = page.getByRole('group', { name: 'Helix', exact: true }).getByLabel('Turns', { exact: true });
  await turns.focus();
  const before = Number(await turns.inputValue());
  await turns.hover();
  // Both at once: on a busy machine two from outside may be further apart than a rest of the wheel.
  await turns.evaluate((field) => {
    for (let i = 0; i < 2; i++)
      field.dispatchEvent(new WheelEvent('wheel', { deltaY: -100, bubbles: true, cancelable: true }));
  });
  await expect.poll(async () => Number(await turns.inputValue())).toBeGreaterThan(before);
  // All turning of the wheel is one entry of undo.
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(turns).toHaveValue(String(before));

  // Down over the labels of both radii, then sideways: both change, and one undo takes both back.
  await openStep(page, 'Helix');
  const helix = page.getByRole('group', { name: 'Helix', exact: true });
  const figure = (name: string) => helix.getByLabel(name, { exact: true });
  const [low, high] = [await figure('Base radius').inputValue(), await figure('Top radius').inputValue()];
  const [from, to] = [
    (await helix.getByText('Base radius', { exact: true }).boundingBox())!,
    (await helix.getByText('Top radius', { exact: true }).boundingBox())!,
  ];
  await page.mouse.move(from.x + 8, from.y + 6);
  await page.mouse.down();
  await page.mouse.move(to.x + 8, to.y + 6, { steps: 4 });
  await page.mouse.move(to.x + 48, to.y + 6, { steps: 6 });
  await page.mouse.up();
  await expect.poll(async () => Number(await figure('Top radius').inputValue())).toBeGreaterThan(Number(high) + 0.05);
  expect(Number(await figure('Base radius').inputValue())).toBeGreaterThan(Number(low) + 0.05);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(figure('Top radius')).toHaveValue(high);
  await expect(figure('Base radius')).toHaveValue(low);

  await page.keyboard.press('Escape');
  await page.keyboard.press('?');
  const sheet = page.getByRole('dialog', { name: 'Shortcuts' });
  await sheet.getByRole('button', { name: /^Keys of Grid and axes/ }).click();
  await page.keyboard.press('Control+w');
  await expect(sheet.getByRole('status')).toContainText('The browser keeps these keys for itself');
  await page.keyboard.press('Alt+q');
  await expect(sheet.getByRole('button', { name: 'Keys of Grid and axes: Alt Q' })).toBeVisible();
  await sheet.getByRole('button', { name: 'Close' }).click();
  await page.reload();
  await expect(canvas(page)).toHaveAttribute('data-rest', 'true');
  await page.keyboard.press('x');
  await page.keyboard.press('Alt+q');
  await expect(page.getByRole('img', { name: /^Grid: a square is/ })).toBeVisible();
});

test('a scene that takes its time moves along while a number is dragged', async ({ page }) => {
  await openNamed(page, 'Fan coral');
  await list(page).getByText('Fan coral', { exact: true }).click();
  const tube = await openStep(page, 'Tube');
  const label = tube.getByText('Radius', { exact: true });
  await label.scrollIntoViewIfNeeded();
  const { x, y } = (await label.boundingBox())!;
  await page.mouse.move(x + 10, y + 6);
  await page.mouse.down();
  const seen = new Set<string>();
  // The hand never rests: every picture is one of the drag.
  let right = 0;
  await expect(async () => {
    for (let k = 0; k < 5; k++) await page.mouse.move(x + 10 + (++right % 40), y + 6);
    seen.add((await picture(page)).toString('base64'));
    expect(seen.size).toBeGreaterThan(2);
  }).toPass({ timeout: 30_000, intervals: [0] });
  await page.mouse.up();
});

test('copies that stand item by item are held by the gap between them', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Gaps');
  await hands.newGrowth('line');
  await hands.deleteStep('Grow');
  const along = await hands.addStep('Along the paths');
  await hands.set('Along the paths', { Spacing: 'By the item' });
  const many = await copies(page);
  const gap = along.getByLabel('Gap', { exact: true });
  const knob = page.getByRole('button', { name: 'Gap of Along the paths' });
  await knob.press('ArrowUp');
  await expect(gap).toHaveValue('0.01');
  const { x, y, width, height } = (await knob.boundingBox())!;
  await page.mouse.move(x + width / 2, y + height / 2);
  await page.mouse.down();
  // The line stands upright: room is made upwards.
  await page.mouse.move(x + width / 2, y + height / 2 - 30, { steps: 6 });
  await expect.poll(async () => Number(await gap.inputValue())).toBeGreaterThan(0.05);
  const there = (await knob.boundingBox())!;
  expect(Math.abs(there.y - (y - 30))).toBeLessThan(4);
  await page.mouse.up();
  await expect.poll(() => copies(page)).toBeLessThan(many);
});

test('the help of a control shows how it moves, whole, and stands still where motion is not wanted', async ({
  page,
}) => {
  await openNamed(page, 'Brain coral');
  const noise = await openStep(page, 'Breath');
  const label = noise.locator('label', { hasText: /^Hold base$/ });
  await page.emulateMedia({ reducedMotion: 'no-preference' });
  await label.hover();
  // By its words: one help fades away while the next comes.
  const shown = page.getByRole('tooltip').filter({ hasText: 'Share of the path' });
  const moving = shown.locator('[style*="background-image"]');
  await expect(moving).toHaveCSS('animation-iteration-count', 'infinite');
  await expect(shown).toBeVisible();
  const { x, y, width, height } = (await shown.boundingBox())!;
  const room = page.viewportSize()!;
  expect(Math.min(x, y, room.width - x - width, room.height - y - height)).toBeGreaterThanOrEqual(0);
  await page.emulateMedia({ reducedMotion: 'reduce' });
  await expect(moving).toHaveCSS('animation-name', 'none');
  // Others say it in a sentence.
  await noise.locator('label', { hasText: /^Detail$/ }).hover();
  const said = page.getByRole('tooltip').filter({ hasText: 'Layers' });
  await expect(said).toBeVisible();
  await expect(said.locator('[style*="background-image"]')).toHaveCount(0);
  await expect(shown).toHaveCount(0);
});
