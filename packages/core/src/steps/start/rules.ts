import { defineStep, type NumberParam, numberField, type ParamSpecs, type ParamsOf } from '../declare';
import { figure } from '../../format';

const degrees = numberField({ unit: 'deg', min: -360, max: 360 });
const angle = (label: string, help: string, value: number, more: Partial<NumberParam> = {}): NumberParam =>
  degrees(label, help, value, more);

const params = {
  axiom: {
    type: 'text',
    label: 'Axiom',
    help: 'What it begins with. F draws a line, f leaves a gap; + and − turn left and right, ^ and & up and down, \\ and / roll, | turns back, $ levels; [ and ] begin and end a branch; ! thins, ’ goes to the next colour; { and } frame a sheet. Other letters are buds.',
    default: 'A',
    most: 200,
    rows: 'Axiom',
  },
  rules: {
    type: 'text',
    label: 'Rules',
    help: 'What becomes of symbols in each generation, one rule a line: A -> F[+A][-A]. Parameters: A(x) : x > 1 -> F(x)A(x / 2). Odds: A -0.3-> FA. What stands before and after: B < A > C -> FA. What follows # is a comment.',
    default: 'A -> F[+A]F[-A]\\A',
    most: 4000,
    rows: 'Rule',
  },
  generations: {
    type: 'number',
    unit: 'plain',
    label: 'Generations',
    help: 'How many times the rules are gone through; parts of one show it growing. Animate it for growth that never jumps.',
    default: 5,
    min: 0,
    max: 40,
    slider: [0, 10],
  },
  growing: {
    type: 'number',
    unit: 'plain',
    label: 'Growth time in generations',
    help: 'Generations over which a line grows to its length and a turn opens.',
    default: 1,
    min: 1,
    max: 20,
    slider: [1, 5],
  },
  line: {
    type: 'number',
    unit: 'm',
    label: 'Line length',
    help: 'Length of a line that the rules say nothing of.',
    default: 0.2,
    min: 0,
    max: 1000,
    slider: [0.01, 1],
  },
  shorter: {
    type: 'number',
    unit: 'share',
    label: 'Length ratio',
    help: 'How long lines of one generation are, of those of the one before.',
    default: 0.8,
    min: 0.01,
    max: 4,
    slider: [0.2, 1],
  },
  thinner: {
    type: 'number',
    unit: 'share',
    label: 'Thickness ratio',
    help: 'How thick it goes on after a !, of what it was.',
    default: 0.7,
    min: 0,
    max: 4,
    slider: [0.2, 1],
  },
  angle: angle('Angle', 'How far + − & ^ \\ / turn where the rules say nothing of it.', 28, { slider: [0, 120] }),
  vary: angle('Vary angle', 'How far each turn differs at most, by chance.', 0, { min: 0, slider: [0, 45] }),
  rising: {
    type: 'number',
    unit: 'deg',
    label: 'Upward bend',
    help: 'How far lines turn upwards along each metre; below 0 they droop.',
    default: 0,
    min: -3600,
    max: 3600,
    slider: [-90, 90],
  },
  marks: {
    type: 'text',
    label: 'Points at',
    help: 'Symbols that leave a point behind, for On the points to put leaves and blossoms on.',
    default: '',
    most: 20,
  },
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type RulesParams = ParamsOf<typeof params>;

export const rules = defineStep({
  kind: 'rules',
  family: 'start',
  label: 'Branching rules',
  use: 'Branches and webs',
  icon: 'M10 17V11M10 11 5 8M10 11 15 8M5 8V4M5 8 2 6.5M15 8V4M15 8 18 6.5',
  help: 'Grows by rules of rewriting, generation by generation: ferns, corals, fractal lines. What came last is still growing, so that nothing jumps.',
  takes: [],
  gives: ['paths'],
  params,
  many: true,
  paced: 'generations',
  writes: () => ['generation'],
  presets: async () => (await import('./rulesPresets')).rulesPresets(),
  summary: (p) => `${figure(p.generations, 1)} generations`,
  async run(form, p, context) {
    const { runRules } = await import('./runRules');
    return runRules(form, p, context);
  },
});
