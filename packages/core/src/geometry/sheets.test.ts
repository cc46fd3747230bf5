import { converter } from 'culori';
import { newStep } from '../scene/make';
import { form, line, withShipped } from '../../test/paths';
import { falseColours, VALUE_SCALE } from './falseColours';
import { type Sheet, sheetsOf, spreadOf } from './sheets';

withShipped();

const column = (sheet: Sheet, name: string, part: number | null = null): Float32Array =>
  sheet.columns.find((one) => one.name === name && one.part === part)!.values;

test('every kind of element has its sheet, as many rows as there are, and what steps have written', async () => {
  const made = await form([
    line(2, 11),
    newStep('tube', { radius: 0.1, sides: 8 }),
    newStep('measure', { what: 'height', scale: 'measured', name: 'level above ground' }),
  ]);
  const sheets = sheetsOf(made);
  expect(sheets.map(({ of }) => of)).toEqual(['vertices', 'points', 'paths']);
  const [vertices, points, paths] = sheets;
  expect([vertices.count, points.count, paths.count]).toEqual([made.mesh!.positions.length / 3, 11, 1]);
  const heights = column(vertices, 'level above ground');
  for (let i = 0; i < vertices.count; i++) {
    expect(heights[i]).toBeCloseTo(made.mesh!.positions[3 * i + 1], 6);
    expect(column(vertices, 'positions', 1)[i]).toBe(made.mesh!.positions[3 * i + 1]);
  }
  expect([...column(points, 's')].map((s) => Math.round(10 * s))).toEqual([0, 2, 4, 6, 8, 10, 12, 14, 16, 18, 20]);
  // What stands for none is none, not four thousand million.
  const tree = await form([newStep('colonise', { count: 60 })]);
  const parents = column(
    sheetsOf(tree).find(({ of }) => of === 'paths')!,
    'parent',
  );
  expect(parents.some(Number.isNaN)).toBe(true);
  expect(Math.max(...parents.filter((parent) => !Number.isNaN(parent)))).toBeLessThan(tree.paths!.ids.length);
});

test('least, most, mean and number leave out what has no value', () => {
  expect(spreadOf(Float32Array.of(3, NaN, 1, 2, NaN))).toEqual({ least: 1, most: 3, mean: 2, count: 3 });
  expect(spreadOf(Float32Array.of(NaN))).toBeNull();
});

test('the scale is even in Oklab and gets lighter all the way; an independent converter reads the colours', () => {
  // The table has 256 colours.
  const n = 51;
  const colours = falseColours(
    Array.from({ length: n + 1 }, (_, i) => 3 + i),
    3,
    3 + n,
  );
  const oklab = converter('oklab');
  const shades = Array.from({ length: n + 1 }, (_, i) => {
    const [r, g, b] = colours.subarray(3 * i, 3 * i + 3);
    return oklab({ mode: 'lrgb', r, g, b });
  });
  const steps = shades
    .slice(1)
    .map((lab, i) => Math.hypot(lab.l - shades[i].l, lab.a - shades[i].a, lab.b - shades[i].b));
  const mean = steps.reduce((sum, step) => sum + step, 0) / n;
  for (const step of steps) expect(Math.abs(step / mean - 1)).toBeLessThan(0.12);
  shades.slice(1).forEach((lab, i) => expect(lab.l).toBeGreaterThan(shades[i].l));
  expect(VALUE_SCALE[0].at).toBe(0);
  // Beyond its ends it stays; what has no value is grey.
  const [under, over, none] = [falseColours([0], 3, 4), falseColours([9], 3, 4), falseColours([NaN], 3, 4)];
  expect(under).toEqual(colours.slice(0, 3));
  expect(over).toEqual(colours.slice(-3));
  expect(new Set(none).size).toBe(1);
});
