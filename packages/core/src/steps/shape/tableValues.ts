import { Problem } from '../../problem';
import { shippedOf } from '../../scene/shippedFiles';
import { defineStep, is, numberField, type ParamSpecs, type ParamsOf } from '../declare';

const between = numberField({ unit: 'plain', min: -1e9, max: 1e9, slider: [0, 100] });

const params = {
  file: {
    type: 'file',
    kind: 'table',
    label: 'Table',
    help: 'A CSV file.',
    shipped: shippedOf('table'),
    default: 'shipped:reef-tides',
  },
  column: {
    type: 'text',
    label: 'Column',
    help: 'Name of the column, or its number; the first with numbers where it is empty.',
    default: '',
    most: 80,
  },
  on: {
    type: 'choice',
    label: 'Rows are',
    help: 'Whether each row is a path, a copy, a loose point, or a point of the paths, in the order in which they come.',
    options: [
      { value: 'paths', label: 'Paths' },
      { value: 'copies', label: 'Copies' },
      { value: 'points', label: 'Points' },
      { value: 'nodes', label: 'Points of paths' },
    ],
    default: 'paths',
  },
  repeat: {
    type: 'toggle',
    label: 'Repeat',
    help: 'Begins again with the first row where there are more of them than rows; else these have 0.',
    default: true,
  },
  scale: {
    type: 'choice',
    label: 'Scale',
    help: 'As they stand in the table; or as a share, from 0 at the least to 1 at the most, or between two values.',
    options: [
      { value: 'share', label: 'Least 0, most 1' },
      { value: 'between', label: 'Between values' },
      { value: 'measured', label: 'As in the table' },
    ],
    default: 'share',
  },
  low: { ...between('Map to 0 at', 'Value that becomes 0.', 0), shown: is('scale', 'between') },
  high: { ...between('Map to 1 at', 'Value that becomes 1.', 100), shown: is('scale', 'between') },
  name: {
    type: 'text',
    label: 'Attribute name',
    help: 'Name of the attribute; “value” where it is empty.',
    default: '',
    most: 40,
  },
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type TableValuesParams = ParamsOf<typeof params>;

/** The name under which the values are kept. */
export const valuesKeptAs = (p: { name: string }): string => p.name.trim() || 'value';

export const tableValues = defineStep({
  kind: 'table-values',
  family: 'shape',
  label: 'Values from a table',
  icon: 'M3 4H17V16H3ZM3 8H17M3 12H17M8 4V16',
  help: 'Gives paths, copies or points a value each from a table (CSV), as an attribute for later steps to go by: heights, sizes, colours, levels, offsets.',
  takes: [],
  takesOne: ['paths', 'points', 'copies'],
  gives: [],
  params,
  writes: (p) => [valuesKeptAs(p)],
  summary: (p) => (p.file === null ? 'no table chosen' : `as ${valuesKeptAs(p)}`),
  async run(form, p, context) {
    if (p.file === null) throw new Problem('No table is chosen.', 'Load a CSV file.');
    const { runTableValues } = await import('./runTableValues');
    return runTableValues(form, p, await context.file(p.file));
  },
});
