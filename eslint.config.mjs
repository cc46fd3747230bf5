import tseslint from 'typescript-eslint';
import hooks from 'eslint-plugin-react-hooks';
import prettier from 'eslint-config-prettier';

// The engine knows nothing of where it runs: these are the doors it must not open.
const browserGlobals = [
  'window',
  'document',
  'navigator',
  'self',
  'localStorage',
  'performance',
  'setTimeout',
  'fetch',
  'postMessage',
  'process',
  'Buffer',
];
const foreignImports = [
  'react',
  'react-dom',
  'react/*',
  'three',
  'three/*',
  '@react-three/*',
  '@mui/*',
  'next',
  'next/*',
  'dexie',
  'comlink',
  'node:*',
  '@uvrex/studio',
  '@uvrex/formats',
  '@uvrex/bake',
];

export default tseslint.config(
  { ignores: ['**/node_modules/**', '**/.next/**', '**/next-env.d.ts', 'docs/**', 'test-results/**', 'tmp/**'] },
  ...tseslint.configs.strict,
  {
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-invalid-void-type': 'off',
      '@typescript-eslint/unified-signatures': 'off',
      // With types alone in it an import would still bring the whole module along.
      '@typescript-eslint/no-import-type-side-effects': 'error',
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      // A rest property takes the others out of an object; the ones named beside it are meant to go.
      '@typescript-eslint/no-unused-vars': ['error', { ignoreRestSiblings: true, argsIgnorePattern: '^_' }],
      eqeqeq: 'error',
      'no-console': 'error',
    },
  },
  {
    // A promise that nobody waits for hides what it fails with; in a test it hides everything.
    files: ['packages/**/*.ts', 'apps/**/*.{ts,tsx}', 'e2e/**/*.ts', 'scripts/**/*.ts', 'bench/**/*.ts'],
    languageOptions: {
      parserOptions: {
        project: ['./tsconfig.tools.json', './apps/studio/tsconfig.json', './packages/*/tsconfig.json'],
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { attributes: false } }],
    },
  },
  { files: ['scripts/**', 'bench/**', 'packages/bake/src/cli.ts'], rules: { 'no-console': 'off' } },
  {
    files: ['apps/studio/**'],
    plugins: { 'react-hooks': hooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
  {
    files: ['packages/core/src/**'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            { group: foreignImports, message: 'The core runs anywhere: no interface, renderer or platform code here.' },
          ],
        },
      ],
      'no-restricted-globals': [
        'error',
        ...browserGlobals.map((name) => ({ name, message: 'The core runs anywhere: take this as an argument.' })),
      ],
    },
  },
  prettier,
);
