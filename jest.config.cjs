const core = require('./core/package.json');
const server = require('./server/package.json');

/** Packages that are modules only: they are turned into what Jest loads. */
const MODULES_ONLY = ['nanoid', 'cookie', 'ml-levenberg-marquardt', 'ml-savitzky-golay-generalized', 'is-any-array'];

/** What is loaded once for all tests of a process. */
const ONCE = [
  ...Object.keys({ ...core.dependencies, ...server.dependencies }),
  ...['ajv', 'fast-check', 'pdfjs-dist', 'typescript'],
].filter((name) => ![...MODULES_ONLY, '@wunsch/core'].includes(name));

const swc = ['@swc/jest', require('./scripts/jest/swc.cjs')];

const project = (name) => ({
  displayName: name,
  rootDir: __dirname,
  setupFiles: ['<rootDir>/scripts/jest/one-after-another.cjs'],
  testMatch: [`<rootDir>/${name}/test/**/*.test.{ts,tsx}`],
  transform: { '^.+\\.(ts|tsx|js|mjs)$': swc },
  transformIgnorePatterns: [`node_modules/(?!(?:.*/)?(?:${MODULES_ONLY.join('|')})/)`],
  moduleNameMapper: { '^@wunsch/core/(.*)$': '<rootDir>/core/src/$1.ts' },
});

/** Tests without a page: in Node's own context, with packages that are loaded once. */
const plain = (name) => ({
  ...project(name),
  testEnvironment: '<rootDir>/scripts/jest/environment.cjs',
  transform: {
    '/(?:core|server)/src/.*\\.ts$': '<rootDir>/scripts/jest/own.cjs',
    [`/node_modules/(?:${ONCE.join('|')})/.*\\.c?js$`]: '<rootDir>/scripts/jest/packages.cjs',
    ...project(name).transform,
  },
  transformIgnorePatterns: [`node_modules/(?!(?:.*/)?(?:${[...MODULES_ONLY, ...ONCE].join('|')})/)`],
});

const withSetup = (given, file) => ({ ...given, setupFiles: [...given.setupFiles, file] });

module.exports = {
  projects: [
    plain('core'),
    withSetup(plain('server'), '<rootDir>/server/test/database-once.cjs'),
    {
      ...withSetup(project('web'), '<rootDir>/web/test/browser.cjs'),
      testEnvironment: 'node',
      moduleNameMapper: {
        ...project('web').moduleNameMapper,
        '^@phosphor-icons/react$': '<rootDir>/web/test/icons.cjs',
        '^csv-stringify/.*/sync$': '<rootDir>/node_modules/csv-stringify/dist/cjs/sync.cjs',
      },
    },
  ],
  testTimeout: 180000,
  maxWorkers: 2,
};
