import { expect, type Page } from '@playwright/test';
import { Hands } from './hands';
import { copies, goTo, step } from './helpers';
import { alike, test } from './test';

// The lessons on copies in docs/lessons.md, walked from an empty scene with nothing but the interface. With
// LESSON_PICTURES=1 the pictures of the lessons are taken on the way.

const done = async (page: Page, lesson: string, frame: number): Promise<void> => {
  await goTo(page, frame);
  await expect(page.locator('aside [role=alert]')).toHaveCount(0);
  await page.getByRole('button', { name: 'See all' }).click();
  if (!process.env.LESSON_PICTURES) return;
  await page.mouse.move(700, 20);
  await page.waitForTimeout(800);
  await page.screenshot({ path: `test-results/lesson-${lesson}.png` });
};
const hide = (page: Page, growth: string): Promise<void> =>
  page.getByRole('button', { name: `Hide ${growth}`, exact: true }).click();

test('kelp frond', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Kelp');
  await hands.newGrowth('blade');
  await hands.set('Blade', { Length: '0.7', Width: '0.17', Droop: '= 50 * clamp((frame - 20) / 30, 0, 1)' });
  await hands.addStep('Roll up');
  await hands.set('Roll up', { 'Rolled up': '= 100 * clamp(1 - (frame - 1) / 50, 0, 1)', Stalk: '0.06', Core: '0.03' });
  await hide(page, 'Blade');
  await hands.draw([
    [0.5, 0.95],
    [0.46, 0.7],
    [0.54, 0.45],
    [0.5, 0.12],
  ]);
  await hands.preset('Tube', 'Along', 'Tendril');
  await hands.addStep('Along the paths');
  await hands.set('Along the paths', { Item: 'Blade', Spacing: 'By count', Count: '24', Start: '0.2' });
  await hands.set('Along the paths', { Turns: '+137.508', Lean: '62', Pivot: 'Its origin', 'Rise time': '1.4' });
  await hands.preset('Along the paths', 'Along', 'Cone');
  await hands.addStep('Time offset');
  await done(page, 'kelp-frond', 120);
  const late = await copies(page);
  await goTo(page, 40);
  expect(await copies(page)).toBeLessThan(late);
  expect(late).toBe(24);
});

alike('mooring chain', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Mooring');
  await hands.newGrowth('solid');
  await hands.set('Solid', { Shape: 'Chain link', 'Made to': 'Mooring chain, studless (ISO 20438)', Wire: '0.05' });
  await hands.preset('Finish', 'Colour', 'Pearl');
  await hide(page, 'Solid');
  await hands.draw([
    [0.08, 0.25],
    [0.3, 0.6],
    [0.5, 0.72],
    [0.72, 0.6],
    [0.94, 0.3],
  ]);
  await hands.deleteStep('Tube');
  await hands.deleteStep('Finish');
  await hands.addStep('Along the paths');
  await hands.set('Along the paths', { Item: 'Solid', Turns: '0, 90', Remainder: 'Leave it' });
  await hands.set('Along the paths', { Growth: 'Feeds them through' });
  await hands.newGrowth('catenary');
  await hands.deleteStep('Grow');
  await hands.deleteStep('Tube');
  await hands.deleteStep('Finish');
  await hands.addStep('Along the paths');
  await hands.set('Along the paths', { Item: 'Solid', Turns: '0, 90', Remainder: 'Leave it', Growth: 'Pulled in' });
  await hands.set('Along the paths', { Enters: 'At both ends', 'Pulled in': '= clamp((frame - 1) / 100, 0, 1) * 100' });
  await done(page, 'mooring-chain', 100);
  await page.getByRole('button', { name: 'Checks', exact: true }).click();
  await page.getByRole('button', { name: 'Check the copies' }).click();
  const fit = page.getByTestId('fit');
  await expect(fit).toContainText('pairs of neighbours', { timeout: 120_000 });
  // The worst pair is marked in the picture.
  await fit.getByRole('button').first().click();
  await expect(page.getByRole('img', { name: 'Places found by the checks' })).toBeVisible();
});

alike('sea-lily', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Sea-lily');
  await hands.range(96);
  await hands.newGrowth('blade');
  await hands.set('Blade', { Length: '0.6', Width: '0.24', Fold: '10', Cup: '45', Droop: '= 1.4 * frame - 60' });
  await hands.addStep('Roll up');
  await hands.set('Roll up', { 'Rolled up': '= 92 * clamp(1 - frame / 72, 0, 1)', Stalk: '0.1', Core: '0.05' });
  await hands.set('Roll up', { 'Turns apart': '0.03' });
  await hands.preset('Finish', 'Colour', 'Anemone');
  await hide(page, 'Blade');
  await hands.newGrowth('phyllotaxis');
  await hands.set('Phyllotaxis', {
    Surface: 'Dome',
    Count: '60',
    'New ones': 'Endless',
    Radius: '0.17',
  });
  await hands.set('Phyllotaxis', { Height: '0.16', Swell: '18', Fade: '9' });
  await hands.addStep('On the points');
  await hands.set('On the points', { Item: 'Blade', Lean: '48' });
  await hands.preset('On the points', 'Size by place', 'Horn');
  await hands.preset('On the points', 'Lean by place', 'Horn');
  await hands.addStep('Time offset');
  await hands.set('Time offset', { 'Later by': 'Its life' });
  await hands.addStep('Move and turn');
  await hands.set('Move and turn', { 'Move Y': '0.6' });
  await done(page, 'sea-lily', 48);
  expect(await copies(page)).toBeGreaterThanOrEqual(59);
  expect(await hands.seam('Phyllotaxis')).toMatch(/Phyllotaxis\s*0(\.0\d*)? mm/);
});

alike('urchin head', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Urchin');
  await hands.newGrowth('solid');
  await hands.set('Solid', { Shape: 'Crystal', Radius: '0.016', Height: '0.2', Point: '86', Sides: '6' });
  await hands.preset('Finish', 'Colour', 'Iris');
  await hide(page, 'Solid');
  await hands.newGrowth('phyllotaxis');
  await hands.set('Phyllotaxis', { Surface: 'Dome', Count: '= 1200 * clamp((frame - 1) / 120, 0, 1) ^ 2' });
  await hands.set('Phyllotaxis', { 'As the count changes': 'Size held', Radius: '0.62', Height: '0.56', Swell: '9' });
  await hands.addStep('On the points');
  await hands.set('On the points', { Item: 'Solid', Lean: '26', 'Vary size': '16' });
  await done(page, 'urchin-head', 130);
  expect(await copies(page)).toBe(1200);
  await goTo(page, 61);
  expect(await copies(page)).toBe(300);
});

alike('eel run', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Eels');
  await hands.newGrowth('solid');
  await hands.set('Solid', { Radius: '0.09', Sides: '20' });
  await hands.preset('Finish', 'Colour', 'Ember');
  await hide(page, 'Solid');
  await hands.newGrowth('arc');
  await hands.set('Arc', { Radius: '1.1', Plane: 'On the ground', Points: '400' });
  await hands.addStep('Noise');
  await hands.set('Noise', { Amount: '0.25', Size: '0.6', 'Hold base': '0' });
  await goTo(page, 144);
  await hands.still('Grow', 'To');
  await hands.set('Grow', { To: '34', Travel: '= (frame - 1) / 144 * 100' });
  await hands.deleteStep('Tube');
  await hands.deleteStep('Finish');
  await hands.addStep('Along the paths');
  await hands.set('Along the paths', { Item: 'Solid', Spacing: 'By distance', Distance: '0.052', 'Vary size': '24' });
  await hands.set('Along the paths', { Growth: 'Feeds them through', 'Along follows': 'Grown part' });
  await hands.preset('Along the paths', 'Along', 'Horn');
  // A second one, half the way behind.
  await page.locator('header').click();
  await page.keyboard.press('Control+d');
  await expect(page.getByRole('button', { name: 'Row of Arc 2' })).toBeVisible();
  await hands.set('Grow', { Travel: '= (frame - 1) / 144 * 100 + 50' });
  await done(page, 'eel-run', 60);
  expect(await copies(page)).toBeGreaterThan(60);
  expect(await hands.seam('Arc 2')).toMatch(/Arc\s*0(\.0\d*)? mm/);
});

alike('pier planks', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Pier');
  await hands.newGrowth('solid');
  await hands.set('Solid', { Shape: 'Box', Width: '0.78', Height: '0.036', Depth: '0.15' });
  await hands.preset('Finish', 'Colour', 'Rust');
  await hide(page, 'Solid');
  await hands.newGrowth('line');
  await hands.set('Line', {
    'From X': '-2',
    'From Y': '0.4',
    'To X': '2',
    'To Y': '0.4',
    'To Z': '-0.6',
    Points: '60',
  });
  await hands.addStep('Wave');
  await hands.set('Wave', { Amount: '0.25', Wavelength: '3' });
  await hands.deleteStep('Tube');
  await hands.deleteStep('Finish');
  await hands.addStep('Along the paths');
  await hands.set('Along the paths', {
    Item: 'Solid',
    Gap: '0.016',
    Forward: 'Z',
    Facing: 'Upright',
    'Vary turn': '2',
  });
  await hands.addStep('Falloff');
  await hands.set('Falloff', { Over: '1.1', Ease: 'bounce out', Invert: true });
  await hands.set('Falloff', { Changes: 'Place', 'Moves by Y': '1.5' });
  await done(page, 'pier-planks', 70);
  // A point of a plank is followed: it falls, and stands still at the end.
  await goTo(page, 144);
  await page.getByRole('button', { name: 'Checks', exact: true }).click();
  await page.getByRole('button', { name: 'Pick a point' }).click();
  const layer = (await page.getByTestId('pick-layer').boundingBox())!;
  for (let y = 0.35; y < 0.75 && (await page.getByTestId('pick-layer').count()) > 0; y += 0.02)
    await page.mouse.click(layer.x + 0.35 * layer.width, layer.y + y * layer.height);
  await expect(page.getByTestId('trail-charts')).toContainText('Fastest', { timeout: 120_000 });
  await expect(page.getByTestId('trail')).toBeVisible();
  await expect(step(page, 'Falloff')).toBeVisible();
});
