import { expect, type Page } from '@playwright/test';
import { Hands } from './hands';
import { allReady, canvas, goTo, openStep, picture, setNumber, step } from './helpers';
import { test } from './test';

/** Where the keys of a value stand, by their labels. */
const keyFrames = async (page: Page, label: string): Promise<number[]> => {
  const names = await page
    .getByRole('button', { name: new RegExp(`^Key of ${label} at frame`) })
    .evaluateAll((marks) => marks.map((mark) => mark.getAttribute('aria-label') ?? ''));
  return names.map((name) => Number(/frame (-?[\d.]+)/.exec(name)![1])).sort((a, b) => a - b);
};

/** A growth with two animated values: how far it has grown, from 1 to 115, and its radius, from 20 to 60. */
async function animated(page: Page): Promise<Hands> {
  const hands = new Hands(page);
  await hands.emptyScene('Timeline');
  await hands.newGrowth('line');
  const tube = await openStep(page, 'Tube');
  await goTo(page, 20);
  await tube.getByRole('button', { name: /^Radius: animate/ }).click();
  await goTo(page, 60);
  await setNumber(tube.getByLabel('Radius', { exact: true }), '0.2');
  await expect.poll(() => keyFrames(page, 'Tube, Radius')).toEqual([20, 60]);
  return hands;
}

test('a net over the rows takes keys, which are stretched, moved, copied, pasted and aligned', async ({
  page,
  context,
}) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await animated(page);
  const first = page.getByRole('button', { name: 'Key of Tube, Radius at frame 20' });
  const last = page.getByRole('button', { name: 'Key of Tube, Radius at frame 60' });
  const [a, b] = [(await first.boundingBox())!, (await last.boundingBox())!];
  await page.mouse.move(a.x - 12, Math.min(a.y, b.y) - 4);
  await page.mouse.down();
  await page.mouse.move(b.x + 14, Math.max(a.y, b.y) + 10, { steps: 6 });
  await page.mouse.up();
  await expect(first).toHaveAttribute('aria-pressed', 'true');
  await expect(last).toHaveAttribute('aria-pressed', 'true');

  await page.getByRole('button', { name: 'Stretch the chosen keys at their last' }).focus();
  await page.keyboard.press('Shift+ArrowRight');
  expect(await keyFrames(page, 'Tube, Radius')).toEqual([20, 70]);
  await page.getByRole('button', { name: 'Move the 2 chosen keys' }).focus();
  await page.keyboard.press('ArrowLeft');
  expect(await keyFrames(page, 'Tube, Radius')).toEqual([19, 69]);

  await page.locator('header').click();
  await page.keyboard.press('Control+c');
  await expect(page.getByText('Keys copied.')).toBeVisible();
  await goTo(page, 90);
  await page.locator('header').click();
  await page.keyboard.press('Control+v');
  await expect.poll(() => keyFrames(page, 'Tube, Radius')).toEqual([19, 69, 90, 140]);

  await page.keyboard.press('Control+a');
  await goTo(page, 5);
  await page.getByRole('button', { name: 'Align' }).click();
  expect((await keyFrames(page, 'Tube, Radius'))[0]).toBe(5);
  expect((await keyFrames(page, 'Grow, To'))[0]).toBe(5);
  await page.keyboard.press('Control+z');
  expect((await keyFrames(page, 'Tube, Radius'))[0]).toBe(19);
});

test('rows, easing handles and cycles by the keyboard alone', async ({ page }) => {
  await animated(page);
  await page.getByRole('button', { name: 'Row of Line' }).focus();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('button', { name: 'Row of Grow, To' })).toBeFocused();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Easing of 2' })).toBeEnabled();
  await goTo(page, 40);
  const before = await picture(page);
  await page.getByRole('button', { name: 'Easing of 2' }).click();
  const handle = page.getByRole('button', { name: 'Handle of this key' });
  await handle.focus();
  for (let i = 0; i < 4; i++) await page.keyboard.press('Shift+ArrowUp');
  await page.getByRole('combobox', { name: 'After the last key' }).click();
  await page.getByRole('option', { name: 'Repeat', exact: true }).click();
  await page.keyboard.press('Escape');
  await expect.poll(async () => (await picture(page)).equals(before)).toBe(false);
  // What a cycle makes of the value past its keys is drawn, broken.
  await expect(page.locator('polyline[data-past]').last()).toBeVisible();
});

test('markers are set, named, gone to; the timeline comes nearer and goes back', async ({ page }) => {
  await animated(page);
  await goTo(page, 33);
  await page.locator('header').click();
  await page.keyboard.press('i');
  const marker = page.getByRole('button', { name: 'Marker without a name at frame 33' });
  await marker.focus();
  await page.keyboard.press('Enter');
  await page.getByLabel('Name of the marker').fill('Lanterns lit');
  await page.keyboard.press('Enter');
  await goTo(page, 100);
  await page.getByRole('button', { name: 'Marker Lanterns lit at frame 33' }).click();
  await expect(page.getByLabel('Frame', { exact: true })).toHaveValue('033');

  const figures = () => page.getByTestId('ruler').locator('text').allTextContents();
  const all = await figures();
  const ruler = (await page.getByTestId('ruler').boundingBox())!;
  await page.mouse.move(ruler.x + 400, ruler.y + 60);
  await page.keyboard.down('Control');
  await page.mouse.wheel(0, -600);
  await page.keyboard.up('Control');
  await expect.poll(figures).not.toEqual(all);
  await page.locator('header').click();
  for (let i = 0; i < 6; i++) await page.keyboard.press('Shift+ArrowDown');
  await expect.poll(figures).toEqual(all);
});

test('ribs set the stagger', async ({ page }) => {
  const hands = await animated(page);
  await hands.addStep('Strands');
  await hands.set('Strands', { Arrangement: 'Row', Count: '8', Apart: '0.2' });
  await hands.set('Grow', { Stagger: '4' });
  const rib = page.getByRole('slider', { name: 'Stagger of Line, path 2' });
  await rib.focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect(step(page, 'Grow').getByLabel('Stagger', { exact: true })).toHaveValue('5');
});

test('a falloff is moved and keyed in the view, and acts at once; ghosts show the frames around', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Falloff');
  await hands.newGrowth('solid');
  await hands.set('Solid', { Radius: '0.06', Sides: '12' });
  await page.getByRole('button', { name: 'Hide Solid' }).click();
  await hands.newGrowth('line');
  await hands.deleteStep('Tube');
  await hands.deleteStep('Finish');
  await hands.addStep('Along the paths');
  await hands.set('Along the paths', { Item: 'Solid', 'Rise time': '0' });
  await hands.addStep('Falloff');
  await goTo(page, 100);
  await hands.set('Falloff', { 'Driven by': 'Ball', Radius: '0.4', Size: '250' });
  const middle = page.getByRole('button', { name: 'Middle of the falloff' });
  const before = await picture(page);
  const at = (await middle.boundingBox())!;
  await page.mouse.move(at.x + at.width / 2, at.y + at.height / 2);
  await page.mouse.down();
  await page.mouse.move(at.x + 40, at.y - 120, { steps: 6 });
  await page.mouse.up();
  await expect.poll(async () => (await picture(page)).equals(before)).toBe(false);
  expect(Number(await step(page, 'Falloff').getByLabel('Place Y', { exact: true }).inputValue())).toBeGreaterThan(1.1);
  await page.getByRole('button', { name: 'Set keys of the falloff here' }).click();
  await expect(page.getByRole('button', { name: 'Row of Falloff, Place X' })).toBeAttached();
  await expect(page.getByRole('button', { name: 'Take the keys of the falloff here' })).toBeVisible();

  await allReady(page);
  await goTo(page, 60);
  const alone = await picture(page);
  await page.getByRole('button', { name: 'Ghosts' }).click();
  await expect(canvas(page)).toHaveAttribute('data-rest', 'true');
  await page.getByRole('button', { name: /^Ghosts/ }).click();
  await expect.poll(async () => (await picture(page)).equals(alone)).toBe(false);
});

test('a guide is made a ball, moved and sized in the view, and a falloff weighs by it; letters are copied', async ({
  page,
}) => {
  const hands = new Hands(page);
  await hands.emptyScene('Guided');
  await hands.newGrowth('solid');
  await hands.set('Solid', { Shape: 'Letters', Text: 'b', Height: '0.2', Depth: '0.04' });
  await page.getByRole('button', { name: 'Hide Solid' }).click();
  await hands.newGrowth('line');
  await hands.deleteStep('Tube');
  await hands.deleteStep('Finish');
  await hands.addStep('Along the paths');
  await hands.set('Along the paths', { Item: 'Solid', 'Rise time': '0' });
  await hands.addStep('Falloff');
  await page.getByRole('button', { name: 'Scene, light and camera' }).click();
  await page.getByRole('button', { name: '+ Guide' }).click();
  const guide = page.getByRole('group', { name: 'Guide', exact: true });
  await guide.getByRole('combobox', { name: 'Kind' }).click();
  await page.getByRole('option', { name: 'Ball' }).click();
  await page.getByRole('region', { name: 'Growths' }).getByRole('button', { name: 'Line', exact: true }).click();
  await hands.set('Falloff', { 'Driven by': 'A guide', Guide: 'Guide', Size: '300', Softness: '0' });
  await goTo(page, 144);
  const before = await picture(page);

  await page.getByRole('button', { name: 'Scene, light and camera' }).click();
  const radius = guide.getByRole('textbox', { name: 'Radius', exact: true });
  await expect(radius).toHaveValue('0.5');
  const rim = (await page.getByRole('button', { name: 'Radius of Guide' }).boundingBox())!;
  await page.mouse.move(rim.x + rim.width / 2, rim.y + rim.height / 2);
  await page.mouse.down();
  await page.mouse.move(rim.x + 120, rim.y, { steps: 6 });
  await page.mouse.up();
  expect(Number(await radius.inputValue())).toBeGreaterThan(0.6);
  await page.getByRole('region', { name: 'Growths' }).getByRole('button', { name: 'Line', exact: true }).click();
  await expect.poll(async () => (await picture(page)).equals(before)).toBe(false);
});
