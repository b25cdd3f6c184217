import { join } from 'node:path';
import { Linter } from 'eslint';
import ts from 'typescript';
import { parser, type FlatConfig } from 'typescript-eslint';
import { plainSteps } from '../../scripts/lint/plain-steps.mjs';

const FILE = join(__dirname, 'made-up.ts');
const BEFORE = `
interface Step { seq: number; order: number; postings: number[]; slots: object; at: number }
interface Other { seq: number; order: number }
declare const step: Step;
declare const maybe: Step | Other;
declare const other: Other;
declare const plainStep: (step: Step) => Step;
`;

/** Lines of a text that the rule finds something in. */
function found(text: string): string[] {
  const source = BEFORE + text;
  const host = ts.createCompilerHost({});
  const own = ts.createSourceFile(FILE, source, ts.ScriptTarget.ES2022, true);
  const program = ts.createProgram([FILE], { noLib: true }, { ...host, getSourceFile: () => own });
  const config: FlatConfig.Config = {
    files: ['**/*.ts'],
    plugins: { ledger: { rules: { 'plain-steps': plainSteps } } },
    languageOptions: { parser: parser, parserOptions: { programs: [program] } },
    rules: { 'ledger/plain-steps': 'error' },
  };
  const lines = source.split('\n');
  return new Linter({ cwd: __dirname })
    .verify(source, config as Linter.Config, FILE)
    .map(({ ruleId, message, line }) => (ruleId === null ? message : (lines[line - 1] ?? '')));
}

test.each(['const copy = { ...step };', 'const { at, ...rest } = step;', 'const either = { ...maybe, at: 1 };'])(
  'a step is not spread: %s',
  (line) => expect(found(line)).toEqual([line]),
);

test.each([
  'const copy = { ...plainStep(step), at: 1 };',
  'const { at, ...rest } = plainStep(step);',
  'const small = { ...other };',
  'const { at, seq } = step;',
  'const made = ({ ...rest }: Other) => rest;',
])('what is copied plainly may be, and what is no step: %s', (line) => expect(found(line)).toEqual([]));
