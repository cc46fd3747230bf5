import { foundIn } from './found';
import type { Section } from './Picker';

const section = (title: string, ...entries: [label: string, help?: string, off?: string][]): Section => ({
  ...{ title, as: 'rows' },
  entries: entries.map(([label, help, off]) => ({ id: label, label, help, off, run: () => undefined })),
});
const ALL = [
  section('Shape', ['Settle', 'Puts paths along a direction.'], ['Wave', 'Along the path.']),
  section(
    'Place',
    ['On the points'],
    ['Along the paths', 'Copies.'],
    ['Time offset', 'Along the paths, later.', 'No copies.'],
  ),
];
const labels = (query: string): string[] =>
  foundIn(ALL, query).flatMap(({ entries }) => entries.map(({ label }) => label));

test('what is called so comes first, whatever section it stands in', () => {
  expect(labels('along the paths')).toEqual(['Along the paths', 'Time offset']);
  expect(labels('along')[0]).toBe('Along the paths');
  expect(labels('along')).toContain('Settle');
});

test('what cannot be picked comes last of its section', () => {
  expect(labels('paths').at(-1)).not.toBe('Along the paths');
  expect(labels('later')).toEqual(['Time offset']);
});

test('of what cannot be picked, what is called so comes first too', () => {
  const off = section('Steps', ['Front', 'As a falloff.', 'no growth'], ['Add step: falloff', '', 'no growth']);
  expect(foundIn([off], 'falloff')[0].entries.map(({ label }) => label)).toEqual(['Add step: falloff', 'Front']);
});

test('a hyphen is as good as a space', () => {
  expect(labels('time-offset')).toEqual(['Time offset']);
});

test('where nothing is typed everything stands where it stood', () => {
  expect(labels('')).toEqual(['Settle', 'Wave', 'On the points', 'Along the paths', 'Time offset']);
});
