import { expect, type Page } from '@playwright/test';
import { Hands } from './hands';
import { canvas, copies, drop, goTo, openStep, picture, step } from './helpers';
import { alike, test } from './test';

/** Puts a place on the form, at a share of the view. */
async function place(hands: Hands, x: number, y: number): Promise<void> {
  const { page } = hands;
  await step(page, 'Front').getByRole('button', { name: 'Place', exact: true }).click();
  const layer = page.getByTestId('place-layer');
  const box = (await layer.boundingBox())!;
  await layer.click({ position: { x: x * box.width, y: y * box.height } });
  await step(page, 'Front').getByRole('button', { name: 'Done' }).click();
}

/** Paints a stroke on the form, through points given as shares of the view. */
async function stroke(hands: Hands, points: readonly (readonly [number, number])[]): Promise<void> {
  const { page } = hands;
  await step(page, 'Mask').getByRole('button', { name: 'Paint on the form' }).click();
  await expect(page.getByTestId('legend')).toContainText('0.5');
  const box = (await canvas(page).boundingBox())!;
  const at = ([x, y]: readonly [number, number]): [number, number] => [box.x + x * box.width, box.y + y * box.height];
  await page.mouse.move(...at(points[0]));
  await page.mouse.down();
  for (const point of points.slice(1)) await page.mouse.move(...at(point), { steps: 8 });
  await page.mouse.up();
  await step(page, 'Mask').getByRole('button', { name: 'Done' }).click();
}

const hide = (page: Page, name: string): Promise<void> =>
  page.getByRole('button', { name: `Hide ${name}`, exact: true }).click();

const faces = async (page: Page): Promise<number> => {
  const text = await page
    .getByText(/[\d.,]+k? faces/)
    .first()
    .innerText();
  const [, figure, thousands] = /([\d.,]+)(k?) faces/.exec(text)!;
  return Number(figure.replaceAll(',', '')) * (thousands ? 1000 : 1);
};

const fine = (page: Page): Promise<void> => expect(page.locator('aside [role=alert]')).toHaveCount(0);

alike('wreck reveal, as its lesson says', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Wreck reveal');
  await hands.newGrowth('form');
  await hands.set('Form', { File: 'Propeller', Size: '2' });
  await page.getByRole('button', { name: 'See all', exact: true }).click();
  await hands.addStep('Front');
  await hands.set('Front', { 'Starts from': 'At clicked places' });
  await place(hands, 0.5, 0.5);
  await expect(step(page, 'Front').getByText('1 place: drag them')).toBeVisible();
  await hands.still('Front', 'Reach');
  await hands.set('Front', { Reach: '= 4 * clamp((frame - 4) / 120, 0, 1)', 'Rough edge': '0.06' });
  await hide(page, 'Form');
  await hands.newGrowth('cell wire');
  await hands.deleteStep('Grow');
  await hands.set('Cell wire', { Cell: '0.08' });
  await hands.addStep('Reveal');
  await hands.set('Reveal', { 'Visible length': '0.62', 'Soft tips': '0.16' });
  await hands.set('Wire', { Radius: '0.003' });
  await hands.set('Finish', { Glow: '0' });
  await page
    .getByRole('button', { name: /^Form$/ })
    .first()
    .click();
  await hands.newGrowth('skin of a growth');
  await hands.addStep('Reveal');
  await hands.set('Reveal', {
    Behind: '0.34',
    Dissolve: '0.26',
    Grain: '0.07',
    'Edge glow': '300',
    'Glow width': '0.035',
  });
  await goTo(page, 60);
  await fine(page);
  const half = await faces(page);
  await goTo(page, 128);
  // All of the metal is there, and none of the wire.
  await expect.poll(() => faces(page)).toBe(19_000);
  expect(half).not.toBe(19_000);
  await goTo(page, 1);
  await fine(page);
});

alike('barnacle spread, as its lesson says', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Barnacle spread');
  await hands.newGrowth('solid');
  await hands.set('Solid', { Shape: 'Cone', Radius: '0.05', Height: '0.08', Sides: '8' });
  await hide(page, 'Solid');
  await hands.newGrowth('form');
  await hands.set('Form', { Size: '2.1' });
  await page.getByRole('button', { name: 'See all', exact: true }).click();
  await hands.addStep('Mask');
  await hands.set('Mask', { 'Attribute name': 'bare' });
  await stroke(hands, [
    [0.5, 0.5],
    [0.56, 0.56],
    [0.6, 0.5],
  ]);
  await hands.addStep('Front');
  await hands.set('Front', { 'Starts from': 'At clicked places' });
  await place(hands, 0.45, 0.55);
  await hands.still('Front', 'Reach');
  await hands.set('Front', { Reach: '= 3 * clamp((frame - 8) / 90, 0, 1)', 'Soft edge': '0.3', 'Slowed by': 'bare' });
  await hands.addStep('Displace');
  await hands.set('Displace', { Noise: '0' });
  const displace = await openStep(page, 'Displace');
  await displace.getByRole('button', { name: /^Amount: vary/ }).click();
  await displace.getByRole('combobox', { name: 'Varies' }).click();
  await page.getByRole('option', { name: 'By an attribute' }).click();
  await hands.closed();
  await displace.getByRole('combobox', { name: 'Attribute' }).click();
  await page.getByRole('option', { name: 'Front', exact: true }).click();
  await hands.closed();
  await hands.addStep('Scatter');
  await hands.set('Scatter', { Places: 'By distance', Distance: '0.14' });
  await hands.addStep('On the points');
  await hands.set('On the points', { Item: 'Solid', 'Vary size': '70' });
  await hands.addStep('Falloff');
  await hands.set('Falloff', { 'Driven by': 'An attribute', Attribute: 'Front', Invert: true });
  await goTo(page, 100);
  await fine(page);
  expect(await copies(page)).toBeGreaterThan(100);
  const grown = await picture(page);
  await goTo(page, 2);
  expect((await picture(page)).equals(grown)).toBe(false);
});

alike('kelp forest, as its lesson says', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Kelp forest');
  await hands.newGrowth('line');
  await hands.set('Line', { 'From Y': '0', 'To Y': '1.6', Points: '9' });
  await hands.addStep('Noise');
  await hands.set('Noise', { Amount: '0.12', Size: '1.2', Detail: '1' });
  await hands.deleteStep('Tube');
  await hands.addStep('Ribbon');
  await hands.set('Ribbon', { 'Half width': '0.03' });
  await hide(page, 'Line');
  await hands.newGrowth('terrain');
  await hands.set('Terrain', { Width: '8', Depth: '7', Relief: '0.7' });
  await hands.addStep('Scatter');
  await hands.set('Scatter', {
    Places: 'By distance',
    Distance: '0.55',
    'To slope': '45',
    Upright: '100',
    Sink: '0.02',
  });
  await hands.addStep('On the points');
  await hands.set('On the points', { Item: 'Line', 'Vary size': '40', 'Vary turn': '180' });
  await hands.addStep('Clearance');
  await hands.addStep('Time offset');
  await hands.set('Time offset', { 'Later by': 'Its distance', Seconds: '0.4' });
  await goTo(page, 100);
  await fine(page);
  expect(await copies(page)).toBeGreaterThan(90);
});

alike('overgrown figurehead, as its lesson says', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Overgrown figurehead');
  for (const [radius, height] of [
    ['0.012', '0.05'],
    ['0.02', '0.02'],
  ]) {
    await hands.newGrowth('solid');
    await hands.set('Solid', { Shape: 'Cone', Radius: radius, Height: height, Sides: '6' });
    await hide(page, radius === '0.012' ? 'Solid' : 'Solid 2');
  }
  await hands.newGrowth('form');
  await hands.set('Form', { File: 'Figurehead', Size: '2' });
  await hands.addStep('Front');
  await hands.set('Front', {
    'Starts from': 'At the top',
    Spreads: 'Straight',
    'Soft edge': '0.3',
    'Rough edge': '0.15',
  });
  await hands.addStep('Scatter');
  await hands.addStep('On the points');
  await hands.set('On the points', {
    Item: 'Solid',
    'Second item': 'Solid 2',
    Mix: 'By odds',
    Odds: '3 1',
    'Vary size': '60',
  });
  await hands.addStep('Falloff');
  await hands.set('Falloff', { Invert: true });
  await hands.set('Scatter', { Count: '4000' });
  await goTo(page, 90);
  await fine(page);
  expect(await copies(page)).toBe(4000);
});

test('a form that is dropped into the view stands in the scene; one that is damaged says what is wrong', async ({
  page,
}) => {
  const hands = new Hands(page);
  await hands.emptyScene('Dropped');
  await drop(page, 'buoy.obj', 'v 0 0 0\nv 1 0 0\nv 0 1 0\nv 0 0 1\nf 1 3 2\nf 1 2 4\nf 2 3 4\nf 1 4 3\n');
  await expect(page.getByText('“buoy.obj” is in the scene.')).toBeVisible();
  await expect(canvas(page)).toHaveAttribute('data-rest', 'true');
  expect(await faces(page)).toBe(4);
  await expect((await openStep(page, 'Form')).getByRole('combobox', { name: 'File' })).toHaveText('buoy.obj');
  await drop(page, 'torn.obj', 'v 0 0 0\nf 1 2 3\n');
  await expect(page.getByText('line 2: there is no corner 2').first()).toBeVisible();
  await drop(page, 'notes.txt', 'kelp');
  await expect(page.getByText('“notes.txt” begins no growth.')).toBeVisible();
});
