import { expect } from '@playwright/test';
import { Hands } from './hands';
import { copies, goTo } from './helpers';
import { alike, test } from './test';

/** A rock that barnacles stand on, and what one is made of. */
async function barnacles(hands: Hands): Promise<void> {
  const { page } = hands;
  await hands.newGrowth('solid');
  await hands.set('Solid', { Shape: 'Cone', Radius: '0.05', Height: '0.08' });
  await page.getByRole('button', { name: 'Hide Solid' }).click();
  await hands.newGrowth('solid');
  await hands.set('Solid', { Radius: '0.7', Sides: '96' });
  await hands.addStep('Noise');
  await hands.set('Noise', { Amount: '0.3', Size: '0.8', Evolution: '0', 'Hold base': '0' });
  await hands.addStep('Scatter');
  await hands.addStep('On the points');
  await hands.set('On the points', { Item: 'Solid', 'Vary size': '60' });
}

test('barnacles on a rock: more of them move none, by distance there are as many as there is room for', async ({
  page,
}) => {
  const hands = new Hands(page);
  await hands.emptyScene('Barnacles');
  await barnacles(hands);
  await goTo(page, 1);
  expect(await copies(page)).toBe(200);
  await hands.set('Scatter', { Count: '= 500 * clamp((frame - 1) / 100, 0, 1)' });
  await goTo(page, 51);
  expect(await copies(page)).toBe(250);
  await goTo(page, 101);
  expect(await copies(page)).toBe(500);
  await hands.set('Scatter', { Places: 'By distance', Distance: '0.12' });
  await goTo(page, 100);
  const all = await copies(page);
  expect(all).toBeGreaterThan(200);
  // Only where the rock looks up.
  await hands.set('Scatter', { 'To slope': '60' });
  await goTo(page, 99);
  await expect.poll(() => copies(page)).toBeLessThan(all / 2);
  expect(await copies(page)).toBeGreaterThan(30);
});

alike('barnacle rock, as its lesson says', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Barnacle rock');
  await hands.newGrowth('line');
  await hands.set('Line', { 'To Y': '0.075', Points: '5' });
  await hands.deleteStep('Tube');
  await hands.deleteStep('Finish');
  await hands.addStep('Sweep');
  await hands.set('Sweep', { Radius: '0.05', Profile: 'Star', Corners: '9', Notch: '80', 'Hard edges': false });
  await hands.addStep('Finish');
  await goTo(page, 144);
  await page.getByRole('button', { name: 'Hide Line' }).click();
  await hands.newGrowth('rock');
  await hands.set('Rock', { Width: '1.8', Height: '1.3' });
  await hands.addStep('Scatter');
  await hands.set('Scatter', { Count: '760', 'Density by': 'Slope', 'From height': '30', Upright: '10' });
  await hands.addStep('On the points');
  await hands.set('On the points', { Item: 'Line', 'Vary size': '74', 'Vary turn': '180', 'Vary lean': '12' });
  await hands.addStep('Falloff');
  await hands.set('Falloff', { 'Driven by': 'Ball', 'Place X': '-0.85', 'Place Y': '0.55', 'Place Z': '0.5' });
  await hands.set('Falloff', { Radius: '= 2.05 * clamp((frame - 6) / 120, 0, 1)', Softness: '0.5', Ease: 'back out' });
  await hands.set('Falloff', { Invert: true, Changes: 'Size', Size: '0' });
  await goTo(page, 84);
  await expect(page.locator('aside [role=alert]')).toHaveCount(0);
  expect(await copies(page)).toBe(760);
});
