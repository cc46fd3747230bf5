import { expect, type Page } from '@playwright/test';
import { Hands } from './hands';
import { canvas, copies, openStep, step } from './helpers';
import { test } from './test';

const point = (page: Page, number: number) => page.getByRole('button', { name: new RegExp(`^Point ${number} of `) });
const rows = (page: Page): Promise<string[]> =>
  step(page, 'Placed points')
    .getByLabel(/^Point \d+$/)
    .evaluateAll((fields) => fields.map((field) => (field as HTMLInputElement).value));
const middle = async (page: Page, name: RegExp): Promise<{ x: number; y: number }> => {
  const box = (await page.getByRole('button', { name }).boundingBox())!;
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
};

test('points are put down by clicks, moved, hung on another parent by dragging, sized, told apart and deleted', async ({
  page,
}) => {
  const hands = new Hands(page);
  await hands.emptyScene('Nodes');
  await hands.newGrowth('placed points');
  await openStep(page, 'Placed points');
  await expect(point(page, 5)).toBeVisible();

  await step(page, 'Placed points').getByRole('button', { name: 'Place', exact: true }).click();
  const view = (await canvas(page).boundingBox())!;
  await page.mouse.click(view.x + 0.3 * view.width, view.y + 0.35 * view.height);
  await expect(point(page, 6)).toBeVisible();
  await page.mouse.click(view.x + 0.25 * view.width, view.y + 0.3 * view.height);
  await expect(point(page, 7)).toBeVisible();
  // Each grows from the one before.
  expect((await rows(page)).slice(5).map((row) => row.split(' ')[3])).toEqual(['5', '6']);
  // Where it was clicked it stands.
  const seventh = await middle(page, /^Point 7 of/);
  expect(Math.hypot(seventh.x - view.x - 0.25 * view.width, seventh.y - view.y - 0.3 * view.height)).toBeLessThan(2);
  await page.keyboard.press('Escape');

  // Its square, dragged onto the third, makes that its parent; onto what grows from it, nothing.
  const drag = async (from: RegExp, to: RegExp): Promise<void> => {
    const [start, end] = [await middle(page, from), await middle(page, to)];
    await page.mouse.move(start.x, start.y);
    await page.mouse.down();
    await page.mouse.move((start.x + end.x) / 2, (start.y + end.y) / 2, { steps: 4 });
    await page.mouse.move(end.x, end.y, { steps: 4 });
    await page.mouse.up();
  };
  await drag(/^Parent of point 7:/, /^Point 3 of/);
  await expect(page.getByRole('button', { name: 'Parent of point 7: point 3' })).toBeVisible();
  await drag(/^Parent of point 3:/, /^Point 7 of/);
  await expect(page.getByText('Point 3 cannot grow from what grows from it.')).toBeVisible();

  const before = (await rows(page))[2];
  const third = await middle(page, /^Point 3 of/);
  await page.mouse.move(third.x, third.y);
  await page.mouse.down();
  await page.mouse.move(third.x - 40, third.y + 25, { steps: 4 });
  await page.mouse.up();
  await expect.poll(async () => (await rows(page))[2]).not.toBe(before);
  expect((await rows(page))[2].split(' ').slice(3)).toEqual(before.split(' ').slice(3));

  await point(page, 7).focus();
  await page.keyboard.press('+');
  await page.keyboard.press('4');
  await expect.poll(async () => (await rows(page))[6].split(' ').slice(3)).toEqual(['3', '1.1', '4']);
  await point(page, 3).focus();
  await page.keyboard.press('Delete');
  await expect(point(page, 7)).toHaveCount(0);
  // What grew from it grows from its parent.
  expect((await rows(page))[5].split(' ').slice(3)).toEqual(['2', '1.1', '4']);

  await hands.addStep('On the points');
  await expect.poll(() => copies(page)).toBe(6);
  await expect(page.locator('aside [role=alert]')).toHaveCount(0);
});
