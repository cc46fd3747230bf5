import { Problem } from '../../problem';
import { shippedOf } from '../../scene/shippedFiles';
import { defineStep, is, numberField, type ParamSpecs, type ParamsOf } from '../declare';
import { startWith } from './startWith';

const length = numberField({ unit: 'm', min: 0, max: 1000 });

const params = {
  file: {
    type: 'file',
    kind: 'table',
    label: 'Table',
    help: 'A CSV file: each row becomes a line.',
    shipped: shippedOf('table'),
    default: 'shipped:reef-tides',
  },
  column: {
    type: 'text',
    label: 'Column',
    help: 'Name of the column that heights go by, or its number; the first with numbers where it is empty.',
    default: '',
    most: 80,
  },
  stand: {
    type: 'choice',
    label: 'Arrangement',
    help: 'Side by side in a row, in a circle outwards, or in a ring upright.',
    options: [
      { value: 'row', label: 'Row' },
      { value: 'rays', label: 'Rays' },
      { value: 'ring', label: 'Ring' },
    ],
    default: 'row',
  },
  height: length('Height', 'Of the highest; others in proportion to it.', 1.5, { slider: [0.1, 4] }),
  least: length('Base height', 'Length that each has even at a value of 0.', 0, { slider: [0, 1] }),
  apart: length('Apart', 'From one to the next.', 0.08, { slider: [0.01, 1], shown: is('stand', 'row') }),
  radius: length('Radius', 'Of the circle that they stand on.', 0.6, {
    slider: [0, 3],
    shown: is('stand', 'rays', 'ring'),
  }),
  points: {
    type: 'number',
    unit: 'count',
    label: 'Points',
    help: 'How many points each line is made of.',
    default: 24,
    min: 2,
    max: 10_000,
    slider: [2, 100],
    whole: true,
  },
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type TableLinesParams = ParamsOf<typeof params>;

export const tableLines = defineStep({
  kind: 'table-lines',
  family: 'start',
  label: 'Lines from a table',
  use: 'Letters and drawings',
  icon: 'M4 17V12M8 17V7M12 17V10M16 17V4M2.5 17H17.5',
  help: 'A line for each row of a table (CSV), as high as its value: bars, stems, rays. The values stay as the attribute “value”, for colours and levels to go by.',
  takes: [],
  gives: ['paths'],
  params,
  writes: () => ['value'],
  summary: (p) => (p.file === null ? 'no table chosen' : p.column === '' ? 'by its first numbers' : `by ${p.column}`),
  async run(form, p, context) {
    if (p.file === null) throw new Problem('No table is chosen.', 'Load a CSV file.');
    const { runTableLines } = await import('./runTableLines');
    return startWith(form, await runTableLines(p, context));
  },
});
