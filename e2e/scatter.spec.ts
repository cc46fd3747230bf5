import { expect, test } from '@playwright/test';
import { Hands } from './hands';
import { copies, goTo } from './helpers';

/** A rock that barnacles stand on, and what one is made of. */
async function barnacles(hands: Hands): Promise<void> {
  const { page } = hands;
  await hands.newGrowth('solid');
  await hands.set('Solid', { Which: 'Cone', Radius: '0.05', Height: '0.08' });
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
  if (process.env.LOOK) await page.screenshot({ path: process.env.LOOK });
});
