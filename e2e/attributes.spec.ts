import { expect, type Page } from '@playwright/test';
import { Hands } from './hands';
import { canvas, copies, goTo, openStep, picture, pictureAt, step } from './helpers';
import { alike, test } from './test';

const middle = async (page: Page): Promise<{ x: number; y: number; width: number; height: number }> =>
  (await canvas(page).boundingBox())!;

/** Drags over the canvas, between places given as shares of it, and takes it back with Escape where that is wanted. */
async function drag(
  page: Page,
  from: readonly [number, number],
  to: readonly [number, number],
  takenBack = false,
): Promise<void> {
  const box = await middle(page);
  await page.mouse.move(box.x + from[0] * box.width, box.y + from[1] * box.height);
  await page.mouse.down();
  await page.mouse.move(box.x + to[0] * box.width, box.y + to[1] * box.height, { steps: 8 });
  if (takenBack) await page.keyboard.press('Escape');
  await page.mouse.up();
  // Off the form: the brush is not to be in the picture.
  await page.mouse.move(box.x + 4, box.y + box.height / 2);
}

test('a mask is painted, erased, filled and inverted; each stroke is one entry of undo, and it is there after a reload', async ({
  page,
}) => {
  const hands = new Hands(page);
  await hands.emptyScene('Painted');
  await hands.newGrowth('solid');
  await hands.set('Solid', { Shape: 'Ball', Radius: '0.8' });
  await page.getByRole('button', { name: 'See all', exact: true }).click();
  await hands.addStep('Mask');
  const mask = step(page, 'Mask');
  await mask.getByRole('button', { name: 'Paint on the form' }).click();
  await expect(page.getByTestId('legend')).toBeVisible();
  await pictureAt(page, 1);
  const bare = await picture(page);
  await drag(page, [0.47, 0.5], [0.53, 0.5], true);
  await expect(mask).toContainText('Nothing is painted yet');
  await pictureAt(page, 1);
  expect((await picture(page)).equals(bare)).toBe(true);
  await drag(page, [0.47, 0.5], [0.53, 0.5]);
  await expect(mask).toContainText('1 stroke');
  await pictureAt(page, 1);
  const painted = await picture(page);
  expect(painted.equals(bare)).toBe(false);
  // Beside the form the view is turned, and nothing is painted.
  await drag(page, [0.05, 0.2], [0.08, 0.2]);
  await expect(mask).toContainText('1 stroke.');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(mask).toContainText('Nothing is painted yet');
  await page.getByRole('button', { name: 'Redo', exact: true }).click();
  await expect(mask).toContainText('1 stroke.');
  await mask.getByRole('combobox', { name: 'Brush' }).click();
  await page.getByRole('option', { name: 'Erase' }).click();
  await hands.closed();
  await drag(page, [0.47, 0.5], [0.53, 0.5]);
  await expect(mask).toContainText('2 strokes.');
  await mask.getByRole('button', { name: 'Invert' }).click();
  await expect(mask).toContainText('3 strokes.');
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('legend')).toHaveCount(0);
  await expect(page.getByText('Saved on this device')).toBeVisible();
  await page.reload();
  await openStep(page, 'Mask');
  await expect(mask).toContainText('3 strokes.');
});

test('the table lists what every element knows: sorted, marked in the view, shown as colours', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Told');
  await hands.newGrowth('line');
  await hands.deleteStep('Grow');
  await hands.addStep('Measure');
  await hands.set('Measure', { Scale: 'As measured', 'Attribute name': 'rise' });
  await goTo(page, 1);
  const plain = await picture(page);
  await page.keyboard.press('t');
  const table = page.getByRole('region', { name: 'Attributes' });
  await expect(table.getByRole('tab', { name: /^Vertices/ })).toBeVisible();
  const head = table.getByRole('columnheader', { name: /^rise/ });
  await expect(head).toContainText('0 to');
  await expect(head).toContainText('mean');
  const first = table.getByRole('row').nth(1).getByRole('gridcell').nth(1);
  await head.click();
  await expect(first).toHaveText('0');
  await head.click();
  await expect(first).not.toHaveText('0');
  await table.getByRole('row').nth(1).click();
  await expect(page.getByRole('img', { name: 'Places found by the checks' })).toBeVisible();
  await table.getByRole('combobox', { name: 'Show as colours' }).click();
  await page.getByRole('option', { name: 'rise', exact: true }).click();
  await hands.closed();
  await expect(page.getByTestId('legend')).toContainText('rise');
  await table.getByRole('tab', { name: /^Points of paths/ }).click();
  await expect(table.getByRole('columnheader', { name: /^Distance from base/ })).toBeVisible();
  await page.getByRole('button', { name: 'Close the table' }).click();
  await pictureAt(page, 1);
  expect((await picture(page)).equals(plain)).toBe(false);
  await page.getByRole('button', { name: "Show the growth's own colours" }).click();
  await expect(page.getByTestId('legend')).toHaveCount(0);
});

test('faces know what is measured on them: a sheet of their own, and one colour each', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Faceted');
  await hands.newGrowth('solid');
  await hands.set('Solid', { Shape: 'Box' });
  await hands.addStep('Measure');
  await hands.set('Measure', { Quantity: 'Area of faces', 'On skins': 'On faces', Scale: 'As measured' });
  await page.keyboard.press('t');
  const table = page.getByRole('region', { name: 'Attributes' });
  // A box has six sides of two faces each.
  await table.getByRole('tab', { name: 'Faces 12', exact: true }).click();
  await expect(table.getByRole('columnheader', { name: /^Area of faces/ })).toContainText('mean');
  await pictureAt(page, 1);
  const plain = await picture(page);
  await table.getByRole('combobox', { name: 'Show as colours' }).click();
  await page.getByRole('option', { name: 'Area of faces', exact: true }).click();
  await hands.closed();
  await expect(page.getByTestId('legend')).toContainText('Area of faces');
  await pictureAt(page, 1);
  expect((await picture(page)).equals(plain)).toBe(false);
});

alike('sea fern, as its lesson says', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Branches');
  await hands.newGrowth('branching rules');
  const rules = await openStep(page, 'Branching rules');
  await rules.getByRole('button', { name: 'Begin from a preset' }).click();
  await page.locator('.MuiPopover-root').getByRole('button', { name: 'Sea fern' }).click();
  await hands.closed();
  await expect(rules.getByRole('note')).toContainText('symbols');
  await hands.set('Branching rules', { 'Thickness ratio': '100' });
  await hands.addStep('Branch thickness');
  await hands.set('Branch thickness', { Tips: '16', 'Comes up over': '0.1', 'Flares over': '0.05' });
  await hands.deleteStep('Wire');
  await hands.addStep('Tube');
  await hands.set('Tube', { Radius: '0.05', Sides: '8', Joints: 'Grown together' });
  await goTo(page, 60);
  const young = await page.getByTestId('statistics').textContent();
  await goTo(page, 128);
  await expect(page.getByTestId('statistics')).not.toHaveText(young!);
  await expect(page.locator('aside [role=alert]')).toHaveCount(0);
});

test('rules stand in rows; what is wrong in one is told with its line and column', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Branches');
  await hands.newGrowth('branching rules');
  const rules = await openStep(page, 'Branching rules');
  // Enter begins another row, what is wrong is marked in its own, and a row goes away by its button.
  const own = rules.getByRole('group', { name: 'Rules' });
  await expect(own.getByRole('textbox').first()).toBeVisible();
  const before = await own.getByRole('textbox').count();
  await own.getByRole('textbox', { name: `Rule ${before}`, exact: true }).press('End');
  await page.keyboard.press('Enter');
  const added = `Rule ${before + 1}`;
  await expect(own.getByRole('textbox', { name: added, exact: true })).toBeFocused();
  await page.keyboard.type('D(x) -> F(x)[+A(x / 2)');
  await expect(page.locator('aside').getByRole('alert')).toContainText(`line ${before + 1}, column 13`);
  await expect(own.getByRole('textbox', { name: added, exact: true })).toHaveAttribute('aria-invalid', 'true');
  await expect(own.getByRole('textbox', { name: 'Rule 1' })).not.toHaveAttribute('aria-invalid', 'true');
  await own.getByRole('button', { name: `Delete rule ${before + 1}` }).click();
  await expect(own.getByRole('textbox')).toHaveCount(before);
  await expect(page.locator('aside').getByRole('alert')).toHaveCount(0);
});

alike('lantern vine, as its lesson says', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Lantern vine');
  await hands.newGrowth('blade');
  await hands.set('Blade', { Length: '0.2', Width: '0.08' });
  await page.getByRole('button', { name: 'Hide Blade', exact: true }).click();
  await hands.newGrowth('line');
  await hands.set('Line', { 'To Y': '2.3' });
  await hands.deleteStep('Grow');
  await hands.set('Tube', { Radius: '0.1', Swell: '0' });
  await hands.newGrowth('twining tendrils');
  await expect(
    (await openStep(page, 'Twining tendrils')).getByRole('combobox', { name: 'Around', exact: true }),
  ).toHaveText('Line');
  await hands.set('Twining tendrils', { Pitch: '0.6' });
  await hands.set('Tube', { Radius: '0.02' });
  await hands.addStep('Feeling tips');
  await hands.addStep('Along the paths');
  await hands.set('Along the paths', { Item: 'Blade', Spacing: 'By count', Count: '18', Turns: '+137.5', Lean: '58' });
  await hands.addStep('Time offset');
  await goTo(page, 60);
  await expect(page.locator('aside [role=alert]')).toHaveCount(0);
  const young = await copies(page);
  expect(young).toBeGreaterThan(4);
  await goTo(page, 130);
  expect(await copies(page)).toBe(36);
});

alike('plankton web, as its lesson says', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Plankton web');
  await hands.newGrowth('solid');
  await hands.set('Solid', { Radius: '0.05', Sides: '20' });
  await page.getByRole('button', { name: 'Hide Solid', exact: true }).click();
  await hands.newGrowth('web');
  await expect(step(page, 'Grow')).toHaveCount(0);
  await hands.set('Web', { Count: '70', 'Maximum length': '0.9', 'Hub Y': '1.2', Drift: '0.12', Shape: 'Curved' });
  await hands.addStep('On the points');
  await hands.set('On the points', { Item: 'Solid', 'Vary size': '50' });
  await goTo(page, 50);
  await expect(page.locator('aside [role=alert]')).toHaveCount(0);
  const young = await copies(page);
  expect(young).toBeGreaterThan(0);
  expect(young).toBeLessThan(70);
  await goTo(page, 140);
  expect(await copies(page)).toBe(70);
});
