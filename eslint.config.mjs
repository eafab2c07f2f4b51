import tseslint from 'typescript-eslint';
import hooks from 'eslint-plugin-react-hooks';
import a11y from 'eslint-plugin-jsx-a11y';

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
 * fillings are rooms of the rule, each registered with the fold, and no file needs itself in a circle (dependency-cruiser).
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
  ['conduct'],
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

export default tseslint.config(
  {
    ignores: [
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
  },
  ...tseslint.configs.recommended,
  ...tseslint.configs.recommendedTypeCheckedOnly.map((config) => ({ ...config, files: ['**/*.{ts,tsx}'] })),
  {
    files: ['**/*.{ts,tsx}'],
    languageOptions: {
      parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname },
    },
    rules: {
      // a port answers with a promise whether its body waits or not
      '@typescript-eslint/require-await': 'off',
      // what reads as unneeded here is needed by the overloads and intersections of the schemas
      '@typescript-eslint/no-unnecessary-type-assertion': 'off',
    },
  },
  {
    // matchers of any, parsed bodies and rows of raw queries: what they hold is what is being tested
    files: ['**/*.test.{ts,tsx}', 'e2e/**', 'src/ui/testing/**'],
    rules: Object.fromEntries(
      ['assignment', 'argument', 'member-access', 'return', 'call'].map((w) => [
        `@typescript-eslint/no-unsafe-${w}`,
        'off',
      ]),
    ),
  },
  {
    plugins: { 'react-hooks': hooks, 'jsx-a11y': a11y },
    rules: {
      'react-hooks/rules-of-hooks': 'error',
      'react-hooks/exhaustive-deps': 'error',
      ...a11y.flatConfigs.recommended.rules,
      // a region that scrolls must be reachable by keyboard
      'jsx-a11y/no-noninteractive-tabindex': ['error', { roles: ['tabpanel', 'region'] }],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': 'error',
    },
  },
  ...all.map((room) => ({
    files: [`src/${room}/**/*.{ts,tsx}`],
    ignores: ['**/*.test.ts'],
    rules: restricted(room, []),
  })),
  ...layers.flat().flatMap((room) =>
    above(room).length
      ? [
          {
            files: [`src/core/${room}/**/*.ts`],
            ignores: ['**/*.test.ts'],
            rules: restricted('core', [inner(room)]),
          },
        ]
      : [],
  ),
  {
    // what does not fit a screen or two is two things; tables of data and suites of tests may be longer
    files: ['src/**/*.{ts,tsx}', 'scripts/**/*.{ts,mjs}', 'e2e/**/*.ts'],
    rules: {
      'max-lines': ['error', { max: 430, skipBlankLines: true, skipComments: true }],
      'max-lines-per-function': ['error', { max: 130, skipBlankLines: true, skipComments: true }],
    },
  },
  {
    files: ['**/*.test.{ts,tsx}', 'e2e/**', 'src/database/schema/**'],
    rules: {
      'max-lines': ['error', { max: 450, skipBlankLines: true, skipComments: true }],
      'max-lines-per-function': 'off',
    },
  },
  { files: ['scripts/**/*.cjs'], rules: { '@typescript-eslint/no-require-imports': 'off' } },
  {
    files: ['src/core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: "NewExpression[callee.name='Date'][arguments.length=0]",
          message: 'The core has no clock.',
        },
        {
          selector: "CallExpression[callee.object.name='Date'][callee.property.name='now']",
          message: 'The core has no clock.',
        },
        {
          selector: "CallExpression[callee.object.name='Math'][callee.property.name='random']",
          message: 'The core has no randomness.',
        },
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
);
