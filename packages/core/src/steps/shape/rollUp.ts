import { defineStep, type NumberParam, numberField, type ParamSpecs, type ParamsOf } from '../declare';
import { metres, percent } from '../../format';
import { MOVABLE } from './movable';

const lengthField = numberField({ unit: 'm', min: 0, max: 1000 });
const length = (label: string, help: string, value: number, slider: [number, number]): NumberParam =>
  lengthField(label, help, value, { slider });

const params = {
  amount: {
    type: 'number',
    unit: 'share',
    label: 'Rolled up',
    help: 'How much of what may roll is rolled up.',
    default: 0.8,
    min: 0,
    max: 1,
  },
  from: {
    type: 'choice',
    label: 'From',
    help: 'Where the core of the roll is.',
    options: [
      { value: 'top', label: 'Its top' },
      { value: 'foot', label: 'Its foot' },
      { value: 'both', label: 'Both ends' },
      { value: 'middle', label: 'Its middle' },
    ],
    default: 'top',
  },
  exempt: {
    ...length('Stalk', 'Length at the foot that never rolls.', 0.05, [0, 1]),
    shown: (p) => p.from === 'top' || p.from === 'middle',
  },
  core: length(
    'Core',
    'Radius that the roll leaves free inside, more than half its own thickness; rolled from the middle, what its bends there keep to.',
    0.02,
    [0, 0.3],
  ),
  apart: length(
    'Turns apart',
    'From each turn to the next, middle to middle; more than its own thickness.',
    0.02,
    [0, 0.2],
  ),
  towards: {
    type: 'number',
    unit: 'deg',
    label: 'Towards',
    help: 'Direction in which it rolls, about the vertical; 0 is to the front.',
    default: 0,
    min: -36000,
    max: 36000,
    slider: [-180, 180],
  },
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type RollUpParams = ParamsOf<typeof params>;

export const rollUp = defineStep({
  kind: 'roll-up',
  family: 'shape',
  label: 'Roll up',
  icon: 'M4 18V9A5.5 5.5 0 0 1 15 9 4 4 0 0 1 7 9 2.5 2.5 0 0 1 12 9',
  help: 'Rolls what is upright into a spiral that does not cut through itself, as many turns as it takes, from its top, its foot, both or its middle. Animate how much, and it unrolls.',
  takes: [],
  takesOne: MOVABLE,
  gives: [],
  params,
  summary: (p) => `${percent(p.amount)}, turns ${metres(p.apart)} apart`,
  async run(form, p, context) {
    const { runRollUp } = await import('./runRollUp');
    return runRollUp(form, p, context);
  },
});
