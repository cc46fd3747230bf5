import { expect, type Page } from '@playwright/test';
import { canvas, copies, downloaded, openEmpty, openNamed, openStep, picture, step } from './helpers';
import { Hands } from './hands';
import { test } from './test';

const find = (page: Page, text: string): Promise<void> => page.getByRole('combobox', { name: 'Find' }).fill(text);
const option = (page: Page, name: string) => page.getByRole('option', { name, exact: true });
const faces = async (page: Page): Promise<string> => (await page.getByTestId('statistics').textContent()) ?? '';

/** What the commonest jobs are called among the whole pieces. */
const JOBS = [
  'Stem with leaves',
  'Hanging chain',
  'Blooming head',
  'Pieces falling into place',
  'Burning line',
  'Text that grows',
  'Bars that follow sound',
  'Creature of segments',
  'Shell',
  'Coral that branches',
];

test('each of the ten commonest jobs is two actions away from an empty scene, and moves', async ({ page }) => {
  await openEmpty(page);
  for (const job of JOBS) {
    await page.keyboard.press('Shift+N');
    await option(page, job).click();
    await expect(page.getByRole('dialog')).toHaveCount(0);
    await expect(canvas(page)).toHaveAttribute('data-rest', 'true');
    await expect(page.locator('aside [role=alert]')).toHaveCount(0);
    expect(Number(/^([\d.]+)/.exec(await faces(page))?.[1])).toBeGreaterThan(0);
    // One entry of undo.
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByText('Nothing grows here yet')).toBeVisible();
  }
});

test('New is a field of moving pictures, found by plain words and gone through by keys', async ({ page }) => {
  await page.emulateMedia({ reducedMotion: 'no-preference' });
  await openEmpty(page);
  await page.getByRole('button', { name: '+ New' }).click();
  const dialog = page.getByRole('dialog', { name: 'New growth' });
  for (const title of ['Whole pieces', 'Curves', 'Branches and webs', 'Forms'])
    await expect(dialog.getByRole('group', { name: title })).toBeVisible();
  for (const [word, ...names] of [
    ['leaf', 'Stem with leaves', 'Blade'],
    ['vine', 'Wandering tendrils', 'Twining tendrils'],
    ['letter', 'Text that grows', 'Text outline'],
    ['stone', 'Rock', 'Rock with barnacles'],
    ['rope', 'Catenary'],
    ['logo', 'Vector file'],
  ]) {
    await find(page, word);
    for (const name of names) await expect(option(page, name)).toBeVisible();
  }
  await find(page, '');
  await expect(dialog.getByRole('option', { selected: true })).toHaveAccessibleName('Stem with leaves');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowUp');
  await expect(dialog.getByRole('option', { selected: true })).toHaveAccessibleName('Blooming head');
  // The chosen one plays.
  const playing = dialog.getByRole('option', { selected: true }).locator('[style*=background-image]');
  await expect(playing).toHaveCSS('animation-iteration-count', 'infinite');
  await page.keyboard.press('Enter');
  await expect(step(page, 'Phyllotaxis')).toBeVisible();
  await expect.poll(() => copies(page)).toBeGreaterThan(10);
});

test('leaves are planted on the chosen stem, sized for it, and taken away again', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Stems');
  await hands.newGrowth('helix');
  await expect(canvas(page)).toHaveAttribute('data-rest', 'true');
  const bare = await picture(page);
  await page.getByRole('button', { name: 'Add a step' }).click();
  const cards = page.getByRole('group', { name: 'Plant on this growth' });
  // What fits this growth, and nothing that needs copies.
  await expect(cards.getByRole('option', { name: 'Chain along it' })).toBeVisible();
  await expect(cards.getByRole('option', { name: 'Copies drop in' })).toHaveCount(0);
  await cards.getByRole('option', { name: 'Leaves on this stem' }).click();
  await expect.poll(() => copies(page)).toBe(26);
  await expect(step(page, 'Along the paths').getByLabel('Count', { exact: true })).toHaveValue('26');
  await expect(page.getByRole('button', { name: 'Show Leaf', exact: true })).toBeVisible();
  await expect(page.locator('aside [role=alert]')).toHaveCount(0);
  expect((await picture(page)).equals(bare)).toBe(false);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(step(page, 'Along the paths')).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Show Leaf', exact: true })).toHaveCount(0);
});

test('a step that does not fit comes last, and says why', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Lines');
  await hands.newGrowth('line');
  await page.getByRole('button', { name: 'Add a step' }).click();
  const last = page.getByRole('group', { name: 'Not here yet' });
  await expect(last.getByRole('option', { name: /^On the points/ })).toContainText('needs points first');
  await expect(page.getByRole('group', { name: 'Grow' }).getByRole('option', { name: /^Grow/ })).toBeVisible();
});

test('a cutting of one’s own: kept with its picture, renamed, planted in another scene, deleted and brought back', async ({
  page,
}) => {
  await openNamed(page, 'Lantern wreath');
  await page.getByRole('button', { name: 'More for Lantern wreath', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Keep as a cutting' }).click();
  const sheet = page.getByRole('dialog', { name: 'Keep as a cutting' });
  // Of some of its steps it is another cutting.
  await sheet.getByLabel('Finish', { exact: true }).click();
  await expect(sheet.getByText(/These steps are planted on another growth/)).toBeVisible();
  await sheet.getByLabel('Finish', { exact: true }).click();
  await sheet.getByLabel('Name of the cutting').fill('Wreath');
  await sheet.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText('“Wreath” is kept among your cuttings.')).toBeVisible();
  await openEmpty(page);
  await page.keyboard.press('Shift+N');
  const own = page.getByRole('group', { name: 'Your cuttings' });
  const card = own.getByRole('option').first();
  await expect(card).toBeVisible();
  await own.getByRole('button', { name: /^More for/ }).click();
  await page.getByRole('menuitem', { name: 'Rename' }).click();
  await page.getByLabel('Name of the cutting').fill('Wreath to keep');
  await page.getByLabel('Name of the cutting').press('Enter');
  await expect(own.getByRole('option', { name: 'Wreath to keep' })).toBeVisible();
  await own.getByRole('option', { name: 'Wreath to keep' }).click();
  await expect(page.getByText('Growth pasted.')).toBeVisible();
  await expect(step(page, 'Finish')).toBeVisible();
  await page.keyboard.press('Shift+N');
  await own.getByRole('button', { name: 'More for Wreath to keep' }).click();
  await page.getByRole('menuitem', { name: 'Delete' }).click();
  await expect(own).toHaveCount(0);
  await page.getByRole('button', { name: 'Bring it back' }).click();
  await expect(own.getByRole('option', { name: 'Wreath to keep' })).toBeVisible();
});

test('a cutting stands in the library: a scene is begun with it, it goes out as a file and comes in again', async ({
  page,
}) => {
  const hands = new Hands(page);
  await hands.emptyScene('Cuttings');
  await hands.newGrowth('line');
  await page
    .getByRole('region', { name: 'Growths', exact: true })
    .getByRole('button', { name: 'More for Line', exact: true })
    .click();
  await page.getByRole('menuitem', { name: 'Keep as a cutting' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText('“Line” is kept among your cuttings.')).toBeVisible();
  await page.goto('/');
  const shelf = page.getByRole('region', { name: 'Your cuttings' });
  const card = shelf.getByRole('group', { name: 'Line', exact: true });
  await expect(card.locator('img')).toBeVisible();
  const more = async (what: string): Promise<void> => {
    await card.getByRole('button', { name: 'More for Line' }).click();
    await page.getByRole('menuitem', { name: what }).click();
  };
  const { name, bytes } = await downloaded(page, () => more('Export'));
  expect(name).toBe('Line.cutting.json');
  await more('Delete');
  await expect(shelf).toHaveCount(0);
  await page.getByTestId('import').setInputFiles({ name, mimeType: 'application/json', buffer: bytes });
  await expect(card.locator('img')).toBeVisible();
  // Steps that come in are drawn on something that they fit.
  const clip = JSON.parse(Buffer.from(bytes).toString());
  clip.of = 'steps';
  clip.scene.name = 'Skin';
  clip.scene.growths[0].steps = clip.scene.growths[0].steps.filter(({ kind }: { kind: string }) => kind === 'tube');
  await page.getByTestId('import').setInputFiles({
    name: 'Skin.cutting.json',
    mimeType: 'application/json',
    buffer: Buffer.from(JSON.stringify(clip)),
  });
  await expect(shelf.getByRole('group', { name: 'Skin', exact: true }).locator('img')).toBeVisible();
  await card.getByRole('button', { name: 'New scene with Line' }).click();
  await expect(page.getByRole('banner')).toContainText('Line');
  await expect(step(page, 'Grow')).toBeVisible();
});

test('fields fold away, show where they differ, and are set back one by one', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Fields');
  await hands.newGrowth('line');
  const grow = step(page, 'Grow');
  await grow.locator('[aria-expanded]').first().click();
  const tip = grow.getByRole('group', { name: 'Tip' });
  await expect(grow.getByLabel('To', { exact: true })).toBeVisible();
  await expect(tip.getByLabel('Soft tip', { exact: true })).toHaveCount(0);
  await tip.getByRole('button', { name: 'Tip' }).click();
  await tip.getByLabel('Soft tip', { exact: true }).fill('0.2');
  await tip.getByLabel('Soft tip', { exact: true }).press('Enter');
  // Folded again, what differs still shows.
  await tip.getByRole('button', { name: 'Tip', exact: true }).click();
  await expect(tip.getByLabel('Soft tip', { exact: true })).toHaveValue('0.2');
  await expect(tip.getByRole('switch', { name: 'Whole pieces' })).toHaveCount(0);
  await tip.getByRole('button', { name: 'Set Soft tip back' }).click();
  await expect(tip.getByLabel('Soft tip', { exact: true })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(tip.getByLabel('Soft tip', { exact: true })).toHaveValue('0.2');
  // Keys go too.
  await grow.getByRole('button', { name: 'Set To back' }).click();
  await expect(grow.getByLabel('To', { exact: true })).toHaveValue('100');
  await expect((await openStep(page, 'Grow')).getByRole('button', { name: 'Set To back' })).toHaveCount(0);
});

test('a click in the view selects a growth, two bring it into the picture; what it has yet to grow to is dotted', async ({
  page,
}) => {
  const hands = new Hands(page);
  await hands.emptyScene('Chosen');
  await hands.newGrowth('line');
  await hands.newGrowth('rock');
  const { x, y, width, height } = (await canvas(page).boundingBox())!;
  const list = page.getByRole('region', { name: 'Growths' });
  await expect(list.getByRole('button', { name: 'Rock', exact: true })).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByTestId('ahead')).toHaveCount(0);
  // The line stands behind the rock, and above it.
  await expect(canvas(page)).toHaveAttribute('data-rest', 'true');
  await list.getByRole('button', { name: 'Line', exact: true }).click();
  await page.keyboard.press('Home');
  await expect(page.getByTestId('ahead').locator('path')).toHaveAttribute('d', /^M[\d.]+ [\d.]+L/);
  await page.keyboard.press('End');
  await expect(page.getByTestId('ahead')).toHaveCount(0);
  // On the rock, which lies about the origin on the ground.
  const outlined = page.waitForFunction(() => document.querySelector('canvas')!.dataset.outlined);
  await page.mouse.click(x + 0.5 * width, y + 0.66 * height);
  await expect(list.getByRole('button', { name: 'Rock', exact: true })).toHaveAttribute('aria-pressed', 'true');
  // Outlined for a moment.
  await outlined;
  await expect(canvas(page)).toHaveAttribute('data-outlined', '');
  // A drag looks round, and selects nothing.
  await list.getByRole('button', { name: 'Line', exact: true }).click();
  await page.mouse.move(x + 0.5 * width, y + 0.66 * height);
  await page.mouse.down();
  await page.mouse.move(x + 0.6 * width, y + 0.66 * height, { steps: 4 });
  await page.mouse.up();
  await expect(list.getByRole('button', { name: 'Line', exact: true })).toHaveAttribute('aria-pressed', 'true');
  const far = await picture(page);
  await page.mouse.dblclick(x + 0.5 * width, y + 0.66 * height);
  await expect(list.getByRole('button', { name: 'Rock', exact: true })).toHaveAttribute('aria-pressed', 'true');
  await expect(canvas(page)).toHaveAttribute('data-outlined', '');
  await expect(canvas(page)).toHaveAttribute('data-rest', 'true');
  expect((await picture(page)).equals(far)).toBe(false);
});

test('a line is taken hold of in the view: an end is dragged, its numbers follow, one entry of undo takes it back', async ({
  page,
}) => {
  const hands = new Hands(page);
  await hands.emptyScene('Handles');
  await hands.newGrowth('line');
  const line = await openStep(page, 'Line');
  const [from, to] = [
    page.getByRole('button', { name: 'From of Line' }),
    page.getByRole('button', { name: 'To of Line' }),
  ];
  await expect(from).toBeVisible();
  const dot = (await to.boundingBox())!;
  await page.mouse.move(dot.x + dot.width / 2, dot.y + dot.height / 2);
  await page.mouse.down();
  await page.mouse.move(dot.x + 90, dot.y + 40, { steps: 5 });
  // The numbers stand beside it while it is dragged.
  await expect(page.getByRole('group', { name: 'Handles of Line' })).toContainText(/To\s*[\d., -]+ m/);
  await page.mouse.up();
  const there = (await to.boundingBox())!;
  expect(Math.abs(there.x + there.width / 2 - (dot.x + 90))).toBeLessThan(2);
  expect(Math.abs(there.y + there.height / 2 - (dot.y + 40))).toBeLessThan(2);
  await expect(line.getByLabel('To X', { exact: true })).not.toHaveValue('0');
  await expect(line.getByLabel('From X', { exact: true })).toHaveValue('0');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(line.getByLabel('To X', { exact: true })).toHaveValue('0');
  await expect(line.getByLabel('To Y', { exact: true })).toHaveValue('2');
  // Escape takes back what a drag has done, the pointer still down.
  await page.mouse.move(dot.x + dot.width / 2, dot.y + dot.height / 2);
  await page.mouse.down();
  await page.mouse.move(dot.x + 90, dot.y + 40, { steps: 5 });
  await expect(line.getByLabel('To X', { exact: true })).not.toHaveValue('0');
  await page.keyboard.press('Escape');
  await page.mouse.move(dot.x + 120, dot.y + 40, { steps: 3 });
  await page.mouse.up();
  await expect(line.getByLabel('To X', { exact: true })).toHaveValue('0');
  await expect(line.getByLabel('To Y', { exact: true })).toHaveValue('2');
  // By keys, a centimetre or with Shift ten.
  await from.press('ArrowRight');
  await from.press('Shift+PageDown');
  await expect(line.getByLabel('From X', { exact: true })).toHaveValue('0.01');
  await expect(line.getByLabel('From Z', { exact: true })).toHaveValue('0.1');
  // What a formula says is not dragged.
  await line.getByLabel('To X', { exact: true }).fill('= frame / 100');
  await line.getByLabel('To X', { exact: true }).press('Enter');
  await expect(to).toHaveCount(0);
  await expect(from).toBeVisible();
});

test('nodes of a web are linked by two clicks, unlinked by two more, and dragged; links follow', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('By hand');
  await hands.newGrowth('web');
  await hands.set('Web', { Count: '6', Links: 'By hand only' });
  await expect(canvas(page)).toHaveAttribute('data-rest', 'true');
  const web = await openStep(page, 'Web');
  const node = (number: number) => page.getByRole('button', { name: `Node ${number}`, exact: true });
  await expect(node(6)).toBeVisible();
  await node(2).click();
  await expect(node(2)).toHaveAttribute('aria-pressed', 'true');
  await node(5).click();
  await expect(web.getByRole('textbox', { name: 'Link 1' })).toHaveValue('2 5');
  await node(5).press('Enter');
  await node(2).press('Enter');
  await expect(web.getByRole('textbox', { name: 'Link 1' })).toHaveValue('');
  await node(4).scrollIntoViewIfNeeded();
  const dot = (await node(4).boundingBox())!;
  await page.mouse.move(dot.x + dot.width / 2, dot.y + dot.height / 2);
  await page.mouse.down();
  await page.mouse.move(dot.x + 40, dot.y - 20, { steps: 4 });
  await page.mouse.up();
  await expect(web.getByRole('textbox', { name: 'Node 1', exact: true })).toHaveValue(/^4 -?[\d.]+ -?[\d.]+ -?[\d.]+$/);
  await expect
    .poll(async () => Math.abs((await node(4).boundingBox())!.x + dot.width / 2 - (dot.x + 40)))
    .toBeLessThan(3);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(web.getByRole('textbox', { name: 'Node 1', exact: true })).toHaveValue('');
});

test('who uses a growth is told, and its deletion can be taken back', async ({ page }) => {
  const hands = new Hands(page);
  await hands.emptyScene('Users');
  await hands.newGrowth('line');
  await hands.addStep('Along the paths');
  await page.getByRole('region', { name: 'Growths' }).getByRole('button', { name: 'Leaf', exact: true }).click();
  await expect(page.getByText('Used by')).toBeVisible();
  await page.getByRole('button', { name: 'More for Leaf', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Delete' }).click();
  await expect(page.getByText('“Leaf” was used by Line')).toBeVisible();
  await page.getByRole('button', { name: 'Keep it' }).click();
  await page.getByRole('region', { name: 'Growths' }).getByRole('button', { name: 'Leaf', exact: true }).click();
  await page.getByText('Used by').getByRole('button', { name: 'Line' }).click();
  await expect(step(page, 'Along the paths')).toBeVisible();
});
