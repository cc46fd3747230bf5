import { expect } from '@playwright/test';
import { Hands } from './hands';
import { canvas } from './helpers';
import { test } from './test';

test('a hundred thousand copies: looked around at once by stand-ins, then completed without holding the page', async ({
  page,
}) => {
  test.slow();
  const hands = new Hands(page);
  await hands.emptyScene('Many');
  await hands.newGrowth('solid');
  await hands.set('Solid', { Shape: 'Box', Width: '0.01', Height: '0.01', Depth: '0.01' });
  await page.getByRole('button', { name: 'Hide Solid' }).click();
  await hands.newGrowth('phyllotaxis');
  await hands.addStep('On the points');
  await hands.set('On the points', { Item: 'Solid' });
  await hands.set('Phyllotaxis', { Count: '100000' });
  await expect(page.getByTestId('statistics')).toContainText('100.0k copies', { timeout: 60_000 });
  await expect(canvas(page)).toHaveAttribute('data-complete', '100', { timeout: 120_000 });

  // While the view is turned every picture is whole: nothing of it is left for later.
  const box = (await canvas(page).boundingBox())!;
  await page.mouse.move(box.x + 300, box.y + 200);
  await page.mouse.down();
  for (let i = 1; i <= 8; i++) {
    await page.mouse.move(box.x + 300 + 12 * i, box.y + 200);
    await expect(canvas(page)).toHaveAttribute('data-complete', '100');
  }
  await page.mouse.up();
  // At rest it is completed bit by bit, and says how far it is.
  await expect(page.getByTestId('statistics')).toContainText('drawing,', { timeout: 20_000 });
  // The page answers meanwhile, and what is asked for comes first.
  await page.getByRole('button', { name: 'Paths', exact: true }).click();
  await expect(canvas(page)).toHaveAttribute('data-complete', '100');
  await page.getByRole('button', { name: 'Finished', exact: true }).click();
  await expect(page.getByTestId('statistics')).not.toContainText('drawing,', { timeout: 120_000 });
  await expect(canvas(page)).toHaveAttribute('data-complete', '100', { timeout: 120_000 });
});
