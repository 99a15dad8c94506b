import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

/**
 * Imports run one way: web and server → library → contract → core; demo → library, contract, core.
 * Each workspace names what it must not reach for.
 */
const oneWay = (files, forbidden, message) => ({
  files,
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          { group: forbidden, message },
          { group: ['**/../../../*/src/**'], message: 'Import a workspace by its name.' },
        ],
      },
    ],
  },
});

const IO = ['node:*', 'fs', 'path', 'http', 'express', 'pg', 'kysely', 'dexie'];
const VIEW = ['react', 'react-*', 'd3-*', 'zustand', '@tanstack/*'];

/** What React's compiler would say of each component takes minutes: asked by the long tests. */
const DEEP = process.env.GRAVEK_LINT === 'deep';

export default tseslint.config(
  {
    ignores: [
      'server/src/database/tables.ts',
      '**/dist/**',
      '**/node_modules/**',
      '**/*.mjs',
      '**/test-results/**',
    ],
  },
  ...tseslint.configs.recommended,
  {
    files: ['**/*.ts', '**/*.tsx'],
    rules: {
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_' },
      ],
      'no-restricted-exports': ['error', { restrictDefaultExports: { direct: true } }],
      eqeqeq: 'error',
    },
  },
  oneWay(
    ['core/src/**'],
    ['@gravek/*', 'yup', ...IO, ...VIEW, 'date-fns'],
    'core computes: no interface, no I/O, nothing from other workspaces.',
  ),
  {
    files: ['core/src/**'],
    rules: {
      'no-restricted-globals': [
        'error',
        'fetch',
        'localStorage',
        'process',
        'setTimeout',
        'console',
      ],
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now', message: 'core knows no clock.' },
        { object: 'Math', property: 'random', message: 'core takes its randomness from a seed.' },
      ],
      'no-restricted-syntax': [
        'error',
        {
          selector: "NewExpression[callee.name='Date'][arguments.length=0]",
          message: 'core knows no clock.',
        },
      ],
    },
  },
  oneWay(
    ['contract/src/**'],
    ['@gravek/library', '@gravek/server', '@gravek/web', '@gravek/demo', ...IO, ...VIEW],
    'contract knows core only.',
  ),
  oneWay(
    ['library/src/**'],
    ['@gravek/server', '@gravek/web', '@gravek/demo', ...IO, ...VIEW],
    'library knows contract and core only.',
  ),
  oneWay(
    ['server/src/**'],
    ['@gravek/web', '@gravek/demo', ...VIEW],
    'server knows library, contract and core only.',
  ),
  oneWay(
    ['web/src/**'],
    ['@gravek/server', '@gravek/demo', ...IO.filter((name) => name !== 'dexie')],
    'web knows library, contract and core only.',
  ),
  oneWay(
    ['demo/src/**'],
    ['@gravek/server', '@gravek/web', ...VIEW.filter((name) => name !== 'd3-*')],
    'demo knows library, contract and core only.',
  ),
  {
    files: ['web/src/**'],
    ...(DEEP
      ? hooks.configs.flat['recommended-latest']
      : {
          plugins: { 'react-hooks': hooks },
          rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'warn' },
        }),
  },
  // Speaks of a compiler that is not used here.
  ...(DEEP
    ? [{ files: ['web/src/**'], rules: { 'react-hooks/incompatible-library': 'off' } }]
    : []),
  // Tools that ask for a default export.
  { files: ['**/*.config.ts', 'e2e/src/template.ts'], rules: { 'no-restricted-exports': 'off' } },
);
