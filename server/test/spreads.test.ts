import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { runInThisContext } from 'node:vm';
import { transformSync } from '@swc/core';
import ts from 'typescript';
import spreads from '../../scripts/spreads.cjs';

/* How `{ ...a, b }` is compiled: it has to mean the same. */

/** What an expression comes to, compiled as the server is. */
function meaning(expression: string): unknown {
  const { code } = transformSync(`(() => (${expression}))();`, {
    env: spreads.env,
    jsc: { assumptions: spreads.assumptions, parser: { syntax: 'ecmascript' } },
    isModule: false,
  });
  expect(code).not.toMatch(/\{\s*\.\.\./);
  return runInThisContext(code) as unknown;
}

const NATIVE = (expression: string): unknown => runInThisContext(`(${expression})`) as unknown;

test.each([
  '{ ...{ a: 1, b: 2 }, b: 3, c: 4 }',
  '{ a: 1, ...{ a: 2 }, ...{ a: 3, b: 4 } }',
  '{ a: 1, ...null, ...undefined, ...false }',
  '{ ...(1 > 0 ? { a: 1 } : {}), b: undefined }',
  '{ ..."ab" }',
  '{ ...[7, 8] }',
  '{ b: 1, ...{ a: 1 }, c: 2, a: 9 }',
  '{ ...{ get a() { return 5; } }, b: 1 }',
  '(({ a, ...rest }) => rest)({ a: 1, b: 2, c: { d: 3 } })',
  '(({ ["x" + 1]: a, ...rest }) => [a, rest])({ x1: 1, y: 2 })',
  '{ ...Object.create({ inherited: 1 }, { own: { value: 2, enumerable: true }, hidden: { value: 3 } }) }',
])('%s means what it says', (expression) => {
  expect(meaning(expression)).toEqual(NATIVE(expression));
  expect(JSON.stringify(meaning(expression))).toBe(JSON.stringify(NATIVE(expression)));
});

test('what is spread is not changed', () => {
  expect(meaning('((a) => [{ ...a, b: 2 }, { c: 3, ...a }, a])({ a: 1 })')).toEqual([
    { a: 1, b: 2 },
    { c: 3, a: 1 },
    { a: 1 },
  ]);
});

test('nothing is left as it was written in what the server runs of its own', () => {
  for (const name of ['main', 'thread']) {
    const source = ts.createSourceFile(
      name,
      readFileSync(join(__dirname, `../dist/own/${name}.js`), 'utf8'),
      ts.ScriptTarget.ES2022,
    );
    let left = 0;
    const look = (node: ts.Node): void => {
      if (ts.isSpreadAssignment(node)) left += 1;
      ts.forEachChild(node, look);
    };
    look(source);
    expect([name, left]).toEqual([name, 0]);
    expect(source.statements.length).toBeGreaterThan(100);
  }
});
