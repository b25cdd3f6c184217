import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';
import { plainSteps } from './scripts/lint/plain-steps.mjs';

/** Areas may use these, and not each other: everything they share goes through the ledger. */
const LOWER = [
  'trials',
  'work',
  'fields',
  'composition',
  'gates',
  'entry',
  'units',
  'errors',
  'ledger',
  'workshop',
  'stats',
  'run',
  'record/',
];

const TYPED = ['{core,server,web,e2e,bench,attack}/**/*.{ts,tsx}'];

export default tseslint.config(
  { ignores: ['**/dist/', '**/node_modules/', 'data*/', 'web/public/', '.cache/', 'test-results/'] },
  ...tseslint.configs.recommended,
  // Rules that know the types: promises nobody waits for, what can never be so, what is no word.
  ...tseslint.configs.recommendedTypeCheckedOnly.map((config) => ({ ...config, files: TYPED })),
  {
    files: TYPED,
    languageOptions: {
      parserOptions: {
        projectService: true,
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: {
      // Numbers are written into sentences.
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true, allowBoolean: true }],
      '@typescript-eslint/no-deprecated': 'error',
      '@typescript-eslint/no-unnecessary-condition': 'error',
    },
  },
  {
    files: ['{core,server}/src/**/*.ts'],
    plugins: { ledger: { rules: { 'plain-steps': plainSteps } } },
    rules: { 'ledger/plain-steps': 'error' },
  },
  {
    files: ['**/*.{ts,tsx}'],
    rules: {
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', ignoreRestSiblings: true },
      ],
      '@typescript-eslint/consistent-type-imports': 'error',
      eqeqeq: ['error', 'always', { null: 'ignore' }],
      'no-console': 'error',
    },
  },
  // What a test expects of an answer is of no type.
  {
    files: ['**/test/**', 'e2e/**'],
    rules: { '@typescript-eslint/no-unsafe-assignment': 'off', '@typescript-eslint/no-unsafe-argument': 'off' },
  },
  // Tools doubt even what the types promise.
  { files: ['attack/**', 'bench/**'], rules: { '@typescript-eslint/no-unnecessary-condition': 'off' } },
  {
    files: ['core/src/**'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: ['react*', 'node:*', 'fastify*', 'drizzle*', '@electric-sql/*', '@wunsch/*'],
              message: 'The core is plain TypeScript: no interface, no server, no database.',
            },
          ],
        },
      ],
      'no-restricted-globals': ['error', 'window', 'document', 'process', 'fetch', 'localStorage'],
      'no-restricted-syntax': [
        'error',
        {
          selector: "CallExpression[callee.object.name='Math'][callee.property.name='random']",
          message: 'Chance is an argument.',
        },
        {
          selector: "CallExpression[callee.object.name='Date'][callee.property.name='now']",
          message: 'Time is an argument.',
        },
      ],
    },
  },
  // One station of the core never reaches into another: they meet in the ledger.
  ...['beans', 'sort', 'roast', 'winnow', 'grind', 'rest', 'temper', 'mould', 'pack', 'taste', 'money', 'recipe'].map(
    (area) => ({
      files: [`core/src/${area}/**`],
      rules: {
        'no-restricted-imports': [
          'error',
          {
            patterns: [
              {
                regex: `^\\.\\./(?!${LOWER.join('|')})`,
                message: 'Areas share through the ledger, not with each other.',
              },
              { group: ['react*', 'node:*', '@wunsch/*'], message: 'The core is plain TypeScript.' },
            ],
          },
        ],
      },
    }),
  ),
  {
    files: ['server/src/**'],
    rules: {
      'no-restricted-imports': [
        'error',
        { patterns: [{ group: ['react*', '**/web/**'], message: 'Imports run downward: server → core.' }] },
      ],
    },
  },
  {
    // SQL stays in the store.
    files: ['server/src/**'],
    ignores: ['server/src/store/**'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          paths: [{ name: 'drizzle-orm', message: 'SQL only in the store.' }],
          patterns: [{ group: ['react*', '**/web/**'], message: 'Imports run downward: server → core.' }],
        },
      ],
    },
  },
  {
    files: ['web/src/**'],
    plugins: { 'react-hooks': hooks },
    rules: {
      ...hooks.configs.recommended.rules,
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            { group: ['node:*', 'fastify*', 'drizzle*', '**/server/**'], message: 'Imports run downward: web → core.' },
          ],
        },
      ],
    },
  },
  { files: ['**/*.cjs'], rules: { '@typescript-eslint/no-require-imports': 'off' } },
);
