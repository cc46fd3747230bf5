import { readFileSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Evaluator, faultOfScene, newScene, stepOf } from '@uvrex/core';

import { useDocument, openScene, travel } from '@/state/document/document';
import { isDone, type Move } from './lesson';
import { FIRST_GROWTH, LESSONS } from './lessons';
import { playMoves } from './play';
import { SEA_FERN } from './values';

jest.mock('@/state/toasts', () => ({ say: jest.fn(), sayProblem: jest.fn() }));

const scene = () => useDocument.getState().scene;
const plain = (text: string): string => text.replace(/\s+/g, ' ');
const shipped = (name: string): Promise<Uint8Array> =>
  readFile(join(__dirname, `../../../../examples/assets/${name}.ply`)).then((bytes) => new Uint8Array(bytes));
const seen = (move: Move): boolean => 'play' in move;

describe.each(LESSONS.map((lesson) => [lesson.id, lesson] as const))('%s', (_, lesson) => {
  test('every step is to do at first, is done by “Do it for me”, and stays sound and without a complaint', async () => {
    openScene('lesson', newScene(lesson.title));
    for (const { moves } of lesson.steps) {
      const open = moves.filter((move) => !seen(move));
      if (open.length > 0) expect(open.every((move) => isDone(scene(), move))).toBe(false);
      playMoves(open);
      for (const move of open) expect([move, isDone(scene(), move)]).toEqual([move, true]);
    }
    expect(faultOfScene(scene())).toBeNull();
    const { growths } = await new Evaluator({ now: () => 0, shipped }).evaluate(scene(), scene().range[1]);
    for (const { notices, form } of growths) {
      expect(notices.filter(({ level }) => level !== 'note')).toEqual([]);
      expect(form).not.toBeNull();
    }
  });

  test('names steps and fields that there are', () => {
    for (const { moves } of lesson.steps)
      for (const move of moves) {
        const kind =
          'set' in move
            ? move.set
            : 'put' in move
              ? move.put
              : 'add' in move
                ? move.add
                : 'begin' in move
                  ? move.begin
                  : null;
        if (kind === null) continue;
        const declaration = stepOf(kind);
        expect(declaration).toBeDefined();
        for (const name of Object.keys('set' in move || 'put' in move ? move.values : {}))
          expect(declaration!.params).toHaveProperty(name);
      }
  });
});

test('their texts are those of docs/lessons.md, word for word', () => {
  const docs = plain(readFileSync(join(__dirname, '../../../../docs/lessons.md'), 'utf8'));
  for (const lesson of LESSONS)
    if (lesson !== FIRST_GROWTH) for (const { text } of lesson.steps) expect(docs).toContain(plain(text));
});

test('a value that is typed another way is the same; another value is not', () => {
  openScene('lesson', newScene('Lesson'));
  playMoves([{ begin: 'line' }]);
  const is = (toY: number | { formula: string }): Move => ({ set: 'line', of: 'Line', values: { toY } });
  playMoves([is({ formula: 'frame / 24' })]);
  expect(isDone(scene(), is({ formula: 'frame/24' }))).toBe(true);
  expect(isDone(scene(), is({ formula: 'frame/25' }))).toBe(false);
  expect(isDone(scene(), is(1))).toBe(false);
  playMoves([is(0.1 + 0.2)]);
  expect(isDone(scene(), is(0.3))).toBe(true);
});

test('what was done for one can be undone', () => {
  openScene('lesson', newScene('Lesson'));
  playMoves(LESSONS[1].steps[0].moves);
  while (travel('undo'));
  expect(scene().growths).toEqual([]);
});

test('the fern of the lesson is the preset of that name', async () => {
  const preset = (await stepOf('rules')!.presets!()).find(({ label }) => label === 'Sea fern')!;
  const { thinner, ...rest } = preset.params;
  expect(thinner).not.toBe(1);
  expect(SEA_FERN).toEqual(rest);
});
