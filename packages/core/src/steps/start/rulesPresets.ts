import { rewrite } from '../../curves/rules/expand';
import { readRules } from '../../curves/rules/parse';
import { drawn } from '../../curves/rules/turtle';
import type { StepPreset } from '../declare';
import { drawingOf } from './rulesDrawing';

interface Ready {
  label: string;
  axiom: string;
  rules: string;
  generations: number;
  angle: number;
  line: number;
  shorter?: number;
  thinner?: number;
  rising?: number;
  vary?: number;
  growing?: number;
  marks?: string;
}

const READY: readonly Ready[] = [
  {
    label: 'Sea fern',
    axiom: 'A(0.16)',
    rules:
      'A(x) : x > 0.02 -> F(x)[!+B(x * 0.75)][!-B(x * 0.75)]\\(6)A(x * 0.93)\nB(x) : x > 0.02 -> F(x)[!+C(x * 0.5)][!-C(x * 0.5)]B(x * 0.88)\nC(x) : x > 0.012 -> F(x)C(x * 0.8)',
    generations: 20,
    angle: 46,
    line: 0.16,
    shorter: 1,
    thinner: 0.55,
    rising: 20,
    growing: 3,
  },
  {
    label: 'Staghorn',
    axiom: '!(1)A',
    rules: "A -0.75-> F[!'&(34)A]/(120)[!'&(34)A]/(125)[!'&(30)A]/(70)\nA -0.25-> F[!'&(26)A]/(180)[!'&(38)A]/(110)",
    generations: 6,
    angle: 30,
    line: 0.42,
    shorter: 0.84,
    thinner: 0.82,
    rising: 30,
    vary: 8,
    growing: 1,
  },
  {
    label: 'Forked light',
    axiom: 'A',
    rules:
      'A -0.6-> F(0.14)[!+(38)B]-(16)/(140)A\nA -0.2-> F(0.18)-(18)/(110)A\nA -0.2-> F(0.12)+(20)/(70)A\nB -0.6-> F(0.12)+(20)/(60)B\nB -0.4-> F(0.1)[!-(34)B]-(14)B',
    generations: 16,
    angle: 20,
    line: 0.14,
    shorter: 1,
    thinner: 0.6,
    rising: -20,
    vary: 14,
    growing: 1,
  },
  {
    label: 'Bladder weed',
    axiom: 'A',
    rules: 'A -> F[!+(34)B]/(137.5)F[!-(34)B]/(137.5)A\nB -> FB\nB -> L',
    generations: 9,
    angle: 34,
    line: 0.13,
    shorter: 0.96,
    thinner: 0.7,
    rising: 14,
    growing: 2,
    marks: 'AB',
  },
  {
    label: 'Ice line',
    axiom: 'F--F--F',
    rules: 'F -> F+F--F+F',
    generations: 4,
    angle: 60,
    line: 1.5,
    shorter: 1 / 3,
    growing: 1,
  },
  {
    label: 'Folded thread',
    axiom: 'X',
    rules: 'X -> +YF-XFX-FY+\nY -> -XF+YFY+FX-',
    generations: 4,
    angle: 90,
    line: 0.1,
    shorter: 1,
    growing: 1,
  },
];

/** Ready rules to begin from, each with a picture of what it grows to. */
export const rulesPresets = (): Promise<StepPreset[]> =>
  Promise.all(
    READY.map(async ({ label, ...ready }): Promise<StepPreset> => {
      const params = { shorter: 0.8, thinner: 0.7, rising: 0, vary: 0, growing: 1, marks: '', ...ready };
      return { label, params, picture: await pictureOf(params) };
    }),
  );

/** Lines of a picture of 100 by 100, as SVG path data. */
async function pictureOf(p: Required<Omit<Ready, 'label'>>): Promise<string> {
  const length = (birth: number): number => p.line * p.shorter ** birth;
  // A picture this small needs no more.
  const generations = Math.min(p.generations, p.axiom === 'A(0.16)' ? 13 : 9);
  const order = { generations, seed: 11, most: 20_000, length, growing: p.growing };
  const grown = { ...p, generations: generations + p.growing };
  const { paths } = drawn(await rewrite(readRules(p.axiom, p.rules), order), drawingOf(grown, length, 11));
  if (!paths) return '';
  const { positions, offsets } = paths;
  let [left, right, low, high] = [Infinity, -Infinity, Infinity, -Infinity];
  for (let i = 0; i < positions.length; i += 3) {
    [left, right] = [Math.min(left, positions[i]), Math.max(right, positions[i])];
    [low, high] = [Math.min(low, positions[i + 1]), Math.max(high, positions[i + 1])];
  }
  const size = Math.max(right - left, high - low, 1e-9);
  const place = (i: number): string => {
    const x = 50 + (92 * (positions[3 * i] - (left + right) / 2)) / size;
    const y = 50 - (92 * (positions[3 * i + 1] - (low + high) / 2)) / size;
    return `${x.toFixed(1)} ${y.toFixed(1)}`;
  };
  return Array.from({ length: offsets.length - 1 }, (_, path) => {
    const points = Array.from({ length: offsets[path + 1] - offsets[path] }, (__, k) => place(offsets[path] + k));
    return `M${points.join('L')}`;
  }).join('');
}
