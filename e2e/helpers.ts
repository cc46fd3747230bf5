import { expect, type Download, type Locator, type Page } from '@playwright/test';
import { readFile } from 'node:fs/promises';

/** Opens a fresh copy of the starter Kelp frond at its first frame. */
export async function openStarter(page: Page): Promise<void> {
  await page.goto('/new/kelp-frond');
  await pictureAt(page, 100);
  await goTo(page, 1);
}

/** Opens a fresh copy of any starter and waits for a picture of it. */
export async function openNamed(page: Page, name: string): Promise<void> {
  await page.goto(`/new/${name.toLowerCase().replace(' ', '-')}`);
  await expect(canvas(page)).toHaveAttribute('data-rest', 'true', { timeout: 60_000 });
}

/** Makes a new, empty scene and waits for the studio. */
export async function openEmpty(page: Page): Promise<void> {
  await page.goto('/new');
  await expect(page.getByText('Nothing grows here yet')).toBeVisible();
}

export const canvas = (page: Page): Locator => page.locator('canvas').first();

/** Waits until the picture of a frame is on the canvas and nothing moves any more. */
export async function pictureAt(page: Page, frame: number): Promise<void> {
  await expect(canvas(page)).toHaveAttribute('data-frame', String(frame));
  await expect(canvas(page)).toHaveAttribute('data-rest', 'true');
}

/** Puts the playhead on a frame and waits for its picture. */
export async function goTo(page: Page, frame: number): Promise<void> {
  const field = page.getByLabel('Frame', { exact: true });
  await field.fill(String(frame));
  await field.press('Enter');
  await pictureAt(page, frame);
}

declare global {
  interface Window {
    /** Most components that React has drawn for one change, since it was set to 0. */
    mostDrawn: number;
  }
}

/** Counts what React draws, by the hook that it offers to tools; to be called before the page is opened. */
export async function countDrawn(page: Page): Promise<void> {
  await page.addInitScript(`
    window.mostDrawn = 0;
    const drawn = (fiber) => {
      let count = 0;
      for (; fiber; fiber = fiber.sibling) {
        const before = fiber.alternate;
        // Bit 1: the component has run.
        if (typeof fiber.type !== 'string' && fiber.flags & 1) count++;
        if (!before || before.child !== fiber.child) count += drawn(fiber.child);
      }
      return count;
    };
    window.__REACT_DEVTOOLS_GLOBAL_HOOK__ = {
      supportsFiber: true,
      renderers: new Map(),
      inject: () => 1,
      checkDCE() {},
      onScheduleFiberRoot() {},
      onCommitFiberUnmount() {},
      onPostCommitFiberRoot() {},
      onCommitFiberRoot: (_, root) => (window.mostDrawn = Math.max(window.mostDrawn, drawn(root.current.child))),
    };
  `);
}

/** The middle of the canvas as a picture, for comparing. */
export async function picture(page: Page): Promise<Buffer> {
  const box = (await canvas(page).boundingBox())!;
  return page.screenshot({ clip: { x: box.x + 160, y: box.y + 60, width: box.width - 320, height: box.height - 130 } });
}

/** A step of the selected growth, as a region of the stem. */
export const step = (page: Page, name: string): Locator => page.getByRole('group', { name, exact: true });

/** Has all frames made ready in the background, as is usual, and waits for them. */
export async function allReady(page: Page): Promise<void> {
  const ready = page.getByRole('button', { name: /frames ready/ });
  if ((await ready.getAttribute('aria-pressed')) === 'false') await ready.click();
  await expect(ready).toHaveText('All frames ready', { timeout: 120_000 });
}

/** Opens a step in place. */
export async function openStep(page: Page, name: string): Promise<Locator> {
  const found = step(page, name);
  const head = found.locator('[aria-expanded]').first();
  if ((await head.getAttribute('aria-expanded')) === 'false') await head.click();
  // Fields are loaded when a step is first opened.
  await expect(found.locator('input').first()).toBeAttached();
  await openParts(found);
  return found;
}

/** Opens whatever parts of a step's fields are folded away. */
async function openParts(found: Locator): Promise<void> {
  const folded = found.locator('[data-part][aria-expanded=false]');
  while ((await folded.count()) > 0) await folded.first().click();
}

/** Types a value into a number field. */
export async function setNumber(field: Locator, value: string): Promise<void> {
  await field.fill(value);
  await field.press('Enter');
}

/** The bytes of what an action downloads. */
export async function downloaded(page: Page, act: () => Promise<void>): Promise<{ name: string; bytes: Buffer }> {
  const [download] = await Promise.all([
    page.waitForEvent('download', { timeout: 170_000 }) as Promise<Download>,
    act(),
  ]);
  return { name: download.suggestedFilename(), bytes: await readFile((await download.path())!) };
}

/** Waits until the change is kept on the device. */
export const saved = (page: Page): Promise<void> => expect(page.getByText('Saved on this device')).toBeVisible();

/** Copies that the picture holds. */
export async function copies(page: Page): Promise<number> {
  const text = (await page.getByTestId('statistics').textContent()) ?? '';
  return Number(/([\d,]+)\s*copies/.exec(text)?.[1].replace(',', '') ?? NaN);
}

/** Drops a file into the view. */
export async function drop(page: Page, name: string, content: string | Buffer): Promise<void> {
  const files = await page.evaluateHandle(
    ([file, base64]) => {
      const data = new DataTransfer();
      data.items.add(new File([Uint8Array.from(atob(base64), (c) => c.charCodeAt(0))], file));
      return data;
    },
    [name, Buffer.from(content).toString('base64')],
  );
  await page.getByRole('region', { name: 'Viewport' }).dispatchEvent('drop', { dataTransfer: files });
}

/** All that the browser keeps in a table of the application. */
export const storedIn = <T>(page: Page, table: 'scenes' | 'views'): Promise<T[]> =>
  page.evaluate(
    (name) =>
      new Promise<T[]>((done, fail) => {
        const opening = indexedDB.open('uvrex');
        opening.onerror = () => fail(new Error('no store'));
        opening.onsuccess = () => {
          const all = opening.result.transaction(name).objectStore(name).getAll();
          all.onsuccess = () => {
            opening.result.close();
            done(all.result as T[]);
          };
        };
      }),
    table,
  );

/** Waits until how a scene is looked at is written down, as it is wanted. */
export const viewKept = (page: Page, wanted: Record<string, unknown>): Promise<void> =>
  expect.poll(() => storedIn<unknown>(page, 'views')).toContainEqual(expect.objectContaining(wanted));
