import { readRules } from '../packages/core/src/curves/rules/parse';
import { expanded } from '../packages/core/src/curves/rules/expand';
import { drawn } from '../packages/core/src/curves/rules/turtle';
import { pipeSizes } from '../packages/core/src/geometry/branches';
import { pointCount } from '../packages/core/src/geometry/paths';
import { exponent, median, type Row } from './harness';

const system = readRules('A(1)', 'A(x) -> F(x)[+A(x * 0.7)]F(x)[-A(x * 0.7)]/A(x * 0.8)');
const length = (): number => 1;
const grow = (generations: number): ReturnType<typeof expanded> =>
  expanded(system, { generations, seed: 1, most: 1_000_000, length, growing: 1 });
const draw = (symbols: Awaited<ReturnType<typeof grow>>, age: number): ReturnType<typeof drawn> =>
  drawn(symbols, {
    age,
    growing: 1,
    length,
    angle: 0.5,
    vary: 0,
    thinner: 0.7,
    rising: 0.2,
    marks: new Set(),
    seed: 1,
  });

/** Branching rules worked and drawn, and what their branches carry. */
export async function benchBranching(): Promise<Row[]> {
  const symbols = await grow(8);
  const paths = draw(symbols, 8).paths!;
  return [
    {
      what: 'branching rules worked through 8 generations',
      ours: await median(() => grow(8), 5),
      theirs: null,
      amount: symbols.letters.length,
      unit: 'symbols',
    },
    {
      what: 'the same drawn, as at every frame',
      ours: await median(() => draw(symbols, 7.5), 7),
      theirs: null,
      amount: symbols.letters.length,
      unit: 'symbols',
    },
    {
      what: 'what its branches carry',
      ours: await median(() => pipeSizes(paths, { exponent: 2.4, tip: 0.2, over: 0.2, flare: 0.1 }), 7),
      theirs: null,
      amount: pointCount(paths),
      unit: 'points',
    },
  ];
}

/** What the cost of branching grows with: each generation has three times the symbols of the one before. */
export const branchingExponents = async (): Promise<(readonly [string, number])[]> => [
  [
    'branching rules, symbols',
    await exponent([3 ** 5, 3 ** 6, 3 ** 7, 3 ** 8], (n) =>
      median(() => grow(Math.round(Math.log(n) / Math.log(3))), 3),
    ),
  ],
];
