import type { Shown } from '@/worker/protocol';
import { Geometries } from './geometries';

const MB = 1024 * 1024;
/** Something to show of about so many megabytes. */
const shownOf = (megabytes: number): Shown => ({
  mesh: null,
  paths: {
    positions: new Float32Array((megabytes * MB) / 4),
    offsets: new Uint32Array(2),
    closed: new Uint8Array(1),
    fronts: new Uint8Array(1),
    ids: new Uint32Array(1),
    u: new Float32Array(2),
  },
  copies: [],
  copiesSphere: null,
  dots: null,
  dotIds: null,
  surface: null,
});

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
