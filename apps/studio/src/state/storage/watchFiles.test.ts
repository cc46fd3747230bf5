import 'fake-indexeddb/auto';
import { newGrowth, newScene, newStep } from '@uvrex/core';
import { openScene, sceneNow, travel } from '../document/document';
import { say } from '../toasts';
import { filePicker, checkFiles, pickFile } from './watchFiles';
import { endWatching, useWatched } from './watched';

jest.mock('../toasts');

let content = 'day;tide\n1;2\n';
let changed = 1;
let gone = false;
const handle = {
  getFile: async () => {
    if (gone) throw new DOMException('gone', 'NotFoundError');
    return new File([content], 'tides.csv', { lastModified: changed });
  },
} as unknown as FileSystemFileHandle;
const pick = jest.fn(async () => [handle]);
const write = (text: string): void => {
  content = text;
  changed++;
};
const named = (): unknown[] => sceneNow().growths.flatMap(({ steps }) => steps.map(({ params }) => params.file));

let id: string;
beforeEach(async () => {
  gone = false;
  globalThis.document = { visibilityState: 'visible' } as Document;
  globalThis.addEventListener = globalThis.removeEventListener = () => undefined;
  openScene('one', newScene('Reef'));
  write('day;tide\n1;2\n');
  id = (await pickFile('table', pick))!;
  const scene = structuredClone(sceneNow());
  scene.growths.push(
    newGrowth('Bars', 0, [newStep('table-lines', { file: id })]),
    newGrowth('Others', 1, [newStep('table-lines'), newStep('table-values', { file: id })]),
  );
  openScene('one', scene);
  jest.mocked(say).mockClear();
});
afterEach(endWatching);

test('a file that has changed is reloaded by every step that names it, as one entry of undo', async () => {
  expect(useWatched.getState().ids).toEqual(new Set([id]));
  await checkFiles();
  expect(named()).toEqual([id, 'shipped:reef-tides', id]);
  write('day;tide\n1;3\n');
  await checkFiles();
  const [next] = named();
  expect(next).not.toBe(id);
  expect(named()).toEqual([next, 'shipped:reef-tides', next]);
  expect(sceneNow().files.map(({ id: of, name, kind }) => [of, name, kind])).toContainEqual([
    next,
    'tides.csv',
    'table',
  ]);
  expect(say).toHaveBeenCalledWith({ tone: 'info', text: '“tides.csv” has changed and was reloaded.' });
  // Undone, it stays as it was until the file changes once more.
  travel('undo');
  expect(named()).toEqual([id, 'shipped:reef-tides', id]);
  await checkFiles();
  expect(named()[0]).toBe(id);
  write('day;tide\n1;4\n');
  await checkFiles();
  expect([id, next]).not.toContain(named()[0]);
});

test('written anew with the same bytes it changes nothing; one that is gone leaves what was read', async () => {
  write(content);
  await checkFiles();
  expect(named()[0]).toBe(id);
  expect(say).not.toHaveBeenCalled();
  gone = true;
  await checkFiles();
  expect(named()[0]).toBe(id);
  expect(useWatched.getState().ids.size).toBe(0);
});

test('a scene that is closed while its file is read keeps what it had', async () => {
  write('day;tide\n1;9\n');
  const checking = checkFiles();
  endWatching();
  await checking;
  expect(named()[0]).toBe(id);
});

test('where nothing is chosen nothing happens; where the browser has no chooser of its own there is none', async () => {
  pick.mockRejectedValueOnce(new DOMException('none', 'AbortError'));
  expect(await pickFile('table', pick)).toBeNull();
  pick.mockRejectedValueOnce(new DOMException('no', 'SecurityError'));
  await expect(pickFile('table', pick)).rejects.toThrow('No file could be chosen: no');
  expect(filePicker()).toBeUndefined();
});
