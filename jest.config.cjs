const project = (name, environment = 'node') => ({
  displayName: name,
  rootDir: __dirname,
  testEnvironment: environment,
  testMatch: [`<rootDir>/${name}/test/**/*.test.{ts,tsx}`],
  transform: {
    '^.+\\.(ts|tsx|js|mjs)$': [
      '@swc/jest',
      {
        jsc: {
          target: 'es2022',
          parser: { syntax: 'typescript', tsx: true },
          transform: { react: { runtime: 'automatic' } },
        },
        module: { type: 'commonjs' },
      },
    ],
  },
  transformIgnorePatterns: [
    'node_modules/(?!(?:.*/)?(?:nanoid|cookie|ml-levenberg-marquardt|ml-savitzky-golay-generalized|is-any-array)/)',
  ],
  moduleNameMapper: { '^@wunsch/core/(.*)$': '<rootDir>/core/src/$1.ts' },
});

module.exports = {
  globalSetup: '<rootDir>/server/test/prepare.cjs',
  projects: [
    project('core', '<rootDir>/core/test/environment.cjs'),
    project('server'),
    { ...project('web'), setupFiles: ['<rootDir>/web/test/browser.cjs'] },
  ],
  testTimeout: 180000,
  maxWorkers: 2,
};
