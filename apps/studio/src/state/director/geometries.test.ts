import type { Shown } from '@/worker/protocol';
import { Geometries } from './geometries';
import { shownPath } from './testing';

const MB = 1024 * 1024;
/** Something to show of about so many megabytes. */
const shownOf = (megabytes: number) => shownPath((megabytes * MB) / 4);

test('past the budget the longest unused are dropped and named, but never what is on screen', () => {
  const geometries = new Geometries();
  const dropped: string[] = [];
  geometries.onDrop = (keys) => dropped.push(...keys);
  const none = new Set<string>();
  geometries.add('screen', shownOf(200), none);
  geometries.add('old', shownOf(200), none);
  geometries.add('new', shownOf(200), new Set(['screen']));
  expect(dropped).toEqual(['old']);
  expect([geometries.has('screen'), geometries.has('old'), geometries.has('new')]).toEqual([true, false, true]);
});

test('reading counts as use', () => {
  const geometries = new Geometries();
  const dropped: string[] = [];
  geometries.onDrop = (keys) => dropped.push(...keys);
  for (const key of ['a', 'b']) geometries.add(key, shownOf(200), new Set());
  geometries.get('a');
  geometries.add('c', shownOf(200), new Set());
  expect(dropped).toEqual(['b']);
});

test('an array that several have in common counts once, until the last of them is gone', () => {
  const geometries = new Geometries();
  const dropped: string[] = [];
  geometries.onDrop = (keys) => dropped.push(...keys);
  const common = shownOf(300);
  for (const key of ['a', 'b', 'c']) geometries.add(key, { ...common }, new Set());
  geometries.add('small', shownOf(100), new Set());
  expect(dropped).toEqual([]);
  geometries.add('large', shownOf(300), new Set());
  // Only with the last of them does its room become free.
  expect(dropped).toEqual(['a', 'b', 'c']);
});

test('what comes again takes the place of what came before', () => {
  const geometries = new Geometries();
  const dropped: string[] = [];
  geometries.onDrop = (keys) => dropped.push(...keys);
  geometries.add('other', shownOf(200), new Set());
  for (let i = 0; i < 5; i++) geometries.add('again', shownOf(200), new Set());
  expect(dropped).toEqual([]);
});

test('every array counts, whatever it is an array of, and nothing but arrays', () => {
  const empty = shownOf(0);
  const floats = (megabytes: number): Float32Array => new Float32Array((megabytes * MB) / 4);
  const few = new Uint32Array(1);
  const skin = { normals: floats(1), indices: few, colors: null, glow: null, uvs: null, ball: null };
  const all: Record<string, Shown> = {
    skin: { ...empty, mesh: { ...skin, positions: floats(500), ball: { centre: [0, 0, 0], radius: 1 }, flat: true } },
    copies: { ...empty, copies: [{ item: 'a', matrices: floats(500), tints: null, ids: few }] },
    'copy numbers': {
      ...empty,
      copies: [{ item: 'a', matrices: floats(0), tints: null, ids: new Uint32Array((500 * MB) / 4) }],
    },
    points: { ...empty, dots: floats(500) },
    'point numbers': { ...empty, dotIds: new Uint32Array((500 * MB) / 4) },
    picture: { ...empty, picture: { width: 1, height: 1, rgba: new Uint8Array(500 * MB) } },
    texture: { ...empty, mesh: { ...skin, positions: floats(1), uvs: floats(500) } },
    tips: { ...empty, tips: { positions: floats(500), strengths: floats(0) } },
  };
  for (const [name, shown] of Object.entries(all)) {
    const geometries = new Geometries();
    const dropped: string[] = [];
    geometries.onDrop = (keys) => dropped.push(...keys);
    geometries.add(name, shown, new Set());
    geometries.add('small', { ...empty, mesh: { ...skin, positions: floats(2) } }, new Set());
    expect(dropped).toEqual([]);
    geometries.add('more', shownOf(100), new Set());
    expect(dropped).toEqual([name]);
  }
});
