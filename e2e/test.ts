import { test as base, type BrowserContext, type ConsoleMessage, expect } from '@playwright/test';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** Starts a browser when the one there is does not answer. */
interface Browsers {
  current(): Promise<BrowserContext>;
  replace(): void;
}

/** The most milliseconds a browser may take to be made clean: it takes some 300. */
const CLEAN = 30_000;

/** Takes away all that the page has kept on the device, and puts back what is to stand in its local storage. */
async function clean(kept: BrowserContext, items: { name: string; value: string }[]): Promise<void> {
  const blank = await kept.newPage();
  for (const page of kept.pages()) if (page !== blank) await page.close();
  await kept.clearCookies();
  await blank.goto('/icon.svg');
  // By the page itself: the browser's own order to clear an origin was seen never to answer.
  await blank.evaluate(async (wanted) => {
    const databases = await indexedDB.databases();
    await Promise.all(
      databases.map(
        ({ name }) =>
          new Promise<void>((resolve, reject) => {
            const request = indexedDB.deleteDatabase(name!);
            request.onsuccess = () => resolve();
            request.onerror = () => reject(request.error ?? new Error(`“${name}” could not be deleted.`));
          }),
      ),
    );
    localStorage.clear();
    wanted.forEach(({ name, value }) => localStorage.setItem(name, value));
  }, items);
}

/** Whether some work ends in time. */
async function inTime(work: Promise<void>, limit: number): Promise<boolean> {
  let timer: NodeJS.Timeout;
  const late = new Promise<boolean>((resolve) => (timer = setTimeout(() => resolve(false), limit)));
  return Promise.race([work.then(() => true), late]).finally(() => clearTimeout(timer));
}

/**
 * Tests in one browser after another, which keeps what it has fetched and compiled, as that of a person does; what the page
 * keeps on the device is cleared before each.
 */
export const test = base.extend<object, { browsers: Browsers }>({
  browsers: [
    async ({ playwright, launchOptions }, use, { project }) => {
      const { viewport, deviceScaleFactor, contextOptions, baseURL } = project.use;
      const folders: string[] = [];
      const start = async (): Promise<BrowserContext> => {
        const folder = await mkdtemp(join(tmpdir(), 'uvrex-e2e-'));
        folders.push(folder);
        return playwright.chromium.launchPersistentContext(folder, {
          ...launchOptions,
          ...contextOptions,
          viewport,
          deviceScaleFactor,
          baseURL,
        });
      };
      let current = start();
      await use({
        current: () => current,
        replace: () => {
          void current.then((kept) => kept.close());
          current = start();
        },
      });
      await (await current).close();
      for (const folder of folders) await rm(folder, { recursive: true, force: true });
    },
    { scope: 'worker' },
  ],
  context: async ({ browsers, storageState }, use) => {
    const items =
      typeof storageState === 'object' ? storageState.origins.flatMap(({ localStorage }) => localStorage) : [];
    if (!(await inTime(clean(await browsers.current(), items), CLEAN))) {
      process.stderr.write('The browser does not answer: another is started.\n');
      browsers.replace();
      await clean(await browsers.current(), items);
    }
    const context = await browsers.current();
    // What the page's own policy refuses it does not show, and says so nowhere else.
    const refused: string[] = [];
    const hear = (message: ConsoleMessage): void => {
      if (/content security policy/i.test(message.text())) refused.push(message.text());
    };
    context.on('console', hear);
    await use(context);
    context.off('console', hear);
    await context.clearPermissions();
    expect(refused, 'refused by the page’s own policy').toEqual([]);
  },
});

/**
 * A lesson by hand that asks of hands what others ask too: left out unless LESSONS=all, since each takes half a minute. All lessons
 * are played to their end among the unit tests (apps/studio/src/lessons).
 */
export const alike = process.env.LESSONS === 'all' ? test : test.skip;
