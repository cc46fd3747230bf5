/** ES-module-only packages that jest must translate before it can load them. */
const esm = [
  '@noble',
  'd3-ease',
  'd3-color',
  '@thi\\.ng',
  'three',
  'mediabunny',
  '@gltf-transform',
  'property-graph',
  'meshoptimizer',
  'dexie',
  'immer',
  'client-zip',
  'zod',
  'zustand',
  'earcut',
  '@scure',
  'fast-xml-parser',
  'opentype.js',
  'svg-path-properties',
  'delaunator',
  'robust-predicates',
  'fast-png',
  'iobuffer',
];

export default {
  testEnvironment: 'node',
  // Looked up in the tests' own context these are many times slower, which a computation is all about.
  sandboxInjectedGlobals: [
    'Math',
    'Number',
    'Float32Array',
    'Float64Array',
    'Int32Array',
    'Uint32Array',
    'Uint8Array',
    'Array',
    'Map',
    'Set',
  ],
  roots: ['<rootDir>/packages', '<rootDir>/apps/studio/src', '<rootDir>/scripts'],
  testSequencer: '<rootDir>/scripts/slowFirst.mjs',
  setupFiles: ['<rootDir>/jest.setup.ts'],
  testMatch: ['**/*.test.ts', '**/*.test.tsx'],
  transform: {
    '^.+\\.(m?[jt]sx?)$': [
      '@swc/jest',
      {
        jsc: {
          parser: { syntax: 'typescript', tsx: true },
          target: 'es2022',
          transform: { react: { runtime: 'automatic' } },
        },
      },
    ],
  },
  transformIgnorePatterns: [`/node_modules/(?!(${esm.join('|')})/)`],
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/apps/studio/src/$1' },
  extensionsToTreatAsEsm: [],
};
