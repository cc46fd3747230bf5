import { expect, type Page } from '@playwright/test';
import { unzipSync } from 'fflate';
import { validateBytes } from 'gltf-validator';
import { ALL_FORMATS, BufferSource, Input } from 'mediabunny';
import { OBJLoader } from 'three/examples/jsm/loaders/OBJLoader.js';
import { readScene } from '@uvrex/core';
import { downloaded, goTo, openNamed, openStarter } from './helpers';
import { test } from './test';

async function order(page: Page, format: RegExp, range?: [number, number]): Promise<void> {
  await page.getByRole('button', { name: 'Export', exact: true }).click();
  await page.getByRole('radio', { name: format }).click();
  if (!range) return;
  await page.getByRole('button', { name: '640 × 360' }).click();
  await page.getByRole('dialog').getByLabel('First frame').fill(String(range[0]));
  await page.getByRole('dialog').getByLabel('Last frame').fill(String(range[1]));
  await page.getByRole('radio', { name: 'draft' }).click();
}

const make = (page: Page) => downloaded(page, () => page.getByRole('button', { name: 'Make the file' }).click());

/** A film of one second at 24 frames a second, as it is read back. */
async function expectFilm(input: Input): Promise<void> {
  const track = (await input.getPrimaryVideoTrack())!;
  const { packetCount, averagePacketRate } = await track.computePacketStats();
  expect(packetCount).toBe(24);
  expect(averagePacketRate).toBeCloseTo(24, 0);
  expect(await track.computeDuration()).toBeCloseTo(1, 2);
  expect([await track.getDisplayWidth(), await track.getDisplayHeight()]).toEqual([640, 360]);
}

const read = (bytes: Uint8Array): Input =>
  new Input({ formats: ALL_FORMATS, source: new BufferSource(new Uint8Array(bytes).buffer) });

test('a film in MP4 has every frame, the right length and size', async ({ page }) => {
  await openStarter(page);
  await order(page, /Film, MP4/, [60, 83]);
  const file = await make(page);
  expect(file.name).toBe('kelp-frond.mp4');
  await expectFilm(read(file.bytes));
});

test('a film in WebM too; a scene that moves to a sound takes it along: as long as the film, and not silent', async ({
  page,
}) => {
  await openNamed(page, 'Sonar bars');
  await expect(page.getByRole('button', { name: 'Sound off', exact: true })).toBeVisible();
  await order(page, /Film, WebM/, [1, 24]);
  const file = await make(page);
  expect(file.name).toBe('sonar-bars.webm');
  const input = read(file.bytes);
  await expectFilm(input);
  const track = (await input.getPrimaryAudioTrack())!;
  expect(await track.computeDuration()).toBeCloseTo(1, 1);
  const { averageBitrate } = await track.computePacketStats();
  // Opus spends next to nothing on silence.
  expect(averageBitrate).toBeGreaterThan(30_000);
});

test('picture sequence: a zip of PNGs of the right size that differ over time', async ({ page }) => {
  await openStarter(page);
  await order(page, /Picture sequence/, [30, 33]);
  const files = unzipSync(new Uint8Array((await make(page)).bytes));
  expect(Object.keys(files)).toEqual(['0030', '0031', '0032', '0033'].map((frame) => `kelp-frond_${frame}.png`));
  const pictures = Object.values(files).map((bytes) => Buffer.from(bytes));
  for (const png of pictures) {
    expect(png.subarray(0, 8)).toEqual(Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]));
    // Width and height stand first in the header chunk (PNG, W3C recommendation, section 11.2.2).
    expect([png.readUInt32BE(16), png.readUInt32BE(20)]).toEqual([640, 360]);
    expect(png.length).toBeGreaterThan(10_000);
  }
  expect(new Set(pictures.map((png) => png.toString('base64'))).size).toBe(4);
});

test('GLB, OBJ and scene file are sound, and name the growths', async ({ page }) => {
  await openStarter(page);
  await goTo(page, 100);
  await order(page, /^GLB/);
  const glb = await make(page);
  expect(glb.name).toBe('kelp-frond_0100.glb');
  const report = await validateBytes(new Uint8Array(glb.bytes));
  expect(report.issues.messages.filter(({ severity }) => severity <= 1)).toEqual([]);

  await order(page, /^OBJ/);
  const group = new OBJLoader().parse((await make(page)).bytes.toString());
  expect(group.children.map(({ name }) => name)).toContain('Rose_tendril');

  await order(page, /Scene file/);
  const scene = readScene((await make(page)).bytes.toString());
  expect(scene.name).toBe('Kelp frond');
  expect(scene.growths.length).toBeGreaterThan(5);
});

test('a long export shows progress and is cancelled; wrong sizes are refused', async ({ page }) => {
  await openStarter(page);
  await order(page, /Film, MP4/, [1, 144]);
  await page.getByRole('textbox', { name: 'Width' }).fill('641');
  await expect(page.getByRole('alert')).toContainText('even');
  await expect(page.getByRole('button', { name: 'Make the file' })).toBeDisabled();
  await page.getByRole('textbox', { name: 'Width' }).fill('640');
  await page.getByRole('button', { name: 'Make the file' }).click();
  await expect(page.getByText(/[2-9] of 144 frames/)).toBeVisible();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByRole('button', { name: 'Make the file' })).toBeEnabled();
  await expect(page.getByRole('alert')).toHaveCount(0);
});

test('the growth table: a row a growth and frame, chosen by the arrow keys alone', async ({ page }) => {
  await openStarter(page);
  await page.getByRole('button', { name: 'Export', exact: true }).click();
  await page.getByRole('radio', { name: /Film, MP4/ }).focus();
  for (let i = 0; i < 5; i++) await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('radio', { name: /Growth table/ })).toBeFocused();
  await expect(page.getByRole('radio', { name: /Growth table/ })).toBeChecked();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByLabel('Width')).toHaveCount(0);
  await dialog.getByLabel('First frame').fill('10');
  await dialog.getByLabel('Last frame').fill('12');
  const file = await make(page);
  expect(file.name).toBe('kelp-frond.csv');
  const [head, ...rows] = Buffer.from(file.bytes).toString('utf8').trim().split('\r\n');
  expect(head).toMatch(/^frame,growth,share_grown,path_length_m,/);
  expect(new Set(rows.map((row) => row.split(',')[0]))).toEqual(new Set(['10', '11', '12']));
  // What grows is longer a frame later.
  const lengthAt = (frame: string): number =>
    Number(rows.find((row) => row.startsWith(`${frame},Kelp frond,`))!.split(',')[3]);
  expect(lengthAt('12')).toBeGreaterThan(lengthAt('10'));
});
