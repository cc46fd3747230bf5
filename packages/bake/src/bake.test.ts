import { execFile } from 'node:child_process';
import { mkdir, mkdtemp, readFile, readdir, rm, stat, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { newGrowth, newScene, newStep, writeScene, type Scene } from '@uvrex/core';
import { readArgs } from './args';
import { writeWhole } from './frame';

const root = resolve(__dirname, '../../..');

/** Runs the real command, as a person would. */
function run(...args: string[]): Promise<{ code: number; out: string; error: string }> {
  return new Promise((done) => {
    execFile(process.execPath, ['packages/bake/bake.mjs', ...args], { cwd: root }, (error, out, err) =>
      done({ code: error ? Number(error.code) : 0, out, error: err }),
    );
  });
}

const reef = (): Scene => {
  const scene = newScene('Reef');
  const to = {
    keys: [
      { frame: 1, value: 0, ease: 'linear' as const },
      { frame: 11, value: 1, ease: 'linear' as const },
    ],
    before: 'hold' as const,
    after: 'hold' as const,
  };
  const steps = [newStep('line', { points: 30, toY: 3 }), newStep('grow', { to }), newStep('tube', { sides: 4 })];
  scene.growths = [
    newGrowth('Stem, tall', 0, steps),
    newGrowth('Coil', 1, [newStep('helix', { points: 40 }), newStep('noise')]),
  ];
  return scene;
};

async function sceneFile(scene: Scene = reef()): Promise<{ file: string; folder: string }> {
  const folder = await mkdtemp(join(tmpdir(), 'uvrex-bake-'));
  const file = join(folder, 'scene.json');
  await writeFile(file, writeScene(scene));
  return { file, folder };
}

/** Rows of the table without the one column that is a measurement of time. */
const rowsOf = async (folder: string): Promise<string[]> =>
  (await readFile(join(folder, 'growth.csv'), 'utf8'))
    .trim()
    .split('\r\n')
    .map((row) => row.replace(/,[^,]*(,[^,]*)$/, '$1'));

jest.setTimeout(120_000);

describe('npm run bake', () => {
  test('csv: measured growth, the same from one core or two and for one frame alone', async () => {
    const { file, folder } = await sceneFile();
    const [one, two, alone] = [join(folder, 'one'), join(folder, 'two'), join(folder, 'alone')];
    const first = await run(file, '--frames', '1-12', '--out', one, '--format', 'csv', '--cores', '1');
    expect(first).toMatchObject({ code: 0, error: '' });
    expect(first.out).toMatch(/12 of 12 frames/);
    await run(file, '--frames', '1-12', '--out', two, '--format', 'csv', '--cores', '2');
    await run(file, '--frames', '7', '--out', alone, '--format', 'csv');
    const rows = await rowsOf(one);
    expect(rows).toHaveLength(1 + 2 * 12);
    expect(await rowsOf(two)).toEqual(rows);
    expect((await rowsOf(alone)).slice(1)).toEqual(rows.filter((row) => row.startsWith('7,')));
    // The line is 3 m and grows evenly over ten frames.
    expect(rows.find((row) => row.startsWith('6,'))).toMatch(/^6,"Stem, tall",0\.500000,1\.500000,/);
    const hashes = rows.filter((row) => row.includes('Stem')).map((row) => row.split(',').at(-1));
    expect(new Set(hashes).size).toBe(11);
  });

  test('obj and glb: one file a frame, one growth when asked', async () => {
    const { file, folder } = await sceneFile();
    const out = join(folder, 'frames');
    expect((await run(file, '--frames', '3-4', '--out', out, '--format', 'obj', '--growth', 'Coil')).code).toBe(0);
    expect((await run(file, '--frames', '4', '--out', out, '--format', 'glb')).code).toBe(0);
    expect((await readdir(out)).sort()).toEqual([
      'frame_0003.obj',
      'frame_0004.glb',
      'frame_0004.obj',
      'manifest.json',
    ]);
    expect(await readFile(join(out, 'frame_0003.obj'), 'utf8')).toMatch(/o Coil\n(.*\n)*l 1 2 3/);
    expect((await readFile(join(out, 'frame_0004.glb'))).subarray(0, 4).toString()).toBe('glTF');
  });

  test('a bake that was broken off is resumed: what is done stays, what is missing or of another scene is made', async () => {
    const { file, folder } = await sceneFile();
    const out = join(folder, 'frames');
    const bakeAgain = (...more: string[]) =>
      run(file, '--frames=-1-3', '--out', out, '--format', 'obj', '--cores', '1', ...more);
    expect((await bakeAgain()).code).toBe(0);
    const names = ['frame_-0001.obj', 'frame_0000.obj', 'frame_0001.obj', 'frame_0002.obj', 'frame_0003.obj'];
    expect((await readdir(out)).sort()).toEqual([...names, 'manifest.json']);
    const original = await readFile(join(out, 'frame_0003.obj'), 'utf8');
    const madeAt = async (name: string) => (await stat(join(out, name))).mtimeMs;
    const before = await madeAt('frame_-0001.obj');
    // One frame is gone, and one was cut short.
    await rm(join(out, 'frame_0001.obj'));
    await writeFile(join(out, 'frame_0003.obj'), '# half');
    expect((await bakeAgain('--resume')).out).toMatch(/5 of 5 frames/);
    expect(await madeAt('frame_-0001.obj')).toBe(before);
    expect(await readFile(join(out, 'frame_0003.obj'), 'utf8')).toBe(original);
    expect((await readdir(out)).sort()).toEqual([...names, 'manifest.json']);
    // Another scene under the same names: nothing of the old one stays.
    const changed = reef();
    changed.growths[0].steps[2].params.sides = 5;
    await writeFile(file, writeScene(changed));
    expect((await bakeAgain('--resume')).code).toBe(0);
    expect(await madeAt('frame_-0001.obj')).toBeGreaterThan(before);
    expect(await readFile(join(out, 'frame_0003.obj'), 'utf8')).not.toBe(original);
  });

  test('two growths of one name are told apart, and each can be asked for', async () => {
    const scene = reef();
    scene.growths[1].name = 'Stem, tall';
    const { file, folder } = await sceneFile(scene);
    const out = join(folder, 'frames');
    await run(file, '--frames', '4', '--out', out, '--format', 'obj');
    expect(await readFile(join(out, 'frame_0004.obj'), 'utf8')).toMatch(/o Stem,_tall\n(.*\n)*o Stem,_tall_\(2\)\n/);
    await run(file, '--frames', '5', '--out', out, '--format', 'obj', '--growth', 'Stem, tall (2)');
    expect(await readFile(join(out, 'frame_0005.obj'), 'utf8')).toMatch(/l 1 2 3/);
  });

  test('bad input: exit code 1 and one sentence on what to do', async () => {
    const { file, folder } = await sceneFile();
    const common = ['--frames', '1-2', '--out', join(folder, 'x'), '--format', 'csv'];
    await writeFile(join(folder, 'broken.json'), '{"format": "uvrex-scene", "version": 1}');
    const results = await Promise.all([
      run(join(folder, 'none.json'), ...common),
      run(join(folder, 'broken.json'), ...common),
      run(file, ...common, '--growth', 'Fern'),
      run(file, '--frames', '9-2', '--out', folder, '--format', 'csv'),
      run(file, '--frames', '1', '--out', file, '--format', 'csv'),
    ]);
    expect(results.map(({ code }) => code)).toEqual([1, 1, 1, 1, 1]);
    expect(results[0].error).toMatch(/none\.json cannot be read/);
    expect(results[1].error).toMatch(/not sound at/);
    expect(results[2].error).toMatch(/no growth named “Fern”. It has “Stem, tall”, “Coil”/);
    expect(results[3].error).toMatch(/backwards/);
    expect(results[4].error).toMatch(/cannot be written/);
  });

  test('a step that fails in a worker ends the bake with its message', async () => {
    const scene = reef();
    scene.growths[1].steps[0] = newStep('shared');
    const { file, folder } = await sceneFile(scene);
    const { code, error } = await run(file, '--frames', '1-3', '--out', join(folder, 'x'), '--format', 'obj');
    expect(code).toBe(1);
    expect(error).toMatch(/growth “Coil”: No growth is chosen/);
  });
});

describe('its arguments', () => {
  test.each([
    [[], /No scene file/],
    [['a.json', 'b.json', '--frames', '1', '--out', 'x', '--format', 'obj'], /More than one/],
    [['a.json', '--frames', 'all', '--out', 'x', '--format', 'obj'], /--frames/],
    [['a.json', '--frames', '1-2', '--format', 'obj'], /--out/],
    [['a.json', '--frames', '1-2', '--out', 'x', '--format', 'stl'], /--format/],
    [['a.json', '--frames', '1-2', '--out', 'x', '--format', 'obj', '--cores', '0'], /--cores/],
    [['a.json', '--colour', '1'], /no option --colour/],
    [['a.json', '--frames', '1-999999999999', '--out', 'x', '--format', 'obj'], /between -100000 and 100000/],
  ])('%j is refused', (argv, reason) => {
    expect(() => readArgs(argv)).toThrow(reason);
  });

  test('negative frames are frames too', () => {
    expect(readArgs(['a.json', '--frames=-5-3', '--out', 'x', '--format', 'csv']).frames).toEqual([-5, 3]);
  });
});

test('places that take no folder, and what is no file, are told at once; a damaged manifest counts as none', async () => {
  const { file, folder } = await sceneFile();
  const rest = ['--frames', '1-2', '--format', 'obj'];
  const nowhere = await run(file, ...rest, '--out', '/proc/nope');
  expect(nowhere).toMatchObject({ code: 1, error: expect.stringMatching(/cannot be written: .*--out/s) });
  const device = await run('/dev/zero', ...rest, '--out', folder);
  expect(device).toMatchObject({ code: 1, error: expect.stringContaining('/dev/zero is no file') });
  const out = join(folder, 'out');
  expect((await run(file, ...rest, '--out', out)).code).toBe(0);
  for (const text of ['null', '{"of": 1', '{"frames": {"1": null}}']) {
    await writeFile(join(out, 'manifest.json'), text);
    expect((await run(file, ...rest, '--out', out, '--resume')).code).toBe(0);
  }
  expect((await readdir(out)).filter((name) => name.endsWith('.part'))).toEqual([]);
  await rm(folder, { recursive: true });
});

test('what cannot be written is told in a sentence, and leaves no half file', async () => {
  const folder = await mkdtemp(join(tmpdir(), 'uvrex-write-'));
  // A folder stands where the file would.
  await mkdir(join(folder, 'frame.obj'));
  await expect(writeWhole(join(folder, 'frame.obj'), 'v 0 0 0')).rejects.toThrow(/frame.obj cannot be written: /);
  expect(await readdir(folder)).toEqual(['frame.obj']);
  await rm(folder, { recursive: true });
});

test('--help says how it is written', async () => {
  const { code, out } = await run('--help');
  expect(code).toBe(0);
  for (const option of ['--frames', '--out', '--format', '--growth', '--resume', '--cores'])
    expect(out).toContain(option);
});
