import { expect, type Page } from '@playwright/test';
import { validateBytes } from 'gltf-validator';
import { Hands } from './hands';
import { canvas, downloaded, goTo, openNamed, openStep, picture, saved, setNumber, step } from './helpers';
import { test } from './test';

const undo = async (page: Page): Promise<void> => page.getByRole('button', { name: 'Undo' }).click();
const points = async (page: Page): Promise<string> =>
  /[\d,.k]+ points/.exec((await page.getByTestId('statistics').textContent()) ?? '')![0];

test.describe('formulas', () => {
  test('link a value; what is wrong is told beside the field, with the names that can be used', async ({ page }) => {
    const hands = new Hands(page);
    await hands.emptyScene('Formulas');
    await hands.newGrowth('line');
    const tube = await openStep(page, 'Tube');
    const radius = tube.getByLabel('Radius', { exact: true });
    await setNumber(radius, '= sides / 100');
    await expect(tube.getByText('is now 0.12 m')).toBeVisible();
    await setNumber(tube.getByLabel('Sides', { exact: true }), '20');
    await expect(tube.getByText('is now 0.2 m')).toBeVisible();

    await setNumber(radius, '= sdies / 100');
    await expect(tube.getByRole('alert')).toContainText('“sdies”');
    await expect(tube.getByRole('alert')).toContainText('frame, seconds');
    await setNumber(radius, '= 2 *');
    await expect(tube.getByRole('alert')).toContainText('cannot be read');
    await radius.press('Escape');
    await expect(radius).toHaveValue('= sides / 100');

    // A circle is named, and refused.
    await setNumber(tube.getByLabel('Sides', { exact: true }), '= radius * 100');
    await expect(tube.getByRole('alert')).toContainText('in a circle: Tube Sides → Tube Radius → Tube Sides');
    await tube.getByLabel('Sides', { exact: true }).press('Escape');

    // A plain number takes the formula off.
    await setNumber(radius, '0.3');
    await expect(radius).toHaveValue('0.3');
    await expect(tube.getByText(/is now/)).toHaveCount(0);
  });
});

test.describe('files', () => {
  test('an SVG drawing, a WAV sound and a font are loaded, kept in the scene, and there after reopening', async ({
    page,
  }) => {
    const hands = new Hands(page);
    await hands.emptyScene('Files');
    await hands.newGrowth('vector file');
    const vector = await openStep(page, 'Vector file');
    await expect(vector.getByRole('alert')).toContainText('No SVG file is chosen');
    await vector.getByLabel('SVG file from this machine').setInputFiles({
      name: 'buoy.svg',
      mimeType: 'image/svg+xml',
      buffer: Buffer.from('<svg><circle cx="5" cy="5" r="5"/><path d="M5 10V20"/></svg>'),
    });
    await expect(vector.getByRole('combobox', { name: 'SVG file' })).toHaveText('buoy.svg');
    await expect(vector.getByRole('alert')).toHaveCount(0);
    await goTo(page, 144);
    await expect.poll(() => page.getByTestId('statistics').textContent()).not.toContain('0 faces');

    // A hostile drawing does nothing but tell why it is refused.
    await vector.getByLabel('SVG file from this machine').setInputFiles({
      name: 'trap.svg',
      mimeType: 'image/svg+xml',
      buffer: Buffer.from('<svg onload="document.title=1"><script>document.title=2</script><text>no path</text></svg>'),
    });
    await expect(vector.getByRole('alert')).toContainText('There is no path in the SVG file.');
    await expect(page).toHaveTitle(/Files/);
    await undo(page);
    await expect(vector.getByRole('alert')).toHaveCount(0);

    await hands.newGrowth('text outline');
    const text = await openStep(page, 'Text outline');
    await expect(text.getByRole('combobox', { name: 'Font' })).toHaveText('Bricolage Grotesque');
    await text.getByLabel('Font from this machine').setInputFiles({
      name: 'broken.ttf',
      mimeType: 'font/ttf',
      buffer: Buffer.from('this is no font at all'),
    });
    await expect(text.getByRole('alert')).toContainText('no TrueType, OpenType or WOFF font');
    await undo(page);
    await expect(text.getByRole('alert')).toHaveCount(0);
    await saved(page);
    await page.reload();
    await expect(canvas(page)).toHaveAttribute('data-rest', 'true');
    await page.getByRole('button', { name: 'Vector file', exact: true }).first().click();
    await expect((await openStep(page, 'Vector file')).getByRole('combobox', { name: 'SVG file' })).toHaveText(
      'buoy.svg',
    );
  });
});

test.describe('anchors', () => {
  test('as a table: typed, added, taken out, and pasted from a sheet of numbers', async ({ page }) => {
    const hands = new Hands(page);
    await hands.emptyScene('Anchors');
    await hands.newGrowth('drawn path');
    const drawn = await openStep(page, 'Drawn path');
    await drawn.getByRole('button', { name: 'Table' }).click();
    const cell = (row: number, column: string) => drawn.getByLabel(`Anchor ${row}, ${column}`);
    await setNumber(cell(2, 'Size'), '250');
    await setNumber(cell(2, 'Lean'), '30');
    await setNumber(cell(4, 'Y'), '3,2');
    await expect(drawn.getByText(/4 anchors, 3\.2/)).toBeVisible();
    await drawn.getByRole('button', { name: 'Add an anchor' }).click();
    await expect(cell(5, 'Y')).toHaveValue('4.8');
    await drawn.getByRole('button', { name: 'Remove anchor 1' }).click();
    await expect(drawn.getByText(/4 anchors/).first()).toBeVisible();
    await expect(cell(1, 'Size')).toHaveValue('250');

    await cell(1, 'X').focus();
    await page.evaluate(() => {
      const data = new DataTransfer();
      data.setData('text/plain', '0\t0\t0\n0\t1\t0\t150\n0,5\t2\t0\t100\t45');
      document.activeElement!.dispatchEvent(
        new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
      );
    });
    await expect(drawn.getByText(/3 anchors, /)).toBeVisible();
    await expect(cell(3, 'X')).toHaveValue('0.5');
    await expect(cell(3, 'Lean')).toHaveValue('45');
    await undo(page);
    await expect(cell(4, 'Y')).toHaveValue('4.8');
  });

  test('a part is redrawn by a stroke; the rest stays where it was', async ({ page }) => {
    const hands = new Hands(page);
    await hands.emptyScene('Redraw');
    await hands.draw([
      [0.2, 0.5],
      [0.35, 0.4],
      [0.5, 0.5],
      [0.65, 0.6],
      [0.8, 0.5],
    ]);
    await goTo(page, 144);
    const drawn = await openStep(page, 'Drawn path');
    await drawn.getByRole('button', { name: 'Table' }).click();
    const first = await drawn.getByLabel('Anchor 1, X').inputValue();
    const before = await picture(page);
    await drawn.getByRole('button', { name: 'Part' }).click();
    const box = (await page.getByTestId('draw-layer').boundingBox())!;
    await page.mouse.move(box.x + 0.5 * box.width, box.y + 0.5 * box.height);
    await page.mouse.down();
    await page.mouse.move(box.x + 0.58 * box.width, box.y + 0.25 * box.height, { steps: 12 });
    await page.mouse.move(box.x + 0.65 * box.width, box.y + 0.6 * box.height, { steps: 12 });
    await page.mouse.up();
    await expect(page.getByTestId('draw-layer')).toHaveCount(0);
    await expect.poll(async () => (await picture(page)).equals(before)).toBe(false);
    await expect(drawn.getByLabel('Anchor 1, X')).toHaveValue(first);
  });

  test('a stroke on a surface lies on the skin under it; beside it there is nothing to draw on', async ({ page }) => {
    const hands = new Hands(page);
    await hands.emptyScene('On a skin');
    await hands.newGrowth('line');
    await hands.set('Tube', { Radius: '0.5', Swell: '0' });
    await hands.preset('Tube', 'Along', 'Even');
    await goTo(page, 144);
    await page.keyboard.press('d');
    await page.getByRole('button', { name: 'Surface', exact: true }).click();
    const box = (await page.getByTestId('draw-layer').boundingBox())!;
    const stroke = async (x: number) => {
      await page.mouse.move(box.x + x * box.width, box.y + 0.4 * box.height);
      await page.mouse.down();
      await page.mouse.move(box.x + (x + 0.01) * box.width, box.y + 0.65 * box.height, { steps: 15 });
      await page.mouse.up();
    };
    await stroke(0.05);
    await expect(page.getByText(/There was no skin under that stroke/)).toBeVisible();
    await stroke(0.5);
    const drawn = await openStep(page, 'Drawn path');
    await drawn.getByRole('button', { name: 'Table' }).click();
    // The line stands on the vertical through the origin: every anchor is half a metre from it.
    const value = async (row: number, axis: string) =>
      Number(await drawn.getByLabel(`Anchor ${row}, ${axis}`).inputValue());
    for (const row of [1, 2]) expect(Math.hypot(await value(row, 'X'), await value(row, 'Z'))).toBeCloseTo(0.5, 1);
  });
});

test.describe('copy and paste', () => {
  test('a step, tracks and a growth go within a scene and into another', async ({ page, context }) => {
    await context.grantPermissions(['clipboard-read', 'clipboard-write']);
    await openNamed(page, 'Kelp frond');
    const growth = () => page.getByRole('region', { name: 'Growths' });
    // A step, by its menu, onto another growth.
    await page.getByRole('button', { name: 'More for Sway', exact: true }).click();
    await page.getByRole('menuitem', { name: 'Copy', exact: true }).click();
    await expect(page.getByText('Step copied.')).toBeVisible();
    await growth().getByRole('button', { name: 'Second stem', exact: true }).click();
    await page.keyboard.press('Control+v');
    await expect(step(page, 'Sway')).toHaveCount(2);
    await undo(page);
    await expect(step(page, 'Sway')).toHaveCount(1);

    // A growth, by the keys, into a scene of its own.
    await growth().getByRole('button', { name: 'Kelp frond', exact: true }).click();
    await page.keyboard.press('Control+c');
    await expect(page.getByText('Growth copied.')).toBeVisible();
    await saved(page);
    const other = new Hands(page);
    await other.emptyScene('Elsewhere');
    await page.keyboard.press('Control+v');
    await expect(step(page, 'Stem')).toBeVisible();
    await expect(growth().getByRole('button', { name: 'Kelp frond', exact: true })).toBeVisible();
    await expect(page.locator('aside [role=alert]')).toHaveCount(0);

    // Its tracks onto a growth that has none of its own.
    await page.getByRole('button', { name: 'More for Kelp frond', exact: true }).click();
    await page.getByRole('menuitem', { name: 'Copy tracks' }).click();
    await expect(page.getByText('Tracks copied.')).toBeVisible();
    await expect(page.getByRole('menu')).toHaveCount(0);
    await other.newGrowth('line');
    await goTo(page, 1);
    await other.still('Grow', 'To');
    await expect(page.getByText('Grow, To')).toHaveCount(0);
    await page.locator('header').click();
    await page.keyboard.press('Control+v');
    await expect(page.getByText('Grow, To')).not.toHaveCount(0);

    // Other text is left alone.
    await page.evaluate(() => navigator.clipboard.writeText('just some words'));
    await page.keyboard.press('Control+v');
    await expect(page.locator('aside [role=alert]')).toHaveCount(0);
  });
});

test.describe('making and shaping', () => {
  test('points per metre: more of them as the path lengthens', async ({ page }) => {
    const hands = new Hands(page);
    await hands.emptyScene('Density');
    await hands.newGrowth('line');
    await hands.deleteStep('Grow');
    await hands.addStep('Respace');
    await hands.set('Respace', { By: 'Points per metre', 'Per metre': '10', Remainder: 'Keep a shorter last' });
    await expect.poll(() => points(page)).toBe('21 points');
    await hands.set('Line', { 'To Y': '3.05' });
    await expect.poll(() => points(page)).toBe('32 points');
  });

  test('a guide stands in the scene, is dragged, and orders growth', async ({ page }) => {
    const hands = new Hands(page);
    await hands.emptyScene('Guide');
    await hands.newGrowth('line');
    await hands.addStep('Strands');
    await hands.set('Strands', { Arrangement: 'Row', Count: '9', Apart: '0.2', 'Vary size': '0' });
    await page.getByRole('button', { name: 'Scene, light and camera' }).click();
    await page.getByRole('button', { name: '+ Guide' }).click();
    const across = page.getByRole('group', { name: 'Guide', exact: true }).getByLabel('Place X', { exact: true });
    await setNumber(across, '-0.8');
    const handle = (await page.getByRole('button', { name: 'Middle of Guide' }).boundingBox())!;
    await page.mouse.move(handle.x + handle.width / 2, handle.y + handle.height / 2);
    await page.mouse.down();
    await page.mouse.move(handle.x + 60, handle.y - 40, { steps: 5 });
    await page.mouse.up();
    expect(Number(await across.inputValue())).toBeGreaterThan(-0.8);
    await page.getByRole('region', { name: 'Growths' }).getByRole('button', { name: 'Line', exact: true }).click();
    await goTo(page, 50);
    await hands.set('Grow', { Stagger: '6', Order: 'From the centre' });
    const centred = await picture(page);
    await hands.set('Grow', { Order: 'By distance from a guide', Guide: 'Guide' });
    await expect.poll(async () => (await picture(page)).equals(centred)).toBe(false);
  });

  test('a profile is shaped: presets, point by point, straight and stepped', async ({ page }) => {
    const hands = new Hands(page);
    await hands.emptyScene('Profile');
    await hands.newGrowth('line');
    await hands.preset('Tube', 'Along', 'Beads');
    const tube = await openStep(page, 'Tube');
    await expect(tube.getByRole('button', { name: /^Along, point/ })).toHaveCount(9);
    await goTo(page, 144);
    const smooth = await picture(page);
    await tube.getByRole('button', { name: 'Along, point 2 of 9: 100 % at 10 %' }).focus();
    await tube.getByRole('combobox', { name: 'Along, shape after point 2' }).click();
    await page.getByRole('option', { name: 'Step' }).click();
    await expect.poll(async () => (await picture(page)).equals(smooth)).toBe(false);
  });
});

test.describe('copies', () => {
  test('links along a path hang together; more of the path, more of them; the film and the file have them too', async ({
    page,
  }) => {
    const hands = new Hands(page);
    await hands.emptyScene('Copies');
    await hands.newGrowth('solid');
    await hands.set('Solid', { Shape: 'Chain link' });
    await page.getByRole('button', { name: 'Hide Solid' }).click();
    await hands.newGrowth('line');
    await hands.deleteStep('Tube');
    await hands.deleteStep('Finish');
    const along = await hands.addStep('Along the paths');
    // The hidden link is what there is to copy.
    await expect(along.getByRole('combobox', { name: 'Item', exact: true })).toHaveText('Solid');
    await hands.set('Along the paths', { Turns: '0, 90', 'Rise time': '0' });
    await goTo(page, 144);
    // Two metres of path, a fifth of a metre for each link.
    await expect.poll(() => page.getByTestId('statistics').textContent()).toContain('10 copies');
    await goTo(page, 40);
    await expect.poll(() => page.getByTestId('statistics').textContent()).toMatch(/[1-4] copies/);
    await goTo(page, 144);
    const crossed = await picture(page);
    await hands.set('Along the paths', { Turns: '0' });
    await expect.poll(async () => (await picture(page)).equals(crossed)).toBe(false);
    const turns = along.getByLabel('Turns', { exact: true });
    await turns.fill('a bit');
    await turns.blur();
    await expect(along.getByRole('alert')).toContainText('is no list of turns');
    await undo(page);
    await expect(along.getByRole('alert')).toHaveCount(0);

    await page.getByRole('button', { name: 'Export', exact: true }).click();
    await page.getByRole('radio', { name: /^GLB/ }).click();
    const { bytes } = await downloaded(page, () => page.getByRole('button', { name: 'Make the file' }).click());
    const report = await validateBytes(new Uint8Array(bytes));
    expect(report.issues.messages.filter(({ severity }) => severity <= 1)).toEqual([]);
    // A node for each link, all of one mesh. GLB 2.0: the JSON chunk begins at byte 20, its length stands at byte 12.
    const json = bytes.subarray(20, 20 + bytes.readUInt32LE(12)).toString();
    const { nodes, meshes } = JSON.parse(json) as { nodes: { mesh?: number }[]; meshes: unknown[] };
    expect(nodes.filter(({ mesh }) => mesh !== undefined)).toHaveLength(10);
    expect(meshes).toHaveLength(1);
  });
});
