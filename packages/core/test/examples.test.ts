import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import * as core from '../src/index';
import * as mesh from '../src/geometry/mesh';
import * as paths from '../src/geometry/paths';

// What docstrings and READMEs show is run: a line that ends in "// → value" gives that value.

const root = join(__dirname, '../../..');

interface Example {
  from: string;
  code: string;
}

type Names = Record<string, unknown>;

/** What an example can use: a docstring's all that stands beside it, a README's what the package gives. */
const namesFor = async ({ from }: Example): Promise<Names> =>
  from.endsWith('.md') ? { ...core } : { ...core, ...mesh, ...paths, ...((await import(from)) as Names) };

const files = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((entry) =>
    entry.isDirectory() ? files(join(folder, entry.name)) : [join(folder, entry.name)],
  );

/** The examples of the docstrings of a source. */
const inDocstrings = (file: string): Example[] =>
  [...readFileSync(file, 'utf8').matchAll(/\/\*\*(?:(?!\*\/)[^])*\*\//g)].flatMap(([comment]) => {
    const found = /@example\n([^]*?)(?:\n \* @|\n \*\/)/.exec(comment);
    return found ? [{ from: file, code: found[1].replaceAll(/^ \* ?/gm, '') }] : [];
  });

/** The blocks of JavaScript in a README. */
const inReadme = (file: string): Example[] =>
  [...readFileSync(file, 'utf8').matchAll(/```js\n([^]*?)```/g)].map(([, code]) => ({ from: file, code }));

const sources = files(join(root, 'packages/core/src')).filter(
  (name) => name.endsWith('.ts') && !name.endsWith('.test.ts'),
);
const readmes = ['packages/core', 'packages/formats'].map((folder) => join(root, folder, 'README.md'));
const examples = [...sources.flatMap(inDocstrings), ...readmes.filter(existsSync).flatMap(inReadme)];

/** The function that an example makes, which checks what its lines are said to give. */
function runnable(
  { code }: Example,
  names: Names,
): (names: unknown, check: (is: unknown, said: unknown) => void) => Promise<void> {
  const used = Object.keys(names).filter((name) => new RegExp(`\\b${name}\\b`).test(code));
  const body = code
    .replaceAll(/^import .*$/gm, '')
    .replaceAll(/^(?!const )(.+?);? \/\/ → (.+)$/gm, 'check($1, $2);')
    .replaceAll(/^const (\w+)(.*?);? \/\/ → (.+)$/gm, 'const $1$2; check($1, $3);');
  // oxlint-disable-next-line typescript/no-implied-eval
  return new Function(
    'names',
    'check',
    `return (async () => { const { ${used.join(', ')} } = names;\n${body}\n})();`,
  ) as never;
}

test('there are examples', () => expect(examples.length).toBeGreaterThan(12));

test.each(
  examples.map((example) => [`${example.from.replace(`${root}/`, '')}: ${example.code.split('\n')[0]}`, example]),
)('%s', async (_, example) => {
  const names = await namesFor(example as Example);
  await runnable(example as Example, names)(names, (is, said) => {
    const plain = ArrayBuffer.isView(is) ? Array.from(is as unknown as number[]) : is;
    if (typeof said === 'number') expect(plain).toBeCloseTo(said, 6);
    else expect(plain).toEqual(said);
  });
});
