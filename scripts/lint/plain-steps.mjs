/** What tells a step of the ledger from other objects. */
const OWN = ['seq', 'order', 'postings', 'slots'];

const isStep = (type) =>
  (type.isUnion() ? type.types : [type]).some((one) => OWN.every((name) => one.getProperty(name) !== undefined));

const isCopied = (node) => node.type === 'CallExpression' && node.callee.name === 'plainStep';

/**
 * A step of the past has its fields from elsewhere: where it is spread, or taken apart with a rest, they are lost, and no
 * type says so. `plainStep` copies it.
 */
export const plainSteps = {
  meta: {
    type: 'problem',
    messages: { spread: 'A step loses what it has from elsewhere when it is spread: spread a plainStep of it.' },
    schema: [],
  },
  create: (context) => {
    const types = context.sourceCode.parserServices;
    const check = (node, from) => {
      if (from && !isCopied(from) && isStep(types.getTypeAtLocation(from)))
        context.report({ node, messageId: 'spread' });
    };
    return {
      'ObjectExpression > SpreadElement': (node) => check(node, node.argument),
      'VariableDeclarator > ObjectPattern > RestElement': (node) => check(node, node.parent.parent.init),
    };
  },
};
