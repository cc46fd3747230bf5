import { strToU8, unzipSync, zipSync } from 'fflate';
import { bytesToHex } from '@noble/hashes/utils.js';
import { sceneOf } from '../testing';
import { newGrowth, newScene, newStep } from './make';
import { fileId, packScenes, readSceneFile, writeSceneFile } from './sceneFile';
import { LIMITS } from './limits';
import { asVersion4 } from '../../test/oldScenes';

const DRAWING = strToU8('<svg><path d="M0 0H5V3Z"/></svg>');
const ID = fileId(DRAWING);
const scene = () => ({
  ...sceneOf([newStep('vector', { drawing: ID })]),
  files: [{ id: ID, name: 'buoy.svg', kind: 'svg' as const }],
});
const written = () => writeSceneFile(scene(), async (id) => (id === ID ? DRAWING : undefined));
const problem = (bytes: Uint8Array): Promise<string> =>
  readSceneFile(bytes).then(
    () => 'it was taken',
    (error: Error) => error.message,
  );

// The BLAKE3 paper's test vectors (official test_vectors.json): input of length 0 hashes to af1349b9f5f9a1a6a0404dea36dcc949….
test('files are named by BLAKE3 over their bytes', () => {
  expect(fileId(new Uint8Array(0))).toBe('af1349b9f5f9a1a6a0404dea36dcc949');
});

test('a scene with files is a zip of itself and its files as they are, and comes back the same', async () => {
  const { bytes, ending } = await written();
  expect(ending).toBe('zip');
  const entries = unzipSync(bytes);
  expect(Object.keys(entries).sort()).toEqual([`files/${ID}.svg`, 'scene.json']);
  expect(bytesToHex(entries[`files/${ID}.svg`])).toBe(bytesToHex(DRAWING));
  const read = await readSceneFile(bytes);
  expect(read.scene).toEqual(scene());
  expect(read.files.get(ID)).toEqual(DRAWING);
});

test('a scene without files is plain JSON; a file that no step uses stays behind', async () => {
  const unused = { ...scene(), growths: [] };
  const { bytes, ending } = await writeSceneFile(unused, async () => undefined);
  expect(ending).toBe('json');
  expect((await readSceneFile(bytes)).scene).toEqual({ ...unused, files: [] });
});

test('a scene of version 3, with its files inside in base64, loses nothing', async () => {
  const { camera, ...rest } = scene();
  const { travel: _, ...straight } = camera;
  const then = { ...rest, camera: straight };
  const old = asVersion4(then);
  const asset = (id: string) => ({ id, name: 'buoy.svg', kind: 'svg', data: Buffer.from(DRAWING).toString('base64') });
  const text = JSON.stringify({
    ...old,
    files: undefined,
    version: 3,
    assets: [asset('svg-1'), asset('svg-2')],
  }).replace(`"drawing":"${ID}"`, '"drawing":"svg-2"');
  const read = await readSceneFile(strToU8(text));
  expect(read.scene).toEqual(then);
  expect(read.files.get(ID)).toEqual(DRAWING);
});

test('a file that is not at hand is told, not left out', async () => {
  await expect(writeSceneFile(scene(), async () => undefined)).rejects.toThrow(/“buoy.svg” is not on this device/);
});

test('damaged, foreign and greedy zips are refused with what is wrong', async () => {
  const { bytes } = await written();
  const entries = unzipSync(bytes);
  expect(await problem(bytes.slice(0, 60))).toMatch(/zip cannot be read/);
  expect(await problem(zipSync({ 'a.txt': DRAWING }))).toMatch(/no scene\.json/);
  expect(await problem(zipSync({ 'scene.json': entries['scene.json'] }))).toMatch(/lacks the file “buoy.svg”/);
  expect(await problem(zipSync({ ...entries, [`files/${ID}.svg`]: strToU8('<svg/>') }))).toMatch(/damaged/);
  expect(await problem(zipSync({ 'scene.json': new Uint8Array(70_000_000) }, { level: 1 }))).toMatch(
    /64 MB is the most/,
  );
  expect(await problem(strToU8('kelp'))).toMatch(/not a JSON file/);
});

test('more scenes than a zip may hold are not packed', async () => {
  const many = Array.from({ length: LIMITS.zipScenes + 1 }, () => sceneOf([]));
  await expect(packScenes(many, async () => undefined)).rejects.toThrow('501 scenes are too many for one zip');
});

test('pictures are named by what they are in the zip', async () => {
  const [png, jpeg] = [Uint8Array.of(0x89, 0x50, 1), Uint8Array.of(0xff, 0xd8, 2)];
  const pictured = newScene('Pictured');
  const files = new Map([png, jpeg].map((bytes) => [fileId(bytes), bytes]));
  pictured.files = [...files.keys()].map((id) => ({ id, name: 'leaf', kind: 'picture' }));
  pictured.growths = [
    newGrowth('Leaf', 0, [newStep('blade'), ...[...files.keys()].map((file) => newStep('skin-picture', { file }))]),
  ];
  const { bytes } = await writeSceneFile(pictured, async (id) => files.get(id));
  expect(Object.keys(unzipSync(bytes)).sort()).toEqual(
    ['scene.json', `files/${fileId(png)}.png`, `files/${fileId(jpeg)}.jpg`].sort(),
  );
  expect((await readSceneFile(bytes)).files).toEqual(files);
});
