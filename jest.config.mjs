const transform = {
  '^.+\\.(ts|tsx|js|mjs)$': [
    '@swc/jest',
    {
      jsc: {
        parser: { syntax: 'typescript', tsx: true },
        target: 'es2022',
        transform: { react: { runtime: 'automatic' } },
      },
      module: { type: 'commonjs' },
    },
  ],
};
const shared = {
  testEnvironment: 'node',
  // copies of the tree that a mutation run makes, and what a build makes while tests run
  modulePathIgnorePatterns: [
    '<rootDir>/.check/',
    '<rootDir>/.mutants/',
    '<rootDir>/.next/',
    '<rootDir>/.run/',
  ],
  // looked up in the page of a test each of these costs a call; nobody puts another in their place
  sandboxInjectedGlobals:
    'Array ArrayBuffer BigInt Boolean DataView Error Float64Array Function Int32Array Intl JSON Math Number Object Promise Proxy RangeError Reflect RegExp Set String Symbol TypeError Uint32Array Uint8Array WeakMap WeakSet isFinite isNaN parseFloat parseInt'.split(
      ' ',
    ),
  moduleFileExtensions: ['ts', 'tsx', 'js', 'mjs', 'json', 'node'],
  setupFiles: ['<rootDir>/scripts/as-in-browsers.cjs'],
  transform,
  // d3, canonicalize, noble and uuid ship as ES modules only
  transformIgnorePatterns: ['/node_modules/(?!(d3-|internmap|canonicalize|@noble|uuid|idb|@fontsource))'],
  moduleNameMapper: {
    '^@/(.*)$': '<rootDir>/src/$1',
    '^@packs/(.*)$': '<rootDir>/packs/$1',
    '^@scenarios/(.*)$': '<rootDir>/scenarios/$1',
    '^canonicalize$': '<rootDir>/node_modules/canonicalize/lib/canonicalize.js',
    '^server-only$': '<rootDir>/scripts/empty.cjs',
  },
};
export default {
  // a slow machine is no failure: a test that hangs is found in a minute as well
  testTimeout: 60_000,
  projects: [
    {
      ...shared,
      displayName: 'unit',
      testMatch: [
        '<rootDir>/src/**/*.test.{ts,tsx}',
        '<rootDir>/scripts/**/*.test.ts',
        '<rootDir>/benchmarks/**/*.test.ts',
      ],
      testPathIgnorePatterns: ['\\.database\\.test\\.ts$'],
    },
    { ...shared, displayName: 'database', testMatch: ['<rootDir>/{src,scripts}/**/*.database.test.ts'] },
  ],
};
