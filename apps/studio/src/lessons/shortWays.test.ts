import { readFileSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { countsOf, Evaluator, newScene, SHIPPED_FILES, type ShippedId } from '@uvrex/core';
import { CUTTINGS } from '@uvrex/core/cuttings';
import { plant } from '@/state/actions/cuttings';
import { openScene, sceneNow } from '@/state/document/document';
import { select } from '@/state/document/view';
import { FIRST_GROWTH, LESSONS } from './lessons';
import { playMoves } from './play';
import { actionsIn, actionsOf, SHORT_WAYS } from './shortWays';

jest.mock('@/state/toasts', () => ({ say: jest.fn(), sayProblem: jest.fn() }));

const ROOT = join(__dirname, '../../../..');
const shipped = (id: ShippedId): Promise<Uint8Array> =>
  readFile(join(ROOT, 'examples/assets', SHIPPED_FILES[id].file)).then((bytes) => new Uint8Array(bytes));
const JOBS = LESSONS.filter((lesson) => lesson !== FIRST_GROWTH);

test('every job has a short way, and no other has', () => {
  expect(Object.keys(SHORT_WAYS).sort()).toEqual(JOBS.map(({ id }) => id).sort());
});

test.each(JOBS.map((lesson) => [lesson.id, lesson] as const))(
  '%s takes 40 actions at most, and 10 with cuttings, which come to something that is seen without a complaint',
  async (id, lesson) => {
    expect(actionsIn(lesson)).toBeLessThanOrEqual(40);
    expect(actionsOf(SHORT_WAYS[id])).toBeLessThanOrEqual(10);
    openScene('short', newScene(lesson.title));
    for (const move of SHORT_WAYS[id])
      if ('cutting' in move) {
        const [first] = sceneNow().growths;
        if (first) select(first.id);
        plant(CUTTINGS.find((cutting) => cutting.id === move.cutting)!);
      } else playMoves([move]);
    const scene = sceneNow();
    const { growths } = await new Evaluator({ now: () => 0, shipped }).evaluate(
      scene,
      Math.round(0.7 * scene.range[1]),
    );
    let faces = 0;
    for (const { notices, form } of growths) {
      expect(notices.filter(({ level }) => level !== 'note')).toEqual([]);
      faces += form ? countsOf(form).faces + (form.mesh?.indices.length ?? 0) / 3 : 0;
    }
    expect(faces).toBeGreaterThan(50);
  },
);

test('docs/lessons.md has the count of each', () => {
  const docs = readFileSync(join(ROOT, 'docs/lessons.md'), 'utf8').replace(/ +/g, ' ');
  for (const lesson of JOBS)
    expect(docs).toContain(`| ${lesson.title} | ${actionsIn(lesson)} | ${actionsOf(SHORT_WAYS[lesson.id])} |`);
});
