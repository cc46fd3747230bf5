import { expect } from '@playwright/test';
import { canvas, goTo, openNamed, openStep, picture, pictureAt, setNumber } from './helpers';
import { test } from './test';

declare global {
  interface Window {
    /** Programs of the graphics that have been made. */
    programs: number;
    /** Pictures that have been drawn. */
    drawings: number;
    /** Contexts of the graphics that have been made and not been collected. */
    contexts: number;
  }
}

test('pictures that take turns have no program of the graphics made anew', async ({ page }) => {
  await page.addInitScript(`
    window.programs = 0;
    const { createProgram } = WebGL2RenderingContext.prototype;
    WebGL2RenderingContext.prototype.createProgram = function () {
      window.programs++;
      return createProgram.call(this);
    };
  `);
  await openNamed(page, 'Lantern wreath');
  const drawnAs = async (quality: 'Draft' | 'Standard'): Promise<void> => {
    await page
      .getByRole('group', { name: 'Picture quality' })
      .getByRole('button', { name: quality, exact: true })
      .click();
    await expect(canvas(page)).toHaveAttribute('data-drawn', quality.toLowerCase());
    await expect(canvas(page)).toHaveAttribute('data-rest', 'true');
  };
  await drawnAs('Draft');
  await drawnAs('Standard');
  const made = await page.evaluate(() => window.programs);
  expect(made).toBeGreaterThan(4);
  // As resting and moving pictures take turns; and another colour is drawn by the same program.
  await drawnAs('Draft');
  await drawnAs('Standard');
  const dressed = await openStep(page, 'Finish');
  await setNumber(dressed.getByLabel('Roughness', { exact: true }), '31');
  await expect(canvas(page)).toHaveAttribute('data-rest', 'true');
  await drawnAs('Draft');
  expect(await page.evaluate(() => window.programs)).toBe(made);
});

test('a picture that is as fine already is not drawn again when it has come to rest', async ({ page }) => {
  await page.addInitScript(`
    window.drawings = 0;
    const { clear } = WebGL2RenderingContext.prototype;
    WebGL2RenderingContext.prototype.clear = function (...what) {
      window.drawings++;
      return clear.apply(this, what);
    };
  `);
  await openNamed(page, 'Turban shell');
  await goTo(page, 60);
  const drawings = await page.evaluate(() => window.drawings);
  await goTo(page, 61);
  await goTo(page, 62);
  expect(await page.evaluate(() => window.drawings)).toBe(drawings + 2);
});

test('lost graphics are told, and the picture comes back with them', async ({ page }) => {
  await openNamed(page, 'Turban shell');
  const frame = Number(await canvas(page).getAttribute('data-frame'));
  const before = await picture(page);
  const lose = (what: 'loseContext' | 'restoreContext'): Promise<void> =>
    page.evaluate((call) => {
      const context = document.querySelector('canvas')!.getContext('webgl2')!;
      // Asked for anew once they are lost it is not to be had.
      const found =
        (window as unknown as { loses?: WEBGL_lose_context }).loses ?? context.getExtension('WEBGL_lose_context')!;
      (window as unknown as { loses?: WEBGL_lose_context }).loses = found;
      found[call]();
    }, what);
  await lose('loseContext');
  await expect(page.getByText(/The graphics were lost/)).toBeVisible();
  await lose('restoreContext');
  await expect(page.getByText(/The graphics were lost/)).toHaveCount(0);
  await pictureAt(page, frame);
  // A picture of the same form: blank, or without its skin, it would be as different as can be.
  await expect
    .poll(async () => {
      const now = await picture(page);
      return now.length / before.length;
    })
    .toBeGreaterThan(0.8);
});

test('a scene that is closed leaves nothing of its graphics', async ({ page, context }) => {
  await page.addInitScript(`
    window.contexts = 0;
    const gone = new FinalizationRegistry(() => window.contexts--);
    const seen = new WeakSet();
    const { getContext } = HTMLCanvasElement.prototype;
    HTMLCanvasElement.prototype.getContext = function (kind, ...rest) {
      const made = getContext.call(this, kind, ...rest);
      if (made && kind === 'webgl2' && !seen.has(made)) {
        seen.add(made);
        window.contexts++;
        gone.register(made);
      }
      return made;
    };
  `);
  const devtools = await context.newCDPSession(page);
  const contexts = async (): Promise<number> => {
    await devtools.send('HeapProfiler.collectGarbage');
    return page.evaluate(() => window.contexts);
  };
  await page.goto('/');
  for (const starter of ['Turban shell', 'Eel run', 'Turban shell']) {
    await page.getByRole('button', { name: `Open the starter ${starter}` }).click();
    await expect(canvas(page)).toHaveAttribute('data-rest', 'true');
    expect(await contexts()).toBe(1);
    await page.getByRole('link', { name: 'Uvrex' }).click();
    await expect(page.getByRole('button', { name: `Open the starter ${starter}` })).toBeVisible();
    await expect.poll(contexts).toBe(0);
  }
});
