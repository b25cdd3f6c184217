import { join } from 'node:path';
import Ajv, { type ValidateFunction } from 'ajv';
import { answerAt, readAnswers } from '../src/http/openapi';

/* What is answered, held against its description: both are made from the same types, but only one of them by running. */

const all = readAnswers(join(__dirname, '../dist/answers.json'));
if (!all) throw new Error('npm run build describes the answers');
/** Schemas of answers by method and address. */
export const ANSWERS = all.answers;

const ajv = new Ajv({ strict: false, allErrors: false });
ajv.addSchema({ $id: 'all', components: { schemas: all.schemas } });
const compiled = new Map<object, ValidateFunction>();

function checkerOf(schema: object): ValidateFunction {
  const known = compiled.get(schema);
  if (known) return known;
  const absolute = JSON.parse(JSON.stringify(schema).replaceAll('"#/components', '"all#/components')) as object;
  const made = ajv.compile(absolute);
  compiled.set(schema, made);
  return made;
}

/** What of an answer is not as its description says; null where all of it is, or where none is described. */
export function notAsDescribed(method: string, url: string, body: unknown): string | null {
  const schema = answerAt(ANSWERS, `${method} ${url.replace(/\?.*/, '')}`);
  if (!schema) return null;
  const fits = checkerOf(schema);
  if (fits(body)) return null;
  const [{ instancePath = '', message = '' } = {}] = fits.errors ?? [];
  return `${method} ${url}: ${instancePath} ${message}`;
}
