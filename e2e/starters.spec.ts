import { expect } from '@playwright/test';
import { canvas, goTo, openNamed, picture } from './helpers';
import { test } from './test';

for (const name of [
  'Anemone sway',
  'Brain coral',
  'Tether burn',
  'Lantern wreath',
  'Turban shell',
  'Mooring chain',
  'Sonar bars',
]) {
  test(`${name} opens finished, without a complaint, and moves`, async ({ page }) => {
    const problems: string[] = [];
    page.on('pageerror', (error) => problems.push(error.message));
    await openNamed(page, name);
    const frame = Number(await canvas(page).getAttribute('data-frame'));
    expect(frame).toBeGreaterThan(1);
    const before = await picture(page);
    await goTo(page, frame + 12);
    expect((await picture(page)).equals(before)).toBe(false);
    await expect(page.locator('main [role=alert], aside [role=alert]')).toHaveCount(0);
    expect(problems).toEqual([]);
  });
}
