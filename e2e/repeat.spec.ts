import { expect, type Page } from '@playwright/test';
import { Hands } from './hands';
import { copies, drop, goTo } from './helpers';
import { test } from './test';

/** How many points there are, by the corner of the view. */
const points = async (page: Page): Promise<number> => {
  const text = await page.getByTestId('statistics').innerText();
  const [, number, thousand] = /([\d.,]+)(k?) points/.exec(text)!;
  return Math.round(Number(number.replaceAll(',', '')) * (thousand ? 1000 : 1));
};
const sound = (page: Page): Promise<void> => expect(page.locator('aside [role=alert]')).toHaveCount(0);

test('a path is mirrored and repeated in a circle, each copy later; a second skin is told, and the first switched off', async ({
  page,
}) => {
  const hands = new Hands(page);
  await hands.emptyScene('Repeats');
  await hands.newGrowth('line');
  await hands.set('Line', { 'From X': '0.4', 'To X': '0.9', Points: '50' });
  await goTo(page, 144);
  await expect.poll(() => points(page)).toBe(50);
  await hands.addStep('Mirror');
  await expect.poll(() => points(page)).toBe(100);
  await hands.addStep('Array');
  await hands.set('Array', { Arrangement: 'Circle', Count: '4', Delay: '6' });
  await expect.poll(() => points(page)).toBe(400);
  await hands.addStep('Lathe');
  await page.getByRole('alert').getByRole('button', { name: 'Switch Tube off' }).click();
  await expect(page.getByRole('button', { name: 'Switch Tube on' })).toBeVisible();
  await hands.set('Lathe', { 'Angle To': '90' });
  await sound(page);
});

test('a form bends along a path, trails are drawn by its tip, and its inside is filled', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Bends');
  await hands.newGrowth('arc');
  await hands.newGrowth('line');
  await hands.addStep('Follow path');
  await hands.set('Follow path', { Path: 'Arc', Start: '= frame / 3' });
  await sound(page);
  await hands.newGrowth('trail');
  await hands.set('Trail', { Growth: 'Line', Length: '12', 'Points between': '1' });
  await goTo(page, 60);
  await sound(page);
  await hands.newGrowth('solid');
  await hands.newGrowth('points in a volume');
  await goTo(page, 60);
  await hands.set('Points in a volume', { In: 'A form', Growth: 'Solid', Count: '120' });
  await hands.addStep('On the points');
  await expect.poll(() => copies(page)).toBe(120);
  await sound(page);
});

test('a table that is chosen is reloaded when its file changes on disk', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Watched');
  // The browser's own chooser cannot be driven; a file of the page's own file system stands for one of the machine.
  const write = (text: string): Promise<void> =>
    page.evaluate(async (content) => {
      const folder = await navigator.storage.getDirectory();
      const handle = await folder.getFileHandle('tides.csv', { create: true });
      const stream = await handle.createWritable();
      await stream.write(content);
      await stream.close();
      Object.assign(window, { showOpenFilePicker: async () => [handle] });
    }, text);
  await write('hour;tide\n0;1\n1;2\n');
  await hands.newGrowth('lines from a table');
  await hands.set('Lines from a table', { Points: '10' });
  await hands.set('Lines from a table', { Table: 'Load a table file…' });
  await expect(page.getByText('Reloads when it changes')).toBeVisible();
  await expect.poll(() => points(page)).toBe(20);
  await write('hour;tide\n0;1\n1;2\n2;4\n3;1\n');
  await expect.poll(() => points(page)).toBe(40);
  await expect(page.getByText('“tides.csv” has changed and was reloaded.')).toBeVisible();
  await sound(page);
});

test('a table that is dropped becomes lines; one that holds no numbers says so', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Tables');
  await drop(page, 'tides.csv', 'hour;tide\n0;1,5\n1;2,5\n2;-0,5\n');
  await expect(page.getByText('“tides.csv” is in the scene.')).toBeVisible();
  await hands.set('Lines from a table', { Column: 'tide', Points: '10' });
  await expect.poll(() => points(page)).toBe(30);
  await sound(page);
  await drop(page, 'words.csv', 'a;b\nc;d\n');
  await expect(page.locator('aside [role=alert]').getByText('The table holds no numbers.')).toBeVisible();
});
