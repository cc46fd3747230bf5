import { expect, type Page, type Route } from '@playwright/test';
import { test } from './test';
import {
  allReady,
  canvas,
  countDrawn,
  goTo,
  openEmpty,
  openStarter,
  openStep,
  picture,
  pictureAt,
  saved,
  setNumber,
  step,
  storedIn,
  viewKept,
} from './helpers';

test.describe('the starter', () => {
  test('opens with a picture; scrubbing changes it; the same frame looks the same forwards and by a jump', async ({
    page,
  }) => {
    await openStarter(page);
    const first = await picture(page);
    await goTo(page, 60);
    const forwards = await picture(page);
    expect(forwards.equals(first)).toBe(false);
    await goTo(page, 120);
    expect((await picture(page)).equals(forwards)).toBe(false);
    await goTo(page, 60);
    expect((await picture(page)).equals(forwards)).toBe(true);
    // Dragging on the ruler scrubs too.
    const ruler = (await page.getByTestId('ruler').boundingBox())!;
    await page.mouse.move(ruler.x + 300, ruler.y + 8);
    await page.mouse.down();
    await page.mouse.move(ruler.x + 520, ruler.y + 8, { steps: 4 });
    await page.mouse.up();
    expect(Number(await page.getByLabel('Frame', { exact: true }).inputValue())).toBeGreaterThan(60);
  });

  test('plays, in order, once all frames are ready; where there are cores, other engines make them', async ({
    page,
  }) => {
    await page.addInitScript('Object.defineProperty(navigator, "hardwareConcurrency", { get: () => 4 })');
    await openStarter(page);
    const alone = page.workers().length;
    await allReady(page);
    expect(page.workers().length).toBe(alone + 2);
    await page.getByRole('button', { name: 'Play' }).click();
    await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible();
    await expect.poll(async () => Number(await canvas(page).getAttribute('data-frame'))).toBeGreaterThan(12);
    await page.getByRole('button', { name: 'Stop', exact: true }).click();
  });

  test('a changed value changes the picture; undo and redo go there and back', async ({ page }) => {
    await openStarter(page);
    await goTo(page, 90);
    const before = await picture(page);
    const tube = await openStep(page, 'Tube');
    await setNumber(tube.getByLabel('Radius', { exact: true }), '0.2');
    await expect(tube.getByText(/0\.2 m radius/)).toBeVisible();
    await expect.poll(async () => (await picture(page)).equals(before)).toBe(false);
    await page.keyboard.press('Escape');
    await canvas(page).click({ position: { x: 5, y: 300 } });
    await page.keyboard.press('Control+z');
    await expect(tube.getByText(/0\.07 m radius/)).toBeVisible();
    await page.keyboard.press('Control+Shift+z');
    await expect(tube.getByText(/0\.2 m radius/)).toBeVisible();
  });

  test('a value out of range is refused beside its field, and nothing changes', async ({ page }) => {
    await openStarter(page);
    const tube = await openStep(page, 'Tube');
    await setNumber(tube.getByLabel('Sides', { exact: true }), '2');
    await expect(tube.getByRole('alert')).toHaveText('Sides must be 3 or more.');
    await expect(tube.getByText(/18 sides/)).toBeVisible();
    await setNumber(tube.getByLabel('Sides', { exact: true }), 'many');
    await expect(tube.getByRole('alert')).toHaveText('Sides must be a number.');
    await setNumber(tube.getByLabel('Sides', { exact: true }), '9');
    await expect(tube.getByRole('alert')).toHaveCount(0);
    await expect(tube.getByText(/9 sides/)).toBeVisible();
  });

  test('dragging a label is one undo entry, and draws only what hangs on the value', async ({ page }) => {
    await countDrawn(page);
    await openStarter(page);
    const tube = await openStep(page, 'Tube');
    await tube.getByText('Radius', { exact: true }).scrollIntoViewIfNeeded();
    const label = (await tube.getByText('Radius', { exact: true }).boundingBox())!;
    await page.mouse.move(label.x + 10, label.y + 8);
    await page.mouse.down();
    // The change itself; pictures and measured frames, which come one by one, are smaller still.
    await page.evaluate(() => (window.mostDrawn = 0));
    await page.mouse.move(label.x + 15, label.y + 8);
    await expect(tube.getByLabel('Radius', { exact: true })).not.toHaveValue('0.066');
    const drawn = await page.evaluate(() => window.mostDrawn);
    expect(drawn).toBeGreaterThan(20);
    // Of some 3,000 components that the studio has then: the field, what tells of its step, and the time line.
    expect(drawn).toBeLessThan(220);
    await page.mouse.move(label.x + 60, label.y + 8, { steps: 10 });
    await page.mouse.up();
    const value = Number(await tube.getByLabel('Radius', { exact: true }).inputValue());
    expect(value).toBeGreaterThan(0.1);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(tube.getByLabel('Radius', { exact: true })).toHaveValue('0.066');
    await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled();

    // A drag that the system takes away ends where it was.
    await page.mouse.move(label.x + 10, label.y + 8);
    await page.mouse.down();
    await page.mouse.move(label.x + 40, label.y + 8, { steps: 3 });
    const held = await tube.getByLabel('Radius', { exact: true }).inputValue();
    await tube.getByText('Radius', { exact: true }).dispatchEvent('pointercancel', { pointerId: 1 });
    await page.mouse.move(label.x + 80, label.y + 8, { steps: 3 });
    await expect(tube.getByLabel('Radius', { exact: true })).toHaveValue(held);
    await page.mouse.up();
    expect(held).not.toBe('0.066');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled();

    // Escape takes it back, and nothing is left of it to undo.
    await page.mouse.move(label.x + 10, label.y + 8);
    await page.mouse.down();
    await page.mouse.move(label.x + 40, label.y + 8, { steps: 3 });
    await expect(tube.getByLabel('Radius', { exact: true })).toHaveValue(held);
    await page.keyboard.press('Escape');
    await expect(tube.getByLabel('Radius', { exact: true })).toHaveValue('0.066');
    await page.mouse.move(label.x + 80, label.y + 8, { steps: 3 });
    await page.mouse.up();
    await expect(tube.getByLabel('Radius', { exact: true })).toHaveValue('0.066');
    await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled();
  });
});

test.describe('keys', () => {
  test('the leaf animates a value; a change elsewhere sets a key; keys are moved, eased and removed', async ({
    page,
  }) => {
    await openStarter(page);
    const tube = await openStep(page, 'Tube');
    await tube.getByRole('button', { name: /^Radius: animate/ }).click();
    await goTo(page, 40);
    await setNumber(tube.getByLabel('Radius', { exact: true }), '0.15');
    const keys = page.getByRole('button', { name: /^Key of Tube, Radius/ });
    await expect(keys).toHaveCount(2);
    await goTo(page, 20);
    const between = Number(await tube.getByLabel('Radius', { exact: true }).inputValue());
    expect(between).toBeGreaterThan(0.066);
    expect(between).toBeLessThan(0.15);

    const second = page.getByRole('button', { name: 'Key of Tube, Radius at frame 40' });
    const at = (await second.boundingBox())!;
    await page.mouse.move(at.x + at.width / 2, at.y + at.height / 2);
    await page.mouse.down();
    await page.mouse.move(at.x + 110, at.y + at.height / 2, { steps: 6 });
    await page.mouse.up();
    await expect(second).toHaveCount(0);
    const moved = keys.nth(1);
    expect(Number(/frame (\d+)/.exec((await moved.getAttribute('aria-label'))!)![1])).toBeGreaterThan(50);

    const first = page.getByRole('button', { name: 'Key of Tube, Radius at frame 1' });
    await first.dblclick();
    await page.getByRole('option', { name: 'hold', exact: true }).click();
    await page.keyboard.press('Escape');
    await expect(tube.getByLabel('Radius', { exact: true })).toHaveValue('0.066');

    await moved.focus();
    await page.keyboard.press('Delete');
    await expect(keys).toHaveCount(1);
  });
});

test.describe('steps and growths', () => {
  test('steps are added, switched off, renamed, reordered, duplicated and deleted; what does not fit says why', async ({
    page,
  }) => {
    await openStarter(page);
    await page.getByRole('button', { name: 'Add a step' }).click();
    await page.getByRole('combobox', { name: 'Find' }).fill('respace');
    await page.keyboard.press('Enter');
    await expect(step(page, 'Respace')).toBeVisible();

    await page.getByRole('button', { name: 'Switch Respace off' }).click();
    await expect(step(page, 'Respace').getByText('off', { exact: true })).toBeVisible();

    await step(page, 'Respace').getByRole('button', { name: 'More for Respace' }).click();
    await page.getByRole('menuitem', { name: 'Rename' }).click();
    await page.getByLabel('Name of the step').fill('Even points');
    await page.keyboard.press('Enter');
    await expect(step(page, 'Even points')).toBeVisible();

    await page.getByRole('button', { name: 'More for Even points' }).click();
    await page.getByRole('menuitem', { name: 'Delete' }).click();
    await expect(step(page, 'Even points')).toHaveCount(0);

    // The tube dragged above everything has no path to sweep along: it is skipped with its reason, not lost.
    const tube = (await step(page, 'Tube').locator('[aria-expanded]').boundingBox())!;
    const top = (await step(page, 'Stem').locator('[aria-expanded]').boundingBox())!;
    await page.mouse.move(tube.x + 40, tube.y + 12);
    await page.mouse.down();
    await page.mouse.move(tube.x + 40, tube.y - 20, { steps: 5 });
    await page.mouse.move(top.x + 40, top.y - 6, { steps: 12 });
    await page.mouse.up();
    await expect(step(page, 'Tube').getByRole('alert')).toContainText('Tube needs paths, and there is none before it');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByText('Tube needs paths')).toHaveCount(0);
  });

  test('growths are duplicated, hidden, renamed and deleted, and all of it is undone', async ({ page }) => {
    await openStarter(page);
    const list = page.getByRole('region', { name: 'Growths', exact: true });
    await list.getByRole('button', { name: 'More for Kelp frond' }).click();
    await page.getByRole('menuitem', { name: 'Duplicate' }).click();
    await expect(list.getByText('Kelp frond 2', { exact: true })).toBeVisible();
    await list.getByRole('button', { name: 'Hide Kelp frond 2' }).click();
    await expect(list.getByRole('button', { name: 'Show Kelp frond 2' })).toBeVisible();
    await list.getByText('Kelp frond 2', { exact: true }).dblclick();
    await page.getByLabel('Name of the growth').fill('Twin');
    await page.keyboard.press('Enter');
    await list.getByRole('button', { name: 'More for Twin' }).click();
    await page.getByRole('menuitem', { name: 'Delete' }).click();
    await expect(list.getByText('Twin', { exact: true })).toHaveCount(0);
    for (let i = 0; i < 4; i++) await page.getByRole('button', { name: 'Undo' }).click();
    await expect(list.getByText('Kelp frond 2', { exact: true })).toHaveCount(0);
    await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled();
  });

  test('the palette says what a step still needs', async ({ page }) => {
    await openEmpty(page);
    await page.keyboard.press('Control+k');
    await page.getByRole('combobox', { name: 'Find' }).fill('new growth line');
    await page.keyboard.press('Enter');
    await expect(step(page, 'Line')).toBeVisible();
    for (const name of ['Tube', 'Finish']) {
      await page.getByRole('button', { name: `More for ${name}` }).click();
      await page.getByRole('menuitem', { name: 'Delete' }).click();
    }
    await canvas(page).click({ position: { x: 5, y: 300 } });
    await page.keyboard.press('n');
    const finish = page.getByRole('option', { name: /^Finish/ });
    await expect(finish).toContainText('needs mesh first');
    await expect(finish).toHaveAttribute('aria-disabled', 'true');
  });
});

test.describe('drawing', () => {
  test('a stroke becomes a growth; its anchors are dragged, added and removed', async ({ page }) => {
    await openEmpty(page);
    await page.getByRole('button', { name: 'Draw a path', exact: true }).click();
    const layer = (await page.getByTestId('draw-layer').boundingBox())!;
    await page.mouse.move(layer.x + 300, layer.y + 420);
    await page.mouse.down();
    for (let i = 1; i <= 40; i++)
      await page.mouse.move(layer.x + 300 + i * 8, layer.y + 420 - i * 6 + 50 * Math.sin(i / 5));
    await page.mouse.up();
    await expect(step(page, 'Drawn path')).toBeVisible();
    await goTo(page, 144);
    const drawn = await picture(page);

    const anchors = page.getByRole('button', { name: /^Anchor \d+ of/ });
    const count = await anchors.count();
    expect(count).toBeGreaterThan(3);
    expect(count).toBeLessThan(30);
    const middle = anchors.nth(Math.floor(count / 2));
    const at = (await middle.boundingBox())!;
    await page.mouse.move(at.x + at.width / 2, at.y + at.height / 2);
    await page.mouse.down();
    await page.mouse.move(at.x - 60, at.y - 60, { steps: 6 });
    await page.mouse.up();
    await expect.poll(async () => (await picture(page)).equals(drawn)).toBe(false);

    // Half-way between two anchors on the line.
    const [a, b] = [(await anchors.nth(0).boundingBox())!, (await anchors.nth(1).boundingBox())!];
    await page.mouse.dblclick((a.x + b.x + a.width) / 2, (a.y + b.y + a.height) / 2);
    await expect(anchors).toHaveCount(count + 1);
    await anchors.nth(1).focus();
    await page.keyboard.press('Delete');
    await expect(anchors).toHaveCount(count);
  });

  test('on the ground a stroke lies at height 0', async ({ page }) => {
    await openEmpty(page);
    await page.getByRole('button', { name: 'Draw a path', exact: true }).click();
    await page.getByRole('button', { name: 'Ground', exact: true }).click();
    const layer = (await page.getByTestId('draw-layer').boundingBox())!;
    await page.mouse.move(layer.x + 300, layer.y + 460);
    await page.mouse.down();
    await page.mouse.move(layer.x + 600, layer.y + 480, { steps: 12 });
    await page.mouse.up();
    await saved(page);
    const [{ scene }] = await storedIn<{ scene: { growths: { steps: { params: { anchors: number[][] } }[] }[] } }>(
      page,
      'scenes',
    );
    const heights = scene.growths[0].steps[0].params.anchors.map((anchor) => anchor[1]);
    expect(heights.length).toBeGreaterThanOrEqual(2);
    for (const height of heights) expect(Math.abs(height)).toBeLessThan(1e-3);
  });
});

test('the panel, the list and the timeline are drawn larger, by hand and by keys, and stay so', async ({ page }) => {
  await openStarter(page);
  const panel = page.getByRole('complementary', { name: 'Growths and steps' });
  const width = async () => Math.round((await panel.boundingBox())!.width);
  const timeline = page.getByRole('region', { name: 'Timeline' });
  const height = async () => Math.round((await timeline.boundingBox())!.height);
  expect([await width(), await height()]).toEqual([356, 236]);
  await page.mouse.move(357, 600);
  await page.mouse.down();
  await page.mouse.move(387, 600, { steps: 3 });
  await page.mouse.up();
  expect(await width()).toBeGreaterThanOrEqual(384);
  const divider = page.getByRole('separator', { name: 'Height of the timeline' });
  await divider.press('ArrowUp');
  await divider.press('ArrowUp');
  expect(await height()).toBe(268);
  const list = page.getByRole('region', { name: 'Growths', exact: true });
  const before = (await list.boundingBox())!.height;
  await page.getByRole('separator', { name: 'Height of the list of growths' }).press('ArrowUp');
  expect((await list.boundingBox())!.height).toBeCloseTo(before - 16, 0);
  // As wide as leaves the timeline's bar its room, and no wider.
  await page.getByRole('separator', { name: 'Width of the growths and steps' }).press('End');
  expect(await width()).toBe(580);
  // The key is the divider's alone: it does not go to the last frame as well.
  await expect(canvas(page)).toHaveAttribute('data-frame', '1');
  const easing = page.getByRole('button', { name: 'Easing' });
  await expect
    .poll(async () => (await easing.boundingBox())!.x + (await easing.boundingBox())!.width)
    .toBeLessThan(1280);
  await page.reload();
  await expect(timeline).toBeVisible();
  expect([await width(), await height()]).toEqual([580, 268]);
  await divider.dblclick();
  expect(await height()).toBe(236);
});

test.describe('keeping', () => {
  test('a reload returns to the same scene, frame and view', async ({ page }) => {
    await openStarter(page);
    await goTo(page, 77);
    await openStep(page, 'Tube');
    await page.getByRole('button', { name: 'Paths', exact: true }).click();
    await setNumber(step(page, 'Tube').getByLabel('Sides', { exact: true }), '7');
    await page.mouse.move(800, 300);
    await page.mouse.down();
    await page.mouse.move(900, 330, { steps: 4 });
    await page.mouse.up();
    await saved(page);
    await viewKept(page, { frame: 77, overlay: expect.any(Boolean), eye: expect.anything() });
    await pictureAt(page, 77);
    const before = await picture(page);
    await expect.poll(async () => (await storedIn<{ picture: unknown }>(page, 'scenes'))[0].picture).not.toBeNull();
    // Until the first picture is drawn, the one that was kept stands in its place.
    const kept = page.getByRole('img', { name: 'The scene as it was last seen' });
    await page.reload({ waitUntil: 'commit' });
    await expect(kept).toBeVisible();
    await pictureAt(page, 77);
    await expect(kept).toHaveCount(0);
    await expect(step(page, 'Tube').getByLabel('Sides', { exact: true })).toHaveValue('7');
    await expect(page.getByRole('button', { name: 'Paths', exact: true })).toHaveAttribute('aria-pressed', 'true');
    await expect.poll(async () => (await picture(page)).equals(before)).toBe(true);
  });

  test('an engine that crashes is started again: the picture stays, the message names the step, work goes on', async ({
    page,
  }) => {
    await openStarter(page);
    await goTo(page, 30);
    await allReady(page);
    const before = await picture(page);
    const [worker] = page.workers();
    await worker.evaluate(() => self.close());
    const tube = await openStep(page, 'Tube');
    await setNumber(tube.getByLabel('Sides', { exact: true }), '8');
    // The frame is tried again by itself: where that is quick, the message stands for some frames only.
    await page.waitForFunction(
      () =>
        [...document.querySelectorAll('[role=alert]')].some((told) => told.textContent.includes('was started again')),
      null,
      { polling: 'raf', timeout: 60_000 },
    );
    expect((await picture(page)).length).toBeGreaterThan(0.5 * before.length);
    await goTo(page, 31);
    await expect(page.getByTestId('statistics')).toContainText('faces');
  });
});

/** Waits until what was let through has come and been drawn. */
async function arrived(page: Page, routes: readonly Route[]): Promise<void> {
  for (const route of routes) await (await route.request().response())?.finished();
  await page.evaluate(
    () => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(done)))),
  );
}

test('what has the focus in a row, and a menu that is asked for, stay when rows become such that can be dragged', async ({
  page,
}) => {
  const [sorting, later]: Route[][] = [[], []];
  let clicked = false;
  await page.route('**/_next/static/chunks/**', async (route) => {
    if (clicked) return void later.push(route);
    const response = await route.fetch();
    if ((await response.text()).includes('draggable item')) sorting.push(route);
    else await route.fulfill({ response });
  });
  await openStarter(page);
  await expect.poll(() => sorting.length).toBeGreaterThan(0);
  const part = (await openStep(page, 'Tube')).locator('[data-part]').last();
  await part.focus();
  for (const route of sorting) await route.continue();
  await arrived(page, sorting);
  await expect(part).toBeFocused();
  await expect(part).toHaveAttribute('aria-expanded', 'true');
  clicked = true;
  await page.getByRole('button', { name: 'More for Kelp frond', exact: true }).click();
  await arrived(page, []);
  clicked = false;
  for (const route of later) await route.continue();
  await expect(page.getByRole('menuitem', { name: 'Rename' })).toBeVisible();
  await page.keyboard.press('Escape');
  // They become so once nothing stands in the way.
  await page.getByRole('button', { name: 'Add a step' }).focus();
  await expect(page.locator('[aria-roledescription=sortable]').first()).toBeVisible();
});

test('the sheet of shortcuts opens under ?', async ({ page }) => {
  await openEmpty(page);
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('Frame everything');
});
