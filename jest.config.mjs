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
];

export default {
  testEnvironment: 'node',
  roots: ['<rootDir>/packages', '<rootDir>/apps/studio/src'],
  setupFiles: ['<rootDir>/jest.setup.ts'],
  testMatch: ['**/*.test.ts'],
  transform: {
    '^.+\\.(m?[jt]sx?)$': ['@swc/jest', { jsc: { parser: { syntax: 'typescript', tsx: true }, target: 'es2022' } }],
  },
  transformIgnorePatterns: [`/node_modules/(?!(${esm.join('|')})/)`],
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/apps/studio/src/$1' },
  extensionsToTreatAsEsm: [],
};
