import { join } from 'node:path';
import ts from 'typescript';

/*
 * A step of the past has its fields from elsewhere: where it is spread, or taken apart with a rest, they are lost, and no
 * type says so. `plainStep` copies it.
 */

const SERVER = join(__dirname, '..');
const OWN = ['seq', 'order', 'postings', 'slots'];

const isStep = (type: ts.Type): boolean =>
  (type.isUnion() ? type.types : [type]).some((one) => OWN.every((name) => one.getProperty(name) !== undefined));

/** What is spread by an expression or a pattern; null where it spreads nothing. */
function spread(node: ts.Node): ts.Expression | undefined {
  if (ts.isSpreadAssignment(node)) return node.expression;
  const isRest = ts.isBindingElement(node) && node.dotDotDotToken && ts.isObjectBindingPattern(node.parent);
  if (!isRest) return undefined;
  const { parent } = node.parent;
  return ts.isVariableDeclaration(parent) ? parent.initializer : undefined;
}

const isCopied = (node: ts.Expression): boolean =>
  ts.isCallExpression(node) && node.expression.getText() === 'plainStep';

test('no step is spread but as a plain copy', () => {
  const read = ts.readConfigFile(join(SERVER, 'tsconfig.json'), (path) => ts.sys.readFile(path));
  const { fileNames, options } = ts.parseJsonConfigFileContent(read.config, ts.sys, SERVER);
  const sources = fileNames.filter((name) => name.includes('/src/'));
  const program = ts.createProgram(sources, options);
  const checker = program.getTypeChecker();
  const found: string[] = [];
  let seen = 0;
  for (const file of program.getSourceFiles()) {
    if (file.isDeclarationFile || !/\/(core|server)\/src\//.test(file.fileName)) continue;
    const visit = (node: ts.Node): void => {
      const from = spread(node);
      if (from && isStep(checker.getTypeAtLocation(from))) {
        seen += 1;
        if (!isCopied(from)) found.push(`${file.fileName}: ${node.getText(file)}`);
      }
      ts.forEachChild(node, visit);
    };
    visit(file);
  }
  expect(found).toEqual([]);
  expect(seen).toBeGreaterThan(2);
});
