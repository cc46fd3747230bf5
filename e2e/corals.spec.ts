import { expect, type Page } from '@playwright/test';
import { Hands } from './hands';
import { canvas, goTo, openStep, pictureAt, step } from './helpers';
import { alike, test } from './test';

const statistics = 'statistics';

alike('fan coral, as its lesson says', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Fan coral');
  await hands.draw([
    [0.5, 0.8],
    [0.3, 0.55],
    [0.32, 0.25],
    [0.5, 0.15],
    [0.68, 0.25],
    [0.7, 0.55],
    [0.52, 0.78],
  ]);
  await hands.set('Drawn path', { Closed: true });
  await page.getByRole('button', { name: 'Hide Drawn path', exact: true }).click();
  await hands.newGrowth('space colonisation');
  await hands.set('Space colonisation', {
    'Places in': 'An outline',
    Growth: 'Drawn path',
    Depth: '0.14',
    Places: '500',
    Spread: 'Blue noise',
    Reach: '0.26',
    'Reached at': '0.06',
    'Segment length': '0.03',
    Thickness: '10',
  });
  await hands.set('Branch thickness', { Exponent: '3', 'Comes up over': '0.03' });
  await hands.set('Tube', { Radius: '0.006', Swell: '0.02' });
  await expect(step(page, 'Tube').getByRole('combobox', { name: 'Joints' })).toHaveText('Grown together');
  await goTo(page, 40);
  const young = await page.getByTestId(statistics).textContent();
  await goTo(page, 100);
  await expect(page.getByTestId(statistics)).not.toHaveText(young!);
  await expect(page.locator('aside [role=alert]')).toHaveCount(0);
});

alike('lettuce coral, as its lesson says; a ruffled line goes the same way', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Lettuce coral');
  await hands.newGrowth('frill');
  // It grows by a number of its own.
  await expect(step(page, 'Grow')).toHaveCount(0);
  await hands.set('Frill', {
    Base: 'A spiral',
    Radius: '0.36',
    Turns: '1.7',
    Height: '0.6',
    Rim: '4.6',
    'Near the rim': '1.7',
    Folds: '0.13',
    Opens: '24',
    'Segment length': '0.06',
  });
  await hands.set('Thicken', { Thickness: '0.011' });
  await hands.set('Finish', { 'Colour by': 'An attribute', Attribute: 'rim' });
  await goTo(page, 100);
  await expect(page.locator('aside [role=alert]')).toHaveCount(0);
  const faces = await page.getByTestId(statistics).textContent();
  // All of its points are there from the first.
  await goTo(page, 20);
  expect((await page.getByTestId(statistics).textContent())?.split(' ')[0]).toBe(faces?.split(' ')[0]);
  await hands.newGrowth('ruffled line');
  await goTo(page, 100);
  await expect(canvas(page)).toHaveAttribute('data-rest', 'true');
  await expect(page.locator('aside [role=alert]')).toHaveCount(0);
});

/** How many faces the statistics tell of. */
async function faces(page: Page): Promise<number> {
  const [, figure, thousands] = /([\d.,]+)(k?) faces/.exec((await page.getByTestId(statistics).textContent())!)!;
  return Number(figure.replace(',', '')) * (thousands ? 1000 : 1);
}

test('a frill that takes long is shown coarsely while a number of it is dragged, and whole when it rests', async ({
  page,
}) => {
  const hands = new Hands(page);
  await hands.emptyScene('Slow coral');
  await hands.newGrowth('frill');
  await hands.set('Frill', { 'Segment length': '0.024' });
  await goTo(page, 144);
  const told = page.getByTestId(statistics);
  const whole = await faces(page);
  const frill = await openStep(page, 'Frill');
  const label = frill.getByText('Radius', { exact: true });
  await label.scrollIntoViewIfNeeded();
  const at = (await label.boundingBox())!;
  await page.mouse.move(at.x + 10, at.y + 8);
  await page.mouse.down();
  await expect(async () => {
    for (const by of [12, 18, 15]) await page.mouse.move(at.x + 10 + by, at.y + 8);
    await expect(told).toContainText('coarse while it changes', { timeout: 2000 });
  }).toPass({ timeout: 60_000 });
  const coarse = await faces(page);
  expect(coarse).toBeLessThan(whole / 2);
  await expect(canvas(page)).toHaveAttribute('data-rest', 'false');
  await page.mouse.up();
  await pictureAt(page, 144);
  await expect(told).not.toContainText('coarse');
  expect(await faces(page)).toBeGreaterThan(2 * coarse);
});
