import { isTrack } from './schema';
import { growingSteps, HUES, newGrowth, newId, newStep, unusedName } from './make';
import { LIMITS } from './limits';

test('ids are distinct, of letters and digits', () => {
  const ids = Array.from({ length: 500 }, newId);
  expect(new Set(ids).size).toBe(500);
  for (const id of ids) expect(id).toMatch(/^[a-z0-9]{12}$/);
});

test.each([
  ['Kelp', [], 'Kelp'],
  ['Kelp', ['Kelp'], 'Kelp 2'],
  ['Kelp', ['Kelp', 'Kelp 2'], 'Kelp 3'],
  ['Kelp 2', ['Kelp'], 'Kelp 2'],
  ['Kelp 2', ['Kelp 2'], 'Kelp 3'],
  ['Kelp 9', ['Kelp 9', 'Kelp 10'], 'Kelp 11'],
  ['12', ['12'], '12 2'],
  ['Bay 1234567', ['Bay 1234567'], 'Bay 1234567 2'],
])('%s beside %j is called %s', (base, taken, name) => {
  expect(unusedName(base, new Set(taken))).toBe(name);
});

test('a name as long as there may be stays so when it is counted', () => {
  const long = 'k'.repeat(LIMITS.name + 5);
  const first = unusedName(long, new Set());
  const second = unusedName(long, new Set([first]));
  expect([first.length, second.length]).toEqual([LIMITS.name, LIMITS.name]);
  expect(second).toMatch(/^k+ 2$/);
  expect(unusedName(second, new Set([first, second]))).toMatch(/^k+ 3$/);
});

test('hues go round, so that neighbours differ', () => {
  const hues = Array.from({ length: HUES.length + 1 }, (_, i) => newGrowth('x', i, []).hue);
  expect(new Set(hues).size).toBe(HUES.length);
  expect(hues[HUES.length]).toBe(hues[0]);
});

test("a step's defaults are its own: changing one step changes no other", () => {
  const [a, b] = [newStep('drawn'), newStep('drawn')];
  (a.params.anchors as never as number[][])[0][0] = 99;
  expect((b.params.anchors as never as number[][])[0][0]).toBe(0);
});

test('a new path grows within the range it is given', () => {
  for (const range of [
    [1, 144],
    [-20, 5],
    [0, 1],
  ] as const) {
    const [, grow] = growingSteps(newStep('line'), range);
    const { to } = grow.params;
    if (!isTrack(to)) throw new Error('not animated');
    expect(to.keys[0].frame).toBe(range[0]);
    expect(to.keys[1].frame).toBeGreaterThan(range[0]);
    expect(to.keys[1].frame).toBeLessThanOrEqual(range[1]);
  }
});

test('a kind that is not there is refused', () => {
  expect(() => newStep('melt')).toThrow(/no step/);
});
