import fc from 'fast-check';
import type { Problem } from '../../problem';
import { NO_PARENT, type Paths } from '../../geometry/paths';
import { at, distance } from '../../geometry/vec';
import { treeFlaws } from '../../geometry/tree';
import { contextsOf, rewrite, type Symbols } from './expand';
import { readRules } from './parse';
import { type Drawn, drawn, type Drawing } from './turtle';

const grow = (axiom: string, rules: string, generations: number, more: Partial<Parameters<typeof rewrite>[1]> = {}) =>
  rewrite(readRules(axiom, rules), {
    generations,
    seed: 5,
    most: 300_000,
    length: () => 1,
    growing: 1,
    ...more,
  });
const word = ({ letters }: Symbols): string => letters.join('');
const count = (symbols: Symbols, letter: string): number => symbols.letters.filter((one) => one === letter).length;
const draw = (symbols: Symbols, age: number, more: Partial<Drawing> = {}): Drawn =>
  drawn(symbols, {
    age,
    growing: 1,
    length: () => 1,
    angle: Math.PI / 3,
    vary: 0,
    thinner: 0.7,
    rising: 0,
    marks: new Set(),
    seed: 5,
    ...more,
  });
const lengthOf = ({ positions, offsets }: Paths): number => {
  let sum = 0;
  for (let p = 0; p + 1 < offsets.length; p++)
    for (let i = offsets[p] + 1; i < offsets[p + 1]; i++) sum += distance(at(positions, i), at(positions, i - 1));
  return sum;
};

test.each([1, 2, 3])(
  'a line that is rewritten while it grows (over %d generations) goes on as long as it was',
  async (growing) => {
    for (const generation of [1, 2, 3, 4]) {
      const at = async (generations: number): Promise<number> => {
        const symbols = await grow('A', 'A -> F[+A]F\nF -> FF', generations, { growing });
        return lengthOf(draw(symbols, generation, { growing }).paths!);
      };
      expect(await at(generation + 1)).toBeCloseTo(await at(generation), 5);
    }
  },
);

// The Algorithmic Beauty of Plants (Prusinkiewicz and Lindenmayer, 1990); sections are named beside each check, words and rules
// are given from memory of the book.
describe('strings of published systems', () => {
  test('algae of Lindenmayer (1.2): words as printed, lengths are Fibonacci numbers', async () => {
    const rules = 'B -> A\nA -> AB';
    expect(word(await grow('B', rules, 5))).toBe('ABAABABA');
    const lengths = await Promise.all(
      [0, 1, 2, 3, 4, 5, 6, 7].map(async (n) => word(await grow('B', rules, n)).length),
    );
    expect(lengths).toEqual([1, 1, 2, 3, 5, 8, 13, 21]);
  });

  // Counts by recurrence: each line becomes so many (1.3: figures 1.6, 1.9, 1.10; Hilbert: section 1.4).
  test.each([
    ['snowflake of Koch', 'F-F-F-F', 'F -> F-F+F+FF-F-F+F', 3, 4 * 8 ** 3],
    ['triangles of Sierpinski', 'F-G-G', 'F -> F-G+F+G-F\nG -> GG', 5, 3 ** 6],
    ['dragon of Heighway', 'FX', 'X -> X+YF+\nY -> -FX-Y', 10, 2 ** 10],
    ['curve of Hilbert', 'X', 'X -> -YF+XFX+FY-\nY -> +XF-YFY-FX+', 5, 4 ** 5 - 1],
    ['bracketed plant a (1.6)', 'F', 'F -> F[+F]F[-F]F', 5, 5 ** 5],
    ['bracketed plant b (1.6)', 'F', 'F -> F[+F]F[-F][F]', 5, 5 ** 5],
    ['bracketed plant d (1.6)', 'X', 'X -> F[+X]F[-X]+X\nF -> FF', 7, 2 * (3 ** 7 - 2 ** 7)],
  ])('%s: as many lines as its recurrence says', async (_, axiom, rules, n, lines) => {
    const symbols = await grow(axiom, rules, n);
    expect(count(symbols, 'F') + count(symbols, 'G')).toBe(lines);
  });

  test('parametric, with conditions (1.10.1): the printed words', async () => {
    const rules =
      'A(x,y) : y <= 3 -> A(x * 2, x + y)\nA(x,y) : y > 3 -> B(x)A(x / y, 0)\nB(x) : x < 1 -> C\nB(x) : x >= 1 -> B(x - 1)';
    const written = async (n: number): Promise<string> => {
      const { letters, values } = await grow('B(2)A(4,4)', rules, n);
      return letters.map((letter, i) => letter + (values[i].length > 0 ? `(${values[i].join(',')})` : '')).join('');
    };
    expect(await written(1)).toBe('B(1)B(4)A(1,0)');
    expect(await written(2)).toBe('B(0)B(3)A(2,1)');
    expect(await written(3)).toBe('CB(2)A(4,3)');
    expect(await written(4)).toBe('CB(1)A(8,7)');
  });

  test('with context (1.8): a signal runs along a string, and over branches', async () => {
    expect(word(await grow('baaaa', 'b < a -> b\nb -> a', 3))).toBe('aaaba');
    // Over a branch that leaves in between, and into it, in the words of section 1.8: what stands before a branch stands before it.
    expect(word(await grow('b[a]a', 'b < a -> c', 1))).toBe('b[c]c');
    expect(word(await grow('a[x]b', 'a > b -> c', 1))).toBe('c[x]b');
    expect(word(await grow('b+a', 'b < a -> c', 1))).toBe('b+c');
    expect(word(await grow('b+a', 'ignore: F\nb < a -> c', 1))).toBe('b+a');
  });

  test('by chance (1.7): each rule has its share of 10,000 draws, within four standard deviations', async () => {
    const symbols = await grow('S', 'S -> ' + 'F'.repeat(10_000) + '\nF -0.5-> A\nF -0.3-> B\nF -0.2-> C', 2);
    for (const [letter, odds] of [
      ['A', 0.5],
      ['B', 0.3],
      ['C', 0.2],
    ] as const)
      expect(Math.abs(count(symbols, letter) - 10_000 * odds)).toBeLessThan(4 * Math.sqrt(10_000 * odds * (1 - odds)));
    const other = await grow('S', 'S -> FFFFFFFFFFFF\nF -0.5-> A\nF -0.5-> B', 2, { seed: 6 });
    expect(word(other)).not.toBe(word(await grow('S', 'S -> FFFFFFFFFFFF\nF -0.5-> A\nF -0.5-> B', 2)));
  });
});

describe('what is drawn', () => {
  test('the line of Koch is (4/3)ⁿ as long as what it began with, and ends where that did', async () => {
    const shorter = (birth: number): number => 3 ** -birth;
    const symbols = await grow('F', 'F -> F+F--F+F', 4, { length: shorter });
    const { paths } = draw(symbols, 4, { length: shorter });
    expect(lengthOf(paths!)).toBeCloseTo((4 / 3) ** 4, 5);
    expect(at(paths!.positions, paths!.s.length - 1)[1]).toBeCloseTo(1, 5);
  });

  test('the snowflake encloses 8/5 of its triangle less what is still to come', async () => {
    const shorter = (birth: number): number => 3 ** -birth;
    const n = 5;
    const symbols = await grow('F--F--F', 'F -> F+F--F+F', n, { length: shorter });
    const { positions } = draw(symbols, n, { length: shorter }).paths!;
    let twice = 0;
    for (let i = 1; 3 * i < positions.length; i++)
      twice += positions[3 * i - 3] * positions[3 * i + 1] - positions[3 * i] * positions[3 * i - 2];
    // Mandelbrot, The Fractal Geometry of Nature, 1982: the sum of a geometric series.
    expect(Math.abs(twice / 2) / (Math.sqrt(3) / 4)).toBeCloseTo(8 / 5 - (3 / 5) * (4 / 9) ** n, 4);
  });

  test('turns in space: three square turns about each axis come back, a roll changes which way is up', async () => {
    const end = async (text: string): Promise<readonly number[]> => {
      const { positions } = draw(await grow(text, '', 0), 0, { angle: Math.PI / 2 }).paths!;
      return at(positions, positions.length / 3 - 1).map((x) => Math.round(1e6 * x) / 1e6 + 0);
    };
    expect(await end('F+F')).toEqual([-1, 1, 0]);
    expect(await end('F-F')).toEqual([1, 1, 0]);
    expect(await end('F^F')).toEqual([0, 1, 1]);
    expect(await end('F&F')).toEqual([0, 1, -1]);
    expect(await end('F\\+F')).toEqual([0, 1, 1]);
    expect(await end('F|F')).toEqual([0, 0, 0]);
    expect(await end('F+F+F+F')).toEqual([0, 0, 0]);
    expect(await end('F(2)+(180)F(0.5)')).toEqual([0, 1.5, 0]);
  });

  test('branches are a tree: each begins on its parent, thinner ones are thinner, colours are levels', async () => {
    const { paths } = draw(await grow('A', "A -> F[+!'A][-!'A]F/A", 5), 5);
    expect(treeFlaws(paths!)).toEqual([]);
    expect(paths!.parent!.filter((parent) => parent === NO_PARENT)).toHaveLength(1);
    const places = new Map([...paths!.ids].map((id, p) => [id, p]));
    paths!.parent!.forEach((parent, p) => {
      if (parent === NO_PARENT) return;
      const own = places.get(parent)!;
      const points = Array.from(
        { length: paths!.offsets[own + 1] - paths!.offsets[own] },
        (_, k) => paths!.offsets[own] + k,
      );
      const joint = points.find((k) => Math.abs(paths!.u[k] - paths!.attach![p]) < 1e-6)!;
      const base = paths!.offsets[p];
      expect(distance(at(paths!.positions, joint), at(paths!.positions, base))).toBeLessThan(1e-6);
      expect(paths!.size[base]).toBeCloseTo(0.7 * paths!.size[joint], 5);
      expect(paths!.arrival![base]).toBeCloseTo(paths!.arrival![joint], 6);
      expect(paths!.level![p]).toBeGreaterThan(paths!.level![own]);
    });
  });

  // The property that generations never pop: the form moves by less and less as the step in time gets smaller.
  test.each([
    ['lines that are rewritten', 'F', 'F -> F+F--F+F', 1],
    ['buds', 'A', 'A -> F[+A][-A]!FA', 1],
    ['a plant whose lines are rewritten too', 'X', 'X -> F[+X]F[-X]+X\nF -> FF', 1],
    ['what grows up over several generations', 'A', 'A -> F[+A]/FA', 3],
  ])('growth is continuous: %s', async (_, axiom, rules, growing) => {
    const shorter = (birth: number): number => 0.6 ** birth;
    const ends = async (age: number): Promise<number> => {
      const symbols = await grow(axiom, rules, Math.ceil(age), { length: shorter, growing });
      return lengthOf(draw(symbols, age, { length: shorter, growing }).paths!);
    };
    for (const age of [1, 2, 3, 4]) {
      const [before, there, after] = [await ends(age - 1e-4), await ends(age), await ends(age + 1e-4)];
      expect(Math.abs(there - before)).toBeLessThan(2e-3 * Math.max(1, there));
      expect(Math.abs(after - there)).toBeLessThan(2e-3 * Math.max(1, there));
    }
  });

  test('sheets are framed by braces, marked places stand along the heading', async () => {
    const { mesh, points } = draw(await grow('F[+L]F{-F+F+F+F}', '', 0), 0, {
      angle: Math.PI / 2,
      marks: new Set('L'),
    });
    expect(mesh!.indices.length / 3).toBe(2);
    expect([...points!.positions]).toEqual([0, 1, 0]);
  });
});

describe('what is wrong is told with its line and column', () => {
  test.each([
    ['A', 'A -> F[+A', /Rules, line 1, column 7.*never closed/],
    ['A', 'A -> F\nB => F', /line 2.*no arrow/],
    ['A', 'A(x) -> F(y)', /column 11.*“y” is no parameter/],
    ['A', 'A -> F(2', /column 7.*never closed/],
    ['A', 'A -> F(1 +)', /column 8/],
    ['A', 'A -> F ä', /column 8.*no symbol/],
    ['F]', '', /Axiom, line 1, column 2.*closes nothing/],
    ['A', 'AB -> F', /column 2.*only one symbol/],
  ])('%s, %s', (axiom, rules, said) => {
    expect(() => readRules(axiom, rules)).toThrow(said);
  });

  test('the place is told for the field to mark it', () => {
    const placeOf = (axiom: string, rules: string): unknown => {
      try {
        return readRules(axiom, rules);
      } catch (error) {
        return (error as Problem).place.text;
      }
    };
    expect(placeOf('A', 'A -> F\nA -> F(2')).toEqual({ field: 'rules', line: 2, column: 7 });
    expect(placeOf('F]', '')).toEqual({ field: 'axiom', line: 1, column: 2 });
  });

  test('a rule that explodes is told of, not run', async () => {
    await expect(grow('F', 'F -> ' + 'F'.repeat(60), 40)).rejects.toThrow(/Generation 4 of 40 has more than 300,000/);
  });
});

test('marks have their share in the order in which they are drawn, from 0 to 1; a single one has 0', async () => {
  const shares = async (text: string): Promise<number[]> => [
    ...draw(await grow(text, '', 0), 0, { marks: new Set('L') }).points!.share,
  ];
  expect(await shares('FLFLFL')).toEqual([0, 0.5, 1]);
  expect(await shares('FL')).toEqual([0]);
});

// Prusinkiewicz and Lindenmayer, The Algorithmic Beauty of Plants, 1990, figure 1.19: the three-dimensional curve of Hilbert.
test('// is two rolls: the published curve of Hilbert in space fills all places of its cube, each once', async () => {
  const rules = [
    'A -> B-F+CFC+F-D&F^D-F+&&CFC+F+B// # the first of four',
    'B -> A&F^CFB^F^D^^-F-D^|F^B|FC^F^A//',
    'C -> |D^|F^B-F+C^F^A&&FA&F^C+F+B^F^D//',
    'D -> |CFB-F+B|FA&F^A&&FB-F+B|FC//',
  ].join('\n');
  for (const order of [1, 2, 3]) {
    const { paths } = draw(await grow('A', rules, order), order, { angle: Math.PI / 2 });
    const { positions } = paths!;
    const places = Array.from({ length: positions.length / 3 }, (_, i) => at(positions, i).map(Math.round));
    expect(new Set(places.map(String)).size).toBe(8 ** order);
    for (const axis of [0, 1, 2]) {
      const side = places.map((place) => place[axis]);
      expect(Math.max(...side) - Math.min(...side)).toBe(2 ** order - 1);
    }
  }
});

test('what stands before and after each symbol, against a search from each (Prusinkiewicz, Lindenmayer 1990, section 1.8)', () => {
  /** The plain search: outwards along the branch, over the branches that leave in between. */
  const search = (letters: string[], i: number, by: 1 | -1, ignored: ReadonlySet<string>): number => {
    const [opens, closes] = by > 0 ? ['[', ']'] : [']', '['];
    let depth = 0;
    for (let k = i + by; k >= 0 && k < letters.length; k += by) {
      if (letters[k] === opens) depth++;
      else if (letters[k] === closes) {
        // Backwards it goes on in what the branch leaves from; forwards the branch ends.
        if (depth > 0) depth--;
        else if (by > 0) return -1;
      } else if (depth === 0 && !ignored.has(letters[k])) return k;
    }
    return -1;
  };
  const branch: fc.Arbitrary<string> = fc.letrec((tie) => ({
    text: fc
      .array(
        fc.oneof(
          { depthSize: 'small' },
          fc.constantFrom('A', 'F', '+'),
          (tie('text') as fc.Arbitrary<string>).map((t) => `[${t}]`),
        ),
        { maxLength: 6 },
      )
      .map((parts) => parts.join('')),
  })).text as fc.Arbitrary<string>;
  fc.assert(
    fc.property(branch, (text) => {
      const letters = [...text];
      const ignored = new Set(['+']);
      const { before, after } = contextsOf(letters, ignored);
      letters.forEach((letter, i) => {
        if (letter === '[' || letter === ']') return;
        expect([before[i], after[i]]).toEqual([search(letters, i, -1, ignored), search(letters, i, 1, ignored)]);
      });
    }),
  );
});
