import { expect, type Page } from '@playwright/test';
import { canvas, openEmpty, openStarter, openStep, saved, setNumber, step } from './helpers';
import { test } from './test';

/** Draws a stroke over the view, from a share of its size to another. */
async function stroke(page: Page, from: [number, number], to: [number, number]): Promise<void> {
  await page
    .getByRole('group', { name: 'View and drawing' })
    .getByRole('button', { name: 'Draw', exact: true })
    .click();
  const box = (await page.getByTestId('draw-layer').boundingBox())!;
  const at = ([x, y]: [number, number]): [number, number] => [box.x + x * box.width, box.y + y * box.height];
  await page.mouse.move(...at(from));
  await page.mouse.down();
  for (let i = 1; i <= 12; i++) {
    const t = i / 12;
    const bow = 0.08 * Math.sin(Math.PI * t);
    await page.mouse.move(...at([from[0] + t * (to[0] - from[0]), from[1] + t * (to[1] - from[1]) + bow]));
  }
  await page.mouse.up();
  await expect(page.getByTestId('draw-layer')).toHaveCount(0);
  await expect(canvas(page)).toHaveAttribute('data-rest', 'true');
}

test('two strokes are two paths, each as long as it was drawn; a blend goes from one to the other', async ({
  page,
}) => {
  await openEmpty(page);
  await stroke(page, [0.3, 0.6], [0.7, 0.6]);
  await stroke(page, [0.3, 0.4], [0.7, 0.4]);
  const drawn = await openStep(page, 'Drawn path');
  await expect(drawn.getByRole('combobox', { name: 'Attached to' })).toHaveText('None');
  await page.getByRole('button', { name: 'Add a step' }).click();
  await page.getByRole('combobox', { name: 'Find' }).fill('blend');
  await page.keyboard.press('Enter');
  const blend = await openStep(page, 'Blend');
  await expect(blend.getByRole('combobox', { name: 'Growth' })).toHaveText('Drawn path');
  await expect(page.getByText(/circle/)).toHaveCount(0);
  await expect(step(page, 'Blend').getByRole('alert')).toHaveCount(0);
});

for (const width of [1000, 1280, 1440]) {
  test(`small buttons of the fields are hit where they are seen, at ${width} wide`, async ({ page }) => {
    await page.setViewportSize({ width, height: 800 });
    await openStarter(page);
    for (const name of ['Tube', 'Noise']) if ((await step(page, name).count()) > 0) await openStep(page, name);
    const missed = await page.evaluate(() => {
      const found: string[] = [];
      for (const button of document.querySelectorAll<HTMLElement>('aside button')) {
        const { left, top, width: across, height } = button.getBoundingClientRect();
        if (across === 0 || across > 40 || height > 40) continue;
        for (const [x, y] of [
          [0.15, 0.5],
          [0.5, 0.2],
          [0.5, 0.5],
          [0.5, 0.8],
          [0.85, 0.5],
        ]) {
          const [px, py] = [left + x * across, top + y * height];
          const hit = document.elementFromPoint(px, py);
          // What is scrolled out of its panel is not there to be hit.
          if (!hit || !hit.closest('aside')) continue;
          const field = hit.closest('.MuiSlider-root');
          if (field && !button.contains(hit)) found.push(button.getAttribute('aria-label') ?? '');
        }
      }
      return found;
    });
    expect(missed).toEqual([]);
  });
}

test("after a slider was used undo and play work; arrows stay the slider's own", async ({ page }) => {
  await openStarter(page);
  const tube = await openStep(page, 'Tube');
  const radius = tube.getByRole('textbox', { name: 'Radius', exact: true });
  const before = await radius.inputValue();
  const slider = tube.getByRole('slider', { name: 'Radius, slider' });
  await slider.focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('PageUp');
  await expect(radius).not.toHaveValue(before);
  await expect(page.getByLabel('Frame', { exact: true })).toHaveValue('001');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(radius).toHaveValue(before);
  await page.keyboard.press('Space');
  await expect(
    page
      .getByRole('button', { name: 'Stop', exact: true })
      .or(page.getByRole('button', { name: 'Pause' }))
      .first(),
  ).toBeVisible();
});

test('a tab that is too busy to answer is taken over, and what it had not saved is kept beside', async ({
  page,
  context,
}) => {
  await openEmpty(page);
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Find' }).fill('new growth: line');
  await page.keyboard.press('Enter');
  await saved(page);
  const other = await context.newPage();
  await other.goto(page.url());
  await expect(other.getByText('This scene is open in another tab.')).toBeVisible();
  await page.bringToFront();
  const line = await openStep(page, 'Line');
  await setNumber(line.getByLabel('To Y', { exact: true }), '2.75');
  // Busy from now on, before it could save.
  void page.evaluate(() => {
    const until = performance.now() + 12_000;
    while (performance.now() < until);
  });
  await other.bringToFront();
  await other.getByRole('button', { name: 'Edit it here' }).click();
  const there = (await openStep(other, 'Line')).getByLabel('To Y', { exact: true });
  const seen = await there.inputValue();
  await setNumber(there, '1.25');
  await saved(other);
  await expect(page.getByText('This scene is open in another tab.')).toBeVisible({ timeout: 30_000 });
  await other.reload();
  await expect((await openStep(other, 'Line')).getByLabel('To Y', { exact: true })).toHaveValue('1.25');
  // Either the other tab began with the edit, or it is kept beside.
  if (seen !== '2.75') {
    await other.goto('/');
    await expect(other.getByRole('group', { name: /other tab/ })).toBeVisible();
  }
});

test('a value that was typed and not confirmed is there after a reload', async ({ page }) => {
  await openStarter(page);
  const radius = (await openStep(page, 'Tube')).getByRole('textbox', { name: 'Radius', exact: true });
  await radius.fill('0.123');
  await page.reload();
  const again = (await openStep(page, 'Tube')).getByRole('textbox', { name: 'Radius', exact: true });
  await expect(again).toHaveValue('0.123');
});
