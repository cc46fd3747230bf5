import { test as base, type BrowserContext } from '@playwright/test';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/**
 * Tests in one browser after another, which keeps what it has fetched and compiled, as that of a person does; what the page
 * keeps on the device is cleared before each.
 */
export const test = base.extend<object, { browserKept: BrowserContext }>({
  browserKept: [
    async ({ playwright, launchOptions }, use, { project }) => {
      const folder = await mkdtemp(join(tmpdir(), 'uvrex-e2e-'));
      const { viewport, deviceScaleFactor, contextOptions, baseURL } = project.use;
      const kept = await playwright.chromium.launchPersistentContext(folder, {
        ...launchOptions,
        ...contextOptions,
        viewport,
        deviceScaleFactor,
        baseURL,
      });
      await use(kept);
      await kept.close();
      await rm(folder, { recursive: true, force: true });
    },
    { scope: 'worker' },
  ],
  context: async ({ browserKept, baseURL, storageState }, use) => {
    const blank = await browserKept.newPage();
    for (const page of browserKept.pages()) if (page !== blank) await page.close();
    const cdp = await browserKept.newCDPSession(blank);
    await cdp.send('Storage.clearDataForOrigin', { origin: baseURL!, storageTypes: 'local_storage,indexeddb,cookies' });
    await blank.goto('/icon.svg');
    if (typeof storageState === 'object')
      await blank.evaluate(
        (items) => items.forEach(({ name, value }) => localStorage.setItem(name, value)),
        storageState.origins.flatMap(({ localStorage }) => localStorage),
      );
    await use(browserKept);
    await browserKept.clearPermissions();
  },
});

/**
 * A lesson by hand that asks of hands what others ask too: left out unless LESSONS=all, since each takes half a minute. All lessons
 * are played to their end among the unit tests (apps/studio/src/lessons).
 */
export const alike = process.env.LESSONS === 'all' ? test : test.skip;
