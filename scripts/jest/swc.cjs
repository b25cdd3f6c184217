// What is done to TypeScript before it runs in tests: spreads become what they are in the program that is built.
const { env, assumptions } = require('../spreads.cjs');

module.exports = {
  env,
  jsc: {
    assumptions,
    parser: { syntax: 'typescript', tsx: true },
    transform: { react: { runtime: 'automatic' } },
  },
  module: { type: 'commonjs' },
};
