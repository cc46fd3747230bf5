// Changes the code in one place at a time and looks whether a unit test notices: `npm run mutation -- [--count 40] [--seed 1]
// [--near] [area …]`. Places are drawn by the seed. Works in copies of the repository under test-results, one for each core. What
// no test beside it notices is shown to all that load it, some minutes each; with --near it counts as not noticed.
import { spawn } from 'node:child_process';
import { cpSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync, symlinkSync, writeFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { dirname, join, relative } from 'node:path';
import ts from 'typescript';
import { random } from '../packages/core/src/fields/random';

/** Where tests have to notice what is changed. */
const AREAS: Record<string, string> = {
  time: 'packages/core/src/time',
  curves: 'packages/core/src/curves',
  evaluate: 'packages/core/src/evaluate',
  forms: 'packages/core/src/forms',
  surfaces: 'packages/core/src/surfaces',
  grow: 'packages/core/src/steps/grow',
  place: 'packages/core/src/steps/place',
  cuttings: 'packages/core/src/cuttings',
  formats: 'packages/formats/src',
  state: 'apps/studio/src/state',
  storage: 'apps/studio/src/state/storage',
  ui: 'apps/studio/src/ui',
};
/** A run that takes longer hangs, which is noticed: all tests take a fifth of it, those of a folder less; seconds. */
const LIMIT = { all: 3600, near: 400 };

interface Mutant {
  file: string;
  line: number;
  from: number;
  to: number;
  before: string;
  after: string;
}

const root = process.cwd();
const args = process.argv.slice(2);
const option = (name: string, otherwise: number): number => {
  const at = args.indexOf(`--${name}`);
  return at < 0 ? otherwise : Number(args.splice(at, 2)[1]);
};
const near = args.includes('--near');
if (near) args.splice(args.indexOf('--near'), 1);
const count = option('count', 40);
const seed = option('seed', 1);
const wanted = args.length > 0 ? args : Object.keys(AREAS);
const unknown = wanted.find((area) => !(area in AREAS));
if (unknown || !(count > 0)) {
  process.stderr.write(`There is no area “${unknown ?? ''}”, or no count. Areas: ${Object.keys(AREAS).join(', ')}.\n`);
  process.exit(1);
}

const filesIn = (folder: string): string[] =>
  readdirSync(join(root, folder)).flatMap((name) => {
    const path = join(folder, name);
    if (statSync(join(root, path)).isDirectory()) return filesIn(path);
    return /\.tsx?$/.test(name) && !/\.test\.|\.d\.ts$|testing\.tsx$/.test(name) ? [path] : [];
  });

const SWAPPED: Partial<Record<ts.SyntaxKind, string>> = {
  [ts.SyntaxKind.LessThanToken]: '<=',
  [ts.SyntaxKind.LessThanEqualsToken]: '<',
  [ts.SyntaxKind.GreaterThanToken]: '>=',
  [ts.SyntaxKind.GreaterThanEqualsToken]: '>',
  [ts.SyntaxKind.PlusToken]: '-',
  [ts.SyntaxKind.MinusToken]: '+',
  [ts.SyntaxKind.AsteriskToken]: '/',
  [ts.SyntaxKind.SlashToken]: '*',
  [ts.SyntaxKind.AmpersandAmpersandToken]: '||',
  [ts.SyntaxKind.BarBarToken]: '&&',
  [ts.SyntaxKind.EqualsEqualsEqualsToken]: '!==',
  [ts.SyntaxKind.ExclamationEqualsEqualsToken]: '===',
};

/** All places of a file that can be changed, each with what it becomes. */
function mutantsOf(file: string): Mutant[] {
  const text = readFileSync(join(root, file), 'utf8');
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true);
  const found: Mutant[] = [];
  const put = (node: ts.Node, after: string): void => {
    const from = node.getStart(source);
    const line = source.getLineAndCharacterOfPosition(from).line + 1;
    found.push({ file, line, from, to: node.end, before: node.getText(source), after });
  };
  const visit = (node: ts.Node): void => {
    // Types run nowhere, and messages are not what is asked about.
    if (ts.isTypeNode(node) || ts.isImportDeclaration(node) || ts.isThrowStatement(node)) return;
    if (ts.isBinaryExpression(node)) {
      const other = SWAPPED[node.operatorToken.kind];
      if (other) put(node.operatorToken, other);
    } else if (ts.isPrefixUnaryExpression(node) && node.operator === ts.SyntaxKind.ExclamationToken)
      put(node, node.operand.getText(source));
    else if (ts.isConditionalExpression(node))
      put(
        node,
        `${node.condition.getText(source)} ? ${node.whenFalse.getText(source)} : ${node.whenTrue.getText(source)}`,
      );
    else if (node.kind === ts.SyntaxKind.TrueKeyword) put(node, 'false');
    else if (node.kind === ts.SyntaxKind.FalseKeyword) put(node, 'true');
    else if (ts.isNumericLiteral(node)) put(node, `(${node.text} + 1)`);
    else if (ts.isExpressionStatement(node)) put(node, ';');
    else if (ts.isPropertyAccessExpression(node) && node.getText(source) === 'Math.min') put(node, 'Math.max');
    else if (ts.isPropertyAccessExpression(node) && node.getText(source) === 'Math.max') put(node, 'Math.min');
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}

/** A copy of the repository that finds its own packages, and everything else where it is. */
function copied(number: number): string {
  const to = join(root, 'test-results', `mutation-${number}`);
  rmSync(to, { recursive: true, force: true });
  mkdirSync(join(to, 'node_modules', '@uvrex'), { recursive: true });
  for (const name of readdirSync(join(root, 'node_modules')))
    if (name !== '@uvrex') symlinkSync(join(root, 'node_modules', name), join(to, 'node_modules', name));
  for (const name of readdirSync(join(root, 'node_modules', '@uvrex')))
    symlinkSync(
      join(to, name === 'studio' ? 'apps' : name === 'examples' ? '.' : 'packages', name),
      join(to, 'node_modules', '@uvrex', name),
    );
  for (const name of ['packages', 'apps', 'examples', 'scripts', 'docs', 'package.json', 'tsconfig.base.json'])
    cpSync(join(root, name), join(to, name), { recursive: true, filter: (path) => !/node_modules|\.next/.test(path) });
  for (const name of ['jest.config.mjs', 'jest.setup.ts']) cpSync(join(root, name), join(to, name));
  return to;
}

/** Test runs under way: a changed loop may never end, and must not outlive this one. */
const running = new Set<ReturnType<typeof spawn>>();
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => {
    for (const child of running) child.kill('SIGKILL');
    process.exit(1);
  });

/** Whether all of some tests pass; one that hangs does not. */
const passes = (folder: string, tests: string[]): Promise<boolean> =>
  new Promise((done) => {
    const jest = [join(root, 'node_modules/jest/bin/jest.js'), '--silent', '--bail=1', '--maxWorkers=1', ...tests];
    // What is quick may have noticed by the time that what is slow would begin; fewer series notice what is gross.
    const env = { ...process.env, UNIT_ORDER: 'quick-first', EDIT_SERIES: '150' };
    const child = spawn(process.execPath, jest, { cwd: folder, env, stdio: 'ignore' });
    const timer = setTimeout(() => child.kill('SIGKILL'), 1000 * (near ? LIMIT.near : LIMIT.all));
    running.add(child);
    child.on('close', (code) => {
      running.delete(child);
      clearTimeout(timer);
      done(code === 0);
    });
  });

/** Whether a test notices a change: those in the same folder are asked first, then all that load the file. */
async function noticed(folder: string, { file, from, to, after }: Mutant): Promise<boolean> {
  const path = join(folder, file);
  const text = readFileSync(path, 'utf8');
  writeFileSync(path, text.slice(0, from) + after + text.slice(to));
  try {
    if (!(await passes(folder, ['--passWithNoTests', '--testPathPatterns', `${dirname(file)}/`]))) return true;
    return !near && !(await passes(folder, ['--passWithNoTests', '--findRelatedTests', file]));
  } finally {
    writeFileSync(path, text);
  }
}

const all = wanted.flatMap((area) => filesIn(AREAS[area])).flatMap(mutantsOf);
const drawn = Array.from({ length: count }, (_, k) => all[Math.floor(random(seed, k) * all.length)]);
process.stdout.write(`${all.length} places in ${wanted.join(', ')}; ${drawn.length} of them are changed.\n`);
const survivors: Mutant[] = [];
let next = 0;
await Promise.all(
  Array.from({ length: Math.min(availableParallelism(), drawn.length) }, async (_, core) => {
    const folder = copied(core);
    while (next < drawn.length) {
      const mutant = drawn[next++];
      const killed = await noticed(folder, mutant);
      if (!killed) survivors.push(mutant);
      const { file, line, before, after } = mutant;
      process.stdout.write(
        `${killed ? 'noticed ' : 'SURVIVED'} ${relative('packages/core/src', file)}:${line}  ${before.split('\n')[0]} → ${after.split('\n')[0]}\n`,
      );
    }
    rmSync(folder, { recursive: true, force: true });
  }),
);
const score = Math.round((100 * (drawn.length - survivors.length)) / drawn.length);
process.stdout.write(`\n${drawn.length - survivors.length} of ${drawn.length} changes noticed, ${score} %.\n`);
