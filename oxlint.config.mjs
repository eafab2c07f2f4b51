/** Which rooms of src/ a room may import from. The direction is drawn in docs/architecture.md. */
const rooms = {
  core: [],
  wire: ['core'],
  chart: ['core'],
  device: ['wire', 'core'],
  database: ['core', 'wire'],
  server: ['database', 'core', 'wire', 'chart'],
  worker: ['core', 'wire'],
  ui: ['device', 'chart', 'worker', 'wire', 'core'],
  app: ['ui', 'server', 'device', 'chart', 'wire', 'core'],
  cli: ['core', 'wire'],
};
const all = Object.keys(rooms);
const outside = {
  core: [
    'react',
    'react-*',
    'next',
    'next/*',
    'pg',
    'drizzle-orm',
    'drizzle-orm/*',
    'node:*',
    'fs',
    'path',
    'crypto',
    'd3-*',
    'idb',
  ],
  wire: ['react', 'next', 'next/*', 'pg', 'drizzle-orm', 'node:*'],
  chart: ['react', 'next', 'next/*', 'pg', 'drizzle-orm', 'node:*'],
  device: ['next', 'next/*', 'pg', 'drizzle-orm', 'drizzle-orm/*', 'node:*', 'server-only'],
  ui: ['pg', 'drizzle-orm', 'drizzle-orm/*', 'node:*', 'server-only'],
};

/**
 * The same within the core, from the ground up. What stands in one line may need its neighbours there: kinds, roles and
 * fillings are rooms of the rule, each registered with the fold, and no file needs itself in a circle.
 */
const layers = [
  ['quantity'],
  ['medium', 'instrument', 'watch', 'gauge-log'],
  ['limit', 'adequacy'],
  ['installation', 'network', 'trades'],
  ['formula'],
  ['grammar', 'desk', 'simulation'],
  ['pack', 'kinds', 'roles', 'fillings', 'plan', 'run', 'verdict'],
  ['analysis', 'splitting', 'record', 'after', 'visit'],
  ['conduct', 'guide'],
  ['yard'],
  ['testing'],
];
const above = (room) => layers.slice(layers.findIndex((l) => l.includes(room)) + 1).flat();
const inner = (room) => ({
  group: above(room).flatMap((r) => [`@/core/${r}/**`, `../${r}/**`]),
  message: `src/core/${room} may not need what stands above it: ${above(room).join(', ')} (docs/architecture.md).`,
});
const restricted = (room, more) => ({
  'no-restricted-imports': [
    'error',
    {
      patterns: [
        {
          group: all.filter((r) => r !== room && !rooms[room].includes(r)).map((r) => `@/${r}/**`),
          message: `src/${room} may import only from: ${[room, ...rooms[room]].join(', ')} (docs/architecture.md).`,
        },
        ...(outside[room]
          ? [{ group: outside[room], message: `src/${room} must not depend on this package.` }]
          : []),
        { group: ['../../*'], message: 'Reach another room by @/room/…, not by climbing.' },
        ...more,
      ],
    },
  ],
});

/** Rules by their plugin, each an error. */
const errors = (plugin, names) => Object.fromEntries(names.map((n) => [`${plugin}/${n}`, 'error']));
const off = (plugin, names) => Object.fromEntries(names.map((n) => [`${plugin}/${n}`, 'off']));
const TESTS = ['**/*.test.ts', '**/*.test.tsx', 'e2e/**', 'src/ui/testing/**'];

export default {
  plugins: ['typescript', 'react', 'jsx-a11y', 'oxc', 'import'],
  categories: { correctness: 'error' },
  ignorePatterns: [
    'node_modules',
    '.next',
    '.run',
    '.check',
    '.mutants',
    'next-env.d.ts',
    'test-results',
    'public/sw.js',
    // a kind that is made up for a test: it is in no registry, and no project knows it
    'scripts/new-kind/knock',
    'scripts/new-kind/*.tsx',
  ],
  rules: {
    'no-var': 'error',
    'prefer-const': 'error',
    'prefer-rest-params': 'error',
    'prefer-spread': 'error',
    'no-array-constructor': 'error',
    'no-unused-expressions': 'error',
    'no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
    ...errors('react', ['rules-of-hooks', 'exhaustive-deps']),
    ...errors('jsx-a11y', [
      'click-events-have-key-events',
      'interactive-supports-focus',
      'no-interactive-element-to-noninteractive-role',
      'no-noninteractive-element-interactions',
      'no-noninteractive-element-to-interactive-role',
      'role-supports-aria-props',
    ]),
    'jsx-a11y/no-static-element-interactions': ['error', { allowExpressionValues: true }],
    // a region that scrolls must be reachable by keyboard
    'jsx-a11y/no-noninteractive-tabindex': ['error', { roles: ['tabpanel', 'region'] }],
    // a role on a drawn figure says what an element cannot; an empty cell of a table has nothing to be called
    'jsx-a11y/prefer-tag-over-role': 'off',
    'jsx-a11y/control-has-associated-label': 'off',
    // what these say of is done on purpose: effects that follow the log, letters of a code, lists of words sorted as words
    ...off('react', [
      'globals',
      'immutability',
      'incompatible-library',
      'preserve-manual-memoization',
      'purity',
      'refs',
      'set-state-in-effect',
    ]),
    ...off('typescript', [
      'no-meaningless-void-operator',
      'no-misused-spread',
      'no-useless-default-assignment',
      'require-array-sort-compare',
      'unbound-method',
    ]),
  },
  overrides: [
    {
      files: ['**/*.ts', '**/*.tsx'],
      rules: errors('typescript', [
        'ban-ts-comment',
        'no-empty-object-type',
        'no-explicit-any',
        'no-namespace',
        'no-require-imports',
        'no-unnecessary-type-constraint',
        'no-unsafe-function-type',
        'consistent-type-imports',
        // these know the types
        'await-thenable',
        'no-array-delete',
        'no-base-to-string',
        'no-duplicate-type-constituents',
        'no-floating-promises',
        'no-for-in-array',
        'no-implied-eval',
        'no-misused-promises',
        'no-redundant-type-constituents',
        'no-unsafe-argument',
        'no-unsafe-assignment',
        'no-unsafe-call',
        'no-unsafe-enum-comparison',
        'no-unsafe-member-access',
        'no-unsafe-return',
        'no-unsafe-unary-minus',
        'only-throw-error',
        'prefer-promise-reject-errors',
        'restrict-plus-operands',
        'restrict-template-expressions',
        'unbound-method',
      ]),
    },
    {
      // matchers of any, parsed bodies and rows of raw queries: what they hold is what is being tested
      files: TESTS,
      rules: Object.fromEntries(
        ['assignment', 'argument', 'member-access', 'return', 'call'].map((w) => [
          `typescript/no-unsafe-${w}`,
          'off',
        ]),
      ),
    },
    ...all.map((room) => ({ files: [`src/${room}/**/*.{ts,tsx}`], rules: restricted(room, []) })),
    ...layers
      .flat()
      .filter((room) => above(room).length)
      .map((room) => ({ files: [`src/core/${room}/**/*.ts`], rules: restricted('core', [inner(room)]) })),
    {
      // no file of the product needs, by whatever way, a file that needs it; types may (they are gone when it runs), and what
      // is loaded by need
      files: ['src/**/*.{ts,tsx}'],
      rules: {
        'import/no-cycle': ['error', { ignoreTypes: true, allowUnsafeDynamicCyclicDependency: true }],
      },
    },
    {
      // what does not fit a screen or two is two things; tables of data and suites of tests may be longer
      files: ['src/**/*.{ts,tsx}', 'scripts/**/*.{ts,mjs}', 'e2e/**/*.ts'],
      rules: {
        'max-lines': ['error', { max: 430, skipBlankLines: true, skipComments: true }],
        'max-lines-per-function': ['error', { max: 130, skipBlankLines: true, skipComments: true }],
      },
    },
    {
      files: [...TESTS, 'src/database/schema/**'],
      rules: {
        'max-lines': ['error', { max: 450, skipBlankLines: true, skipComments: true }],
        'max-lines-per-function': 'off',
      },
    },
    {
      // no clock, no randomness (`new Date()` is searched by scripts/house.test.ts), nothing of a browser or of Node
      files: ['src/core/**/*.ts'],
      rules: {
        'no-restricted-properties': [
          'error',
          { object: 'Date', property: 'now', message: 'The core has no clock.' },
          { object: 'Math', property: 'random', message: 'The core has no randomness.' },
        ],
        'no-restricted-globals': [
          'error',
          'window',
          'document',
          'fetch',
          'process',
          'performance',
          'setTimeout',
          'crypto',
        ],
      },
    },
    {
      // a test may look wherever it needs to
      files: ['src/**/*.test.{ts,tsx}'],
      rules: {
        'no-restricted-imports': 'off',
        'no-restricted-properties': 'off',
        'no-restricted-globals': 'off',
      },
    },
  ],
};
