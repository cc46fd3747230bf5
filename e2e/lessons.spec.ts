import { expect, type Page } from '@playwright/test';
import { Hands } from './hands';
import { canvas, goTo, step } from './helpers';
import { alike } from './test';

// Each lesson of docs/lessons.md, walked from an empty scene with nothing but the interface. With LESSON_PICTURES=1 the
// pictures of the lessons are taken on the way.

const done = async (page: Page, lesson: string, frame: number): Promise<void> => {
  await goTo(page, frame);
  await expect(page.locator('aside [role=alert]')).toHaveCount(0);
  if (!process.env.LESSON_PICTURES) return;
  await page.mouse.move(700, 20);
  await page.waitForTimeout(800);
  await page.screenshot({ path: `test-results/lesson-${lesson}.png` });
};
const faces = async (page: Page): Promise<string> => (await page.getByTestId('statistics').textContent()) ?? '';

alike('anemone sway', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Anemone');
  await hands.newGrowth('line');
  await hands.set('Line', { 'To Y': '= 0.95 + 0.15 * sin((frame - 1) * 2.5)', Points: '24' });
  await hands.deleteStep('Grow');
  await hands.addStep('Strands');
  await hands.set('Strands', { Count: '90', Apart: '0.055', Lean: '60' });
  await hands.addStep('Respace');
  await hands.set('Respace', { By: 'Points per metre', 'Per metre': '46', Remainder: 'Keep a shorter last' });
  await hands.addStep('Noise');
  await hands.set('Noise', { Amount: '0.34', Size: '0.75', Evolution: '0.5', 'Hold base': '90' });
  await step(page, 'Noise').getByRole('button', { name: 'Amount: vary it from path to path' }).click();
  await hands.set('Noise', { 'Amount By': '0.14' });
  await hands.set('Tube', { Radius: '0.03', Start: 'Open' });
  await hands.preset('Tube', 'Along', 'Tendril');
  await hands.preset('Finish', 'Colour', 'Anemone');
  await done(page, 'anemone-sway', 73);
  await expect(step(page, 'Respace').getByText('46 a metre')).toBeVisible();
  // The sway and the stretch both close over the range.
  expect(await hands.seam('Line')).toMatch(/Line\s*0(\.0\d*)? mm/);
});

alike('turban shell', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Shell');
  await hands.range(96);
  await hands.newGrowth('helix');
  await hands.set('Helix', { 'Radius below': '0.62', 'Radius above': '0.012', 'Radius changes': 'By a factor' });
  await hands.set('Helix', { Height: '1.22', Turns: '6', 'Base Y': '0.44', Points: '400' });
  await hands.deleteStep('Grow');
  await hands.deleteStep('Tube');
  await hands.addStep('Sweep');
  await hands.set('Sweep', { Corners: '9', Notch: '86', Rounding: '85', Radius: '0.47', Swell: '0' });
  await hands.set('Sweep', { Follows: 'Whole path', Start: 'Round', End: 'Round' });
  await hands.preset('Sweep', 'Along', 'Cone');
  await hands.set('Sweep', { Roll: '= (frame - first) / (last + 1 - first) * 360 / corners' });
  await hands.preset('Finish', 'Colour', 'Lantern');
  await hands.set('Finish', { Roughness: '25', Glow: '0' });
  await done(page, 'turban-shell', 24);
  // A ninth of a turn brings nine points onto themselves.
  expect(await hands.seam('Helix')).toMatch(/Helix\s*0(\.0\d*)? mm/);
  await hands.set('Sweep', { Profile: 'Letter', Letter: 'B' });
  await expect(step(page, 'Sweep').getByText(/letter B/)).toBeVisible();
  await expect(canvas(page)).toHaveAttribute('data-rest', 'true');
  await expect(step(page, 'Sweep').getByRole('alert')).toHaveCount(0);
});

alike('sonar bars', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Sonar');
  await hands.newGrowth('line');
  await hands.set('Line', { 'To Y': '1.7', Points: '2' });
  await hands.addStep('Strands');
  await hands.set('Strands', { Arrangement: 'Row', Count: '100', Apart: '0.046', 'Vary size': '0', 'Vary turn': '0' });
  await hands.addStep('Respace');
  await hands.set('Respace', { Count: '31' });
  await goTo(page, 144);
  await hands.still('Grow', 'To');
  await hands.set('Grow', { 'Whole pieces': true, Levels: '100', 'Levels by': 'Sound' });
  await hands.deleteStep('Tube');
  await hands.addStep('Ribbon');
  await hands.set('Ribbon', { 'Half width': '0.0165', Thickness: '0.022', Roll: '90', End: 'Round' });
  await hands.preset('Finish', 'Colour', 'Lagoon');
  await hands.set('Finish', { Glow: '140', 'Glow length': '0.14' });
  await page.getByRole('button', { name: 'See all' }).click();
  await done(page, 'sonar-bars', 62);
  const loud = await faces(page);
  await goTo(page, 20);
  expect(await faces(page)).not.toBe(loud);
});

alike('tether burn', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Tether');
  await hands.newGrowth('line');
  await hands.set('Line', { 'From Y': '-0.05', 'To Y': '0.2', Points: '16' });
  await hands.deleteStep('Grow');
  await hands.deleteStep('Tube');
  await hands.addStep('Sweep');
  await hands.set('Sweep', { Corners: '7', Notch: '62', Rounding: '50', Radius: '0.085', Swell: '0' });
  await hands.preset('Sweep', 'Along', 'Spindle');
  await hands.preset('Finish', 'Colour', 'Ember');
  await hands.set('Finish', { Glow: '400' });
  await page.getByRole('button', { name: 'Hide Line' }).click();
  await hands.draw([
    [0.15, 0.35],
    [0.28, 0.72],
    [0.45, 0.4],
    [0.6, 0.68],
    [0.86, 0.3],
  ]);
  await goTo(page, 144);
  await hands.still('Grow', 'To');
  await hands.set('Grow', { From: '= 99 * clamp((frame - 8) / 128, 0, 1)' });
  await hands.set('Tube', { Radius: '0.045', Swell: '0', Start: 'Round' });
  await hands.preset('Tube', 'Along', 'Even');
  await hands.preset('Finish', 'Colour', 'Rust');
  await hands.set('Finish', { Glow: '320', 'Glow length': '0.4' });
  await hands.addStep('At the tips');
  await hands.set('At the tips', { Growth: 'Line', Size: '= 100 + 14 * sin(frame * 60)' });
  await done(page, 'tether-burn', 64);
  // An even pace: the share that is left falls by the same amount each frame.
  await page.getByRole('button', { name: 'Checks', exact: true }).click();
  await expect(page.getByTestId('pace')).toContainText(/Unevenness \d/, { timeout: 120_000 });
});

alike('brain coral', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Coral');
  await hands.newGrowth('fractal path');
  await hands.set('Fractal path', { Curve: 'Hilbert, solid', Order: '3', Size: '1.45', Rounding: '100' });
  await hands.addStep('Respace');
  await hands.set('Respace', { Count: '1800' });
  await hands.set('Tube', { Radius: '0.072', Follows: 'Whole path', Start: 'Round' });
  await hands.preset('Tube', 'Along', 'Even');
  await hands.preset('Finish', 'Colour', 'Ember');
  await page.getByRole('button', { name: 'See all' }).click();
  await done(page, 'brain-coral', 100);
  await goTo(page, 30);
  const young = await faces(page);
  await goTo(page, 90);
  expect(await faces(page)).not.toBe(young);
});
